<script lang="ts">
	import type { PathDefinition } from '$core/project/form-schema';
	import type { FormOf } from '../words';
	import CurveChip from '../CurveChip.svelte';
	import { below, type Path } from '$core/project/typed-path';

	let { form, path, of }: { form: FormOf<'ruled'>; path: Path<FormOf<'ruled'>>; of: string } = $props();
	const curve = (which: 'foot' | 'head', one: PathDefinition) => ({
		path: below(path, which),
		label: `${of} ${which}`,
		points: one.points,
		joins: one.joins,
		axes: ['x', 'y', 'z'],
		closed: one.closed,
		arcs: false
	});
</script>

between the foot <CurveChip curve={curve('foot', form.foot)} /> and the head <CurveChip
	curve={curve('head', form.head)}
/>
