<script lang="ts">
	import { rangeOf } from '$lib/check/measures';
	import { cellColours } from '$lib/model/paint';
	import { addressOf, find } from '$lib/state/selection.svelte';
	import { useWorkbench } from '$lib/state/workbench.svelte';
	import { formatNumber } from '$core/units/quantity';
	import { onMount } from 'svelte';
	import { flatLayout } from './layout';

	const workbench = useWorkbench();
	let canvas: HTMLCanvasElement;
	let frame: HTMLElement;
	let size = $state({ width: 0, height: 0 });
	/** Zoom over the fitted size, and the pan in pixels. */
	let zoom = $state(1);
	let pan = $state({ x: 0, y: 0 });

	const GAP = 2000;
	const MARGIN = { left: 52, right: 26, top: 18, bottom: 44 };
	const view = $derived(workbench.model.view);
	const zoneIndex = $derived(view.zones.findIndex((zone) => zone.id === workbench.activeZone));
	const zone = $derived(view.zones[zoneIndex]);
	const name = $derived(workbench.project.document.zones.find((one) => one.id === zone?.id)?.name ?? '');
	const sheets = $derived.by(() => {
		let at = 0;
		return (zone?.faces ?? []).map((face) => {
			const layout = flatLayout(face);
			const offset = at - layout.left;
			at += layout.right - layout.left + GAP;
			return { face, layout, offset };
		});
	});
	const whole = $derived({
		width: Math.max(
			1,
			sheets.reduce((sum, { layout }) => sum + layout.right - layout.left + GAP, -GAP)
		),
		height: Math.max(1, ...sheets.map(({ layout }) => layout.height))
	});
	const scale = $derived(
		Math.min(
			(size.width - MARGIN.left - MARGIN.right) / whole.width,
			(size.height - MARGIN.top - MARGIN.bottom) / whole.height
		) * zoom
	);
	const originX = $derived((size.width + MARGIN.left - MARGIN.right - whole.width * scale) / 2 + pan.x);
	const originY = $derived((size.height + MARGIN.top - MARGIN.bottom + whole.height * scale) / 2 + pan.y);
	const X = (sheet: { offset: number }, x: number) => originX + (x + sheet.offset) * scale;
	const Y = (y: number) => originY - y * scale;
	const selectedCells = $derived(
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

	function trace(context: CanvasRenderingContext2D, sheet: (typeof sheets)[number], c: number) {
		const { cells } = sheet.face;
		for (let k = cells.start[c]!; k < cells.start[c + 1]!; k++) {
			const x = X(sheet, sheet.layout.points[2 * k]!);
			const y = Y(sheet.layout.points[2 * k + 1]!);
			if (k === cells.start[c]!) context.moveTo(x, y);
			else context.lineTo(x, y);
		}
		context.closePath();
	}

	let hatching: CanvasPattern | null = null;
	function hatch(context: CanvasRenderingContext2D): CanvasPattern {
		if (hatching) return hatching;
		const tile = document.createElement('canvas');
		tile.width = tile.height = 6;
		const pen = tile.getContext('2d')!;
		pen.strokeStyle = 'rgb(80 70 40 / 0.28)';
		pen.beginPath();
		for (const shift of [-6, 0, 6]) {
			pen.moveTo(shift, 6);
			pen.lineTo(shift + 6, 0);
		}
		pen.stroke();
		hatching = context.createPattern(tile, 'repeat')!;
		return hatching;
	}

	$effect(() => {
		const { lens, measure } = workbench;
		if (!size.width || !size.height) return;
		const ratio = devicePixelRatio;
		canvas.width = size.width * ratio;
		canvas.height = size.height * ratio;
		const context = canvas.getContext('2d')!;
		context.scale(ratio, ratio);
		context.clearRect(0, 0, size.width, size.height);
		if (!zone) return;
		const paint = { lens, measure, range: rangeOf(view, measure) };
		sheets.forEach((sheet, f) => {
			const { palette, of } = cellColours(zone, f, paint);
			const { cells } = sheet.face;
			palette.forEach((colour, k) => {
				context.beginPath();
				for (let c = 0; c < cells.count; c++) if (of[c] === k) trace(context, sheet, c);
				context.fillStyle = colour;
				context.fill();
			});
			context.beginPath();
			for (let c = 0; c < cells.count; c++) if (cells.kind[c] !== 0) trace(context, sheet, c);
			context.fillStyle = hatch(context);
			context.fill();
			context.beginPath();
			for (let c = 0; c < cells.count; c++) trace(context, sheet, c);
			context.strokeStyle = 'rgb(60 62 58 / 0.42)';
			context.lineWidth = 0.8;
			context.stroke();
			drawHeads(context, sheet);
			drawSelection(context, sheet, f);
		});
	});

	function drawSelection(context: CanvasRenderingContext2D, sheet: (typeof sheets)[number], f: number) {
		context.beginPath();
		for (const one of selectedCells)
			if (one.face === f && one.kind === 'cell') trace(context, sheet, one.index);
		context.fillStyle = 'rgb(217 142 31 / 0.55)';
		context.fill();
		context.lineWidth = 2;
		context.strokeStyle = '#D98E1F';
		for (const one of selectedCells) {
			if (one.face !== f || one.kind !== 'edge') continue;
			const line = edgeOnMap(sheet, one.index);
			if (!line) continue;
			context.moveTo(X(sheet, line[0]), Y(line[1]));
			context.lineTo(X(sheet, line[2]), Y(line[3]));
		}
		context.stroke();
		if (!workbench.labels) return;
		context.font = '10px "Spline Sans Mono Variable", monospace';
		context.fillStyle = '#1D2126';
		const last = selectedCells.findLast((one) => one.face === f && one.kind === 'cell');
		if (!last) return;
		const { cells } = sheet.face;
		for (let k = cells.start[last.index]!; k < cells.start[last.index + 1]!; k++)
			context.fillText(
				String(k - cells.start[last.index]! + 1),
				X(sheet, sheet.layout.points[2 * k]!) + 3,
				Y(sheet.layout.points[2 * k + 1]!) - 3
			);
	}

	/** An edge's place on the map: the side of its left cell between its two nodes. */
	function edgeOnMap(sheet: (typeof sheets)[number], e: number): [number, number, number, number] | null {
		const { cells, edges } = sheet.face;
		const c = edges.left[e]!;
		const at = (node: number) => {
			for (let k = cells.start[c]!; k < cells.start[c + 1]!; k++) if (cells.corners[k] === node) return k;
			return -1;
		};
		const [a, b] = [at(edges.from[e]!), at(edges.to[e]!)];
		if (a < 0 || b < 0) return null;
		const { points } = sheet.layout;
		return [points[2 * a]!, points[2 * a + 1]!, points[2 * b]!, points[2 * b + 1]!];
	}

	const two = (n: number) => String(n).padStart(2, '0');
	interface Head {
		readonly kind: 'course' | 'bay';
		readonly n: number;
		readonly x: number;
		readonly y: number;
	}
	/** Heads that fit without touching; each selects its course or bay. */
	const heads = $derived.by(() =>
		sheets.map((sheet): Head[] => {
			const { up, across } = sheet.face;
			const list: Head[] = [];
			const left = Math.max(MARGIN.left - 8, X(sheet, sheet.layout.left) - 8);
			let lastY = Infinity;
			for (let j = 0; j < up.steps; j++) {
				const y = Y(((up.division.fractions[j]! + up.division.fractions[j + 1]!) / 2) * up.lengths.belt);
				if (lastY - y < 14 || y < 8 || y > size.height - MARGIN.bottom + 6) continue;
				lastY = y;
				list.push({ kind: 'course', n: j + 1, x: left, y });
			}
			const foot = Math.min(size.height - 26, Y(0) + 15);
			let lastX = -Infinity;
			for (let i = 0; i < across.steps; i++) {
				const share = (across.division.fractions[i]! + across.division.fractions[i + 1]!) / 2 - 0.5;
				const x = X(sheet, share * (sheet.face.courseLengths[0] ?? 0));
				if (x - lastX < 32 || x < MARGIN.left || x > size.width - 12) continue;
				lastX = x;
				list.push({ kind: 'bay', n: i + 1, x, y: foot });
			}
			return list;
		})
	);
	function drawHeads(context: CanvasRenderingContext2D, sheet: (typeof sheets)[number]) {
		context.font = '500 10.5px "Spline Sans Mono Variable", monospace';
		context.fillStyle = '#62665F';
		for (const head of heads[sheets.indexOf(sheet)] ?? []) {
			context.textAlign = head.kind === 'course' ? 'right' : 'center';
			context.textBaseline = 'middle';
			context.fillText(`${head.kind === 'course' ? 'C' : 'B'}${two(head.n)}`, head.x, head.y);
		}
	}

	function cellAt(px: number, py: number): { f: number; c: number } | null {
		for (const [f, sheet] of sheets.entries()) {
			const x = (px - originX) / scale - sheet.offset;
			const y = (originY - py) / scale;
			const { cells } = sheet.face;
			for (let c = 0; c < cells.count; c++) {
				let inside = false;
				const from = cells.start[c]!;
				const to = cells.start[c + 1]!;
				for (let k = from, p = to - 1; k < to; p = k++) {
					const [ax, ay] = [sheet.layout.points[2 * k]!, sheet.layout.points[2 * k + 1]!];
					const [bx, by] = [sheet.layout.points[2 * p]!, sheet.layout.points[2 * p + 1]!];
					if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
				}
				if (inside) return { f, c };
			}
		}
		return null;
	}
	const address = (f: number, c: number) =>
		addressOf(view, { zone: zoneIndex, face: f, kind: 'cell', index: c });
	function take(addresses: string[], extend: boolean) {
		if (extend) workbench.selection.extend(addresses);
		else workbench.selection.choose(addresses);
	}

	let drag: { x: number; y: number; panX: number; panY: number; moved: boolean; box: boolean } | null = null;
	let box = $state<{ x: number; y: number; width: number; height: number } | null>(null);
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
			const chosen: string[] = [];
			for (const [f, sheet] of sheets.entries())
				for (let c = 0; c < sheet.face.cells.count; c++) {
					const from = sheet.face.cells.start[c]!;
					const to = sheet.face.cells.start[c + 1]!;
					let x = 0;
					let y = 0;
					for (let k = from; k < to; k++) {
						x += X(sheet, sheet.layout.points[2 * k]!) / (to - from);
						y += Y(sheet.layout.points[2 * k + 1]!) / (to - from);
					}
					if (x >= box.x && x <= box.x + box.width && y >= box.y && y <= box.y + box.height)
						chosen.push(address(f, c));
				}
			box = null;
			take(chosen, true);
			return;
		}
		if (ended.moved) return;
		const at = local(event);
		const head = heads
			.flatMap((list, f) => list.map((one) => ({ ...one, f })))
			.find(
				(one) => Math.abs(at.x - one.x + (one.kind === 'course' ? 10 : 0)) < 16 && Math.abs(at.y - one.y) < 8
			);
		if (head) {
			const { cells } = sheets[head.f]!.face;
			const column = cells[head.kind];
			take(
				Array.from(column.keys())
					.filter((c) => column[c] === head.n)
					.map((c) => address(head.f, c)),
				event.shiftKey
			);
			return;
		}
		const hit = cellAt(at.x, at.y);
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
			{name} laid flat · {metres(whole.width)} × {metres(whole.height)} m · drag to pan, Shift-drag for a box, heads
			take a bay or a course
		</p>
	{:else}
		<p class="sentence text-ink-2 absolute inset-0 grid place-items-center">
			Choose a zone in the build sheet to see it laid flat.
		</p>
	{/if}
	{#if zoom !== 1 || pan.x || pan.y}<button
			type="button"
			class="plain-button absolute top-2 right-2 text-[12px]"
			onclick={fit}>Fit</button
		>{/if}
</div>
