<script lang="ts">
	import type { Height } from '$core/project/form-schema';
	import { heightOf } from '$core/mass/levels';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { below, type Path } from '$core/project/typed-path';

	interface Props {
		path: Path<Height>;
		value: Height;
		label: string;
		of: string;
	}
	let { path, value, label, of }: Props = $props();
	const desk = useDesk();
	const levels = $derived(desk.project.document.levels);
	const level = $derived(typeof value === 'number' ? '-' : value.level);
	const options = $derived([
		{ value: '-', label: 'the ground' },
		...levels.map((one) => ({ value: one.id, label: one.name })),
		...(level === '-' || levels.some((one) => one.id === level)
			? []
			: [{ value: level, label: `${level} (gone)` }])
	]);
	/** The height stays where it is when it follows something else. */
	function follow(id: string) {
		let now = 0;
		try {
			now = heightOf(value, levels, path);
		} catch {
			// Its level is gone: it starts from the new one.
		}
		const to = levels.find((one) => one.id === id);
		const next: Height = to ? { level: id, plus: now - to.height } : now;
		desk.set(path, next, `${of} ${label.toLowerCase()} follows ${to?.name ?? 'the ground'}`);
	}
</script>

<span class="whitespace-nowrap"
	><ValueChip
		path={typeof value === 'number' ? path : below(path, 'plus')}
		value={typeof value === 'number' ? value : value.plus}
		kind="length"
		{label}
		{of}
		step={100}
	/>{#if levels.length || level !== '-'}{' '}over
		<ChoiceChip value={level} {options} label="{label} follows" onchoose={follow} />{/if}</span
>
