<script lang="ts">
	/** What a zone is called, how its pieces are marked, and which faces it covers. */
	import type { Zone } from '$core/project/schema';
	import { below, pathTo } from '$core/project/typed-path';
	import SeveralChip from '$lib/components/SeveralChip.svelte';
	import { splitFace } from '$lib/form/face-choices';
	import ZoneName from './ZoneName.svelte';
	import { zoneActions } from './zone-actions';
	import Clause from '$lib/frame/Clause.svelte';
	import { useDesk } from '$lib/state/desk.svelte';

	let { zone, number }: { zone: Zone; number: string } = $props();
	const desk = useDesk();
	const path = $derived(pathTo('zones', zone.id));
	const problems = $derived(
		desk.model.view.problems.filter(({ at }) => at === below(path, 'faces') || at === below(path, 'code'))
	);
	const massName = (id: string) => desk.project.document.masses.find((mass) => mass.id === id)?.name ?? id;
	/** The faces there are, and those the zone still names. */
	const faces = $derived.by(() => {
		const known = desk.model.view.masses.flatMap((mass) =>
			mass.faces.map((face) => ({
				value: `${mass.id}/${face.name}`,
				label: `${massName(mass.id)} · ${face.name}`
			}))
		);
		const gone = zone.faces.filter(({ mass, face }) => !known.some((one) => one.value === `${mass}/${face}`));
		return [
			...known,
			...gone.map(({ mass, face }) => ({ value: `${mass}/${face}`, label: `${massName(mass)} · ${face}` }))
		];
	});
	const meetings = $derived(desk.model.view.zones.find(({ id }) => id === zone.id)?.meetings ?? []);
	const shared = $derived(meetings.reduce((sum, meeting) => sum + meeting.shared, 0));
	/** Faces whose rims meet, but with nodes of their own. */
	const apart = $derived(
		meetings
			.filter((meeting) => meeting.apart > 0)
			.map(({ faces: met, steps }) => {
				const [one, other] = met.map((k) => zone.faces[k]?.face ?? '');
				return steps[0] === steps[1]
					? `${one} and ${other} have ${steps[0]} steps each where they meet, but ${zone.settingOut.along} lay them elsewhere on each: they share no nodes there.`
					: `${one} has ${steps[0]} steps where it meets ${other}, which has ${steps[1]}: they share their nodes where counts are the same.`;
			})
	);
</script>

<Clause
	{number}
	path={below(path, 'faces')}
	effect={shared ? `${shared} shared` : ''}
	{problems}
	actions={zoneActions(desk, zone)}
>
	<ZoneName {zone} />, covers
	<SeveralChip
		values={zone.faces.map((face) => `${face.mass}/${face.face}`)}
		options={faces}
		label="Faces"
		empty="no face yet"
		onchoose={(chosen) => desk.set(below(path, 'faces'), chosen.map(splitFace), `${zone.name} faces`)}
	/>.{#each apart as said (said)}<span class="text-ink-2 block font-sans text-[12px]">{said}</span>{/each}
</Clause>
