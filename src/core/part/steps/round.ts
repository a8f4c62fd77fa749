import type { PointRegisters, Register } from '../builder';
import { meshSolid } from '../solids';
import type { Solid, Vectors } from '../values';

const SIDES = 16;
const RINGS = 8;
type Corner = [x: number, y: number, z: number];

/** Triangles and directions of a ball's corners: a pole, rings of corners, a pole. */
function unitBall(): { corners: Corner[]; triangles: number[] } {
	const corners: Corner[] = [[0, 0, -1]];
	for (let j = 1; j < RINGS; j++)
		for (let i = 0; i < SIDES; i++) {
			const [up, round] = [Math.PI * (j / RINGS - 0.5), (2 * Math.PI * i) / SIDES];
			corners.push([Math.cos(up) * Math.cos(round), Math.cos(up) * Math.sin(round), Math.sin(up)]);
		}
	corners.push([0, 0, 1]);
	const at = (j: number, i: number) => 1 + (j - 1) * SIDES + (i % SIDES);
	const top = corners.length - 1;
	const triangles: number[] = [];
	for (let i = 0; i < SIDES; i++) {
		triangles.push(0, at(1, i + 1), at(1, i));
		for (let j = 1; j < RINGS - 1; j++)
			triangles.push(at(j, i), at(j, i + 1), at(j + 1, i + 1), at(j, i), at(j + 1, i + 1), at(j + 1, i));
		triangles.push(top, at(RINGS - 1, i), at(RINGS - 1, i + 1));
	}
	return { corners, triangles };
}

/** Corners and triangles of a mesh of a ball of diameter 1, with the volume of a true one: π/6. */
const unit = (() => {
	const { corners, triangles } = unitBall();
	let six = 0;
	for (let t = 0; t < triangles.length; t += 3) {
		const [p, q, r] = [0, 1, 2].map((k) => corners[triangles[t + k]!]!) as [Corner, Corner, Corner];
		six +=
			p[0] * (q[1] * r[2] - q[2] * r[1]) +
			p[1] * (q[2] * r[0] - q[0] * r[2]) +
			p[2] * (q[0] * r[1] - q[1] * r[0]);
	}
	const size = Math.cbrt(Math.PI / six);
	return { corners: corners.map((p) => p.map((value) => value * size) as Corner), triangles };
})();

/** A ball as a mesh that holds as much as a true one. */
export function ball(v: Vectors, centre: PointRegisters, diameter: Register): Solid {
	const { b } = v;
	const vertices = unit.corners.map(([x, y, z]) => ({
		x: b.add(centre.x, b.multiply(diameter, b.constant(x))),
		y: b.add(centre.y, b.multiply(diameter, b.constant(y))),
		z: b.add(centre.z, b.multiply(diameter, b.constant(z)))
	}));
	const cube = b.multiply(diameter, b.multiply(diameter, diameter));
	return { ...meshSolid(v, vertices, unit.triangles), volume: b.multiply(cube, b.constant(Math.PI / 6)) };
}

/** Corners of a circle of diameter 1, as a polygon with the area of a true one. */
export const circle: readonly (readonly [number, number])[] = (() => {
	const size = Math.sqrt((2 * Math.PI) / (SIDES * Math.sin((2 * Math.PI) / SIDES))) / 2;
	return Array.from({ length: SIDES }, (_, k) => {
		const angle = (2 * Math.PI * k) / SIDES;
		return [size * Math.cos(angle), size * Math.sin(angle)] as const;
	});
})();
