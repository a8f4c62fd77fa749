<script lang="ts">
	import { formatNumber } from '$core/units/quantity';
	import { partsOf } from '$core/cladding/kit';
	import { massAtLevels, massFaces } from '$core/mass/faces';
	import { movedForm } from '$core/mass/move';
	import type { Mass } from '$core/project/form-schema';
	import ImportItem from '$lib/form/ImportItem.svelte';
	import type { Zone } from '$core/project/schema';
	import Plus from '@lucide/svelte/icons/plus';
	import { DropdownMenu } from 'bits-ui';
	import { onMount, tick } from 'svelte';
	import SeveralChip from '$lib/components/SeveralChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk, type Lens } from '$lib/state/desk.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import MassClause from './MassClause.svelte';
	import MeasureClause from './MeasureClause.svelte';
	import RuleClause from './RuleClause.svelte';
	import NodesClause from './NodesClause.svelte';
	import RunClause from './RunClause.svelte';
	import SettingOutClause from './SettingOutClause.svelte';
	import VariantClause from './VariantClause.svelte';
	import LevelsClause from './LevelsClause.svelte';
	import SunClause from './SunClause.svelte';
	import BroughtClause from './brought/BroughtClause.svelte';
	import ByHandClause from './ByHandClause.svelte';
	import NamedClause from './NamedClause.svelte';
	import GuidesClause from './GuidesClause.svelte';
	import LayerClause from './LayerClause.svelte';
	import PatternClause from './PatternClause.svelte';
	import SliverClause from './SliverClause.svelte';
	import CompareDialog from '$lib/compare/CompareDialog.svelte';
	import { clauseNumbers, zonePart } from '$lib/edits/clause-numbers';
	import { newNodePlacing, newRule, newRun } from '$lib/edits/new-clauses';
	import { massOf, newMass, newZone, type NewFormKind } from '$lib/edits/new-things';
	import { newFormWords } from './words';
	import { freshId } from '$lib/edits/fresh-id';
	import { addressOf } from '$lib/state/selection.svelte';
	import { splitFace } from '$lib/form/face-choices';
	import { below, insertAt, pathTo, removeAt } from '$core/project/typed-path';

	const desk = useDesk();
	const document = $derived(desk.project.document);
	const zones = $derived(document.zones);
	const problems = $derived(desk.model.view.problems);
	let list = $state<HTMLElement>();
	let importing = $state<ReturnType<typeof ImportItem>>();
	const BETWEEN_MASSES = 4000;
	/** The zone whose settings are compared. */
	let comparing = $state<string | null>(null);
	const compared = $derived(zones.find((zone) => zone.id === comparing));

	const massName = (id: string) => document.masses.find((mass) => mass.id === id)?.name ?? id;
	/** The faces there are, and those a zone still names. */
	function faceOptions(zone: Zone) {
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
	}

	/** How many zones are on the sheet: it comes piece by piece, so that the model can be drawn in between. */
	let shown = $state(0);
	onMount(() => {
		let next: ReturnType<typeof setTimeout>;
		const more = () => {
			shown = shown <= zones.length ? shown + 1 : Infinity;
			if (Number.isFinite(shown)) next = setTimeout(more);
		};
		next = setTimeout(more);
		return () => clearTimeout(next);
	});
	/** A lens scrolls the sheet to its part; nothing is hidden. */
	const lensTarget: Record<Lens, () => string> = {
		form: () => '[data-part="masses"]',
		'set-out': () => `[data-part="zone ${desk.activeZone}"]`,
		clad: () => `[data-part="zone ${desk.activeZone}"] [data-part="cladding"]`,
		check: () => `[data-part="zone ${desk.activeZone}"]`,
		issue: () => '[data-part="kit"]'
	};
	let lensSeen = desk.lens;
	$effect(() => {
		const { lens } = desk;
		if (lens === lensSeen) return;
		lensSeen = lens;
		if (desk.turned) {
			desk.turned = false;
			return;
		}
		void tick().then(() =>
			list?.querySelector(lensTarget[lens]())?.scrollIntoView({ block: 'start', behavior: 'smooth' })
		);
	});
	$effect(() => {
		const path = desk.selection.clause;
		// It may be on a piece of the sheet that is still to come.
		void shown;
		if (path)
			list?.querySelector(`[data-clause="${CSS.escape(path)}"]`)?.scrollIntoView({ block: 'nearest' });
	});

	/** How far a new mass has to go to stand to the east of what is there (mm). */
	function beside(mass: Mass): [number, number] {
		let east = -Infinity;
		for (const { positions, origin } of desk.model.view.masses.flatMap((one) => one.faces))
			for (let k = 0; k < positions.length; k += 3) east = Math.max(east, positions[k]! + origin[0]);
		if (east === -Infinity) return [0, 0];
		let west = Infinity;
		for (const { surface } of massFaces(massAtLevels(mass, document.levels)))
			for (let k = 0; k < surface.net.length; k += 4)
				west = Math.min(west, surface.net[k]! / surface.net[k + 3]!);
		return [Math.ceil((east - west + BETWEEN_MASSES) / 1000) * 1000, 0];
	}
	function addForm(kind: NewFormKind) {
		const fresh = newMass(kind, document.masses);
		addMass({ ...fresh, form: movedForm(fresh.form, beside(fresh)) });
	}
	function addMass(mass: Mass) {
		// A cap is a roof: it is set out by itself.
		const faces = massFaces(massAtLevels(mass, document.levels))
			.filter((face) => face.name !== 'cap')
			.map((face) => ({ mass: mass.id, face: face.name }));
		const zone = newZone(mass.name, faces, document.zones);
		if (
			desk.do(
				`add ${mass.name}`,
				insertAt(pathTo('masses'), document.masses.length, mass),
				insertAt(pathTo('zones'), document.zones.length, zone)
			)
		)
			desk.activeZone = zone.id;
	}
	function addRule(zone: Zone) {
		desk.do(`${zone.name}: rule added`, ...newRule(document, zone));
	}
	function addRun(zone: Zone) {
		desk.do(`${zone.name}: line run added`, ...newRun(document, zone));
	}
	function addNodes(zone: Zone) {
		desk.do(`${zone.name}: parts on nodes added`, ...newNodePlacing(document, zone));
	}
	function addVariant(part: string) {
		const label = partsOf(document).find((one) => one.id === part)?.label ?? part;
		desk.do(
			`a variant of ${label}`,
			insertAt(pathTo('variants'), document.variants.length, {
				id: freshId(part, document.variants),
				name: 'new',
				part,
				values: {}
			})
		);
	}
	const stateOf = (zone: Zone) => desk.model.view.zones.find((one) => one.id === zone.id);
	const cellCount = (zone: Zone) =>
		stateOf(zone)?.faces.reduce((sum, face) => sum + face.cells.count, 0) ?? 0;
	const shared = (zone: Zone) =>
		(stateOf(zone)?.meetings ?? []).reduce((sum, meeting) => sum + meeting.shared, 0);
	/** Faces whose rims meet, but with nodes of their own. */
	const apart = (zone: Zone) =>
		(stateOf(zone)?.meetings ?? [])
			.filter((meeting) => meeting.apart > 0)
			.map(({ faces, steps }) => {
				const [one, other] = faces.map((k) => zone.faces[k]?.face ?? '');
				return steps[0] === steps[1]
					? `${one} and ${other} have ${steps[0]} steps each where they meet, but ${zone.settingOut.along} lay them elsewhere on each: they share no nodes there.`
					: `${one} has ${steps[0]} steps where it meets ${other}, which has ${steps[1]}: they share their nodes where counts are the same.`;
			});
	/** Cells that nothing is put on, of each face. */
	const untakenCells = (zone: Zone) =>
		stateOf(zone)?.assignments.map(({ rule, exception }) =>
			Array.from(rule.keys()).filter((c) => rule[c] === -1 && exception[c] === -1)
		) ?? [];
	function chooseUntaken(zone: Zone) {
		const z = desk.model.view.zones.findIndex(({ id }) => id === zone.id);
		desk.activeZone = zone.id;
		desk.selection.choose(
			untakenCells(zone).flatMap((cells, face) =>
				cells.map((index) => addressOf(desk.model.view, { zone: z, face, kind: 'cell', index }))
			)
		);
	}
	const untaken = (zone: Zone) => stateOf(zone)?.assignments.reduce((sum, one) => sum + one.untaken, 0) ?? 0;
