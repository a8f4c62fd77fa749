<script lang="ts">
	import { Dialog } from 'bits-ui';
	import { toast } from 'svelte-sonner';
	import type { SetAside } from '$lib/saving/session';
	import { useDesk } from '$lib/state/desk.svelte';
	import { fileStem, saveFile } from '$lib/components/save-file';

	const { project } = useDesk();
	let open = $state(false);
	const words = $derived.by(() => {
		const { is } = project.saveState;
		if (is === 'saved') return 'saved';
		if (is === 'saving') return 'saving …';
		if (!project.unsaved) return 'everything saved; the server is away';
		// What the browser does not keep is lost with the window; mostly it is a moment away from being kept.
		return `${project.unsaved} not saved yet${project.areKept ? ', kept here' : ' …'}`;
	});
	const colour = { saved: 'text-patina-deep', saving: 'text-ink-2', waiting: 'text-oxide' } as const;

	function takeUp(aside: SetAside) {
		try {
			project.takeUp(aside);
		} catch (error) {
			toast.error(error instanceof Error ? error.message : String(error));
		}
	}
	function download() {
		const content = JSON.stringify(project.aside, null, 2);
		saveFile(`${fileStem(project.document.name)}-set-aside.json`, content, 'application/json');
	}
</script>

<a
	class="text-[12px] {colour[project.saveState.is]} hover:underline"
	href="/project/{project.id}/history"
	title={project.saveState.is === 'waiting'
		? `${project.saveState.why}; tried again by itself`
		: 'Everything is saved as it is typed. See the history'}
	><span role="status" data-testid="save-state">{words}</span></a
>
{#if project.aside.length}
	<Dialog.Root bind:open>
		<Dialog.Trigger
			class="text-oxide-deep bg-oxide-wash rounded px-1.5 py-0.5 text-[12px] font-semibold whitespace-nowrap"
			>{project.aside.length} set aside</Dialog.Trigger
		>
		<Dialog.Portal>
			<Dialog.Overlay class="bg-ink/25 fixed inset-0 z-40" />
			<Dialog.Content
				class="floating fixed top-24 left-1/2 z-50 flex max-h-[70vh] w-[560px] -translate-x-1/2 flex-col p-5"
				data-testid="aside"
			>
				<Dialog.Title class="text-[15px] font-semibold">Changes set aside</Dialog.Title>
				<Dialog.Description class="text-ink-2 mt-1"
					>The server could not carry these out. They are kept in this browser until you drop them; everything
					else went on.</Dialog.Description
				>
				<ul class="border-hair mt-3 divide-y divide-[var(--color-hair)] overflow-auto border-y">
					{#each project.aside as aside (aside.id)}
						<li class="flex items-start gap-3 py-2.5">
							<div class="min-w-0 flex-1">
								<p class="font-semibold break-words">{aside.label}</p>
								<p class="sentence text-oxide-deep text-[14px]! break-words">{aside.reason}</p>
							</div>
							<button
								type="button"
								class="plain-button"
								disabled={!aside.edits.length}
								onclick={() => takeUp(aside)}>Try again</button
							>
							<button type="button" class="plain-button" onclick={() => project.dropAside(aside)}>Drop</button
							>
						</li>
					{/each}
				</ul>
				<div class="mt-4 flex justify-end gap-2">
					<button type="button" class="plain-button" onclick={download}>Download them</button>
					<Dialog.Close class="main-button">Close</Dialog.Close>
				</div>
			</Dialog.Content>
		</Dialog.Portal>
	</Dialog.Root>
{/if}
