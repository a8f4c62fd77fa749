<script lang="ts">
	import { dragging } from '$lib/components/drag';
	import type { Problem } from '$core/units/problem';
	import ChevronRight from '@lucide/svelte/icons/chevron-right';
	import Ellipsis from '@lucide/svelte/icons/ellipsis';
	import { DropdownMenu } from 'bits-ui';
	import type { Snippet } from 'svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { Act, Said } from '$lib/state/sheet-state.svelte';

	interface Props {
		number: string;
		/** Document path: errors and the "why" of the card find the clause by it. */
		path: string;
		effect?: string;
		effectIsBad?: boolean;
		muted?: boolean;
		actions?: Said['acts'];
		problems?: readonly Problem[];
		/** Share of the zone's cells this clause took, and where the share starts: 0..1. */
		share?: { readonly from: number; readonly size: number };
		/** The colour of what it puts, as the map paints it. */
		tone?: string;
		/** Where it stands among others that come one after another, and how it is moved to another place. */
		order?: { readonly list: string; readonly index: number; readonly move: (to: number) => void };
		/** What its effect counts, chosen; and lit while it is pointed at. */
		onchoose?: () => void;
		onlight?: (on: boolean) => void;
		children: Snippet;
		/** Said under the sentence, however long that is. */
		outcome?: Snippet;
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
		tone,
		order,
		onchoose,
		onlight,
		children,
		outcome
	}: Props = $props();
	const desk = useDesk();
	const active = $derived(desk.selection.clause === path);
	/** Pieces that it put there and that something is told of, the worst first. */
	const flagged = $derived(desk.flags.under.get(path) ?? []);

	/** A sentence takes three lines, until somebody wants to read on. */
	const MOST_LINES = 3;
	const LINE = 22.5;
	let sentence = $state<HTMLElement>();
	let height = $state(0);
	const isLong = $derived(height > (MOST_LINES + 0.6) * LINE);
	const isShort = $derived(isLong && !desk.sheet.atLength.has(path));
	function readOn(on: boolean) {
		if (on) desk.sheet.atLength.add(path);
		else desk.sheet.atLength.delete(path);
	}
	/** Keys lead into what is not shown: it is shown. */
	function focusin(event: FocusEvent) {
		desk.selection.clause = path;
		const at = event.target as HTMLElement;
		if (!isShort || !sentence?.contains(at) || !at.matches(':focus-visible')) return;
		if (at.offsetTop + at.offsetHeight > MOST_LINES * LINE + 4) readOn(true);
	}
	/** Words of a sentence without what is offered in it, which leaves its spaces and a comma before the end. */
	const asRead = (text: string) =>
		text
			.replace(/\s+/g, ' ')
			.replace(/ ?,? ?([.,;])/g, '$1')
			.trim();
	/** Find knows it by its words, without its count. */
	function told(element: HTMLElement) {
		return desk.sheet.tell(path, () => {
			const copy = element.cloneNode(true) as HTMLElement;
			for (const apart of copy.querySelectorAll('[data-aside]')) apart.remove();
			const words = asRead(copy.textContent);
			return { path, number, words, acts: actions };
		});
	}

	/** The clause of the same list under the pointer: this one is put in its place when it is let go. */
	let over: HTMLElement | null = null;
	function seek(event: PointerEvent) {
		const under = document
			.elementFromPoint(event.clientX, event.clientY)
			?.closest<HTMLElement>('[data-order]');
		const next = under?.dataset['list'] === order?.list ? (under ?? null) : null;
		if (next === over) return;
		over?.classList.remove('drop-here');
		over = next;
		over?.classList.add('drop-here');
	}
	function drop() {
		const to = over && Number(over.dataset['order']);
		letGo();
		if (order && to !== null && to !== order.index) order.move(to);
	}
	function letGo() {
		over?.classList.remove('drop-here');
		over = null;
	}
	function keydown(event: KeyboardEvent) {
		const by = event.altKey ? { ArrowUp: -1, ArrowDown: 1 }[event.key] : undefined;
		if (!by || !order || order.index + by < 0) return;
		event.preventDefault();
		event.stopPropagation();
		order.move(order.index + by);
	}
</script>

