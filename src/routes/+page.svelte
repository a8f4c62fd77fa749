<script lang="ts">
	import { goto, invalidateAll } from '$app/navigation';
	import { OWN_HEADER } from '$lib/saving/line';
	import { formatNumber } from '$core/units/quantity';
	import Copy from '@lucide/svelte/icons/copy';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import { AlertDialog, Dialog } from 'bits-ui';
	import { onMount } from 'svelte';
	import { toast } from 'svelte-sonner';
	import { warmUp } from '$lib/state/thread';

	let { data } = $props();
	// A project is opened from here: what computes it is there by then.
	onMount(() => {
		const idle = requestIdleCallback(() => warmUp(true));
		return () => cancelIdleCallback(idle);
	});
	let naming = $state(false);
	let name = $state('');
	let doomed = $state<{ id: string; name: string } | null>(null);

	async function send(url: string, method: string, body?: unknown): Promise<{ id?: string } | null> {
		const response = await fetch(url, {
			method,
			headers: { 'content-type': 'application/json', ...OWN_HEADER },
			...(body !== undefined && { body: JSON.stringify(body) })
		}).catch(() => null);
		if (!response) {
			toast.error('The server does not answer; nothing was changed');
			return null;
		}
		const answer =
			response.status === 204
				? {}
				: ((await response.json().catch(() => ({}))) as { id?: string; message?: string });
		if (response.ok) return answer;
		toast.error(('message' in answer && answer.message) || 'The server refused this');
		return null;
	}
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
	const when = new Intl.DateTimeFormat('en-GB', {
		day: 'numeric',
		month: 'short',
		year: 'numeric',
		hour: '2-digit',
		minute: '2-digit'
	});
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
			<ul class="grid grid-cols-[repeat(auto-fill,minmax(290px,1fr))] gap-5">
				{#each data.projects as project (project.id)}
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
										class="size-full object-contain"
									/>
								{:else}<span class="text-ink-3 text-[12px]">no picture yet</span>{/if}
							</div>
							<div class="px-4 py-3">
								<h2 class="truncate pr-14 text-[15px] font-semibold">{project.name}</h2>
								<p class="figures text-ink-2 mt-0.5 text-[11.5px]">
									{formatNumber(project.pieces)} pieces · {when.format(new Date(project.changedAt))}
								</p>
							</div>
						</a>
						<div class="absolute right-3 bottom-7 flex gap-0.5">
							<button
								type="button"
								class="text-ink-2 hover:bg-wash rounded p-1.5"
								aria-label="Duplicate {project.name}"
								title="Duplicate"
								onclick={() => duplicate(project.id)}><Copy size={15} /></button
							>
							<button
								type="button"
								class="text-ink-2 hover:bg-oxide-wash hover:text-oxide rounded p-1.5"
								aria-label="Delete {project.name}"
								title="Delete"
								onclick={() => (doomed = project)}><Trash2 size={15} /></button
							>
						</div>
					</li>
				{/each}
			</ul>
		{:else}
			<p class="sentence border-hair text-ink-2 rounded-md border border-dashed px-6 py-14 text-center">
				No projects. Start a new one, or open a project file.
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
