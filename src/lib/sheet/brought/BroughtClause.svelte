<script lang="ts">
	import FilePicker from '$lib/components/FilePicker.svelte';
	import { namesIn, prefixesOf } from '$core/cladding/table-book';
	import { nameInFormulas } from '$core/field/followed';
	import type { Picture, Table } from '$core/project/brought-schema';
	import { isWithin } from '$core/project/paths';
	import { isInFile } from '$core/project/stored';
	import { below, insertAt, pathTo, removeAt } from '$core/project/typed-path';
	import { formatNumber } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { freshId } from '$lib/edits/fresh-id';
	import { useDesk } from '$lib/state/desk.svelte';
	import { toast } from 'svelte-sonner';
	import Clause from '$lib/frame/Clause.svelte';
	import { readPicture } from './read-picture';
	import { readTableFile } from './read-table';

	/** Pictures and tables that cells follow. */
	let { number }: { number: string } = $props();
	const desk = useDesk();
	const pictures = $derived(desk.project.document.pictures);
	const tables = $derived(desk.project.document.tables);
	const problems = $derived(
		desk.model.view.problems.filter(({ at }) => isWithin(at, 'pictures') || isWithin(at, 'tables'))
	);
	const zones = $derived(JSON.stringify(desk.project.document.zones));
	const isFollowed = (kind: 'picture' | 'table', id: string) =>
		zones.includes(`${kind}.${nameInFormulas(id)}`);
	let input: FilePicker;
	/** What is brought in, and in whose place. */
	let wanted: { kind: 'picture' | 'table'; id: string | null } = { kind: 'picture', id: null };
	let reading = $state<string | null>(null);

	/** The name of a file as an id, by which formulas name it. */
	const idOf = (name: string, otherwise: string) =>
		name
			.toLowerCase()
			.replace(/[^a-z0-9]+/g, '-')
			.replace(/^[^a-z]+|-+$/g, '') || otherwise;
	function choose(kind: 'picture' | 'table', id: string | null = null) {
		wanted = { kind, id };
		input.ask(kind === 'picture' ? ['png', 'jpg', 'jpeg'] : ['csv', 'xlsx']);
	}
	/** Put it at the end of its list, or in the place of the one that it is newer than. */
	function put<T extends Picture | Table>(list: readonly T[], kind: 'picture' | 'table', made: T) {
		const k = list.findIndex(({ id }) => id === made.id);
		const place = pathTo(kind === 'picture' ? 'pictures' : 'tables') as ReturnType<typeof pathTo<'pictures'>>;
		desk.do(
			`${kind} ${made.name}`,
			...(k >= 0 ? [removeAt(below(place, made.id))] : []),
			insertAt(place, k >= 0 ? k : list.length, made as Picture)
		);
	}
	async function read(file: File) {
		reading = file.name;
		const name = file.name.replace(/\.[^.]*$/, '').slice(0, 60) || wanted.kind;
		try {
			if (wanted.kind === 'picture') {
				const before = pictures.find(({ id }) => id === wanted.id);
				const { lies = 'face', reads = 'lightness' } = before ?? {};
				const id = wanted.id ?? freshId(idOf(name, 'picture'), pictures);
				put(pictures, 'picture', { id, kind: 'picture', name, lies, reads, ...(await readPicture(file)) });
			} else {
				const { by, columns, rows, twice, left } = await readTableFile(file);
				const id = wanted.id ?? freshId(idOf(name, 'table'), tables);
				put(tables, 'table', { id, kind: 'table', name, by, columns, rows });
				const told = [
					...(twice.length
						? [
								`${twice.slice(0, 3).join(', ')} stand${twice.length === 1 ? 's' : ''} twice in it; the last row counts`
							]
						: []),
					...(left.length ? [`without numbers and left out: ${left.join(', ')}`] : [])
				];
				if (told.length) toast(`${file.name}: ${told.join('; ')}`, { duration: 12000 });
			}
		} catch (error) {
			toast.error(`${file.name} cannot be taken: ${(error as Error).message}`, { duration: 12000 });
		} finally {
			reading = null;
		}
	}

	/** How many rows of a table name a cell, and some of those that do not. */
	function matched(table: Table) {
		if (isInFile(table.rows)) return null;
		const prefixes = prefixesOf(desk.project.document.zones);
		const names = new Set(
			desk.model.view.zones.flatMap(({ faces }) =>
				faces.flatMap(({ address, cells }) => namesIn(table, prefixes, address, cells))
			)
		);
		const strange = table.rows.filter(([name]) => !names.has(name)).map(([name]) => name);
		return { rows: table.rows.length, cells: names.size, strange };
	}
	const lies = [
		{ value: 'face', label: 'on the face' },
		{ value: 'above', label: 'over what is seen from above' },
		{ value: 'south', label: 'over what is seen from the south' },
		{ value: 'east', label: 'over what is seen from the east' },
		{ value: 'north', label: 'over what is seen from the north' },
		{ value: 'west', label: 'over what is seen from the west' }
	] as const;
	const reads = [
		{ value: 'lightness', label: 'lightness' },
		{ value: 'red', label: 'red' },
		{ value: 'green', label: 'green' },
		{ value: 'blue', label: 'blue' }
	] as const;
	const actionsOf = (kind: 'picture' | 'table', { id, name }: Picture | Table) => [
		{ label: `Bring in ${name} anew`, act: () => choose(kind, id) },
		{
			label: `Remove ${name}`,
			act: () =>
				desk.do(
					`${kind} ${name} removed`,
					removeAt(kind === 'picture' ? pathTo('pictures', id) : pathTo('tables', id))
				),
			disabled: isFollowed(kind, id) && 'Clauses follow it; let them follow something else first'
		}
	];
