<script lang="ts">
	/** What a zone is called, and what the marks of its pieces begin with. */
	import type { Zone } from '$core/project/schema';
	import { below, pathTo } from '$core/project/typed-path';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';

	let { zone }: { zone: Zone } = $props();
	const desk = useDesk();
	const path = $derived(pathTo('zones', zone.id));
</script>

<TextChip
	value={zone.name}
	label="Name of the zone"
	look="name"
	oncommit={(text) => desk.set(below(path, 'name'), text, `zone name ${text}`)}
/>, marked <TextChip
	value={zone.code}
	label="Code of the marks"
	look="formula"
	check={(text) =>
		/^[A-Z][A-Z0-9]{0,5}$/.test(text)
			? null
			: 'A code is 1 to 6 capital letters and digits, starting with a letter'}
	oncommit={(text) => desk.set(below(path, 'code'), text, `zone code ${text}`)}
/>
