import { DOCUMENT_FORMAT, DOCUMENT_VERSION } from '$core/project/schema';
import { readProject } from '$core/project/read';
import { answer } from '$lib/server/answer';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals }) => answer(async () => json(await locals.projects.list()));

/** A new project: an empty one of a given name, or from a project file. */
export const POST: RequestHandler = ({ locals, request }) =>
	answer(async () => {
		const body = (await request.json()) as { name?: unknown; document?: unknown };
		const empty = { format: DOCUMENT_FORMAT, version: DOCUMENT_VERSION, name: body.name };
		const document = readProject(body.document ?? empty);
		return json({ id: await locals.projects.create(document) }, { status: 201 });
	});
