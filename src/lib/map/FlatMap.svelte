<script lang="ts">
	import { rangeOf } from '$lib/check/measures';
	import { cellColours } from '$lib/model/paint';
	import { addressOf, find } from '$lib/state/selection.svelte';
	import { useWorkbench } from '$lib/state/workbench.svelte';
	import { formatNumber } from '$core/units/quantity';
	import { onMount } from 'svelte';
	import { freshId } from '$lib/sheet/words';
	import MapDrawing from './MapDrawing.svelte';
	import { drawCells, drawCornerNumbers, drawHeads, drawSelection } from './draw-map';
	import { MARGIN, cellAt, cellsInBox, extentOf, headAt, headsOf, mapSheets, type Box } from './map-sheets';

	const workbench = useWorkbench();
	let canvas: HTMLCanvasElement;
	let frame: HTMLElement;
	let size = $state({ width: 0, height: 0 });
	/** Zoom over the fitted size, and the pan in pixels. */
	let zoom = $state(1);
	let pan = $state({ x: 0, y: 0 });

	const view = $derived(workbench.model.view);
	const zoneIndex = $derived(view.zones.findIndex((zone) => zone.id === workbench.activeZone));
	const zone = $derived(view.zones[zoneIndex]);
	const name = $derived(workbench.project.document.zones.find((one) => one.id === zone?.id)?.name ?? '');
	const sheets = $derived(mapSheets(zone?.faces ?? []));
	const whole = $derived(extentOf(sheets));
	const place = $derived.by(() => {
		const scale =
			Math.min(
				(size.width - MARGIN.left - MARGIN.right) / whole.width,
				(size.height - MARGIN.top - MARGIN.bottom) / whole.height
			) * zoom;
		return {
			scale,
			originX: (size.width + MARGIN.left - MARGIN.right - whole.width * scale) / 2 + pan.x,
			originY: (size.height + MARGIN.top - MARGIN.bottom + whole.height * scale) / 2 + pan.y
		};
	});
	/** Heads of every sheet; each selects its course or bay. */
	const heads = $derived(sheets.map((sheet) => headsOf(sheet, place, size)));
	const selected = $derived(
		workbench.selection.addresses
			.flatMap((address) => find(view, address) ?? [])
			.filter((one) => one.zone === zoneIndex)
	);

	onMount(() => {
		const observer = new ResizeObserver(([entry]) => {
			if (entry) size = { width: entry.contentRect.width, height: entry.contentRect.height };
		});
		observer.observe(frame);
		return () => observer.disconnect();
	});

	$effect(() => {
		const { lens, measure } = workbench;
		if (!size.width || !size.height) return;
		const ratio = devicePixelRatio;
		canvas.width = size.width * ratio;
		canvas.height = size.height * ratio;
		const pen = canvas.getContext('2d')!;
		pen.scale(ratio, ratio);
		pen.clearRect(0, 0, size.width, size.height);
		if (!zone) return;
		const paint = { lens, measure, range: rangeOf(view, measure) };
		sheets.forEach((sheet, f) => {
			const here = selected.filter((one) => one.face === f);
			const indices = (kind: string) => here.filter((one) => one.kind === kind).map((one) => one.index);
			const cells = indices('cell');
			drawCells(pen, place, sheet, cellColours(zone, f, paint));
			drawHeads(pen, heads[f]!);
			drawSelection(pen, place, sheet, cells, indices('edge'));
			if (workbench.labels && cells.length) drawCornerNumbers(pen, place, sheet, cells.at(-1)!);
		});
	});

	const address = (f: number, c: number) =>
		addressOf(view, { zone: zoneIndex, face: f, kind: 'cell', index: c });
	function take(addresses: string[], extend: boolean) {
		if (extend) workbench.selection.extend(addresses);
		else workbench.selection.choose(addresses);
	}

	let drag: { x: number; y: number; panX: number; panY: number; moved: boolean; box: boolean } | null = null;
	let box = $state<Box | null>(null);
	let drawing = $state(false);
	/** An opening as it was drawn on a face laid flat, about its own middle. */
	function addTrim(f: number, places: (readonly [number, number])[]) {
		drawing = false;
		const wanted = workbench.project.document.zones.find((one) => one.id === zone?.id)?.faces[f];
		const mass = workbench.project.document.masses.find((one) => one.id === wanted?.mass);
		if (!wanted || !mass) return;
		const middle = [0, 1].map((k) =>
			Math.round(places.reduce((sum, one) => sum + one[k]!, 0) / places.length)
		) as [number, number];
		workbench.do(`${mass.name}: a trim drawn on the map`, {
			do: 'insert',
			path: `masses/${mass.id}/trims`,
			index: mass.trims.length,
			value: {
				by: 'map',
				id: freshId('opening', mass.trims),
				face: wanted.face,
				outline: {
					shape: 'drawn',
					points: places.map(([x, y]) => [x - middle[0], y - middle[1]]),
					joins: 'line'
				},
				at: middle
			}
		});
	}
	const local = (event: PointerEvent | WheelEvent) => {
		const bounds = canvas.getBoundingClientRect();
		return { x: event.clientX - bounds.left, y: event.clientY - bounds.top };
	};
	function down(event: PointerEvent) {
		const at = local(event);
		drag = { ...at, panX: pan.x, panY: pan.y, moved: false, box: event.shiftKey };
		canvas.setPointerCapture(event.pointerId);
	}
	function move(event: PointerEvent) {
		if (!drag) return;
		const at = local(event);
		if (Math.hypot(at.x - drag.x, at.y - drag.y) > 4) drag.moved = true;
		if (!drag.moved) return;
		if (drag.box)
			box = {
				x: Math.min(at.x, drag.x),
				y: Math.min(at.y, drag.y),
				width: Math.abs(at.x - drag.x),
				height: Math.abs(at.y - drag.y)
			};
		else pan = { x: drag.panX + at.x - drag.x, y: drag.panY + at.y - drag.y };
	}
	function up(event: PointerEvent) {
		const ended = drag;
		drag = null;
		if (!ended) return;
		if (box) {
			const chosen = cellsInBox(sheets, place, box);
			box = null;
			take(
				chosen.map(({ f, c }) => address(f, c)),
				true
			);
			return;
		}
		if (ended.moved) return;
		const at = local(event);
		for (const [f, list] of heads.entries()) {
			const head = headAt(list, at.x, at.y);
			if (!head) continue;
			const column = sheets[f]!.face.cells[head.kind];
			const cells = Array.from(column.keys()).filter((c) => column[c] === head.n);
			take(
				cells.map((c) => address(f, c)),
				event.shiftKey
			);
			return;
		}
		const hit = cellAt(sheets, place, at.x, at.y);
		if (!hit) {
			if (!event.shiftKey) workbench.selection.clear();
		} else if (event.shiftKey) workbench.selection.toggle(address(hit.f, hit.c));
		else workbench.selection.choose([address(hit.f, hit.c)]);
	}
	function wheel(event: WheelEvent) {
		event.preventDefault();
		const factor = Math.exp(-event.deltaY * 0.0015);
		const next = Math.min(60, Math.max(0.5, zoom * factor));
		const at = local(event);
		const ratio = next / zoom;
		const centreX = (size.width + MARGIN.left - MARGIN.right) / 2;
		const centreY = (size.height + MARGIN.top - MARGIN.bottom) / 2;
		pan = {
			x: at.x - centreX - (at.x - centreX - pan.x) * ratio,
			y: at.y - centreY - (at.y - centreY - pan.y) * ratio
		};
		zoom = next;
	}
	const onwheel = (node: HTMLCanvasElement) => {
		node.addEventListener('wheel', wheel, { passive: false });
		return () => node.removeEventListener('wheel', wheel);
	};
	function fit() {
		zoom = 1;
		pan = { x: 0, y: 0 };
	}
	const metres = (mm: number) => formatNumber(mm / 1000, 1);
	/** Every face's own size; the room between them is none of it. */
	const sizes = $derived(
		sheets
			.slice(0, 4)
			.map(({ layout }) => `${metres(layout.right - layout.left)} × ${metres(layout.height)}`)
			.join(', ') + (sheets.length > 4 ? ' …' : '')
	);
