<script lang="ts">
	/** What a zone stands on that is not on faces: the first sentence of it. */
	import { isWithin } from '$core/project/paths';
	import type { Zone } from '$core/project/schema';
	import type { StandingOf } from '$core/project/standing-schema';
	import { below, pathTo, type Path } from '$core/project/typed-path';
	import { counted } from '$core/units/counted';
	import { formatLength } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import SeveralChip from '$lib/components/SeveralChip.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { webBarWords } from '../words';
	import { zoneActions } from '../zone-actions';
	import ZoneName from '../ZoneName.svelte';
	import ChainsWords from './ChainsWords.svelte';
	import DepthWords from './DepthWords.svelte';
	import { followsHeight } from './fresh';
	import PathWords from './PathWords.svelte';

	let { zone, number }: { zone: Zone; number: string } = $props();
	const desk = useDesk();
	const path = $derived(below(pathTo('zones', zone.id), 'on'));
	const on = $derived(zone.on);
	const { document } = $derived(desk.project);
	const problems = $derived(
		desk.model.view.problems.filter(({ at }) => isWithin(at, path) || at === pathTo('zones', zone.id, 'code'))
	);
	const faces = $derived(desk.model.view.zones.find(({ id }) => id === zone.id)?.faces ?? []);
	const effect = $derived.by(() => {
		if (on.is === 'web')
			return counted(
				faces.reduce((sum, { edges }) => sum + edges.count, 0),
				'line'
			);
		if (on.is !== 'path') return '';
		const whole = faces.reduce((sum, { grid }) => sum + grid.across.lengths.belt, 0);
		return `${faces.length > 1 ? `${faces.length} lines · ` : ''}${formatLength(whole, desk.display === 'ft-in' ? 'ft-in' : 'm', 1)}`;
	});
	const flagged = $derived(on.is === 'layer' && problems.some(({ at }) => at === path));
	/** Zones of some kinds, and the one that is named though it is gone. */
	const zonesThat = (are: readonly Zone['on']['is'][], now: string) => {
		const found = document.zones
			.filter((one) => one.id !== zone.id && are.includes(one.on.is))
			.map(({ id, name }) => ({ value: id, label: name }));
		return found.some(({ value }) => value === now)
			? found
			: [...found, { value: now, label: `${now} (gone)` }];
	};
	const follow = (layer: StandingOf<'layer'>) => ({
		label: 'Let its depth follow something',
		act: () => desk.set(path, { ...layer, depth: followsHeight }, `${zone.name}: its depth follows height`),
		disabled: typeof layer.depth === 'object' && 'It does already; the sentence says what'
	});
</script>

<Clause
	{number}
	{path}
	{problems}
	{effect}
	effectIsBad={flagged}
	actions={[...(on.is === 'layer' ? [follow(on)] : []), ...zoneActions(desk, zone)]}
>
	<ZoneName {zone} />,
	{#if on.is === 'layer'}
		lies along the normals of
		<ChoiceChip
			value={on.of}
			options={zonesThat(['faces'], on.of)}
			label="The grid before it"
			onchoose={(of) => desk.set(path, { ...on, of }, `${zone.name} behind another zone`)}
		/>
		<DepthWords
			depth={on.depth}
			path={below(path as string as Path<StandingOf<'layer'>>, 'depth')}
			zone={zone.id}
			of={zone.name}
		/>, <ChoiceChip
			value={on.shifted ? 'yes' : 'no'}
			options={[
				{ value: 'no', label: 'node behind node' },
				{ value: 'yes', label: 'shifted by half a step' }
			]}
			label="Whether it is shifted"
			onchoose={(next) =>
				desk.set(
					path,
					{ ...on, shifted: next === 'yes' },
					`${zone.name} ${next === 'yes' ? 'shifted' : 'node behind node'}`
				)}
		/><span class="full-stop">.</span>
	{:else if on.is === 'web'}
		joins the nodes of
		<ChoiceChip
			value={on.from}
			options={zonesThat(['faces', 'layer'], on.from)}
			label="The one grid"
			onchoose={(from) => desk.set(path, { ...on, from }, `${zone.name} from another grid`)}
		/>
		and
		<ChoiceChip
			value={on.to}
			options={zonesThat(['faces', 'layer'], on.to)}
			label="The other grid"
			onchoose={(to) => desk.set(path, { ...on, to }, `${zone.name} to another grid`)}
		/>
		by
		<SeveralChip
			values={on.bars}
			options={webBarWords}
			label="Which bars"
			empty="no bars"
			onchoose={(bars) => desk.set(path, { ...on, bars }, `${zone.name}: ${bars.join(', ') || 'no bars'}`)}
		/><span class="full-stop">.</span>
	{:else if on.is === 'chains'}
		<ChainsWords
			{zone}
			{on}
			path={path as string as Path<StandingOf<'chains'>>}
			grids={zonesThat(['faces', 'layer'], on.of)}
		/>
	{:else if on.is === 'path'}
		<PathWords {zone} {on} path={path as string as Path<StandingOf<'path'>>} />
	{/if}
</Clause>