</script>

<Clause
	{number}
	path={pathTo('pictures')}
	{problems}
	effect={pictures.length + tables.length ? `${pictures.length + tables.length} brought in` : 'none'}
	actions={[
		{ label: 'Bring in a picture', act: () => choose('picture') },
		{ label: 'Bring in a table', act: () => choose('table') },
		...pictures.flatMap((one) => actionsOf('picture', one)),
		...tables.flatMap((one) => actionsOf('table', one))
	]}
>
	{#each pictures as picture (picture.id)}
		{@const path = pathTo('pictures', picture.id)}
		<span
			>Picture <TextChip
				value={picture.name}
				label="Name of the picture"
				look="name"
				oncommit={(text) => desk.set(below(path, 'name'), text.slice(0, 120), `picture ${text}`)}
			/> ({picture.columns} × {picture.rows}) lies <ChoiceChip
				value={picture.lies}
				options={lies}
				label="How the picture lies"
				onchoose={(value) => desk.set(below(path, 'lies'), value, `picture ${picture.name}: ${value}`)}
			/>, its <ChoiceChip
				value={picture.reads}
				options={reads}
				label="What is read of the picture"
				onchoose={(value) => desk.set(below(path, 'reads'), value, `picture ${picture.name}: ${value}`)}
			/> is <code class="figures text-[12px]">picture.{nameInFormulas(picture.id)}</code>.</span
		>{' '}
	{/each}
	{#each tables as table (table.id)}
		{@const path = pathTo('tables', table.id)}
		{@const match = matched(table)}
		<span
			>Table <TextChip
				value={table.name}
				label="Name of the table"
				look="name"
				oncommit={(text) => desk.set(below(path, 'name'), text.slice(0, 120), `table ${text}`)}
			/> by {table.by}: {#each table.columns as column, k (column.id)}{column.label},
				<code class="figures text-[12px]">table.{nameInFormulas(table.id)}_{column.id}</code>{k + 1 <
				table.columns.length
					? '; '
					: '.'}{/each}
			{#if match}<span class="font-sans text-[12px] {match.strange.length ? 'text-oxide' : 'text-ink-2'}"
					>{formatNumber(match.rows - match.strange.length)} of {formatNumber(match.rows)} rows name a cell{#if match.strange.length};
						not there: {match.strange.slice(0, 3).join(', ')}{match.strange.length > 3
							? ' …'
							: ''}{/if}.</span
				>{/if}</span
		>{' '}
	{/each}
	{#if !pictures.length && !tables.length}Pictures and tables that cells can follow: none yet.{/if}
	<span class="font-sans text-[12px]"
		>{#if reading}<span role="status">Reading {reading} …</span>{:else}<button
				type="button"
				class="text-patina-deep underline"
				onclick={() => choose('picture')}>picture</button
			>
			<button type="button" class="text-patina-deep underline" onclick={() => choose('table')}>table</button
			>{/if}</span
	>
</Clause>
<FilePicker
	bind:this={input}
	label="Picture or table"
	endings={['png', 'jpg', 'jpeg', 'csv', 'xlsx']}
	onfile={(one) => void read(one)}
/>
