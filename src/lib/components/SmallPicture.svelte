<script lang="ts">
	import type { SmallPicture } from './small-picture';

	let { of }: { of: SmallPicture } = $props();
	const [DARK, LIGHT] = [58, 92];
	const tone = (light: number) => `hsl(42 24% ${DARK + (LIGHT - DARK) * light}%)`;
</script>

<svg viewBox="0 0 {of.width} {of.height}" class="h-full w-full" aria-hidden="true">
	{#each of.faces as { path, light }, k (k)}
		<path d={path} fill={tone(light)} stroke="#5b5648" stroke-opacity="0.35" stroke-width="0.5" />
	{/each}
	{#each of.lines as { path, lit }, k (k)}
		<path
			d={path}
			fill="none"
			stroke={lit ? 'var(--color-gold)' : 'var(--color-ink-3)'}
			stroke-width={lit ? 2 : 0.8}
			stroke-linejoin="round"
		/>
	{/each}
	{#each of.dots as { x, y, lit }, k (k)}
		<circle cx={x} cy={y} r={lit ? 3 : 1.6} fill={lit ? 'var(--color-gold)' : 'var(--color-ink-3)'} />
	{/each}
</svg>
