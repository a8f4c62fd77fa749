<script lang="ts">
	import HeightChip from '../HeightChip.svelte';
	import OutlineWords from '../OutlineWords.svelte';
	import PlaceChips from '../PlaceChips.svelte';
	import type { FormOf } from '../words';
	import OverHeight from './OverHeight.svelte';

	let { form, path, of }: { form: FormOf<'twisted'>; path: string; of: string } = $props();
</script>

on <OutlineWords outline={form.outline} path="{path}/outline" {of} /> over
<PlaceChips path="{path}/at" value={form.at} {of} />, from
<HeightChip path="{path}/foot" value={form.foot} label="Foot" {of} /> to
<HeightChip path="{path}/head" value={form.head} label="Head" {of} />, twisted by
<OverHeight path="{path}/twist" value={form.twist} kind="angle" label="Twist" {of} start={0} /> and tapered to
<OverHeight path="{path}/taper" value={form.taper} kind="ratio" label="Taper" {of} start={1} />
