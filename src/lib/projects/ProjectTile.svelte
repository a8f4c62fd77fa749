<script lang="ts">
	import Copy from '@lucide/svelte/icons/copy';
	import Pencil from '@lucide/svelte/icons/pencil';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import { tick } from 'svelte';
	import type { ProjectCard } from '$lib/protocol';
	import { counted } from '$core/units/counted';

	interface Props {
		project: ProjectCard;
		onrename: (name: string) => void;
		onduplicate: () => void;
		ondelete: () => void;
	}
	let { project, onrename, onduplicate, ondelete }: Props = $props();
	const MOST_NAME = 120;
	const when = new Intl.DateTimeFormat('en-GB', {
		day: 'numeric',
		month: 'short',
		year: 'numeric',
		hour: '2-digit',
		minute: '2-digit'
	});
	let naming = $state(false);
	let name = $state('');
	let input = $state<HTMLInputElement>();
	async function begin() {
		name = project.name;
		naming = true;
		await tick();
		input?.select();
	}
	const acts = $derived([
		{ Icon: Pencil, says: 'Rename', act: begin, warns: false },
		{ Icon: Copy, says: 'Duplicate', act: onduplicate, warns: false },
		{ Icon: Trash2, says: 'Delete', act: ondelete, warns: true }
	]);
	function end() {
		if (!naming) return;
		naming = false;
		const next = name.trim();
		if (next && next !== project.name) onrename(next);
	}
</script>

<li
	class="group border-hair bg-sheet hover:border-patina relative overflow-hidden rounded-md border transition-colors"
>
	<a href="/project/{project.id}" class="block" data-sveltekit-preload-data="off">
		<div
			class="border-hair grid aspect-8/5 place-items-center border-b bg-[radial-gradient(120%_90%_at_50%_20%,#FBF9F3_0,#EFEADD_100%)]"
		>
			{#if project.hasPicture}
				<img
					src="/api/projects/{project.id}/picture?{encodeURIComponent(project.changedAt)}"
					alt=""
					loading="lazy"
					decoding="async"
					class="size-full object-contain"
				/>
			{:else}<span class="text-ink-2 text-[12px]">no picture yet</span>{/if}
		</div>
		<div class="px-4 py-3">
			<h2 class="truncate pr-20 text-[15px] font-semibold" class:invisible={naming}>{project.name}</h2>
			<p class="figures text-ink-2 mt-0.5 text-[11.5px]">
				{counted(project.pieces, 'piece')} · {when.format(new Date(project.changedAt))}
			</p>
		</div>
	</a>
	{#if naming}
		<input
			bind:this={input}
			bind:value={name}
			class="border-patina absolute bottom-[33px] left-3 w-[calc(100%-7rem)] rounded border bg-white px-1 text-[15px] font-semibold"
			aria-label="Name of {project.name}"
			maxlength={MOST_NAME}
			onblur={end}
			onkeydown={(event) => {
				if (event.key === 'Enter') end();
				else if (event.key === 'Escape') naming = false;
			}}
		/>
	{/if}
	<div class="absolute right-3 bottom-7 flex gap-0.5">
		{#each acts as { Icon, says, act, warns } (says)}
			<button
				type="button"
				class={['text-ink-2 rounded p-1.5', warns ? 'hover:bg-oxide-wash hover:text-oxide' : 'hover:bg-wash']}
				aria-label="{says} {project.name}"
				title={says}
				onclick={act}><Icon size={15} /></button
			>
		{/each}
	</div>
</li>
