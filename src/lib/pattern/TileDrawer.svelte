<script lang="ts">
	import { dragging } from '$lib/components/drag';
	import { checkTile } from '$core/pattern/check-tile';
	import { polygonArea, type Place } from '$core/geometry/polygon';
	import type { TileDefinition } from '$core/project/pattern-schema';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import X from '@lucide/svelte/icons/x';
	import { Dialog } from 'bits-ui';
	import { below, insertAt, pathTo, removeAt } from '$core/project/typed-path';

	/** Polygons drawn on a lattice of dots, seen repeated at once, with what overlaps and what is left over. */
	let { tile, open = $bindable(false) }: { tile: TileDefinition; open?: boolean } = $props();
	const desk = useDesk();
	const path = $derived(pathTo('tiles', tile.id));
	const faults = $derived(checkTile(tile));
	const TONES = ['#B5D2CB', '#D9CBA6', '#B9CDD8', '#CFC3B4', '#C4D3A8', '#D8BFB0'];
	const slots = $derived([...new Set(tile.polygons.map((polygon) => polygon.slot))]);
	const toneOf = (slot: string) => TONES[slots.indexOf(slot) % TONES.length]!;

	const WIDTH = 430;
	const HEIGHT = 380;
	/** Steps shown around the tile. */
	const AROUND = 1;
	const scale = $derived(Math.min(WIDTH / (tile.across + 2 * AROUND), HEIGHT / (tile.up + 2 * AROUND)));
	const toX = (x: number) => (x + AROUND) * scale;
	const toY = (y: number) => (tile.up + AROUND - y) * scale;
	const pathOf = (points: readonly Place[]) =>
		points.map(([x, y], k) => `${k ? 'L' : 'M'}${toX(x).toFixed(2)} ${toY(y).toFixed(2)}`).join('') + 'Z';

	/** Dots stand at every step, and at so many between. */
	let fine = $state(1);
	let chosen = $state(-1);
	let drawn = $state.raw<readonly Place[]>([]);
	let drawing = $state(false);
	let here = $state.raw<Place | null>(null);
	let held = $state.raw<{ polygon: number; corner: number; at: Place } | null>(null);
	let svg = $state<SVGSVGElement>();
	const dots = $derived(
		Array.from(
			{ length: ((tile.up + 2 * AROUND) * fine + 1) * ((tile.across + 2 * AROUND) * fine + 1) },
			(_, k): Place => {
				const columns = (tile.across + 2 * AROUND) * fine + 1;
				return [(k % columns) / fine - AROUND, Math.floor(k / columns) / fine - AROUND];
			}
		)
	);
	const shown = $derived(
		tile.polygons.map((polygon, k) =>
			held?.polygon === k
				? { ...polygon, points: polygon.points.map((p, n) => (n === held!.corner ? held!.at : p)) }
				: polygon
		)
	);
	const copies = $derived(
		[-1, 0, 1].flatMap((dj) =>
			[-1, 0, 1].flatMap((di) =>
				di === 0 && dj === 0
					? []
					: shown.map(({ slot, points }) => ({
							slot,
							points: points.map(([x, y]): Place => [x + di * tile.across, y + dj * tile.up])
						}))
			)
		)
	);

	function placeAt(event: PointerEvent): Place {
		const bounds = svg!.getBoundingClientRect();
		const held = (value: number) => Math.round(value * fine) / fine;
		return [
			held(((event.clientX - bounds.left) / bounds.width) * (WIDTH / scale) - AROUND),
			held(tile.up + AROUND - ((event.clientY - bounds.top) / bounds.height) * (HEIGHT / scale))
		];
	}
	const same = (a: Place, b: Place) => Math.hypot(a[0] - b[0], a[1] - b[1]) < 1e-6;
	function down(event: PointerEvent) {
		if (!drawing) {
			chosen = -1;
			return;
		}
		const at = placeAt(event);
		if (drawn.length >= 3 && same(at, drawn[0]!)) return finish();
		if (!drawn.some((one) => same(one, at))) drawn = [...drawn, at];
	}
	function finish() {
		if (drawn.length < 3) return;
		const points = polygonArea(drawn) < 0 ? [...drawn].reverse() : [...drawn];
		drawing = false;
		drawn = [];
		desk.do(
			`${tile.name}: a polygon`,
			insertAt(below(path, 'polygons'), tile.polygons.length, {
				slot: slots[0] ?? 'cell',
				points: points.map(([x, y]): [number, number] => [x, y])
			})
		);
		chosen = tile.polygons.length - 1;
	}
	function take(event: PointerEvent, polygon: number, corner: number) {
		event.stopPropagation();
		held = { polygon, corner, at: tile.polygons[polygon]!.points[corner]! };
	}
	function move(event: PointerEvent) {
		if (drawing) here = placeAt(event);
	}
	function drop() {
		if (!held) return;
		const { polygon, corner, at } = held;
		held = null;
		if (!same(at, tile.polygons[polygon]!.points[corner]!))
			desk.set(
				below(path, 'polygons', polygon, 'points', corner),
				[...at],
				`${tile.name}: corner ${corner + 1} moved`
			);
	}
	function keydown(event: KeyboardEvent) {
		if (drawing && event.key === 'Escape') {
			event.stopPropagation();
			event.preventDefault();
			drawing = false;
			drawn = [];
		} else if (drawing && event.key === 'Enter') finish();
		else if (drawing && event.key === 'Backspace') drawn = drawn.slice(0, -1);
		else if (!drawing && (event.key === 'Delete' || event.key === 'Backspace') && chosen >= 0) remove(chosen);
		else return;
		event.preventDefault();
	}
	function remove(k: number) {
		chosen = -1;
		desk.do(`${tile.name}: polygon ${k + 1} removed`, removeAt(below(path, 'polygons', k)));
	}
	const drawnLine = $derived(
		[...drawn, ...(here && drawing ? [here] : [])].map(([x, y]) => `${toX(x)},${toY(y)}`).join(' ')
	);
	const corner = (text: string): [number, number] | null => {
		const numbers = text
			.split(/[\s,;]+/)
			.filter(Boolean)
			.map(Number);
		return numbers.length === 2 && numbers.every(Number.isFinite) ? (numbers as [number, number]) : null;
	};
