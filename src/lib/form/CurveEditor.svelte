<script lang="ts">
	import { dragging } from '$lib/components/drag';
	import Plus from '@lucide/svelte/icons/plus';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import type { Segment } from '$core/geometry/path';
	import { formatLength } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import { toast } from 'svelte-sonner';
	import { useDesk } from '$lib/state/desk.svelte';
	import {
		drawnPoints,
		evenOut,
		goesRound,
		joinAs,
		joinList,
		movePoint,
		removePoint,
		setLength,
		setSwitch,
		splitPair,
		type EditedCurve
	} from './curve';

	let { curve }: { curve: EditedCurve } = $props();
	const desk = useDesk();
	const display = $derived(desk.display);
	const WIDTH = 520;
	const HEIGHT = 300;
	const MARGIN = 34;

	/** Which two coordinates are drawn: for a curve in space the plan or one of the elevations. */
	const views = [
		{ value: '01', label: 'plan' },
		{ value: '02', label: 'elevation along x' },
		{ value: '12', label: 'elevation along y' }
	] as const;
	let chosenView = $state<(typeof views)[number]['value'] | null>(null);
	const spread = $derived(
		curve.axes.map((_, axis) => {
			const values = curve.points.map((p) => p[axis] ?? 0);
			return Math.max(...values) - Math.min(...values);
		})
	);
	const view = $derived.by(() => {
		if (curve.axes.length === 2) return '01';
		if (chosenView) return chosenView;
		if ((spread[2] ?? 0) < 1) return '01';
		return (spread[0] ?? 0) >= (spread[1] ?? 0) ? '02' : '12';
	});
	const across = $derived(Number(view[0]));
	const up = $derived(Number(view[1]));

	let snap = $state(50);
	let chosen = $state(0);
	/** The frame holds still while a point is dragged. */
	let frozen = $state.raw<{ left: number; low: number; scale: number } | null>(null);
	const drawn = $derived(drawnPoints(curve));
	const fitted = $derived.by(() => {
		const xs = [...drawn, ...curve.points].map((p) => p[across] ?? 0);
		const ys = [...drawn, ...curve.points].map((p) => p[up] ?? 0);
		const [left, right, low, high] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
		const scale = Math.min(
			(WIDTH - 2 * MARGIN) / Math.max(right - left, 500),
			(HEIGHT - 2 * MARGIN) / Math.max(high - low, 500)
		);
		return {
			left: (left + right) / 2 - WIDTH / 2 / scale,
			low: (low + high) / 2 - HEIGHT / 2 / scale,
			scale
		};
	});
	const frame = $derived(frozen ?? fitted);
	const X = (value: number) => (value - frame.left) * frame.scale;
	const Y = (value: number) => HEIGHT - (value - frame.low) * frame.scale;
	const place = (p: readonly number[]) => ({ x: X(p[across] ?? 0), y: Y(p[up] ?? 0) });
	const line = $derived(drawn.map((p) => `${X(p[across]!).toFixed(1)} ${Y(p[up]!).toFixed(1)}`).join('L'));
	/** Grid lines at the snapping distance, or a multiple that leaves room between them. */
	const gridStep = $derived.by(() => {
		let step = Math.max(1, snap);
		for (const factor of [2, 2.5, 2]) while (step * frame.scale < 14) step *= factor;
		return step;
	});
	const gridLines = (from: number, size: number) =>
		Array.from(
			{ length: Math.max(0, Math.ceil(size / frame.scale / gridStep) + 1) },
			(_, k) => (Math.ceil(from / gridStep) + k) * gridStep
		);
	const joins = $derived(joinList(curve));
	const pair = $derived(Math.min(chosen, joins.length - 1));
	const at = $derived(Math.min(chosen, curve.points.length - 1));
	const round = $derived(goesRound(curve));
	const next = $derived(curve.points[(pair + 1) % curve.points.length]);
	const pairLength = $derived(
		next ? Math.hypot(...curve.points[pair]!.map((value, axis) => next[axis]! - value)) : 0
	);

	let svg: SVGSVGElement;
	let dragged = $state<number | null>(null);
	function toPlane(event: PointerEvent): [number, number] {
		const box = svg.getBoundingClientRect();
		const x = ((event.clientX - box.left) / box.width) * WIDTH;
		const y = ((event.clientY - box.top) / box.height) * HEIGHT;
		const held = (value: number) => (snap > 0 ? Math.round(value / snap) * snap : Math.round(value));
		return [held(x / frame.scale + frame.left), held((HEIGHT - y) / frame.scale + frame.low)];
	}
	const movedTo = (k: number, [x, y]: readonly [number, number]) =>
		curve.points[k]!.map((value, axis) => (axis === across ? x : axis === up ? y : value));
	function take(event: PointerEvent, k: number) {
		event.preventDefault();
		chosen = k;
		dragged = k;
		frozen = fitted;
	}
	function drag(event: PointerEvent) {
		if (dragged === null) return;
		desk.project.preview(movePoint(curve, dragged, movedTo(dragged, toPlane(event))));
	}
	function drop(event: PointerEvent) {
		if (dragged === null) return;
		const edit = movePoint(curve, dragged, movedTo(dragged, toPlane(event)));
		const k = dragged;
		letGo();
		desk.do(`${curve.label} point ${k + 1} moved`, edit);
	}
	function letGo() {
		desk.project.dropPreview();
		dragged = null;
		frozen = null;
	}
	/** Arrow keys move the point by the snapping distance. */
	const ways: Record<string, readonly [number, number]> = {
		ArrowLeft: [-1, 0],
		ArrowRight: [1, 0],
		ArrowUp: [0, 1],
		ArrowDown: [0, -1]
	};
	function key(event: KeyboardEvent, k: number) {
		const way = ways[event.key];
		if (way) {
			event.preventDefault();
			event.stopPropagation();
			const step = snap || 1;
			const p = curve.points[k]!;
			const to = movedTo(k, [(p[across] ?? 0) + way[0] * step, (p[up] ?? 0) + way[1] * step]);
			desk.do(`${curve.label} point ${k + 1} moved`, movePoint(curve, k, to));
		} else if (event.key === 'Delete' || event.key === 'Backspace') {
			event.preventDefault();
			remove(k);
		}
	}
	const least = $derived(curve.closed === 'always' && !curve.mirrored ? 3 : 2);
	function remove(k: number) {
		if (curve.points.length <= least) return;
		desk.do(`${curve.label}: point ${k + 1} removed`, ...removePoint(curve, k));
		chosen = Math.max(0, k - 1);
	}
	let wanted = $state(9);
	function evenOutCurve() {
		let made: ReturnType<typeof evenOut>;
		try {
			made = evenOut(curve, wanted);
		} catch {
			toast.error('A broken curve cannot be evened out; mend it first.');
			return;
		}
		if (desk.do(`${curve.label} evened out to ${wanted} points`, ...made.edits))
			toast(
				`Evened out to ${wanted} points, within ${formatLength(made.deviation, display, 1)} of what it was.`
			);
	}
	function split(k: number) {
		desk.do(`${curve.label}: a point after ${k + 1}`, ...splitPair(curve, k));
		chosen = k + 1;
	}
	const joinWords = $derived([
		{ value: 'line', label: 'straight' },
		{ value: 'smooth', label: 'smooth' },
		...(curve.arcs ? [{ value: 'arc', label: 'an arc' }] : [])
	]);
	const wordOf = (segment: Segment | undefined) =>
		typeof segment === 'object' ? 'arc' : (segment ?? 'line');
	function chooseJoin(word: string) {
		const segment: Segment = word === 'arc' ? { arc: Math.round(pairLength / 8) } : (word as 'line');
		desk.do(`${curve.label}: ${word} after point ${pair + 1}`, joinAs(curve, pair, segment));
	}
	function setCoordinate(k: number, axis: number, value: number) {
		return movePoint(
			curve,
			k,
			curve.points[k]!.map((old, n) => (n === axis ? value : old))
		);
	}
	/** Where the length of a pair is written: beside its middle. */
	const lengthLabels = $derived(
		joins.flatMap((segment, k) => {
			const a = place(curve.points[k]!);
			const b = place(curve.points[(k + 1) % curve.points.length]!);
			if (Math.hypot(a.x - b.x, a.y - b.y) < 46 || segment === 'smooth') return [];
			const [p, q] = [curve.points[k]!, curve.points[(k + 1) % curve.points.length]!];
			const length = Math.hypot(...p.map((value, axis) => q[axis]! - value));
			return [{ k, x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 - 6, text: formatLength(length, display, 0) }];
		})
	);
