import { z } from 'zod';

const positive = (most: number, says: string) => z.number().gt(0, says).max(most, says);

/** What presses on the facade, and what may come of it. */
export const loadsSchema = z.strictObject({
	/** Wind on the face (kN/m²); null while nobody has said: bars and panes are not reckoned then. */
	wind: positive(100, 'a wind above 0 and up to 100 kN/m² is accepted').nullable().default(null),
	/** What stress panes are dimensioned for (N/mm²): that of float glass under wind, common practice. */
	glass: positive(1000, 'a stress above 0 and up to 1000 N/mm² is accepted').default(18)
});
export type Loads = z.infer<typeof loadsSchema>;
