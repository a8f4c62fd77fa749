import { expect } from 'chai';
import fc from '../property';
import * as THREE from 'three';
import { apart, type Label } from '../../src/lib/model/labels';
import { measured, snapToRim, type Snap } from '../../src/lib/model/measuring';
import type { Vector } from '../../src/core/geometry/vector';

const face = (at: Vector, normal: Vector): Snap => ({ is: 'face', at, normal });
const edge = (at: Vector, ends: [Vector, Vector]): Snap => ({ is: 'edge', at, ends });

describe('lengths measured in the model', () => {
	it('tells the way between two points by its length and its parts', () => {
		const {
			length,
			along,
			angle,
			apart: between
		} = measured({ is: 'node', at: [100, 200, 300] }, { is: 'node', at: [400, 600, 300 + 1200] });
		// 3 · 4 · 12 · 13
		expect(length).to.be.closeTo(1300, 1e-9);
		expect(along).to.deep.equal([300, 400, 1200]);
		expect([angle, between]).to.deep.equal([null, null]);
	});

	it('tells how far lines are apart and how they turn, whichever way they were drawn', () => {
		const a = edge(
			[0, 0, 0],
			[
				[-500, 0, 0],
				[500, 0, 0]
			]
		);
		const b = edge(
			[70, 30, 900],
			[
				[70, 1000, 900],
				[70, -1000, 900]
			]
		);
		expect(measured(a, b).angle).to.be.closeTo(90, 1e-9);
		expect(measured(a, b).apart).to.be.closeTo(900, 1e-9);
		const alongside = edge(
			[250, 0, 40],
			[
				[900, 0, 40],
				[0, 0, 40]
			]
		);
		expect(measured(a, alongside).angle).to.be.closeTo(0, 1e-9);
		expect(measured(a, alongside).apart).to.be.closeTo(40, 1e-9);
	});

	it('tells the fold between faces, and the way straight out of one', () => {
		const out = measured(face([0, 0, 0], [0, 0, 1]), face([300, 400, 120], [0, 1, 0]));
		expect(out.angle).to.be.closeTo(90, 1e-9);
		expect(out.apart).to.be.closeTo(120, 1e-9);
		expect(measured(face([0, 0, 0], [0, 0, 1]), { is: 'node', at: [30, 40, -5] }).apart).to.be.closeTo(
			5,
			1e-9
		);
	});

	it('takes the node, the line or neither, by what is near the pointer', () => {
		// A square of a metre in plan, drawn ten millimetres to a pixel.
		const positions = Float64Array.from([0, 0, 0, 1000, 0, 0, 1000, 1000, 0, 0, 1000, 0]);
		const view = {
			cells: { start: Uint32Array.from([0, 4]), corners: Uint32Array.from([0, 1, 2, 3]) },
			grid: { positions }
		} as unknown as Parameters<typeof snapToRim>[0];
		const project = ([x, y]: Vector) => ({ x: x / 10, y: y / 10 });
		const at = (x: number, y: number) =>
			snapToRim(
				view,
				0,
				{ x, y },
				project,
				new THREE.Ray(new THREE.Vector3(10 * x, 10 * y, 500), new THREE.Vector3(0, 0, -1))
			);
		expect(at(98, 3)).to.deep.equal({ is: 'node', at: [1000, 0, 0] });
		const onLine = at(40, 5)!;
		expect(onLine.is).to.equal('edge');
		expect(onLine.at.map((value) => Math.round(value))).to.deep.equal([400, 0, 0]);
		expect(at(50, 50)).to.equal(null);
	});
});

describe('labels over the model', () => {
	const label = fc.record({
		text: fc.string({ minLength: 1, maxLength: 12 }),
		at: fc.option(fc.record({ x: fc.integer({ min: 0, max: 800 }), y: fc.integer({ min: 0, max: 500 }) })),
		kind: fc.constantFrom('mark', 'corner', 'node')
	}) as fc.Arbitrary<Label>;

	it('never lie on one another; marks come first, and what has room is written', () => {
		fc.assert(
			fc.property(fc.array(label, { maxLength: 80 }), (labels) => {
				const kept = apart(labels);
				const wide = ({ text }: Label) => 6.8 * text.length + 10;
				const meet = (a: Label, b: Label) =>
					Math.abs(a.at!.y - b.at!.y) < 17 && Math.abs(a.at!.x - b.at!.x) < (wide(a) + wide(b)) / 2;
				kept.forEach((one, k) =>
					kept.slice(k + 1).forEach((other) => expect(meet(one, other)).to.equal(false))
				);
				for (const one of labels) {
					if (!one.at) continue;
					const isKept = kept.some(
						({ text, at, kind }) => text === one.text && at === one.at && kind === one.kind
					);
					if (!isKept) expect(kept.some((other) => meet(one, other))).to.equal(true);
				}
				const first = labels.find(({ kind, at }) => kind === 'mark' && at);
				if (first) expect(kept[0]).to.deep.equal(first);
			})
		);
	});
});
