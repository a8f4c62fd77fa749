<script lang="ts">
	/** The sheets of a project by what they show: one is looked at. */
	import { sheetGroups, type SheetGroup } from '$core/drawing/planned';
	import { formatNumber } from '$core/units/quantity';
	import type { ListedSheet } from '$lib/worker/drawings';

	interface Props {
		sheets: readonly ListedSheet[];
		shown: string | null;
		onchoose: (number: string) => void;
	}
	let { sheets, shown, onchoose }: Props = $props();
	/** So many are listed of a group before the rest is asked for. */
	const FEW = 30;
	let whole = $state<SheetGroup | null>(null);
	const groups = $derived(
		(Object.keys(sheetGroups) as SheetGroup[]).flatMap((group) => {
			const all = sheets.filter((one) => one.group === group);
			return all.length ? [{ group, all, listed: whole === group ? all : all.slice(0, FEW) }] : [];
		})
	);
	/** Up and down go from sheet to sheet. */
	function keydown(event: KeyboardEvent) {
		const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
		if (!step || !(event.currentTarget instanceof HTMLElement)) return;
		const buttons = [...event.currentTarget.querySelectorAll<HTMLButtonElement>('[data-sheet]')];
		const at = buttons.findIndex((one) => one === document.activeElement);
		const next = buttons[Math.max(0, Math.min(buttons.length - 1, at + step))];
		event.preventDefault();
		next?.focus();
		next?.click();
	}
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<nav
	class="border-hair bg-sheet min-h-0 overflow-auto border-r px-3 py-3"
	aria-label="Sheets"
	onkeydown={keydown}
>
	{#each groups as { group, all, listed } (group)}
		<section class="mb-4">
			<h2 class="text-ink-2 mb-1 flex justify-between px-2 text-[11.5px] font-semibold">
				{sheetGroups[group]}
				<span class="figures">{formatNumber(all.reduce((sum, { count }) => sum + count, 0))}</span>
			</h2>
			<ul>
				{#each listed as { number, title, count } (number)}
					<li>
						<button
							type="button"
							data-sheet={number}
							aria-current={shown === number ? 'true' : undefined}
							class={[
								'flex w-full items-baseline gap-2 rounded px-2 py-1 text-left',
								shown === number ? 'bg-gold-wash shadow-[inset_0_0_0_1px_#D98E1F]' : 'hover:bg-wash'
							]}
							onclick={() => onchoose(number)}
							><span class="figures text-ink-2 w-13 shrink-0 text-[11.5px] whitespace-nowrap">{number}</span
							><span class="min-w-0 flex-1 truncate">{title}</span>{#if count > 1}<span
									class="figures text-ink-2 text-[11.5px]">{formatNumber(count)}</span
								>{/if}</button
						>
					</li>
				{/each}
			</ul>
			{#if listed.length < all.length}<button
					type="button"
					class="text-patina mt-1 px-2 text-[12.5px] hover:underline"
					onclick={() => (whole = group)}>{formatNumber(all.length - listed.length)} more …</button
				>{/if}
		</section>
	{/each}
</nav>
