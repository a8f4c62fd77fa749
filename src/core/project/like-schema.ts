import { z } from 'zod';
import { mm } from './numbers';

/** When pieces count as the same. */
export const likeSchema = z.strictObject({
	/** Within so much. */
	tolerance: mm
		.refine((value) => value > 0, 'a tolerance above 0 mm is accepted; two pieces are never exactly alike')
		.default(1),
	/** Whether mirror images are. */
	mirrored: z.enum(['apart', 'together']).default('apart')
});
export type LikeSettings = z.infer<typeof likeSchema>;
