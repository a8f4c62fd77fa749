<script lang="ts">
	import { Popover } from 'bits-ui';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import type { FormOf } from '../words';
	import { below, type Path } from '$core/project/typed-path';

	let { form, path, of }: { form: FormOf<'net'>; path: Path<FormOf<'net'>>; of: string } = $props();
	const desk = useDesk();
	const columns = $derived(form.rows[0]?.length ?? 0);
	type Point = [number, number, number];
	const between = (a: Point, b: Point) => a.map((value, k) => Math.round((value + b[k]!) / 2)) as Point;
	/** Another row or column, half way between the last two. */
	function addRow() {
		const [a, b] = [form.rows.at(-2)!, form.rows.at(-1)!];
		const row = a.map((p, i) => between(p, b[i]!));
		desk.set(below(path, 'rows'), [...form.rows.slice(0, -1), row, b], `${of}: a row more`);
	}
	function addColumn() {
		const rows = form.rows.map((row) => [
			...row.slice(0, -1),
			between(row.at(-2)!, row.at(-1)!),
			row.at(-1)!
		]);
		desk.set(below(path, 'rows'), rows, `${of}: a column more`);
	}
	const removeRow = () =>
		desk.set(below(path, 'rows'), [...form.rows.slice(0, -2), form.rows.at(-1)!], `${of}: a row less`);
	const removeColumn = () =>
		desk.set(
			below(path, 'rows'),
			form.rows.map((row) => [...row.slice(0, -2), row.at(-1)!]),
			`${of}: a column less`
		);
	const degrees = [1, 2, 3].map((n) => ({ value: String(n), label: String(n) }));
</script>

drawn
<ChoiceChip
	value={form.points}
	options={[
		{ value: 'control', label: 'to' },
		{ value: 'through', label: 'through' }
	]}
	label="To or through the points of {of}"
	onchoose={(value) => desk.set(below(path, 'points'), value, `${of} ${value} its points`)}
/>
<Popover.Root>
	<Popover.Trigger class="chip-choice figures" aria-label="{of}: {columns} by {form.rows.length} points"
		>{columns} × {form.rows.length} points</Popover.Trigger
	>
	<Popover.Portal>
		<Popover.Content
			class="floating z-40 max-h-[520px] overflow-auto p-3"
			side="right"
			align="start"
			sideOffset={8}
			collisionPadding={10}
			aria-label="Points of {of}"
		>
			<div class="mb-2 flex gap-1.5">
				<h3 class="mr-4 font-semibold">{of} · points</h3>
				<button type="button" class="plain-button text-[12px]" onclick={addColumn}>Column more</button>
				<button
					type="button"
					class="plain-button text-[12px]"
					disabled={columns <= form.degrees[0] + 1}
					onclick={removeColumn}>Column less</button
				>
				<button type="button" class="plain-button text-[12px]" onclick={addRow}>Row more</button>
				<button
					type="button"
					class="plain-button text-[12px]"
					disabled={form.rows.length <= form.degrees[1] + 1}
					onclick={removeRow}>Row less</button
				>
			</div>
			<table class="text-[12px]">
				<tbody>
					{#each form.rows.map((row, j) => ({ row, j })).reverse() as { row, j } (j)}
						<tr>
							<th class="figures text-ink-2 pr-2 text-right font-medium">row {j + 1}</th>
							{#each row as point, i (i)}
								<td class="border-hair border px-1.5 py-0.5 whitespace-nowrap">
									{#each ['x', 'y', 'z'] as axis, k (axis)}<ValueChip
											path={below(path, 'rows', j, i, k)}
											value={point[k]!}
											kind="length"
											label="Row {j + 1} point {i + 1} {axis}"
											{of}
											step={50}
										/>{' '}{/each}
								</td>
							{/each}
						</tr>
					{/each}
				</tbody>
			</table>
		</Popover.Content>
	</Popover.Portal>
</Popover.Root>, of degree
<ChoiceChip
	value={String(form.degrees[0])}
	options={degrees}
	label="Degree across"
	onchoose={(value) => desk.set(below(path, 'degrees', 0), Number(value), `${of} degree across ${value}`)}
/> across and
<ChoiceChip
	value={String(form.degrees[1])}
	options={degrees}
	label="Degree up"
	onchoose={(value) => desk.set(below(path, 'degrees', 1), Number(value), `${of} degree up ${value}`)}
/> up
