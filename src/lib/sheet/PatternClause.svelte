<script lang="ts">
	import { counted } from '$core/units/counted';
	import type { Zone } from '$core/project/schema';
	import PictureChip from '$lib/components/PictureChip.svelte';
	import { patternLines } from '$lib/pattern/pattern-picture';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import TileDrawer from '$lib/pattern/TileDrawer.svelte';
	import { newTile } from '$lib/edits/tiles';
	import type { PatternChoice, PatternOf } from '$core/project/pattern-schema';
	import { patternValue, patternWords } from '$lib/pattern/pattern-words';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import ScatterWords from './ScatterWords.svelte';
	import { moveOffers } from './moves-actions';
	import { isWithin } from '$core/project/paths';
	import { below, insertAt, pathTo, setAt, type Path } from '$core/project/typed-path';

	/** How nodes are joined to cells, with the values of that pattern. */
	let { zone, number, oncompare }: { zone: Zone; number: string; oncompare: () => void } = $props();
	const desk = useDesk();
	const zonePath = $derived(pathTo('zones', zone.id));
	const path = $derived(below(zonePath, 'pattern'));
	const pattern = $derived(zone.pattern);
	const document = $derived(desk.project.document);
	const tile = $derived(
		pattern.kind === 'tile' ? document.tiles.find((one) => one.id === pattern.tile) : undefined
	);
	const problems = $derived(
		desk.model.view.problems.filter(
			({ at }) => at === zonePath || isWithin(at, path) || (tile && at.startsWith(pathTo('tiles', tile.id)))
		)
	);
	const faces = $derived(desk.model.view.zones.find((one) => one.id === zone.id)?.faces ?? []);
	const cells = $derived(faces.reduce((sum, face) => sum + face.cells.count, 0));
	/** How many different ones they are. */
	const kinds = $derived(
		cells ? desk.kinds.countIn(desk.model.view.zones.findIndex(({ id }) => id === zone.id)) : null
	);
	const options = $derived([
		...patternWords.map(({ value, label }) => ({ value, label })),
		...document.tiles.map((one) => ({ value: `tile ${one.id}`, label: `tile ${one.name}` })),
		...(pattern.kind === 'tile' && !tile
			? [{ value: `tile ${pattern.tile}`, label: `tile ${pattern.tile} (gone)` }]
			: [])
	]);
	let drawing = $state(false);

	const choiceOf = (value: string): PatternChoice | undefined =>
		value.startsWith('tile ')
			? { kind: 'tile', tile: value.slice(5) }
			: patternWords.find((word) => word.value === value)?.choice;
	let isOpen = $state(false);
	/** As pictures, put together while the list is shown. */
	const pictured = $derived.by(() => {
		if (!isOpen) return [];
		const { tiles } = document;
		const shown = options.map(({ value, label }) => {
			const choice = choiceOf(value);
			return { value, label, lines: choice && patternLines(choice, tiles) };
		});
		const isTile = ({ value }: { value: string }) => value.startsWith('tile ');
		return [
			{ title: 'Tiles of this project', options: shown.filter(isTile) },
			{ title: 'Patterns', options: shown.filter((one) => !isTile(one)) }
		];
	});
	let looked = false;
	/** Show a pattern on the zone before it is chosen. */
	function look(value: string | null) {
		const choice = value === null ? undefined : choiceOf(value);
		if (choice) desk.project.preview(setAt(path, choice));
		else if (looked) desk.project.dropPreview();
		looked = choice !== undefined;
	}
	function choose(value: string) {
		look(null);
		const choice = choiceOf(value);
		if (!choice) return;
		desk.set(path, choice, `${zone.name} in ${options.find((one) => one.value === value)?.label ?? value}`);
	}
	/** A tile of one's own, starting from the pattern there is where it is a tile. */
	function drawTile() {
		const fresh = newTile(pattern, document.tiles);
		const done = desk.do(
			`${zone.name} in a tile of its own`,
			insertAt(pathTo('tiles'), document.tiles.length, fresh),
			setAt(path, { kind: 'tile', tile: fresh.id })
		);
		if (done) drawing = true;
	}
	const actions = $derived([
		{
			label: 'Compare settings …',
			act: oncompare,
			disabled: zone.on.is !== 'faces' && 'It is divided as the zone before it, where settings are compared'
		},
		...(zone.on.is === 'faces' ? moveOffers(desk, zone) : []),
		{ label: 'Draw a tile of its own …', act: drawTile },
		{
			label: 'Treat slivers',
			act: () =>
				desk.set(below(zonePath, 'slivers'), { under: 50_000, put: 'merge' }, `${zone.name}: slivers joined`),
			disabled: zone.slivers !== null && 'They are treated by a clause of their own'
		},
		...(pattern.kind === 'voronoi'
			? [
					{
						label: 'Let the size of cells follow something',
						act: () =>
							desk.set(
								below(path as string as Path<PatternOf<'voronoi'>>, 'size'),
								{
									is: 'follows',
									field: 'up',
									from: [0, 1],
									to: [1, 0.1],
									curve: [],
									steps: null,
									outside: 'held'
								},
								`${zone.name}: the size of cells follows how far up they are`
							),
						disabled: typeof pattern.size === 'object' && 'It does already; the sentence says what'
					}
				]
			: []),
		{
			label: 'Add a second grid that blocks fill up to',
			act: () =>
				desk.set(below(zonePath, 'layer'), { depth: '-600 mm', shifted: false }, `${zone.name}: a layer`),
			disabled: zone.layer !== null && 'There is one already'
		}
	]);
