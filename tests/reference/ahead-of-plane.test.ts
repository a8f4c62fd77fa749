import { expect } from 'chai';
import fc from '../property';
import { aheadOfPlane, type Plane } from '../../src/core/geometry/solid/ahead-of-plane';
import {
	loadSolids,
	meshOfSolid,
	solidLibrary,
	solidOf,
	type ClosedMesh
} from '../../src/core/geometry/solid/library';
import { openSides } from '../../src/core/geometry/triangulate';
import { dot, unit, type Vector } from '../../src/core/geometry/vector';
import { volumeWithin } from '../../src/core/geometry/volume';

type Loop = [number, number][];
const box = (x: number, y: number, w: number, h: number): Loop => [
	[x, y],
	[x + w, y],
	[x + w, y + h],
	[x, y + h]
];
const hole = (...of: [number, number, number, number]): Loop => box(...of).reverse();
/** Sections of bars as they are ordered. */
const SECTIONS: Record<string, Loop[]> = {
	full: [box(-25, -60, 50, 120)],
	hollow: [box(-25, -60, 50, 120), hole(-22, -57, 44, 114)],
	'of two chambers': [box(-25, -60, 50, 120), hole(-22, -57, 44, 80), hole(-22, 26, 44, 31)],
	round: [
		Array.from({ length: 24 }, (_, k): [number, number] => [
			40 * Math.cos((k * Math.PI) / 12),
			40 * Math.sin((k * Math.PI) / 12)
		])
	],
	angle: [
		[
			[-25, -60],
			[25, -60],
			[25, -54],
			[-19, -54],
			[-19, 60],
			[-25, 60]
		]
	],
	channel: [
		[
			[-25, -60],
			[25, -60],
			[25, -54],
			[-19, -54],
			[-19, 54],
			[25, 54],
			[25, 60],
			[-25, 60]
		]
	]
};
const LONG = 2400;

function barOf(section: keyof typeof SECTIONS): ClosedMesh {
	const solid = solidLibrary().Manifold.extrude(SECTIONS[section]!, LONG);
	const mesh = meshOfSolid(solid);
	solid.delete();
	return mesh;
}

function volumeByLibrary(mesh: ClosedMesh, planes: readonly Plane[]): number {
	let solid = solidOf(mesh);
	for (const { at, normal } of planes) {
		const next = solid.trimByPlane([...normal], dot(at, normal));
		solid.delete();
		solid = next;
	}
	const volume = solid.volume();
	solid.delete();
	return volume;
}

const turn = fc.double({ min: -1, max: 1, noNaN: true });
/** A plane that looks up the bar, near its foot or anywhere in it. */
const plane = fc.record({
	at: fc
		.tuple(turn, turn, fc.double({ min: -0.05, max: 1.05, noNaN: true }))
		.map(([x, y, z]): Vector => [30 * x, 60 * y, LONG * z]),
	normal: fc.tuple(turn, turn, fc.double({ min: 0.2, max: 1, noNaN: true })).map((v): Vector => unit(v))
});

describe('what lies ahead of planes, against the booleans of manifold-3d', () => {
	before(loadSolids);

	for (const section of Object.keys(SECTIONS))
		it(`a ${section} bar: as much is left, and it closes`, () => {
			const mesh = barOf(section);
			let cut = 0;
			fc.assert(
				fc.property(fc.array(plane, { minLength: 1, maxLength: 4 }), (planes) => {
					let left: ClosedMesh | null = mesh;
					for (const one of planes) left = left && aheadOfPlane(left, one);
					if (!left) return;
					cut++;
					expect(openSides(left.triangles)).to.deep.equal([]);
					expect(volumeWithin(left.vertices, left.triangles)).to.be.closeTo(
						volumeByLibrary(mesh, planes),
						1e-4 * volumeWithin(mesh.vertices, mesh.triangles)
					);
				}),
				{ numRuns: 150 }
			);
			// Several planes may leave outlines in two parts; most cuts are made without the library.
			expect(cut).to.be.greaterThan(60);
		});

	it('two planes through one line, as mitres are: exact halves of an end', () => {
		const mesh = barOf('full');
		const [half, side] = [Math.SQRT1_2, 25];
		let left: ClosedMesh | null = mesh;
		for (const x of [half, -half]) left = left && aheadOfPlane(left, { at: [0, 0, 0], normal: [x, 0, half] });
		expect(openSides(left!.triangles)).to.deep.equal([]);
		expect(volumeWithin(left!.vertices, left!.triangles)).to.be.closeTo(
			120 * (2 * side * LONG - side * side),
			1e-3
		);
	});

	it('what no plane reaches is the mesh itself, what is behind one is nothing', () => {
		const mesh = barOf('hollow');
		expect(aheadOfPlane(mesh, { at: [0, 0, 0], normal: [0, 0, 1] })).to.equal(mesh);
		expect(aheadOfPlane(mesh, { at: [0, 0, LONG], normal: [0, 0, 1] })!.triangles).to.have.length(0);
	});

	it('leaves to the library what falls into two outlines, and what does not close', () => {
		expect(aheadOfPlane(barOf('channel'), { at: [0, 0, 0], normal: [1, 0, 0] })).to.equal(null);
		const { vertices, triangles } = barOf('full');
		const open = { vertices, triangles: Array.from(triangles).slice(3) };
		expect(aheadOfPlane(open, { at: [0, 0, 1200], normal: [0, 0.1, 1] })).to.equal(null);
	});
});
