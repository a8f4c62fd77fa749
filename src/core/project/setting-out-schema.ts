import { z } from 'zod';
import { id } from './identifier';
import { mm, plain } from './numbers';

/** Sizes of a list, and places of own parameters. */
const MOST_SIZES = 20_000;

/** How a zone is divided into bays and courses. Lengths in mm. */

/** A place along the line that is divided: so far from the left or the foot, or beside a guide. */
const place = [z.strictObject({ at: mm }), z.strictObject({ guide: id })] as const;
const acrossStart = z.union([z.enum(['left', 'middle', 'right']), ...place]);
const upStart = z.union([
	z.enum(['foot', 'middle', 'head']),
	...place,
	z.strictObject({ level: id, plus: mm.default(0) })
]);

const spacings = <Start extends z.ZodType>(start: Start) =>
	[
		z.strictObject({ by: z.literal('count'), count: plain }),
		z.strictObject({ by: z.literal('at most'), size: mm }),
		/** On the belt line, the one in the middle of the face. */
		z.strictObject({ by: z.literal('at least'), size: mm }),
		z.strictObject({ by: z.literal('exact size'), size: mm, start }),
		z.strictObject({
			by: z.literal('list'),
			sizes: z.array(mm).max(MOST_SIZES),
			/** Over and over to both ends, or once with the rest at the end. */
			run: z.enum(['repeated', 'once']).default('repeated'),
			start
		}),
		/** Shares 0 to 1 of the surface's own parameter, the ends not named. */
		z.strictObject({ by: z.literal('parameters'), at: z.array(plain).max(MOST_SIZES) })
	] as const;

const acrossSchema = z.discriminatedUnion('by', [...spacings(acrossStart)]);
const upSchema = z.discriminatedUnion('by', [
	...spacings(upStart),
	/** A course line at every level, and so many courses from one to the next; or sizes from its foot, then the rest. */
	z.strictObject({
		by: z.literal('levels'),
		each: plain.default(1),
		sizes: z.array(mm).max(MOST_SIZES).optional()
	})
]);

export const settingOutSchema = z.strictObject({
	across: acrossSchema,
	up: upSchema,
	/**
	 * What steps are measured along: every line by its true length, one belt line for all, the surface's own
	 * parameter; or nets laid over the face: course lines in level planes, edges of equal chords, geodesics.
	 */
	along: z
		.enum(['true length', 'belt line', 'own parameter', 'level planes', 'equal chords', 'geodesics'])
		.default('true length'),
	/** Square to the planes that cut course lines, upward: level planes unless it leans. */
	planes: z.tuple([plain, plain, plain]).default([0, 0, 1]),
	/** All lines moved along, across and up. */
	shift: z.tuple([mm, mm]).default([0, 0]),
	/** Left open between neighbouring cells. */
	joint: mm.default(0),
	/** Radius of the hole left round a pole; 0 closes it with a fan of triangles. */
	poleHole: mm.default(0),
	/** More cells than these are asked about before they are made. */
	mostCells: z.number().min(0).max(2_000_000, 'at most 2,000,000 cells can be made').default(1_000_000)
});
export type SettingOut = z.infer<typeof settingOutSchema>;
/** As it may be written: what has a default may be left out. */
export type SettingOutInput = z.input<typeof settingOutSchema>;
export type Spacing = SettingOut['across'] | SettingOut['up'];
export type SpacingOf<By extends Spacing['by']> = Extract<Spacing, { by: By }>;
export type Start = SpacingOf<'exact size'>['start'];
