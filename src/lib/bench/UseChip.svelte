<script lang="ts">
	import Crosshair from '@lucide/svelte/icons/crosshair';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';

	/** The name of a value that a step stands on, chosen among those it can see. */
	interface Props {
		value: string | undefined;
		label: string;
		/** Names with their types. */
		sees: ReadonlyMap<string, string>;
		of: readonly string[];
		optional?: boolean;
		onchoose: (name: string | null) => void;
		/** Picks it on the stage instead; left out where nothing can be picked. */
		onpick?: () => void;
		picking?: boolean;
	}
	let { value, label, sees, of, optional = false, onchoose, onpick, picking = false }: Props = $props();
	const NONE = '-';
	const options = $derived.by(() => {
		const fits = [...sees]
			.filter(([, is]) => of.includes(is))
			.map(([name, is]) => ({ value: name, label: name, note: is }));
		const all = optional ? [{ value: NONE, label: 'none', note: '' }, ...fits] : fits;
		return value === undefined || all.some((one) => one.value === value)
			? all
			: [...all, { value, label: value, note: 'not there' }];
	});
</script>

<span class="relative"
	><ChoiceChip
		value={value ?? NONE}
		{options}
		{label}
		wrong={value !== undefined && !sees.has(value)}
		onchoose={(name) => onchoose(name === NONE ? null : name)}
	/>{#if onpick}<button
			type="button"
			class="{picking
				? 'text-[#B9741A]'
				: 'text-ink-2 hover:text-patina-deep opacity-0 group-hover:opacity-100 focus-visible:opacity-100'} bg-sheet absolute -top-2.5 -right-2 z-10 rounded-full p-px"
			aria-label="Pick {label} on the stage"
			aria-pressed={picking}
			title="Pick it on the stage"
			onclick={onpick}><Crosshair size={13} /></button
		>{/if}</span
>
