<script lang="ts">
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';

	type Direction = readonly [number, number, number];
	interface Props {
		/** null takes the nearest places. */
		value: Direction | null;
		label: string;
		onchoose: (direction: [number, number, number]) => void;
		/** Takes the nearest places, where that is offered. */
		onnearest?: () => void;
	}
	let { value, label, onchoose, onnearest }: Props = $props();
	const ways = [
		{ value: '0 0 1', label: 'upward' },
		{ value: '0 0 -1', label: 'downward' },
		{ value: '0 1 0', label: 'to the north' },
		{ value: '1 0 0', label: 'to the east' },
		{ value: '0 -1 0', label: 'to the south' },
		{ value: '-1 0 0', label: 'to the west' }
	];
	const way = $derived(value?.join(' ') ?? 'nearest');
	const known = $derived(way === 'nearest' || ways.some((one) => one.value === way));
	const options = $derived([
		...(onnearest ? [{ value: 'nearest', label: 'where it is nearest' }] : []),
		...ways,
		{ value: known ? 'typed' : way, label: 'along x y z' }
	]);
	const read = (text: string): [number, number, number] | null => {
		const numbers = text.split(/[\s,;]+/).map(Number);
		return numbers.length === 3 && numbers.every(Number.isFinite) && numbers.some((n) => n !== 0)
			? (numbers as [number, number, number])
			: null;
	};
	function choose(next: string) {
		if (next === 'typed') onchoose([1, 1, 0]);
		else if (next === 'nearest') onnearest?.();
		else onchoose(read(next)!);
	}
</script>

<ChoiceChip value={way} {options} {label} onchoose={choose} />{#if !known}{' '}<TextChip
		value={way}
		label="{label}, x y z"
		look="formula"
		check={(text) => (read(text) ? null : 'Three numbers are wanted, not all of them 0, as in 1 0.5 0')}
		oncommit={(text) => onchoose(read(text)!)}
	/>{/if}
