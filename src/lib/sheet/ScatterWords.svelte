<script lang="ts">
	import { fieldsOfSize, sizeInput } from '$core/driver/sizes';
	import type { Driver } from '$core/project/driver-schema';
	import type { PatternOf } from '$core/project/pattern-schema';
	import type { Zone } from '$core/project/schema';
	import { below, type Path } from '$core/project/typed-path';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { sheetBetween, type SheetsPer } from '$lib/edits/sheet-between';
	import type { Snippet } from 'svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import DriverWords from './drivers/DriverWords.svelte';

	/** The values of scattered cells: how many, how they fade near a guide or by a field, and the web between them. */
	interface Props {
		zone: Zone;
		pattern: PatternOf<'voronoi'>;
		path: Path<PatternOf<'voronoi'>>;
		/** A number of the pattern. */
		value: Snippet<
			[
				at: Path<number>,
				now: number,
				kind: 'count' | 'length' | 'ratio',
				label: string,
				step: number,
				min?: number
			]
		>;
	}
	let { zone, pattern, path, value }: Props = $props();
	const desk = useDesk();
	const NO_BLADES = { standing: false, sizes: { depth: 0, spacing: 0 } };
	const document = $derived(desk.project.document);
	const guides = $derived([
		{ value: '-', label: 'none' },
		...document.guides.map((guide) => ({ value: guide.id, label: guide.name }))
	]);
	function followGuide(guide: string) {
		const near =
			guide === '-'
				? null
				: { ...(pattern.near ?? { shrink: 0.4, grow: 0, round: 0.6, reach: 6000 }), guide };
		desk.set(below(path, 'near'), near, `${zone.name}: cells near ${guide === '-' ? 'no guide' : guide}`);
	}
	const per = $derived<SheetsPer>(!pattern.sheet ? 'none' : pattern.sheet.per === 'face' ? 'face' : 'panels');
	const sheets = [
		{ value: 'none', label: 'nothing' },
		{ value: 'face', label: 'one sheet for the face' },
		{ value: 'panels', label: 'sheets' }
	] as const;
	const between = (next: SheetsPer) =>
		desk.do(
			`${zone.name}: ${sheets.find(({ value }) => value === next)!.label} between cells`,
			...sheetBetween(document, zone, pattern, next)
		);
</script>

{@render value(below(path, 'count'), pattern.count, 'count', 'Voronoi cells', 10, 3)} of them, evened
{@render value(below(path, 'evening'), pattern.evening, 'count', 'Evening steps', 1)} times, edges of at least
{@render value(below(path, 'smallest'), pattern.smallest, 'length', 'Smallest edge', 10)}, a margin of
{@render value(below(path, 'margin'), pattern.margin, 'length', 'Margin', 5)}, seed
{@render value(below(path, 'seed'), pattern.seed, 'count', 'Seed', 1)}{#if document.guides.length}; near
	<ChoiceChip
		value={pattern.near?.guide ?? '-'}
		options={guides}
		label="Guide that cells follow"
		onchoose={followGuide}
	/>{#if pattern.near}{' '}
		they shrink by {@render value(
			below(path, 'near', 'shrink'),
			pattern.near.shrink,
			'ratio',
			'Shrink',
			0.05
		)}, are laid larger by {@render value(
			below(path, 'near', 'grow'),
			pattern.near.grow,
			'ratio',
			'Grow',
			0.1
		)} and round by
		{@render value(below(path, 'near', 'round'), pattern.near.round, 'ratio', 'Round', 0.05)} up to
		{@render value(below(path, 'near', 'reach'), pattern.near.reach, 'length', 'Reach', 500)} from it{/if}{/if}{#if typeof pattern.size === 'object'};
	their <DriverWords
		input={sizeInput}
		driver={pattern.size}
		path={below(path, 'size') as string as Path<Driver>}
		over="cell"
		fieldsFrom={fieldsOfSize}
		ways={['follows', 'alternates', 'chance']}
		blades={NO_BLADES}
		of="{zone.name} cells"
		zone={zone.id}
		onreset={() => desk.set(below(path, 'size'), 1, `${zone.name}: cells in their own size`)}
	/>{:else if pattern.size !== 1}; of
	{@render value(below(path, 'size') as string as Path<number>, pattern.size, 'ratio', 'Size', 0.05)} of their size{/if};
between them
<ChoiceChip
	value={per}
	options={sheets}
	label="What is between them"
	onchoose={between}
/>{#if pattern.sheet}{#if pattern.sheet.per !== 'face'}{' '}of
		{@render value(
			below(path, 'sheet', 'per', 'bays'),
			pattern.sheet.per.bays,
			'count',
			'Bays of a sheet',
			1,
			1
		)} by
		{@render value(
			below(path, 'sheet', 'per', 'courses'),
			pattern.sheet.per.courses,
			'count',
			'Courses of a sheet',
			1,
			1
		)} courses{/if}, plain for
	{@render value(below(path, 'sheet', 'plain'), pattern.sheet.plain, 'length', 'Plain rim', 5, 1)} along the rim,
	where cells are
	<ChoiceChip
		value={pattern.sheet.crossing}
		options={[
			{ value: 'cut', label: 'cut' },
			{ value: 'left out', label: 'left out' }
		]}
		label="Cells that reach into the plain rim"
		onchoose={(next) =>
			desk.set(below(path, 'sheet', 'crossing'), next, `${zone.name}: cells ${next} at rims`)}
	/>{/if}
