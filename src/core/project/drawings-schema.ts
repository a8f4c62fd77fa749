import { z } from 'zod';
import { id } from './identifier';
import { mm } from './numbers';
import { MOST_OWN_SHEETS, ownSheetSchema } from './own-sheet-schema';

/** Sheets that drawings come on, lying on their long side: ISO 216. */
export const paperNames = ['A4', 'A3', 'A2', 'A1', 'A0'] as const;
export type Paper = (typeof paperNames)[number];

/** Which way a section looks. */
export const lookings = ['north', 'east', 'south', 'west'] as const;
export type Looking = (typeof lookings)[number];

/** The model cut by an upright plane, and what lies behind it: north and south at a y, east and west at an x (mm). */
const sectionSchema = z.strictObject({ id, looking: z.enum(lookings), at: mm });
export type Section = z.infer<typeof sectionSchema>;

const MOST_SECTIONS = 200;

/** A line of the title block that is the project's own, as in: Drawn by, A. Moss. */
const blockLineSchema = z.strictObject({
	id,
	label: z.string().trim().min(1).max(40),
	text: z.string().trim().max(120)
});
export type BlockLine = z.infer<typeof blockLineSchema>;

/** Of the title block's own lines: as many as stand beside it on the smallest paper. */
export const MOST_BLOCK_LINES = 6;

/** How the drawings of a project are made. */
export const drawingsSchema = z.strictObject({
	paper: z.enum(paperNames).default('A3'),
	sections: z.array(sectionSchema).max(MOST_SECTIONS).default([]),
	block: z.array(blockLineSchema).max(MOST_BLOCK_LINES).default([]),
	/** Sheets whose views are placed by hand. */
	sheets: z.array(ownSheetSchema).max(MOST_OWN_SHEETS).default([])
});
