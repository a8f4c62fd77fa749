<script lang="ts">
	import { partsOf } from '$core/cladding/kit';
	import type { Run, Zone } from '$core/project/schema';
	import { formatLength } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import SeveralChip from '$lib/components/SeveralChip.svelte';
	import { useWorkbench } from '$lib/state/workbench.svelte';
	import Clause from './Clause.svelte';
	import { listActions } from './list-actions';
	import { lineWords } from './words';

	let { zone, run, number }: { zone: Zone; run: Run; number: string } = $props();
	const workbench = useWorkbench();

	const path = $derived(`zones/${zone.id}/runs/${run.id}`);
	const document = $derived(workbench.project.document);
	const options = $derived(
		document.variants.flatMap((variant) => {
			const part = partsOf(document).find((one) => one.id === variant.part);
			return part?.anchor.kind === 'pair'
				? [{ value: variant.id, label: `${part.label} · ${variant.name}` }]
				: [];
		})
	);
	const problems = $derived(
		workbench.model.view.problems.filter(
			(problem) => problem.at === path || problem.at.startsWith(`${path}/`)
		)
	);
	const state = $derived(workbench.model.view.zones.find((one) => one.id === zone.id));
	const groups = $derived(
		state?.groups.filter((group) => group.clause.kind === 'run' && group.clause.id === run.id) ?? []
	);
	const metres = $derived(
		groups.reduce((sum, group) => {
			const face = state?.faces[group.face];
			if (!face) return sum;
			for (const e of group.anchors) {
				const a = 3 * face.edges.from[e]!;
				const b = 3 * face.edges.to[e]!;
				sum += Math.hypot(...[0, 1, 2].map((k) => face.positions[b + k]! - face.positions[a + k]!));
			}
			return sum;
		}, 0)
	);
	const count = $derived(groups.reduce((sum, group) => sum + group.anchors.length, 0));
</script>

<Clause
	{number}
	{path}
	{problems}
	muted={run.muted}
	effect="{count} · {formatLength(metres, workbench.display === 'ft-in' ? 'ft-in' : 'm', 0)}"
	actions={listActions(workbench, zone, 'runs', run)}
>
	Run
	<ChoiceChip
		value={run.variant}
		{options}
		label="What runs"
		onchoose={(value) =>
			workbench.set(
				`${path}/variant`,
				value,
				`${zone.name}: run ${options.find((one) => one.value === value)?.label}`
			)}
	/>
	along
	<SeveralChip
		values={run.lines}
		options={lineWords}
		label="Which lines"
		empty="no lines"
		onchoose={(lines) =>
			workbench.set(`${path}/lines`, lines, `${zone.name}: run along ${lines.join(', ') || 'no lines'}`)}
	/>.
</Clause>
