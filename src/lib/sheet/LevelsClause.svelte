<script lang="ts">
	import { counted } from '$core/units/counted';
	import { nameInFormulas } from '$core/field/followed';
	import ChipInput from '$lib/components/ChipInput.svelte';
	import { removal } from '$lib/edits/removal';
	import { usersOf } from '$lib/edits/users';
	import { readStoreys, storeyEdits } from '$lib/edits/storeys';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { freshId } from '$lib/edits/fresh-id';
	import { insertAt, pathTo, removeAt } from '$core/project/typed-path';

	let { number }: { number: string } = $props();
	const desk = useDesk();
	const levels = $derived(desk.project.document.levels);
	/** What would stand without a level; numbers bound to it are named values' to say. */
	const usersOfLevel = (id: string) => [
		...usersOf(desk.project.document, 'levels', id),
		...desk.project.document.bound
			.filter(({ value }) => value.includes(`level.${nameInFormulas(id)}`))
			.map(({ id: at, value }) => ({ name: `${value} at ${at}`, path: pathTo('named') }))
	];

	let adding = $state(false);
	let storeys = $state('');
	function fault(text: string): string | null {
		const read = readStoreys(text);
		if (!read) return 'How many and how high is wanted, as in 4 × 3600 mm or 4 × storey';
		try {
			storeyEdits(desk.project.document, read);
			return null;
		} catch (error) {
			return (error as Error).message;
		}
	}
	function addStoreys() {
		if (!adding || fault(storeys)) return;
		const read = readStoreys(storeys)!;
		adding = false;
		desk.do(
			`${read.count} storeys of ${read.height}`.slice(0, 200),
			...storeyEdits(desk.project.document, read)
		);
	}
	function add() {
		const last = levels.at(-1);
		const id = freshId('level', levels);
		const name = `Level ${levels.length + 1}`;
		desk.do(
			`level ${name}`,
			insertAt(pathTo('levels'), levels.length, { id, name, height: last ? last.height + 3600 : 0 })
		);
	}
</script>

<Clause
	{number}
	path={pathTo('levels')}
	effect={counted(levels.length, 'level')}
	actions={[
		{ label: 'Add a level', act: add },
		...levels.map((level) =>
			removal(desk, {
				label: `Remove ${level.name}`,
				name: level.name,
				edit: removeAt(pathTo('levels', level.id)),
				users: () => usersOfLevel(level.id)
			})
		)
	]}
>
	{#if levels.length}Levels:
		{#each levels as level, k (level.id)}<span class="whitespace-nowrap"
				><TextChip
					value={level.name}
					label="Name of the level"
					look="name"
					oncommit={(text) => desk.set(pathTo('levels', level.id, 'name'), text, `level name ${text}`)}
				/> at <ValueChip
					path={pathTo('levels', level.id, 'height')}
					value={level.height}
					kind="length"
					label="Height of {level.name}"
					of="level"
					step={50}
				/>{k + 1 < levels.length ? ',' : '.'}</span
			>{' '}{/each}{:else}No levels yet: heights that forms can follow.{/if}
	<button type="button" class="text-patina-deep text-[12px] underline" onclick={add}>level</button>
	{#if adding}<ChipInput
			bind:value={storeys}
			label="Storeys to add"
			fault={fault(storeys)}
			width={18}
			onaccept={(isEnter) => (isEnter ? addStoreys() : (adding = false))}
			onleave={() => (adding = false)}
		/>{:else}<button
			type="button"
			class="text-patina-deep text-[12px] underline"
			onclick={() => {
				storeys = `4 × ${desk.project.document.named.some(({ id }) => id === 'storey') ? 'storey' : '3600 mm'}`;
				adding = true;
			}}>storeys</button
		>{/if}
</Clause>
