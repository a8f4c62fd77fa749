<script lang="ts">
	import { mannerHere } from '$lib/model/renderer';
	import { formatQuantity } from '$core/units/quantity';
	import { inputKind, kernelValue } from '$core/part/inputs';
	import { cornersOfTrial } from '$core/part/trials';
	import { onMount, untrack } from 'svelte';
	import { type Bench } from './bench.svelte';
	import { hang, type InputValues, type TrialPiece } from './hang';
	import { Pictures } from './pictures';

	/** Small pictures below the stage: of every trial, or of every input at both ends of its range. */
	let { bench }: { bench: Bench } = $props();
	let shows = $state<'trials' | 'extremes'>('trials');
	let pictures = $state.raw<Pictures | null>(null);
	const WAIT_MS = 120;

	interface Tile {
		readonly key: string;
		readonly label: string;
		readonly picture: string | null | undefined;
		readonly piece: TrialPiece;
		readonly chosen: boolean;
		readonly choose: () => void;
	}
	let tiles = $state.raw<readonly Tile[]>([]);

	onMount(() => {
		try {
			pictures = new Pictures(mannerHere());
		} catch {
			// Without pictures the tiles still say what they are and which are flagged.
		}
		return () => pictures?.dispose();
	});
	/** Why there is no picture of a piece. */
	const whyNot = ({ failed, flags, elements }: TrialPiece) => {
		if (failed) return `not made: ${flags[0] ?? 'it cannot be'}`;
		return elements.length ? '' : 'nothing is ordered yet';
	};
	const tile = (
		key: string,
		label: string,
		points: typeof bench.points,
		inputs: InputValues,
		chosen: boolean,
		choose: () => void
	): Tile | null => {
		const part = bench.shown?.part;
		if (!part) return null;
		const inspection = bench.inspectionFor(part, cornersOfTrial(part.anchor, points.length));
		const piece = hang(part, inspection, bench, points, inputs);
		return { key, label, picture: undefined, piece, chosen, choose };
	};
	function trialTiles(): (Tile | null)[] {
		return bench.trials.map((trial) =>
			tile(trial.name, trial.name, trial.points, bench.inputs, bench.trial === trial, () =>
				bench.chooseTrial(trial.name)
			)
		);
	}
	function extremeTiles(): (Tile | null)[] {
		const part = bench.shown?.part;
		return (part?.inputs ?? []).flatMap((input) => {
			const kind = inputKind(input);
			const ends = input.options
				? input.options.map(({ name, label }) => ({ value: name, text: label }))
				: input.kind === 'switch'
					? [
							{ value: true, text: 'yes' },
							{ value: false, text: 'no' }
						]
					: [input.min, input.max].flatMap((value) =>
							kind && value !== undefined
								? [{ value, text: formatQuantity(kernelValue(input, value), kind) }]
								: []
						);
			return ends.map(({ value, text }) =>
				tile(
					`${input.name} ${String(value)}`,
					`${input.label}: ${text}`,
					bench.points,
					{ ...bench.inputs, [input.name]: value },
					bench.inputs[input.name] === value,
					() => bench.setInput(input.name, value)
				)
			);
		});
	}
	$effect(() => {
		void [bench.shown, bench.trials, bench.trial, bench.points, bench.inputs, shows];
		const maker = pictures;
		// Pictures are many: they wait until a drag rests, and are drawn one at a time.
		let timer = setTimeout(() => {
			const made = (shows === 'trials' ? trialTiles() : extremeTiles()).flatMap((one) => one ?? []);
			const before = new Map(untrack(() => tiles).map((one) => [one.key, one.picture]));
			tiles = made.map((one) => ({ ...one, picture: before.get(one.key) }));
			let k = 0;
			const draw = () => {
				const one = made[k];
				if (!one) return;
				const picture = maker?.of(one.piece.elements) ?? null;
				tiles = tiles.map((old, n) => (n === k ? { ...old, picture } : old));
				k++;
				timer = setTimeout(draw);
			};
			timer = setTimeout(draw);
		}, WAIT_MS);
		return () => clearTimeout(timer);
	});
</script>

<div class="flex h-full flex-col">
	<div class="flex gap-1.5 px-3.5 pt-2" role="group" aria-label="What the pictures show">
		{#each [['trials', 'Trials'], ['extremes', 'Inputs at their ends']] as const as [value, label] (value)}
			<button
				type="button"
				class="rounded-full border px-2.5 py-px text-[12px] {shows === value
					? 'border-patina text-patina font-semibold'
					: 'border-hair text-ink-2'}"
				aria-pressed={shows === value}
				onclick={() => (shows = value)}>{label}</button
			>
		{/each}
	</div>
	<div class="flex grow gap-2.5 overflow-x-auto px-3.5 py-2" data-testid="strip">
		{#each tiles as { key, label, picture, piece, chosen, choose } (key)}
			<button
				type="button"
				class="bg-sheet flex w-[122px] shrink-0 flex-col items-center rounded border px-1 pb-1 {chosen
					? 'border-[#D98E1F] shadow-[0_0_0_1px_#D98E1F]'
					: 'border-hair'}"
				aria-pressed={chosen}
				title={piece.flags.join('\n') || label}
				onclick={choose}
			>
				{#if picture}<img src={picture} alt="" class="h-[62px] w-full object-contain" />{:else}<span
						class="text-oxide-deep line-clamp-4 grid h-[62px] place-items-center overflow-hidden px-1 text-center text-[11px] leading-tight"
						>{picture === null ? whyNot(piece) : ''}</span
					>{/if}
				<span class="line-clamp-2 w-full text-center text-[11px] leading-tight"
					>{label}{#if piece.flags.length}<span class="text-oxide ml-1"
							>{piece.flags.length} {piece.flags.length === 1 ? 'flag' : 'flags'}</span
						>{/if}</span
				>
			</button>
		{/each}
	</div>
</div>
