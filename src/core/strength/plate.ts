/** Poisson's ratio of glass (EN 572-1, from memory). */
const POISSON = 0.23;
/** Odd terms of the series each way: the sixth digit stands by then. */
const TERMS = 41;

/** A plate that lies on all four sides, under an even load: what its middle comes to by its long side over its short one. */
export interface PlateFactors {
	/** Of p b⁴ / D: how far it bends. */
	readonly deflection: number;
	/** Of p b²: the larger bending moment. */
	readonly moment: number;
}

const known = new Map<number, PlateFactors>();
/** Sides are told apart to this share. */
const STEP = 1e-3;

/**
 * Navier's series for a thin plate (Timoshenko and Woinowsky-Krieger, Theory of Plates and Shells, article 30; from
 * memory), small deflections.
 *
 * ```ts
 * plateFactors(1).deflection; // 0.00406
 * ```
 * @param sides the long side over the short one, 1 or more
 */
export function plateFactors(sides: number): PlateFactors {
	const step = Math.round(Math.min(sides, 20) / STEP);
	const found = known.get(step);
	if (found) return found;
	const long = step * STEP;
	let [deflection, across, along] = [0, 0, 0];
	for (let m = 1; m <= TERMS; m += 2)
		for (let n = 1; n <= TERMS; n += 2) {
			const sign = ((m + n) / 2) % 2 ? 1 : -1;
			const waves = (m / long) ** 2 + n ** 2;
			const term = (sign * 16) / (m * n * waves ** 2);
			deflection += term / Math.PI ** 6;
			along += (term * ((m / long) ** 2 + POISSON * n ** 2)) / Math.PI ** 4;
			across += (term * (n ** 2 + POISSON * (m / long) ** 2)) / Math.PI ** 4;
		}
	const factors = { deflection, moment: Math.max(across, along) };
	known.set(step, factors);
	return factors;
}

/** What panes that lie behind one another come to together, each taking of the load as it is stiff. */
export interface PanesUnderLoad {
	/** The largest stress in any of them (N/mm²). */
	readonly stress: number;
	/** mm */
	readonly deflection: number;
	/** How thick one pane alone has to be for an allowed stress (mm). */
	readonly needed: number;
}

/**
 * Panes of a rectangle on four sides under an even load (the method of EN 16612 for small deflections, from memory;
 * the gas between panes is left out).
 *
 * ```ts
 * const { stress } = panesUnderLoad(2000, 1000, Float64Array.of(8), 0.001, 70_000, 18);
 * ```
 * @param long sides, mm @param panes their thicknesses, mm
 * @param load N/mm² @param stiffness E, N/mm² @param allowed N/mm²
 */
export function panesUnderLoad(
	long: number,
	short: number,
	panes: Float64Array,
	load: number,
	stiffness: number,
	allowed: number
): PanesUnderLoad {
	const { deflection, moment } = plateFactors(long / short);
	let [cubes, thickest] = [0, 0];
	for (let k = 0; k < panes.length; k++) {
		cubes += panes[k]! ** 3;
		thickest = Math.max(thickest, panes[k]!);
	}
	const bending = load * short ** 2 * moment;
	return {
		stress: (6 * bending * thickest) / cubes,
		deflection: (deflection * load * short ** 4 * 12 * (1 - POISSON ** 2)) / (stiffness * cubes),
		needed: Math.sqrt((6 * bending) / allowed)
	};
}
