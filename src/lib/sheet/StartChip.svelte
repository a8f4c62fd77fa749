<script lang="ts">
	import { makeUpFor, startAt } from '$core/grid/spacing';
	import type { Spread } from '$core/grid/node-grid';
	import type { Start } from '$core/project/setting-out-schema';
	import { formatLength } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { below, type Path } from '$core/project/typed-path';

	interface Props {
		start: Start;
		path: Path<Start>;
		of: string;
		direction: 'across' | 'up';
		/** Of an exact size, to say what each start line would leave over. */
		size: number | null;
		spread: Spread | undefined;
		/** A path runs from its start to its end. */
		isPath: boolean;
	}
	let { start, path, of, direction, size, spread, isPath }: Props = $props();
	const desk = useDesk();
	const what = $derived(isPath ? 'gaps' : direction === 'across' ? 'bays' : 'courses');
	const ends: Readonly<Record<string, string>> = { left: 'start', right: 'end' };
	const named = (word: string) => (isPath ? (ends[word] ?? word) : word);
	const words = $derived(
		direction === 'across' ? (['left', 'middle', 'right'] as const) : (['foot', 'middle', 'head'] as const)
	);
	const levels = $derived(direction === 'up' ? desk.project.document.levels : []);
	const guides = $derived(isPath ? [] : desk.project.document.guides);

	/** What a start line leaves over, shown before it is chosen. */
	function note(from: number): string {
		if (size === null || !spread || !(size > 0)) return '';
		const { first, last } = makeUpFor(size, spread.lengths.belt, from);
		const show = (mm: number) => formatLength(mm, desk.display, 0);
		if (!first && !last) return 'no make-up';
		if (first && last)
			return Math.abs(first - last) < 0.5
				? `make-up 2 × ${show(first)}`
				: `make-up ${show(first)} and ${show(last)}`;
		return `make-up ${show(first || last)}`;
	}
	const value = $derived(
		typeof start === 'string'
			? start
			: 'at' in start
				? '@'
				: 'level' in start
					? `level ${start.level}`
					: `guide ${start.guide}`
	);
	const options = $derived([
		...words.map((word) => ({
			value: word as string,
			label: named(word),
			note: spread ? note(startAt(word, spread.lengths.belt)) : ''
		})),
		{
			value: '@',
			label: 'a place',
			note: typeof start === 'object' && 'at' in start ? note(start.at) : ''
		},
		...levels.map((level) => ({ value: `level ${level.id}`, label: `level ${level.name}`, note: '' })),
		...guides.map((guide) => ({ value: `guide ${guide.id}`, label: `guide ${guide.name}`, note: '' })),
		...(typeof start === 'object' &&
		(('level' in start && !levels.some((one) => one.id === start.level)) ||
			('guide' in start && !guides.some((one) => one.id === start.guide)))
			? [{ value, label: `${value} (gone)`, note: '' }]
			: [])
	]);
	function choose(next: string) {
		const [kind, ...rest] = next.split(' ');
		const id = rest.join(' ');
		const to: Start =
			next === '@'
				? { at: Math.round((spread?.lengths.belt ?? 2000) / 2) }
				: kind === 'level' && id
					? { level: id, plus: 0 }
					: kind === 'guide' && id
						? { guide: id }
						: (next as 'middle');
		desk.set(path, to, `${of} start line ${next === '@' ? 'at a place' : next}`);
	}
</script>

{value === '@' ? '' : 'the '}<ChoiceChip
	{value}
	{options}
	label="Start line of {what}"
	onchoose={choose}
/>{#if typeof start === 'object' && 'at' in start}{' '}<ValueChip
		path={below(path, 'at')}
		value={start.at}
		kind="length"
		label="Start line of {what} at"
		{of}
		step={100}
	/>{' '}from the {direction === 'across'
		? named('left')
		: 'foot'}{:else if typeof start === 'object' && 'level' in start}{' '}and <ValueChip
		path={below(path, 'plus')}
		value={start.plus}
		kind="length"
		label="Start line over the level"
		{of}
		step={50}
	/>{/if}
