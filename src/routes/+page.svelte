<script lang="ts">
	import { goto, invalidateAll } from '$app/navigation';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { arranged, orders, type Order } from '$lib/projects/order';
	import ProjectTile from '$lib/projects/ProjectTile.svelte';
	import { openExample, rename, send } from '$lib/projects/requests';
	import { AlertDialog, Dialog } from 'bits-ui';
	import { onMount } from 'svelte';
	import { toast } from 'svelte-sonner';
	import { warmUp } from '$lib/state/thread';

	let { data } = $props();
	// A project is opened from here: what computes it and what it is drawn on are there by then.
	onMount(() => {
		const idle = requestIdleCallback(() => {
			warmUp(true);
			void import('$lib/model/spare-scene').then(({ setUpScene }) => setUpScene());
		});
		return () => cancelIdleCallback(idle);
	});
	let naming = $state(false);
	let name = $state('');
	let doomed = $state<{ id: string; name: string } | null>(null);

	async function create() {
		if (!name.trim()) return;
		const made = await send('/api/projects', 'POST', { name });
		if (made) await goto(`/project/${made.id}`);
	}
	async function duplicate(id: string) {
		if (await send(`/api/projects/${id}/duplicate`, 'POST', {})) await invalidateAll();
	}
	async function remove() {
		const gone = doomed;
		doomed = null;
		if (!gone || !(await send(`/api/projects/${gone.id}`, 'DELETE'))) return;
		await invalidateAll();
		toast(`${gone.name} is deleted`, {
			action: {
				label: 'Bring it back',
				onClick: async () => {
					await send(`/api/projects/${gone.id}/restore`, 'POST');
					await invalidateAll();
				}
			}
		});
	}
	async function takeFile(event: Event & { currentTarget: HTMLInputElement }) {
		const file = event.currentTarget.files?.[0];
		event.currentTarget.value = '';
		if (!file) return;
		let document: unknown;
		try {
			document = JSON.parse(await file.text());
		} catch (error) {
			toast.error(`${file.name} is not a project file: ${(error as Error).message}`);
			return;
		}
		const made = await send('/api/projects', 'POST', { document });
		if (made) await goto(`/project/${made.id}`);
	}
	let text = $state('');
	let order = $state<Order>('changed');
	const shown = $derived(arranged(data.projects, text, order));
	async function nameAnew(id: string, name: string) {
		if (await rename(id, name)) await invalidateAll();
	}
	async function example() {
		const id = await openExample();
		if (id) await goto(`/project/${id}`);
	}
</script>

<svelte:head><title>Projects · Zygaster</title></svelte:head>

<div class="h-screen overflow-auto">
	<header
		class="border-hair bg-sheet flex h-[46px] items-center gap-2 border-b px-5 text-[14.5px] font-semibold"
	>
		<img src="/mark.svg" alt="" class="size-5" />Zygaster
	</header>
	<main class="mx-auto max-w-5xl px-6 py-10">
		<div class="mb-7 flex items-end gap-3">
			<div class="mr-auto">
				<h1 class="text-[30px] leading-tight" style:font-family="var(--font-serif)">Projects</h1>
				<p class="sentence text-ink-2">From the mass to the schedule, in one live model.</p>
			</div>
			<label class="plain-button focus-within:outline-patina cursor-pointer focus-within:outline-2"
				>Open a project file<input
					type="file"
					accept=".json,application/json"
					class="sr-only"
					onchange={takeFile}
				/></label
			>
			<button type="button" class="main-button" onclick={() => ((name = ''), (naming = true))}
				>New project</button
			>
		</div>
		{#if data.projects.length}
			<div class="mb-4 flex items-baseline gap-4">
				<input
					type="search"
					class="border-hair w-72 rounded border bg-white px-2.5 py-1.5 text-[13.5px]"
					placeholder="Search by name"
					aria-label="Search projects"
					bind:value={text}
				/>
				<span class="text-ink-2"
					>by <ChoiceChip
						value={order}
						options={orders}
						label="Sorted by"
						onchoose={(next) => (order = next)}
					/></span
				>
				<span class="figures text-ink-2 ml-auto text-[12px]" role="status"
					>{shown.length === data.projects.length
						? `${shown.length} ${shown.length === 1 ? 'project' : 'projects'}`
						: `${shown.length} of ${data.projects.length}`}</span
				>
			</div>
			<ul class="grid grid-cols-[repeat(auto-fill,minmax(290px,1fr))] gap-5">
				{#each shown as project (project.id)}
					<ProjectTile
						{project}
						onrename={(next) => nameAnew(project.id, next)}
						onduplicate={() => duplicate(project.id)}
						ondelete={() => (doomed = project)}
					/>
				{/each}
			</ul>
			{#if !shown.length}
				<p class="sentence text-ink-2 py-10 text-center">
					No project is called that. <button
						type="button"
						class="text-patina-deep underline"
						onclick={() => (text = '')}>Show all</button
					>
				</p>
			{/if}
		{:else}
			<p class="sentence border-hair text-ink-2 rounded-md border border-dashed px-6 py-14 text-center">
				No projects. Start a new one, open a project file, or
				<button type="button" class="text-patina-deep underline" onclick={example}
					>look at a finished example</button
				>.
			</p>
		{/if}
	</main>
</div>

<Dialog.Root bind:open={naming}>
	<Dialog.Portal>
		<Dialog.Overlay class="bg-ink/25 fixed inset-0 z-40" />
		<Dialog.Content class="floating fixed top-1/3 left-1/2 z-50 w-96 -translate-x-1/2 p-5">
			<Dialog.Title class="text-[15px] font-semibold">New project</Dialog.Title>
			<form
				class="mt-3"
				onsubmit={(event) => {
					event.preventDefault();
					void create();
				}}
			>
				<label class="text-ink-2 block text-[12px]" for="project-name">Name</label>
				<input
					id="project-name"
					class="border-hair mt-1 w-full rounded border bg-white px-2.5 py-1.5 text-[14px]"
					bind:value={name}
					maxlength="120"
				/>
				<div class="mt-4 flex justify-end gap-2">
					<Dialog.Close class="plain-button">Cancel</Dialog.Close>
					<button type="submit" class="main-button disabled:opacity-40" disabled={!name.trim()}>Create</button
					>
				</div>
			</form>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>

<AlertDialog.Root open={doomed !== null} onOpenChange={(open) => !open && (doomed = null)}>
	<AlertDialog.Portal>
		<AlertDialog.Overlay class="bg-ink/25 fixed inset-0 z-40" />
		<AlertDialog.Content class="floating fixed top-1/3 left-1/2 z-50 w-96 -translate-x-1/2 p-5">
			<AlertDialog.Title class="text-[15px] font-semibold">Delete {doomed?.name}?</AlertDialog.Title>
			<AlertDialog.Description class="text-ink-2 mt-2"
				>It disappears from this list. Until you leave the page you can bring it back.</AlertDialog.Description
			>
			<div class="mt-4 flex justify-end gap-2">
				<AlertDialog.Cancel class="plain-button">Keep it</AlertDialog.Cancel>
				<button type="button" class="main-button bg-oxide!" onclick={remove}>Delete</button>
			</div>
		</AlertDialog.Content>
	</AlertDialog.Portal>
</AlertDialog.Root>
