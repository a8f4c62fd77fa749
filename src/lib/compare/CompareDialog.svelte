<script lang="ts">
	import type { Zone } from '$core/project/schema';
	import { formatLength, formatNumber, formatQuantity } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { patternValue, patternWords } from '$lib/pattern/pattern-words';
	import { settingOutFor } from '$lib/edits/ties';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { CladFigures } from '$core/schedule/clad-figures';
	import type { LayoutFigures } from '$core/schedule/layout-figures';
	import { money } from '$lib/edits/rates';
	import type { LayoutTrial } from '$lib/worker/trials';
	import X from '@lucide/svelte/icons/x';
	import { Dialog } from 'bits-ui';
	import TrialPicture from './TrialPicture.svelte';
	import { firstTrials, MOST_TRIALS, readSteps, stepsInWords, withTrial, type Trial } from './trials';
	import { pathTo, setAt } from '$core/project/typed-path';

	/** Several settings of one zone side by side; one of them is taken. */
	let { zone, onleave }: { zone: Zone; onleave: () => void } = $props();
	const desk = useDesk();
	// svelte-ignore state_referenced_locally
	const settingOut = settingOutFor(desk.project.document, zone);
	// svelte-ignore state_referenced_locally
	let trials = $state.raw<readonly Trial[]>(firstTrials({ ...zone, settingOut }));
	let results = $state.raw<ReadonlyMap<string, LayoutTrial>>(new Map());
	const keyOf = (trial: Trial) => JSON.stringify([trial.settingOut, trial.pattern]);
	const options = $derived([
		...patternWords.map(({ value, label }) => ({ value, label })),
		...desk.project.document.tiles.map((one) => ({ value: `tile ${one.id}`, label: `tile ${one.name}` }))
	]);

	$effect(() => {
		const { kept } = desk.project;
		for (const trial of trials) {
			const key = keyOf(trial);
			if (results.has(key)) continue;
			void desk.model.service
				.layout(kept, withTrial(zone, trial))
				.then((result) => (results = new Map([...results, [key, result]])))
				.catch((error: Error) => (results = new Map([...results, [key, { problem: error.message }]])));
		}
	});
	/** What is put on them is made one after the other, once all are laid out. */
	let clad = $state.raw<ReadonlyMap<string, CladFigures>>(new Map());
	let isCladding = false;
	const { currency, rates } = $derived(desk.project.document.cost);
	async function cladNext() {
		const next = trials.find((trial) => {
			const laid = results.get(keyOf(trial));
			return laid && 'figures' in laid && !clad.has(keyOf(trial));
		});
		if (!next || isCladding) return;
		isCladding = true;
		const figures = await desk.model.service
			.cladFigures(desk.project.kept, withTrial(zone, next))
			.catch(() => null);
		isCladding = false;
		if (figures) clad = new Map([...clad, [keyOf(next), figures]]);
	}
	$effect(() => {
		void [clad, results, trials];
		if (trials.every((trial) => results.has(keyOf(trial)))) void cladNext();
	});
	/** The best of several is marked: the least of those on which as few cells wait for a part. */
	function isLeast(own: CladFigures, key: keyof CladFigures): boolean {
		const all = [...clad.values()];
		const waiting = Math.min(...all.map((one) => one.waiting));
		const others = all.filter((one) => one.waiting === waiting);
		return (
			own.waiting === waiting &&
			others.every((one) => one[key] >= own[key]) &&
			others.some((one) => one[key] > own[key])
		);
	}
	const laidRows = ({
		cells: { whole, edge, strip, cut },
		...rest
	}: LayoutFigures): [label: string, text: string][] => [
		['Cells', formatNumber(whole + edge + strip + cut)],
		['whole · edge · strip · cut', [whole, edge, strip, cut].map((one) => formatNumber(one)).join(' · ')],
		['Edges', formatNumber(rest.edges)],
		['Line', `${formatNumber(rest.lineLength / 1000, 0)} m`],
		['Worst warp', formatLength(rest.worstWarp, desk.display, 1)],
		['Smallest piece', formatQuantity(rest.smallestArea, 'area')],
		['Different cells, by their edges', formatNumber(rest.kindsOfCells)]
	];
	const cladRows = (on: CladFigures): [key: keyof CladFigures, label: string, text: string][] => [
		['pieces', 'Pieces', formatNumber(on.pieces)],
		['waiting', 'Cells that wait for a part', formatNumber(on.waiting)],
		['kinds', 'Kinds of pieces', formatNumber(on.kinds)],
		['barLength', 'Bars', `${formatNumber(on.barLength)} m`],
		['mass', 'Mass', formatQuantity(on.mass, 'mass')],
		['flagged', 'Flagged', formatNumber(on.flagged)],
		...(rates.length
			? [['cost', 'Cost', money(Math.round(on.cost), currency)] satisfies [keyof CladFigures, string, string]]
			: [])
	];
	const change = (id: number, part: Partial<Trial>) =>
		(trials = trials.map((trial) => (trial.id === id ? { ...trial, ...part } : trial)));
	function choosePattern(id: number, value: string) {
		const choice = value.startsWith('tile ')
			? { kind: 'tile' as const, tile: value.slice(5) }
			: patternWords.find((word) => word.value === value)!.choice;
		change(id, { pattern: choice });
	}
	function setSteps(trial: Trial, key: 'across' | 'up', text: string) {
		const steps = readSteps(text, desk.display);
		if (typeof steps !== 'string') change(trial.id, { settingOut: { ...trial.settingOut, [key]: steps } });
	}
	const checkSteps = (text: string) => {
		const steps = readSteps(text, desk.display);
		return typeof steps === 'string' ? steps : null;
	};
	function add() {
		const last = trials.at(-1)!;
		trials = [...trials, { ...last, id: Math.max(...trials.map(({ id }) => id)) + 1 }];
	}
	function take(trial: Trial) {
		const done = desk.do(
			`${zone.name}: settings compared, one taken`,
			// A zone that is set out as another stays so, unless its steps are others.
			...(JSON.stringify(trial.settingOut) === JSON.stringify(settingOut)
				? []
				: [
						setAt(pathTo('zones', zone.id, 'settingOut'), trial.settingOut),
						setAt(pathTo('zones', zone.id, 'setOutAs'), null)
					]),
			setAt(pathTo('zones', zone.id, 'pattern'), trial.pattern)
		);
		if (done) onleave();
	}
	const isNow = (trial: Trial) => keyOf(trial) === JSON.stringify([settingOut, zone.pattern]);
