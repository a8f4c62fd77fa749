<script lang="ts">
	import type { GridSite } from '$core/cladding/sites';
	import type { Field } from '$core/field/field';
	import { followableIn, type Followable } from '$core/field/followed';
	import { fieldsOver } from '$core/field/fields';
	import { inputKind } from '$core/part/inputs';
	import type { Driver, DriverOf } from '$core/project/driver-schema';
	import type { PartInput } from '$core/project/part-definition';
	import { below, type Path } from '$core/project/typed-path';
	import { dimensionOf, type NumberKind } from '$core/units/dimension';
	import { checkFormula, shortNames } from '$core/units/formula/check';
	import { numberOf } from '$core/units/formula/expression';
	import { formatQuantity } from '$core/units/quantity';
	import { inRadians } from '$core/units/scale';
	import { conditionNames } from '$core/condition/holds';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import AmountChip from '$lib/frame/AmountChip.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { freshDriver, rangeHere, wayOf, ways, type Blades, type DriverWay } from './fresh';
	import ShareCurve from './ShareCurve.svelte';

	/** What sets one value piece by piece, in words. */
	interface Props {
		input: PartInput;
		driver: Driver;
		path: Path<Driver>;
		over: GridSite;
		/** What can be followed, where that is not everything known of the sites. */
		fieldsFrom?: (things: Followable) => readonly Field[];
		/** The ways that can be chosen; all of them unless said otherwise. */
		ways?: readonly DriverWay[];
		blades: Blades;
		/** Whose value it is, for undo. */
		of: string;
		zone: string;
		onreset: () => void;
	}
	let {
		input,
		driver,
		path,
		over,
		fieldsFrom = (things) => fieldsOver(over, things),
		ways: offered = ways,
		blades,
		of,
		zone,
		onreset
	}: Props = $props();
	const desk = useDesk();
	const kind = $derived<NumberKind>(inputKind(input) ?? 'ratio');
	const things = $derived(followableIn(desk.project.document));
	const fields = $derived(fieldsFrom(things).filter((one) => one.kind !== 'switch'));
	const names = $derived(shortNames(Object.keys(conditionNames(over, things, desk.named))));
	const here = $derived(desk.model.view.zones.find(({ id }) => id === zone));
	const label = $derived(input.label.toLowerCase());
	const allWays = [
		{ value: 'formula', label: 'is' },
		{ value: 'follows', label: 'follows' },
		{ value: 'alternates', label: 'alternates' },
		{ value: 'chance', label: 'is by chance' },
		{ value: 'keeps out', label: 'keeps out the sun' }
	] as const;
	const wayWords = $derived(
		allWays.filter(
			({ value }) =>
				offered.includes(value) &&
				(value !== 'keeps out' || (kind === 'angle' && over === 'cell') || wayOf(driver) === value)
		)
	);
	const set = (next: Driver, what: string) => desk.set(path, next, `${of}: ${label} ${what}`);

	function start(name: string): [number, number] {
		const field = fields.find((one) => one.name === name);
		const spans = { length: [0, 10_000], area: [1e6, 4e6], angle: [0, 90], ratio: [0, 1], count: [1, 10] };
		return (
			rangeHere(here, field) ??
			(((spans as Record<string, number[]>)[field?.kind ?? ''] ?? [0, 1]) as [number, number])
		);
	}
	function choose(way: DriverWay) {
		const field = over === 'line' ? 'length' : 'height';
		set(
			freshDriver(way, input, driver, { field, of: start(field) }, blades),
			allWays.find((one) => one.value === way)!.label
		);
	}
	function check(text: string): string | null {
		try {
			checkFormula(text, {
				names: conditionNames(over, things, desk.named),
				functions: {},
				expected: numberOf(dimensionOf(kind))
			});
			return null;
		} catch (error) {
			return (error as Error).message;
		}
	}
	const shown = (value: number, of: NumberKind) =>
		formatQuantity(of === 'angle' ? inRadians(value) : value, of, desk.display);
	const listed = (values: readonly (number | string)[]) =>
		values.map((value) => (typeof value === 'number' ? shown(value, kind) : value)).join(', ');
	/** Values as somebody types them: numbers with or without units, names of choices. */
	function values(text: string): (number | string)[] | null {
		const found = text.split(',').map((one) => one.trim());
		if (found.some((one) => !one)) return null;
		const names = input.options?.map(({ name }) => name) ?? [];
		return found.map((one) => (names.includes(one) || !Number.isFinite(Number(one)) ? one : Number(one)));
	}
	type Follows = DriverOf<'follows'>;
	const follows = $derived(typeof driver === 'object' && driver.is === 'follows' ? driver : null);
	const field = $derived(fields.find(({ name }) => name === follows?.field));
	const spread = $derived(follows ? rangeHere(here, field) : null);
</script>

