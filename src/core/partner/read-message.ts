import type { z } from 'zod';
import { faultsOf } from '../project/faults';
import { CodedError } from '../units/coded-error';
import { answerSchema, newsSchema, type Batch, type News, type PieceAnswer } from './message-schema';

/**
 * A message of a partner that says nothing that can be taken: in a sentence what is wrong with it.
 *
 * ```ts
 * if (error instanceof MessageError) tell(error.message); // the answer is not JSON
 * ```
 */
export class MessageError extends CodedError {
	readonly code = 'partner.message';
}

/** Letters of what cannot be read that are told. */
const TOLD = 60;

function read<T>(schema: z.ZodType<T>, text: string, what: string): T {
	let value: unknown;
	try {
		value = JSON.parse(text);
	} catch {
		const begin = text.trim().slice(0, TOLD);
		throw new MessageError(`the ${what} is not JSON${begin ? `; it begins with “${begin}”` : ', but empty'}`);
	}
	const { success, data, error } = schema.safeParse(value);
	if (!success) throw new MessageError(`the ${what} cannot be read: ${faultsOf(error.issues, [])[0]}`);
	return data;
}

const nameOf = ({ list, address }: Pick<PieceAnswer, 'list' | 'address'>) => `${list} ${address}`;

/**
 * Read what a partner says to a batch. It has to be about this batch and about every piece of it; the same said twice
 * is taken once.
 *
 * ```ts
 * const answers = readAnswer(text, { release: 1, batch: 1, pieces: [] });
 * const refused = answers.filter(({ is }) => is === 'refused');
 * ```
 * @returns one for every piece, in the order of the batch
 * @throws MessageError
 */
export function readAnswer(
	text: string,
	{ release, batch, pieces }: Pick<Batch, 'release' | 'batch' | 'pieces'>
): PieceAnswer[] {
	const answer = read(answerSchema, text, 'answer');
	if (answer.release !== release || answer.batch !== batch)
		throw new MessageError(
			`the answer is to batch ${answer.batch} of release ${answer.release}, not to batch ${batch} of release ${release}`
		);
	const sent = new Set(pieces.map(nameOf));
	const said = new Map<string, PieceAnswer>();
	for (const one of answer.pieces) {
		const name = nameOf(one);
		if (!sent.has(name)) throw new MessageError(`it answers for ${name}, which was not sent with it`);
		const before = said.get(name);
		if (before && (before.is !== one.is || before.lead_days !== one.lead_days))
			throw new MessageError(`it says two things of ${name}: ${before.is} and ${one.is}`);
		said.set(name, one);
	}
	const without = pieces.filter((piece) => !said.has(nameOf(piece)));
	if (without.length)
		throw new MessageError(
			`${without.length} of ${pieces.length} pieces are without an answer; the first is ${nameOf(without[0]!)}`
		);
	return pieces.map((piece) => said.get(nameOf(piece))!);
}

/**
 * Read what has become of pieces.
 *
 * ```ts
 * const { next } = readNews(text); // the place to ask from the next time
 * ```
 * @throws MessageError
 */
export function readNews(text: string): News {
	return read(newsSchema, text, 'news');
}
