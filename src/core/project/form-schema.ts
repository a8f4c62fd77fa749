import { z } from 'zod';
import { id, identifier, text } from './identifier';
import { degrees, mm, plain, weighted } from './numbers';
import { stored } from './stored';

/** Curves, levels and the recipes of masses. Lengths in mm, angles in degrees. */

/** Of one curve, one row and the rows of a net, one loft and one file: more than these are no drawing any more. */
const MOST_POINTS = 20_000;
const MOST_ROW = 1000;
const MOST_SECTIONS = 1000;
const MOST_FACES = 5000;
/** Control points of one imported face. */
const MOST_NET = 1_000_000;
const degree = z.number().int().min(0).max(25);

const plan = z.tuple([mm, mm]);
const point = z.tuple([mm, mm, mm]);

/** How two neighbouring points are joined; an arc by its rise over the chord, positive to the left. */
const spaceSegment = z.enum(['line', 'smooth']);
const planSegment = z.union([spaceSegment, z.strictObject({ arc: mm })]);
/** One word for the whole curve, or one per pair of neighbouring points. */
const joinsOf = <S extends z.ZodType>(segment: S) => z.union([segment, z.array(segment).max(MOST_POINTS)]);

/** A height, or so much above (or below) a level that it follows. */
export const heightSchema = z.union([mm, z.strictObject({ level: id, plus: mm.default(0) })]);
export type Height = z.infer<typeof heightSchema>;

export const levelSchema = z.strictObject({ id, name: z.string().trim().min(1).max(60), height: mm });
export type Level = z.infer<typeof levelSchema>;

/** A curve in space. */
export const pathSchema = z.strictObject({
	points: z.array(point).max(MOST_POINTS),
	joins: joinsOf(spaceSegment).default('smooth'),
	closed: z.boolean().default(false)
});
export type PathDefinition = z.infer<typeof pathSchema>;

/** A curve drawn in a plane: in plan x and y, in a profile the distance and the height. */
const drawn = {
	points: z.array(plan).max(MOST_POINTS),
	joins: joinsOf(planSegment).default('line'),
	/** Completed by its mirror image about x = 0. */
	mirrored: z.boolean().default(false)
};
export const profileSchema = z.strictObject({ ...drawn, joins: drawn.joins.default('smooth') });
export type ProfileDefinition = z.infer<typeof profileSchema>;

/** A closed outline about its own origin. */
export const outlineSchema = z.discriminatedUnion('shape', [
	z.strictObject({ shape: z.literal('circle'), radius: mm }),
	z.strictObject({ shape: z.literal('ellipse'), width: mm, depth: mm }),
	z.strictObject({
		shape: z.literal('rectangle'),
		width: mm,
		depth: mm,
		rounding: mm.default(0)
	}),
	z.strictObject({
		shape: z.literal('polygon'),
		sides: plain,
		/** To the corners. */
		radius: mm,
		rounding: mm.default(0)
	}),
	z.strictObject({ shape: z.literal('drawn'), ...drawn, rounding: mm.default(0) })
]);
export type OutlineDefinition = z.infer<typeof outlineSchema>;

/** A section of a loft: a curve in space, or an outline laid in a horizontal plane. */
export const sectionSchema = z.union([
	pathSchema,
	z.strictObject({
		outline: outlineSchema,
		at: plan.default([0, 0]),
		height: heightSchema,
		scale: plan.default([1, 1]),
		turn: degrees.default(0)
	})
]);
export type SectionDefinition = z.infer<typeof sectionSchema>;

/** A value, or a smooth curve of values over the share of the height (0 at the foot, 1 at the head). */
const overHeight = z.union([degrees, z.array(z.tuple([plain, degrees])).max(MOST_POINTS)]);
export type OverHeight = z.infer<typeof overHeight>;

/** A rational B-spline patch: rows of u within v, x y z times the weight, and the weight. */
const patchSchema = z.strictObject({
	name: text,
	degrees: z.tuple([degree, degree]),
	knotsU: z.array(weighted).max(MOST_NET),
	knotsV: z.array(weighted).max(MOST_NET),
	net: z.array(weighted).max(4 * MOST_NET),
	/**
	 * Closed curves where the face ends within its patch, as corners in space; what is left of the patch lies
	 * to their left, seen from the side of du × dv. None: all of it is left.
	 */
	ends: z
		.array(z.array(z.tuple([weighted, weighted, weighted])).max(MOST_POINTS))
		.max(MOST_FACES)
		.default([]),
	/** How far a fitted face is from what it was fitted to, at most, in the file's own unit; null: exact. */
	deviation: weighted.nullable().default(null)
});
export type PatchDefinition = z.infer<typeof patchSchema>;

export const facesSchema = z.array(patchSchema).max(MOST_FACES);

