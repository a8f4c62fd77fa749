import type { PointRegisters, Register } from '../builder';
import { StepFault } from '../compile/fault';
import { convex, fanOf, isReEntrant, meshSolid, mitredPlate, plate, prism, thickened } from '../solids';
import type { StockShape } from '../stock';
import type { Solid, Value, Vectors } from '../values';
import { bars } from './bars';
import { refuseNothing, type Makers, type StepContext } from './context';
import { ball } from './round';

const behindOf = { in: -1, out: 0, both: -0.5 } as const;
const solid = (solids: readonly Solid[], shape?: StockShape, ...sizes: Register[]): Value => ({
	is: 'solid',
	solids,
	stock: shape ? { shape, sizes } : null
});

function sameCorners(a: readonly unknown[], b: readonly unknown[], names: readonly [string, string]): void {
	if (a.length !== b.length)
		throw new StepFault(
			`${names[0]} has ${a.length} corners and ${names[1]} ${b.length}; they need the same number`
		);
}

/** Openings of a plate, run the way that its ring does. */
function openingsOf(
	v: Vectors,
	normal: PointRegisters,
	names: readonly string[],
	lookup: StepContext['lookup']
): (readonly PointRegisters[])[] {
	const rings = names.flatMap((name) => {
		const value = lookup(name, 'ring', 'rings');
		return value.is === 'ring' ? [value.points] : value.rings;
	});
	return rings.map((ring) => {
		const against = v.b.apply('less', v.dot(v.vectorArea(ring), normal), v.b.constant(0));
		return ring.map((p, k) => v.choose(against, ring[(ring.length - k) % ring.length]!, p));
	});
}

/** Distances of the two faces of something so thick, before the middle (mm). */
function faces(v: Vectors, thickness: Register, side: 'in' | 'out' | 'both'): [Register, Register] {
	const { b } = v;
	const low = behindOf[side];
	return [b.multiply(thickness, b.constant(low)), b.multiply(thickness, b.constant(low + 1))];
}

export const solidSteps: Makers<
	'plate' | 'band' | 'bar' | 'pyramid' | 'body' | 'thicken' | 'sphere' | 'joined tubes'
