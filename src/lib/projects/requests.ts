import { toast } from 'svelte-sonner';
import type { OpenedProject } from '$lib/protocol';
import { pathTo, setAt } from '$core/project/typed-path';
import { OWN_HEADER } from '$lib/saving/line';

/** Ask the server for something of the list of projects; what it refuses is said. @returns null when it did not */
export async function send(
	url: string,
	method: string,
	body?: unknown
): Promise<{ readonly id?: string } | null> {
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

/** The example that ships, as a new project. @returns its id */
export async function openExample(): Promise<string | undefined> {
	return (await send('/api/projects', 'POST', { example: true }))?.id;
}

/** Give a project another name: a command like any other, so that it can be taken back there. */
export async function rename(id: string, name: string): Promise<boolean> {
	const response = await fetch(`/api/projects/${id}`).catch(() => null);
	if (!response?.ok) {
		toast.error('The project does not answer; its name was not changed');
		return false;
	}
	const { epoch, revision } = (await response.json()) as OpenedProject;
	const command = {
		kind: 'do',
		id: crypto.randomUUID(),
		window: crypto.randomUUID(),
		label: `project name ${name}`,
		edits: [setAt(pathTo('name'), name)]
	};
	return (
		(await send(`/api/projects/${id}/edits`, 'POST', { epoch, base: revision, commands: [command] })) !== null
	);
}
