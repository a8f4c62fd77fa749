<script lang="ts">
	/** How far nodes may be moved, and what for; what came of it. */
	import type { Moves } from '$core/project/moves-schema';
	import type { Zone } from '$core/project/schema';
	import { below, pathTo } from '$core/project/typed-path';
	import { counted } from '$core/units/counted';
	import { formatNumber, formatQuantity } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import SeveralChip from '$lib/components/SeveralChip.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { listActions } from './list-actions';
	import { findAgain } from './moves-actions';

	let { zone, moves, number }: { zone: Zone; moves: Moves; number: string } = $props();
	const desk = useDesk();
	const path = $derived(pathTo('zones', zone.id, 'moves', moves.id));
	const wrong = $derived(desk.moves.problemOf(path));
	const problems = $derived([
		...desk.model.view.problems.filter(({ at }) => at.startsWith(path)),
		...(wrong ? [wrong] : [])
	]);
	const found = $derived(desk.moves.foundFor(path, moves));
	const isLooking = $derived(desk.moves.under === path);
	const moved = $derived(moves.faces.reduce((sum, { nodes }) => sum + nodes.length / 5, 0));
	const text = (mm: number) => formatQuantity(mm, 'length', desk.display);
	const kept = $derived((['rims', 'levels', 'openings'] as const).filter((what) => moves.keeps[what]));
	const keepOptions = [
		{ value: 'rims', label: 'rims' },
		{ value: 'levels', label: 'heights at levels' },
		{ value: 'openings', label: 'edges of openings' }
	];
	const flags = $derived(moves.aim === 'flat' || moves.aim === 'conical');
	/** What it came to, in sentences. */
	const said = $derived.by(() => {
		if (!found) return '';
		const { furthest, off, warp, warped, kinds, spread } = found;
		if (!found.moved)
			return moves.aim === 'alike'
				? 'No node is moved: no fewer kinds can be had so near. A longer way, or a larger tolerance of kinds, leaves more room.'
				: 'No node is moved: nothing would come out better so near. A longer way leaves more room.';
		const ways = `${counted(found.moved, 'node', 'nodes')} moved by up to ${text(furthest)}, ${text(off)} off the face`;
		if (moves.aim === 'alike')
			return `${formatNumber(kinds[0])} kinds before, ${formatNumber(kinds[1])} now; ${ways}. Made as the first of their kind, pieces leave joints that differ by up to ${text(spread)}.`;
		const left = warped[1]
			? `${counted(warped[1], 'cell stays', 'cells stay')} over ${text(moves.within)}, of ${formatNumber(warped[0])} before`
			: 'every cell is flat';
		return `The largest warp was ${text(warp[0])} and is ${text(warp[1])}: ${left}; ${ways}.`;
	});
	const why = $derived.by(() => {
		if (!found || !flags || !found.warped[1]) return '';
		const parts = [];
		if (found.onSaddle)
			parts.push(
				`${formatNumber(found.onSaddle)} of them lie where the face curves both ways: cells of four corners are flat there only where lines follow its main curvatures`
			);
		if (found.kept) parts.push(`${counted(found.kept, 'has', 'have')} no corner that may move`);
		return parts.length ? `${parts.join('; ')}.` : '';
	});
	const isMoved = $derived(moved > 0);
	const effect = $derived(
		isLooking
			? `${Math.round(100 * desk.moves.share)} %`
			: isMoved
				? `${formatNumber(moved)} moved`
				: 'none moved'
	);
	const cannotSee = $derived(moves.aim !== 'translation');
</script>

<Clause
	{number}
	{path}
	{problems}
	{effect}
	muted={moves.muted}
	actions={[
		...(moves.aim === 'survey'
			? []
			: [{ label: 'Find them anew', act: () => findAgain(desk, zone.id, moves.id) }]),
		...listActions(desk, zone, 'moves', moves)
	]}
>
	{#if moves.aim === 'survey'}Nodes stand where they were measured.{:else}Move nodes by at most <ValueChip
			path={below(path, 'most')}
			value={moves.most}
			kind="length"
			label="How far nodes may move"
			of={zone.name}
			step={5}
			min={0}
		/> so that <ChoiceChip
			value={moves.aim}
			options={[
				{ value: 'flat', label: 'cells are flat' },
				{ value: 'conical', label: 'cells are flat and bars of one depth meet' },
				{ value: 'translation', label: 'cells are parallelograms' },
				{ value: 'alike', label: 'fewer kinds are left' }
			]}
			label="What nodes are moved for"
			onchoose={(aim) => desk.set(below(path, 'aim'), aim, `${zone.name}: nodes moved for something else`)}
		/>{#if flags}{' '}within <ValueChip
				path={below(path, 'within')}
				value={moves.within}
				kind="length"
				label="What counts as flat"
				of={zone.name}
				step={0.5}
				min={0}
			/>{/if}{#if moves.aim === 'alike'}, <ChoiceChip
				value={moves.kinds === null ? 'few' : 'count'}
				options={[
					{ value: 'few', label: 'as few as can be' },
					{ value: 'count', label: 'about so many' }
				]}
				label="How many kinds"
				onchoose={(choice) =>
					desk.set(below(path, 'kinds'), choice === 'few' ? null : 12, `${zone.name}: how many kinds`)}
			/>{#if moves.kinds !== null}: <ValueChip
					path={below(path, 'kinds')}
					value={moves.kinds}
					kind="count"
					label="Kinds"
					of={zone.name}
					step={1}
					min={1}
				/>{/if}{/if}{#if cannotSee}, keeping <SeveralChip
				values={kept}
				options={keepOptions}
				label="What stays"
				empty="nothing"
				onchoose={(chosen) =>
					desk.set(
						below(path, 'keeps'),
						{
							rims: chosen.includes('rims'),
							levels: chosen.includes('levels'),
							openings: chosen.includes('openings')
						},
						`${zone.name}: what stays as nodes move`
					)}
			/>{/if}<span class="full-stop">.</span>{/if}
	{#snippet outcome()}<div data-testid="moves-found">
			{#if isLooking}<span role="status">looking for the best places …</span>
				<button type="button" class="text-patina-deep underline" onclick={() => desk.moves.end()}
					>end it</button
				>
			{:else}{#if said}<span role="status">{said}</span>{/if}{#if why}{' '}{why}{/if}
				{#if !said && !wrong && moves.aim !== 'survey'}{isMoved
						? 'As they were found with the settings before, or in an earlier session. '
						: 'Nothing is moved yet. '}<button
						type="button"
						class="text-patina-deep underline"
						onclick={() => findAgain(desk, zone.id, moves.id)}
						>{isMoved ? 'Find them anew' : 'Find the best places'}</button
					>{/if}{/if}
		</div>{/snippet}
</Clause>
