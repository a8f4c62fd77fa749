import { differenceD, FillRule, intersectD, type PathD, type PathsD } from 'clipper2-ts';
import { linesMeet } from '../../geometry/crossing';
import { boxOf, crossingsAbove, type Box, type Place } from '../../geometry/polygon';
import { refuse } from '../../units/problem';
import { atMost } from '../drawn-curve';
import { BEYOND, closedOutside, sharesOf } from './beyond';
import { copiesOf, periodOf, type Trim, type TrimCurve, type TrimmedFace } from './trim';

/** Curves that come this near each other meet (shares of the parameters). */
const MEETS = 1e-8;

function doMeet(face: TrimmedFace, a: Trim, b: Trim): boolean {
	const { to } = sharesOf(face);
	const period = periodOf(face);
	const copies = (trim: Trim) => trim.curves.flatMap((curve) => copiesOf(curve, period));
	const others = copies(b).map(({ places, closed }) => ({ places: places.map(to), closed }));
	return a.curves.some(({ places, run }) => {
		const shares = places.map(to);
		const box = boxOf(shares);
		return others.some((other) => {
			const around = boxOf(other.places);
			if (around.low[0] > box.high[0] + MEETS || around.high[0] < box.low[0] - MEETS) return false;
			return linesMeet(shares, run === 'closed', other.places, other.closed, MEETS);
		});
	});
}

/**
 * The trims of a face, those whose curves meet united to one; none lies within an opening of another. Without
 * those that another leaves nothing to do.
 * @throws ProblemError at the later one
 */
export function together(face: TrimmedFace, trims: readonly Trim[]): Trim[] {
	const groups: Trim[][] = [];
	for (const one of trims) {
		const met = groups.filter((group) =>
			group.some((other) => atMost(() => doMeet(face, one, other), one.at))
		);
		for (const group of met) groups.splice(groups.indexOf(group), 1);
		groups.push([...met.flat(), one]);
	}
	const apart = groups.map((group) => (group.length > 1 ? united(face, group) : group[0]!));
	const idle = new Set<Trim>();
	apart.forEach((one, k) => {
		for (const other of apart.slice(0, k)) {
			const left = (a: Trim, b: Trim) => a.curves.every(({ places }) => b.keeps(...places[0]!));
			const [oneIsLeft, otherIsLeft] = [left(one, other), left(other, one)];
			if (oneIsLeft && otherIsLeft) continue;
			if (one.opening && other.opening)
				refuse(one.at, 'an opening lies within another one; holes in holes cannot be made');
			if (one.opening ? !oneIsLeft : other.opening ? !otherIsLeft : !oneIsLeft && !otherIsLeft)
				refuse(one.at, 'it lies where the face has ended already; move it inside, or leave it out');
			idle.add(oneIsLeft ? other : one);
		}
	});
	return apart.filter((trim) => !idle.has(trim));
}

/** Decimals of a share that the library computes with. */
const DECIMALS = 8;
const GRID = 10 ** DECIMALS;
/** Rounds of a ring that are looked at beside its own, on either side. */
const BESIDE = 2;

const toPath = (places: readonly Place[]): PathD => places.map(([x, y]) => ({ x, y }));
const nameOf = ([x, y]: Place) => `${Math.round(x * GRID)} ${Math.round(y * GRID)}`;

/** A corner of a curve that was united. */
interface Known {
	readonly place: Place;
	readonly sharp: boolean;
}

/** What several trims whose curves meet leave together, as one. */
function united(face: TrimmedFace, trims: readonly Trim[]): Trim {
	const ring = face.closedAcross;
	const beyond = BEYOND / 4;
	const domain: Box = {
		low: [ring ? -BESIDE : -beyond, -beyond],
		high: [ring ? 1 + BESIDE : 1 + beyond, 1 + beyond]
	};
	const known = new Map<string, Known>();
	const whole: PathsD = [
		toPath([domain.low, [domain.high[0], domain.low[1]], domain.high, [domain.low[0], domain.high[1]]])
	];
	const left = trims.reduce<PathsD>((kept, trim) => {
		const closed = closedLines(face, trim, domain, known);
		const cut = isWithinKept(face, trim, closed) ? intersectD : differenceD;
		return cut(kept, closed.map(toPath), FillRule.EvenOdd, DECIMALS);
	}, whole);
	const { at } = trims.at(-1)!;
	const curves = left.flatMap((path) =>
		curvesOf(
			path.map(({ x, y }): Place => [x, y]),
			domain,
			ring,
			known
		)
	);
	if (curves.length === 0)
		refuse(at, `together with the others it leaves nothing of ${face.name}; make it smaller`);
	const { from } = sharesOf(face);
	return {
		at,
		curves: curves.map((curve) => ({ ...curve, places: curve.places.map(from) })),
		within: Math.min(...trims.map(({ within }) => within)),
		opening: trims.every(({ opening }) => opening),
		keeps: (u, v) => trims.every((trim) => trim.keeps(u, v))
	};
}

