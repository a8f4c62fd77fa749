import { evaluateGrid, type Surface } from '$core/geometry/surface';
import { pointAt, type Vector } from '$core/geometry/vector';
import { massFaces } from '$core/mass/faces';
import { smallPicture, type SmallPicture } from '$lib/components/small-picture';
import { newMass, type NewFormKind } from '$lib/edits/new-things';

const SIZE = [120, 84] as const;
const [ACROSS, UP] = [14, 9];

const steps = (knots: Float64Array, count: number) =>
	Array.from({ length: count + 1 }, (_, k) => knots[0]! + ((knots.at(-1)! - knots[0]!) * k) / count);

/** A surface in quads. */
function quadsOf(surface: Surface): Vector[][] {
	const { points } = evaluateGrid(surface, steps(surface.knotsU, ACROSS), steps(surface.knotsV, UP));
	return Array.from({ length: ACROSS * UP }, (_, n) => {
		const k = Math.floor(n / ACROSS) * (ACROSS + 1) + (n % ACROSS);
		return [k, k + 1, k + ACROSS + 2, k + ACROSS + 1].map((node) => pointAt(points, node));
	});
}

const made = new Map<NewFormKind, SmallPicture>();

/** A new mass of a form as it stands. */
export function formPicture(kind: NewFormKind): SmallPicture {
	const known = made.get(kind);
	if (known) return known;
	const faces = massFaces(newMass(kind, [])).flatMap(({ surface }) => quadsOf(surface));
	const picture = smallPicture({ faces }, SIZE);
	made.set(kind, picture);
	return picture;
}
