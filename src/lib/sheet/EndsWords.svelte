<script lang="ts">
	/** How the bars of a run end where others of it meet them. */
	import type { Ends } from '$core/cladding/cut-ends';
	import type { LineKind } from '$core/project/line-kinds';
	import { below, setAt, type Path } from '$core/project/typed-path';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { lineWords } from './words';

	interface Props {
		ends: Ends;
		path: Path<Ends | null>;
		/** The lines that it runs along. */
		lines: readonly LineKind[];
		of: string;
	}
	let { ends, path, lines, of }: Props = $props();
	const desk = useDesk();
	const words: Record<Ends['is'], string> = {
		mitred: 'mitred',
		'set back': 'set back',
		butted: 'butted'
	};
	const through = $derived(lines.find((kind) => kind !== 'rim') ?? 'bay');
	function choose(is: Ends['is']) {
		const { others } = ends;
		const next: Ends =
			is === 'mitred'
				? { is, others }
				: is === 'set back'
					? { is, by: 10, others }
					: { is, through, rims: true, others };
		desk.do(`${of}: ends ${words[is]}`, setAt(path, next));
	}
</script>

; ends <ChoiceChip
	value={ends.is}
	options={(['mitred', 'butted', 'set back'] as const).map((value) => ({ value, label: words[value] }))}
	label="How ends meet"
	onchoose={choose}
/>{#if ends.is === 'set back'}{' '}by <ValueChip
		path={below(path as string as Path<{ by: number }>, 'by')}
		value={ends.by}
		kind="length"
		label="Set back by"
		{of}
		step={5}
		min={0}
	/>{:else if ends.is === 'butted'}{' '}against <ChoiceChip
		value={ends.through}
		options={lineWords.filter(({ value }) => ends.others || lines.includes(value) || value === ends.through)}
		label="Lines that go through"
		onchoose={(kind) => desk.do(`${of}: ${kind} lines go through`, setAt(path, { ...ends, through: kind }))}
	/>{#if ends.through === 'bay' || ends.through === 'course'}{' '}and <ChoiceChip
			value={ends.rims ? 'so' : 'none'}
			options={[
				{ value: 'so', label: 'rims that run so' },
				{ value: 'none', label: 'no rims' }
			]}
			label="Whether rims go through with them"
			onchoose={(which) =>
				desk.do(
					`${of}: ${which === 'so' ? 'rims that run so' : 'no rims'} go through`,
					setAt(path, { ...ends, rims: which === 'so' })
				)}
		/>{/if}{/if} where <ChoiceChip
	value={ends.others ? 'any' : 'own'}
	options={[
		{ value: 'any', label: 'any bars' },
		{ value: 'own', label: 'bars of this clause' }
	]}
	label="Bars that ends meet"
	onchoose={(which) =>
		desk.do(
			`${of}: ends where ${which === 'any' ? 'any bars' : 'its own bars'} meet`,
			setAt(path, { ...ends, others: which === 'any' })
		)}
/> meet
<button
	type="button"
	class="text-ink-2 text-[12px] underline"
	aria-label="Ends as they are"
	onclick={() => desk.do(`${of}: ends at the nodes`, setAt(path, null))}>reset</button
>
