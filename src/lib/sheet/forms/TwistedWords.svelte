<script lang="ts">
	import HeightChip from '../HeightChip.svelte';
	import OutlineWords from '../OutlineWords.svelte';
	import PlaceChips from '../PlaceChips.svelte';
	import type { FormOf } from '../words';
	import OverHeight from './OverHeight.svelte';
	import { below, type Path } from '$core/project/typed-path';

	let { form, path, of }: { form: FormOf<'twisted'>; path: Path<FormOf<'twisted'>>; of: string } = $props();
</script>

on <OutlineWords outline={form.outline} path={below(path, 'outline')} {of} /> over
<PlaceChips path={below(path, 'at')} value={form.at} {of} />, from
<HeightChip path={below(path, 'foot')} value={form.foot} label="Foot" {of} /> to
<HeightChip path={below(path, 'head')} value={form.head} label="Head" {of} />, twisted by
<OverHeight path={below(path, 'twist')} value={form.twist} kind="angle" label="Twist" {of} start={0} /> and tapered
to
<OverHeight path={below(path, 'taper')} value={form.taper} kind="ratio" label="Taper" {of} start={1} />
