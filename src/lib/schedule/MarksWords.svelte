<script lang="ts">
	/** What the pieces of a list are called, and whether they keep their marks. */
	import { MarkError, markWords, readPattern } from '$core/mark/pattern';
	import type { MarkedSite, Marking } from '$core/project/marks-schema';
	import type { ScheduleName } from '$core/project/schedules-schema';
	import { freezeMarks } from './freeze-marks';
	import { below, pathTo, setAt } from '$core/project/typed-path';
	import { formatNumber } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { ScheduleList } from './list.svelte';

	let { list }: { list: ScheduleList } = $props();
	const desk = useDesk();
	const sites: Partial<Record<ScheduleName, MarkedSite>> = {
		panels: 'cell',
		louvers: 'cell',
		structure: 'cell',
		bars: 'line',
		connectors: 'node'
	};
	const words: Record<MarkedSite, string> = {
		cell: 'Pieces on cells',
		line: 'Bars',
		node: 'Pieces on nodes'
	};
	/** As most sites number them; it says where a piece stands, and stays unique. */
	const first: Record<MarkedSite, string> = {
		cell: '(zone)-(kind)-(number 3)',
		line: '(zone)-M(number 3)',
		node: '(zone)-K(number 3)'
	};
	const over = $derived(sites[list.name] ?? null);
	const marks = $derived(desk.project.document.marks);
	const marking = $derived(over ? marks[over] : null);
	const said = $derived(desk.marks.now);
	const problem = $derived(over ? said?.problems[over] : undefined);
	let freezing = $state(false);

	function check(text: string): string | null {
		try {
			readPattern(text);
			return null;
		} catch (error) {
			if (error instanceof MarkError) return error.message;
			throw error;
		}
	}
	function set(of: MarkedSite, label: string, change: Partial<Marking>) {
		desk.do(label, setAt(below(pathTo('marks'), of), { ...marking!, ...change }));
	}
	function by(of: MarkedSite, how: string) {
		desk.do(
			`${words[of].toLowerCase()} marked by ${how === 'place' ? 'their place' : first[of]}`,
			setAt(
				below(pathTo('marks'), of),
				how === 'place' ? null : { pattern: first[of], along: 'courses', from: 'foot', side: 'left' }
			)
		);
	}
	async function freeze() {
		freezing = true;
		try {
			await freezeMarks(desk);
		} finally {
			freezing = false;
		}
	}
	const button = 'text-ink-2 hover:text-patina-deep font-sans text-[12px] underline';
</script>

{#if over}
	<section class="mt-4" aria-label="Marks">
		<h2 class="mb-1 font-semibold">Marks</h2>
		<p class="sentence text-[14px]!">
			{words[over]} are marked <ChoiceChip
				value={marking ? 'pattern' : 'place'}
				options={[
					{ value: 'place', label: 'by their place' },
					{ value: 'pattern', label: 'by a pattern' }
				]}
				label="How pieces are marked"
				onchoose={(how) => by(over, how)}
			/>{#if marking}, <TextChip
					value={marking.pattern}
					look="formula"
					label="Pattern of the marks"
					names={markWords}
					{check}
					oncommit={(pattern) => set(over, `marks ${pattern}`, { pattern })}
				/>, numbered <ChoiceChip
					value={marking.along}
					options={[
						{ value: 'courses', label: 'course by course' },
						{ value: 'bays', label: 'bay by bay' }
					]}
					label="Numbers run"
					onchoose={(along) => set(over, `marks run along ${along}`, { along })}
				/> from the <ChoiceChip
					value={marking.from}
					options={[
						{ value: 'foot', label: 'foot' },
						{ value: 'head', label: 'head' }
					]}
					label="Numbers begin at the"
					onchoose={(from) => set(over, `marks from the ${from}`, { from })}
				/>, from the <ChoiceChip
					value={marking.side}
					options={[
						{ value: 'left', label: 'left' },
						{ value: 'right', label: 'right' }
					]}
					label="Numbers begin on the"
					onchoose={(side) => set(over, `marks from the ${side}`, { side })}
				/>{/if}.
		</p>
		{#if problem}<p class="text-oxide text-[12.5px]" role="alert">
				They have the marks of their places: {problem}.
			</p>{/if}
		<p class="mt-1 text-[12px]">
			{#if marks.frozen && said}<b class="font-semibold">{formatNumber(said.frozen)} marks are frozen.</b>
				{said.later
					? `${formatNumber(said.later)} ${said.later === 1 ? 'piece' : 'pieces'} came later, with marks of their own.`
					: 'No piece came later.'}
				{#if said.later}<button type="button" class={button} disabled={freezing} onclick={freeze}
						>freeze these too</button
					>
				{/if}<button
					type="button"
					class={button}
					onclick={() => desk.do('marks let go', setAt(below(pathTo('marks'), 'frozen'), null))}
					>let all go</button
				>
			{:else}<button type="button" class={button} disabled={freezing} onclick={freeze}
					>{freezing ? 'freezing …' : 'Freeze the marks'}</button
				> <span class="text-ink-2">so that they stay when pieces come and go.</span>{/if}
		</p>
	</section>
{/if}
