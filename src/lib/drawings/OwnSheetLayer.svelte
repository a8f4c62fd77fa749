<script lang="ts">
	/** Over a sheet that is laid out by hand: views and words are taken hold of, points are measured between. */
	import type { HeldPoint } from '$core/drawing/laid-sheet';
	import { dimensionLine } from '$core/drawing/own-dimension';
	import { dragging } from '$lib/components/drag';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { LayingOut, OnSheet } from './laying-out.svelte';
	import { besideOthers, nearestPoint } from './snapping';

	interface Props {
		number: string;
		/** mm of paper */
		width: number;
		height: number;
		laying: LayingOut;
	}
	let { number, width, height, laying }: Props = $props();
	const desk = useDesk();
	let svg = $state<SVGSVGElement>();
	/** How far what is dragged is from where it lies (mm), and what it stands in line with. */
	let drag = $state.raw<{
		readonly of: OnSheet;
		readonly from: readonly [number, number];
		readonly by: readonly [number, number];
		readonly lines: ReturnType<typeof besideOthers>['lines'];
	} | null>(null);
	/** Where the pointer is (mm). */
	let pointer = $state.raw<readonly [number, number] | null>(null);
	let points = $state.raw<ReadonlyMap<string, readonly HeldPoint[]>>(new Map());

	/** mm of paper under a pointer */
	function placeOf({ clientX, clientY }: PointerEvent): [number, number] {
		const box = svg!.getBoundingClientRect();
		return [((clientX - box.left) / box.width) * width, height - ((clientY - box.top) / box.height) * height];
	}
	const views = $derived(laying.layout?.views ?? []);
	const isChosen = ({ is, id }: OnSheet) => laying.chosen?.is === is && laying.chosen.id === id;
	const byOf = ({ is, id }: OnSheet): readonly [number, number] =>
		drag && drag.of.is === is && drag.of.id === id ? drag.by : [0, 0];
	const boxOf = (id: string) => views.find((one) => one.id === id)?.box;

	function dragOf(of: OnSheet) {
		return dragging({
			begin: (event) => {
				if (laying.measuring) return false;
				laying.chosen = of;
				drag = { of, from: placeOf(event), by: [0, 0], lines: [] };
			},
			move: (event) => {
				if (!drag) return;
				const [x, y] = placeOf(event);
				const by = [x - drag.from[0], y - drag.from[1]] as const;
				const box = of.is === 'view' ? boxOf(of.id) : undefined;
				if (!box) drag = { ...drag, by, lines: [] };
				else {
					const others = views.flatMap((one) => (one.id === of.id ? [] : [one.box]));
					drag = { ...drag, ...besideOthers(box, by, others) };
				}
			},
			end: () => {
				const done = drag;
				drag = null;
				if (done && Math.hypot(...done.by) > 0.3) moveBy(of, done.by);
			},
			cancel: () => (drag = null)
		});
	}
	function moveBy(of: OnSheet, [dx, dy]: readonly [number, number]) {
		const list = of.is === 'view' ? laying.sheet?.views : laying.sheet?.written;
		const at = list?.find(({ id }) => id === of.id)?.at;
		if (at) laying.move(of, [at[0] + dx, at[1] + dy]);
	}
	/** An arrow moves by 5 mm, with the shift key by one. */
	function keydown(event: KeyboardEvent, of: OnSheet) {
		const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
		if (way) moveBy(of, [way[0]! * (event.shiftKey ? 1 : 5), way[1]! * (event.shiftKey ? 1 : 5)]);
		else if (event.key === 'Delete' || event.key === 'Backspace') laying.remove(of);
		else if (event.key === 'Escape') laying.chosen = null;
		else return;
		event.preventDefault();
	}

	// Points of all views are asked for once while something is measured.
	const measures = $derived(laying.measuring !== null);
	$effect(() => {
		const ids = views.map(({ id }) => id);
		if (!measures) return;
		const { service } = desk.model;
		void Promise.all(ids.map(async (id) => [id, await service.sheetPoints(number, id)] as const))
			.then((found) => (points = new Map(found)))
			.catch(() => null);
	});
	const near = $derived(
		laying.measuring && laying.measuring.points.length < 2 && pointer
			? nearestPoint(points, pointer, laying.measuring.points.length ? laying.measuring.view : null)
			: null
	);
	/** How far the pointer is from the first point, to the left of the way that is measured. */
	const trial = $derived.by(() => {
		const [from, to] = laying.measuring?.points ?? [];
		if (!laying.measuring || !from || !to || !pointer) return null;
		const { left } = dimensionLine(from.at, to.at, laying.measuring.way, 0);
		const off = (pointer[0] - from.at[0]) * left[0] + (pointer[1] - from.at[1]) * left[1];
		return { off, from, to, line: dimensionLine(from.at, to.at, laying.measuring.way, off) };
	});
	function click() {
		if (trial) laying.put(trial.off);
		else if (near) laying.hold(near.view, near.point);
	}
	function escape(event: KeyboardEvent) {
		if (event.key === 'Escape' && laying.measuring) laying.measuring = null;
	}
	const y = (up: number) => height - up;
