import { placesOf, trianglesOf } from '$core/part/places';
import { NO_CELL } from '$core/pattern/edges';
import type { Material } from '$core/project/material-schema';
import type { ElementView, GroupView } from '$lib/worker/views';
import * as THREE from 'three';
import type { CellEntry } from './cell-layer';
import type { Matter } from './matter';
import { MM } from './metres';
import { raycastSorted } from './raycast';

/** So many instances tell what the first piece of a group looks like. */
const INSTANCES = 200;

/** How much of an element of the first piece is seen along a direction: half of its surface, as it is foreshortened (mm²). */
function seenAlong({ shape, row, count }: ElementView, way: THREE.Vector3): number {
	const [a, b, c, normal] = [0, 1, 2, 3].map(() => new THREE.Vector3()) as Four;
	let seen = 0;
	for (let k = 0; k < Math.min(count, INSTANCES) && row[k] === row[0]; k++) {
		const places = placesOf(shape, k);
		const triangles = trianglesOf(shape, k);
		for (let t = 0; t < triangles.length; t += 3) {
			a.fromArray(places, 3 * triangles[t]!);
			b.fromArray(places, 3 * triangles[t + 1]!).sub(a);
			c.fromArray(places, 3 * triangles[t + 2]!).sub(a);
			seen += Math.abs(normal.crossVectors(b, c).dot(way)) / 4;
		}
	}
	return seen;
}
type Four = [THREE.Vector3, THREE.Vector3, THREE.Vector3, THREE.Vector3];

/** What is seen of the first piece from afar. */
interface Seen {
	/** mm² */
	readonly area: number;
	/** That of which most is seen, in a mixture of the colours of all. */
	readonly material: Material;
}

function seenOf({ elements }: GroupView, way: THREE.Vector3): Seen | null {
	const shares = elements.map((one) => ({ one, seen: seenAlong(one, way) }));
	const all = shares.reduce((sum, { seen }) => sum + seen, 0);
	const most = shares.sort((a, b) => b.seen - a.seen)[0];
	if (!most || !(all > 0)) return null;
	const mixture = new THREE.Color(0, 0, 0);
	let opacity = 0;
	for (const { one, seen } of shares) {
		mixture.add(new THREE.Color(one.material.colour).multiplyScalar(seen / all));
		opacity += (one.material.opacity * seen) / all;
	}
	const colour = `#${mixture.getHexString()}`;
	return { area: all, material: { ...most.one.material, colour, opacity, surface: 'even' } };
}

/** The triangles of some cells, of those of a face, which are sorted by their cells. @param sites ascending */
function verticesOf(cell: Uint32Array, sites: Uint32Array): Uint32Array {
	const found: number[] = [];
	let [low, high] = [0, cell.length];
	while (low < high) {
		const middle = (low + high) >> 1;
		if (cell[middle]! < sites[0]!) low = middle + 1;
		else high = middle;
	}
	for (let t = low, n = 0; t < cell.length && n < sites.length; t++) {
		while (n < sites.length && sites[n]! < cell[t]!) n++;
		if (sites[n] === cell[t]) found.push(3 * t, 3 * t + 1, 3 * t + 2);
	}
	return Uint32Array.from(found);
}

/** Pieces as they are seen from afar. */
export interface PlainPieces {
	readonly drawn: THREE.Mesh | THREE.LineSegments;
	/** @param pixel what of the model a point of the picture is (m) */
	seenAt(pixel: number): void;
	dispose(): void;
}

function geometryOf(from: THREE.BufferGeometry, index: Uint32Array): THREE.BufferGeometry {
	const geometry = new THREE.BufferGeometry();
	geometry.setAttribute('position', from.getAttribute('position'));
	geometry.setIndex(new THREE.BufferAttribute(index, 1));
	return geometry;
}

function plainCells({ sites }: GroupView, { triangles }: CellEntry, look: THREE.Material): PlainPieces {
	const geometry = geometryOf(triangles.geometry, verticesOf(triangles.cell, sites));
	const drawn = new THREE.Mesh(geometry, look);
	drawn.raycast = raycastSorted;
	drawn.receiveShadow = drawn.castShadow = true;
	return { drawn, seenAt: () => {}, dispose: () => geometry.dispose() };
}

/** @param wide how wide the bars are seen (m): lines that are drawn wider let as much more be seen through */
function plainLines({ sites }: GroupView, { lines }: CellEntry, color: string, wide: number): PlainPieces {
	const geometry = geometryOf(
		lines.geometry,
		Uint32Array.from([...sites].flatMap((line) => [2 * line, 2 * line + 1]))
	);
	const look = new THREE.LineBasicMaterial({ color, transparent: true });
	return {
		drawn: new THREE.LineSegments(geometry, look),
		seenAt: (pixel) => (look.opacity = Math.min(1, wide / pixel)),
		dispose: () => {
			geometry.dispose();
			look.dispose();
		}
	};
}

/**
 * Pieces plainly: their cells, or lines, in the material of which most is seen. They share the vertices of their face's
 * own cells and lines.
 * @returns null for pieces on nodes and along chains: of those there are few, and no plainer way
 */
export function plainPieces(group: GroupView, face: CellEntry, matter: Matter): PlainPieces | null {
	const { over, sites } = group;
	const { edges, grid, measures } = face.view;
	const [first] = sites;
	if (first === undefined || (over !== 'cell' && over !== 'line')) return null;
	const beside = over === 'cell' ? first : edges.left[first]!;
	const way = new THREE.Vector3().fromArray(measures.normal, beside === NO_CELL ? 0 : 3 * beside);
	const seen = seenOf(group, way);
	if (!seen) return null;
	const [from, to] = [edges.from[first] ?? 0, edges.to[first] ?? 0].map((node) =>
		new THREE.Vector3().fromArray(grid.positions, 3 * node)
	) as [THREE.Vector3, THREE.Vector3];
	const plain =
		over === 'cell'
			? plainCells(group, face, matter.of(seen.material))
			: plainLines(group, face, seen.material.colour, (MM * seen.area) / from.distanceTo(to));
	plain.drawn.position.set(...face.triangles.origin);
	// Whether its chunk is in view is asked before it is drawn.
	plain.drawn.frustumCulled = false;
	return plain;
}
