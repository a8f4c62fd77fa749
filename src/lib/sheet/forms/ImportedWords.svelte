<script lang="ts">
	import { isInFile } from '$core/project/stored';
	import type { FormOf } from '../words';
	import { formatLength } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { below, type Path } from '$core/project/typed-path';

	let { form, path, of }: { form: FormOf<'imported'>; path: Path<FormOf<'imported'>>; of: string } = $props();
	const desk = useDesk();
	const SHOWN = 4;
	/** Of meshes that faces were fitted to (mm). */
	const faces = $derived(isInFile(form.faces) ? [] : form.faces);
	const deviation = $derived(
		form.scale * faces.reduce((most, face) => Math.max(most, face.deviation ?? 0), 0)
	);
</script>

from <i>{form.source}</i>: {faces.length}
{faces.length === 1 ? 'face' : 'faces'}{#if deviation > 0}{' '}fitted to within
	<span class="figures">{formatLength(deviation, desk.display, 1)}</span>{/if}, a unit of it being <ValueChip
	path={below(path, 'scale')}
	value={form.scale}
	kind="length"
	label="Unit of the file"
	{of}
	step={1}
	min={0.001}
/>, with its <ChoiceChip
	value={form.up}
	options={[
		{ value: 'z', label: 'z' },
		{ value: 'y', label: 'y' }
	]}
	label="Axis that points up"
	onchoose={(up) => desk.set(below(path, 'up'), up, `${of}: ${up} up`)}
/> up, moved by {#each ['x', 'y', 'z'] as axis, k (axis)}<span class="whitespace-nowrap"
		>{axis}
		<ValueChip
			path={below(path, 'at', k)}
			value={form.at[k]!}
			kind="length"
			label="Moved along {axis}"
			{of}
			step={100}
		/></span
	>{' '}{/each}{#if form.refused.length}<span class="text-oxide-deep block font-sans text-[12px] leading-snug"
		>{form.refused.length} not taken: {form.refused.slice(0, SHOWN).join('; ')}{form.refused.length > SHOWN
			? ' …'
			: ''}</span
	>{/if}
