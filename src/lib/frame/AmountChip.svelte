<script lang="ts">
	import { isAmount } from '$core/condition/amount';
	import type { Path } from '$core/project/typed-path';
	import type { NumberKind } from '$core/units/dimension';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import ValueChip from './ValueChip.svelte';

	/** An amount: a number that is dragged and typed, or a formula of named values. */
	interface Props {
		value: number | string;
		/** Where it stands in the document. */
		path: Path<number | string>;
		kind: NumberKind;
		label: string;
		/** Whose it is, for undo. */
		of: string;
		/** One step of a length (mm). */
		lengthStep?: number;
	}
	let { value, path, kind, label, of, lengthStep = 50 }: Props = $props();
	const desk = useDesk();
	const write = (text: string) => desk.set(path, text, `${of}: ${label.toLowerCase()} ${text}`);
	const step = $derived(
		kind === 'area' ? 50_000 : kind === 'ratio' ? 0.05 : kind === 'length' ? lengthStep : 1
	);
</script>

{#if typeof value === 'number'}<ValueChip
		path={path as string as Path<number>}
		takes={(text) => isAmount(text, kind, desk.named)}
		onformula={write}
		{value}
		{kind}
		{label}
		{of}
		{step}
	/>{:else}<TextChip {value} look="formula" {label} oncommit={write} />{/if}
