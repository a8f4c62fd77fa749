import { error } from '@sveltejs/kit';
import type { OpenedProject } from '$lib/protocol';
import { LiveModel } from '$lib/state/model.svelte';
import { OpenProject } from '$lib/state/project.svelte';
import { warmUp } from '$lib/state/thread';
import type { LayoutLoad } from './$types';

export const ssr = false;

export const load: LayoutLoad = async ({ fetch, params }) => {
	warmUp();
	const response = await fetch(`/api/projects/${params.id}`);
	const body = (await response.json()) as OpenedProject & { message?: string };
	if (!response.ok) error(response.status, body.message ?? 'The project cannot be opened');
	const project = await OpenProject.open(body as OpenedProject);
	// Its thread computes while the page is still being put together.
	const model = new LiveModel(project.files, `${project.id} ${project.window}`);
	model.request(project.kept);
	return { project, model };
};
