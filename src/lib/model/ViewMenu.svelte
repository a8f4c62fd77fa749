<script lang="ts">
	import { DropdownMenu } from 'bits-ui';
	import TextChip from '$lib/components/TextChip.svelte';
	import { below, insertAt, pathTo, removeAt } from '$core/project/typed-path';
	import { looks, type KeptView, type Look } from '$core/project/view-schema';
	import { freshId } from '$lib/edits/fresh-id';
	import { useDesk } from '$lib/state/desk.svelte';
	import { lookWords } from '$lib/state/look-words';
	import type { Pose } from './pose';

	/** How the model is drawn, and the views that were kept. */
	interface Props {
		pose: () => Pose;
		onchoose: (view: KeptView) => void;
		onpicture: (width: number) => void;
		onclip: (width: number) => void;
	}
	let { pose, onchoose, onpicture, onclip }: Props = $props();

	const desk = useDesk();
	const views = $derived(desk.project.document.views);
	const current = $derived(views.find(({ id }) => id === desk.keptView));
	const widths = [1920, 4000, 8000];
	const clipWidths = [1280, 1920];
	const round = (value: number) => Math.round(value * 10) / 10;

	function keep() {
		const { target, distance, turn, rise, flat } = pose();
		const degrees = (rad: number) => Math.round((rad * 18_000) / Math.PI) / 100;
		const name = `View ${views.length + 1}`;
		const id = freshId('view', views);
		const [x, y, z] = target.toArray().map((value) => round(value * 1000)) as [number, number, number];
		desk.do(
			`${name} kept`,
			insertAt(pathTo('views'), views.length, {
				id,
				name,
				lens: desk.lens,
				look: desk.look,
				section: desk.section,
				hidden: desk.visibility.hidden,
				target: [x, y, z],
				distance: round(distance * 1000),
				turn: degrees(turn),
				rise: degrees(rise),
				flat
			})
		);
		desk.keptView = id;
	}
	const item =
		'data-highlighted:bg-wash flex cursor-pointer items-baseline gap-3 rounded px-2 py-1.5 outline-none';
</script>

<DropdownMenu.Root>
	<DropdownMenu.Trigger
		class="bg-sheet border-hair text-ink-2 hover:border-ink-3 rounded-full border px-2.5 py-[3px] text-[12px]"
		>Look and views</DropdownMenu.Trigger
	>
	<DropdownMenu.Portal>
		<DropdownMenu.Content class="floating z-50 w-64 p-1 text-[13px]" align="start" side="top" sideOffset={6}>
			<DropdownMenu.RadioGroup value={desk.look} onValueChange={(look) => (desk.look = look as Look)}>
				{#each looks as look (look)}
					<DropdownMenu.RadioItem value={look} class={item}>
						{#snippet children({ checked })}
							<span class={checked ? 'text-patina font-semibold' : ''}>{lookWords[look].label}</span>
							<span class="text-ink-2 ml-auto text-[11.5px]">{lookWords[look].note}</span>
						{/snippet}
					</DropdownMenu.RadioItem>
				{/each}
			</DropdownMenu.RadioGroup>
			<DropdownMenu.Separator class="bg-hair my-1 h-px" />
			{#each views as view (view.id)}
				<DropdownMenu.Item class={item} onSelect={() => onchoose(view)}>
					<span class={desk.keptView === view.id ? 'text-patina font-semibold' : ''}>{view.name}</span>
				</DropdownMenu.Item>
			{:else}
				<p class="text-ink-2 px-2 py-1 text-[12px]">Keep how you look at it now, and come back to it.</p>
			{/each}
			<DropdownMenu.Item class={item} onSelect={keep}
				><span class="font-medium">Keep this view</span></DropdownMenu.Item
			>
			<DropdownMenu.Separator class="bg-hair my-1 h-px" />
			{#each widths as width (width)}
				<DropdownMenu.Item class={item} onSelect={() => onpicture(width)}>
					<span>Picture as PNG</span><span class="figures text-ink-2 ml-auto text-[11.5px]"
						>{width} px wide</span
					>
				</DropdownMenu.Item>
			{/each}
			<DropdownMenu.Separator class="bg-hair my-1 h-px" />
			{#each clipWidths as width (width)}
				<DropdownMenu.Item class={item} onSelect={() => onclip(width)}>
					<span>Full turn as MP4</span><span class="figures text-ink-2 ml-auto text-[11.5px]">{width} px</span
					>
				</DropdownMenu.Item>
			{/each}
		</DropdownMenu.Content>
	</DropdownMenu.Portal>
</DropdownMenu.Root>
{#if current}
	{@const path = below(pathTo('views'), current.id)}
	<span class="bg-sheet border-hair flex items-baseline gap-1 rounded-full border px-2.5 py-px">
		<TextChip
			value={current.name}
			label="Name of this view"
			look="name"
			oncommit={(name) => desk.set(below(path, 'name'), name, `${current.name} → ${name}`)}
		/>
		<button
			type="button"
			class="text-ink-2 text-[11.5px] underline"
			onclick={() => desk.do(`${current.name} removed`, removeAt(path))}>remove</button
		>
	</span>
{/if}
