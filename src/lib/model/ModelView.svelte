<script lang="ts">
	import { dragging } from '$lib/components/drag';
	import { isPlain } from '$lib/model/renderer';
	import { handlesOf, type Handle } from '$lib/form/handles';
	import { rangeOf } from '$lib/check/measures';
	import { addressOf, find } from '$lib/state/selection.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { guideInSpace } from '$lib/edits/drawn';
	import type { Vector } from '$core/geometry/vector';
	import { momentOf, sunAt } from '$core/sun/position';
	import { onMount } from 'svelte';
	import ModelDrawing from './ModelDrawing.svelte';
	import { viewNames, type ViewName } from './eye';
	import { modelLabels } from './labels';
	import { ModelScene } from './scene';

	const desk = useDesk();
	let canvas: HTMLCanvasElement;
	let frame: HTMLElement;
	let scene = $state.raw<ModelScene | null>(null);
	let heading = $state(0);
	let viewName = $state<ViewName | null>('Around');
	let settled = $state(false);
	let failure = $state<string | null>(null);
	/** Bumped on every camera move, for what is laid over the picture. */
	let cameraMoves = $state(0);

	const view = $derived(desk.model.view);
	const selected = $derived(desk.selection.addresses.flatMap((address) => find(view, address) ?? []));

	onMount(() => {
		const plain = isPlain();
		let made: ModelScene;
		try {
			made = new ModelScene(canvas, plain);
		} catch (error) {
			failure = `The model cannot be drawn here: ${(error as Error).message}. The sheet, the map and the schedule work without it.`;
			return;
		}
		made.onDrawn = () => {
			settled = true;
			if (view.zones.some(({ faces }) => faces.length > 0)) desk.begun = true;
		};
		made.onCamera = () => {
			heading = made.heading();
			cameraMoves++;
		};
		const resize = new ResizeObserver(([entry]) => {
			if (entry) made.resize(entry.contentRect.width, entry.contentRect.height);
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
		if (!scene) return;
		const { lens, measure } = desk;
		settled = false;
		scene.update(view, { lens, measure, range: rangeOf(view, measure) }, desk.isolated);
	});
	$effect(() => {
		if (!scene) return;
		settled = false;
		scene.select(selected);
	});
	$effect(() => {
		if (!scene) return;
		const { lit } = desk;
		settled = false;
		scene.light(
			view.zones.findIndex(({ id }) => id === lit?.zone),
			lit?.cells ?? []
		);
	});
	$effect(() => {
		if (!scene) return;
		const { lightAt } = desk;
		const { sun } = desk.project.document;
		settled = false;
		scene.sunFrom(lightAt === null ? null : sunAt(sun, momentOf(sun.day, lightAt, sun.ahead)).direction);
	});
	const covered = $derived(
		new Set(
			desk.project.document.zones.flatMap((zone) => zone.faces.map((face) => `${face.mass}/${face.face}`))
		)
	);
	$effect(() => {
		if (!scene) return;
		settled = false;
		const chosen = new Set(desk.selection.faces);
		scene.shape(view, desk.surface, desk.lens === 'form', covered, chosen);
	});
	const handles = $derived(
		desk.lens === 'form' && desk.surface.handles && desk.activeMass
			? handlesOf(desk.activeMass, desk.project.document.levels)
			: { points: [], lines: [] }
	);
	$effect(() => scene?.showHandles(handles));

	export function home() {
		viewName = 'Around';
		scene?.home();
	}
	export function frameSelection() {
		viewName = null;
		scene?.frame(selected);
	}

	/** The guide that is being drawn, and where its next point would be (mm). */
	let drawn = $state.raw<readonly Vector[]>([]);
	let next = $state.raw<Vector | null>(null);
	const placeAt = (event: PointerEvent) => scene?.placeAt(...local(event), drawn.at(-1)?.[2] ?? 0) ?? null;
	const projected = $derived.by(() => {
		void cameraMoves;
		return (point: Vector) => scene?.project(point) ?? null;
	});
	function leaveDrawing() {
		desk.drawsGuide = false;
		drawn = [];
		next = null;
	}
	function endDrawing() {
		if (!drawn.length) return;
		desk.do('a guide drawn in the model', guideInSpace(desk.project.document.guides, drawn));
		leaveDrawing();
	}

	let pressed: { x: number; y: number } | null = null;
	/** The handle that is dragged, from where it stood. */
	let held: Handle | null = null;
	const local = (event: PointerEvent) => {
		const box = canvas.getBoundingClientRect();
		return [event.clientX - box.left, event.clientY - box.top] as const;
	};
	function take(event: PointerEvent): boolean {
		held = desk.drawsGuide ? null : (scene?.takeHandle(...local(event)) ?? null);
		pressed = { x: event.clientX, y: event.clientY };
		return held !== null;
	}
	function drag(event: PointerEvent) {
		if (held && scene)
			desk.project.preview(...held.moved(scene.dragHandle(held, ...local(event), event.shiftKey)));
	}
	function letGo() {
		held = null;
		scene?.letGo();
		desk.project.dropPreview();
	}
	function drop(event: PointerEvent) {
		const [handle, from] = [held, pressed];
		if (!handle || !from || !scene) return;
		const to = scene.dragHandle(handle, ...local(event), event.shiftKey);
		letGo();
		pressed = null;
		const moved = Math.hypot(event.clientX - from.x, event.clientY - from.y) > 2;
		const name = desk.activeMass?.name ?? '';
		if (moved) desk.do(`${name} ${handle.label} moved`, ...handle.moved(to));
	}
	function down(event: PointerEvent) {
		if (!held) pressed = { x: event.clientX, y: event.clientY };
	}
	function move(event: PointerEvent) {
		if (desk.drawsGuide && event.buttons === 0) next = placeAt(event);
	}
	function up(event: PointerEvent) {
		if (!pressed || !scene) return;
		const moved = Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y);
		pressed = null;
		if (moved > 4) {
			viewName = null;
			return;
		}
		if (event.button !== 0) return;
		if (desk.drawsGuide) {
			const place = placeAt(event);
			if (place) drawn = [...drawn, place];
			return;
		}
		if (desk.lens === 'form') {
			const face = scene.pickFace(...local(event));
			if (face) desk.selection.chooseFace(face, event.shiftKey);
			else if (!event.shiftKey) desk.selection.clear();
			return;
		}
		const found = scene.pick(...local(event));
		if (!found) {
			if (!event.shiftKey) desk.selection.clear();
			return;
		}
		const address = addressOf(view, found);
		if (event.shiftKey) desk.selection.toggle(address);
		else desk.selection.choose([address]);
		desk.activeZone = view.zones[found.zone]?.id ?? null;
	}

	/** What is written over the picture when labels are on: marks of what is selected or near, and more of the last cell. */
	const labels = $derived.by(() => {
		void cameraMoves;
		if (!desk.labels || !scene) return [];
		return modelLabels(view, desk.project.document.zones, selected, (point) => scene!.project(point), {
			width: frame.clientWidth,
			height: frame.clientHeight
		});
	});
	$effect(() => {
		if (!scene) return;
		scene.showArrows(view, desk.labels ? selected : []);
	});
</script>

<div
	class="relative h-full overflow-hidden bg-[radial-gradient(120%_90%_at_50%_20%,#FBF9F3_0,#EFEADD_100%)]"
	bind:this={frame}
	data-testid="model"
	data-settled={settled && !desk.model.behind}
>
	<canvas
		bind:this={canvas}
		class="absolute inset-0 block size-full touch-none {desk.drawsGuide ? 'cursor-crosshair' : ''}"
		aria-label="Model in 3D"
		{@attach dragging({ begin: take, move: drag, end: drop, cancel: letGo })}
		onpointerdown={down}
		onpointermove={move}
		onpointerup={up}
	></canvas>
	{#if failure}
		<p class="text-ink-2 absolute inset-0 grid place-items-center p-10 text-center">{failure}</p>
	{/if}
	{#if view.zones.length === 0 && !desk.model.behind}
		<p class="sentence text-ink-2 absolute inset-0 grid place-items-center">
			Add a mass in the build sheet, and it stands here.
		</p>
	{/if}
	{#each labels as label, k (k)}
		{#if label.at}
			<span
				class="figures pointer-events-none absolute -translate-x-1/2 -translate-y-1/2 rounded px-1 text-[11px] {label.kind ===
				'corner'
					? 'bg-ink text-white'
					: label.kind === 'node'
						? 'text-ink-2 bg-sheet/80 text-[10px]'
						: 'bg-sheet/90 text-patina-deep'}"
				style:left="{label.at.x}px"
				style:top="{label.at.y}px">{label.text}</span
			>
		{/if}
	{/each}
	{#if desk.drawsGuide}
		<ModelDrawing
			points={drawn}
			here={next}
			project={projected}
			onback={() => (drawn = drawn.slice(0, -1))}
			onfinish={endDrawing}
			onleave={leaveDrawing}
		/>
	{/if}
	<div class="absolute bottom-3 left-3.5 flex gap-1.5" role="group" aria-label="Views">
		{#each viewNames as name (name)}
			<button
				type="button"
				class="bg-sheet rounded-full border px-2.5 py-[3px] text-[12px] {viewName === name
					? 'border-patina text-patina font-semibold'
					: 'border-hair text-ink-2'}"
				aria-pressed={viewName === name}
				onclick={() => {
					viewName = name;
					scene?.look(name);
				}}>{name}</button
			>
		{/each}
		<button
			type="button"
			class="bg-sheet rounded-full border px-2.5 py-[3px] text-[12px] {desk.labels
				? 'border-patina text-patina font-semibold'
				: 'border-hair text-ink-2'}"
			aria-pressed={desk.labels}
			onclick={() => (desk.labels = !desk.labels)}>Labels <kbd class="key-cap">L</kbd></button
		>
	</div>
	<svg
		class="pointer-events-none absolute right-4 bottom-3 size-8"
		viewBox="-16 -16 32 32"
		role="img"
		aria-label="North"
	>
		<g transform="rotate({(heading * 180) / Math.PI})"
			><path d="M0-12 4 4 0 1.5-4 4Z" fill="#565a54" /><text
				y="14"
				text-anchor="middle"
				font-size="8"
				fill="#565a54">N</text
			></g
		>
	</svg>
</div>
