<script lang="ts">
	import { boundOf, isAboutMaterials } from '$core/limit/beyond';
	import { limitsOfProject } from '$core/limit/shipped';
	import { counted } from '$core/units/counted';
	import type { NumberKind } from '$core/units/dimension';
	import { formatQuantity } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { addressOf } from '$lib/state/selection.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import ClashPanel from './ClashPanel.svelte';
	import KindsPanel from './KindsPanel.svelte';
	import SurveyPanel from './SurveyPanel.svelte';
	import ToldPanel from './ToldPanel.svelte';
	import Histogram from './Histogram.svelte';
	import {
		checkMeasures,
		firstMeasure,
		histogram,
		HOURS_OF_SUN,
		rangeOf,
		sequence,
		sequenceStep,
		valuesOf,
		type Bin
	} from './measures';

	const desk = useDesk();
	const view = $derived(desk.model.view);
	const measures = $derived(checkMeasures(view));
	const measure = $derived(measures.find((one) => one.key === desk.measure) ?? firstMeasure);
	const isCounting = $derived(
		measure.key === HOURS_OF_SUN && view.zones.some(({ suns }) => suns.some(({ hours }) => !hours))
	);
	$effect(() => {
		if (measure.key === HOURS_OF_SUN) desk.model.lookAtHours();
	});
	const range = $derived(rangeOf(view, measure.key));
	const bins = $derived(histogram(view, measure.key, range));
	const colours = $derived(bins.map((_, k) => sequence[sequenceStep((k + 0.5) / bins.length)]!));
	const text = (value: number) => formatQuantity(value, measure.kind, desk.display);
	const bare = (value: number) =>
		text(value)
			.replace(/ (mm|m²|m³|m|kg|h|N\/mm²|kN\/m²|kN|cm⁴|W\/m²K)$/, '')
			.replace('°', '');
	const units: Partial<Record<NumberKind, string>> = {
		area: 'm²',
		volume: 'm³',
		angle: '°',
		mass: 'kg',
		hours: 'h'
	};
	const unit = $derived(measure.kind === 'length' ? desk.display : units[measure.kind]);
	/** What a measure of cells is called among limits, where a plate of the cell is meant. */
	const AS_LIMITED: Readonly<Record<string, string>> = { 'plate.warp': 'cell.warp' };
	/** Bounds of limits of this measure that something on the cells could go beyond. */
	const bounds = $derived.by(() => {
		const groups = view.zones.flatMap((zone) => zone.groups.filter(({ over }) => over === 'cell'));
		const own = limitsOfProject(desk.project.document).filter(
			(limit) =>
				!limit.muted &&
				(AS_LIMITED[limit.of] ?? limit.of) === measure.key &&
				groups.some(({ elements }) =>
					isAboutMaterials(
						limit,
						elements.map(({ material }) => material)
					)
				)
		);
		return [...new Set(own.map((limit) => boundOf(limit, measure.kind)))].sort((a, b) => a - b);
	});
	/** Cells with the largest or smallest values, so many of them. */
	const FEW = 10;
	function chooseFew(way: 1 | -1) {
		const all = view.zones.flatMap((zone, z) =>
			zone.faces.flatMap((_, f) =>
				Array.from(valuesOf(zone, f, measure.key), (value, index) => ({
					value,
					site: { zone: z, face: f, index }
				}))
			)
		);
		const worst = all
			.filter(({ value }) => !Number.isNaN(value))
			.sort((a, b) => way * (b.value - a.value))
			.slice(0, FEW);
		// The last that is chosen is the one the card tells of.
		desk.selection.choose(worst.reverse().map(({ site }) => addressOf(view, { ...site, kind: 'cell' })));
	}
	const cells = $derived(bins.reduce((sum, bin) => sum + bin.count, 0));

	/** One of them is looked at, or none. */
	function look(which: 'clashes' | 'kinds' | 'survey') {
		const wasShown = desk[which].shown;
		if (desk.clashes.shown) desk.clashes.close();
		desk.told.shown = null;
		desk.kinds.shown = desk.survey.shown = false;
		if (wasShown) return;
		desk[which].shown = true;
		if (which === 'clashes' && !desk.clashes.found)
			void desk.clashes.look(desk.project.document.clashes.deeper);
	}
	const buttons = [
		['clashes', 'Clashes', 'Pieces that reach into each other'],
		['kinds', 'Kinds', 'Which pieces are alike, and how many different ones there are'],
		['survey', 'Survey', 'Points that were measured on the site, against the model']
	] as const;
	function choose(bin: Bin) {
		const top = bin.to >= range.high - 1e-9 * Math.max(1, Math.abs(range.high));
		const chosen: string[] = [];
		view.zones.forEach((zone, z) =>
			zone.faces.forEach((_, f) =>
				valuesOf(zone, f, measure.key).forEach((value, index) => {
					if (value >= bin.from && (value < bin.to || top))
						chosen.push(addressOf(view, { zone: z, face: f, kind: 'cell', index }));
				})
			)
		);
		desk.selection.choose(chosen);
	}
