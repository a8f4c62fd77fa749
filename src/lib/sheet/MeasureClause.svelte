<script lang="ts">
	import type { Zone } from '$core/project/schema';
	import { formatLength } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import DirectionChip from './DirectionChip.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { alongWords } from './words';
	import { below, pathTo } from '$core/project/typed-path';

	/** What steps are measured along, joints, and what is done at poles. */
	let { zone, number }: { zone: Zone; number: string } = $props();
	const desk = useDesk();
	const path = $derived(pathTo('zones', zone.id, 'settingOut'));
	const { along, joint, poleHole } = $derived(zone.settingOut);
	const faces = $derived(desk.model.view.zones.find((one) => one.id === zone.id)?.faces ?? []);
	const hasPole = $derived(poleHole > 0 || faces.some((face) => face.grid.poles.length > 0));
	const problems = $derived(
		desk.model.view.problems.filter(
			({ at }) =>
				at === path ||
				(['along', 'joint', 'poleHole', 'planes'] as const).some((key) => at === below(path, key))
		)
	);
	/** How far nodes are from even true length, at most. */
	const off = $derived(faces.reduce((most, face) => face.grid.off.reduce((a, b) => Math.max(a, b), most), 0));
	const effect = $derived(off > 0.1 ? `up to ${formatLength(off, desk.display, 0)} off` : 'even to 0.1 mm');
</script>

<Clause {number} {path} {problems} {effect}>
	Steps follow
	<ChoiceChip
		value={along}
		options={alongWords}
		label="Steps follow"
		onchoose={(next) => desk.set(below(path, 'along'), next, `${zone.name} by ${next}`)}
	/>{#if along === 'level planes'}{' '}that look <DirectionChip
			value={zone.settingOut.planes}
			label="Direction of the planes"
			onchoose={(planes) => desk.set(below(path, 'planes'), planes, `${zone.name}: direction of the planes`)}
		/>{/if}; joints of <ValueChip
		path={below(path, 'joint')}
		value={joint}
		kind="length"
		label="Joint"
		of={zone.name}
		step={1}
		min={0}
	/> stay open between cells{#if hasPole}; a pole {poleHole > 0
			? 'keeps a hole of radius'
			: 'closes, with a hole of'}
		<ValueChip
			path={below(path, 'poleHole')}
			value={poleHole}
			kind="length"
			label="Hole at a pole"
			of={zone.name}
			step={50}
			min={0}
		/>{/if}<span class="full-stop">.</span>
</Clause>
