import { lineKinds } from './line-kinds';
import { z } from 'zod';
import { lengthDisplays } from '../units/quantity';
import { boundSchema } from './bound-schema';
import { pictureSchema, tableSchema } from './brought-schema';
import { drawingsSchema } from './drawings-schema';
import { levelSchema, massSchema } from './form-schema';
import { guideSchema } from './guide-schema';
import { EVERYWHERE, joiningSchema, withConditions } from './condition-schema';
import { driverSchema } from './driver-schema';
import { id, identifier, text } from './identifier';
import { materialSchema } from './material-schema';
import { mm, plain, squareMm } from './numbers';
import { partSchema } from './part-definition';
import { isContainer } from './paths';
import { patternSchema, tileSchema } from './pattern-schema';
import { settingOutSchema } from './setting-out-schema';
import { depthSchema, standingSchema } from './standing-schema';
import { clashSchema } from './clash-schema';
import { groupSchema } from './group-schema';
import { heatSchema } from './heat-schema';
import { likeSchema } from './like-schema';
import { limitSchema } from './limit-schema';
import { loadsSchema } from './loads-schema';
import { movesSchema } from './moves-schema';
import { stockSchema } from './stock-schema';
import { costSchema } from './rates-schema';
import { marksSchema } from './marks-schema';
import { schedulesSchema } from './schedules-schema';
import { sunSchema } from './sun-schema';
import { noteSchema, viewSchema } from './view-schema';

export type { PatternChoice } from './pattern-schema';
export type { LayerDepth } from './standing-schema';

export type { SettingOut, Spacing } from './setting-out-schema';

/**
 * The project document: everything a designer decides, and nothing that is computed.
 * Lengths are millimetres, angles degrees. The schema fixes the structure; whether the values make sense
 * together is said by the stage that uses them, at the clause they belong to.
 */
export const DOCUMENT_FORMAT = 'zygaster project';
export const DOCUMENT_VERSION = 9;

/** Of every list of named things. */
const MOST_THINGS = 5000;
/** Choices made by hand in one zone. */
const MOST_EXCEPTIONS = 200_000;

const name = z.string().trim().min(1).max(120);

/** What sets the per-piece inputs of a part; formulas may name fields of the sites it is put on. */
const values = z.record(identifier, driverSchema).default({});
/** How a part lies on a cell: turned on by so many corners, its outside in, right for left; by itself as it is drawn. */
const lie = {
	turn: z.union([z.number().int().min(-1000).max(1000), driverSchema]).optional(),
	flip: z.union([z.boolean(), driverSchema]).optional(),
	mirror: z.union([z.boolean(), driverSchema]).optional()
};
/** Where trims cut the cell, the part is made for the whole cell and cut as they cut it; else it adapts where it can. */
const cut = z.literal('clip').optional();
/** Open, or a variant. */
const put = z.union([z.literal('open'), z.strictObject({ variant: id, values, ...lie, cut })]);
/** By hand also: what the rules put there, with other values or lying otherwise. */
const putByHand = z.union([
	...put.options,
	z.strictObject({ as: z.literal('the rules say'), values, ...lie })
]);

const wholeRule = z.strictObject({
	id,
	muted: z.boolean().default(false),
	/** Which cells it asks for. */
	where: joiningSchema.default(EVERYWHERE),
	/** It takes no cell away: what comes after it is put on its cells too. */
	also: z.boolean().default(false),
	put
});
export const ruleSchema = z.preprocess(withConditions, wholeRule);
export type Rule = z.infer<typeof wholeRule>;
/** What is said of how a part lies; what is not stays as drawn. */
export type SaidLie = Pick<Exclude<Rule['put'], 'open'>, 'turn' | 'flip' | 'mirror'>;

/** Whether bars of other runs count where a bar ends. */
const others = z.boolean().default(false);

