<script lang="ts">
	/** What a path runs along, and where beside it. */
	import type { Zone } from '$core/project/schema';
	import type { StandingOf } from '$core/project/standing-schema';
	import { below, type Path } from '$core/project/typed-path';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { pathRimWords } from '../words';

	interface Props {
		zone: Zone;
		on: StandingOf<'path'>;
		path: Path<StandingOf<'path'>>;
	}
	let { zone, on, path }: Props = $props();
	const desk = useDesk();
	const { along } = $derived(on);
	const { document } = $derived(desk.project);
	const ways = $derived([
		{ value: 'rim', label: 'rims' },
		{ value: 'course', label: 'a course line' },
		{ value: 'bay', label: 'a bay line' },
		{ value: 'section', label: 'a level section' },
		...document.guides.map(({ id, name }) => ({ value: `guide ${id}`, label: `guide ${name}` })),
		...(along.is === 'guide' && !document.guides.some(({ id }) => id === along.guide)
			? [{ value: `guide ${along.guide}`, label: `guide ${along.guide} (gone)` }]
			: [])
	]);
	const way = $derived(
		along.is === 'guide' ? `guide ${along.guide}` : along.is === 'line' ? along.along : along.is
	);
	const grids = $derived(document.zones.filter(({ on: { is } }) => is === 'faces' || is === 'layer'));
	const of = $derived(along.is === 'guide' ? (grids[0]?.id ?? '') : along.of);
	const set = (next: StandingOf<'path'>['along'], said: string) =>
		desk.set(path, { ...on, along: next }, `${zone.name} along ${said}`);
	function choose(next: string) {
		const label = ways.find(({ value }) => value === next)?.label ?? next;
		if (next === 'rim') set({ is: 'rim', of, side: 'foot' }, label);
		else if (next === 'section')
			set({ is: 'section', of, level: document.levels[0]?.id ?? null, plus: 1000 }, label);
		else if (next === 'course' || next === 'bay') set({ is: 'line', of, along: next, number: 1 }, label);
		else
			set(
				{
					is: 'guide',
					guide: next.slice('guide '.length),
					towards: along.is === 'guide' ? along.towards : null
				},
				label
			);
	}
	const offset = $derived(on.lift !== 0 || on.aside !== 0);
</script>

stands along
<ChoiceChip value={way} options={ways} label="What it runs along" onchoose={choose} />
{#if along.is === 'rim'}
	<ChoiceChip
		value={along.side}
		options={pathRimWords}
		label="Which rims"
		onchoose={(side) => set({ ...along, side }, `the rims ${side}`)}
	/>
{:else if along.is === 'section'}
	<ValueChip
		path={below(path as string as Path<{ along: { plus: number } }>, 'along', 'plus')}
		value={along.plus}
		kind="length"
		label="Height of the section"
		of={zone.name}
		step={100}
	/>
	above
	<ChoiceChip
		value={along.level ?? ''}
		options={[
			{ value: '', label: 'nought' },
			...document.levels.map(({ id, name }) => ({ value: id, label: name })),
			...(along.level && !document.levels.some(({ id }) => id === along.level)
				? [{ value: along.level, label: `${along.level} (gone)` }]
				: [])
		]}
		label="Level of the section"
		onchoose={(level) => set({ ...along, level: level || null }, 'another level')}
	/>
{:else if along.is === 'line'}
	<ValueChip
		path={below(path as string as Path<{ along: { number: number } }>, 'along', 'number')}
		value={along.number}
		kind="count"
		label="Number of the line"
		of={zone.name}
	/>
{/if}
{#if along.is === 'guide' && along.towards}
	{@const { towards } = along}
	led <ValueChip
		path={below(
			path as string as Path<{ along: { towards: { share: number } } }>,
			'along',
			'towards',
			'share'
		)}
		value={towards.share}
		kind="ratio"
		label="Share of the way to the faces"
		of={zone.name}
		step={0.05}
		min={0}
		max={1}
	/> of the way to the faces of <ChoiceChip
		value={towards.of}
		options={grids.some(({ id }) => id === towards.of)
			? grids.map(({ id, name }) => ({ value: id, label: name }))
			: [{ value: towards.of, label: `${towards.of} (gone)` }]}
		label="Whose faces it is led to"
		onchoose={(next) => set({ ...along, towards: { ...towards, of: next } }, 'led to another zone')}
	/>{/if}
{#if along.is !== 'guide'}
	of
	<ChoiceChip
		value={along.of}
		options={grids.some(({ id }) => id === along.of)
			? grids.map(({ id, name }) => ({ value: id, label: name }))
			: [{ value: along.of, label: `${along.of} (gone)` }]}
		label="Whose line it is"
		onchoose={(next) => set({ ...along, of: next }, 'another zone')}
	/>{/if}{#if offset}, lifted
	<ValueChip path={below(path, 'lift')} value={on.lift} kind="length" label="Lift" of={zone.name} step={50} />
	and
	<ValueChip
		path={below(path, 'aside')}
		value={on.aside}
		kind="length"
		label="Aside"
		of={zone.name}
		step={50}
	/>
	to the left of its run{/if}, <ChoiceChip
	value={on.turned}
	options={[
		{ value: 'with the face', label: 'leaning with the face' },
		{ value: 'upright', label: 'upright' }
	]}
	label="How stations stand"
	onchoose={(turned) => desk.set(path, { ...on, turned }, `${zone.name} ${turned}`)}
/><span class="full-stop">.</span>
{#if !offset}<button
		type="button"
		class="text-patina-deep font-sans text-[12px] underline"
		onclick={() => desk.set(path, { ...on, lift: 100 }, `${zone.name} lifted by 100 mm`)}
		>move it off the line</button
	>{/if}
{#if along.is === 'guide' && grids[0]}{' '}<button
		type="button"
		class="text-patina-deep font-sans text-[12px] underline"
		onclick={() =>
			set(
				{ ...along, towards: along.towards ? null : { of: grids[0]!.id, share: 1 } },
				along.towards ? 'as it is drawn' : `led to the faces of ${grids[0]!.name}`
			)}>{along.towards ? 'leave it as it is drawn' : 'lead it to a face'}</button
	>{/if}
