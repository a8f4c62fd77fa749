import { paperKinds } from '$lib/protocol';
import { projectParams, revisionText, route } from '$lib/server/route';
import { z } from 'zod';

const params = projectParams.extend({
	number: revisionText,
	kind: z.enum(paperKinds.map(({ kind }) => kind))
});

/** The drawings or the schedules of a release, as they were written when it was made. */
export const GET = route({ params }, async ({ params: { id, number, kind }, locals }) => {
	const { type, ending } = paperKinds.find((one) => one.kind === kind)!;
	const content = await locals.papers.content(id, number, kind);
	return new Response(new Uint8Array(content), {
		headers: {
			'content-type': type,
			'content-disposition': `attachment; filename="release-${number}-${kind}${ending}"`
		}
	});
});
