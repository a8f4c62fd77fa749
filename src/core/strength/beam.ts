/** One kN/m² in N/mm². */
export const KILONEWTON_PER_M2 = 1e-3;

/**
 * How far a frame member may bend under wind: a two-hundredth of its span up to 3 m, 5 mm and a three-hundredth up to
 * 7.5 m, a two-hundred-and-fiftieth above (EN 13830, from memory).
 *
 * ```ts
 * allowedDeflection(3600); // 17 mm
 * ```
 * @param span mm
 */
export const allowedDeflection = (span: number): number =>
	span <= 3000 ? span / 200 : span <= 7500 ? 5 + span / 300 : span / 250;

/**
 * How far a bar that lies on its two ends bends in its middle under an even load: 5 w L⁴ / (384 E I).
 *
 * ```ts
 * beamDeflection(1.8, 3600, 70_000, 3_308_067); // 17 mm
 * ```
 * @param load N/mm @param span mm @param stiffness E, N/mm² @param inertia I, mm⁴
 */
export const beamDeflection = (load: number, span: number, stiffness: number, inertia: number): number =>
	(5 * load * span ** 4) / (384 * stiffness * inertia);

/**
 * The second moment of area with which it bends by just so much (mm⁴).
 *
 * ```ts
 * neededInertia(1.8, 3600, 70_000, 17); // 3 308 067 mm⁴
 * ```
 */
export const neededInertia = (load: number, span: number, stiffness: number, deflection: number): number =>
	(5 * load * span ** 4) / (384 * stiffness * deflection);
