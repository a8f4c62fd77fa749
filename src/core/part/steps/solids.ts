import type { PointRegisters, Register } from '../builder';
import { StepFault } from '../fault';
import { fanOf, meshSolid, plate, prism, thickened } from '../solids';
import type { Solid, Value, Vectors } from '../values';
import { bars } from './bars';
import { refuseNothing, type Makers } from './context';
import { ball } from './round';

const behindOf = { in: -1, out: 0, both: -0.5 } as const;
/** A turn to the right by more than this (mm²) is a re-entrant corner. */
const RE_ENTRANT = -1;

const solid = (...solids: Solid[]): Value => ({ is: 'solid', solids });

function sameCorners(a: readonly unknown[], b: readonly unknown[], names: readonly [string, string]): void {
	if (a.length !== b.length)
		throw new StepFault(
			`${names[0]} has ${a.length} corners and ${names[1]} ${b.length}; they need the same number`
		);
}

/** Faces are drawn as a fan, which a re-entrant corner can leave: that is told. Areas and volumes stay right. */
function tellReEntrant(
	v: Vectors,
	ring: readonly PointRegisters[],
	normal: PointRegisters,
	name: string
): void {
	const { b } = v;
	const n = ring.length;
	if (n < 4) return;
	const edges = ring.map((p, k) => v.subtract(ring[(k + 1) % n]!, p));
	const turns = edges.map((edge, k) => v.dot(v.cross(edges[(k + n - 1) % n]!, edge), normal));
	const least = turns.reduce((p, q) => b.apply('min', p, q));
	b.flag(b.apply('less', least, b.constant(RE_ENTRANT)), 'flagged', `${name} has a re-entrant corner`);
}

/** Distances of the two faces of something so thick, before the middle (mm). */
function faces(v: Vectors, thickness: Register, side: 'in' | 'out' | 'both'): [Register, Register] {
	const { b } = v;
	const low = behindOf[side];
	return [b.multiply(thickness, b.constant(low)), b.multiply(thickness, b.constant(low + 1))];
}

export const solidSteps: Makers<'plate' | 'band' | 'bar' | 'pyramid' | 'body' | 'thicken' | 'sphere'> = {
	plate(step, { v, lookup, number }) {
		const { points } = lookup(step.ring, 'ring');
		const opening = step.opening === undefined ? null : lookup(step.opening, 'ring').points;
		if (opening) sameCorners(points, opening, [step.ring, step.opening!]);
		const thickness = number(step.thickness, 'length');
		refuseNothing(v.b, thickness, 'the thickness is nothing or less');
		const normal = v.normalOf(points);
		if (!opening) tellReEntrant(v, points, normal, step.ring);
		return solid(plate(v, points, normal, ...faces(v, thickness, step.side), opening));
	},
	band(step, { v, lookup, number }) {
		const { b } = v;
		const outer = lookup(step.outer, 'ring').points;
		const inner = lookup(step.inner, 'ring').points;
		sameCorners(outer, inner, [step.outer, step.inner]);
		const depth = number(step.depth, 'length');
		refuseNothing(b, depth, 'the depth is nothing or less');
		const normal = v.normalOf(outer);
		const behind = b.apply('negate', depth);
		return solid(
			...outer.map((p, k): Solid => {
				const next = (k + 1) % outer.length;
				const piece = [p, outer[next]!, inner[next]!, inner[k]!];
				return { ...plate(v, piece, normal, behind, b.constant(0)), length: v.distance(p, outer[next]!) };
			})
		);
	},
	bar: bars,
	pyramid(step, { v, lookup }) {
		const { points } = lookup(step.ring, 'ring');
		const top = lookup(step.to, 'point').at;
		const n = points.length;
		const sides = points.flatMap((_, k) => [k, (k + 1) % n, n]);
		const base = fanOf(n).toReversed();
		const made = meshSolid(v, [...points, top], [...base, ...sides]);
		// Before the ring or behind it, what is made is the same; which way round it runs is not.
		return solid(rightWayRound(v, made));
	},
	body(step, { v, lookup }) {
		const [foot, head] = [lookup(step.foot, 'ring').points, lookup(step.head, 'ring').points];
		sameCorners(foot, head, [step.foot, step.head]);
		const none = v.b.constant(0);
		const between = (from: typeof foot, to: typeof foot) => {
			const shape = prism(from, to, { volume: none, area: none, length: none });
			return meshSolid(v, shape.vertices, shape.triangles);
		};
		// Whichever ring lies behind is the foot.
		const swapped = v.b.apply('less', between(foot, head).volume, none);
		const from = foot.map((p, k) => v.choose(swapped, head[k]!, p));
		const to = head.map((p, k) => v.choose(swapped, foot[k]!, p));
		return solid(between(from, to));
	},
	thicken(step, { v, lookup, number }) {
		const { sheet } = lookup(step.sheet, 'sheet');
		const thickness = number(step.thickness, 'length');
		refuseNothing(v.b, thickness, 'the thickness is nothing or less');
		const [inside, outside] = faces(v, thickness, step.side);
		if (step.along !== undefined) {
			const along = v.unit(lookup(step.along, 'direction').at);
			return solid(thickened(v, sheet, v.scale(along, inside), v.scale(along, outside)));
		}
		return solid(
			...sheet.facets.map((facet) => {
				const ring = facet.map((k) => sheet.vertices[k]!);
				return plate(v, ring, v.normalOf(ring), inside, outside);
			})
		);
	},
	sphere(step, { v, lookup, number }) {
		const diameter = number(step.diameter, 'length');
		refuseNothing(v.b, diameter, 'the diameter is nothing or less');
		return solid(ball(v, lookup(step.centre, 'point').at, diameter));
	}
};

/** A closed mesh whose volume may come out negative, with two of every three corners exchanged where it does. */
function rightWayRound(v: Vectors, { vertices, triangles, volume, area, length }: Solid): Solid {
	const { b } = v;
	const inward = b.apply('less', volume, b.constant(0));
	const n = vertices.length;
	// The ring run the other way where it has to: vertex k and its mirror stand in for each other.
	const ring = vertices.slice(0, n - 1);
	const run = ring.map((p, k) => v.choose(inward, ring[(ring.length - k) % ring.length]!, p));
	return { vertices: [...run, vertices[n - 1]!], triangles, volume: b.apply('abs', volume), area, length };
}
