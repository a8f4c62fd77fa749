<script lang="ts">
	/** What of the model is in the picture, and what cannot be chosen. */
	import Eye from '@lucide/svelte/icons/eye';
	import EyeOff from '@lucide/svelte/icons/eye-off';
	import Lock from '@lucide/svelte/icons/lock';
	import LockOpen from '@lucide/svelte/icons/lock-open';
	import { Popover } from 'bits-ui';
	import { lineKinds } from '$core/project/line-kinds';
	import { roles, type Role } from '$core/project/part-definition';
	import { pathTo } from '$core/project/typed-path';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { HiddenList } from '$lib/state/visibility.svelte';

	const desk = useDesk();
	const { visibility } = desk;
	const document = $derived(desk.project.document);
	const kindNames: Record<Role, string> = {
		panel: 'Panels',
		louver: 'Louvers',
		mullion: 'Bars',
		structure: 'Structure'
	};
	const lineNames = {
		bay: 'Bay lines',
		course: 'Course lines',
		diagonal: 'Diagonals',
		rim: 'Rims',
		upright: 'Uprights',
		gap: 'Gaps'
	};

	interface Thing {
		readonly id: string;
		readonly name: string;
		/** What is locked with it. */
		readonly path?: string;
	}
	const groups = $derived<readonly { list: HiddenList; title: string; things: readonly Thing[] }[]>([
		{ list: 'kinds', title: 'Pieces', things: roles.map((id) => ({ id, name: kindNames[id] })) },
		{ list: 'lines', title: 'Grid lines', things: lineKinds.map((id) => ({ id, name: lineNames[id] })) },
		{
			list: 'zones',
			title: 'Zones',
			things: document.zones.map(({ id, name }) => ({ id, name, path: pathTo('zones', id) }))
		},
		{
			list: 'masses',
			title: 'Masses, where they are bare or shaped',
			things: document.masses.map(({ id, name }) => ({ id, name, path: pathTo('masses', id) }))
		},
		{
			list: 'layers',
			title: 'Second grids',
			things: document.zones.filter(({ layer }) => layer)
		}
	]);
	const hidden = $derived(
		groups.reduce(
			(sum, { list, things }) => sum + things.filter(({ id }) => visibility.isHidden(list, id)).length,
			0
		)
	);
	const small = 'text-ink-3 hover:text-ink grid size-5 place-items-center rounded';
</script>

<Popover.Root>
	<Popover.Trigger
		class={[
			'bg-sheet rounded-full border px-2.5 py-[3px] text-[12px]',
			hidden ? 'border-patina text-patina font-semibold' : 'border-hair text-ink-2 hover:border-ink-3'
		]}>Shown{hidden ? ` · ${hidden} not` : ''}</Popover.Trigger
	>
	<Popover.Portal>
		<Popover.Content
			class="floating z-50 max-h-[var(--bits-popover-content-available-height)] w-72 overflow-auto p-2.5 text-[12.5px]"
			side="top"
			align="start"
			sideOffset={6}
			collisionPadding={8}
			aria-label="What is shown"
		>
			{#each groups as { list, title, things } (list)}
				{#if things.length}
					<h3 class="text-ink-2 mt-1.5 mb-0.5 text-[11.5px] font-semibold first:mt-0">{title}</h3>
					<ul>
						{#each things as { id, name, path } (id)}
							{@const isHidden = visibility.isHidden(list, id)}
							<li class="group hover:bg-wash flex items-center gap-1 rounded px-1 py-px">
								<button
									type="button"
									class={small}
									aria-pressed={!isHidden}
									aria-label="Show {name}"
									onclick={() => visibility.toggle(list, id)}
									>{#if isHidden}<EyeOff size={14} />{:else}<Eye size={14} class="text-ink-2" />{/if}</button
								>
								<span class={['min-w-0 grow truncate', isHidden && 'text-ink-3']}>{name}</span>
								<button
									type="button"
									class="text-ink-2 hover:text-patina-deep shrink-0 text-[11.5px] underline opacity-0 group-hover:opacity-100 focus-visible:opacity-100"
									aria-label="Show {name} alone"
									onclick={() =>
										visibility.alone(
											list,
											id,
											things.map((one) => one.id)
										)}>alone</button
								>
								{#if path}
									{@const isLocked = visibility.isLocked(path)}
									<button
										type="button"
										class={small}
										aria-pressed={isLocked}
										aria-label="Lock {name}"
										title={isLocked ? 'Locked: it cannot be chosen or changed' : 'Lock it'}
										onclick={() => visibility.lock(path)}
										>{#if isLocked}<Lock size={13} class="text-patina-deep" />{:else}<LockOpen
												size={13}
											/>{/if}</button
									>
								{/if}
							</li>
						{/each}
					</ul>
				{/if}
			{/each}
			<button
				type="button"
				class="plain-button mt-2 w-full"
				disabled={!hidden}
				onclick={() => visibility.showAll()}>Show everything</button
			>
		</Popover.Content>
	</Popover.Portal>
</Popover.Root>