{#snippet item(act: Act)}
	<DropdownMenu.Item
		class="data-highlighted:bg-wash data-disabled:text-ink-2 cursor-pointer rounded px-2 py-1.5 outline-none data-disabled:cursor-default"
		disabled={Boolean(act.disabled)}
		onSelect={act.act}
		>{act.label}{#if act.disabled}<span class="block max-w-56 text-[11.5px] leading-snug">{act.disabled}</span
			>{/if}</DropdownMenu.Item
	>
{/snippet}

<div
	class="clause group relative grid grid-cols-[44px_1fr] py-[5px] pr-3.5"
	class:active
	class:opacity-50={muted}
	data-clause={path}
	data-list={order?.list}
	data-order={order?.index}
	role="group"
	aria-label="Clause {number}"
	onfocusin={focusin}
>
	{#if order}<button
			type="button"
			class={[
				'figures cursor-grab touch-none self-start pr-2 text-right text-[11.5px] leading-[23px] whitespace-nowrap',
				active ? 'text-ink-2' : 'text-ink-3'
			]}
			title="Drag it to another place; Alt with an arrow moves it too"
			aria-label="Clause {number}: moved by Alt and an arrow"
			onkeydown={keydown}
			{@attach dragging({ begin: () => true, move: seek, end: drop, cancel: letGo })}>{number}</button
		>{:else}<span
			class={[
				'figures pr-2 text-right text-[11.5px] leading-[23px] whitespace-nowrap',
				active ? 'text-ink-2' : 'text-ink-3'
			]}>{number}</span
		>{/if}
	{#if tone}<span
			class="border-ink/20 absolute top-[27px] left-[26px] size-2.5 rounded-[2px] border"
			style:background={tone}
			aria-hidden="true"
		></span>{/if}
	<div
		class="sentence relative -m-0.5 min-w-0 p-0.5"
		class:short={isShort}
		style:--most-lines={MOST_LINES}
		bind:this={sentence}
		{@attach told}
	>
		<div bind:offsetHeight={height} class="flow-root">
			<div class="float-right flex items-start gap-1 pl-2.5" data-aside>
				<div class="text-right">
					{#if effect && onchoose}<button
							type="button"
							class="figures text-ink-2 hover:text-patina-deep block w-full max-w-[132px] text-right text-[11.5px] leading-[23px] underline decoration-dotted underline-offset-2"
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
					{#if flagged.length}<button
							type="button"
							class="figures text-oxide block w-full text-right text-[11.5px] leading-[18px] underline decoration-dotted underline-offset-2"
							aria-label="{flagged.length} flagged in clause {number}: choose them"
							title="To what is told of these pieces, the worst of them first"
							onclick={() => desk.selection.choose([...flagged].reverse())}>{flagged.length} flagged</button
						>{/if}
				</div>
				{#if actions.length}
					<DropdownMenu.Root>
						<DropdownMenu.Trigger
							class="text-ink-3 hover:text-ink mt-1 -mr-1.5 grid size-4 place-items-center rounded opacity-0 group-hover:opacity-100 focus-visible:opacity-100 data-[state=open]:opacity-100"
							aria-label="More for clause {number}"><Ellipsis size={14} /></DropdownMenu.Trigger
						>
						<DropdownMenu.Portal>
							<DropdownMenu.Content
								class="floating z-50 max-h-(--bits-dropdown-menu-content-available-height) min-w-40 overflow-y-auto p-1"
								align="end"
								sideOffset={4}
								collisionPadding={8}
							>
								{#each actions as action (action.label)}
									{#if 'acts' in action}
										<DropdownMenu.Sub>
											<DropdownMenu.SubTrigger
												class="data-highlighted:bg-wash data-[state=open]:bg-wash flex cursor-pointer items-center justify-between gap-4 rounded px-2 py-1.5 outline-none"
												>{action.label}<ChevronRight size={13} /></DropdownMenu.SubTrigger
											>
											<DropdownMenu.SubContent
												class="floating z-50 max-h-(--bits-dropdown-menu-content-available-height) min-w-40 overflow-y-auto p-1"
												collisionPadding={8}
											>
												{#each action.acts as one (one.label)}{@render item(one)}{/each}
											</DropdownMenu.SubContent>
										</DropdownMenu.Sub>
									{:else}{@render item(action)}{/if}
								{/each}
							</DropdownMenu.Content>
						</DropdownMenu.Portal>
					</DropdownMenu.Root>
				{:else}<span class="w-2.5"></span>{/if}
			</div>
			{@render children()}{#if muted}<span class="text-ink-2 ml-1 text-[12px]">(muted)</span
				>{/if}{#if isLong && !isShort}<button
					type="button"
					class="text-ink-2 hover:text-patina-deep ml-2 text-[12px] underline"
					data-aside
					onclick={() => readOn(false)}>less</button
				>{/if}
		</div>
		{#if isShort}<button type="button" class="more" data-aside onclick={() => readOn(true)}>… more</button
			>{/if}
	</div>
	{#if share}
		<div
			class="col-start-2 mt-1 h-[4px] overflow-hidden rounded-full bg-[#E9E4D6]"
			aria-hidden="true"
			onpointerenter={() => onlight?.(true)}
			onpointerleave={() => onlight?.(false)}
		>
			<div
				class="h-full rounded-full"
				style:background="color-mix(in srgb, {tone ?? '#7FB5A9'} 82%, #1d2126)"
				style:margin-left="{share.from * 100}%"
				style:width="{share.size * 100}%"
			></div>
		</div>
	{/if}
	{#if outcome}<div class="text-ink-2 col-start-2 mt-0.5 text-[12px] leading-snug">
			{@render outcome()}
		</div>{/if}
	{#each problems as problem (problem.at + problem.text)}
		<div
			role={problem.remark ? 'note' : 'alert'}
			class={[
				'col-start-2 mt-1 rounded px-2 py-1.5 text-[12px] leading-snug font-medium',
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
	.clause {
		scroll-margin-top: 64px;
	}
	.short {
		max-height: calc(var(--most-lines) * 22.5px + 3px);
		overflow: hidden;
	}
	.more {
		position: absolute;
		right: 0;
		bottom: 0;
		padding: 0 2px 1px 28px;
		font: 400 12px/22px var(--font-sans);
		color: var(--color-ink-2);
		background: linear-gradient(90deg, transparent, var(--ground) 24px);
	}
	.more:hover {
		color: var(--color-patina-deep);
	}
	.clause {
		--ground: var(--color-sheet);
	}
	.clause.active {
		--ground: #f4f0e4;
		background: var(--ground);
	}
	.clause:global(.drop-here) {
		box-shadow: inset 0 2px 0 var(--color-patina);
	}
	.clause.active::before {
		content: '';
		position: absolute;
		inset: 0 auto 0 0;
		width: 3px;
		background: var(--color-patina);
	}
</style>