</script>

<Dialog.Root bind:open>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-black/25" />
		<Dialog.Content
			class="floating fixed top-1/2 left-1/2 z-50 max-h-[94vh] w-[820px] max-w-[96vw] -translate-x-1/2 -translate-y-1/2 overflow-auto p-4"
			data-testid="tile-drawer"
			onkeydown={keydown}
			escapeKeydownBehavior={drawing ? 'ignore' : 'close'}
		>
			<div class="flex items-baseline justify-between">
				<Dialog.Title class="sentence">
					<TextChip
						value={tile.name}
						label="Name of the tile"
						look="name"
						oncommit={(text) => desk.set(below(path, 'name'), text, `tile ${text}`)}
					/>
					repeats every <ValueChip
						path={below(path, 'across')}
						value={tile.across}
						kind="count"
						label="Tile across"
						of={tile.name}
						min={1}
						max={60}
					/>
					bays and <ValueChip
						path={below(path, 'up')}
						value={tile.up}
						kind="count"
						label="Tile up"
						of={tile.name}
						min={1}
						max={60}
					/> courses.
				</Dialog.Title>
				<Dialog.Close class="text-ink-2 hover:bg-wash rounded" aria-label="Close"
					><X size={16} /></Dialog.Close
				>
			</div>
			<div class="mt-2 grid grid-cols-[430px_1fr] gap-4">
				<svg
					bind:this={svg}
					viewBox="0 0 {WIDTH} {HEIGHT}"
					class="border-hair w-full touch-none rounded border bg-[#FBFAF5] {drawing
						? 'cursor-crosshair'
						: ''}"
					role="application"
					aria-label="Tile {tile.name} on its lattice"
					data-testid="tile-lattice"
					onpointerdown={down}
					onpointermove={move}
				>
					{#each copies as copy, k (k)}
						<path
							d={pathOf(copy.points)}
							fill={toneOf(copy.slot)}
							fill-opacity="0.28"
							stroke="#9A978B"
							stroke-width="0.7"
						/>
					{/each}
					{#each shown as polygon, k (k)}
						<path
							role="presentation"
							d={pathOf(polygon.points)}
							fill={toneOf(polygon.slot)}
							stroke={chosen === k ? '#B9741A' : '#3C3E3A'}
							stroke-width={chosen === k ? 2.4 : 1.2}
							onpointerdown={(event) => {
								if (drawing) return;
								event.stopPropagation();
								chosen = k;
							}}
						/>
						<text
							x={toX(polygon.points.reduce((sum, p) => sum + p[0], 0) / polygon.points.length)}
							y={toY(polygon.points.reduce((sum, p) => sum + p[1], 0) / polygon.points.length) + 4}
							text-anchor="middle"
							class="figures pointer-events-none"
							font-size="11">{k + 1}</text
						>
					{/each}
					<rect
						x={toX(0)}
						y={toY(tile.up)}
						width={tile.across * scale}
						height={tile.up * scale}
						fill="none"
						stroke="#1F7A6B"
						stroke-dasharray="5 4"
						class="pointer-events-none"
					/>
					{#each faults.flatMap((fault) => fault.where) as region, k (k)}
						<path
							d={pathOf(region)}
							fill="#B23B2A"
							fill-opacity="0.28"
							stroke="#B23B2A"
							stroke-width="1.2"
							class="pointer-events-none"
						/>
					{/each}
					{#each dots as [x, y] (`${x} ${y}`)}
						<circle cx={toX(x)} cy={toY(y)} r="1.6" fill="#62665F" class="pointer-events-none" />
					{/each}
					{#if drawing}
						<polyline
							points={drawnLine}
							fill="rgb(217 142 31 / 0.2)"
							stroke="#B9741A"
							stroke-width="1.8"
							class="pointer-events-none"
						/>
						{#each drawn as [x, y], k (k)}<circle
								cx={toX(x)}
								cy={toY(y)}
								r={k === 0 ? 5 : 3}
								fill="#fff"
								stroke="#B9741A"
								class="pointer-events-none"
							/>{/each}
					{/if}
					{#if chosen >= 0 && !drawing}
						{#each shown[chosen]?.points ?? [] as [x, y], n (n)}
							<circle
								cx={toX(x)}
								cy={toY(y)}
								r="5"
								fill="#D98E1F"
								stroke="#fff"
								class="cursor-grab"
								data-corner={n + 1}
								{@attach dragging({
									begin: (event) => take(event, chosen, n),
									move: (event) => (held = held && { ...held, at: placeAt(event) }),
									end: drop,
									cancel: () => (held = null)
								})}
							/>
						{/each}
					{/if}
				</svg>
				<div class="min-w-0 text-[12.5px]">
					<div class="flex flex-wrap gap-2">
						<button
							type="button"
							class="plain-button"
							aria-pressed={drawing}
							onclick={() => ((drawing = !drawing), (drawn = []), (chosen = -1))}
							>{drawing ? 'Stop drawing' : 'Draw a polygon'}</button
						>
						<label class="text-ink-2 flex items-center gap-1.5"
							>dots between steps <select
								class="border-hair rounded border bg-white px-1 py-0.5"
								bind:value={fine}
								aria-label="Dots between steps"
								>{#each [1, 2, 3, 4, 6, 8] as n (n)}<option value={n}>{n - 1}</option>{/each}</select
							></label
						>
					</div>
					{#if drawing}<p class="text-ink-2 mt-1" role="status">
							Click its corners; Enter, or the first corner, ends it. Backspace takes the last one back.
						</p>{/if}
					<ul class="mt-2 max-h-48 overflow-auto" aria-label="Polygons of the tile">
						{#each tile.polygons as polygon, k (k)}
							<li class="flex items-center gap-2 rounded px-1 py-0.5 {chosen === k ? 'bg-wash' : ''}">
								<button
									type="button"
									class="figures w-5 text-left"
									aria-label="Choose polygon {k + 1}"
									aria-pressed={chosen === k}
									onclick={() => (chosen = k)}>{k + 1}</button
								>
								<span class="size-3 rounded-sm border border-black/20" style:background={toneOf(polygon.slot)}
								></span>
								<TextChip
									value={polygon.slot}
									label="Slot of polygon {k + 1}"
									look="name"
									oncommit={(text) =>
										desk.set(below(path, 'polygons', k, 'slot'), text, `${tile.name}: slot ${text}`)}
								/>
								<span class="figures text-ink-2 ml-auto text-[11px]">{polygon.points.length} corners</span>
								<button
									type="button"
									class="text-ink-2 underline"
									aria-label="Remove polygon {k + 1}"
									onclick={() => remove(k)}>remove</button
								>
							</li>
						{/each}
					</ul>
					{#if chosen >= 0 && tile.polygons[chosen]}
						<p class="text-ink-2 mt-2">Corners of polygon {chosen + 1}, in steps across and up:</p>
						<div class="mt-1 flex flex-wrap gap-1.5">
							{#each tile.polygons[chosen]!.points as [x, y], n (n)}
								<TextChip
									value="{x} {y}"
									label="Corner {n + 1} of polygon {chosen + 1}"
									look="formula"
									check={(text) =>
										corner(text) ? null : 'Two numbers are wanted, across and up, as in 0.5 1'}
									oncommit={(text) =>
										desk.set(
											below(path, 'polygons', chosen, 'points', n),
											corner(text) ?? [x, y],
											`${tile.name}: corner ${n + 1} at ${text}`
										)}
								/>
							{/each}
						</div>
					{/if}
					<div class="mt-3" role="status" data-testid="tile-faults">
						{#each faults as fault (fault.text)}
							<p class="bg-oxide-wash text-oxide-deep mb-1 rounded px-2 py-1 font-medium">{fault.text}.</p>
						{:else}
							<p class="text-patina-deep font-medium">It covers the plane once, seam and all.</p>
						{/each}
					</div>
				</div>
			</div>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
