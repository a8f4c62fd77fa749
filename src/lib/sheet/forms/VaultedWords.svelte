<script lang="ts">
	import CurveChip from '../CurveChip.svelte';
	import HeightChip from '../HeightChip.svelte';
	import PlaceChips from '../PlaceChips.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import type { FormOf } from '../words';
	import { below, type Path } from '$core/project/typed-path';

	let { form, path, of }: { form: FormOf<'vaulted'>; path: Path<FormOf<'vaulted'>>; of: string } = $props();
</script>

over a profile of
<CurveChip
	curve={{
		path: below(path, 'profile'),
		label: `${of} profile`,
		points: form.profile.points,
		joins: form.profile.joins,
		axes: ['across', 'height'],
		closed: 'never',
		mirrored: form.profile.mirrored,
		arcs: true
	}}
/>, run for <ValueChip
	path={below(path, 'length')}
	value={form.length}
	kind="length"
	label="Length of {of}"
	{of}
	step={100}
/> at
<ValueChip
	path={below(path, 'direction')}
	value={form.direction}
	kind="angle"
	label="Direction, left of north"
	{of}
	step={5}
/> left of north, from <PlaceChips path={below(path, 'at')} value={form.at} {of} />, its springing at
<HeightChip path={below(path, 'foot')} value={form.foot} label="Foot" {of} />
