import { z } from 'zod';

/** Sheets that drawings come on, lying on their long side: ISO 216. */
export const paperNames = ['A4', 'A3', 'A2', 'A1', 'A0'] as const;
export type Paper = (typeof paperNames)[number];

/** How the drawings of a project are made. */
export const drawingsSchema = z.strictObject({ paper: z.enum(paperNames).default('A3') });
