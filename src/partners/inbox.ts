import { createHash } from 'node:crypto';
import {
	answerSchema,
	batchSchema,
	type Answer,
	type Batch,
	type BatchPiece
} from '$core/partner/message-schema';
import { faultsOf } from '$core/project/faults';
import { Ledger } from './ledger';

/** A message that was taken, under the key it came with. */
export interface Taken {
	readonly key: string;
	/** SHA-256 of its text. */
	readonly hash: string;
	readonly batch: Batch;
	readonly answer: Answer;
}

/** Why a message is not taken. @param status of HTTP */
export class NotTaken extends Error {
	constructor(
		readonly status: number,
		message: string
	) {
		super(message);
	}
}

/** What a partner says to a piece. @param before pieces that it has taken so far */
export type Judge = (piece: BatchPiece, before: number) => Omit<Answer['pieces'][number], 'list' | 'address'>;

/** What came in: whatever comes again under its key is answered as before, and nothing is done twice. */
export class Inbox {
	private readonly ledger: Ledger<Taken>;
	private readonly known = new Map<string, Taken>();
	private count = 0;

	/** @param path of its ledger; null to forget everything at the end */
	constructor(
		path: string | null,
		private readonly judge: Judge
	) {
		this.ledger = new Ledger(path);
		for (const taken of this.ledger.entries) this.note(taken);
	}

	private note(taken: Taken): void {
		this.known.set(taken.key, taken);
		this.count += taken.batch.pieces.length;
	}

	/** All messages, in the order they came in. */
	get all(): readonly Taken[] {
		return this.ledger.entries;
	}

	/** Pieces that were taken. */
	get pieces(): number {
		return this.count;
	}

	/** Whether something came under this key before. */
	has(key: string): boolean {
		return this.known.has(key);
	}

	/** Take a message. @throws NotTaken where it has no key, cannot be read, or its key came with another message */
	take(key: string | undefined, text: string): Taken {
		if (!key || key.length > 100)
			throw new NotTaken(400, 'a message needs an idempotency-key of 1 to 100 letters');
		const hash = createHash('sha256').update(text).digest('hex');
		const before = this.known.get(key);
		if (before) {
			if (before.hash !== hash) throw new NotTaken(409, `the key ${key} came with another message before`);
			return before;
		}
		const batch = readBatch(text);
		const { release, batch: number } = batch;
		const pieces = batch.pieces.map((piece, k) => ({
			list: piece.list,
			address: piece.address,
			...this.judge(piece, this.count + k)
		}));
		const answer = answerSchema.parse({
			format: 'zygaster answer',
			version: 1,
			release,
			batch: number,
			pieces
		});
		const taken = { key, hash, batch, answer };
		this.ledger.add(taken);
		this.note(taken);
		return taken;
	}
}

function readBatch(text: string): Batch {
	let value: unknown;
	try {
		value = JSON.parse(text);
	} catch {
		throw new NotTaken(400, 'the message is not JSON');
	}
	const { success, data, error } = batchSchema.safeParse(value);
	if (!success) throw new NotTaken(422, `the message cannot be read: ${faultsOf(error.issues, [])[0]}`);
	return data;
}