</script>

<svelte:window onkeydown={escape} />

<!-- Left, head, width, height: mm of paper -->
{#snippet held(
	of: OnSheet,
	[left, head, wide, tall]: readonly [number, number, number, number],
	label: string,
	isWrong: boolean
)}
	{@const [dx, dy] = byOf(of)}
	<rect
		x={left + dx}
		y={y(head + dy)}
		width={wide}
		height={tall}
		rx="1"
		role="button"
		tabindex={measures ? -1 : 0}
		aria-label={label}
		aria-pressed={isChosen(of)}
		class={[
			'outline-none',
			!measures && 'cursor-move',
			isWrong ? 'stroke-oxide' : 'stroke-gold',
			isChosen(of)
				? 'fill-gold/6 [stroke-width:0.7]'
				: 'fill-transparent [stroke-width:0.5] [stroke-opacity:0] hover:[stroke-opacity:0.7] focus-visible:[stroke-opacity:1]',
			isWrong && '[stroke-opacity:1]!'
		]}
		stroke-dasharray={isWrong ? '2 1.5' : undefined}
		pointer-events={measures ? 'none' : 'all'}
		{@attach dragOf(of)}
		onfocus={() => !measures && (laying.chosen = of)}
		onkeydown={(event) => keydown(event, of)}
	/>
{/snippet}

{#if laying.sheet && !laying.sheet.views.length}<p
		class="sentence text-ink-2 absolute inset-x-0 top-1/3 mx-auto max-w-96 text-center"
	>
		Nothing lies on this sheet yet. Add a view: a side of the whole, a section, a picture from a corner, a
		face laid flat. It can be moved, sized by its scale, and measured in.
	</p>{/if}
<!-- What lies on the sheet are buttons; a click beside them lets go -->
<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
<svg
	bind:this={svg}
	viewBox="0 0 {width} {height}"
	class={['absolute inset-0 size-full will-change-transform', measures && 'cursor-crosshair']}
	role="group"
	aria-label="What lies on the sheet"
	onpointermove={(event) => (pointer = placeOf(event))}
	onpointerleave={() => (pointer = null)}
	onclick={(event) => {
		if (measures) click();
		else if (event.target === event.currentTarget) laying.chosen = null;
	}}
>
	{#each views as { id, title, box: [left, foot, right, head], fault } (id)}
		{@render held(
			{ is: 'view', id },
			[left - 2, head + 2, right - left + 4, head - foot + 4],
			`${title}${fault ? `: ${fault}` : ''}`,
			fault !== null
		)}
	{/each}
	{#each laying.sheet?.written ?? [] as { id, text, at } (id)}
		{@render held(
			{ is: 'written', id },
			[at[0] - 1, at[1] + 4, Math.max(8, text.length * 1.75 + 2), 5.5],
			`Words: ${text}`,
			false
		)}
	{/each}
	<g class="stroke-gold pointer-events-none" fill="none" stroke-width="0.3">
		{#each drag?.lines ?? [] as [x1, y1, x2, y2] (`${x1} ${y1} ${x2} ${y2}`)}
			<line {x1} y1={y(y1)} {x2} y2={y(y2)} stroke-dasharray="2 1" />
		{/each}
		{#each laying.measuring?.points ?? [] as { address, at } (address)}
			<circle cx={at[0]} cy={y(at[1])} r="1.2" stroke-width="0.5" />
		{/each}
		{#if near}<circle
				cx={near.point.at[0]}
				cy={y(near.point.at[1])}
				r="1.6"
				stroke-width="0.7"
				data-testid="point-near"
			/>{/if}
		{#if trial}
			<path
				d="M{trial.from.at[0]} {y(trial.from.at[1])}L{trial.line.from[0]} {y(trial.line.from[1])}L{trial.line
					.to[0]} {y(trial.line.to[1])}L{trial.to.at[0]} {y(trial.to.at[1])}"
				stroke-width="0.5"
			/>
		{/if}
	</g>
</svg>
