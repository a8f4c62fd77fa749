<script lang="ts">
	import type { FormOf } from '../words';
	import CurveChip from '../CurveChip.svelte';
	import HeightChip from '../HeightChip.svelte';
	import PlaceChips from '../PlaceChips.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { below, type Path } from '$core/project/typed-path';

	let { form, path, of }: { form: FormOf<'revolved'>; path: Path<FormOf<'revolved'>>; of: string } = $props();
</script>

from a profile of
<CurveChip
	curve={{
		path: below(path, 'profile'),
		label: `${of} profile`,
		points: form.profile.points,
		joins: form.profile.joins,
		axes: ['from axis', 'height'],
		closed: 'never',
		arcs: true
	}}
/>, turned <ValueChip
	path={below(path, 'turn')}
	value={form.turn}
	kind="angle"
	label="Turn of {of}"
	{of}
	step={5}
/> from
<ValueChip
	path={below(path, 'from')}
	value={form.from}
	kind="angle"
	label="Start of the turn"
	{of}
	step={5}
/> about
<PlaceChips path={below(path, 'axis')} value={form.axis} {of} />, its foot at
<HeightChip path={below(path, 'foot')} value={form.foot} label="Foot" {of} />