export const runSchema = z.strictObject({
	id,
	muted: z.boolean().default(false),
	/** Along each line by itself, or one through all that follow one another. */
	over: z.enum(['lines', 'chains']).default('lines'),
	lines: z.array(z.enum(lineKinds)).max(lineKinds.length),
	/** Which of these lines. */
	where: joiningSchema.default(EVERYWHERE),
	/** Lines that go straight on, to within so much, are one bar of this length at most; splices lie at nodes. */
	joined: z
		.strictObject({ stock: mm, within: mm.default(5), staggered: z.boolean().default(true) })
		.nullable()
		.default(null),
	/**
	 * How bars end where others of the run meet them: at the node, whatever is there; in halves between neighbours; some
	 * way before it; or against the sides of those along one kind of lines. Bars of other runs can count too: those that
	 * do not end at others themselves go through.
	 */
	ends: z
		.discriminatedUnion('is', [
			z.strictObject({ is: z.literal('mitred'), others }),
			z.strictObject({ is: z.literal('set back'), by: mm, others }),
			z.strictObject({
				is: z.literal('butted'),
				through: z.enum(lineKinds),
				/** Rims that run the same way go through with them. */
				rims: z.boolean().default(false),
				others
			})
		])
		.nullable()
		.default(null),
	variant: id,
	values
});
export type Run = z.infer<typeof runSchema>;

/** Parts where lines meet: at all nodes, on rims only, or not there; the first that takes a node has it. */
export const nodePlacingSchema = z.strictObject({
	id,
	muted: z.boolean().default(false),
	nodes: z.enum(['all', 'rim', 'inner']).default('all'),
	/** How many lines meet there. */
	lines: z.union([z.literal('any'), z.number().int().min(-1000).max(1000)]).default('any'),
	/** Which of these nodes. */
	where: joiningSchema.default(EVERYWHERE),
	variant: id,
	values
});
export type NodePlacing = z.infer<typeof nodePlacingSchema>;

const address = z.string().max(400);
const wholeException = z.strictObject({
	/** Up to version 6, when each was one cell, it was the cell's address. */
	id: address,
	put: putByHand,
	sites: z
		.array(
			z.strictObject({
				/** The cell's address within the zone, as in drum.shell/C06/B20/1. */
				id: address,
				/** Where on the face it was when it was chosen: shares of the way across and up. */
				place: z.tuple([plain, plain]).nullable().default(null)
			})
		)
		.max(MOST_EXCEPTIONS)
});
/** Up to version 6 of the document every cell had an exception of its own, which commands of the log still use. */
function withSites(value: unknown): unknown {
	if (!isContainer(value) || Array.isArray(value) || 'sites' in value || !('id' in value)) return value;
	const { id, place, ...rest } = value;
	return { ...rest, id, sites: [{ id, ...(place !== undefined && { place }) }] };
}
/** One choice made by hand, for as many cells as it was painted on; of two for one cell the later one stands. */
export const exceptionSchema = z.preprocess(withSites, wholeException);
export type Exception = z.infer<typeof wholeException>;

export const zoneSchema = z.strictObject({
	id,
	/** Short name that starts every mark, for example GR. */
	code: z.string().regex(/^[A-Z][A-Z0-9]{0,5}$/, 'a code is 1 to 6 capital letters and digits'),
	name,
	/** Where it is not on faces, these are none. */
	on: standingSchema.default({ is: 'faces' }),
	faces: z.array(z.strictObject({ mass: id, face: z.string().max(120) })).max(MOST_THINGS),
	settingOut: settingOutSchema,
	/** Another zone whose setting-out it has; its own waits. */
	setOutAs: id.nullable().default(null),
	/** Nodes moved after that, clause after clause. */
	moves: z.array(movesSchema).max(MOST_THINGS).default([]),
	pattern: patternSchema,
	/** What is done with cells smaller than so much (mm²): joined to the neighbour, left open, or flagged. */
	slivers: z
		.strictObject({ under: squareMm, put: z.enum(['merge', 'open', 'flag']) })
		.nullable()
		.default(null),
	/** A second grid that blocks fill the space up to: at a depth along the normals, positive outward, or another zone's. */
	layer: z
		.union([
			z.strictObject({ depth: depthSchema, shifted: z.boolean().default(false) }),
			z.strictObject({ zone: id })
		])
		.nullable()
		.default(null),
	rules: z.array(ruleSchema).max(MOST_THINGS).default([]),
	runs: z.array(runSchema).max(MOST_THINGS).default([]),
	nodes: z.array(nodePlacingSchema).max(MOST_THINGS).default([]),
	/** Lines of webs that end at its nodes meet there too, for what is put on nodes. */
	meetsWebs: z.boolean().default(false),
	exceptions: z.array(exceptionSchema).max(MOST_EXCEPTIONS).default([])
});
export type Zone = z.infer<typeof zoneSchema>;
/** As it may be written: what has a default may be left out. */
export type ZoneInput = z.input<typeof zoneSchema>;

