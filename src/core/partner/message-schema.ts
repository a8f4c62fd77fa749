import { z } from 'zod';
import { releaseFileSchema } from '../release/file-schema';

/** Pieces of one message at most: few enough that one that is lost costs little. */
export const MOST_PIECES_OF_A_BATCH = 100;
const MOST_LETTERS = 500;

const file = releaseFileSchema.shape;
const piece = file.pieces.element;
const name = piece.pick({ list: true, address: true });

/**
 * A part of a release on its way to a partner. mm, mm², rad, kg; points x y z in mm with z up.
 * It goes under a key of its own: whoever gets a key again answers as before.
 */
export const batchSchema = z.strictObject({
	format: z.literal('zygaster batch'),
	version: z.literal(1),
	project: file.project,
	/** The number of the release. */
	release: file.number,
	/** When the release was made: ISO 8601, UTC. */
	at: file.at,
	/** Which of how many, from 1. */
	batch: z.number().int().min(1),
	of: z.number().int().min(1),
	pieces: z.array(piece).min(1).max(MOST_PIECES_OF_A_BATCH)
});
export type Batch = z.infer<typeof batchSchema>;
export type BatchPiece = Batch['pieces'][number];

/** What a partner says to a batch, piece by piece. */
export const answerSchema = z.strictObject({
	format: z.literal('zygaster answer'),
	version: z.literal(1),
	release: file.number,
	batch: z.number().int().min(1),
	pieces: z
		.array(
			name.extend({
				is: z.enum(['accepted', 'refused']),
				/** Why, where it is refused; else empty. */
				reason: z.string().max(MOST_LETTERS),
				/** Working days until it is there, where it is accepted and that is known. */
				lead_days: z.number().int().min(0).max(10_000).nullable()
			})
		)
		.max(4 * MOST_PIECES_OF_A_BATCH)
});
export type Answer = z.infer<typeof answerSchema>;
export type PieceAnswer = Answer['pieces'][number];

/** How far a piece has come, in its order. */
export const progressSteps = ['made', 'delivered', 'set'] as const;
export type Progress = (typeof progressSteps)[number];

/** News of a diary at most; who reads asks again from `next`. */
export const MOST_NEWS = 2000;

/** What has become of pieces since somebody last asked, the oldest first. */
export const newsSchema = z.strictObject({
	format: z.literal('zygaster news'),
	version: z.literal(1),
	/** Ask from here the next time. */
	next: z.number().int().min(0).max(2_147_483_647),
	pieces: z
		.array(
			name.extend({
				is: z.enum(progressSteps),
				/** ISO 8601, UTC. */
				at: z.iso.datetime()
			})
		)
		.max(MOST_NEWS)
});
export type News = z.infer<typeof newsSchema>;

/**
 * What goes between the application and its partners, as JSON Schema.
 *
 * ```ts
 * const text = JSON.stringify(messageStructures().batch);
 * ```
 */
export const messageStructures = (): Readonly<Record<'batch' | 'answer' | 'news', object>> => ({
	batch: z.toJSONSchema(batchSchema),
	answer: z.toJSONSchema(answerSchema),
	news: z.toJSONSchema(newsSchema)
});
