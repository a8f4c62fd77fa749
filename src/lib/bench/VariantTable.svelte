<script lang="ts">
	import type { PartDefinition } from '$core/project/part-definition';
	import type { Variant } from '$core/project/schema';
	import { SvelteSet } from 'svelte/reactivity';
	import { freshId } from '$lib/edits/fresh-id';
	import { useDesk } from '$lib/state/desk.svelte';
	import { toast } from 'svelte-sonner';
	import { materialsOf } from '$core/cladding/kit';
	import { cellText, readCell, type CellValue } from './variant-cells';
	import { insertAt, pathTo } from '$core/project/typed-path';

	/** All variants of a part as a table: rows are variants, columns their shared values. */
	let { part }: { part: PartDefinition } = $props();
	const desk = useDesk();
	const variants = $derived(desk.project.document.variants.filter((one) => one.part === part.id));
	const materials = $derived(materialsOf(desk.project.document));
	/** Rows that are changed together. */
	const together = new SvelteSet<string>();
	const chosen = $derived(variants.filter(({ id }) => together.has(id)));
	const units: Record<string, string> = { length: 'mm', angle: '°', area: 'm²', volume: 'm³', mass: 'kg' };

	/** Set several cells in one command; what cannot be read is told, and nothing is changed. */
	function setCells(rows: readonly { variant: Variant; values: Record<string, CellValue> }[], label: string) {
		const edits = rows.map(({ variant, values }) => ({
			do: 'set' as const,
			path: pathTo('variants', variant.id, 'values'),
			value: { ...variant.values, ...values }
		}));
		if (edits.length) desk.do(label, ...edits);
	}
	function commit(variant: Variant, column: number, field: HTMLInputElement) {
		const input = part.inputs[column]!;
		if (field.value === cellText(variant, input)) return;
		const read = readCell(input, field.value, materials);
		if ('fault' in read) {
			toast.error(read.fault);
			field.value = cellText(variant, input);
			return;
		}
		const all = together.has(variant.id) ? chosen : [variant];
		const whose =
			all.length > 1 ? `${all.length} variants of ${part.label}` : `${part.label} ${variant.name}`;
		setCells(
			all.map((one) => ({ variant: one, values: { [input.name]: read.value } })),
			`${whose}: ${input.label.toLowerCase()}`
		);
	}
	/** A block from a spreadsheet goes over the cells to the right and below. */
	function paste(event: ClipboardEvent, row: number, column: number) {
		const text = event.clipboardData?.getData('text/plain') ?? '';
		if (!/[\t\n]/.test(text.trim())) return;
		event.preventDefault();
		const faults: string[] = [];
		const rows = text
			.replace(/\r?\n$/, '')
			.split(/\r?\n/)
			.flatMap((line, r) => {
				const variant = variants[row + r];
				if (!variant) {
					faults.push(`there is no variant for line ${r + 1} of what was pasted`);
					return [];
				}
				const values: Record<string, CellValue> = {};
				line.split('\t').forEach((cell, c) => {
					const input = part.inputs[column + c];
					if (!input) return;
					const read = readCell(input, cell, materials);
					if ('fault' in read) faults.push(read.fault);
					else values[input.name] = read.value;
				});
				return [{ variant, values }];
			});
		if (faults.length) {
			toast.error(
				`Nothing was pasted: ${faults[0]}${faults.length > 1 ? `, and ${faults.length - 1} more` : ''}`
			);
			return;
		}
		setCells(rows, `${part.label}: ${rows.length} variants pasted`);
	}
	async function copy() {
		const lines = [
			['Variant', ...part.inputs.map(({ label }) => label)],
			...variants.map((variant) => [variant.name, ...part.inputs.map((input) => cellText(variant, input))])
		];
		await navigator.clipboard.writeText(lines.map((line) => line.join('\t')).join('\n'));
		toast(`${variants.length} variants copied, to be pasted into a spreadsheet`);
	}
	function add() {
		const all = desk.project.document.variants;
		desk.do(
			`${part.label}: a variant`,
			insertAt(pathTo('variants'), all.length, {
				id: freshId(part.id, all),
				name: `${part.label.toLowerCase()} ${variants.length + 1}`,
				part: part.id,
				values: {}
			})
		);
	}
	/** Enter goes down, as in every table of numbers. */
	function keydown(event: KeyboardEvent, row: number, column: number) {
		if (event.key !== 'Enter') return;
		event.preventDefault();
		const next = event.shiftKey ? row - 1 : row + 1;
		const field = document.querySelector<HTMLInputElement>(`[data-cell="${next} ${column}"]`);
		(field ?? (event.currentTarget as HTMLInputElement)).focus();
		if (!field) (event.currentTarget as HTMLInputElement).blur();
	}
