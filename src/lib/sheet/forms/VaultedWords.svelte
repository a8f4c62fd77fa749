<script lang="ts">
	import CurveChip from '../CurveChip.svelte';
	import HeightChip from '../HeightChip.svelte';
	import PlaceChips from '../PlaceChips.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import type { FormOf } from '../words';

	let { form, path, of }: { form: FormOf<'vaulted'>; path: string; of: string } = $props();
</script>

over a profile of
<CurveChip
	curve={{
		path: `${path}/profile`,
		label: `${of} profile`,
		points: form.profile.points,
		joins: form.profile.joins,
		axes: ['across', 'height'],
		closed: 'never',
		mirrored: form.profile.mirrored,
		arcs: true
	}}
/>, run for <ValueChip
	path="{path}/length"
	value={form.length}
	kind="length"
	label="Length of {of}"
	{of}
	step={100}
/> at
<ValueChip
	path="{path}/direction"
	value={form.direction}
	kind="angle"
	label="Direction, left of north"
	{of}
	step={5}
/> left of north, from <PlaceChips path="{path}/at" value={form.at} {of} />, its springing at
<HeightChip path="{path}/foot" value={form.foot} label="Foot" {of} />
