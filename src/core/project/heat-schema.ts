import { z } from 'zod';
import { id } from './identifier';

const MOST_MATERIALS = 5000;
const transmittance = z
	.number()
	.min(0, 'a transmittance of 0 or more is accepted')
	.max(100, 'a transmittance up to 100 W/m²K is accepted');

/** What heat and light go through. Values of materials that are not named are those that ship. */
export const heatSchema = z.strictObject({
	/** Along every edge of a pane, for its spacer and frame: ψ (W/mK). */
	spacer: z
		.number()
		.min(0, 'ψ of 0 or more is accepted')
		.max(10, 'ψ up to 10 W/mK is accepted')
		.default(0.08),
	/** By material: U (W/m²K); of glass, g (share of the sun's heat that comes in). */
	materials: z
		.array(
			z.strictObject({
				id,
				u: transmittance,
				g: z
					.number()
					.min(0, 'g from 0 to 1 is accepted')
					.max(1, 'g from 0 to 1 is accepted')
					.nullable()
					.default(null)
			})
		)
		.max(MOST_MATERIALS)
		.default([])
});
export type HeatSettings = z.infer<typeof heatSchema>;
