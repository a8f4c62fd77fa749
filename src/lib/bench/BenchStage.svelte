<script lang="ts">
	import { dragging } from '$lib/components/drag';
	import { freeOf } from '$lib/model/free-room';
	import { mannerHere } from '$lib/model/renderer';
	import type { Vector } from '$core/geometry/vector';
	import { onMount } from 'svelte';
	import type { Bench } from './bench.svelte';
	import { BenchScene } from './bench-scene';

	/** The part in 3D on its trial anchors, which can be dragged. */
	let { bench }: { bench: Bench } = $props();
	let canvas: HTMLCanvasElement;
	let frame: HTMLElement;
	let scene = $state.raw<BenchScene | null>(null);
	let cameraMoves = $state(0);
	let settled = $state(false);
	let failure = $state<string | null>(null);
	let held = $state<number | null>(null);

	onMount(() => {
		let made: BenchScene;
		try {
			made = new BenchScene(canvas, mannerHere());
		} catch (error) {
			failure = `The part cannot be drawn here: ${(error as Error).message}. Its sentences and measures work without.`;
			return;
		}
		made.onDrawn = () => (settled = true);
		made.onCamera = () => cameraMoves++;
		const resize = new ResizeObserver(([entry]) => {
			if (!entry) return;
			made.resize(entry.contentRect.width, entry.contentRect.height);
			cameraMoves++;
		});
		resize.observe(frame);
		made.resize(frame.clientWidth, frame.clientHeight);
		scene = made;
		return () => {
			resize.disconnect();
			made.dispose();
		};
	});
	$effect(() => {
		settled = false;
		scene?.show(bench.piece?.elements ?? []);
	});
	$effect(() => scene?.mark(bench.ghosts));
	/** The view is set anew for another trial, not while a value or an anchor is dragged. */
	$effect(() => {
		void bench.trial;
		scene?.frame(bench.trial?.points ?? [], freeOf(frame));
	});

	const anchors = $derived.by(() => {
		void cameraMoves;
		if (!scene) return [];
		return bench.points.flatMap((point, k) => {
			const at = scene!.project(point);
			return at ? [{ k, point, ...at }] : [];
		});
	});
	const ring = $derived(bench.part?.anchor.kind.endsWith('ring') ?? false);
	const outline = $derived(
		anchors.length > 1 && bench.part?.anchor.kind !== 'node'
			? (ring ? anchors.slice(0, bench.corners) : anchors).map(({ x, y }) => `${x},${y}`).join(' ')
			: ''
	);
	const LINE = 20;
	const WIDTH = 90;
	/** Names at their places; those that would lie over one another stand in a column. */
	const marks = $derived.by(() => {
		void cameraMoves;
		const placed: { name: string; x: number; y: number }[] = [];
		for (const { name, at } of bench.pickable) {
			const place = scene?.project(at);
			if (!place) continue;
			let { y } = place;
			while (placed.some((one) => Math.abs(one.x - place.x) < WIDTH && Math.abs(one.y - y) < LINE)) y += LINE;
			placed.push({ name, x: place.x, y });
		}
		return placed;
	});
	const place = (event: PointerEvent): [number, number] => {
		const box = canvas.getBoundingClientRect();
		return [event.clientX - box.left, event.clientY - box.top];
	};
	function move(event: PointerEvent, point: Vector) {
		if (held !== null && scene) bench.movePoint(held, scene.drag(point, ...place(event)));
	}
	const STEP = 10;
	function nudge(event: KeyboardEvent, k: number, [x, y, z]: Vector) {
		const by: Record<string, Vector> = {
			ArrowLeft: [-STEP, 0, 0],
			ArrowRight: [STEP, 0, 0],
			ArrowUp: [0, 0, STEP],
			ArrowDown: [0, 0, -STEP],
			PageUp: [0, STEP, 0],
			PageDown: [0, -STEP, 0]
		};
		const change = by[event.key];
		if (!change) return;
		event.preventDefault();
		bench.movePoint(k, [x + change[0], y + change[1], z + change[2]]);
	}
</script>

<div
	bind:this={frame}
	class="relative h-full overflow-hidden bg-[radial-gradient(120%_90%_at_50%_20%,#FBF9F3_0,#EFEADD_100%)]"
	data-testid="stage"
	data-settled={settled}
>
	<canvas bind:this={canvas} class="absolute inset-0 block size-full touch-none" aria-label="The part in 3D"
	></canvas>
	<svg class="pointer-events-none absolute inset-0 size-full" aria-hidden="true">
		{#if ring}<polygon points={outline} fill="none" stroke="#1F7A6B" stroke-dasharray="5 4" />
		{:else}<polyline points={outline} fill="none" stroke="#1F7A6B" stroke-dasharray="5 4" />{/if}
	</svg>
	{#each anchors as { k, point, x, y } (k)}
		<button
			type="button"
			class="border-patina bg-sheet absolute size-[13px] -translate-x-1/2 -translate-y-1/2 cursor-move touch-none rounded-full border-2"
			style:left="{x}px"
			style:top="{y}px"
			aria-label="Anchor {k + 1}: x {Math.round(point[0])} y {Math.round(point[1])} z {Math.round(
				point[2]
			)} mm"
			title="Drag, or move with the arrow keys and Page Up and Down"
			{@attach dragging({
				begin: () => void (held = k),
				move: (event) => move(event, point),
				end: () => (held = null),
				cancel: () => (held = null)
			})}
			onkeydown={(event) => nudge(event, k, point)}
		></button>
		<span
			class="figures text-patina-deep bg-sheet/80 pointer-events-none absolute rounded px-0.5 text-[12.5px] leading-none font-bold"
			style:left="{x + 9}px"
			style:top="{y - 22}px">{k + 1}</span
		>
	{/each}
	{#if bench.pick}
		<p class="floating absolute top-3 left-3.5 px-2.5 py-1 text-[12px]" role="status">
			Click what the step shall use
			<button type="button" class="ml-2 underline" onclick={() => (bench.pick = null)}>Cancel</button>
		</p>
		{#each marks as { name, x, y } (name)}
			<button
				type="button"
				class="figures absolute z-10 -translate-x-1/2 -translate-y-1/2 rounded border border-[#D98E1F] bg-[#FFF7E8] px-1 text-[11px] hover:bg-[#F6DDAF]"
				style:left="{x}px"
				style:top="{y}px"
				onclick={() => bench.pick?.take(name)}>{name}</button
			>
		{/each}
	{/if}
	{#if failure}<p class="text-ink-2 absolute inset-0 grid place-items-center p-10 text-center">
			{failure}
		</p>{/if}
	{#if bench.piece?.failed}
		<p
			class="text-oxide-deep bg-oxide-wash absolute inset-x-0 top-1/2 mx-auto w-fit max-w-[70%] rounded px-3 py-2 text-center"
			role="status"
		>
			Not made on this trial: {bench.piece.flags.join('; ')}
		</p>
	{/if}
</div>
