<script lang="ts">
	import type { NewFormKind } from '$lib/edits/new-things';
	import { formPicture, PICTURE } from './form-picture';

	let { kind }: { kind: NewFormKind } = $props();
	const [DARK, LIGHT] = [58, 92];
	const tone = (light: number) => `hsl(42 24% ${DARK + (LIGHT - DARK) * light}%)`;
</script>

<svg viewBox="0 0 {PICTURE.width} {PICTURE.height}" class="h-full w-full" aria-hidden="true">
	{#each formPicture(kind) as { path, light }, k (k)}
		<path d={path} fill={tone(light)} stroke="#5b5648" stroke-opacity="0.35" stroke-width="0.5" />
	{/each}
</svg>
