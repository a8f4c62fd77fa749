<script lang="ts">
	/** Columns of the project's own: reckoned, written by hand, or looked up. */
	import X from '@lucide/svelte/icons/x';
	import { namedOrNone } from '$core/named/named-values';
	import type { OwnColumn } from '$core/project/schedules-schema';
	import { below, insertAt, pathTo, removeAt, setAt } from '$core/project/typed-path';
	import { checkColumnFormula, keyOfOwn, nameOfColumn } from '$core/schedule/own-columns';
	import { isGathered } from '$core/schedule/table';
	import { FormulaError } from '$core/units/formula/expression';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import AddOne from '$lib/components/AddOne.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { ScheduleList } from './list.svelte';

	let { list }: { list: ScheduleList } = $props();
	const desk = useDesk();
	const columns = $derived(desk.project.document.schedules.columns);
	const own = $derived(columns.filter((one) => one.list === list.name));
	const { tables } = $derived(desk.project.document);
	const named = $derived(namedOrNone(desk.project.document));

	/** Heads that a formula may name: those before its own column. */
	const headsBefore = (id: string) => {
		const at = list.heads.findIndex(({ key }) => key === keyOfOwn(id));
		return at < 0 ? list.heads : list.heads.slice(0, at);
	};
	const namesBefore = (id: string) => [
		...headsBefore(id)
			.filter(({ kind }) => kind !== 'text')
			.map(nameOfColumn),
		...named.keys()
	];
	function check(id: string, formula: string): string | null {
		try {
			checkColumnFormula(formula, headsBefore(id), named);
			return null;
		} catch (error) {
			if (error instanceof FormulaError) return error.message;
			throw error;
		}
	}
	/** A number that every list has, or at least one. */
	const someNumber = $derived(
		nameOfColumn(
			list.heads.find(({ key }) => key === 'mass' || key === 'x') ??
				list.heads.find(({ kind }) => kind !== 'text')!
		)
	);
	const offers = $derived(
		(
			[
				{ label: 'reckoned by a formula', by: 'formula' },
				...(isGathered(list.name)
					? []
					: [
							{ label: 'written by hand', by: 'hand' },
							...(tables.length ? [{ label: 'from a table that was brought in', by: 'table' }] : [])
						])
			] as { label: string; by: OwnColumn['by']['is'] }[]
		).filter(() => list.heads.length)
	);
	function add(by: OwnColumn['by']['is']) {
		const used = new Set([...columns.map(({ id }) => id), ...list.heads.map(nameOfColumn), ...named.keys()]);
		let n = 1;
		while (used.has(`column_${n}`)) n++;
		const [table] = tables;
		const filled: OwnColumn['by'] =
			by === 'formula'
				? { is: 'formula', formula: someNumber }
				: by === 'hand'
					? { is: 'hand', holds: 'text', values: [] }
					: { is: 'table', table: table!.id, column: table!.columns[0]!.id };
		const column = { id: `column_${n}`, title: `Column ${n}`, list: list.name, by: filled };
		desk.do(`column ${column.title}`, insertAt(pathTo('schedules', 'columns'), columns.length, column));
		if (list.reading.columns) list.read({ columns: [...list.reading.columns, keyOfOwn(column.id)] });
	}
	const pathOf = (id: string) => pathTo('schedules', 'columns', id);
	const problemOf = (id: string) => list.problems.find(({ key }) => key === keyOfOwn(id))?.problem;
	const tableColumns = $derived(
		tables.flatMap(({ id, name, columns: all }) =>
			all.map(({ id: column, label }) => ({ value: `${id} ${column}`, label: `${label} of ${name}` }))
		)
	);
</script>

<section class="mt-4" aria-label="Own columns">
	<h2 class="mb-1 font-semibold">Own columns</h2>
	{#if own.length}<ul class="sentence grid gap-1 text-[14px]!">
			{#each own as { id, title, by } (id)}
				<li class="flex items-baseline gap-1">
					<span class="grow"
						><TextChip
							value={title}
							look="name"
							label="Name of the column"
							oncommit={(text) => desk.set(below(pathOf(id), 'title'), text, `column ${title} → ${text}`)}
						/>
						{#if by.is === 'formula'}is <TextChip
								value={by.formula}
								look="formula"
								label="Formula of {title}"
								names={namesBefore(id)}
								check={(text) => check(id, text)}
								oncommit={(formula) =>
									desk.do(
										`column ${title} is ${formula}`,
										setAt(below(pathOf(id), 'by'), { is: 'formula', formula })
									)}
							/>, called <span class="figures text-[12.5px]">{id}</span>.
						{:else if by.is === 'hand'}holds <ChoiceChip
								value={by.holds}
								options={[
									{ value: 'text', label: 'words' },
									{ value: 'number', label: 'numbers' }
								]}
								label="What {title} holds"
								onchoose={(holds) =>
									desk.do(
										`column ${title} holds ${holds === 'text' ? 'words' : 'numbers'}`,
										setAt(below(pathOf(id), 'by'), {
											...by,
											holds,
											values:
												holds === 'text'
													? by.values.map((one) => ({ ...one, value: String(one.value) }))
													: by.values.flatMap((one) =>
															Number.isFinite(Number(one.value)) ? [{ ...one, value: Number(one.value) }] : []
														)
										})
									)}
							/>, written in its cells.
						{:else}is <ChoiceChip
								value="{by.table} {by.column}"
								options={tableColumns}
								label="Table of {title}"
								onchoose={(choice) => {
									const [table, column] = choice.split(' ') as [string, string];
									desk.do(
										`column ${title} from a table`,
										setAt(below(pathOf(id), 'by'), { is: 'table', table, column })
									);
								}}
							/>.{/if}
						{#if problemOf(id)}<span class="text-oxide block text-[12.5px]" role="alert"
								>It is empty: {problemOf(id)}</span
							>{/if}</span
					><button
						type="button"
						class="text-ink-2 hover:bg-wash rounded"
						aria-label="Remove the column {title}"
						onclick={() => desk.do(`column ${title} removed`, removeAt(pathOf(id)))}><X size={13} /></button
					>
				</li>
			{/each}
		</ul>{:else}<p class="text-ink-2 text-[12px]">
			A price, a supplier, a batch: what the list does not have by itself.
		</p>{/if}
	{#if offers.length}<AddOne label="Another column" {offers} onadd={({ by }) => add(by)} />{/if}
</section>
