/**
 * The radius a flat pane is bent to when it is fixed to corners that are out of one plane: it takes the shape z = c xy,
 * which bends most along its diagonals, by the radius 1 / c; the gap between the diagonals of its cell is half of what
 * one corner is lifted by.
 *
 * ```ts
 * twistRadius(2e6, 40); // 25 000 mm
 * ```
 * @param area mm² @param warp the gap between its diagonals (mm)
 */
export const twistRadius = (area: number, warp: number): number => area / (2 * warp);

/**
 * Stress in a plate bent to a radius: E t / (2 R).
 *
 * ```ts
 * bentStress(70_000, 8, 12_000); // 23.33 N/mm²
 * ```
 * @param stiffness E, N/mm² @param thickness mm @param radius mm
 */
export const bentStress = (stiffness: number, thickness: number, radius: number): number =>
	(stiffness * thickness) / (2 * radius);
