import { movedIn } from '../../geometry/jointed';
import { areaOfTriangles, openSides } from '../../geometry/triangulate';
import { pointAt } from '../../geometry/vector';
import { volumeWithin } from '../../geometry/volume';
import { OwnMeshSink, type OwnMesh } from '../own-mesh-sink';
import type { SheetOutput } from '../program';
import type { SheetOf, SiteSheet } from './site-sheet';

/** Triangles of a closed shell: the outer side, the inner one, and all round between the two. */
function shellOf(triangles: ArrayLike<number>, count: number): Uint32Array {
	const shell: number[] = [];
	for (let k = 0; k < triangles.length; k += 3) {
		const [a, b, c] = [triangles[k]!, triangles[k + 1]!, triangles[k + 2]!];
		shell.push(a, b, c, count + a, count + c, count + b);
	}
	for (const [a, b] of openSides(triangles)) shell.push(b, a, count + a, b, count + a, count + b);
	return Uint32Array.from(shell);
}

/** A joint is halved so often where it would fold a sheet over; after that there is none. */
const HALVINGS = 6;

/** The points of a sheet with its rim moved in by a joint, and whether it is narrower somewhere, where the rim is sharp. */
function jointed(
	{ points, normals, rim, triangles }: SiteSheet,
	joint: number
): { readonly points: Float64Array; readonly isNarrower: boolean } {
	if (!(joint > 0)) return { points, isNarrower: false };
	const moved = points.slice();
	const at = (k: number) => pointAt(points, (k + rim) % rim);
	for (let k = 0; k < rim; k++)
		moved.set(movedIn(at(k - 1), at(k), at(k + 1), pointAt(normals, k), joint), 3 * k);
	let isNarrower = false;
	for (let round = 0; round <= HALVINGS; round++) {
		const folded = foldedOver(points, moved, normals, triangles);
		if (!folded.size) break;
		isNarrower = true;
		const left = round < HALVINGS ? 0.5 : 0;
		for (const k of folded)
			for (let n = 3 * k; n < 3 * k + 3; n++) moved[n] = points[n]! + left * (moved[n]! - points[n]!);
	}
	return { points: moved, isNarrower };
}

/** The corners of triangles that face the other way since points were moved. */
function foldedOver(
	points: Float64Array,
	moved: Float64Array,
	normals: Float64Array,
	triangles: ArrayLike<number>
): Set<number> {
	const found = new Set<number>();
	for (let t = 0; t < triangles.length; t += 3) {
		const corners = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!] as const;
		if (facing(moved, normals, ...corners) > 0 || !(facing(points, normals, ...corners) > 0)) continue;
		for (const corner of corners) found.add(corner);
	}
	return found;
}

/** Twice the area of a triangle as it is seen from outside. */
function facing(points: Float64Array, normals: Float64Array, p: number, q: number, r: number): number {
	const [a, b, c] = [3 * p, 3 * q, 3 * r];
	const ux = points[b]! - points[a]!;
	const uy = points[b + 1]! - points[a + 1]!;
	const uz = points[b + 2]! - points[a + 2]!;
	const vx = points[c]! - points[a]!;
	const vy = points[c + 1]! - points[a + 1]!;
	const vz = points[c + 2]! - points[a + 2]!;
	return (
		normals[a]! * (uy * vz - uz * vy) +
		normals[a + 1]! * (uz * vx - ux * vz) +
		normals[a + 2]! * (ux * vy - uy * vx)
	);
}

/** Cells up to this (mm²) are no surface. */
const LEAST_AREA = 1;

/** Makes sheets with the openings of the cells they fill. */
export class SheetSink extends OwnMeshSink {
	/** Rows of cells without area. */
	private readonly flat = new Set<number>();
	/** Rows whose joint is narrower than was asked for. */
	private readonly narrower = new Set<number>();

	constructor(
		private readonly output: SheetOutput,
		private readonly sheetOf: SheetOf
	) {
		super(output, 'plate');
	}

	protected make(
		value: (slot: number) => number,
		row: number,
		origin: readonly [number, number, number]
	): OwnMesh {
		const { output } = this;
		const [thickness, out, joint] = [value(output.thickness), value(output.out), value(output.joint)];
		const sheet = this.sheetOf(row);
		const { points, isNarrower } = jointed(sheet, joint);
		if (isNarrower) this.narrower.add(row);
		const { normals, triangles } = sheet;
		const count = points.length / 3;
		const places = new Float64Array(6 * count);
		for (let k = 0; k < 3 * count; k++) {
			places[k] = points[k]! + out * normals[k]! - origin[k % 3]!;
			places[3 * count + k] = places[k]! - thickness * normals[k]!;
		}
		const shell = shellOf(triangles, count);
		const area = areaOfTriangles(points, triangles);
		if (!(area > LEAST_AREA)) this.flat.add(row);
		const volume = volumeWithin(places, shell);
		return { vertices: new Float32Array(places), triangles: shell, volume, area, thickness };
	}

	look(raise: (row: number, flag: number) => void, lose: (row: number, flag: number) => void): void {
		for (const row of this.flat) lose(row, this.output.flat);
		for (const row of this.narrower) raise(row, this.output.narrower);
	}
}
