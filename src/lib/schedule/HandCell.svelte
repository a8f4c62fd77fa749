<script lang="ts">
	/** A cell that is written by hand: what is typed stands in all rows that are chosen with it. */
	import type { OwnColumn } from '$core/project/schedules-schema';
	import { formatNumber } from '$core/units/quantity';
	import { writtenByHand } from '$lib/edits/written-by-hand';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { ScheduleList } from './list.svelte';

	interface Props {
		column: OwnColumn;
		/** The rows that are written to. */
		rows: () => readonly number[];
		/** What its own row is known by. */
		name: string;
		list: ScheduleList;
	}
	let { column, rows, name, list }: Props = $props();
	const desk = useDesk();
	const by = $derived(column.by.is === 'hand' ? column.by : null);
	const value = $derived(by?.values.find(({ id }) => id === name)?.value ?? '');
	let editing = $state(false);
	let typed = $state('');

	function begin() {
		typed = String(value);
		editing = true;
	}
	function write() {
		if (!editing || !by) return;
		editing = false;
		const text = typed.trim();
		if (text === String(value)) return;
		const number = Number(text.replace(',', '.'));
		if (by.holds === 'number' && !Number.isFinite(number)) return;
		const written = rows();
		const own = by.holds === 'number' && text !== '' ? number : text;
		const edits = writtenByHand(
			column,
			written.map((row) => [list.nameOf(row), own])
		);
		const where = written.length === 1 ? '' : ` in ${formatNumber(written.length)} rows`;
		if (edits.length) desk.do(`${column.title} ${text || 'emptied'}${where}`, ...edits);
	}
	const begun = (node: HTMLInputElement) => {
		node.focus();
		node.select();
	};
	function keydown(event: KeyboardEvent) {
		event.stopPropagation();
		if (event.key === 'Enter') write();
		else if (event.key === 'Escape') editing = false;
	}
</script>

{#if editing}<input
		{@attach begun}
		bind:value={typed}
		class="border-patina bg-paper w-full rounded border px-1"
		aria-label={column.title}
		onkeydown={keydown}
		onclick={(event) => event.stopPropagation()}
		onblur={write}
	/>{:else}<button
		type="button"
		class={[
			'hover:border-hair w-full truncate rounded border border-transparent px-1 text-left',
			value === '' && 'text-ink-3'
		]}
		aria-label="{column.title}: {value === '' ? 'empty' : value}"
		onclick={(event) => {
			event.stopPropagation();
			begin();
		}}>{value === '' ? '…' : value}</button
	>{/if}
