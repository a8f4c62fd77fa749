<script lang="ts">
	import { dragging } from '$lib/components/drag';
	import { rangeOf } from '$lib/check/measures';
	import { cellColours } from '$lib/model/paint';
	import { addressOf, find, type Found } from '$lib/state/selection.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { formatNumber } from '$core/units/quantity';
	import { onMount, untrack } from 'svelte';
	import { cellsOfShape, shapeName } from './alike';
	import { guideEdit, guideLine, trimEdit } from '$lib/edits/drawn';
	import MapDrawing from './MapDrawing.svelte';
	import MapMeasuring from './MapMeasuring.svelte';
	import {
		drawAddresses,
		drawCells,
		drawCornerNumbers,
		drawFaceName,
		drawGuide,
		drawHeads,
		drawSelection
	} from './draw-map';
	import { DRAWN_AT_ONCE, MapPicture, type MapContent } from './map-picture';
	import { exceptionEdits } from '$lib/edits/by-hand';
	import { variantsOn } from '$lib/edits/variants-on';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import {
		MARGIN,
		cellAt,
		cellsWhere,
		extentOf,
		headAt,
		headsOf,
		mapSheets,
		middleOfCell,
		toX,
		toY
	} from './map-sheets';
	import Enclosure from '$lib/components/Enclosure.svelte';
	import { Enclosing } from '$lib/components/enclosing.svelte';

	const desk = useDesk();
	let canvas: HTMLCanvasElement;
	let frame: HTMLElement;
	let size = $state({ width: 0, height: 0 });
	/** Zoom over the fitted size, and the pan in pixels. */
	let zoom = $state(1);
	let pan = $state({ x: 0, y: 0 });

	const view = $derived(desk.model.view);
	const zoneIndex = $derived(view.zones.findIndex((zone) => zone.id === desk.activeZone));
	const zone = $derived(view.zones[zoneIndex]);
	const name = $derived(desk.project.document.zones.find((one) => one.id === zone?.id)?.name ?? '');
	/** Its name while it is not made yet. */
	const chosen = $derived(
		desk.model.behind && desk.project.document.zones.find((one) => one.id === desk.activeZone)?.name
	);
	const room = $derived({
		width: size.width - MARGIN.left - MARGIN.right,
		height: size.height - MARGIN.top - MARGIN.bottom
	});
	/** Webs, paths and chains have no cells. */
	const hasSheets = $derived(zone?.faces.some(({ cells }) => cells.count > 0) ?? false);
	const sheets = $derived(hasSheets ? mapSheets(zone!.faces, room) : []);
	const whole = $derived(extentOf(sheets));
	const place = $derived.by(() => {
		const scale = Math.min(room.width / whole.width, room.height / whole.height) * zoom;
		return {
			scale,
			originX: (size.width + MARGIN.left - MARGIN.right - whole.width * scale) / 2 + pan.x,
			originY: (size.height + MARGIN.top - MARGIN.bottom + whole.height * scale) / 2 + pan.y
		};
	});
	/** Heads of every sheet; each selects its course or bay. */
	const heads = $derived(sheets.map((sheet) => headsOf(sheet, place, size)));
	const selected = $derived(
		desk.selection.addresses
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

	let pictures = $state(0);
	const picture = new MapPicture(() => pictures++);
	onMount(() => () => picture.stop());
	const colours = $derived.by(() => {
		const { painted: lens, measure } = desk;
		if (!zone) return [];
		const paint = { lens, measure, range: rangeOf(view, measure), chosen: desk.chosenColours };
		return zone.faces.map((_, f) => cellColours(zone, zoneIndex, f, paint));
	});
	const cellCount = $derived(sheets.reduce((sum, { face }) => sum + face.cells.count, 0));
	/** Cells of all sheets in one row, for drawing some of them. */
	const content = $derived<MapContent>({
		count: cellCount,
		draw(pen, at, from, to) {
			let first = 0;
			sheets.forEach((sheet, f) => {
				const { count } = sheet.face.cells;
				const [low, high] = [Math.max(0, from - first), Math.min(count, to - first)];
				if (low < high && colours[f]) drawCells(pen, at, sheet, colours[f], size, low, high);
				first += count;
			});
		}
	});
	let drawnContent: MapContent | null = null;
	$effect(() => {
		void pictures;
		if (!size.width || !size.height) return;
		const ratio = devicePixelRatio;
		canvas.width = size.width * ratio;
		canvas.height = size.height * ratio;
		const pen = canvas.getContext('2d')!;
		pen.scale(ratio, ratio);
		pen.clearRect(0, 0, size.width, size.height);
		if (!zone) return;
		if (cellCount <= DRAWN_AT_ONCE) content.draw(pen, place, 0, cellCount);
		else picture.show(pen, content, place, size, ratio, drawnContent !== content);
		drawnContent = content;
		sheets.forEach((sheet, f) => {
			const here = selected.filter((one) => one.face === f);
			const indices = (kind: string) => here.filter((one) => one.kind === kind).map((one) => one.index);
			const cells = indices('cell');
			drawHeads(pen, heads[f]!);
			if (sheets.length > 1) drawFaceName(pen, place, sheet, faceName(f));
			drawSelection(pen, place, sheet, [...cells, ...(paintedCells.get(f) ?? [])], indices('line'));
			for (const guide of guideLines) if (guide.f === f) drawGuide(pen, place, sheet, guide.line, guide.name);
			if (!desk.labels) return;
			if (cellCount <= DRAWN_AT_ONCE) drawAddresses(pen, place, sheet, size);
			if (cells.length) drawCornerNumbers(pen, place, sheet, cells.at(-1)!);
		});
	});

	const address = (f: number, c: number) =>
		addressOf(view, { zone: zoneIndex, face: f, kind: 'cell', index: c });
	function take(addresses: string[], extend: boolean) {
		if (extend) desk.selection.extend(addresses);
		else desk.selection.choose(addresses);
	}

	let drag: { x: number; y: number; panX: number; panY: number; moved: boolean } | null = null;
	const enclosing = new Enclosing();
	type Tool = 'choose' | 'trim' | 'guide' | 'paint';
	let tool = $state<Tool>('choose');
	/** What painting puts on cells: a variant, open, or what the rules say. */
	let brush = $state('rules');
	/** Cells that the brush has gone over, by face. */
	let paintedCells = $state.raw<ReadonlyMap<number, ReadonlySet<number>>>(new Map());
	const painted = $derived([...paintedCells].flatMap(([f, cells]) => [...cells].map((c) => address(f, c))));
	const brushes = $derived([
		{ value: 'rules', label: 'what the rules say' },
		{ value: 'open', label: 'nothing: open' },
		...variantsOn(desk.project.document, 'cell').map(({ value, label }) => ({
			value: `variant ${value}`,
			label
		}))
	]);
	function paintAt(x: number, y: number) {
		const hit = cellAt(sheets, place, x, y);
		if (!hit || paintedCells.get(hit.f)?.has(hit.c)) return;
		paintedCells = new Map([...paintedCells, [hit.f, new Set([...(paintedCells.get(hit.f) ?? []), hit.c])]]);
	}
	function endPaint() {
		const put =
			brush === 'rules' ? null : brush === 'open' ? 'open' : { variant: brush.slice(8), values: {} };
		const edits = exceptionEdits(desk.project.document, painted, put, view);
		const count = painted.length;
		paintedCells = new Map();
		if (edits.length) desk.do(`${name}: ${count} ${count === 1 ? 'cell' : 'cells'} painted`, ...edits);
	}
	const faceOf = (f: number) => desk.project.document.zones.find((one) => one.id === zone?.id)?.faces[f];
	function faceName(f: number): string {
		const wanted = faceOf(f);
		const mass = desk.project.document.masses.find((one) => one.id === wanted?.mass);
		return wanted ? `${mass?.name ?? wanted.mass} · ${wanted.face}` : '';
	}
	function addGuide(f: number, places: (readonly [number, number])[]) {
		tool = 'choose';
		const wanted = faceOf(f);
		if (wanted) desk.do('a guide drawn on the map', guideEdit(desk.project.document.guides, wanted, places));
	}
	function addTrim(f: number, places: (readonly [number, number])[]) {
		tool = 'choose';
		const wanted = faceOf(f);
		const mass = desk.project.document.masses.find((one) => one.id === wanted?.mass);
		if (wanted && mass) desk.do(`${mass.name}: a trim drawn on the map`, trimEdit(mass, wanted.face, places));
	}
	/** Guides on the faces of the zone: which face, and the line to draw. */
	const guideLines = $derived(
		desk.project.document.guides.flatMap((guide) => {
			if (guide.on !== 'map') return [];
			const f = sheets.findIndex((_, k) => {
				const face = faceOf(k);
				return face?.mass === guide.mass && face.face === guide.face;
			});
			return f < 0 ? [] : [{ f, line: guideLine(guide), name: guide.name }];
		})
	);
	const local = (event: PointerEvent | WheelEvent) => {
		const bounds = canvas.getBoundingClientRect();
		return { x: event.clientX - bounds.left, y: event.clientY - bounds.top };
	};
	function down(event: PointerEvent) {
		const at = local(event);
		if (tool === 'paint') paintAt(at.x, at.y);
		else {
			drag = { ...at, panX: pan.x, panY: pan.y, moved: false };
			enclosing.begin(event, at);
		}
	}
	/** The pointer was lost: nothing is painted or chosen. */
	function lost() {
		drag = null;
		enclosing.cancel();
		paintedCells = new Map();
	}
	function move(event: PointerEvent) {
		const at = local(event);
		if (tool === 'paint') return paintAt(at.x, at.y);
		if (!drag) return;
		if (Math.hypot(at.x - drag.x, at.y - drag.y) > 4) drag.moved = true;
		if (!drag.moved) return;
		if (enclosing.begun) enclosing.move(at);
		else pan = { x: drag.panX + at.x - drag.x, y: drag.panY + at.y - drag.y };
	}
	function up(event: PointerEvent) {
		if (tool === 'paint') {
			endPaint();
			return;
		}
		const ended = drag;
		drag = null;
		if (!ended) return;
		const holds = enclosing.end();
		if ((holds || !ended.moved) && !desk.mayChoose(zoneIndex)) return;
		if (holds) {
			desk.selection.enclose(cellsWhere(sheets, place, holds).map(({ f, c }) => address(f, c)));
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
			if (!event.shiftKey) desk.selection.clear();
		} else if (event.shiftKey) desk.selection.toggle(address(hit.f, hit.c));
		else desk.selection.choose([address(hit.f, hit.c)]);
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
	function chooseAlike() {
		const [one] = selected;
		if (!one) return;
		const wanted = shapeName(sheets[one.face]!.face, one.index);
		desk.selection.choose(
			sheets.flatMap(({ face }, f) => cellsOfShape(face, wanted).map((c) => address(f, c)))
		);
	}
	function fit() {
		zoom = 1;
		pan = { x: 0, y: 0 };
	}
	/** Where a cell is on the canvas, and how wide a bay is there (px). */
	function seenAt(one: Pick<Found, 'face' | 'index'>) {
		const sheet = sheets[one.face];
		if (!sheet) return null;
		const { x, y } = middleOfCell(sheet, one.index);
		return { x: toX(place, sheet, x, y), y: toY(place, sheet, x, y) };
	}
	/** Bring what is chosen to the middle. @param to the zoom that is wanted */
	function centreOn(one: Found, to: number) {
		const at = seenAt(one);
		if (!at) return;
		const ratio = to / zoom;
		const [middleX, middleY] = [
			(size.width + MARGIN.left - MARGIN.right) / 2,
			(size.height + MARGIN.top - MARGIN.bottom) / 2
		];
		pan = { x: (pan.x - (at.x - middleX)) * ratio, y: (pan.y - (at.y - middleY)) * ratio };
		zoom = to;
	}
	/** As near as a chosen cell has to be to be read (px). */
	const READABLE = 120;
	function nearer() {
		const one = selected.find(({ kind }) => kind === 'cell');
		if (!one) return;
		const { across } = sheets[one.face]!.face.grid;
		const wide = (across.lengths.belt / across.steps) * place.scale;
		centreOn(one, Math.min(60, Math.max(zoom, (zoom * READABLE) / Math.max(0.1, wide))));
	}
	// What is chosen elsewhere comes into the map when only a part of it is seen.
	$effect(() => {
		const one = selected.at(-1);
		if (!one || one.kind !== 'cell') return;
		untrack(() => {
			if (zoom === 1) return;
			const at = seenAt(one);
			if (at && (at.x < 0 || at.y < 0 || at.x > size.width || at.y > size.height)) centreOn(one, zoom);
		});
	});
	/** Where the middle of the model's picture lies on the map. */
	const lookedAt = $derived.by(() => {
		const one = desk.lookedAt ? find(view, desk.lookedAt) : null;
		return one?.zone === zoneIndex ? seenAt(one) : null;
	});
	const metres = (mm: number) => formatNumber(mm / 1000, 1);
	/** Every face's own size; the room between them is none of it. */
	const sizes = $derived(
		sheets
			.slice(0, 4)
			.map(({ layout }) => `${metres(layout.right - layout.left)} × ${metres(layout.height)}`)
			.join(', ') + (sheets.length > 4 ? ' …' : '')
	);
</script>

<div class="bg-sheet relative h-full overflow-hidden" bind:this={frame} data-testid="map">
	<canvas
		bind:this={canvas}
		class="absolute inset-0 size-full touch-none"
		aria-label="Flat map of {name || 'no zone'}"
		title="Drag to pan, Shift-drag for a box, Alt-drag for a line round cells; heads take a bay or a course"
		{@attach onwheel}
		{@attach dragging({ begin: down, move, end: up, cancel: lost })}
	></canvas>
	<Enclosure of={enclosing} />
	{#if zone && (desk.measures || desk.project.document.notes.length)}
		<MapMeasuring {sheets} view={place} />
	{/if}
	{#if lookedAt}<svg
			class="pointer-events-none absolute inset-0 size-full"
			data-testid="looked-at"
			role="img"
			aria-label="The middle of the model's picture"
			><g transform="translate({lookedAt.x} {lookedAt.y})" fill="none" stroke="#1d2126" stroke-width="1.2"
				><path d="M-9 0Q0 -7 9 0Q0 7 -9 0Z" fill="#fffdf7" fill-opacity="0.85" /><circle
					r="2.6"
					fill="#1d2126"
				/></g
			></svg
		>{/if}
	{#if zone && hasSheets}
		<p class="figures text-ink-2 pointer-events-none absolute bottom-1 left-13 text-[10.5px] max-lg:hidden">
			{name} laid flat · {sizes} m
		</p>
	{:else}
		<p class="sentence text-ink-2 absolute inset-0 grid place-items-center">
			{zone && !view.partial
				? `${name} has lines and no cells: it is seen in the model.`
				: chosen
					? `Laying ${chosen} flat …`
					: 'Choose a zone in the build sheet to see it laid flat.'}
		</p>
	{/if}
	{#if tool === 'trim' || tool === 'guide'}
		{#key tool}<MapDrawing
				{sheets}
				view={place}
				what={tool === 'trim' ? 'a trim' : 'a guide'}
				closed={tool === 'trim'}
				least={tool === 'trim' ? 3 : 1}
				ondone={tool === 'trim' ? addTrim : addGuide}
				onleave={() => (tool = 'choose')}
			/>{/key}
	{/if}
	{#if tool === 'paint'}
		<p class="floating absolute top-2 left-14 flex items-center gap-2 px-2.5 py-1 text-[12px]" role="status">
			Painting <ChoiceChip
				value={brush}
				options={brushes}
				label="What is painted"
				onchoose={(next) => (brush = next)}
			/>
			over cells{#if painted.length}: {painted.length}{/if}
			<button type="button" class="underline" onclick={() => (tool = 'choose')}>Done</button>
		</p>
	{/if}
	<div class="absolute right-2 bottom-1 flex gap-1 text-[11.5px]">
		{#if zoom !== 1 || pan.x || pan.y}<button type="button" class="plain-button py-0.5!" onclick={fit}
				>Fit</button
			>{/if}
		{#if selected.some(({ kind }) => kind === 'cell')}<button
				type="button"
				class="plain-button py-0.5!"
				onclick={nearer}>Nearer</button
			>{/if}
		<button
			type="button"
			class="plain-button py-0.5!"
			aria-pressed={desk.mapAlone}
			title="Shift M"
			onclick={() => (desk.mapAlone = !desk.mapAlone)}
			>{desk.mapAlone ? 'With the model' : 'Whole room'}</button
		>
		{#if sheets.length && tool === 'choose'}
			{#if selected.length === 1 && selected[0]?.kind === 'cell'}<button
					type="button"
					class="plain-button py-0.5!"
					onclick={chooseAlike}>Alike</button
				>{/if}
			<button type="button" class="plain-button py-0.5!" onclick={() => (tool = 'paint')}>Paint</button>
			{#if faceOf(0)}
				<button type="button" class="plain-button py-0.5!" onclick={() => (tool = 'guide')}
					>Draw a guide</button
				>
				<button type="button" class="plain-button py-0.5!" onclick={() => (tool = 'trim')}>Draw a trim</button
				>
			{/if}
		{/if}
	</div>
</div>
