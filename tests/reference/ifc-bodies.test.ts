import { expect } from 'chai';
import { IfcAPI } from 'web-ifc';
import { readIfcFaces } from '../../src/core/exchange/ifc/read-faces';
import type { ReadFace } from '../../src/core/exchange/step/read-surfaces';
import { evaluateGrid, surfaceArea } from '../../src/core/geometry/surface';
import { makeFace } from '../../src/core/mass/face';
import { flatFaces } from '../../src/core/exchange/mesh/flat-faces';
import { slab } from '../ifc-slab';
import { cross, dot, length, pointAt, subtract, type Vector } from '../../src/core/geometry/vector';

const open = async () => {
	const api = new IfcAPI();
	await api.Init();
	return api;
};
const read = (text: string) => readIfcFaces(new TextEncoder().encode(text), open, () => {});

/** The area within loops on a plane, openings taken away (mm²). */
const areaOf = (loops: readonly (readonly Vector[])[]) => {
	let sum: Vector = [0, 0, 0];
	for (const loop of loops)
		for (let k = 1; k + 1 < loop.length; k++) {
			const twice = cross(subtract(loop[k]!, loop[0]!), subtract(loop[k + 1]!, loop[0]!));
			sum = [sum[0] + twice[0], sum[1] + twice[1], sum[2] + twice[2]];
		}
	return length(sum) / 2;
};
const cornersOf = (net: Float64Array) =>
	[0, 1, 2, 3].map((k) =>
		pointAt(
			net.filter((_, n) => n % 4 < 3),
			k
		)
	);
const outsideOf = (net: Float64Array) => {
	const [a, b, c] = cornersOf(net) as [Vector, Vector, Vector];
	return cross(subtract(b, a), subtract(c, a));
};