> = {
	plate(step, { v, lookup, number }) {
		const { b } = v;
		const { points } = lookup(step.ring, 'ring');
		const thickness = number(step.thickness, 'length');
		refuseNothing(b, thickness, 'the thickness is nothing or less');
		const normal = v.normalOf(points);
		const reEntrant = isReEntrant(v, points, normal);
		if (reEntrant !== null)
			b.flag(reEntrant, {
				code: 'part.re-entrant',
				level: 'flagged',
				subject: step.ring,
				says: `${step.ring} has a re-entrant corner`
			});
		const names = step.opening === undefined ? [] : [step.opening].flat();
		const openings = openingsOf(v, normal, names, lookup);
		const crossed = openings.length
			? b.flagList.indexOf({
					code: 'part.opening-out',
					level: 'failed',
					subject: step.name,
					says: `${step.name}: an opening reaches out of it, or meets another`
				})
			: null;
		const outline = { ring: points, openings, reEntrant, crossed };
		const sides = faces(v, thickness, step.side);
		if (step.along === undefined) return solid([plate(v, outline, normal, ...sides)], 'plate', thickness);
		const along = lookup(step.along, 'directions').points;
		sameCorners(points, along, [step.ring, step.along]);
		return solid([mitredPlate(v, outline, along, ...sides)], 'plate', thickness);
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
			outer.map((p, k): Solid => {
				const next = (k + 1) % outer.length;
				const piece = [p, outer[next]!, inner[next]!, inner[k]!];
				return {
					...plate(v, convex(piece), normal, behind, b.constant(0)),
					length: v.distance(p, outer[next]!)
				};
			}),
			'frame',
			depth
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
		return solid([rightWayRound(v, made)]);
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
		return solid([between(from, to)]);
	},
	thicken(step, { v, lookup, number }) {
		const { sheet } = lookup(step.sheet, 'sheet');
		const thickness = number(step.thickness, 'length');
		refuseNothing(v.b, thickness, 'the thickness is nothing or less');
		const [inside, outside] = faces(v, thickness, step.side);
		if (step.along !== undefined) {
			const along = v.unit(lookup(step.along, 'direction').at);
			return solid(
				[thickened(v, sheet, v.scale(along, inside), v.scale(along, outside))],
				'plate',
				thickness
			);
		}
		return solid(
			sheet.facets.map((facet) => {
				const ring = facet.map((k) => sheet.vertices[k]!);
				return plate(v, convex(ring), v.normalOf(ring), inside, outside);
			}),
			'plate',
			thickness
		);
	},
	sphere(step, { v, lookup, number }) {
		const diameter = number(step.diameter, 'length');
		refuseNothing(v.b, diameter, 'the diameter is nothing or less');
		return solid([ball(v, lookup(step.centre, 'point').at, diameter)], 'ball', diameter);
	},
	'joined tubes'(step, { v, lookup, number }) {
		const { b } = v;
		const { ways } = lookup(step.ways, 'ways');
		if (ways.length > MOST_ARMS)
			throw new StepFault(
				`it joins up to ${MOST_ARMS} arms; ${ways.length} lines meet here: put another part on nodes of so many`
			);
		const sizes = lookup(step.diameters, 'lengths', 'number');
		const diameters = sizes.is === 'lengths' ? sizes.lengths : ways.map(() => sizes.register);
		if (diameters.length !== ways.length)
			throw new StepFault(
				`"${step.diameters}" has ${diameters.length} lengths, and there are ${ways.length} ways; one for each is wanted`
			);
		const [reach, fillet] = [number(step.reach, 'length'), number(step.fillet, 'length')];
		const largest = diameters.reduce((p, q) => b.apply('max', p, q));
		const smallest = diameters.reduce((p, q) => b.apply('min', p, q));
		refuseNothing(b, smallest, 'an arm of the joined tubes is thinner than nothing');
		b.flag(b.apply('less', fillet, b.constant(0)), {
			code: 'part.nothing',
			level: 'failed',
			subject: step.name,
			says: `${step.name}: its fillet is less than nothing`
		});
		const directions = ways.map(({ direction }) => v.unit(direction));
		const needed = reachNeeded(v, directions, b.add(b.multiply(largest, b.constant(0.5)), fillet));
		b.flagBeyond(
			b.apply('less', reach, needed),
			{
				code: 'part.arms-run-together',
				level: 'failed',
				subject: step.name,
				says: `${step.name}: its arms still run together where they end`
			},
			{ kind: 'length', value: reach, bound: needed }
		);
		return {
			is: 'joined tubes',
			joint: {
				centre: lookup(step.centre, 'point').at,
				ways: directions.map((direction, k) => ({ direction, diameter: diameters[k]! })),
				reach,
				fillet
			}
		};
	}
};

/** Arms that are joined at one point. */
const MOST_ARMS = 12;

/** From where on arms of a radius are clear of each other (mm): of two at an angle, radius / tan(angle / 2). */
function reachNeeded(v: Vectors, ways: readonly PointRegisters[], radius: Register): Register {
	const { b } = v;
	const one = b.constant(1);
	const pairs = ways.flatMap((way, k) =>
		ways.slice(k + 1).map((other) => {
			const cosine = v.dot(way, other);
			const apart = b.apply('max', b.subtract(one, cosine), b.constant(1e-9));
			return b.apply('sqrt', b.divide(b.apply('max', b.add(one, cosine), b.constant(0)), apart));
		})
	);
	// An arm that is alone has to come out of its own round end.
	const widest = [one, ...pairs].reduce((p, q) => b.apply('max', p, q));
	return b.multiply(radius, widest);
}

/** A closed mesh whose volume may come out negative, with two of every three corners exchanged where it does. */
function rightWayRound(v: Vectors, { vertices, triangles, volume, area, length }: Solid): Solid {
	const { b } = v;
	const inward = b.apply('less', volume, b.constant(0));
	const n = vertices.length;
	// The ring run the other way where it has to: vertex k and its mirror stand in for each other.
	const ring = vertices.slice(0, n - 1);
	const run = ring.map((p, k) => v.choose(inward, ring[(ring.length - k) % ring.length]!, p));
	return {
		vertices: [...run, vertices[n - 1]!],
		triangles,
		caps: [],
		volume: b.apply('abs', volume),
		area,
		length
	};
}
