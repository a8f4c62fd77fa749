<script lang="ts">
	import { dragging } from './drag';
	import { inDegrees, inRadians } from '$core/units/scale';
	import ChipInput from './ChipInput.svelte';
	import type { NumberKind } from '$core/units/dimension';
	import { formatQuantity, parseQuantity, type LengthDisplay, rounded } from '$core/units/quantity';

	interface Props {
		/** In the unit of the document: mm, degrees, plain. */
		value: number;
		kind: NumberKind;
		label: string;
		display?: LengthDisplay;
		/** What one arrow key or four pixels of a drag change. */
		step?: number;
		min?: number;
		max?: number;
		/** Whether the value is broken and its clause says why. */
		wrong?: boolean;
		onpreview?: (value: number) => void;
		/** With the value from before, which a preview has already replaced in the document. */
		oncommit: (value: number, was: number) => void;
		onpreviewend?: () => void;
		/** Whether something else than a number is accepted in its place, and what is done with it. */
		takes?: (text: string) => boolean;
		onformula?: (text: string) => void;
	}
	let {
		value,
		kind,
		label,
		display = 'mm',
		step = kind === 'count' ? 1 : kind === 'angle' ? 1 : kind === 'ratio' ? 0.01 : 10,
		min = -Infinity,
		max = Infinity,
		wrong = false,
		onpreview,
		oncommit,
		onpreviewend,
		takes,
		onformula
	}: Props = $props();

	const PIXELS_PER_STEP = 4;
	let editing = $state(false);
	let typed = $state('');
	let isBegun = $state(false);
	let fault = $state<string | null>(null);
	/** The value while the pointer drags it. */
	let dragged = $state<number | null>(null);
	let drag: { x: number; from: number; moved: boolean } | null = null;
	let button = $state<HTMLButtonElement>();

	const shown = $derived(dragged ?? value);
	const text = $derived(formatQuantity(kind === 'angle' ? inRadians(shown) : shown, kind, display));
	const hold = (wanted: number) => Math.min(max, Math.max(min, wanted));
	const tidy = (wanted: number) => rounded(wanted, 6);

	/** @param begun what was typed on the chip already, in the place of what stood there */
	function edit(begun?: string) {
		typed =
			begun ?? (kind === 'length' && display === 'mm' ? String(tidy(value)) : text.replaceAll('\u202f', ''));
		isBegun = begun !== undefined;
		fault = null;
		editing = true;
	}

	function accept(backToChip: boolean) {
		let read: number;
		try {
			read = parseQuantity(typed, kind, display);
			if (kind === 'angle') read = inDegrees(read);
			if (read < min || read > max) {
				const limit = (bound: number) =>
					formatQuantity(kind === 'angle' ? inRadians(bound) : bound, kind, display);
				const range =
					min > -Infinity && max < Infinity
						? `${limit(min)} to ${limit(max)}`
						: min > -Infinity
							? `at least ${limit(min)}`
							: `at most ${limit(max)}`;
				throw new Error(`${label} of ${typed.trim()} cannot be; ${range} is accepted`);
			}
		} catch (error) {
			if (takes?.(typed.trim())) {
				editing = false;
				onformula?.(typed.trim());
				return;
			}
			fault = error instanceof Error ? error.message : String(error);
			return;
		}
		editing = false;
		if (tidy(read) !== tidy(value)) oncommit(tidy(read), value);
		if (backToChip) queueMicrotask(() => button?.focus());
	}

	function leave() {
		editing = false;
		fault = null;
		queueMicrotask(() => button?.focus());
	}

	function keyOnChip(event: KeyboardEvent) {
		const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
		if (by) {
			event.preventDefault();
			event.stopPropagation();
			const next = hold(tidy(value + by * step * (event.shiftKey ? 10 : 1)));
			if (next !== value) oncommit(next, value);
		} else if (/^[\d.,+−-]$/.test(event.key) && !event.ctrlKey && !event.metaKey && !event.altKey) {
			event.preventDefault();
			event.stopPropagation();
			edit(event.key);
		}
	}

	function down(event: PointerEvent) {
		drag = { x: event.clientX, from: value, moved: false };
	}
	function move(event: PointerEvent) {
		if (!drag) return;
		const by = Math.round((event.clientX - drag.x) / PIXELS_PER_STEP);
		if (!drag.moved && Math.abs(event.clientX - drag.x) < PIXELS_PER_STEP) return;
		drag.moved = true;
		const next = hold(tidy(drag.from + by * step * (event.shiftKey ? 10 : 1)));
		if (next === dragged) return;
		dragged = next;
		onpreview?.(next);
	}
	function up() {
		const ended = drag;
		drag = null;
		if (!ended?.moved) return;
		const final = dragged;
		dragged = null;
		if (final !== null && final !== ended.from) oncommit(final, ended.from);
		else onpreviewend?.();
	}
	function lost() {
		if (drag?.moved) onpreviewend?.();
		drag = null;
		dragged = null;
	}
	function click() {
		// A click that ends a drag is not a wish to type.
		if (dragged === null && !justDragged) edit();
		justDragged = false;
	}
	let justDragged = false;
	function upAndRemember() {
		justDragged = drag?.moved ?? false;
		up();
	}
</script>

{#if editing}
	<ChipInput
		bind:value={typed}
		{label}
		{fault}
		{isBegun}
		width={Math.max(6, typed.length + 2)}
		onaccept={accept}
		onleave={leave}
	/>
{:else}
	<span class="chip-run"
		><button
			bind:this={button}
			type="button"
			class="chip-choice number cursor-ew-resize"
			class:wrong
			aria-label="{label}: {text}"
			title="Click to type, drag or use the arrow keys to change"
			onclick={click}
			onkeydown={keyOnChip}
			{@attach dragging({ begin: down, move, end: upAndRemember, cancel: lost })}>{text}</button
		></span
	>
{/if}
