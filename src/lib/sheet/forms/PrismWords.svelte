<script lang="ts">
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import HeightChip from '../HeightChip.svelte';
	import OutlineWords from '../OutlineWords.svelte';
	import PlaceChips from '../PlaceChips.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import type { FormOf } from '../words';
	import { below, insertAt, removeAt, type Path } from '$core/project/typed-path';

	interface Props {
		form: FormOf<'prism'>;
		path: Path<FormOf<'prism'>>;
		of: string;
		faces: readonly string[];
	}
	let { form, path, of, faces }: Props = $props();
	const desk = useDesk();
	const flat = $derived(faces.filter((name) => !form.curved.some((one) => one.id === name)));
	function swell(name: string) {
		if (name === '-') return;
		desk.do(
			`${of} ${name} swells`,
			insertAt(below(path, 'curved'), form.curved.length, { id: name, out: 800 })
		);
	}
</script>

on <OutlineWords outline={form.outline} path={below(path, 'outline')} {of} /> over
<PlaceChips path={below(path, 'at')} value={form.at} {of} />, from
<HeightChip path={below(path, 'foot')} value={form.foot} label="Foot" {of} /> to
<HeightChip
	path={below(path, 'head')}
	value={form.head}
	label="Head"
	{of}
/>{#each form.curved as side (side.id)}, its {side.id}
	side swollen by
	<ValueChip
		path={below(path, 'curved', side.id, 'out')}
		value={side.out}
		kind="length"
		label="Swelling of the {side.id} side"
		{of}
		step={50}
	/>
	<button
		type="button"
		class="text-ink-2 text-[12px] underline"
		onclick={() => desk.do(`${of} ${side.id} flat`, removeAt(below(path, 'curved', side.id)))}
		>flat again</button
	>{/each}{#if flat.length > 1}{' '}<ChoiceChip
		value="-"
		options={[{ value: '-', label: 'swell a side' }, ...flat.map((name) => ({ value: name, label: name }))]}
		label="Swell a side of {of}"
		onchoose={swell}
	/>{/if}