</script>

<section class="band" aria-label="Check" data-testid="check">
	<p class="sentence shrink-0 whitespace-nowrap! [&_.chip-choice]:max-w-60 [&_.chip-choice]:truncate">
		Colour by
		<ChoiceChip
			value={measure.key}
			options={measures.map((one) => ({ value: one.key, label: one.label }))}
			label="Measure"
			onchoose={(key) => (desk.measure = key)}
		/>
		<span class="text-ink-2 block text-[12px] leading-snug whitespace-nowrap">
			{#each [['ten largest', 1], ['ten smallest', -1]] as const as [what, way] (way)}
				<button
					type="button"
					class="hover:text-patina-deep mr-1.5 underline decoration-dotted underline-offset-2"
					aria-label="Choose the {what}"
					onclick={() => chooseFew(way)}>{what}</button
				>
			{/each}
		</span>
	</p>
	<div class="w-40 min-w-24">
		<div
			class="h-2.5 rounded-sm"
			style:background="linear-gradient(to right, {sequence.join(',')})"
			aria-hidden="true"
		></div>
		<div class="figures text-ink-2 mt-0.5 flex justify-between gap-2 text-[11px] whitespace-nowrap">
			<span>{text(range.low)}</span><span>{text(range.high)}</span>
		</div>
	</div>
	<div class="h-[52px] w-80 min-w-40">
		{#if !isCounting}{#key bins}<Histogram
					{bins}
					{colours}
					{bounds}
					format={bare}
					label="{measure.label}{unit ? ` in ${unit}` : ''}, {counted(cells, 'cell')}{bounds.length
						? `; limit at ${bounds.map(text).join(' and ')}`
						: ''}"
					onchoose={choose}
				/>{/key}{/if}
	</div>
	{#each buttons as [which, label, title] (which)}
		<button
			type="button"
			class="plain-button whitespace-nowrap"
			aria-pressed={desk[which].shown}
			{title}
			onclick={() => look(which)}>{label}</button
		>
	{/each}
	<div class="@container min-w-0 flex-[1_0.6_190px]">
		<p class="text-ink-2 hidden text-[12px] leading-snug whitespace-normal @min-[100px]:line-clamp-3">
			{#if isCounting}Hours of sun are being counted …{:else}{counted(cells, 'cell has', 'cells have')} it; a bar
				selects its own.{bounds.length
					? ` Dashed: ${bounds.length === 1 ? 'the limit' : 'limits'} at ${[...bounds.slice(0, -1).map(bare), text(bounds.at(-1)!)].join(', ')}.`
					: ''}{/if}
		</p>
	</div>
</section>
{#if desk.told.shown}<ToldPanel told={desk.told.shown} />{:else if desk.clashes.shown}<ClashPanel
	/>{:else if desk.kinds.shown}<KindsPanel />{:else if desk.survey.shown}<SurveyPanel />{/if}
