<script lang="ts">
	import type { SheetPart } from '$lib/state/sheet-state.svelte';
	import { useDesk } from '$lib/state/desk.svelte';

	/** The parts of the sheet, always in sight: by the codes of their marks. */
	interface Props {
		/** The part that is read. */
		now: SheetPart;
		ongo: (part: SheetPart) => void;
	}
	let { now, ongo }: Props = $props();
	const desk = useDesk();
	const parts = $derived<readonly { part: SheetPart; short: string; name: string }[]>([
		{ part: 'masses', short: 'Masses', name: 'Masses' },
		...desk.project.document.zones.map(({ id, code, name }) => ({
			part: `zone ${id}` as const,
			short: code,
			name
		})),
		{ part: 'kit', short: 'Kit', name: 'Kit' }
	]);
	let list = $state<HTMLElement>();
	$effect(() => {
		list
			?.querySelector(`[data-to="${CSS.escape(now)}"]`)
			?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
	});
</script>

<nav
	class="bg-sheet border-hair sticky top-0 z-20 flex h-[31px] [scrollbar-width:none] items-center gap-0.5 overflow-x-auto border-b px-2"
	aria-label="Outline of the sheet"
	bind:this={list}
>
	{#each parts as { part, short, name } (part)}
		<button
			type="button"
			data-to={part}
			class={[
				'shrink-0 rounded px-1.5 py-0.5 text-[11.5px]',
				part.startsWith('zone') && 'figures',
				now === part ? 'bg-wash text-patina-deep font-semibold' : 'text-ink-2 hover:text-ink'
			]}
			title={name}
			aria-label="Go to {name}"
			aria-current={now === part ? 'location' : undefined}
			onclick={() => ongo(part)}>{short}</button
		>
	{/each}
</nav>
