import { error } from '@sveltejs/kit';
import type { OpenedProject } from '$lib/protocol';
import { LiveModel } from '$lib/state/model.svelte';
import { OpenProject } from '$lib/state/project.svelte';
import type { LayoutLoad } from './$types';

export const ssr = false;

/** From the document to its page. */
const LONGEST_WAY_MS = 60_000;
const MOST_SLEEP_MS = 200;

export const load: LayoutLoad = async ({ fetch, params }) => {
	const asked = fetch(`/api/projects/${params.id}`);
	// While it is on its way, what was left of it here is looked up, and what it will be drawn on is set up.
	const left = OpenProject.lookUp(params.id);
	void import('$lib/model/spare-scene').then(({ setUpScene }) => setUpScene());
	const response = await asked;
	const body = (await response.json()) as OpenedProject & { message?: string };
	if (!response.ok) error(response.status, body.message ?? 'The project cannot be opened');
	performance.mark('document arrived');
	const project = await OpenProject.open(body as OpenedProject, await left);
	// Its thread computes while the page is still being put together.
	const model = new LiveModel(project.files, `${project.id} ${project.window}`);
	model.request(project.kept);
	await model.awake(MOST_SLEEP_MS);
	const close = () => {
		model.close();
		project.close();
	};
	// Whoever has gone elsewhere meanwhile never comes to the page that would close it.
	const gone = setTimeout(close, LONGEST_WAY_MS);
	return { project, model, arrived: () => clearTimeout(gone), close };
};
