<script lang="ts">
	import { onMount, untrack, type Snippet } from 'svelte';
	import { toast } from 'svelte-sonner';
	import { OWN_HEADER } from '$lib/saving/line';
	import type { LiveModel } from '$lib/state/model.svelte';
	import type { OpenProject } from '$lib/state/project.svelte';
	import FindDialog from './FindDialog.svelte';
	import KeysDialog from './KeysDialog.svelte';
	import { listenToKeys } from './keys';
	import { Desk, provideDesk } from '$lib/state/desk.svelte';

	interface Props {
		data: {
			readonly project: OpenProject;
			readonly model: LiveModel;
			/** It is shown, and closed from here. */
			arrived(): void;
			close(): void;
		};
		children: Snippet;
	}
	let { data, children }: Props = $props();
	// One desk for as long as the project is open; its pages share it.
	// svelte-ignore state_referenced_locally
	const desk = provideDesk(new Desk(data.project, data.model));
	const PICTURE_DELAY_MS = 1500;
	/** The rest of the page does not wait longer for the model than this (ms). */
	const LONGEST_WAIT_MS = 700;
	let pictureTimer: ReturnType<typeof setTimeout> | undefined;

	onMount(() =>
		listenToKeys({
			undo: (which) => (which === 0 ? desk.project.undo() : desk.project.redo()),
			find: () => (desk.finding = true),
			list: () => (desk.keysShown = true)
		})
	);
	onMount(() => {
		const waited = setTimeout(() => (desk.begun = true), LONGEST_WAIT_MS);
		return () => clearTimeout(waited);
	});
	onMount(() => {
		const { arrived, close } = data;
		arrived();
		return () => {
			clearTimeout(pictureTimer);
			// What is said of this project would lie over the next one.
			toast.dismiss();
			close();
		};
	});
	$effect(() => {
		// A file that has come makes the document whole, and is computed.
		void desk.project.document;
		desk.model.request(desk.project.kept, desk.project.previewing);
	});
	$effect(() => {
		for (const notice of desk.project.notices) toast(notice, { duration: 8000 });
		if (desk.project.notices.length) desk.project.notices = [];
	});
	/** What partners have said is known once the model has been seen. */
	$effect(() => {
		if (desk.begun) untrack(() => void desk.partners.load());
	});
	/** What pieces are called, where the project says so: known of every model that stands. */
	$effect(() => {
		const { cell, line, node, frozen } = desk.project.document.marks;
		void desk.model.runs;
		if (!cell && !line && !node && !frozen) desk.marks.arrived(null);
		else if (!desk.model.behind && !desk.model.view.partial)
			void desk.model.service
				.marks()
				.then((marks) => desk.marks.arrived(marks))
				// Another model is being made: its marks are asked for when it stands.
				.catch(() => null);
	});
	/** Keep the project list's picture and count up, once things have come to rest. */
	$effect(() => {
		clearTimeout(pictureTimer);
		if (desk.model.behind || desk.project.saveState.is !== 'saved') return;
		void desk.model.runs;
		pictureTimer = setTimeout(async () => {
			const picture = await desk.model.service.picture().catch(() => null);
			if (!picture) return;
			await fetch(`/api/projects/${desk.project.id}/picture`, {
				method: 'PUT',
				headers: { 'content-type': 'application/json', ...OWN_HEADER },
				body: JSON.stringify(picture)
			}).catch(() => null);
		}, PICTURE_DELAY_MS);
	});
</script>

{@render children()}
{#if desk.begun}
	<FindDialog bind:open={desk.finding} />
	<KeysDialog bind:open={desk.keysShown} />
{/if}
