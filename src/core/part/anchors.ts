import type { Anchor } from '../project/part-definition';
import type { Field } from '../field/field';
import { fieldOf } from '../field/fields';
import type { SiteKind } from '../field/site-kind';
import type { DomainBuilder, PointRegisters, Register } from './builder';
import { numberValue, type Value, type Vectors } from './values';

/** What parts with an anchor of a kind hang on. */
const siteOfAnchor: Record<Anchor['kind'], SiteKind> = {
	ring: 'cell',
	'double ring': 'cell',
	pair: 'line',
	node: 'node',
	chain: 'chain'
};
export const siteOf = ({ anchor }: { readonly anchor: Anchor }): SiteKind => siteOfAnchor[anchor.kind];

/**
 * The fields that parts may name: those that a part can reckon from its own points too, for what hangs on them, and
 * what these share with the piece around them.
 */
const inParts: Readonly<Partial<Record<SiteKind, readonly string[]>>> = {
	cell: [
		'area',
		'perimeter',
		'longest_edge',
		'shortest_edge',
		'smallest_angle',
		'largest_angle',
		'warp',
		'incidence',
		'profile_angle',
		'plan_angle',
		'height',
		'course',
		'bay'
	],
	line: ['length', 'height', 'fold', 'course', 'bay'],
	node: ['height', 'course', 'bay'],
	chain: ['length']
};
export const partFields = (anchor: Anchor): readonly Field[] => {
	const over = siteOfAnchor[anchor.kind];
	return (inParts[over] ?? []).map((name) => fieldOf(over, name));
};

/** Where what an anchor gives comes from: columns, or the points of the part around a sub-part. */
export interface AnchorSource {
	point(name: string): PointRegisters;
	measure(name: string): Register;
}

export const columnSource = (b: DomainBuilder): AnchorSource => ({
	point: (name) => ({ x: b.column(`${name}.x`), y: b.column(`${name}.y`), z: b.column(`${name}.z`) }),
	measure: (name) => b.column(name)
});

/**
 * How many corners an anchor has when it leaves that open, or its only number.
 *
 * ```ts
 * cornersOf({ kind: 'ring', corners: 'any' }, 6); // 6
 * ```
 */
export const cornersOf = (anchor: Anchor, wanted = 4): number =>
	anchor.kind === 'pair' ? 2 : anchor.corners === 'any' ? wanted : anchor.corners;

/**
 * What a part is given by its anchor, by name. What no step uses costs nothing.
 * - ring of n: cell, corner1 … n, edge1 … n, for four corners edge3_aligned and edge4_aligned (run the same
 *   way as edges 1 and 2), centre, face_centre (of the cell on the face itself),
 *   normal, corner_normals, plane, up
 * - double ring: the same, and far, far1 … n, far_centre of the companion
 * - pair: line, start, end, normal, normal_left, normal_right (of the cells beside it), up
 * - node: node, normal, way1 … n (directions of its lines), ways (all of them, with the bars on them), up
 * - chain: chain, point1 … n, normal1 … n, up
 */
export function givenNames(
	v: Vectors,
	anchor: Anchor,
	corners: number,
	{ point, measure }: AnchorSource
): Map<string, Value> {
	const { b } = v;
	const names = new Map<string, Value>();
	const put = (name: string, value: Value) => names.set(name, value);
	const direction = (name: string) => put(name, { is: 'direction', at: point(name) });
	const numbered = (name: string) => Array.from({ length: corners }, (_, k) => point(`${name}${k + 1}`));
	const each = (name: string, points: readonly PointRegisters[], is: 'point' | 'direction') =>
		points.forEach((at, k) => put(`${name}${k + 1}`, { is, at }));
	put('up', { is: 'direction', at: { x: b.constant(0), y: b.constant(0), z: b.constant(1) } });
	for (const { name, over, kind } of partFields(anchor)) {
		const value = numberValue(measure(name), kind);
		put(name, value);
		// For parts that have the name themselves.
		put(`${over}.${name}`, value);
	}

	switch (anchor.kind) {
		case 'pair': {
			const [start, end] = [point('start'), point('end')];
			put('line', { is: 'path', points: [start, end] });
			put('start', { is: 'point', at: start });
			put('end', { is: 'point', at: end });
			for (const name of ['normal', 'normal_left', 'normal_right']) direction(name);
			return names;
		}
		case 'node':
			put('node', { is: 'point', at: point('node') });
			direction('normal');
			each('way', numbered('way'), 'direction');
			put('ways', {
				is: 'ways',
				ways: numbered('way').map((direction, k) => ({
					direction,
					far: v.along(point('node'), direction, measure(`span${k + 1}`)),
					across: measure(`across${k + 1}`),
					deep: measure(`deep${k + 1}`),
					middle: measure(`middle${k + 1}`)
				}))
			});
			return names;
		case 'chain': {
			const points = numbered('point');
			put('chain', { is: 'path', points });
			each('point', points, 'point');
			each('normal', numbered('normal'), 'direction');
			return names;
		}
		case 'double ring':
		case 'ring': {
			const ring = numbered('corner');
			put('cell', { is: 'ring', points: ring });
			each('corner', ring, 'point');
			ring.forEach((corner, k) => {
				const next = ring[(k + 1) % corners]!;
				put(`edge${k + 1}`, { is: 'path', points: [corner, next] });
				if (corners === 4 && k >= 2) put(`edge${k + 1}_aligned`, { is: 'path', points: [next, corner] });
			});
			const [centre, normal] = [point('centre'), point('normal')];
			put('centre', { is: 'point', at: centre });
			put('face_centre', { is: 'point', at: point('face_centre') });
			put('normal', { is: 'direction', at: normal });
			put('corner_normals', { is: 'directions', points: numbered('normal') });
			const right = v.squareTo(v.subtract(ring[1]!, ring[0]!), normal);
			put('plane', { is: 'plane', frame: { origin: centre, right, up: v.cross(normal, right), normal } });
			if (anchor.kind === 'double ring') {
				const far = numbered('far');
				put('far', { is: 'ring', points: far });
				each('far', far, 'point');
				put('far_centre', { is: 'point', at: v.centre(far) });
			}
			return names;
		}
	}
}