</script>

<section class="mx-auto max-w-[1200px] px-6 py-6" aria-label="Variants">
	<header class="mb-3 flex items-baseline gap-4">
		<h2 class="text-[15px] font-semibold">Variants of {part.label}</h2>
		<span class="text-ink-2 text-[12.5px]"
			>{chosen.length > 1
				? `What is typed into one of the ${chosen.length} chosen rows goes into all of them.`
				: 'Shared values; paste a block from a spreadsheet into any cell, or choose rows to change them together.'}</span
		>
		<button
			type="button"
			class="text-patina-deep ml-auto text-[12.5px] underline disabled:opacity-40"
			disabled={!variants.length}
			onclick={copy}>Copy the table</button
		>
		<button type="button" class="text-patina-deep text-[12.5px] underline" onclick={add}>New variant</button>
	</header>
	{#if variants.length === 0}
		<p class="sentence text-ink-2">
			No variants yet. A variant is this part with values of its own; rules put it on cells.
		</p>
	{:else}
		<div class="border-hair bg-sheet overflow-x-auto rounded border">
			<table class="text-[12.5px]">
				<thead>
					<tr class="border-hair border-b align-bottom">
						<th class="px-3 py-2 text-left font-semibold">Variant</th>
						{#each part.inputs as input (input.name)}
							<th class="max-w-32 px-2 py-2 text-right font-semibold"
								>{input.label}<br /><span class="text-ink-2 font-normal">{units[input.kind] ?? ''}</span></th
							>
						{/each}
					</tr>
				</thead>
				<tbody>
					{#each variants as variant, row (variant.id)}
						<tr class="border-hair border-b last:border-0">
							<th class="sentence px-3 py-1 text-left font-normal whitespace-nowrap italic"
								><label class="flex items-center gap-2"
									><input
										type="checkbox"
										class="accent-patina size-3.5"
										aria-label="Change {variant.name} together with others"
										checked={together.has(variant.id)}
										onchange={(event) =>
											event.currentTarget.checked ? together.add(variant.id) : together.delete(variant.id)}
									/>{variant.name}</label
								></th
							>
							{#each part.inputs as input, column (input.name)}
								<td class="px-1 py-1">
									<input
										class="figures focus:border-patina hover:bg-wash w-24 rounded border border-transparent bg-transparent px-1.5 py-1 text-right text-[12px] outline-none {input.name in
										variant.values
											? 'text-ink'
											: 'text-ink-3'}"
										value={cellText(variant, input)}
										aria-label="{input.label} of {variant.name}"
										data-cell="{row} {column}"
										onfocus={(event) => event.currentTarget.select()}
										onblur={(event) => commit(variant, column, event.currentTarget)}
										onpaste={(event) => paste(event, row, column)}
										onkeydown={(event) => keydown(event, row, column)}
									/>
								</td>
							{/each}
						</tr>
					{/each}
				</tbody>
			</table>
		</div>
		<p class="text-ink-2 mt-2 text-[12px]">Light figures are the part's own defaults.</p>
	{/if}
</section>
