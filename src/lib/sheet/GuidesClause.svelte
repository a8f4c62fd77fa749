<script lang="ts">
	import { counted } from '$core/units/counted';
	import FilePicker from '$lib/components/FilePicker.svelte';
	import type { Guide } from '$core/project/guide-schema';
	import { removal } from '$lib/edits/removal';
	import { usersOf } from '$lib/edits/users';
	import { guideInSpace } from '$lib/edits/drawn';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import { find } from '$lib/state/selection.svelte';
	import CurveChip from './CurveChip.svelte';
	import { guidesFrom } from '$lib/form/import-lines';
	import { toast } from 'svelte-sonner';
	import { below, insertAt, pathTo, removeAt } from '$core/project/typed-path';

	/** Points and curves with names; start lines and scattered cells follow them. */
	let { number }: { number: string } = $props();
	const desk = useDesk();
	const guides = $derived(desk.project.document.guides);
	const problems = $derived(desk.model.view.problems.filter(({ at }) => at.startsWith('guides/')));
	/** A guide in space, along the foot of what is chosen or about the origin. */
	function addInSpace() {
		const last = desk.selection.last ? find(desk.model.view, desk.selection.last) : null;
		const face = last && desk.model.view.zones[last.zone]?.faces[last.face];
		const at =
			face && last?.kind === 'cell'
				? Array.from(face.measures.centre.subarray(3 * last.index, 3 * last.index + 3), Math.round)
				: [0, 0, 0];
		const foot = at as [number, number, number];
		const head: typeof foot = [foot[0], foot[1], foot[2] + 3000];
		desk.do('a guide in space', guideInSpace(guides, [foot, head]));
	}
	let input: FilePicker;
	async function fromFile(file: File) {
		try {
			const { guides: made, told } = await guidesFrom(file, guides);
			const edits = made.map((guide, k) => insertAt(pathTo('guides'), guides.length + k, guide));
			if (!desk.do(`guides from ${file.name}`, ...edits)) return;
			const taken = `${made.length === 1 ? 'One guide' : `${made.length} guides`} taken from ${file.name}`;
			toast([taken, ...told].join('; '));
		} catch (error) {
			toast.error(`${file.name} cannot be taken: ${(error as Error).message}`, { duration: 12000 });
		}
	}
	const whereOf = (guide: Guide) =>
		guide.on === 'map'
			? `on ${desk.project.document.masses.find((mass) => mass.id === guide.mass)?.name ?? guide.mass} · ${guide.face}`
			: 'in space';
</script>

<Clause
	{number}
	path={pathTo('guides')}
	{problems}
	effect={counted(guides.length, 'guide')}
	actions={guides.map((guide) =>
		removal(desk, {
			label: `Remove ${guide.name}`,
			name: guide.name,
			edit: removeAt(pathTo('guides', guide.id)),
			users: () => usersOf(desk.project.document, 'guides', guide.id)
		})
	)}
>
	{#if guides.length}Guides:{:else}No guides yet: draw one on the map or{/if}
	{#each guides as guide, k (guide.id)}
		{@const path = pathTo('guides', guide.id)}
		<span
			><TextChip
				value={guide.name}
				label="Name of the guide"
				look="name"
				oncommit={(text) => desk.set(below(path, 'name'), text, `guide name ${text}`)}
			/>
			{#if guide.points.length === 1}a point{:else}<ChoiceChip
					value={guide.joins}
					options={[
						{ value: 'line', label: 'straight' },
						{ value: 'smooth', label: 'smooth' }
					]}
					label="How {guide.name} runs"
					onchoose={(joins) => desk.set(below(path, 'joins'), joins, `${guide.name} ${joins}`)}
				/> through{/if}
			<CurveChip
				curve={{
					path,
					label: guide.name,
					points: guide.points,
					joins: guide.joins,
					axes: guide.on === 'map' ? ['right', 'up'] : ['x', 'y', 'z'],
					closed: 'never',
					arcs: false
				}}
			/>
			{whereOf(guide)}{k + 1 < guides.length ? ';' : '.'}</span
		>{' '}
	{/each}
	<span class="chip-run"
		><button
			type="button"
			class="text-patina-deep text-[12px] underline"
			aria-pressed={desk.drawsGuide}
			onclick={() => (desk.drawsGuide = !desk.drawsGuide)}>in the model</button
		></span
	>{#if !guides.length}, or put one{/if}
	<button type="button" class="text-patina-deep text-[12px] underline" onclick={addInSpace}
		>by coordinates</button
	>{#if !guides.length}{' '}or{/if}
	<button type="button" class="text-patina-deep text-[12px] underline" onclick={() => input.ask()}
		>from a file</button
	><FilePicker
		bind:this={input}
		label="File of guides"
		endings={['dxf', 'csv', 'xlsx']}
		onfile={(one) => void fromFile(one)}
	/>
</Clause>