describe('bodies of an IFC, read by web-ifc', () => {
	it('a box is six rectangles where it stands, each seen from outside, none of them trimmed', async () => {
		const { faces, refused } = await read(
			slab(
				[
					[0, 0],
					[9, 0],
					[9, 6],
					[0, 6]
				],
				[]
			)
		);
		expect(refused).to.deep.equal([]);
		expect(faces.map(({ name }) => name).sort()).to.deep.equal(
			['Deck side', 'Deck side', 'Deck side', 'Deck side', 'Deck top', 'Deck underside'].sort()
		);
		for (const { surface, ends } of faces) {
			expect(ends).to.deep.equal([]);
			const corners = cornersOf(surface.net);
			for (const [x, y, z] of corners) {
				expect(Math.min(Math.abs(x), Math.abs(x - 9000))).to.be.lessThan(0.01);
				expect(Math.min(Math.abs(y), Math.abs(y - 6000))).to.be.lessThan(0.01);
				expect(Math.min(Math.abs(z - 3000), Math.abs(z - 3400))).to.be.lessThan(0.01);
			}
			// Away from the middle of the box.
			expect(dot(outsideOf(surface.net), subtract(corners[0]!, [4500, 3000, 3200]))).to.be.greaterThan(0);
		}
	});

	it('an angle with an opening: its top ends at its outline and round the opening (areas by hand)', async () => {
		const outline = [
			[0, 0],
			[9, 0],
			[9, 3],
			[4, 3],
			[4, 7],
			[0, 7]
		] as const;
		const opening = [
			[1, 1],
			[1, 2],
			[3, 2],
			[3, 1]
		] as const;
		const { faces } = await read(slab(outline, [opening]));
		const top = faces.find(({ name }) => name === 'Deck top')!;
		expect(top.ends).to.have.length(2);
		expect(top.ends.map((loop) => loop.length).sort()).to.deep.equal([4, 6]);
		// 9 by 3 and 4 by 4, less 2 by 1.
		expect(areaOf(top.ends)).to.be.closeTo(41e6, 100);
		expect(faces.filter(({ name }) => name === 'Deck side')).to.have.length(10);
	});

	it('a triangle is trimmed though its corners lie on the rim of its rectangle', async () => {
		const { faces } = await read(
			slab(
				[
					[0, 0],
					[6, 0],
					[0, 6]
				],
				[]
			)
		);
		const top = faces.find(({ name }) => name === 'Deck top')!;
		expect(areaOf(top.ends)).to.be.closeTo(18e6, 100);
	});

	/** Points on a circle from one angle on (degrees), both ends included; metres. */
	const arc = (r: number, from: number, to: number, facets: number, [x, y] = [0, 0]) =>
		Array.from({ length: facets + 1 }, (_, k): [number, number] => {
			const at = ((from + (k * (to - from)) / facets) * Math.PI) / 180;
			return [x! + r * Math.cos(at), y! + r * Math.sin(at)];
		});
	const roundOf = (faces: readonly ReadFace[]) => faces.filter(({ name }) => name === 'Deck round side');
	/** How far a round side is off a cylinder about an upright axis (mm), and whether it looks away from it. */
	const offCylinder = ({ surface }: ReadFace, r: number, [x, y] = [0, 0]) => {
		const at = Array.from({ length: 101 }, (_, k) => k / 100);
		const { points, du, dv } = evaluateGrid(surface, at, [0, 0.5, 1]);
		let [off, outward] = [0, true];
		for (let k = 0; k < points.length; k += 3) {
			const [p, q] = [points[k]! - 1000 * x!, points[k + 1]! - 1000 * y!];
			off = Math.max(off, Math.abs(Math.hypot(p, q) - 1000 * r));
			const n = cross([du[k]!, du[k + 1]!, du[k + 2]!], [dv[k]!, dv[k + 1]!, dv[k + 2]!]);
			outward &&= n[0] * p + n[1] * q > 0;
		}
		return { off, outward };
	};

	it('a round slab told in 400 facets has one round side again, closed, true to the circle', async () => {
		const { faces, refused } = await read(slab(arc(9, 0, 360, 400).slice(1), []));
		expect(refused).to.deep.equal([]);
		expect(faces.map(({ name }) => name)).to.have.members(['Deck top', 'Deck underside', 'Deck round side']);
		const [side] = roundOf(faces);
		const { off, outward } = offCylinder(side!, 9);
		expect(off).to.be.below(0.05);
		expect(outward).to.equal(true);
		// Circumference times thickness, and the top by its corners: a polygon of 400.
		expect(surfaceArea(side!.surface)).to.be.closeTo(2 * Math.PI * 9000 * 400, 20);
		expect(areaOf(faces.find(({ name }) => name === 'Deck top')!.ends) / 1e6).to.be.closeTo(
			200 * 81 * Math.sin((2 * Math.PI) / 400),
			1e-4
		);
		expect(makeFace('side', side!.surface).closedAcross).to.equal(true);
	});

	it('a slab with round corners: four bows between four flat sides; inside an opening it is round inward', async () => {
		const corners = [
			[8, 4, 0],
			[1, 4, 90],
			[1, 1, 180],
			[8, 1, 270]
		] as const;
		const outline = corners.flatMap(([x, y, from]) => arc(1, from, from + 90, 18, [x, y]));
		const opening = arc(0.5, 0, 360, 60, [4, 2.5]).slice(1);
		const { faces } = await read(slab(outline, [opening]));
		const round = roundOf(faces);
		expect(round).to.have.length(5);
		expect(faces.filter(({ name }) => name === 'Deck side')).to.have.length(4);
		for (const [x, y] of corners) {
			const found = round.map((side) => offCylinder(side, 1, [x, y])).filter(({ off }) => off < 0.5);
			expect(found).to.have.length(1);
			expect(found[0]!.outward).to.equal(true);
		}
		const inner = round.map((side) => offCylinder(side, 0.5, [4, 2.5])).filter(({ off }) => off < 0.1);
		expect(inner).to.deep.include.members([{ off: inner[0]!.off, outward: false }]);
	});

	it('a circle that the file tells as one is round; a tower of twenty-four sides keeps them', async () => {
		const square = slab(
			[
				[0, 0],
				[1, 0],
				[1, 1],
				[0, 1]
			],
			[]
		);
		const circle = square.replace(
			/IFCARBITRARYCLOSEDPROFILEDEF\([^;]*\);/,
			'IFCCIRCLEPROFILEDEF(.AREA.,$,$,3.);'
		);
		const column = await read(circle);
		expect(roundOf(column.faces)).to.have.length(1);
		expect(offCylinder(roundOf(column.faces)[0]!, 3).off).to.be.below(0.5);
		const tower = await read(slab(arc(9, 0, 360, 24).slice(1), []));
		expect(roundOf(tower.faces)).to.deep.equal([]);
		expect(tower.faces).to.have.length(26);
	});

	it('bodies that are round two ways, files of nothing and files that are none are told', async () => {
		// A dome of 20 by 40 facets, as triangles.
		const at = (i: number, j: number) => {
			const [turn, rise] = [(j * Math.PI) / 20, (i * Math.PI) / 40];
			return [9 * Math.cos(turn) * Math.cos(rise), 9 * Math.sin(turn) * Math.cos(rise), 9 * Math.sin(rise)];
		};
		const points: string[] = [];
		const triangles: string[] = [];
		for (let i = 0; i < 19; i++)
			for (let j = 0; j < 40; j++) {
				const ring = [at(i, j), at(i, j + 1), at(i + 1, j + 1), at(i + 1, j)];
				for (const p of ring) points.push(`(${p.map((one) => one.toFixed(6)).join()})`);
				const n = points.length;
				triangles.push(`(${n - 3},${n - 2},${n - 1})`, `(${n - 3},${n - 1},${n})`);
			}
		const dome = slab(
			[
				[0, 0],
				[1, 0],
				[1, 1]
			],
			[]
		)
			.replace(
				/=IFCEXTRUDEDAREASOLID\([^;]*;/,
				`=IFCTRIANGULATEDFACESET(#900,$,.F.,(${triangles.join()}),$);\n#900=IFCCARTESIANPOINTLIST3D((${points.join()}));`
			)
			.replace("'SweptSolid'", "'Tessellation'");
		const { faces, refused } = await read(dome);
		expect(faces).to.deep.equal([]);
		expect(refused[0]).to.match(/^Deck: its body has \d+ flat faces; up to 300 are taken\. .*round two ways/);
		const told = (text: string) => read(text).catch((error: Error) => error.message);
		expect(await told('solid a')).to.equal('it is no IFC file in text (ISO 10303-21)');
		const empty = slab(
			[
				[0, 0],
				[1, 0],
				[1, 1]
			],
			[]
		).replace(/#\d+=IFCSLAB.*\n/, '');
		expect(await told(empty)).to.equal('there are no bodies in it');
	});
});

describe('flat faces of a mesh', () => {
	it('of a cube whose triangles share no corner are six of equal area', () => {
		const places: number[] = [];
		for (const axis of [0, 1, 2])
			for (const side of [0, 1]) {
				const at = (u: number, v: number) => {
					const point = [0, 0, 0];
					[point[axis], point[(axis + 1) % 3], point[(axis + 2) % 3]] = [1000 * side, 1000 * u, 1000 * v];
					return point;
				};
				const ring = [at(0, 0), at(1, 0), at(1, 1), at(0, 1)];
				const [a, b, c, d] = (side ? ring : ring.reverse()) as [number[], number[], number[], number[]];
				places.push(...a, ...b, ...c, ...a, ...c, ...d);
			}
		const faces = flatFaces(
			places,
			Array.from({ length: places.length / 3 }, (_, k) => k)
		);
		expect(faces.map(({ area }) => area)).to.deep.equal(Array<number>(6).fill(1e6));
		expect(faces.every(({ loops }) => loops.length === 1 && loops[0]!.length === 4)).to.equal(true);
	});
});
