<script lang="ts">
	import type { Guide } from '$core/project/guide-schema';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useWorkbench } from '$lib/state/workbench.svelte';
	import Clause from './Clause.svelte';
	import CurveChip from './CurveChip.svelte';

	/** Points and curves with names; start lines and scattered cells follow them. */
	let { number }: { number: string } = $props();
	const workbench = useWorkbench();
	const guides = $derived(workbench.project.document.guides);
	const followed = $derived(JSON.stringify(workbench.project.document.zones));
	const isFollowed = (id: string) => followed.includes(`"guide":"${id}"`);
	const problems = $derived(workbench.model.view.problems.filter(({ at }) => at.startsWith('guides/')));
	const whereOf = (guide: Guide) =>
		guide.on === 'map'
			? `on ${workbench.project.document.masses.find((mass) => mass.id === guide.mass)?.name ?? guide.mass} · ${guide.face}`
			: 'in space';
</script>

{#if guides.length}
	<Clause
		{number}
		path="guides"
		{problems}
		effect="{guides.length} {guides.length === 1 ? 'guide' : 'guides'}"
		actions={guides.map((guide) => ({
			label: `Remove ${guide.name}`,
			act: () => workbench.do(`remove guide ${guide.name}`, { do: 'remove', path: `guides/${guide.id}` }),
			disabled: isFollowed(guide.id)
		}))}
	>
		Guides:
		{#each guides as guide, k (guide.id)}
			{@const path = `guides/${guide.id}`}
			<span
				><TextChip
					value={guide.name}
					label="Name of the guide"
					look="name"
					oncommit={(text) => workbench.set(`${path}/name`, text, `guide name ${text}`)}
				/>
				{#if guide.points.length === 1}a point{:else}<ChoiceChip
						value={guide.joins}
						options={[
							{ value: 'line', label: 'straight' },
							{ value: 'smooth', label: 'smooth' }
						]}
						label="How {guide.name} runs"
						onchoose={(joins) => workbench.set(`${path}/joins`, joins, `${guide.name} ${joins}`)}
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
	</Clause>
{/if}
