<script lang="ts">
	import { tiesFor } from '$lib/edits/ties';
	import { balanced } from '$core/grid/spacing';
	import type { Spread } from '$core/grid/node-grid';
	import type { Spacing, Zone } from '$core/project/schema';
	import type { SettingOutInput } from '$core/project/setting-out-schema';
	import { formatLength, parseQuantity, rounded } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import { readList } from './lists';
	import StartChip from './StartChip.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { spacingWords } from './words';
	import { isWithin } from '$core/project/paths';
	import { below, pathTo } from '$core/project/typed-path';

	interface Props {
		zone: Zone;
		number: string;
		direction: 'across' | 'up';
	}
	let { zone, number, direction }: Props = $props();
	const desk = useDesk();

	const path = $derived(pathTo('zones', zone.id, 'settingOut', direction));
	const axis = $derived(direction === 'across' ? 0 : 1);
	const spacing = $derived(zone.settingOut[direction]);
	const shift = $derived(zone.settingOut.shift[axis]);
	/** A path is divided into gaps. */
	const isPath = $derived(zone.on.is === 'path');
	const what = $derived(isPath ? 'gaps' : direction === 'across' ? 'bays' : 'courses');
	const counted = (count: number) => (count === 1 ? what.slice(0, -1) : what);
	const display = $derived(desk.display);
	const spread = $derived<Spread | undefined>(
		desk.model.view.zones.find((one) => one.id === zone.id)?.faces[0]?.grid[direction]
	);
	const problems = $derived(desk.model.view.problems.filter(({ at }) => isWithin(at, path)));
	const of = $derived(`${zone.name} ${what}`);
	const wrong = $derived(problems.length > 0);

	/** A typical step, so that switching between ways of dividing keeps about the same grid. */
	const typical = $derived(spread ? Math.round(spread.lengths.belt / spread.steps / 10) * 10 || 100 : 1500);
	const size = $derived('size' in spacing ? spacing.size : typical);
	function chooseWay(by: Spacing['by']) {
		// Where a direction starts is known by the direction, not by the way it is divided.
		const start = ('start' in spacing ? spacing.start : direction === 'across' ? 'left' : 'foot') as 'middle';
		const fresh: Record<Spacing['by'], () => SettingOutInput['across'] | SettingOutInput['up']> = {
			count: () => ({ by: 'count', count: spread?.steps ?? 10 }),
			'at most': () => ({ by: 'at most', size }),
			'at least': () => ({ by: 'at least', size }),
			'exact size': () => ({ by: 'exact size', size, start }),
			list: () => ({
				by: 'list',
				sizes: [size, Math.max(100, Math.round(size / 4 / 50) * 50)],
				run: 'repeated',
				start
			}),
			parameters: () => ({ by: 'parameters', at: [0.25, 0.5, 0.75] }),
			levels: () => ({ by: 'levels', each: 1 })
		};
		desk.set(path, fresh[by](), `${of} ${spacingWords.find((word) => word.value === by)?.label}`);
	}
	const words = $derived.by(() => {
		const others = spacingWords.filter((word) => word.value !== 'levels');
		if (direction !== 'up') return others;
		const levels = spacingWords.filter((word) => word.value === 'levels');
		return desk.project.document.levels.length ? [...levels, ...others] : [...others, ...levels];
	});

	const effect = $derived.by(() => {
		if (!spread) return '';
		const { steps, lengths, division } = spread;
		const { first, last } = division.makeUp;
		const show = (mm: number) => formatLength(mm, display === 'mm' ? 'mm' : display, 0);
		const over =
			first && last && Math.abs(first - last) < 0.5
				? ` + 2 × ${show(first)}`
				: [first, last]
						.filter((mm) => mm > 0)
						.map((mm) => ` + ${show(mm)}`)
						.join('');
		if (spacing.by === 'count')
			return `${formatLength(lengths.belt / steps, display === 'mm' ? 'm' : display, 2)} each`;
		return `${steps} ${counted(steps)}${over}`;
	});
	/** The nearest size that leaves nothing over. */
	const even = $derived(
		spacing.by === 'exact size' && typeof spacing.start === 'string' && spread && spacing.size > 0
			? balanced(spacing.size, spread.lengths.belt, spacing.start)
			: null
	);
	const leaves = $derived(Boolean(spread && (spread.division.makeUp.first || spread.division.makeUp.last)));
	/** Zones that a change could be made in for this one too. */
	const ties = $derived(isPath ? [] : tiesFor(desk.project.document, zone));
	const actions = $derived([
		{
			label: 'Move the lines along',
			act: () =>
				desk.set(pathTo('zones', zone.id, 'settingOut', 'shift', axis), 100, `${of} moved by 100 mm`),
			disabled:
				(shift !== 0 && 'They are moved already; the amount stands in the sentence') ||
				((spacing.by === 'parameters' || spacing.by === 'levels') &&
					'Lines at levels or parameters lie where those are')
		},
		...(ties.length
			? [
					{
						label: 'Set it out as',
						acts: ties.map((other) => ({
							label: other.name,
							act: () =>
								desk.set(
									pathTo('zones', zone.id, 'setOutAs'),
									other.id,
									`${zone.name} set out as ${other.name}`
								)
						}))
					}
				]
			: [])
	]);
	/** Sizes as they are typed again. */
	const listOf = (values: readonly number[]) =>
		values.map((mm) => rounded(display === 'm' ? mm / 1000 : mm, 4)).join(', ');
	const lengths = (text: string) => readList(text, (one) => parseQuantity(one, 'length', display));
	const shares = (text: string) => readList(text, (one) => parseQuantity(one, 'ratio', display));
	const checkList = (text: string, read: (text: string) => number[] | string) => {
		const found = read(text);
		return typeof found === 'string' ? found : null;
	};
