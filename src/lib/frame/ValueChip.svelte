<script lang="ts">
	import { isAmount } from '$core/condition/amount';
	import { inDegrees, inRadians } from '$core/units/scale';
	import type { NumberKind } from '$core/units/dimension';
	import { formatQuantity, parseQuantity } from '$core/units/quantity';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { insertAt, pathTo, removeAt, setAt, type Path } from '$core/project/typed-path';

	/** A number of the document; where a formula of named values is typed it follows that from then on. */
	interface Props {
		/** Where the number stands in the document. */
		path: Path<number>;
		value: number;
		kind: NumberKind;
		/** What it is, for its name and for undo. */
		label: string;
		/** Whose it is, for undo. */
		of: string;
		step?: number;
		min?: number;
		max?: number;
		wrong?: boolean;
		/** Where something else than a number may stand itself: what of it, and what is done with it. */
		takes?: (text: string) => boolean;
		onformula?: (text: string) => void;
	}
	let { path, value, kind, label, of, takes, onformula, ...rest }: Props = $props();
	const desk = useDesk();
	const words = (number: number) =>
		formatQuantity(kind === 'angle' ? inRadians(number) : number, kind, desk.display);
	const said = $derived(`${of} ${label.toLowerCase()}`);
	const bound = $derived(desk.bound.get(path));

	function follow(formula: string) {
		desk.do(
			`${said} ${formula}`.slice(0, 200),
			insertAt(pathTo('bound'), desk.project.document.bound.length, { id: path, kind, value: formula })
		);
	}
	/** A number as the document has it; null when it is none. */
	function numberIn(text: string): number | null {
		try {
			const read = parseQuantity(text, kind, desk.display);
			return kind === 'angle' ? inDegrees(read) : read;
		} catch {
			return null;
		}
	}
	function check(text: string): string | null {
		if (numberIn(text) !== null || isAmount(text, kind, desk.boundNames)) return null;
		return `${label} is a number, or a formula of named values and levels`;
	}
	function change(text: string) {
		const number = numberIn(text);
		if (number === null) desk.set(pathTo('bound', path, 'value'), text, `${said} ${text}`.slice(0, 200));
		else desk.do(`${said} ${words(number)}`, removeAt(pathTo('bound', path)), setAt(path, number));
	}
</script>

{#if bound === undefined}<NumberChip
		{value}
		{kind}
		{label}
		display={desk.display}
		{...rest}
		takes={takes ?? ((text) => numberIn(text) === null && isAmount(text, kind, desk.boundNames))}
		onformula={onformula ?? follow}
		onpreview={(next) => desk.project.preview(setAt(path, next))}
		onpreviewend={() => desk.project.dropPreview()}
		oncommit={(next, was) => desk.set(path, next, `${said} ${words(was)} → ${words(next)}`)}
	/>{:else}<TextChip value={bound} look="formula" {label} {check} oncommit={change} /><span
		class="figures text-ink-2 text-[12px]">{' '}= {words(value)}</span
	>{/if}