</script>

{#snippet add(label: string, act: () => void)}
	<button
		type="button"
		class="text-ink-2 hover:text-patina-deep flex items-center gap-1 py-1 text-[12px]"
		onclick={act}><Plus size={13} />{label}</button
	>
{/snippet}

<section
	class="bg-sheet h-full overflow-auto pb-24"
	aria-label="Build sheet"
	bind:this={list}
	data-testid="sheet"
>
	<div data-part="masses">
		<header class="flex items-baseline gap-2 px-4.5 pt-3.5 pb-1.5">
			<span class="figures text-ink-3 w-[26px] text-[12px]">1</span>
			<h2 class="text-[12.5px] font-semibold tracking-wide">Masses</h2>
			<span class="figures text-ink-2 ml-auto text-[11.5px]"
				>{document.masses.length} {document.masses.length === 1 ? 'mass' : 'masses'}</span
			>
		</header>
		{#each document.masses as mass, k (mass.id)}
			<MassClause {mass} number="1.{k + 1}" />
		{:else}
			<p class="sentence text-ink-2 px-11 py-2">
				Nothing stands yet. Add a mass: its surface becomes the first zone.
			</p>
		{/each}
		<LevelsClause number="1.{document.masses.length + 1}" />
		<GuidesClause number="1.{document.masses.length + 2}" />
		<SunClause number="1.{document.masses.length + 3}" />
		<BroughtClause number="1.{document.masses.length + 4}" />
		<NamedClause number="1.{document.masses.length + 5}" />
		<DropdownMenu.Root>
			<DropdownMenu.Trigger
				class="text-ink-2 hover:text-patina-deep ml-11 flex items-center gap-1 py-1 text-[12px]"
				><Plus size={13} />Mass</DropdownMenu.Trigger
			>
			<DropdownMenu.Portal>
				<DropdownMenu.Content class="floating z-50 p-1" align="start">
					{#each newFormWords as { kind, label } (kind)}
						<DropdownMenu.Item
							class="data-highlighted:bg-wash cursor-pointer rounded px-2 py-1.5 outline-none"
							onSelect={() => addForm(kind)}>{label}</DropdownMenu.Item
						>
					{/each}
					<DropdownMenu.Item
						class="data-highlighted:bg-wash border-hair cursor-pointer rounded border-t px-2 py-1.5 outline-none"
						onSelect={() => importing?.choose()}
						>Imported: faces of a STEP file, meshes of an OBJ file</DropdownMenu.Item
					>
				</DropdownMenu.Content>
			</DropdownMenu.Portal>
		</DropdownMenu.Root>
		<ImportItem bind:this={importing} onform={(name, form) => addMass(massOf(name, form, document.masses))} />
	</div>

	{#each zones.slice(0, shown) as zone, z (zone.id)}
		{@const n = zonePart(z)}
		{@const path = pathTo('zones', zone.id)}
		{@const state = stateOf(zone)}
		{@const numbers = clauseNumbers(zone)}
		<div data-part="zone {zone.id}">
			<header class="mt-3 flex items-baseline gap-2 px-4.5 pb-1.5">
				<span class="figures text-ink-3 w-[26px] text-[12px]">{n}</span>
				<h2 class="text-[12.5px] font-semibold tracking-wide">
					<button
						type="button"
						class="hover:text-patina-deep"
						aria-pressed={desk.activeZone === zone.id}
						onclick={() => (desk.activeZone = zone.id)}>Zone · {zone.name}</button
					>
				</h2>
				{#if desk.activeZone === zone.id}<span class="text-patina text-[11px] font-medium">on the map</span
					>{/if}
				<span class="figures text-ink-2 ml-auto text-[11.5px]"
					>{state?.behind ? 'behind' : `${formatNumber(cellCount(zone))} cells`}</span
				>
			</header>
			<Clause
				number="{n}.1"
				path={below(path, 'faces')}
				effect={shared(zone) ? `${shared(zone)} shared` : ''}
				problems={problems.filter(({ at }) => at === below(path, 'faces') || at === below(path, 'code'))}
				actions={[
					{
						label: 'Remove the zone',
						act: () => desk.do(`remove zone ${zone.name}`, removeAt(path))
					}
				]}
			>
				<TextChip
					value={zone.name}
					label="Name of the zone"
					look="name"
					oncommit={(text) => desk.set(below(path, 'name'), text, `zone name ${text}`)}
				/>, marked <TextChip
					value={zone.code}
					label="Code of the marks"
					look="formula"
					check={(text) =>
						/^[A-Z][A-Z0-9]{0,5}$/.test(text)
							? null
							: 'A code is 1 to 6 capital letters and digits, starting with a letter'}
					oncommit={(text) => desk.set(below(path, 'code'), text, `zone code ${text}`)}
				/>, covers
				<SeveralChip
					values={zone.faces.map((face) => `${face.mass}/${face.face}`)}
					options={faceOptions(zone)}
					label="Faces"
					empty="no face yet"
					onchoose={(chosen) => desk.set(below(path, 'faces'), chosen.map(splitFace), `${zone.name} faces`)}
				/>.{#each apart(zone) as said (said)}<span class="text-ink-2 block font-sans text-[12px]">{said}</span
					>{/each}
			</Clause>
			<SettingOutClause {zone} number="{n}.2" direction="across" />
			<SettingOutClause {zone} number="{n}.3" direction="up" />
			<MeasureClause {zone} number="{n}.4" />
			<PatternClause {zone} number="{n}.5" oncompare={() => (comparing = zone.id)} />
			<SliverClause {zone} number="{n}.{numbers.slivers}" />
			<LayerClause {zone} number="{n}.{numbers.layer}" />
			<div data-part="cladding">
				{#each zone.rules as rule, k (rule.id)}
					<RuleClause {zone} {rule} number="{n}.{numbers.rule(k)}" />
				{/each}
				{#if untaken(zone) > 0}
					<p class="text-ink-2 ml-11 py-1 text-[12px]">
						<button
							type="button"
							class="hover:text-patina-deep underline decoration-dotted underline-offset-2"
							onclick={() => chooseUntaken(zone)}
							onpointerenter={() => (desk.lit = { zone: zone.id, cells: untakenCells(zone) })}
							onpointerleave={() => (desk.lit = null)}
							><span class="figures">{untaken(zone)}</span>
							{untaken(zone) === 1 ? 'cell is' : 'cells are'} taken by no rule</button
						>.
					</p>
				{/if}
				{#if zone.exceptions.length}<ByHandClause {zone} number="{n}.{numbers.exceptions}" />{/if}
				{#each zone.runs as run, k (run.id)}
					<RunClause {zone} {run} number="{n}.{numbers.run(k)}" />
				{/each}
				{#each zone.nodes as placing, k (placing.id)}
					<NodesClause {zone} {placing} number="{n}.{numbers.nodes(k)}" />
				{/each}
				<div class="ml-11 flex gap-4">
					{@render add('Rule', () => addRule(zone))}
					{@render add('Line run', () => addRun(zone))}
					{@render add('Parts on nodes', () => addNodes(zone))}
				</div>
			</div>
		</div>
	{/each}

	{#if shown > zones.length}<div data-part="kit">
			<header class="mt-3 flex items-baseline gap-2 px-4.5 pb-1.5">
				<span class="figures text-ink-3 w-[26px] text-[12px]">{zones.length + 2}</span>
				<h2 class="text-[12.5px] font-semibold tracking-wide">Kit</h2>
				<a class="text-patina-deep text-[11.5px] hover:underline" href="/project/{desk.project.id}/kit"
					>all parts</a
				>
				<span class="figures text-ink-2 ml-auto text-[11.5px]"
					>{formatNumber(document.variants.length)} variants</span
				>
			</header>
			{#each document.variants as variant, k (variant.id)}
				<VariantClause {variant} number="{zones.length + 2}.{k + 1}" />
			{:else}
				<p class="sentence text-ink-2 px-11 py-2">
					No variants yet. A variant is a part with values of its own; rules put it on cells.
				</p>
			{/each}
			<DropdownMenu.Root>
				<DropdownMenu.Trigger
					class="text-ink-2 hover:text-patina-deep ml-11 flex items-center gap-1 py-1 text-[12px]"
					><Plus size={13} />Variant</DropdownMenu.Trigger
				>
				<DropdownMenu.Portal>
					<DropdownMenu.Content
						class="floating z-50 max-h-[var(--bits-dropdown-menu-content-available-height)] max-w-80 overflow-auto p-1"
						side="right"
						align="end"
						collisionPadding={8}
					>
						{#each partsOf(document) as part (part.id)}
							<DropdownMenu.Item
								class="data-highlighted:bg-wash cursor-pointer rounded px-2 py-1.5 outline-none"
								onSelect={() => addVariant(part.id)}
								><b class="font-semibold">{part.label}</b><br /><span class="text-ink-2 text-[12px]"
									>{part.use}</span
								></DropdownMenu.Item
							>
						{/each}
					</DropdownMenu.Content>
				</DropdownMenu.Portal>
			</DropdownMenu.Root>
		</div>{/if}
</section>
{#if compared}<CompareDialog zone={compared} onleave={() => (comparing = null)} />{/if}
