<script lang="ts">
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import { dragging } from '$lib/components/drag';
	import type { Vector } from '$core/geometry/vector';
	import type { Section } from '$core/project/view-schema';
	import { formatLength } from '$core/units/quantity';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { ModelScene } from './scene';

	/** Where the model is cut open: a frame in the picture that is dragged, and a sentence. */
	interface Props {
		scene: ModelScene;
		section: Section;
		project: (point: Vector) => { x: number; y: number } | null;
		/** Where the picture hangs. */
		wall: HTMLElement;
	}
	let { scene, section, project, wall }: Props = $props();

	const desk = useDesk();
	const ring = $derived(scene.sectionRing(section));
	const seen = $derived(ring.flatMap((corner) => project(corner) ?? []));
	/** It is dragged by the corner that is lowest in the picture, where it covers least. */
	const held = $derived(
		seen.length === 4 ? seen.reduce((best, one, k) => (one.y > seen[best]!.y ? k : best), 0) : -1
	);
	const ways = [
		{ value: 'z', label: 'at a height' },
		{ value: 'x', label: 'across x' },
		{ value: 'y', label: 'across y' }
	] as const;
	const sides = [
		{ value: 'low', label: 'what is below' },
		{ value: 'high', label: 'what is above' }
	] as const;
	const sidesAcross = [
		{ value: 'low', label: 'what is before it' },
		{ value: 'high', label: 'what is behind it' }
	] as const;
	const set = (part: Partial<Section>) => (desk.section = { ...section, ...part });
	const STEP = 100;

	function drag(event: PointerEvent) {
		const box = wall.getBoundingClientRect();
		const at = scene.slide(section, ring[held]!, event.clientX - box.left, event.clientY - box.top);
		set({ at: Math.round(at / 10) * 10 });
	}
	function step(event: KeyboardEvent) {
		const way = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
		if (!way) return;
		event.preventDefault();
		event.stopPropagation();
		set({ at: section.at + way * STEP });
	}
</script>

<svg class="pointer-events-none absolute inset-0 size-full" aria-hidden="true">
	<polygon
		points={seen.map(({ x, y }) => `${x},${y}`).join(' ')}
		fill="#1f7a6b"
		fill-opacity="0.05"
		stroke="#1f7a6b"
		stroke-width="1.2"
		stroke-dasharray="7 4 1 4"
	/>
</svg>
{#if held >= 0}
	<div
		class="border-patina bg-sheet absolute z-[6] size-4 -translate-x-1/2 -translate-y-1/2 cursor-grab touch-none rounded-full border-2"
		style:left="{Math.max(10, Math.min(wall.clientWidth - 10, seen[held]!.x))}px"
		style:top="{Math.max(10, Math.min(wall.clientHeight - 54, seen[held]!.y))}px"
		role="slider"
		tabindex="0"
		aria-label="Section"
		aria-valuenow={section.at}
		aria-valuetext={formatLength(section.at, desk.display)}
		data-testid="section-handle"
		onkeydown={step}
		{@attach dragging({ begin: () => true, move: drag, end: drag, cancel: () => undefined })}
	></div>
{/if}
<p
	class="floating sentence absolute bottom-12 left-3.5 z-10 flex items-baseline gap-1.5 px-3 py-1"
	data-testid="section"
>
	Cut
	<ChoiceChip
		value={section.axis}
		options={ways}
		label="Cut"
		onchoose={(axis) => set({ axis, at: Math.round(scene.middle(axis) / 10) * 10 })}
	/>
	<NumberChip
		value={section.at}
		kind="length"
		display={desk.display}
		label="Place of the section"
		step={STEP}
		onpreview={(at) => set({ at })}
		oncommit={(at) => set({ at })}
	/>
	<span>and leave</span>
	<ChoiceChip
		value={section.keeps}
		options={section.axis === 'z' ? sides : sidesAcross}
		label="Leave"
		onchoose={(keeps) => set({ keeps })}
	/>
	<button type="button" class="text-ink-2 ml-1 text-[12px] underline" onclick={() => (desk.section = null)}
		>whole again</button
	>
</p>
