<script lang="ts">
	/** Over what comes before, straight to a part of the page: seen when a key comes to them. */
	const parts = [
		['Build sheet', '[data-testid="sheet"]'],
		['Model', 'canvas[aria-label="Model in 3D"]'],
		['Card of what is chosen', '[data-testid="card"], [data-testid="face-card"]'],
		['Flat map', '[data-testid="map"]'],
		['Status', '[data-testid="status"]']
	] as const;
	/** The first thing in a part that can be worked on, or else the part itself. */
	function go(selector: string) {
		const part = document.querySelector<HTMLElement>(selector);
		const first = part?.querySelector<HTMLElement>('button:not([disabled]), a[href], input') ?? part;
		if (!first) return;
		if (first === part) first.tabIndex = -1;
		first.focus();
		first.scrollIntoView({ block: 'nearest' });
	}
</script>

<nav
	class="bg-ink absolute top-1 left-1 z-50 flex gap-1 rounded p-1 opacity-0 focus-within:opacity-100 [&:not(:focus-within)]:pointer-events-none"
	aria-label="Skip to a part of the page"
>
	{#each parts as [label, selector] (label)}
		<button
			type="button"
			class="rounded px-2 py-1 text-[12.5px] text-white focus-visible:outline-white"
			onclick={() => go(selector)}>{label}</button
		>
	{/each}
</nav>
