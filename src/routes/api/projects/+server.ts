import { randomUUID } from 'node:crypto';
import { DOCUMENT_FORMAT, DOCUMENT_VERSION } from '$core/project/schema';
import { readProject, readProjectText } from '$core/project/read';
import { route } from '$lib/server/route';
import { json } from '@sveltejs/kit';
import { z } from 'zod';
import example from '../../../../demo/tidal-lido.json?raw';

export const GET = route({}, async ({ locals }) => json(await locals.projects.list()));

const body = z.union([
	z.strictObject({ name: z.string() }),
	z.strictObject({ example: z.literal(true) }),
	z.strictObject({ document: z.record(z.string(), z.unknown()) })
]);

/** A new project: an empty one of a given name, the example that ships, or from a project file. */
export const POST = route({ body }, async ({ body, locals }) => {
	const empty = { format: DOCUMENT_FORMAT, version: DOCUMENT_VERSION, id: randomUUID() };
	const document =
		'example' in body
			? { ...readProjectText(example), id: empty.id }
			: readProject('document' in body ? body.document : { ...empty, name: body.name });
	return json({ id: await locals.projects.create(document) }, { status: 201 });
});
