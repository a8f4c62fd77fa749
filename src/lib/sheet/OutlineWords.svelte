<script lang="ts">
	import type { OutlineDefinition } from '$core/project/form-schema';
	import { cornersOfOutline } from '$core/mass/drawn-curve';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import CurveChip from './CurveChip.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { below, type Path } from '$core/project/typed-path';

	let { outline, path, of }: { outline: OutlineDefinition; path: Path<OutlineDefinition>; of: string } =
		$props();
	const desk = useDesk();
	const shapes = [
		{ value: 'circle', label: 'a circle' },
		{ value: 'ellipse', label: 'an ellipse' },
		{ value: 'rectangle', label: 'a rectangle' },
		{ value: 'polygon', label: 'a polygon' },
		{ value: 'drawn', label: 'a drawn outline' }
	] as const;

	/** About the size it had, so that changing the shape changes nothing else. */
	const radius = $derived.by(() => {
		if (outline.shape === 'circle' || outline.shape === 'polygon') return outline.radius;
		if (outline.shape === 'drawn') return Math.max(1000, ...outline.points.map(([x, y]) => Math.hypot(x, y)));
		return outline.width / 2;
	});
	function choose(shape: OutlineDefinition['shape']) {
		const size = 2 * radius;
		const rounding = 'rounding' in outline ? outline.rounding : 0;
		const fresh: Record<OutlineDefinition['shape'], () => OutlineDefinition> = {
			circle: () => ({ shape: 'circle', radius }),
			ellipse: () => ({ shape: 'ellipse', width: size, depth: Math.round(size * 0.6) }),
			rectangle: () => ({ shape: 'rectangle', width: size, depth: Math.round(size * 0.6), rounding }),
			polygon: () => ({ shape: 'polygon', sides: 3, radius, rounding }),
			drawn: () => ({
				shape: 'drawn',
				points: cornersOfOutline(outline, path),
				joins: outline.shape === 'circle' || outline.shape === 'ellipse' ? 'smooth' : 'line',
				mirrored: false,
				rounding
			})
		};
		desk.set(path, fresh[shape](), `${of} outline ${shape}`);
	}
</script>

<ChoiceChip value={outline.shape} options={shapes} label="Outline of {of}" onchoose={choose} />
{#if outline.shape === 'circle'}
	of radius <ValueChip
		path={below(path, 'radius')}
		value={outline.radius}
		kind="length"
		label="Radius"
		{of}
		step={100}
		min={1}
	/>
{:else if outline.shape === 'polygon'}
	of <ValueChip
		path={below(path, 'sides')}
		value={outline.sides}
		kind="count"
		label="Sides"
		{of}
		min={3}
		max={120}
	/> sides,
	<ValueChip
		path={below(path, 'radius')}
		value={outline.radius}
		kind="length"
		label="Radius to the corners"
		{of}
		step={100}
		min={1}
	/> to the corners
{:else if outline.shape === 'drawn'}
	through <CurveChip
		curve={{
			path,
			label: `${of} outline`,
			points: outline.points,
			joins: outline.joins,
			axes: ['x', 'y'],
			closed: 'always',
			mirrored: outline.mirrored,
			arcs: true
		}}
	/>
{:else}
	<ValueChip
		path={below(path, 'width')}
		value={outline.width}
		kind="length"
		label="Width"
		{of}
		step={100}
		min={1}
	/> by
	<ValueChip
		path={below(path, 'depth')}
		value={outline.depth}
		kind="length"
		label="Depth"
		{of}
		step={100}
		min={1}
	/>
{/if}{#if 'rounding' in outline}, corners rounded by
	<ValueChip
		path={below(path, 'rounding')}
		value={outline.rounding}
		kind="length"
		label="Rounding"
		{of}
		step={50}
		min={0}
	/>{/if}
