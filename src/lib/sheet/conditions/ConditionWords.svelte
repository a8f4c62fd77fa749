<script lang="ts">
	import type { Condition, ConditionOf, Joining } from '$core/project/condition-schema';
	import { below, type Path } from '$core/project/typed-path';
	import { formatNumber } from '$core/units/quantity';
	import { useDesk } from '$lib/state/desk.svelte';
	import { addressOf } from '$lib/state/selection.svelte';
	import { toast } from 'svelte-sonner';
	import { borderline, MARGIN } from './borderline';
	import Ellipsis from '@lucide/svelte/icons/ellipsis';
	import { DropdownMenu } from 'bits-ui';
	import ConditionPhrase from './ConditionPhrase.svelte';
	import ConditionWords from './ConditionWords.svelte';
	import { offeredFor, type AskedOf } from './fresh';

	/** Conditions joined by and, or, and not, in words; brackets hold conditions of their own. */
	interface Props {
		condition: Joining;
		path: Path<Joining>;
		/** Whose conditions they are, for undo. */
		of: string;
		asked: AskedOf;
		/** Within brackets. */
		inner?: boolean;
	}
	let { condition, path, of, asked, inner = false }: Props = $props();
	const desk = useDesk();
	const offered = $derived(offeredFor(asked));
	const isJoining = (one: Condition): one is Joining =>
		one.is === 'all' || one.is === 'any' || one.is === 'none';
	const set = (next: Joining, what: string) => desk.set(path, next, `${of}: ${what}`);
	const joiner = $derived(condition.is === 'all' ? 'and' : 'or');
	function join() {
		set(
			{ ...condition, is: condition.is === 'all' ? 'any' : 'all' },
			condition.is === 'all' ? 'one of them' : 'all of them'
		);
	}
	const put = (k: number, next: Condition[], what: string) =>
		set({ ...condition, of: [...condition.of.slice(0, k), ...next, ...condition.of.slice(k + 1)] }, what);
	/** One more, joined as the others are. */
	const add = (one: Condition, label: string) =>
		set({ ...condition, of: [...condition.of, one] }, `where ${label}`);
	/** Cells that would change sides with little. */
	function chooseBorderline(range: ConditionOf<'range'>) {
		const z = desk.model.view.zones.findIndex(({ id }) => id === asked.zone);
		const cells = z < 0 ? null : borderline(desk.model.view.zones[z]!, range, desk.named);
		if (!cells) return void toast('This is known only where models are computed');
		const addresses = cells.flatMap((list, face) =>
			list.map((index) => addressOf(desk.model.view, { zone: z, face, kind: 'cell', index }))
		);
		if (addresses.length) desk.selection.choose(addresses);
		toast(
			`${formatNumber(addresses.length)} ${addresses.length === 1 ? 'cell is' : 'cells are'} within ${100 * MARGIN} % of a bound`
		);
	}
	const item =
		'data-highlighted:bg-wash cursor-pointer rounded px-2 py-1.5 outline-none data-disabled:text-ink-2';
</script>

{#snippet menu(one: Condition, k: number)}
	<!-- It takes no room: it stands over what comes next while the phrase is pointed at. -->
	<span class="relative inline-block h-5 w-0 align-middle"
		><DropdownMenu.Root>
			<DropdownMenu.Trigger
				data-aside
				class="text-ink-3 hover:text-ink bg-sheet absolute top-0.5 -left-1 grid size-4 place-items-center rounded opacity-0 group-hover/phrase:opacity-100 focus-visible:opacity-100 data-[state=open]:opacity-100"
				aria-label="More for condition {k + 1}"><Ellipsis size={12} /></DropdownMenu.Trigger
			>
			<DropdownMenu.Portal>
				<DropdownMenu.Content class="floating z-50 min-w-40 p-1" align="start" sideOffset={4}>
					{#if one.is === 'none'}<DropdownMenu.Item
							class={item}
							onSelect={() =>
								put(k, one.of.length === 1 ? one.of : [{ ...one, is: 'any' }], 'not turned round')}
							>Without the not</DropdownMenu.Item
						>{:else}<DropdownMenu.Item
							class={item}
							onSelect={() =>
								put(
									k,
									[isJoining(one) && one.is === 'any' ? { ...one, is: 'none' } : { is: 'none', of: [one] }],
									'turned round'
								)}>Not this</DropdownMenu.Item
						>{/if}
					{#if !isJoining(one)}<DropdownMenu.Item
							class={item}
							onSelect={() =>
								put(k, [{ is: condition.is === 'all' ? 'any' : 'all', of: [one] }], 'in brackets')}
							>In brackets, with others</DropdownMenu.Item
						>{/if}
					{#if one.is === 'range' && asked.over === 'cell'}<DropdownMenu.Item
							class={item}
							onSelect={() => chooseBorderline(one)}>Choose cells near its bounds</DropdownMenu.Item
						>{/if}
					<DropdownMenu.Item class={item} onSelect={() => put(k, [], 'a condition less')}
						>Remove</DropdownMenu.Item
					>
				</DropdownMenu.Content>
			</DropdownMenu.Portal>
		</DropdownMenu.Root></span
	>
{/snippet}

{#each condition.of as one, k (k)}{#if k > 0}{' '}<button
			type="button"
			class="text-ink-2 hover:text-patina-deep underline decoration-dotted underline-offset-2"
			aria-label="{joiner}: change to {joiner === 'and' ? 'or' : 'and'}"
			onclick={join}
			disabled={condition.is === 'none'}>{joiner}</button
		>{' '}{/if}<span class="group/phrase" data-condition={k}
		>{#if isJoining(one)}{one.is === 'none'
				? 'not '
				: ''}{#if one.of.length !== 1 || one.is !== 'none'}({/if}<ConditionWords
				condition={one}
				path={below(path, 'of', k)}
				{of}
				{asked}
				inner
			/>{#if one.of.length !== 1 || one.is !== 'none'}){/if}{:else}<ConditionPhrase
				condition={one}
				path={below(path, 'of', k)}
				{of}
				{asked}
			/>{/if}{@render menu(one, k)}</span
	>{/each}{#if !(inner && condition.is === 'none')}<span class="inline-flex" data-aside
		><DropdownMenu.Root>
			<DropdownMenu.Trigger
				class="text-patina-deep ml-1 font-sans text-[12px] underline decoration-dotted underline-offset-2"
				aria-label={condition.of.length ? `${joiner} where …` : 'Only where …'}
				>{condition.of.length ? `+ ${joiner}` : 'only where …'}</DropdownMenu.Trigger
			>
			<DropdownMenu.Portal>
				<DropdownMenu.Content
					class="floating z-50 max-h-80 min-w-52 overflow-auto p-1"
					align="start"
					sideOffset={4}
				>
					{#each offered as { label, fresh } (label)}
						<DropdownMenu.Item class={item} onSelect={() => add(fresh(), label)}>{label}</DropdownMenu.Item>
					{/each}
				</DropdownMenu.Content>
			</DropdownMenu.Portal>
		</DropdownMenu.Root></span
	>{/if}