</script>

<Clause {number} {path} {problems} {effect} {actions}>
	{isPath ? 'Divide it' : `Split ${direction}`} into
	<ChoiceChip value={spacing.by} options={words} label="How {what} are divided" onchoose={chooseWay} />
	{#if spacing.by === 'count'}
		<ValueChip
			path={below(path, 'count')}
			value={spacing.count}
			kind="count"
			label={isPath ? 'Gaps' : direction === 'across' ? 'Bays' : 'Courses'}
			of={zone.name}
			min={1}
			{wrong}
		/>
		{counted(spacing.count)}{:else if spacing.by === 'list'}
		<TextChip
			value={listOf(spacing.sizes)}
			label="Sizes of {what}"
			look="formula"
			check={(text) => checkList(text, lengths)}
			oncommit={(text) => desk.set(below(path, 'sizes'), lengths(text) as number[], `${of} ${text}`)}
		/>
		<ChoiceChip
			value={spacing.run}
			options={[
				{ value: 'repeated', label: 'over and over' },
				{ value: 'once', label: 'once, then the rest' }
			]}
			label="How the sizes run"
			onchoose={(run) => desk.set(below(path, 'run'), run, `${of} ${run}`)}
		/>, starting from
		<StartChip
			start={spacing.start}
			path={below(path, 'start')}
			of={zone.name}
			{direction}
			{isPath}
			size={null}
			{spread}
		/>{:else if spacing.by === 'parameters'}
		<TextChip
			value={spacing.at.join(', ')}
			label="Parameters of {what}"
			look="formula"
			check={(text) => checkList(text, shares)}
			oncommit={(text) => desk.set(below(path, 'at'), shares(text) as number[], `${of} at ${text}`)}
		/>{:else if spacing.by === 'levels' && spacing.sizes}, each storey from its foot in
		<TextChip
			value={listOf(spacing.sizes)}
			look="formula"
			label="Steps of a storey"
			check={(text) => checkList(text, lengths)}
			oncommit={(text) =>
				desk.set(path, { ...spacing, sizes: lengths(text) as number[] }, `${of}: storeys in ${text}`)}
		/>, then the rest (<button
			type="button"
			class="text-patina-deep text-[12px] underline"
			onclick={() => desk.set(path, { by: 'levels', each: 1 }, `${of}: storeys evenly`)}>evenly</button
		>){:else if spacing.by === 'levels'}
		<ValueChip
			path={below(path, 'each')}
			value={spacing.each}
			kind="count"
			label="Courses from level to level"
			of={zone.name}
			min={1}
			max={200}
			{wrong}
		/>
		{spacing.each === 1 ? 'course' : 'courses'} from level to level (<button
			type="button"
			class="text-patina-deep text-[12px] underline"
			onclick={() => desk.set(path, { ...spacing, sizes: [2700, 900] }, `${of}: storeys in steps`)}
			>in steps</button
		>){:else}
		<ValueChip
			path={below(path, 'size')}
			value={spacing.size}
			kind="length"
			label="Size of {what}"
			of={zone.name}
			min={1}
			{wrong}
		/>{#if spacing.by === 'exact size'}, starting from
			<StartChip
				start={spacing.start}
				path={below(path, 'start')}
				of={zone.name}
				{direction}
				{isPath}
				size={spacing.size}
				{spread}
			/>{#if even && leaves}{' '}<button
					type="button"
					class="text-patina-deep font-sans text-[12px] underline"
					onclick={() =>
						desk.set(
							below(path, 'size'),
							Math.round(even.size * 1000) / 1000,
							`${of} balanced at ${formatLength(even.size, display)}`
						)}>Balance: {even.steps} × {formatLength(even.size, display, 1)}</button
				>{/if}{/if}{/if}{#if shift !== 0}, moved by <ValueChip
			path={pathTo('zones', zone.id, 'settingOut', 'shift', axis)}
			value={shift}
			kind="length"
			label="Lines moved by"
			of={zone.name}
			step={50}
		/>{/if}{#if spread?.closed}<span class="text-ink-2">; {isPath ? 'it' : 'the ring'} closes</span>{/if}<span
		class="full-stop">.</span
	>
</Clause>
