<script lang="ts">
	import { makeUpFor } from '$core/grid/spacing';
	import type { Spread } from '$core/grid/set-out';
	import type { Spacing, Zone } from '$core/project/schema';
	import { formatLength, formatNumber } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import { useWorkbench } from '$lib/state/workbench.svelte';
	import Clause from './Clause.svelte';
	import { spacingWords } from './words';

	interface Props {
		zone: Zone;
		number: string;
		direction: 'across' | 'up';
	}
	let { zone, number, direction }: Props = $props();
	const workbench = useWorkbench();

	const path = $derived(`zones/${zone.id}/settingOut/${direction}`);
	const spacing = $derived(zone.settingOut[direction]);
	const what = $derived(direction === 'across' ? 'bays' : 'courses');
	const display = $derived(workbench.display);
	const spread = $derived<Spread | undefined>(
		workbench.model.view.zones.find((one) => one.id === zone.id)?.faces[0]?.[direction]
	);
	const problems = $derived(
		workbench.model.view.problems.filter(
			(problem) => problem.at === path || problem.at === `zones/${zone.id}/settingOut`
		)
	);
	const starts = $derived<readonly string[]>(
		direction === 'across' ? ['left', 'middle', 'right'] : ['foot', 'middle', 'head']
	);
	const startSide: Record<string, 'first' | 'middle' | 'last'> = {
		left: 'first',
		foot: 'first',
		middle: 'middle',
		right: 'last',
		head: 'last'
	};

	/** What each start line would leave over, shown before it is chosen. */
	function makeUpNote(start: string): string {
		if (spacing.by !== 'exact size' || !spread || spacing.size <= 0) return '';
		const { first, last } = makeUpFor(spacing.size, spread.lengths.belt, startSide[start]!);
		if (!first && !last) return 'no make-up';
		if (first && last) return `make-up 2 × ${formatLength(first, display, 0)}`;
		return `make-up ${formatLength(first || last, display, 0)}`;
	}

	/** A typical step, so that switching between ways of dividing keeps about the same grid. */
	const typical = $derived(spread ? Math.round(spread.lengths.belt / spread.steps / 10) * 10 || 100 : 1500);
	function chooseWay(by: Spacing['by']) {
		const value: Spacing =
			by === 'count'
				? { by, count: spread?.steps ?? 10 }
				: by === 'at most'
					? { by, size: spacing.by === 'count' ? typical : spacing.size }
					: {
							by,
							size: spacing.by === 'count' ? typical : spacing.size,
							start: direction === 'across' ? 'left' : 'foot'
						};
		workbench.set(
			path,
			value,
			`${zone.name} ${what} ${spacingWords.find((word) => word.value === by)?.label}`
		);
	}
	const preview = (key: 'count' | 'size') => (value: number) =>
		workbench.project.preview({ do: 'set', path: `${path}/${key}`, value });

	const effect = $derived.by(() => {
		if (!spread) return '';
		const { steps, lengths, division } = spread;
		const size = spacing.by === 'exact size' ? spacing.size : lengths.belt / steps;
		const { first, last } = division.makeUp;
		const over =
			first || last
				? ` + ${first && last ? '2 × ' : ''}${formatLength(first || last, display === 'mm' ? 'mm' : display, 0)}`
				: '';
		if (spacing.by === 'count') return `${formatLength(size, display === 'mm' ? 'm' : display, 2)} each`;
		return `${steps} ${what}${over}`;
	});
</script>

<Clause {number} {path} {problems} {effect}>
	Split {direction} into
	<ChoiceChip value={spacing.by} options={spacingWords} label="How {what} are divided" onchoose={chooseWay} />
	{#if spacing.by === 'count'}
		<NumberChip
			value={spacing.count}
			kind="count"
			label={direction === 'across' ? 'Bays' : 'Courses'}
			min={1}
			wrong={problems.length > 0}
			onpreview={preview('count')}
			onpreviewend={() => workbench.project.dropPreview()}
			oncommit={(value, was) =>
				workbench.set(
					`${path}/count`,
					value,
					`${zone.name} ${what} ${formatNumber(was)} → ${formatNumber(value)}`
				)}
		/>
		{what}{:else}
		<NumberChip
			value={spacing.size}
			kind="length"
			{display}
			label="Size of {what}"
			min={1}
			wrong={problems.length > 0}
			onpreview={preview('size')}
			onpreviewend={() => workbench.project.dropPreview()}
			oncommit={(value, was) =>
				workbench.set(
					`${path}/size`,
					value,
					`${zone.name} ${what} ${formatLength(was, display)} → ${formatLength(value, display)}`
				)}
		/>{#if spacing.by === 'exact size'}, starting from the
			<ChoiceChip
				value={spacing.start}
				options={starts.map((start) => ({ value: start, label: start, note: makeUpNote(start) }))}
				label="Start line of {what}"
				onchoose={(start) => workbench.set(`${path}/start`, start, `${zone.name} start line ${start}`)}
			/>{/if}{/if}{#if spread?.closed}<span class="text-ink-2">; the ring closes</span
		>{/if}{#if direction === 'up'}, by
		<ChoiceChip
			value={zone.settingOut.along}
			options={[
				{ value: 'true length', label: 'even true length' },
				{ value: 'own parameter', label: "the surface's own parameter" }
			]}
			label="Measured by"
			onchoose={(along) =>
				workbench.set(`zones/${zone.id}/settingOut/along`, along, `${zone.name} by ${along}`)}
		/>{/if}.
</Clause>
