<script lang="ts">
	import { dragging } from '$lib/components/drag';
	import Enclosure from '$lib/components/Enclosure.svelte';
	import { Enclosing } from '$lib/components/enclosing.svelte';
	import { drawLightly, mannerHere, type Manner } from './renderer';
	import { handlesOf, type Handle } from '$lib/form/handles';
	import { rangeOf } from '$lib/check/measures';
	import { addressOf, find, wholeBar, type Found } from '$lib/state/selection.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { guideInSpace } from '$lib/edits/drawn';
	import { keepLength } from '$lib/edits/lengths';
	import type { Vector } from '$core/geometry/vector';
	import { pathTo } from '$core/project/typed-path';
	import { momentOf, sunAt } from '$core/sun/position';
	import { untrack } from 'svelte';
	import type { Section } from '$core/project/view-schema';
	import { freeOf } from './free-room';
	import HoverTip from './HoverTip.svelte';
	import Measuring from './Measuring.svelte';
	import ModelBar from './ModelBar.svelte';
	import ModelLabels from './ModelLabels.svelte';
	import ShownMenu from './ShownMenu.svelte';
	import ScaleBar from './ScaleBar.svelte';
	import SectionFrame from './SectionFrame.svelte';
	import KeptViews from './KeptViews.svelte';
	import type { Snap } from './measuring';
	import ModelDrawing from './ModelDrawing.svelte';
	import type { ViewName } from './eye';
	import type { ModelScene } from './scene';
	import { takeScene } from './spare-scene';

	const desk = useDesk();
	/** Where the canvas hangs. */
	let wall = $state<HTMLElement>(undefined!);
	let frame = $state<HTMLElement>(undefined!);
	let scene = $state.raw<ModelScene | null>(null);
	let heading = $state(0);
	let viewName = $state<ViewName | null>('Around');
	let settled = $state(false);
	/** The resting picture is as fine as it becomes. */
	let fine = $state(false);
	let graphics = $state.raw({ geometries: 0, textures: 0 });
	/** How it is drawn; once pictures take long, lightly. */
	let manner = $state(mannerHere());
	let failure = $state<string | null>(null);
	/** Bumped on every camera move, for what is laid over the picture. */
	let cameraMoves = $state(0);

	const view = $derived(desk.model.view);
	const selected = $derived(desk.selection.addresses.flatMap((address) => find(view, address) ?? []));

	/** Hang a picture on a wall. @returns what ends it */
	function hang(on: HTMLElement, how: Manner): (() => void) | undefined {
		let made: ModelScene;
		try {
			made = takeScene(how);
		} catch (error) {
			failure = `The model cannot be drawn here: ${(error as Error).message}. The sheet, the map and the schedule work without it.`;
			return;
		}
		const { canvas } = made;
		canvas.setAttribute('aria-label', 'Model in 3D');
		canvas.setAttribute('class', 'absolute inset-0 block size-full touch-none');
		// It hears of the pointer before the eye does, which rests while something else is held.
		const letGoOf = dragging({ begin: take, move: drag, end: drop, cancel: letGo })(canvas);
		made.free = () => freeOf(frame);
		made.onDrawn = () => {
			settled = true;
			fine = false;
			graphics = made.held;
			if (!view.zones.some(({ faces }) => faces.length > 0)) return;
			if (!desk.begun) performance.mark('first cells');
			desk.begun = true;
		};
		made.onHand = () => (viewName = desk.keptView = null);
		made.onSparing = (is) => (desk.sparing = is);
		made.onFine = () => (fine = true);
		made.onSlow = () => {
			drawLightly();
			manner = 'light';
		};
		made.onCamera = () => {
			heading = made.heading();
			cameraMoves++;
			hovered = null;
		};
		const takeDown = made.hang(on);
		scene = made;
		return () => {
			scene = null;
			letGoOf?.();
			takeDown();
		};
	}
	$effect(() => {
		if (!scene) return;
		const { drawn: lens, measure } = desk;
		settled = false;
		scene.update(
			view,
			desk.project.document.zones,
			{ lens, measure, range: rangeOf(view, measure), chosen: desk.chosenColours },
			desk.isolated,
			desk.visibility.hidden
		);
	});
	$effect(() => {
		if (desk.begun) scene?.appear();
	});
	$effect(() => scene?.workOn(view.zones.findIndex(({ id }) => id === desk.activeZone)));
	$effect(() => {
		if (!scene) return;
		const { locked } = desk.visibility;
		const isLocked = (list: 'zones' | 'masses') => (id: string) => locked.includes(pathTo(list, id));
		scene.picker.locked = {
			zones: new Set(view.zones.flatMap(({ id }, z) => (isLocked('zones')(id) ? z : []))),
			masses: new Set(view.masses.map(({ id }) => id).filter(isLocked('masses')))
		};
	});
	$effect(() => {
		if (!scene) return;
		settled = false;
		scene.outlines.select(selected.flatMap((one) => wholeBar(view, one)));
	});
	$effect(() => {
		if (!scene) return;
		const { lit } = desk;
		settled = false;
		scene.outlines.light(
			view.zones.findIndex(({ id }) => id === lit?.zone),
			lit?.cells ?? []
		);
	});
	$effect(() => {
		if (!scene || !view) return;
		settled = false;
		scene.outlines.clash(desk.clashes.marked);
	});
	$effect(() => {
		if (desk.framings) untrack(frameSelection);
	});
	$effect(() => {
		if (!scene) return;
		settled = false;
		scene.show(desk.look);
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
		const { section, visibility } = desk;
		scene.shape(view, desk.surface, desk.lens === 'form', covered, chosen, section, visibility.hidden);
	});
	const handles = $derived(
		desk.lens === 'form' && desk.surface.handles && desk.activeMass
			? handlesOf(desk.activeMass, desk.project.document.levels)
			: { points: [], lines: [] }
	);
	$effect(() => scene?.showHandles(handles));

	export function home() {
		viewName = 'Around';
		desk.keptView = null;
		scene?.home();
	}
	export function frameSelection() {
		viewName = desk.keptView = null;
		scene?.frame(selected);
	}
	export function look(name: ViewName) {
		viewName = name;
		desk.keptView = null;
		scene?.look(name);
	}
	/** By keys, as a drag by so many pixels. */
	const STEP = 45;
	export function turn(way: 'left' | 'right' | 'up' | 'down') {
		const [x, y] = { left: [-STEP, 0], right: [STEP, 0], up: [0, -STEP], down: [0, STEP] }[way];
		scene?.turn(x!, y!);
	}
	export function nearer(nearer: boolean) {
		scene?.nearer(nearer ? 0.75 : 1 / 0.75);
	}
	const newSection = (): Section => ({
		axis: 'z',
		at: Math.round((scene?.middle('z') ?? 0) / 10) * 10,
		keeps: 'low'
	});
	export function toggleSection() {
		desk.section = desk.section ? null : newSection();
	}

	/** Where the eye looks is told on the map, once it has come to rest. */
	const REST = 250;
	$effect(() => {
		void cameraMoves;
		if (!scene || !settled) return;
		const looked = setTimeout(() => {
			const found = scene?.inMiddle();
			desk.lookedAt = found?.kind === 'cell' ? addressOf(view, found) : null;
			// The pointer rests where it was; what lies under it may be something else.
			if (resting) lookUnder(resting);
		}, REST);
		return () => clearTimeout(looked);
	});

	/** Corners on the canvas of what is chosen last: a cell, a line, a node, or a face in the Form lens. */
	function chosenOnCanvas(): { x: number; y: number }[] {
		const last = selected.at(-1);
		if (last && desk.lens !== 'form') return scene?.cornersOf(last) ?? [];
		const [mass, face] = desk.selection.faces.at(-1)?.split('/') ?? [];
		const shape = view.masses.find(({ id }) => id === mass)?.faces.find(({ name }) => name === face);
		const middle = shape && scene?.middleOf(shape);
		return middle ? [middle] : [];
	}
	/** A card stands where it does not cover what is chosen; it goes there once the eye rests. */
	const CARD = 290;
	$effect(() => {
		void cameraMoves;
		void [selected, desk.selection.faces, desk.lens];
		if (!scene) return;
		const placing = setTimeout(() => {
			const xs = chosenOnCanvas().map(({ x }) => x);
			if (!xs.length) return;
			const { clientWidth: width } = frame;
			const [low, high] = [Math.min(...xs), Math.max(...xs)];
			// In a narrow picture the card takes nearly half: it goes to the other one.
			const reach = Math.min(CARD, width / 2);
			const isCovered = desk.cardSide === 'right' ? high > width - reach : low < reach;
			if (isCovered && high - low < width / 2) desk.cardSide = low + high > width ? 'left' : 'right';
		}, 60);
		return () => clearTimeout(placing);
	});

	/** What a click would take, and where the pointer is. */
	let hovered = $state.raw<{ found: Omit<Found, 'address'>; x: number; y: number } | null>(null);
	const hoveredCorners = $derived.by(() => {
		void cameraMoves;
		return hovered && scene ? scene.cornersOf(hovered.found) : null;
	});
	/** Where lengths are measured from, and what the pointer is on. */
	let measuredFrom = $state.raw<Snap | null>(null);
	let measuredTo = $state.raw<Snap | null>(null);
	/** Leave off measuring: first the length that is begun. @returns whether there was anything to leave */
	export function leaveMeasuring(): boolean {
		if (!desk.measures) return false;
		if (measuredFrom) measuredFrom = null;
		else desk.measures = false;
		return true;
	}
	$effect(() => {
		if (!desk.measures) measuredFrom = measuredTo = null;
		if (scene) scene.still = desk.measures;
	});
	function measure(snap: Snap | null, twice: boolean) {
		if (!snap) return;
		if (twice && snap.is === 'edge') {
			keepLength(desk, snap.ends[0], snap.ends[1]);
			measuredFrom = null;
		} else if (measuredFrom) {
			keepLength(desk, measuredFrom.at, snap.at);
			measuredFrom = null;
		} else measuredFrom = snap;
	}
	/** Where the pointer is over the model, with no button down. */
	let resting: PointerEvent | null = null;
	/** The pointer is looked under once for each picture. */
	let looking = 0;
	function lookUnder(event: PointerEvent) {
		cancelAnimationFrame(looking);
		looking = requestAnimationFrame(() => {
			if (!scene) return;
			const [x, y] = local(event);
			if (desk.measures) measuredTo = scene.picker.snap(x, y);
			else if (desk.lens !== 'form') {
				const found = scene.picker.at(x, y);
				hovered = found && { found, x, y };
			}
		});
	}

	/** The guide that is being drawn, and where its next point would be (mm). */
	let drawn = $state.raw<readonly Vector[]>([]);
	let next = $state.raw<Vector | null>(null);
	const placeAt = (event: PointerEvent) =>
		scene?.picker.placeAt(...local(event), drawn.at(-1)?.[2] ?? 0) ?? null;
	const scale = $derived.by(() => {
		void cameraMoves;
		return scene?.scale() ?? null;
	});
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

	const enclosing = new Enclosing();
	let pressed: { x: number; y: number } | null = null;
	/** The handle that is dragged, from where it stood. */
	let held: Handle | null = null;
	const local = (event: PointerEvent) => {
		const box = wall.getBoundingClientRect();
		return [event.clientX - box.left, event.clientY - box.top] as const;
	};
	function take(event: PointerEvent): boolean {
		held = desk.drawsGuide ? null : (scene?.takeHandle(...local(event)) ?? null);
		pressed = { x: event.clientX, y: event.clientY };
		if (held || desk.drawsGuide || desk.measures || desk.lens === 'form' || !scene) return held !== null;
		const [x, y] = local(event);
		scene.resting = enclosing.begin(event, { x, y });
		return enclosing.begun;
	}
	function drag(event: PointerEvent) {
		const [x, y] = local(event);
		enclosing.move({ x, y });
		if (held && scene)
			desk.project.preview(...held.moved(scene.dragHandle(held, ...local(event), event.shiftKey)));
	}
	function letGo() {
		held = null;
		enclosing.cancel();
		scene?.letGo();
		desk.project.dropPreview();
	}
	function drop(event: PointerEvent) {
		const holds = enclosing.end();
		if (scene && !held) scene.resting = false;
		if (holds) {
			pressed = null;
			// With Ctrl what is behind is taken too.
			const found = scene?.picker.cellsWhere(holds, event.ctrlKey || event.metaKey) ?? [];
			desk.selection.enclose(found.map((one) => addressOf(view, one)));
			return;
		}
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
		resting = event.buttons === 0 ? event : null;
		if (event.buttons !== 0) hovered = null;
		else if (desk.drawsGuide) next = placeAt(event);
		else lookUnder(event);
	}
	function up(event: PointerEvent) {
		if (!pressed || !scene) return;
		const moved = Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y);
		pressed = null;
		if (moved > 4) return;
		if (event.button !== 0) return;
		if (desk.drawsGuide) {
			const place = placeAt(event);
			if (place) drawn = [...drawn, place];
			return;
		}
		if (desk.measures) {
			measure(scene.picker.snap(...local(event)), event.detail > 1);
			return;
		}
		if (desk.lens === 'form') {
			const face = scene.picker.faceAt(...local(event));
			if (face) desk.selection.chooseFace(face, event.shiftKey);
			else if (!event.shiftKey) desk.selection.clear();
			return;
		}
		const found = scene.picker.at(...local(event));
		if (!found) {
			if (!event.shiftKey) desk.selection.clear();
			return;
		}
		const address = addressOf(view, found);
		if (event.shiftKey) desk.selection.toggle(address);
		else desk.selection.choose([address]);
		desk.activeZone = view.zones[found.zone]?.id ?? null;
	}

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
	data-fine={fine}
	data-geometries={graphics.geometries}
	data-textures={graphics.textures}
