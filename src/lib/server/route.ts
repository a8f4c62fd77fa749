import { DocumentError, CommandError, faultsOf, MOST_FAULTS_TOLD } from '$core/project/faults';
import { json, type RequestEvent } from '@sveltejs/kit';
import { z } from 'zod';
import type { CodedError } from '$core/units/coded-error';
import { isPassing } from './database';
import { NotFound, OutOfStep, Refused } from './refusals';
import { checkJson } from './strict-json';

/** What a route is asked, each part checked by its schema before the work begins. */
interface Asked<Params, Query, Body> {
	readonly params: Params;
	readonly query: Query;
	readonly body: Body;
	readonly locals: App.Locals;
}

interface Shapes<Params, Query, Body> {
	readonly params?: z.ZodType<Params>;
	readonly query?: z.ZodType<Query>;
	/** JSON. */
	readonly body?: z.ZodType<Body>;
}

/** A revision of a project, from the text of an address. */
export const revisionText = z
	.string()
	.regex(/^\d{1,10}$/, 'a whole number is wanted')
	.transform(Number)
	.pipe(z.number().max(2_147_483_647, 'so many revisions there are not'));

/** The id of a project in an address; any other text names no project. */
export const projectParams = z.object({ id: z.uuid() });

const MOST_MESSAGE = 10_000;
const RETRY_SECONDS = 2;

function told(
	status: number,
	{ code, message }: Pick<CodedError, 'code' | 'message'>,
	headers: Record<string, string> = {}
): Response {
	const short = message.length > MOST_MESSAGE ? `${message.slice(0, MOST_MESSAGE)} …` : message;
	return json({ code, message: short }, { status, headers });
}

function read<T>(schema: z.ZodType<T> | undefined, value: unknown, status: number): T {
	if (!schema) return undefined as T;
	const result = schema.safeParse(value);
	if (result.success) return result.data;
	const faults = faultsOf(result.error.issues, []).slice(0, MOST_FAULTS_TOLD);
	throw new Refused(status, `the request cannot be read: ${faults.join('; ')}`);
}

async function readBody(request: Request): Promise<unknown> {
	let text: string;
	try {
		text = await request.text();
	} catch (error) {
		if ((error as { status?: unknown }).status === 413)
			throw new Refused(413, 'the request is larger than the server takes');
		throw new Refused(400, 'the request did not arrive whole');
	}
	let value: unknown;
	try {
		value = JSON.parse(text);
	} catch (error) {
		throw new Refused(400, `the request is not JSON: ${(error as Error).message.slice(0, 200)}`);
	}
	const fault = checkJson(value);
	if (fault) throw new Refused(400, `the request cannot be taken: ${fault}`);
	return value;
}

/**
 * A server route: its address, query and body are checked, its refusals become answers in a sentence each, and what
 * the database cannot do for the moment becomes a 503 that says when to ask again.
 */
export function route<Params, Query, Body>(
	shapes: Shapes<Params, Query, Body>,
	act: (asked: Asked<Params, Query, Body>) => Promise<Response>
) {
	return async ({ params, url, request, locals }: RequestEvent): Promise<Response> => {
		try {
			return await act({
				params: read(shapes.params, params, 404),
				query: read(shapes.query, Object.fromEntries(url.searchParams), 400),
				body: read(shapes.body, shapes.body && (await readBody(request)), 400),
				locals
			});
		} catch (error) {
			return refusal(error);
		}
	};
}

function refusal(error: unknown): Response {
	if (error instanceof NotFound) return told(404, error);
	if (error instanceof OutOfStep) return told(409, error);
	if (error instanceof Refused) return told(error.status, error);
	if (error instanceof CommandError || error instanceof DocumentError) return told(422, error);
	if (isPassing(error))
		return told(
			503,
			{ code: 'database', message: 'the database does not answer for the moment' },
			{ 'retry-after': `${RETRY_SECONDS}` }
		);
	throw error;
}
