import { pointAt, type Vector } from '$core/geometry/vector';
import type { FaceView } from '$lib/worker/views';
import * as THREE from 'three';

/** What the pointer is on while lengths are measured: a node, a place on a line of the grid, or one on a face; mm. */
export type Snap =
	| { readonly is: 'node'; readonly at: Vector }
	| { readonly is: 'edge'; readonly at: Vector; readonly ends: readonly [Vector, Vector] }
	| { readonly is: 'face'; readonly at: Vector; readonly normal: Vector };

/** How near the pointer has to be to take a node or a line (px). */
const [NODE_REACH, EDGE_REACH] = [9, 7];

interface Pixel {
	readonly x: number;
	readonly y: number;
}

/**
 * What of a cell's rim is near the pointer; nothing where it is well inside.
 * @param project to the picture @param ray through the pointer, mm
 */
export function snapToRim(
	{ cells, grid }: Pick<FaceView, 'cells' | 'grid'>,
	cell: number,
	pointer: Pixel,
	project: (point: Vector) => Pixel | null,
	ray: THREE.Ray
): Snap | null {
	const nodes = Array.from(cells.corners.subarray(cells.start[cell]!, cells.start[cell + 1]!));
	const places = nodes.map((node) => pointAt(grid.positions, node));
	const seen = places.map(project);
	const far = (one: Pixel | null) => (one ? Math.hypot(one.x - pointer.x, one.y - pointer.y) : Infinity);
	const nearest = seen.reduce((best, one, k) => (far(one) < far(seen[best]!) ? k : best), 0);
	if (far(seen[nearest]!) < NODE_REACH) return { is: 'node', at: places[nearest]! };
	let best: { reach: number; snap: Snap } | null = null;
	for (let k = 0; k < places.length; k++) {
		const ends: [Vector, Vector] = [places[k]!, places[(k + 1) % places.length]!];
		const at = nearestOnLine(ends, ray);
		const reach = far(project(at));
		if (reach < Math.min(EDGE_REACH, best?.reach ?? Infinity))
			best = { reach, snap: { is: 'edge', at, ends } };
	}
	return best?.snap ?? null;
}

/** The place between two points that is nearest to a ray. */
function nearestOnLine([from, to]: readonly [Vector, Vector], ray: THREE.Ray): Vector {
	const onLine = new THREE.Vector3();
	ray.distanceSqToSegment(new THREE.Vector3(...from), new THREE.Vector3(...to), undefined, onLine);
	return onLine.toArray();
}

/** What lies between two places: mm and degrees. */
export interface Measured {
	readonly from: Vector;
	readonly to: Vector;
	readonly length: number;
	/** Along x, y and z. */
	readonly along: Vector;
	/** Between the lines or the faces they lie on; null where one is neither. */
	readonly angle: number | null;
	/** Of two lines the shortest way between them, of a face the way straight out of it; null where that is the length. */
	readonly apart: number | null;
}

export function measured(a: Snap, b: Snap): Measured {
	const [from, to] = [new THREE.Vector3(...a.at), new THREE.Vector3(...b.at)];
	const way = to.clone().sub(from);
	const length = way.length();
	const between = (p: Vector, q: Vector, whole: boolean) => {
		const angle = (new THREE.Vector3(...p).angleTo(new THREE.Vector3(...q)) * 180) / Math.PI;
		return whole ? angle : Math.min(angle, 180 - angle);
	};
	let angle: number | null = null;
	let apart: number | null = null;
	if (a.is === 'edge' && b.is === 'edge') {
		const ways = [a, b].map(({ ends }) =>
			new THREE.Vector3(...ends[1]).sub(new THREE.Vector3(...ends[0])).normalize()
		) as [THREE.Vector3, THREE.Vector3];
		angle = between(ways[0].toArray(), ways[1].toArray(), false);
		const across = ways[0].clone().cross(ways[1]);
		// Of lines that run alongside it is what is left of the way without its part along them.
		apart =
			across.length() > 1e-6
				? Math.abs(way.dot(across.normalize()))
				: way.clone().addScaledVector(ways[0], -way.dot(ways[0])).length();
	} else if (a.is === 'face' || b.is === 'face') {
		const normal = (a.is === 'face' ? a : (b as Extract<Snap, { is: 'face' }>)).normal;
		if (a.is === 'face' && b.is === 'face') angle = between(a.normal, b.normal, true);
		apart = Math.abs(way.dot(new THREE.Vector3(...normal)));
	}
	return { from: [...a.at], to: [...b.at], length, along: way.toArray(), angle, apart };
}