{#snippet amount(value: number | string, at: Path<number | string>, kind: NumberKind, label: string)}
	<AmountChip {value} path={at} {kind} {label} {of} />
{/snippet}

{#snippet bounds(to: DriverOf<'chance'>['to'], joiner: string)}
	{@const place = path as string as Path<DriverOf<'chance'>>}
	{@render amount(to[0], below(place, 'to', 0), kind, `${input.label} at least`)}
	{joiner}
	{@render amount(to[1], below(place, 'to', 1), kind, `${input.label} at most`)}
{/snippet}

<span data-driver={input.name}
	><em>{label}</em>
	<ChoiceChip value={wayOf(driver)} options={wayWords} label="How {label} is set" onchoose={choose} />
	{#if typeof driver === 'string'}<TextChip
			value={driver}
			look="formula"
			label={input.label}
			{names}
			{check}
			oncommit={(text) => set(text, text)}
		/>{:else if driver.is === 'follows'}<ChoiceChip
			value={driver.field}
			options={field
				? fields.map((one) => ({ value: one.name, label: one.label }))
				: [
						{ value: driver.field, label: `${driver.field} (gone)` },
						...fields.map((one) => ({ value: one.name, label: one.label }))
					]}
			label="What {label} follows"
			onchoose={(name) => set({ ...driver, field: name, from: start(name) }, `follows ${name}`)}
		/>
		from {@render amount(
			driver.from[0],
			below(path as string as Path<Follows>, 'from', 0),
			field?.kind ?? 'ratio',
			'From'
		)} to {@render amount(
			driver.from[1],
			below(path as string as Path<Follows>, 'from', 1),
			field?.kind ?? 'ratio',
			'To'
		)}, as {@render amount(
			driver.to[0],
			below(path as string as Path<Follows>, 'to', 0),
			kind,
			`${input.label} at the beginning`
		)} to {@render amount(
			driver.to[1],
			below(path as string as Path<Follows>, 'to', 1),
			kind,
			`${input.label} at the end`
		)},
		<ShareCurve
			points={driver.curve}
			label="How {label} goes from one to the other"
			onset={(curve) => set({ ...driver, curve }, curve.length ? 'along a curve' : 'straight')}
		/>
		<ChoiceChip
			value={driver.steps === null ? 'evenly' : 'steps'}
			options={[
				{ value: 'evenly', label: 'evenly' },
				{ value: 'steps', label: 'in levels of' }
			]}
			label="Evenly or in levels"
			onchoose={(how) => set({ ...driver, steps: how === 'evenly' ? null : 4 }, how)}
		/>{#if driver.steps !== null}{' '}<ValueChip
				path={below(path as string as Path<Follows>, 'steps') as Path<number>}
				value={driver.steps}
				kind="count"
				label="Levels"
				{of}
				min={1}
			/>{/if}, <ChoiceChip
			value={driver.outside}
			options={[
				{ value: 'held', label: 'held' },
				{ value: 'flagged', label: 'flagged' }
			]}
			label="Outside the range"
			onchoose={(outside) => set({ ...driver, outside }, `${outside} outside`)}
		/> outside{#if spread}<span class="text-ink-2 font-sans text-[12px]"
				>{' '}(here {shown(spread[0], field!.kind)} to {shown(spread[1], field!.kind)},
				<button
					type="button"
					class="underline decoration-dotted underline-offset-2"
					onclick={() => desk.showInColour(field!.id, zone)}>in colour</button
				>)</span
			>{/if}{:else if driver.is === 'alternates'}between
		<TextChip
			value={listed(driver.values)}
			look="formula"
			label="Values of {label}"
			check={(text) =>
				values(text) ? null : 'Values with commas between them are wanted, as in 200 mm, 300 mm'}
			oncommit={(text) => set({ ...driver, values: values(text)! }, text)}
		/>
		by <ChoiceChip
			value={driver.by}
			options={[
				{ value: 'bays', label: 'bays' },
				{ value: 'courses', label: 'courses' },
				{ value: 'cells', label: 'cells' }
			]}
			label="Alternates by"
			onchoose={(by) => set({ ...driver, by }, `by ${by}`)}
		/>{:else if driver.is === 'keeps out'}as it stands, by blades that are
		<ChoiceChip
			value={driver.blades}
			options={[
				{ value: 'lying', label: 'lying' },
				{ value: 'standing', label: 'standing' }
			]}
			label="How blades run"
			onchoose={(blades) => set({ ...driver, blades }, `by blades ${blades}`)}
		/>, {@render amount(
			driver.depth,
			below(path as string as Path<DriverOf<'keeps out'>>, 'depth'),
			'length',
			'Depth of the blades'
		)} deep every {@render amount(
			driver.spacing,
			below(path as string as Path<DriverOf<'keeps out'>>, 'spacing'),
			'length',
			'Spacing of the blades'
		)}, between {@render bounds(driver.to, 'and')}{:else}from
		{@render bounds(driver.to, 'to')}, seed <ValueChip
			path={below(path as string as Path<DriverOf<'chance'>>, 'seed')}
			value={driver.seed}
			kind="count"
			label="Seed"
			{of}
		/>{/if}
	<button
		type="button"
		class="text-ink-2 text-[12px] underline"
		onclick={onreset}
		aria-label="Take {input.name} from the variant again">reset</button
	></span
>
