import type { Anchor } from '../../project/part-definition';
import { cornersOf, type AnchorSource } from '../anchors';
import type { PointRegisters, Register } from '../builder';
import { StepFault } from './fault';
import type { Vectors } from '../values';

type Points = readonly PointRegisters[];
/** A measure of the part around, which its sub-parts share: its course, its bay. */
type Around = (name: string) => Register | undefined;

/** What a ring of a part gives to a sub-part hung on it. */
function ringSource(
	v: Vectors,
	ring: readonly PointRegisters[],
	around: (name: string) => Register | undefined
): AnchorSource {
	const { b } = v;
	const n = ring.length;
	const normal = v.normalOf(ring);
	const centre = v.centre(ring);
	const edges = ring.map((p, k) => v.subtract(ring[(k + 1) % n]!, p));
	const lengths = edges.map((edge) => v.length(edge));
	const fold = (op: 'min' | 'max', values: readonly Register[]) => values.reduce((p, q) => b.apply(op, p, q));
	const angles = () =>
		edges.map((edge, k) => {
			const back = v.negate(edges[(k + n - 1) % n]!);
			const turn = v.cross(edge, back);
			const angle = v.angle(edge, back);
			const isReentrant = b.apply('less', v.dot(turn, normal), b.constant(0));
			return b.apply('choose', isReentrant, b.subtract(b.constant(2 * Math.PI), angle), angle);
		});
	/** Fans about the middle; those that turn the other way, at a re-entrant corner, count against the others. */
	const spanned = () => {
		const fans = ring.map((p, k) => {
			const across = v.cross(v.subtract(p, centre), v.subtract(ring[(k + 1) % n]!, centre));
			const size = v.length(across);
			const isTurned = b.apply('less', v.dot(across, normal), b.constant(0));
			return b.apply('choose', isTurned, b.apply('negate', size), size);
		});
		return b.multiply(b.sum(fans), b.constant(0.5));
	};
	const heights = () => ring.map((p) => v.dot(v.subtract(p, centre), normal));
	const measures: Record<string, () => Register> = {
		area: spanned,
		perimeter: () => b.sum(lengths),
		longest_edge: () => fold('max', lengths),
		shortest_edge: () => fold('min', lengths),
		smallest_angle: () => fold('min', angles()),
		largest_angle: () => fold('max', angles()),
		warp: () => (n === 4 ? v.gap(ring) : b.subtract(fold('max', heights()), fold('min', heights()))),
		height: () => centre.z
	};
	return {
		point(name) {
			if (name === 'centre' || name === 'face_centre') return centre;
			return name.startsWith('corner') ? ring[Number(name.slice(6)) - 1]! : normal;
		},
		measure: (name) => measures[name]?.() ?? around(name) ?? b.constant(0)
	};
}

/** What two points of a part give to a sub-part hung on them. */
function pairSource(
	v: Vectors,
	start: PointRegisters,
	end: PointRegisters,
	normal: PointRegisters,
	around: (name: string) => Register | undefined
): AnchorSource {
	const { b } = v;
	const measures: Record<string, () => Register> = {
		length: () => v.distance(start, end),
		height: () => v.centre([start, end]).z
	};
	return {
		point: (name) => (name === 'start' ? start : name === 'end' ? end : normal),
		measure: (name) => measures[name]?.() ?? around(name) ?? b.constant(0)
	};
}

/** What a point gives to a sub-part hung on it, with points that its lines go to; bars are not known there. */
function nodeSource(
	v: Vectors,
	[node, ...ends]: Points,
	normal: PointRegisters,
	around: Around
): AnchorSource {
	return {
		point(name) {
			if (name === 'node') return node!;
			return name.startsWith('way') ? v.unit(v.subtract(ends[Number(name.slice(3)) - 1]!, node!)) : normal;
		},
		measure(name) {
			if (name === 'height') return node!.z;
			if (/^span\d/.test(name)) return v.distance(node!, ends[Number(name.slice(4)) - 1]!);
			return around(name) ?? v.b.constant(0);
		}
	};
}

/** What points in a row give to a sub-part hung on them. */
function chainSource(v: Vectors, points: Points, normal: PointRegisters, around: Around): AnchorSource {
	return {
		point: (name) => (name.startsWith('point') ? points[Number(name.slice(5)) - 1]! : normal),
		measure: (name) => (name === 'length' ? v.pathLength(points) : (around(name) ?? v.b.constant(0)))
	};
}

/** What two rings, one before the other, give to a sub-part that stands between them. */
function doubleRingSource(v: Vectors, ring: Points, far: Points, around: Around): AnchorSource {
	const near = ringSource(v, ring, around);
	return {
		...near,
		point: (name) => (/^far\d/.test(name) ? far[Number(name.slice(3)) - 1]! : near.point(name))
	};
}

/**
 * A sub-part hung on points of the part around it.
 * @param normal the direction that is outward there
 * @throws StepFault when there are not as many points as it needs
 */
export function subAnchor(
	v: Vectors,
	{ anchor, label }: { readonly anchor: Anchor; readonly label: string },
	points: Points,
	normal: () => PointRegisters,
	around: Around
): { readonly corners: number; readonly source: AnchorSource } {
	const given = points.length;
	const need = (what: string): never => {
		throw new StepFault(`${label} needs ${what}; ${given} ${given === 1 ? 'is' : 'are'} given`);
	};
	switch (anchor.kind) {
		case 'ring': {
			const corners = cornersOf(anchor, given);
			if (given !== corners || given < 3)
				need(`${anchor.corners === 'any' ? 'three or more' : anchor.corners} corners`);
			return { corners, source: ringSource(v, points, around) };
		}
		case 'double ring': {
			const corners = cornersOf(anchor, given / 2);
			if (given !== 2 * corners || corners < 3)
				need(`two rings of ${anchor.corners === 'any' ? 'as many' : anchor.corners} corners`);
			return {
				corners,
				source: doubleRingSource(v, points.slice(0, corners), points.slice(corners), around)
			};
		}
		case 'pair':
			if (given !== 2) need('two points');
			return { corners: 2, source: pairSource(v, points[0]!, points[1]!, normal(), around) };
		case 'node': {
			const corners = cornersOf(anchor, given - 1);
			if (given !== corners + 1) need(`a point, and ${corners} that its edges go to`);
			return { corners, source: nodeSource(v, points, normal(), around) };
		}
		case 'chain': {
			const corners = cornersOf(anchor, given);
			if (given !== corners || given < 2)
				need(anchor.corners === 'any' ? 'two points or more' : `${anchor.corners} points`);
			return { corners, source: chainSource(v, points, normal(), around) };
		}
	}
}