</script>

<div class="w-[548px]" data-testid="curve-editor">
	<div class="sentence mb-2 flex flex-wrap items-baseline gap-x-1.5 gap-y-1 text-[14px]!">
		<h3 class="mr-auto font-sans text-[13px] font-semibold">{curve.label}</h3>
		{#if curve.axes.length === 3}
			<span
				>seen in <ChoiceChip
					value={view}
					options={views}
					label="Seen in"
					onchoose={(one) => (chosenView = one)}
				/></span
			>
		{/if}
		<span
			>snapping to <NumberChip
				value={snap}
				kind="length"
				{display}
				label="Snapping distance"
				min={0}
				step={10}
				oncommit={(value) => (snap = value)}
			/></span
		>
		{#if curve.mirrored !== undefined}
			<ChoiceChip
				value={curve.mirrored ? 'yes' : 'no'}
				options={[
					{ value: 'no', label: 'as drawn' },
					{ value: 'yes', label: 'mirrored about x = 0' }
				]}
				label="Symmetry"
				onchoose={(value) =>
					desk.do(
						`${curve.label} ${value === 'yes' ? 'mirrored' : 'as drawn'}`,
						...setSwitch(curve, 'mirrored', value === 'yes')
					)}
			/>
		{/if}
		{#if typeof curve.closed === 'boolean'}
			<ChoiceChip
				value={curve.closed ? 'closed' : 'open'}
				options={[
					{ value: 'open', label: 'open' },
					{ value: 'closed', label: 'closed' }
				]}
				label="Open or closed"
				onchoose={(value) =>
					desk.do(`${curve.label} ${value}`, ...setSwitch(curve, 'closed', value === 'closed'))}
			/>
		{/if}
	</div>
	<svg
		bind:this={svg}
		viewBox="0 0 {WIDTH} {HEIGHT}"
		class="border-hair w-full touch-none rounded border bg-white"
		role="group"
		aria-label="Drawing of {curve.label}"
	>
		<g stroke="#ECE8DB" stroke-width="1">
			{#each gridLines(frame.left, WIDTH) as x (x)}<line x1={X(x)} x2={X(x)} y1="0" y2={HEIGHT} />{/each}
			{#each gridLines(frame.low, HEIGHT) as y (y)}<line x1="0" x2={WIDTH} y1={Y(y)} y2={Y(y)} />{/each}
		</g>
		<g stroke="#B9B3A0" stroke-width="1.2">
			<line x1={X(0)} x2={X(0)} y1="0" y2={HEIGHT} />
			<line x1="0" x2={WIDTH} y1={Y(0)} y2={Y(0)} />
		</g>
		<g font-size="10" fill="#62665F" class="figures">
			<text x={WIDTH - 6} y={HEIGHT - 6} text-anchor="end">{curve.axes[across]} →</text>
			<text x="6" y="14">{curve.axes[up]} ↑</text>
		</g>
		<path
			d="M{line}{round ? 'Z' : ''}"
			fill={round || curve.mirrored ? '#E3F0EC' : 'none'}
			stroke="#1F7A6B"
			stroke-width="2"
		/>
		<g font-size="10.5" fill="#1D2126" text-anchor="middle" class="figures">
			{#each lengthLabels as label (label.k)}<text x={label.x} y={label.y}>{label.text}</text>{/each}
		</g>
		{#each joins.keys() as k (k)}
			{@const a = place(curve.points[k]!)}
			{@const b = place(curve.points[(k + 1) % curve.points.length]!)}
			{#if Math.hypot(a.x - b.x, a.y - b.y) > 34}
				<!-- Its keyboard way is the button under the drawing -->
				<g class="cursor-pointer opacity-45 hover:opacity-100" role="presentation" onclick={() => split(k)}>
					<circle cx={(a.x + b.x) / 2} cy={(a.y + b.y) / 2 + 7} r="6" fill="#FFFFFF" stroke="#1F7A6B" />
					<path
						d="M{(a.x + b.x) / 2 - 3} {(a.y + b.y) / 2 + 7}h6m-3-3v6"
						stroke="#1F7A6B"
						stroke-width="1.2"
					/>
				</g>
			{/if}
		{/each}
		{#each curve.points as point, k (k)}
			{@const p = place(point)}
			<!-- A point is a slider in two directions -->
			<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
			<g
				class="cursor-grab outline-none focus-visible:[&>circle]:stroke-[#D98E1F]"
				role="application"
				tabindex="0"
				aria-label="Point {k + 1}: {point.map((value, axis) => `${curve.axes[axis]} ${value}`).join(', ')}"
				{@attach dragging({ begin: (event) => take(event, k), move: drag, end: drop, cancel: letGo })}
				onfocus={() => (chosen = k)}
				onkeydown={(event) => key(event, k)}
			>
				<circle cx={p.x} cy={p.y} r="11" fill="transparent" stroke="none" />
				<circle
					cx={p.x}
					cy={p.y}
					r="5"
					fill={k === at ? '#D98E1F' : '#1F7A6B'}
					stroke="#FFFFFF"
					stroke-width="1.5"
				/>
				<text x={p.x + 8} y={p.y - 7} font-size="10" font-weight="600" fill="#1D2126">{k + 1}</text>
			</g>
		{/each}
	</svg>
	<div class="sentence mt-2 flex flex-wrap items-baseline gap-x-1.5 gap-y-1 text-[14px]!">
		<span
			>Point <ChoiceChip
				value={String(at)}
				options={curve.points.map((_, k) => ({ value: String(k), label: String(k + 1) }))}
				label="Point"
				onchoose={(k) => (chosen = Number(k))}
			/> at</span
		>
		{#each curve.axes as axis, n (axis)}
			<span class="whitespace-nowrap"
				>{axis}
				<NumberChip
					value={curve.points[at]?.[n] ?? 0}
					kind="length"
					{display}
					step={snap || 10}
					label="{curve.label} point {at + 1} {axis}"
					onpreview={(value) => desk.project.preview(setCoordinate(at, n, value))}
					onpreviewend={() => desk.project.dropPreview()}
					oncommit={(value, was) =>
						desk.do(`${curve.label} point ${at + 1} ${axis} ${was} → ${value}`, setCoordinate(at, n, value))}
				/></span
			>
		{/each}
		<span class="ml-auto flex gap-1">
			<button
				type="button"
				class="plain-button flex items-center gap-1 font-sans text-[12px]"
				onclick={() => split(pair)}><Plus size={12} />Point after</button
			>
			<button
				type="button"
				class="plain-button flex items-center gap-1 font-sans text-[12px]"
				disabled={curve.points.length <= least}
				aria-label="Remove point {at + 1}"
				onclick={() => remove(at)}><Trash2 size={12} />Remove</button
			>
		</span>
	</div>
	<p class="sentence mt-1 text-[14px]!">
		<button type="button" class="plain-button font-sans text-[12px]" onclick={evenOutCurve}>Even out</button>
		to a smooth curve through
		<NumberChip
			value={wanted}
			kind="count"
			label="Points to even out to"
			min={Math.max(3, least)}
			max={60}
			oncommit={(value) => (wanted = value)}
		/> points.
	</p>
	{#if joins.length}
		<p class="sentence mt-1 text-[14px]!">
			From {pair + 1} to {((pair + 1) % curve.points.length) + 1}:
			<ChoiceChip value={wordOf(joins[pair])} options={joinWords} label="Join" onchoose={chooseJoin} />
			{#if typeof joins[pair] === 'object'}{@const rise = (joins[pair] as { arc: number }).arc}
				that rises
				<NumberChip
					value={rise}
					kind="length"
					{display}
					label="Rise of the arc"
					step={snap || 10}
					onpreview={(value) => desk.project.preview(joinAs(curve, pair, { arc: value }))}
					onpreviewend={() => desk.project.dropPreview()}
					oncommit={(value, was) =>
						desk.do(`${curve.label} rise ${was} → ${value}`, joinAs(curve, pair, { arc: value }))}
				/> to the left{:else if joins[pair] === 'line'}
				for
				<NumberChip
					value={pairLength}
					kind="length"
					{display}
					label="Length from {pair + 1}"
					min={1}
					step={snap || 10}
					oncommit={(value) =>
						desk.do(`${curve.label} length after ${pair + 1}`, setLength(curve, pair, value))}
				/>{/if}.
		</p>
	{/if}
</div>
