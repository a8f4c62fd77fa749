import { evaluateGrid, type Surface } from '$core/geometry/surface';
import { massFaces } from '$core/mass/faces';
import { newMass, type NewFormKind } from '$lib/edits/new-things';

/** A facet as it is drawn: its outline in the picture, and how much light falls on it, 0 to 1. */
export interface Facet {
	readonly path: string;
	readonly light: number;
}

/** How large a picture is. */
export const PICTURE = { width: 120, height: 84 } as const;
const MARGIN = 5;
const [ACROSS, UP] = [14, 9];
/** From where it is looked at: turned from the south, and risen (rad). */
const [TURN, RISE] = [0.5, 0.36];
/** Where light comes from. */
const LIGHT = [-0.35, -0.5, 0.79] as const;

interface Drawn {
	readonly corners: readonly (readonly [number, number])[];
	/** Towards the eye (mm). */
	readonly near: number;
	readonly light: number;
}

const steps = (knots: Float64Array, count: number) =>
	Array.from({ length: count + 1 }, (_, k) => knots[0]! + ((knots.at(-1)! - knots[0]!) * k) / count);

/** The facets of a surface as they are seen, in mm in the plane of the picture. */
function facetsOf(surface: Surface): Drawn[] {
	const { points } = evaluateGrid(surface, steps(surface.knotsU, ACROSS), steps(surface.knotsV, UP));
	const at = (k: number) => [points[3 * k]!, points[3 * k + 1]!, points[3 * k + 2]!] as const;
	const seen = ([x, y, z]: readonly [number, number, number]) => {
		const right = x * Math.cos(TURN) + y * Math.sin(TURN);
		const away = -x * Math.sin(TURN) + y * Math.cos(TURN);
		return [
			right,
			z * Math.cos(RISE) + away * Math.sin(RISE),
			z * Math.sin(RISE) - away * Math.cos(RISE)
		] as const;
	};
	const drawn: Drawn[] = [];
	for (let j = 0; j < UP; j++)
		for (let i = 0; i < ACROSS; i++) {
			const k = j * (ACROSS + 1) + i;
			const ring = [k, k + 1, k + ACROSS + 2, k + ACROSS + 1].map(at);
			const [a, b, c, d] = ring as [(typeof ring)[0], (typeof ring)[0], (typeof ring)[0], (typeof ring)[0]];
			const p = [0, 1, 2].map((n) => c[n]! - a[n]!);
			const q = [0, 1, 2].map((n) => d[n]! - b[n]!);
			const normal = [0, 1, 2].map(
				(n) => p[(n + 1) % 3]! * q[(n + 2) % 3]! - p[(n + 2) % 3]! * q[(n + 1) % 3]!
			);
			const size = Math.hypot(...normal) || 1;
			// Both sides are seen; the one that is looked at is lit.
			const lit = normal.reduce((sum, one, n) => sum + (one / size) * LIGHT[n]!, 0);
			const places = ring.map(seen);
			drawn.push({
				corners: places.map(([x, y]) => [x, y] as const),
				near: places.reduce((sum, place) => sum + place[2], 0),
				light: Math.abs(lit)
			});
		}
	return drawn;
}

const made = new Map<NewFormKind, readonly Facet[]>();

/** A new mass of a form as it stands: facets from the back to the front, in a picture of `PICTURE`. */
export function formPicture(kind: NewFormKind): readonly Facet[] {
	const known = made.get(kind);
	if (known) return known;
	const drawn = massFaces(newMass(kind, []))
		.flatMap(({ surface }) => facetsOf(surface))
		.sort((a, b) => a.near - b.near);
	const xs = drawn.flatMap(({ corners }) => corners.map(([x]) => x));
	const ys = drawn.flatMap(({ corners }) => corners.map(([, y]) => y));
	const [west, east, low, high] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
	const scale = Math.min(
		(PICTURE.width - 2 * MARGIN) / (east - west),
		(PICTURE.height - 2 * MARGIN) / (high - low)
	);
	const place = ([x, y]: readonly [number, number]) =>
		`${(PICTURE.width / 2 + (x - (west + east) / 2) * scale).toFixed(1)} ${(
			PICTURE.height / 2 -
			(y - (low + high) / 2) * scale
		).toFixed(1)}`;
	const facets = drawn.map(({ corners, light }) => ({ path: `M${corners.map(place).join('L')}Z`, light }));
	made.set(kind, facets);
	return facets;
}
