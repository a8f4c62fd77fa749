<script lang="ts">
	/** The kinds of steps, chosen from pictures in groups, or by words. */
	import Plus from '@lucide/svelte/icons/plus';
	import FoundList from '$lib/components/FoundList.svelte';
	import { Command, Popover } from 'bits-ui';
	import { loadSolids } from '$core/geometry/solid/library';
	import type { AnyStep } from '$core/project/part-definition';
	import SmallPicture from '$lib/components/SmallPicture.svelte';
	import { stepGroups, stepLines } from './step-groups';
	import { stepPicture } from './step-pictures';

	interface Props {
		/** What the button says. */
		say: string;
		label?: string;
		onchoose: (kind: AnyStep['do']) => void;
	}
	let { say, label, onchoose }: Props = $props();
	let open = $state(false);
	let text = $state('');
	/** Blocks are drawn by a library that is fetched for them. */
	let solids = $state(false);
	$effect(() => {
		if (open)
			void loadSolids().then(
				() => (solids = true),
				() => undefined
			);
	});
	const groups = $derived.by(() => {
		const words = text.toLowerCase().split(/\s+/).filter(Boolean);
		const has = (kind: AnyStep['do']) =>
			words.every((word) => `${kind} ${stepLines[kind]}`.toLowerCase().includes(word));
		return stepGroups
			.map((group) => ({ ...group, steps: group.steps.filter(has) }))
			.filter(({ steps }) => steps.length);
	});
	/** Each picture is drawn when its turn comes, so that the list is there at once. */
	let drawn = $state(0);
	const kinds = stepGroups.flatMap(({ steps }) => steps);
	$effect(() => {
		if (!open || drawn >= kinds.length) return;
		const next = setTimeout(() => (drawn += 4));
		return () => clearTimeout(next);
	});
	const pictureOf = (kind: AnyStep['do']) =>
		kinds.indexOf(kind) < drawn && (solids || !kind.includes('block')) ? stepPicture(kind) : null;
	function take(kind: AnyStep['do']) {
		open = false;
		text = '';
		onchoose(kind);
	}
</script>

<Popover.Root bind:open>
	<Popover.Trigger
		class="text-ink-2 hover:text-patina-deep ml-11 flex items-center gap-1 py-1 text-[12px]"
		aria-label={label}><Plus size={13} />{say}</Popover.Trigger
	>
	<Popover.Portal>
		<Popover.Content
			class="floating z-50 w-[560px] max-w-[94vw] overflow-hidden"
			side="right"
			align="end"
			collisionPadding={8}
			aria-label="Kinds of steps"
		>
			<Command.Root shouldFilter={false} columns={3} label="Search kinds of steps">
				<Command.Input
					class="border-hair w-full border-b bg-white px-3 py-2 text-[13.5px] outline-none"
					placeholder="What it is to make: ring, frame, along, ball …"
					bind:value={text}
				/>
				<FoundList
					label="Kinds of steps"
					height="min(520px, calc(var(--bits-popover-content-available-height) - 48px))"
				>
					{#each groups as group (group.label)}
						<Command.Group value={group.label}>
							<Command.GroupHeading class="text-ink-2 px-1.5 pt-1.5 pb-1 text-[11.5px] font-semibold"
								>{group.label}</Command.GroupHeading
							>
							<Command.GroupItems class="grid grid-cols-3 gap-1">
								{#each group.steps as kind (kind)}
									{@const picture = pictureOf(kind)}
									<Command.Item
										value={kind}
										aria-label={kind}
										class="data-selected:bg-wash cursor-pointer rounded p-1"
										onSelect={() => take(kind)}
									>
										<span class="bg-paper mb-1 block h-[58px] rounded-sm"
											>{#if picture}<SmallPicture of={picture} />{/if}</span
										>
										<span class="block text-[12.5px] leading-tight font-medium">{kind}</span>
										<span class="text-ink-2 block text-[11px] leading-tight">{stepLines[kind]}</span>
									</Command.Item>
								{/each}
							</Command.GroupItems>
						</Command.Group>
					{/each}

					{#snippet below()}{#if !groups.length}<p class="text-ink-2 px-2 py-3">
								No step is called that.
							</p>{/if}{/snippet}</FoundList
				>
			</Command.Root>
		</Popover.Content>
	</Popover.Portal>
</Popover.Root>
