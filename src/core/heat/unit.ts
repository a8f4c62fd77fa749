/** A part of a unit that heat goes through. */
export interface HeatPart {
	/** Any unit of area, the same for all. */
	readonly area: number;
	/** W/m²K */
	readonly u: number;
}

/**
 * U of a unit by its components: glass, panels and frame by their areas, and the edges of its panes by their length (the
 * component method of EN ISO 12631, from memory).
 *
 * ```ts
 * unitTransmittance([{ area: 3.8475, u: 1.1 }, { area: 0.6525, u: 2.2 }], 8.4, 0.08); // 1.40883 W/m²K
 * ```
 * @param parts areas in m² @param edge m @param psi W/mK
 */
export function unitTransmittance(parts: readonly HeatPart[], edge: number, psi: number): number {
	const area = parts.reduce((sum, one) => sum + one.area, 0);
	return (parts.reduce((sum, one) => sum + one.area * one.u, 0) + edge * psi) / area;
}