/** The curves of a trim in shares of the parameters, for every round of a ring, each closed round outside. */
function closedLines(face: TrimmedFace, { curves }: Trim, domain: Box, known: Map<string, Known>): Place[][] {
	const { to } = sharesOf(face);
	const rounds = face.closedAcross ? Array.from({ length: 2 * BESIDE + 3 }, (_, k) => k - BESIDE - 1) : [0];
	return curves.flatMap(({ places, sharp, run }) => {
		const shares = places.map(to);
		const copies = rounds.map((round) =>
			shares.map(([x, y], k): Place => {
				const place: Place = [x + round, y];
				known.set(nameOf(place), { place, sharp: sharp[k]! });
				return place;
			})
		);
		if (run === 'closed') return copies;
		if (run === 'open') return copies.map((line) => closedOutside(line, domain));
		if (shares.at(-1)![0] < shares[0]![0]) copies.reverse();
		return [closedOutside(copies.flat(), domain)];
	});
}

/** Places in the face, in shares of its parameters, that lie on no line anybody draws. */
const LOOKED_AT: readonly Place[] = Array.from({ length: 25 }, (_, k) => [
	0.0713 + 0.2141 * (k % 5),
	0.0637 + 0.2173 * Math.floor(k / 5)
]);

/** Whether what a trim keeps lies within its closed lines (even-odd), as most places say. */
function isWithinKept(face: TrimmedFace, trim: Trim, closed: readonly (readonly Place[])[]): boolean {
	const { from } = sharesOf(face);
	const agreed = LOOKED_AT.filter((place) => {
		const above = closed.reduce((sum, line) => sum + crossingsAbove(line, true, place), 0);
		return (above % 2 === 1) === trim.keeps(...from(place));
	});
	return 2 * agreed.length > LOOKED_AT.length;
}

/** The curves along the outline of what is left, without what runs along the rim of the domain. */
function curvesOf(
	outline: readonly Place[],
	domain: Box,
	ring: boolean,
	known: Map<string, Known>
): TrimCurve[] {
	const sides = outline.map(([x, y]) =>
		[x - domain.low[0], domain.high[0] - x, y - domain.low[1], domain.high[1] - y].map(
			(off) => Math.abs(off) < 2 / GRID
		)
	);
	const n = outline.length;
	const isRim = (k: number) => sides[k]!.some((on, side) => on && sides[(k + 1) % n]![side]);
	const curve = (places: readonly Place[], run: TrimCurve['run']): TrimCurve => {
		const corners = places.map((place): Known => known.get(nameOf(place)) ?? { place, sharp: true });
		return { places: corners.map(({ place }) => place), sharp: corners.map(({ sharp }) => sharp), run };
	};
	const start = outline.findIndex((_, k) => isRim(k));
	const isOwn = ([x]: Place) => !ring || (x >= 0 && x < 1);
	if (start < 0) {
		const [most] = [boxOf(outline).low];
		return isOwn(most) ? [curve(outline, 'closed')] : [];
	}
	const found: TrimCurve[] = [];
	let line: Place[] = [];
	for (let s = 1; s <= n; s++) {
		const k = (start + s) % n;
		line.push(outline[k]!);
		if (!isRim(k)) continue;
		const places = line;
		line = [];
		if (places.length < 2) continue;
		if (!ring) {
			found.push(curve(places, 'open'));
			continue;
		}
		const [from, to] = [places[0]!, places.at(-1)!].map((p) => sides[outline.indexOf(p)]!) as [
			boolean[],
			boolean[]
		];
		const isCutOff = from[0] || from[1] || to[0] || to[1];
		if ((from[0] && to[1]) || (from[1] && to[0])) found.push(curve(onceRound(places), 'round'));
		else if (!isCutOff && isOwn(places[0]!)) found.push(curve(places, 'open'));
	}
	return found;
}

/** One round of a line that runs round a ring several times. */
function onceRound(line: readonly Place[]): Place[] {
	const from = line.findIndex(([x]) => x >= 0 && x < 1);
	const [x, y] = line[from]!;
	const to = line.findIndex(
		([p, q], k) => k > from && Math.abs(Math.abs(p - x) - 1) < 4 / GRID && Math.abs(q - y) < 4 / GRID
	);
	return line.slice(from, to);
}
