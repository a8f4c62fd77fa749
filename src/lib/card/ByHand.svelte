<script lang="ts">
	/** What is set by hand on the chosen cells, whatever the rules put there: how pieces lie, and values of them. */
	import { inputKind } from '$core/part/inputs';
	import { parseQuantity } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { adjustEdits, type Adjustment } from '$lib/edits/by-hand';
	import { partOfVariant } from '$lib/edits/variants-on';
	import { useDesk } from '$lib/state/desk.svelte';
	import { perPieceInputs } from '$lib/sheet/piece-values';
	import type { PieceView } from '$lib/state/pieces-at';

	interface Props {
		/** Of every chosen cell. */
		addresses: readonly string[];
		piece: PieceView;
		/** What is chosen, for undo. */
		what: string;
	}
	let { addresses, piece, what }: Props = $props();
	const desk = useDesk();
	const inputs = $derived(
		perPieceInputs(partOfVariant(desk.project.document, piece.group.variantId)).filter(
			(input) => inputKind(input) !== null
		)
	);
	let chosen = $state('');
	const input = $derived(inputs.find(({ name }) => name === chosen) ?? inputs[0]);
	const value = $derived.by(() => {
		if (!input) return '';
		const own = piece.group.perPiece.get(input.name)?.[piece.row];
		const kind = inputKind(input);
		if (own === undefined) return 'the variant’s';
		if (input.options) return input.options[Math.round(own) - 1]?.label ?? '';
		if (kind === 'angle') return `${Number(((own * 180) / Math.PI).toFixed(1))} deg`;
		if (kind === 'switch') return own ? 'true' : 'false';
		return `${Number(own.toFixed(kind === 'length' ? 1 : 3))}${kind === 'length' ? ' mm' : ''}`;
	});
	function check(text: string): string | null {
		if (!input || input.options?.some(({ name }) => name === text)) return null;
		const kind = inputKind(input);
		if (kind === 'switch') return /^(true|false)$/.test(text) ? null : 'true or false is wanted';
		try {
			parseQuantity(text, kind!, desk.display);
			return null;
		} catch (error) {
			return (error as Error).message;
		}
	}
	function adjust(change: Adjustment, said: string) {
		const changes = addresses.map((address) => [address, change] as const);
		const edits = adjustEdits(desk.project.document, changes, desk.model.view);
		if (edits.length) desk.do(`${what}: ${said} by hand`, ...edits);
	}
</script>

<p class="mt-1.5 flex flex-wrap items-center gap-1 text-[12px]">
	{#each [['turn', 'Turn', 'Turned on by a corner'], ['flip', 'Inside out', 'Its outside looks in, or out again'], ['mirror', 'Mirror', 'Right for left: the opposite hand']] as const as [key, label, title] (key)}
		<button
			type="button"
			class="border-hair hover:border-patina hover:text-patina-deep rounded border px-1.5 py-0.5"
			{title}
			onclick={() => adjust({ [key]: true }, label.toLowerCase())}>{label}</button
		>
	{/each}
</p>
{#if input}
	<p class="mt-1 text-[12px]">
		Set <ChoiceChip
			value={input.name}
			options={inputs.map(({ name, label }) => ({ value: name, label: label.toLowerCase() }))}
			label="Which value is set by hand"
			onchoose={(name) => (chosen = name)}
		/> to
		<TextChip
			{value}
			label="{input.label} by hand"
			look="formula"
			{check}
			oncommit={(text) => adjust({ values: { [input.name]: text } }, `${input.label.toLowerCase()} ${text}`)}
		/>
	</p>
{/if}