export const formSchema = z.discriminatedUnion('kind', [
	z.strictObject({
		kind: z.literal('revolved'),
		axis: plan.default([0, 0]),
		foot: heightSchema.default(0),
		/** Distance from the axis and height, from the foot up. */
		profile: profileSchema.omit({ mirrored: true }),
		from: degrees.default(0),
		turn: degrees.default(360)
	}),
	z.strictObject({ kind: z.literal('ruled'), foot: pathSchema, head: pathSchema }),
	z.strictObject({
		kind: z.literal('lofted'),
		sections: z.array(sectionSchema).max(MOST_SECTIONS),
		between: z.enum(['smooth', 'straight']).default('smooth')
	}),
	z.strictObject({
		kind: z.literal('vaulted'),
		/** Across and height, from the left springing to the right one. */
		profile: profileSchema,
		at: plan.default([0, 0]),
		foot: heightSchema.default(0),
		/** Which way it runs, from north to the left. */
		direction: degrees.default(0),
		length: mm
	}),
	z.strictObject({
		kind: z.literal('twisted'),
		outline: outlineSchema,
		at: plan.default([0, 0]),
		foot: heightSchema.default(0),
		head: heightSchema,
		twist: overHeight.default(0),
		taper: overHeight.default(1)
	}),
	z.strictObject({
		kind: z.literal('dome'),
		at: plan.default([0, 0]),
		foot: heightSchema.default(0),
		/** Half sizes along x, y and z. */
		radii: point,
		/** Height of the rim over the middle of the ellipsoid. */
		cut: mm.default(0)
	}),
	z.strictObject({
		kind: z.literal('net'),
		/** Rows of points from the foot up, each from the left. */
		rows: z.array(z.array(point).max(MOST_ROW)).max(MOST_ROW),
		degrees: z.tuple([degree, degree]).default([3, 3]),
		/** Whether the surface is drawn to the points or passes through them. */
		points: z.enum(['control', 'through']).default('control')
	}),
	z.strictObject({
		kind: z.literal('waves'),
		from: plan.default([0, 0]),
		size: plan,
		foot: heightSchema.default(0),
		/** Height over the foot, of x, y and the named values. */
		height: text,
		values: z.array(z.strictObject({ id: identifier, value: text })).default([])
	}),
	z.strictObject({
		kind: z.literal('prism'),
		outline: outlineSchema,
		at: plan.default([0, 0]),
		foot: heightSchema.default(0),
		head: heightSchema,
		/** Sides that swell out (or in) by so much in their middle. */
		curved: z.array(z.strictObject({ id: text, out: mm })).default([])
	}),
	z.strictObject({
		kind: z.literal('imported'),
		/** Name of the file it came from. */
		source: text,
		/** Millimetres to a unit of the file. */
		scale: plain.default(1),
		/** Which axis of the file points up. */
		up: z.enum(['y', 'z']).default('z'),
		/** How far it has been moved from where the file has it (mm). */
		at: point.default([0, 0, 0]),
		faces: stored(facesSchema),
		/** What could not be taken from the file, each with its place in it. */
		refused: z.array(text).default([])
	})
]);
export type Form = z.infer<typeof formSchema>;
export type FormKind = Form['kind'];

/** How a face is looked at: its outside, and which of its corners is the first (quarter turns). */
export const faceChoiceSchema = z.strictObject({
	/** The face's name within its mass. */
	id: text,
	outside: z.enum(['as drawn', 'turned']).default('as drawn'),
	corner: z.number().int().min(0).max(3).default(0)
});
export type FaceChoice = z.infer<typeof faceChoiceSchema>;

const trimmed = {
	id,
	/** The face's name within its mass. */
	face: text,
	/** Curves are followed by straight lines to within so many mm. */
	within: mm.default(5)
};
/** An opening in a face, or where it ends. */
const opening = z.enum(['outside', 'inside']).default('outside');

/** In the place of a face's name. */
export const EVERY_FACE = 'every face';

/** What cuts a face: outlines and closed curves make openings and ends, planes, levels and other masses cut off one side. */
export const trimSchema = z.discriminatedUnion('by', [
	z.strictObject({
		by: z.literal('outline'),
		...trimmed,
		keep: opening,
		outline: outlineSchema,
		/** The outline's own origin; it lies square to the direction and is projected forward along it. */
		at: point,
		turn: degrees.default(0),
		direction: point.default([0, 0, 1])
	}),
	z.strictObject({
		by: z.literal('curve'),
		...trimmed,
		keep: opening,
		/** A curve in space; an open one runs on over the rims, and the face's first corner lies within it. */
		curve: pathSchema.extend({ closed: z.boolean().default(true) }),
		/** Projected along it; null takes the nearest places of the face. */
		direction: point.nullable().default(null)
	}),
	z.strictObject({
		by: z.literal('map'),
		...trimmed,
		keep: opening,
		outline: outlineSchema,
		/** Place on the face laid flat: mm to the right of its middle line, mm up from its foot. */
		at: plan,
		turn: degrees.default(0)
	}),
	z.strictObject({
		by: z.literal('plane'),
		...trimmed,
		keep: z.enum(['ahead', 'behind']).default('ahead'),
		at: point,
		/** Square to the plane; it shows ahead. */
		normal: point
	}),
	z.strictObject({
		by: z.literal('level'),
		...trimmed,
		keep: z.enum(['above', 'below']).default('below'),
		height: heightSchema
	}),
	z.strictObject({
		by: z.literal('mass'),
		...trimmed,
		/** One of them, or every face that the other mass meets. */
		face: text.default(EVERY_FACE),
		keep: opening,
		/** The other mass, as its form makes it: what trims it itself does not count. */
		mass: id
	})
]);
export type TrimDefinition = z.infer<typeof trimSchema>;
/** A trim with what has a default left out. */
export type TrimInput = z.input<typeof trimSchema>;
export type TrimKind = TrimDefinition['by'];
export type TrimOf<K extends TrimKind> = Extract<TrimDefinition, { by: K }>;

export const massSchema = z.strictObject({
	id,
	name: z.string().trim().min(1).max(120),
	form: formSchema,
	faces: z.array(faceChoiceSchema).default([]),
	/** Approximated again with even parameters, to within so many mm; null leaves the faces as they are. */
	evened: mm.nullable().default(null),
	trims: z.array(trimSchema).default([])
});
export type Mass = z.infer<typeof massSchema>;
