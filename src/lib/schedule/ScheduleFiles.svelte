<script lang="ts">
	/** What is listed as a file, and values of an edited one. */
	import FilePicker from '$lib/components/FilePicker.svelte';
	import { scheduleCsv } from '$core/exchange/csv/write';
	import type { EditableName, EditedList } from '$core/exchange/values/read-edited';
	import { writtenAt } from '$core/exchange/formats';
	import { writeXlsx } from '$core/exchange/xlsx/write';
	import { inFiles } from '$core/schedule/listed';
	import { scheduleTitles } from '$core/schedule/table';
	import { formatNumber } from '$core/units/quantity';
	import { readLines } from '$lib/components/read-lines';
	import { fileStem, saveFile } from '$lib/components/save-file';
	import { useDesk } from '$lib/state/desk.svelte';
	import { toast } from 'svelte-sonner';
	import EditedDialog from './EditedDialog.svelte';
	import type { ScheduleList } from './list.svelte';

	let { list }: { list: ScheduleList } = $props();
	const desk = useDesk();
	let input: FilePicker;
	let reading = $state<string | null>(null);
	let edited = $state.raw<{ file: string; list: EditedList } | null>(null);

	const editables: readonly string[] = ['panels', 'louvers', 'structure'] satisfies EditableName[];
	const editable = $derived(editables.includes(list.name) ? (list.name as EditableName) : null);

	async function download(kind: 'csv' | 'xlsx') {
		const { rows, name } = list;
		const columns = list.columns.filter(inFiles);
		if (list.count === null) return;
		const file = `${fileStem(desk.project.document.name)}-${name}.${kind}`;
		if (kind === 'csv') saveFile(file, scheduleCsv(columns, rows), 'text/csv');
		else
			saveFile(
				file,
				await writeXlsx([{ name: scheduleTitles[name], columns, rows }], writtenAt()),
				'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet'
			);
		toast(
			`${file} written: ${formatNumber(rows.length)} rows of ${formatNumber(columns.length)} columns, as listed`
		);
	}
	async function read(file: File) {
		const name = editable;
		if (!name) return;
		reading = file.name;
		try {
			const lines = await readLines(file, scheduleTitles[name]);
			edited = { file: file.name, list: await desk.model.service.readEdited(lines, name) };
		} catch (error) {
			toast.error(`${file.name} cannot be taken: ${(error as Error).message}`, { duration: 12000 });
		} finally {
			reading = null;
		}
	}
</script>

<span class="flex gap-1.5 font-sans text-[12px] whitespace-nowrap">
	<button type="button" class="plain-button" onclick={() => download('csv')}>CSV</button>
	<button type="button" class="plain-button" onclick={() => download('xlsx')}>XLSX</button>
	{#if editable}
		<button
			type="button"
			class="plain-button"
			title="Values of these pieces from an edited CSV or XLSX of this list, by their marks; what changes is shown first"
			disabled={reading !== null}
			onclick={() => input.ask()}>{reading ? `reading ${reading} …` : 'Values in'}</button
		>
	{/if}
	<FilePicker
		bind:this={input}
		label="An edited list"
		endings={['csv', 'xlsx']}
		onfile={(one) => void read(one)}
	/>
</span>
{#if edited}<EditedDialog list={edited.list} file={edited.file} onleave={() => (edited = null)} />{/if}