</script>

{#snippet value(
	place: Path<number>,
	now: number,
	kind: 'count' | 'length' | 'ratio',
	label: string,
	step: number,
	min = 0
)}
	<ValueChip path={place} value={now} {kind} {label} of={zone.name} {step} {min} />
{/snippet}

<Clause
	{number}
	{path}
	{problems}
	{actions}
	effect="{counted(cells, 'cell')}{kinds === null ? '' : `, ${counted(kinds, 'kind')}`}"
>
	Join as
	<PictureChip
		value={patternValue(pattern)}
		shown={options.find(({ value }) => value === patternValue(pattern))?.label ?? patternValue(pattern)}
		groups={pictured}
		label="Pattern"
		wrong={problems.length > 0}
		onchoose={choose}
		onlook={look}
		onopen={(open) => (isOpen = open)}
	/>{#if pattern.kind === 'running bond'}, each course moved by
		{@render value(below(path, 'offset'), pattern.offset, 'ratio', 'Offset in bays', 0.05)} bays, <ChoiceChip
			value={pattern.way}
			options={[
				{ value: 'back and forth', label: 'back and forth' },
				{ value: 'onward', label: 'on and on' }
			]}
			label="Which way courses move"
			onchoose={(way) => desk.set(below(path, 'way'), way, `${zone.name}: courses ${way}`)}
		/>{:else if pattern.kind === 'undulating'}, a wave every
		{@render value(below(path, 'bays'), pattern.bays, 'count', 'Bays of a wave', 1, 2)} bays, rising by
		{@render value(below(path, 'rise'), pattern.rise, 'ratio', 'Rise in courses', 0.1)}
		{pattern.rise === 1 ? 'course' : 'courses'}{:else if pattern.kind === 'random splits'},
		<ChoiceChip
			value={pattern.along}
			options={[
				{ value: 'both', label: 'across and up' },
				{ value: 'across', label: 'across only' },
				{ value: 'up', label: 'up only' }
			]}
			label="Which way they are split"
			onchoose={(along) => desk.set(below(path, 'along'), along, `${zone.name} split ${along}`)}
		/>, with a chance of {@render value(below(path, 'often'), pattern.often, 'ratio', 'How often', 0.05)},
		none under
		{@render value(below(path, 'smallest'), pattern.smallest, 'length', 'Smallest size', 50, 1)}, seed
		{@render value(
			below(path, 'seed'),
			pattern.seed,
			'count',
			'Seed',
			1
		)}{:else if pattern.kind === 'voronoi'},
		<ScatterWords
			{zone}
			{pattern}
			{value}
			path={path as string as Path<PatternOf<'voronoi'>>}
		/>{:else if tile}{' '}<button
			type="button"
			class="text-patina-deep font-sans text-[12px] underline"
			onclick={() => (drawing = true)}>draw it</button
		>{/if}.{#if zone.on.is === 'faces'}{' '}<button
			type="button"
			class="chip-offer"
			data-aside
			title="Other settings side by side: pieces, kinds, warp, metres, mass, flags, cost"
			onclick={oncompare}>compare</button
		>{/if}
</Clause>
{#if tile}<TileDrawer {tile} bind:open={drawing} />{/if}
