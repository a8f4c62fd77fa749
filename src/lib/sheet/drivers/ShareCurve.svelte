<script lang="ts">
	import { dragging } from '$lib/components/drag';
	import { rounded } from '$core/units/quantity';
	import { Popover } from 'bits-ui';

	/** A curve from one share to another, drawn in place: straight from point to point. */
	interface Props {
		/** Between 0, 0 and 1, 1; none is straight. */
		points: readonly (readonly [number, number])[];
		label: string;
		onset: (points: [number, number][]) => void;
	}
	let { points, label, onset }: Props = $props();
	const SIZE = 180;
	/** While one is dragged. */
	let moving = $state.raw<[number, number][] | null>(null);
	let chosen = $state(0);
	/** With the ends, which need not be given. */
	function whole(given: Props['points']): [number, number][] {
		const list = given.map(([x, y]): [number, number] => [x, y]).sort((a, b) => a[0] - b[0]);
		if (!list.length || list[0]![0] > 0) list.unshift([0, 0]);
		if (list.at(-1)![0] < 1) list.push([1, 1]);
		return list;
	}
	const shown = $derived(moving ?? whole(points));
	const at = ([x, y]: readonly [number, number]) => `${x * SIZE},${(1 - y) * SIZE}`;
	const held = (value: number) => Math.min(1, Math.max(0, rounded(value, 3)));
	let svg = $state<SVGSVGElement>();
	function placeOf(event: MouseEvent): [number, number] {
		const box = svg!.getBoundingClientRect();
		return [held((event.clientX - box.left) / box.width), held(1 - (event.clientY - box.top) / box.height)];
	}
	/** A point stays between its neighbours; the first and the last stay at the ends. */
	function moved(
		list: readonly [number, number][],
		k: number,
		[x, y]: readonly [number, number]
	): [number, number][] {
		const low = k === 0 ? 0 : list[k - 1]![0];
		const high = k === list.length - 1 ? 1 : list[k + 1]![0];
		const across = k === 0 ? 0 : k === list.length - 1 ? 1 : Math.min(high, Math.max(low, x));
		return list.map((one, n) => (n === k ? [across, held(y)] : one));
	}
	function add(event: MouseEvent) {
		const place = placeOf(event);
		const after = shown.findIndex(([x]) => x > place[0]);
		const k = after < 0 ? shown.length - 1 : after;
		chosen = k;
		onset([...shown.slice(0, k), place, ...shown.slice(k)]);
	}
	function remove(k: number) {
		if (k === 0 || k === shown.length - 1) return;
		onset(shown.filter((_, n) => n !== k));
		chosen = k - 1;
	}
	const steps: Record<string, [number, number]> = {
		ArrowLeft: [-0.01, 0],
		ArrowRight: [0.01, 0],
		ArrowUp: [0, 0.01],
		ArrowDown: [0, -0.01]
	};
	function keydown(event: KeyboardEvent, k: number) {
		const step = steps[event.key];
		if (step) {
			const [x, y] = shown[k]!;
			onset(moved(shown, k, [x + step[0], y + step[1]]));
		} else if (event.key === 'Delete' || event.key === 'Backspace') remove(k);
		else return;
		event.preventDefault();
		event.stopPropagation();
	}
</script>

<span class="chip-run">
	<span class="inline-flex">
		<Popover.Root>
			<Popover.Trigger class="chip-choice" aria-label={label}
				><svg
					class="inline-block size-4 align-[-3px]"
					viewBox="-6 -6 {SIZE + 12} {SIZE + 12}"
					aria-hidden="true"
					><polyline
						points={shown.map(at).join(' ')}
						fill="none"
						stroke="currentColor"
						stroke-width="14"
					/></svg
				></Popover.Trigger
			>
			<Popover.Portal>
				<Popover.Content
					class="floating z-50 p-4 select-none"
					sideOffset={6}
					collisionPadding={8}
					aria-label={label}
				>
					<svg
						bind:this={svg}
						class="border-hair bg-paper block touch-none overflow-visible border"
						width={SIZE}
						height={SIZE}
						viewBox="0 0 {SIZE} {SIZE}"
						role="application"
						aria-label="{label}: double click adds a point, Delete takes the chosen one out"
						ondblclick={add}
					>
						{#each [0.25, 0.5, 0.75] as line (line)}
							<path d="M{line * SIZE} 0V{SIZE}M0 {line * SIZE}H{SIZE}" stroke="#e4dfd0" />
						{/each}
						<polyline points={shown.map(at).join(' ')} fill="none" stroke="#1F7A6B" stroke-width="2" />
						{#each shown as point, k (k)}
							<circle
								cx={point[0] * SIZE}
								cy={(1 - point[1]) * SIZE}
								r="6"
								class="cursor-grab stroke-white {chosen === k ? 'fill-gold' : 'fill-patina'}"
								tabindex="0"
								role="slider"
								aria-label="Point {k + 1}: {point[0]}, {point[1]}"
								aria-valuenow={point[1]}
								aria-valuemin={0}
								aria-valuemax={1}
								onfocus={() => (chosen = k)}
								onkeydown={(event) => keydown(event, k)}
								ondblclick={(event) => event.stopPropagation()}
								{@attach dragging({
									begin: () => {
										chosen = k;
										moving = shown;
										return true;
									},
									move: (event) => (moving = moved(shown, k, placeOf(event))),
									end: () => {
										const last = moving;
										moving = null;
										if (last) onset(last);
									},
									cancel: () => (moving = null)
								})}
							/>
						{/each}
					</svg>
					<p class="text-ink-2 mt-2 max-w-44 text-[11.5px] leading-snug">
						From the beginning of the range at the left to its end. Double click adds a point.
						<button type="button" class="text-patina-deep underline" onclick={() => onset([])}
							>Straight</button
						>
					</p>
				</Popover.Content>
			</Popover.Portal>
		</Popover.Root>
	</span>
</span>