</script>

<div
	class="border-hair bg-sheet relative h-full overflow-hidden border-t"
	bind:this={frame}
	data-testid="map"
>
	<canvas
		bind:this={canvas}
		class="absolute inset-0 size-full touch-none"
		aria-label="Flat map of {name || 'no zone'}"
		{@attach onwheel}
		onpointerdown={down}
		onpointermove={move}
		onpointerup={up}
	></canvas>
	{#if box}<div
			class="border-gold bg-gold/15 pointer-events-none absolute border"
			style:left="{box.x}px"
			style:top="{box.y}px"
			style:width="{box.width}px"
			style:height="{box.height}px"
		></div>{/if}
	{#if zone}
		<p class="figures text-ink-2 pointer-events-none absolute bottom-1 left-13 text-[10.5px]">
			{name} laid flat · {sizes} m · drag to pan, Shift-drag for a box, heads take a bay or a course
		</p>
	{:else}
		<p class="sentence text-ink-2 absolute inset-0 grid place-items-center">
			Choose a zone in the build sheet to see it laid flat.
		</p>
	{/if}
	{#if drawing}<MapDrawing
			{sheets}
			view={place}
			what="a trim"
			closed
			ondone={addTrim}
			onleave={() => (drawing = false)}
		/>{/if}
	<div class="absolute top-2 right-2 flex gap-1.5 text-[12px]">
		{#if zoom !== 1 || pan.x || pan.y}<button type="button" class="plain-button" onclick={fit}>Fit</button
			>{/if}
		{#if sheets.length && !drawing}<button type="button" class="plain-button" onclick={() => (drawing = true)}
				>Draw a trim</button
			>{/if}
	</div>
</div>
