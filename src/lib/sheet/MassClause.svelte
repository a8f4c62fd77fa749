<script lang="ts">
	import type { Mass } from '$core/project/form-schema';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import DomeWords from './forms/DomeWords.svelte';
	import ImportedWords from './forms/ImportedWords.svelte';
	import LoftedWords from './forms/LoftedWords.svelte';
	import NetWords from './forms/NetWords.svelte';
	import PrismWords from './forms/PrismWords.svelte';
	import RevolvedWords from './forms/RevolvedWords.svelte';
	import RuledWords from './forms/RuledWords.svelte';
	import TwistedWords from './forms/TwistedWords.svelte';
	import VaultedWords from './forms/VaultedWords.svelte';
	import WavesWords from './forms/WavesWords.svelte';
	import { duplicateMass } from '$lib/edits/new-things';
	import { removal } from '$lib/edits/removal';
	import { usersOf } from '$lib/edits/users';
	import { cutsOfTwo, newTrim, newTrimWords, type NewTrim } from '$lib/edits/new-trims';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { groupActions } from './group-actions';
	import { shownActions } from './shown-actions';
	import TrimWords from './TrimWords.svelte';
	import { formWords } from './words';
	import { isWithin } from '$core/project/paths';
	import { below, insertAt, pathTo, removeAt } from '$core/project/typed-path';

	let { mass, number }: { mass: Mass; number: string } = $props();
	const desk = useDesk();
	const path = $derived(pathTo('masses', mass.id));
	const form = $derived(mass.form);
	const place = $derived({ path: below(path, 'form'), of: mass.name });
	const problems = $derived(desk.model.view.problems.filter((problem) => isWithin(problem.at, path)));
	const users = $derived(
		desk.project.document.zones.filter((zone) => zone.faces.some((face) => face.mass === mass.id))
	);
	/** Zones that lie on nothing else. */
	const aloneOn = $derived(users.filter((zone) => zone.faces.every((face) => face.mass === mass.id)));
	const faces = $derived(desk.model.view.masses.find((one) => one.id === mass.id)?.faces ?? []);
	const used = $derived(users.map((zone) => zone.code).join(' '));
	const effect = $derived(faces.length > 1 ? `${faces.length} faces ${used}`.trim() : used || 'no zone');

	function chooseFaces() {
		desk.lens = 'form';
		desk.selection.faces = faces.map((face) => `${mass.id}/${face.name}`);
	}
	/** A trim in the middle of the chosen face, or of the first one. */
	function addTrim(kind: NewTrim) {
		const chosen = desk.selection.faces.find((name) => name.startsWith(`${mass.id}/`));
		const face = faces.find((one) => `${mass.id}/${one.name}` === chosen) ?? faces[0];
		if (!face) return;
		desk.do(
			`${mass.name}: a trim`,
			insertAt(below(path, 'trims'), mass.trims.length, newTrim(kind, face, mass))
		);
	}
	/** What can be done with every other mass. */
	const withOthers = $derived.by(() => {
		const others = desk.project.document.masses.filter(({ id }) => id !== mass.id);
		if (!others.length) return [];
		return cutsOfTwo.map(({ label, said, edits }) => ({
			label,
			acts: others.map((other) => ({
				label: other.name,
				act: () => desk.do(said(mass.name, other.name), ...edits(mass, other))
			}))
		}));
	});
	function duplicate() {
		const { masses } = desk.project.document;
		const copy = duplicateMass(mass, masses);
		desk.do(
			`copy of ${mass.name}`,
			insertAt(pathTo('masses'), masses.findIndex((one) => one.id === mass.id) + 1, copy)
		);
	}
</script>

<Clause
	{number}
	{path}
	{problems}
	{effect}
	actions={[
		{ label: faces.length > 1 ? 'Choose its faces' : 'Choose its face', act: chooseFaces },
		...newTrimWords.map(({ kind, label }) => ({
			label,
			act: () => addTrim(kind),
			disabled: faces.length === 0 && 'It has no face yet that could be trimmed'
		})),
		...withOthers,
		{ label: 'Duplicate', act: duplicate },
		groupActions(desk, 'masses', mass),
		...shownActions(
			desk,
			'masses',
			mass.id,
			desk.project.document.masses.map(({ id }) => id)
		),
		mass.evened === null
			? { label: 'Even its lines', act: () => desk.set(below(path, 'evened'), 5, `${mass.name} evened`) }
			: {
					label: 'Leave its lines as they are',
					act: () => desk.set(below(path, 'evened'), null, `${mass.name} as made`)
				},
		removal(desk, {
			label: 'Remove',
			name: mass.name,
			edit: removeAt(path),
			users: () => usersOf(desk.project.document, 'masses', mass.id).filter((user) => user.path !== path),
			...(aloneOn.length === users.length && {
				together: {
					label: `Remove ${aloneOn.length > 1 ? 'its zones' : 'its zone'} too`,
					edits: aloneOn.map((zone) => removeAt(pathTo('zones', zone.id)))
				}
			})
		})
	]}
>
	<TextChip
		value={mass.name}
		label="Name of the mass"
		look="name"
		oncommit={(text) => desk.set(below(path, 'name'), text, `name ${text}`)}
	/>
	is {formWords[form.kind]}{' '}{#if form.kind === 'revolved'}<RevolvedWords {form} {...place} />
	{:else if form.kind === 'ruled'}<RuledWords {form} {...place} />
	{:else if form.kind === 'lofted'}<LoftedWords {form} {...place} />
	{:else if form.kind === 'vaulted'}<VaultedWords {form} {...place} />
	{:else if form.kind === 'twisted'}<TwistedWords {form} {...place} />
	{:else if form.kind === 'dome'}<DomeWords {form} {...place} />
	{:else if form.kind === 'net'}<NetWords {form} {...place} />
	{:else if form.kind === 'waves'}<WavesWords {form} {...place} />
	{:else if form.kind === 'imported'}<ImportedWords {form} {...place} />
	{:else}<PrismWords
			{form}
			{...place}
			faces={faces.map((face) => face.name)}
		/>{/if}.{#if mass.evened !== null}{' '}Its lines are evened to within
		<ValueChip
			path={below(path, 'evened')}
			value={mass.evened}
			kind="length"
			label="Evened to within"
			of={mass.name}
			step={1}
			min={0.001}
		/>.{/if}
	{#each mass.trims as trim (trim.id)}<TrimWords
			{trim}
			path={below(path, 'trims', trim.id)}
			of={mass.name}
			faces={faces.map((face) => face.name)}
		/>{/each}
</Clause>
