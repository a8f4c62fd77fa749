<script lang="ts">
	import type { Problem } from '$core/units/problem';
	import Ellipsis from '@lucide/svelte/icons/ellipsis';
	import { DropdownMenu } from 'bits-ui';
	import type { Snippet } from 'svelte';
	import { useDesk } from '$lib/state/desk.svelte';

	interface Action {
		readonly label: string;
		readonly act: () => void;
		/** Why it cannot be done now. */
		readonly disabled?: string | false;
	}
	interface Props {
		number: string;
		/** Document path: errors and the "why" of the card find the clause by it. */
		path: string;
		effect?: string;
		effectIsBad?: boolean;
		muted?: boolean;
		actions?: readonly Action[];
		problems?: readonly Problem[];
		/** Share of the zone's cells this clause took, and where the share starts: 0..1. */
		share?: { readonly from: number; readonly size: number };
		/** What its effect counts, chosen; and lit while it is pointed at. */
		onchoose?: () => void;
		onlight?: (on: boolean) => void;
		children: Snippet;
	}
	let {
		number,
		path,
		effect,
		effectIsBad = false,
		muted = false,
		actions = [],
		problems = [],
		share,
		onchoose,
		onlight,
		children
	}: Props = $props();
	const desk = useDesk();
	const active = $derived(desk.selection.clause === path);
</script>

<div
	class="clause group relative grid grid-cols-[44px_1fr_auto] py-[5px] pr-3.5"
	class:active
	class:opacity-50={muted}
	data-clause={path}
	role="group"
	aria-label="Clause {number}"
	onfocusin={() => (desk.selection.clause = path)}
>
	<span
		class={[
			'figures pr-2 text-right text-[11.5px] leading-[23px] whitespace-nowrap',
			active ? 'text-ink-2' : 'text-ink-3'
		]}>{number}</span
	>
	<div class="sentence min-w-0">
		{@render children()}{#if muted}<span class="text-ink-2 ml-1 text-[12px]">(muted)</span>{/if}
	</div>
	<div class="flex items-start gap-1 pl-2.5">
		{#if effect && onchoose}<button
				type="button"
				class="figures text-ink-2 hover:text-patina-deep max-w-[132px] text-right text-[11.5px] leading-[23px] underline decoration-dotted underline-offset-2"
				data-effect
				aria-label="{effect}: choose them"
				onclick={onchoose}
				onpointerenter={() => onlight?.(true)}
				onpointerleave={() => onlight?.(false)}
				onfocus={() => onlight?.(true)}
				onblur={() => onlight?.(false)}>{effect}</button
			>{:else if effect}<span
				class="figures max-w-[132px] text-right text-[11.5px] leading-[23px]"
				class:text-oxide={effectIsBad}
				class:text-ink-2={!effectIsBad}
				data-effect>{effect}</span
			>{/if}
		{#if actions.length}
			<DropdownMenu.Root>
				<DropdownMenu.Trigger
					class="text-ink-3 hover:text-ink mt-1 -mr-1.5 grid size-4 place-items-center rounded opacity-0 group-hover:opacity-100 focus-visible:opacity-100 data-[state=open]:opacity-100"
					aria-label="More for clause {number}"><Ellipsis size={14} /></DropdownMenu.Trigger
				>
				<DropdownMenu.Portal>
					<DropdownMenu.Content class="floating z-50 min-w-40 p-1" align="end" sideOffset={4}>
						{#each actions as action (action.label)}
							<DropdownMenu.Item
								class="data-highlighted:bg-wash data-disabled:text-ink-2 cursor-pointer rounded px-2 py-1.5 outline-none data-disabled:cursor-default"
								disabled={Boolean(action.disabled)}
								onSelect={action.act}
								>{action.label}{#if action.disabled}<span class="block max-w-56 text-[11.5px] leading-snug"
										>{action.disabled}</span
									>{/if}</DropdownMenu.Item
							>
						{/each}
					</DropdownMenu.Content>
				</DropdownMenu.Portal>
			</DropdownMenu.Root>
		{:else}<span class="w-2.5"></span>{/if}
	</div>
	{#if share}
		<div
			class="col-start-2 col-end-4 mt-1 h-[4px] overflow-hidden rounded-full bg-[#E9E4D6]"
			aria-hidden="true"
			onpointerenter={() => onlight?.(true)}
			onpointerleave={() => onlight?.(false)}
		>
			<div
				class="h-full rounded-full bg-[#7FB5A9]"
				style:margin-left="{share.from * 100}%"
				style:width="{share.size * 100}%"
			></div>
		</div>
	{/if}
	{#each problems as problem (problem.at + problem.text)}
		<div
			role={problem.remark ? 'note' : 'alert'}
			class={[
				'col-start-2 col-end-4 mt-1 rounded px-2 py-1.5 text-[12px] leading-snug font-medium',
				problem.remark ? 'bg-wash text-ink' : 'bg-oxide-wash text-oxide-deep'
			]}
		>
			{problem.text}.
			{#each problem.fixes ?? [] as fix (fix.label)}
				<button
					type="button"
					class="text-patina-deep mr-2 font-semibold underline"
					onclick={() => desk.do(fix.label, { do: 'set', path: fix.path, value: fix.value })}
					>Take {fix.label}</button
				>
			{/each}
		</div>
	{/each}
</div>

<style>
	.clause.active {
		background: #f4f0e4;
	}
	.clause.active::before {
		content: '';
		position: absolute;
		inset: 0 auto 0 0;
		width: 3px;
		background: var(--color-patina);
	}
</style>
