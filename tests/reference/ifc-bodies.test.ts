import { expect } from 'chai';
import { IfcAPI } from 'web-ifc';
import { readIfcFaces } from '../../src/core/exchange/ifc/read-faces';
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

	it('round bodies, files of nothing and files that are none are told', async () => {
		const round = Array.from({ length: 400 }, (_, k): [number, number] => [
			9 * Math.cos((k * Math.PI) / 200),
			9 * Math.sin((k * Math.PI) / 200)
		]);
		const { faces, refused } = await read(slab(round, []));
		expect(faces).to.deep.equal([]);
		expect(refused[0]).to.match(/^Deck: its body has 402 flat faces; up to 300 are taken/);
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