>
	<div
		bind:this={wall}
		{@attach (on) => {
			const how = manner;
			return untrack(() => hang(on, how));
		}}
		class={['absolute inset-0', (desk.drawsGuide || desk.measures) && 'cursor-crosshair']}
		role="presentation"
		onpointerdown={down}
		onpointermove={move}
		onpointerup={up}
		onpointerleave={() => {
			cancelAnimationFrame(looking);
			hovered = measuredTo = resting = null;
		}}
	></div>
	<Enclosure of={enclosing} />
	{#if failure}
		<p class="text-ink-2 absolute inset-0 grid place-items-center p-10 text-center">{failure}</p>
	{/if}
	{#if hovered && hoveredCorners}
		<HoverTip found={hovered.found} at={hovered} corners={hoveredCorners} width={frame.clientWidth} />
	{/if}
	{#if desk.labels && scene}<ModelLabels {projected} {selected} {frame} />{/if}
	{#if scene && desk.section}
		<SectionFrame {scene} section={desk.section} project={projected} {wall} />
	{/if}
	{#if desk.measures || desk.project.document.notes.length}
		<Measuring project={projected} here={measuredTo} from={measuredFrom} />
	{/if}
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
	{#if desk.begun}
		<ModelBar name={viewName} onlook={look} onwhole={home} section={newSection}>
			{#snippet more()}
				{#if scene}<ShownMenu /><KeptViews {scene} {settled} onshow={() => (viewName = null)} />{/if}
			{/snippet}
		</ModelBar>
	{/if}
	{#if scale}<ScaleBar {scale} />{/if}
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
