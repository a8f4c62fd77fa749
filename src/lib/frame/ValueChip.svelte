<script lang="ts">
	import { inRadians } from '$core/units/scale';
	import type { NumberKind } from '$core/units/dimension';
	import { formatQuantity } from '$core/units/quantity';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { setAt, type Path } from '$core/project/typed-path';

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
		takes?: (text: string) => boolean;
		onformula?: (text: string) => void;
	}
	let { path, value, kind, label, of, ...rest }: Props = $props();
	const desk = useDesk();
	const words = (number: number) =>
		formatQuantity(kind === 'angle' ? inRadians(number) : number, kind, desk.display);
</script>

<NumberChip
	{value}
	{kind}
	{label}
	display={desk.display}
	{...rest}
	onpreview={(next) => desk.project.preview(setAt(path, next))}
	onpreviewend={() => desk.project.dropPreview()}
	oncommit={(next, was) =>
		desk.set(path, next, `${of} ${label.toLowerCase()} ${words(was)} → ${words(next)}`)}
/>
