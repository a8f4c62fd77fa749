<script lang="ts">
	import type { SectionDefinition } from '$core/project/form-schema';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import CurveChip from '../CurveChip.svelte';
	import HeightChip from '../HeightChip.svelte';
	import OutlineWords from '../OutlineWords.svelte';
	import PlaceChips from '../PlaceChips.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import type { FormOf } from '../words';
	import { below, insertAt, removeAt, type Path } from '$core/project/typed-path';

	let { form, path, of }: { form: FormOf<'lofted'>; path: Path<FormOf<'lofted'>>; of: string } = $props();
	const desk = useDesk();

	/** A further section: the last one again, as far on as the last step was. */
	function add() {
		const last = form.sections.at(-1)!;
		const before = form.sections.at(-2);
		let next: SectionDefinition;
		if ('outline' in last) {
			const step = (key: 'height') =>
				typeof last[key] === 'number' && before && 'outline' in before && typeof before[key] === 'number'
					? last[key] - before[key]
					: 3000;
			next =
				typeof last.height === 'number'
					? { ...last, height: last.height + step('height') }
					: { ...last, height: { ...last.height, plus: last.height.plus + 3000 } };
		} else {
			const other = before && !('outline' in before) ? before.points : null;
			const move = last.points[0]!.map((value, k) => (other ? value - other[0]![k]! : k === 1 ? 3000 : 0));
			next = {
				...last,
				points: last.points.map((p) => p.map((value, k) => value + move[k]!) as [number, number, number])
			};
		}
		desk.do(`${of}: section added`, insertAt(below(path, 'sections'), form.sections.length, next));
	}
	const remove = (k: number) =>
		desk.do(`${of}: section ${k + 1} removed`, removeAt(below(path, 'sections', k)));
</script>

<ChoiceChip
	value={form.between}
	options={[
		{ value: 'smooth', label: 'smoothly' },
		{ value: 'straight', label: 'straight' }
	]}
	label="Between sections of {of}"
	onchoose={(value) => desk.set(below(path, 'between'), value, `${of} ${value} between sections`)}
/> through {form.sections.length} sections: {#each form.sections as section, k (k)}
	{@const at = below(path, 'sections', k)}
	{#if 'outline' in section}
		<span class="block pl-4"
			>{k + 1}. <OutlineWords
				outline={section.outline}
				path={below(at, 'outline')}
				of="{of} section {k + 1}"
			/> at
			<HeightChip path={below(at, 'height')} value={section.height} label="Height of section {k + 1}" {of} />,
			over
			<PlaceChips path={below(at, 'at')} value={section.at} of="{of} section {k + 1}" />, turned
			<ValueChip
				path={below(at, 'turn')}
				value={section.turn}
				kind="angle"
				label="Turn of section {k + 1}"
				{of}
				step={5}
			/>, scaled
			<ValueChip
				path={below(at, 'scale', 0)}
				value={section.scale[0]}
				kind="ratio"
				label="Scale along x {k + 1}"
				{of}
				step={0.02}
			/> by
			<ValueChip
				path={below(at, 'scale', 1)}
				value={section.scale[1]}
				kind="ratio"
				label="Scale along y {k + 1}"
				{of}
				step={0.02}
			/>{#if form.sections.length > 2}{' '}<button
					type="button"
					class="text-ink-2 text-[12px] underline"
					onclick={() => remove(k)}>remove</button
				>{/if}</span
		>
	{:else}
		<CurveChip
			short={String(k + 1)}
			curve={{
				path: at,
				label: `${of} section ${k + 1}`,
				points: section.points,
				joins: section.joins,
				axes: ['x', 'y', 'z'],
				closed: section.closed,
				arcs: false
			}}
		/>{' '}
	{/if}
{/each}<button type="button" class="text-patina-deep text-[12px] underline" onclick={add}>section</button>
