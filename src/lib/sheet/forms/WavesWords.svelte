<script lang="ts">
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import HeightChip from '../HeightChip.svelte';
	import PlaceChips from '../PlaceChips.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import type { FormOf } from '../words';
	import { below, insertAt, type Path } from '$core/project/typed-path';

	let { form, path, of }: { form: FormOf<'waves'>; path: Path<FormOf<'waves'>>; of: string } = $props();
	const desk = useDesk();
	const freshName = () => {
		for (let n = 1; ; n++) if (!form.values.some((one) => one.id === `value_${n}`)) return `value_${n}`;
	};
	const add = () =>
		desk.do(
			`${of}: a named value`,
			insertAt(below(path, 'values'), form.values.length, { id: freshName(), value: '1000 mm' })
		);
</script>

over a plan of <ValueChip
	path={below(path, 'size', 0)}
	value={form.size[0]}
	kind="length"
	label="Size along x"
	{of}
	step={100}
	min={1}
/>
by <ValueChip
	path={below(path, 'size', 1)}
	value={form.size[1]}
	kind="length"
	label="Size along y"
	{of}
	step={100}
	min={1}
/> from
<PlaceChips path={below(path, 'from')} value={form.from} {of} />, over
<HeightChip path={below(path, 'foot')} value={form.foot} label="Foot" {of} />, as high as
<TextChip
	value={form.height}
	label="Height formula of {of}"
	look="formula"
	oncommit={(text) => desk.set(below(path, 'height'), text, `${of} height ${text}`.slice(0, 120))}
/>{#each form.values as value (value.id)}, where
	<TextChip
		value={value.id}
		label="Name of the value"
		look="name"
		check={(text) =>
			/^[a-z][a-z0-9_]*$/.test(text)
				? null
				: 'A name is lower-case letters, digits and _, starting with a letter'}
		oncommit={(text) =>
			desk.set(below(path, 'values', value.id, 'id'), text, `${of}: ${value.id} called ${text}`)}
	/> is <TextChip
		value={value.value}
		label="Value of {value.id}"
		look="formula"
		oncommit={(text) => desk.set(below(path, 'values', value.id, 'value'), text, `${of} ${value.id} ${text}`)}
	/>{/each}{' '}<button type="button" class="text-patina-deep text-[12px] underline" onclick={add}
	>named value</button
>