</script>

<Dialog.Root open onOpenChange={(open) => !open && onleave()}>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-black/25" />
		<Dialog.Content
			class="floating fixed top-1/2 left-1/2 z-50 max-h-[94vh] w-[1080px] max-w-[97vw] -translate-x-1/2 -translate-y-1/2 overflow-auto p-4"
			data-testid="compare"
		>
			<div class="flex items-baseline justify-between">
				<Dialog.Title class="text-[15px] font-semibold">Settings of {zone.name}, side by side</Dialog.Title>
				<Dialog.Close class="text-ink-2 hover:bg-wash rounded" aria-label="Close"
					><X size={16} /></Dialog.Close
				>
			</div>
			<div class="mt-3 grid grid-cols-3 gap-3 max-lg:grid-cols-2">
				{#each trials as trial, n (trial.id)}
					{@const result = results.get(keyOf(trial))}
					<!-- The same figures stand in one line across the settings, however long their sentences are. -->
					<section
						class="border-hair row-span-5 grid grid-rows-subgrid gap-y-0 rounded border bg-white p-3"
						aria-label="Setting {n + 1}"
					>
						<p class="sentence text-[14px]!">
							<ChoiceChip
								value={patternValue(trial.pattern)}
								{options}
								label="Pattern of setting {n + 1}"
								onchoose={(value) => choosePattern(trial.id, value)}
							/>,
							<TextChip
								value={stepsInWords(trial.settingOut.across)}
								label="Across in setting {n + 1}"
								look="formula"
								check={checkSteps}
								oncommit={(text) => setSteps(trial, 'across', text)}
							/> across,
							<TextChip
								value={stepsInWords(trial.settingOut.up)}
								label="Up in setting {n + 1}"
								look="formula"
								check={checkSteps}
								oncommit={(text) => setSteps(trial, 'up', text)}
							/> up
						</p>
						<div
							class="border-hair my-2 grid h-[150px] place-items-center overflow-hidden rounded border bg-[#FBFAF5]"
						>
							{#if !result}<span class="text-ink-2 text-[12px]" role="status">setting out …</span>
							{:else if 'problem' in result}<p
									class="text-oxide-deep px-3 text-[12px] font-medium"
									role="alert"
								>
									{result.problem}.
								</p>
							{:else}<TrialPicture
									faces={result.faces}
									width={320}
									height={150}
									label="Setting {n + 1} laid flat"
								/>{/if}
						</div>
						{#if result && 'figures' in result}
							<dl
								class="[&_dd]:figures grid grid-cols-[1fr_auto] content-start gap-x-3 text-[12px] [&_dd]:text-right"
								aria-label="As it is laid out, setting {n + 1}"
							>
								{#each laidRows(result.figures) as [label, text] (label)}
									<dt>{label}</dt>
									<dd>{text}</dd>
								{/each}
							</dl>
							{@const on = clad.get(keyOf(trial))}
							{#if !on}<p class="border-hair text-ink-2 mt-1.5 border-t pt-1.5 text-[12px]" role="status">
									cladding it …
								</p>{:else}<dl
									class="[&_dd]:figures border-hair mt-1.5 grid grid-cols-[1fr_auto] content-start gap-x-3 border-t pt-1.5 text-[12px] [&_dd]:text-right"
									aria-label="With all that is put on it, setting {n + 1}"
								>
									{#each cladRows(on) as [key, label, text] (key)}
										<dt>{label}</dt>
										<dd class={isLeast(on, key) ? 'text-patina-deep font-semibold' : ''}>{text}</dd>
									{/each}
								</dl>{/if}
						{/if}
						<div class="row-start-5 mt-2 flex items-center gap-3 text-[12.5px]">
							{#if isNow(trial)}<span class="text-patina-deep font-medium">as it is now</span>
							{:else}<button
									type="button"
									class="plain-button"
									disabled={!result || 'problem' in result}
									onclick={() => take(trial)}>Take this one</button
								>{/if}
							{#if trials.length > 1}<button
									type="button"
									class="text-ink-2 ml-auto underline"
									aria-label="Leave setting {n + 1} out"
									onclick={() => (trials = trials.filter(({ id }) => id !== trial.id))}>leave out</button
								>{/if}
						</div>
					</section>
				{/each}
				{#if trials.length < MOST_TRIALS}
					<button
						type="button"
						class="border-hair text-ink-2 hover:text-patina-deep row-span-5 grid min-h-40 place-items-center rounded border border-dashed"
						onclick={add}>Another setting</button
					>
				{/if}
			</div>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
