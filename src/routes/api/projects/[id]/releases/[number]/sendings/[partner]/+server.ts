import { partners } from '$lib/protocol';
import { projectParams, revisionText, route } from '$lib/server/route';
import { json } from '@sveltejs/kit';
import { z } from 'zod';

const params = projectParams.extend({
	number: revisionText,
	partner: z.enum(partners.map(({ id }) => id))
});

/** What a partner says of the pieces of a release. */
export const GET = route({ params }, async ({ params: { id, number, partner }, locals }) =>
	json(await locals.sendings.answers(id, number, partner))
);

/** Send a release to a partner; it goes once. */
export const POST = route({ params }, async ({ params: { id, number, partner }, locals }) => {
	await locals.sendings.send(id, number, partner);
	locals.outbox.wake();
	return json({}, { status: 201 });
});

/** Stop it on its way, or let it go on, at once. */
export const PATCH = route(
	{ params, body: z.strictObject({ goesOn: z.boolean() }) },
	async ({ params: { id, number, partner }, body, locals }) => {
		await locals.sendings.goOn(id, number, partner, body.goesOn);
		locals.outbox.wake();
		return json({});
	}
);