export const variantSchema = z.strictObject({
	id,
	name,
	part: id,
	/** Values of the part's inputs: millimetres, degrees, plain numbers, yes or no, material names. */
	values: z.record(identifier, z.union([plain, z.boolean(), text])).default({})
});
export type Variant = z.infer<typeof variantSchema>;

export const projectSchema = z.strictObject({
	format: z.literal(DOCUMENT_FORMAT),
	version: z.literal(DOCUMENT_VERSION),
	/** Its own from its birth, whatever it is called: kept by copies in files, another one for a duplicate. */
	id: z.uuid(),
	name,
	/** Values that have a name and are used in many places: formulas with units, each of those above it. */
	named: z
		.array(z.strictObject({ id: identifier, value: text }))
		.max(MOST_THINGS)
		.default([]),
	/** Numbers of the document that follow formulas of them. */
	bound: z.array(boundSchema).max(MOST_THINGS).default([]),
	/** How lengths are shown. */
	display: z.enum(lengthDisplays).default('mm'),
	levels: z.array(levelSchema).max(MOST_THINGS).default([]),
	/** Where it stands under the sun. */
	sun: sunSchema.prefault({}),
	masses: z.array(massSchema).max(MOST_THINGS).default([]),
	/** Points and curves with names, for start lines and scattered cells to follow. */
	guides: z.array(guideSchema).max(MOST_THINGS).default([]),
	/** Pictures and tables that cells follow. */
	pictures: z.array(pictureSchema).max(MOST_THINGS).default([]),
	tables: z.array(tableSchema).max(MOST_THINGS).default([]),
	/** Tiles drawn in this project. */
	tiles: z.array(tileSchema).max(MOST_THINGS).default([]),
	zones: z.array(zoneSchema).max(MOST_THINGS).default([]),
	/** What is worked on together. A mass or a zone is in one at most. */
	groups: z.array(groupSchema).max(MOST_THINGS).default([]),
	variants: z.array(variantSchema).max(MOST_THINGS).default([]),
	clashes: clashSchema.prefault({}),
	/** When pieces are of one kind. */
	like: likeSchema.prefault({}),
	loads: loadsSchema.prefault({}),
	/** What heat and light go through. */
	heat: heatSchema.prefault({}),
	cost: costSchema.prefault({}),
	/** What bars and plates are cut from. */
	stock: stockSchema.prefault({}),
	/** What pieces are called. */
	marks: marksSchema.prefault({}),
	/** How schedules are read. */
	schedules: schedulesSchema.prefault({}),
	/** How drawings are made. */
	drawings: drawingsSchema.prefault({}),
	/** What pieces have to stay within, beside the limits that ship or in their place. */
	limits: z.array(limitSchema).max(MOST_THINGS).default([]),
	/** Materials of this project, beside the ones that ship or in their place. */
	materials: z.array(materialSchema).max(MOST_THINGS).default([]),
	/** Parts made in this project, beside the ones that ship. */
	parts: z.array(partSchema).max(MOST_THINGS).default([]),
	/** How the model was looked at, and what was measured in it. */
	views: z.array(viewSchema).max(MOST_THINGS).default([]),
	notes: z.array(noteSchema).max(MOST_THINGS).default([])
});
export type Project = z.infer<typeof projectSchema>;
