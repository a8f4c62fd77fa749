import { expect } from 'chai';
import { compilePart } from '../../src/core/part/compile/compile';
import { PartError } from '../../src/core/part/compile/fault';
import type { Vector } from '../../src/core/geometry/vector';
import { shippedParts } from '../../src/core/part/kit';
import { defaultFormula, inputKind, kernelValue, typeOfKind } from '../../src/core/part/inputs';
import { framedGlass } from '../../src/core/part/kit/framed-glass';
import type { PartDefinition } from '../../src/core/project/part-definition';
import { checkFormula } from '../../src/core/units/formula/check';
import { evaluateConstant } from '../../src/core/units/formula/evaluate';
import { runOnce } from '../trial-run';

const square = (side: number): Vector[] => [
	[0, 0, 0],
	[side, 0, 0],
	[side, side, 0],
	[0, side, 0]
];

describe('shipped parts', () => {
	it('the default of every input, as a formula, is of its kind and has its value', () => {
		const kinds = new Set<string>();
		const inputs = shippedParts.flatMap((part) => part.inputs);
		const area = { name: 'a', label: 'A', kind: 'area', default: 2500, scope: 'per piece' } as const;
		for (const input of [...inputs, area]) {
			const kind = inputKind(input);
			if (!kind) continue;
			kinds.add(input.kind);
			const text = defaultFormula(input);
			const expression = checkFormula(text, { names: {}, functions: {}, expected: typeOfKind(kind) });
			expect(evaluateConstant(expression, text), `${input.label}: ${text}`).to.be.closeTo(
				kernelValue(input, input.default),
				1e-9
			);
		}
		expect([...kinds]).to.include.members(['length', 'angle', 'ratio', 'count', 'choice', 'area']);
	});

	it('Framed glass on a 1 m square: closed forms', () => {
		const run = runOnce(framedGlass, square(1000), {
			joint: 10,
			frame_width: 40,
			frame_depth: 60,
			pane: 20,
			recess: 10
		});
		const [pane, ...frame] = run.elements.toReversed();
		expect(frame.length).to.equal(4);
		for (const bar of frame) {
			expect(bar.volume[0]).to.be.closeTo(((980 ** 2 - 900 ** 2) * 60) / 4, 1e-3);
			expect(bar.length[0]).to.be.closeTo(980, 1e-6);
		}
		expect(pane!.area[0]).to.be.closeTo(900 ** 2, 1e-6);
		expect(pane!.volume[0]).to.be.closeTo(900 ** 2 * 20, 1e-3);
		expect(run.results.get('clear_area')![0]).to.be.closeTo(900 ** 2, 1e-6);
		expect(run.flagTexts).to.deep.equal([]);
	});

	it('the inset of a triangle is mitred: its area is (r − w)²/r² of the whole (inradius r)', () => {
		const side = 1000;
		const triangle: Vector[] = [
			[0, 0, 0],
			[side, 0, 0],
			[side / 2, (side * Math.sqrt(3)) / 2, 0]
		];
		const run = runOnce(framedGlass, triangle, { joint: 0, frame_width: 50 });
		const r = (side * Math.sqrt(3)) / 6;
		expect(run.results.get('clear_area')![0]).to.be.closeTo(
			((Math.sqrt(3) / 4) * side ** 2 * (r - 50) ** 2) / r ** 2,
			1e-4
		);
	});

	it('a held-back frame width says so; a cell too small is flagged and has no elements', () => {
		const held = runOnce(framedGlass, square(300), { frame_width: 90 });
		expect(held.flagTexts.join()).to.match(/Frame width: held back to a fifth/);
		expect(held.results.get('clear_area')![0]).to.be.closeTo((280 - 120) ** 2, 1e-6);
		const failed = runOnce(framedGlass, square(30), { joint: 20 });
		expect(failed.flagTexts.join()).to.match(/too small/);
		expect(failed.elements.every((table) => table.count === 0)).to.equal(true);
	});

	it('Blade stack: count by spacing, length by the gap at both ends', () => {
		const blades = shippedParts.find((part) => part.id === 'blade-stack')!;
		const upright: Vector[] = [
			[0, 0, 0],
			[2000, 0, 0],
			[2000, 0, 1000],
			[0, 0, 1000]
		];
		const run = runOnce(blades, upright, { spacing: 240, end_gap: 15 });
		expect(run.elements[0]!.count).to.equal(5);
		expect([...run.elements[0]!.length].every((mm) => Math.abs(mm - 1970) < 1e-6)).to.equal(true);
		expect([...run.elements[0]!.turn]).to.deep.equal([0, 1, 2, 3, 4]);
	});
});

describe('the checker', () => {
	const faultsOf = (change: Partial<PartDefinition>): string => {
		try {
			compilePart({ ...framedGlass, ...change }, 4);
		} catch (error) {
			if (error instanceof PartError) return error.message;
			throw error;
		}
		return '';
	};
	const bare = { elements: [], measures: [], limits: [] };

	it('names the step and says what is wrong: order, cycle, unknown, type, units, twice', () => {
		const cases: [PartDefinition['steps'], RegExp][] = [
			[
				[
					{ name: 'a', do: 'number', value: 'b + 1 mm' },
					{ name: 'b', do: 'number', value: 'joint' }
				],
				/step a: "b" comes later; move it above/
			],
			[
				[
					{ name: 'a', do: 'number', value: 'b' },
					{ name: 'b', do: 'number', value: 'a' }
				],
				/a cycle: a → b → a/
			],
			[[{ name: 'a', do: 'inset', ring: 'cel', by: 'joint' }], /step a: "cel" is not known/],
			[[{ name: 'a', do: 'inset', ring: 'centre', by: 'joint' }], /"centre" is a point; a ring is wanted/],
			[[{ name: 'a', do: 'inset', ring: 'cell', by: 'joint * joint' }], /is an area; a length is wanted/],
			[[{ name: 'joint', do: 'number', value: '1' }], /used already/],
			[[{ name: 'a', do: 'inset', ring: 'cell', by: ['1', '2'] }], /2 widths are given for a ring of 4/]
		];
		for (const [steps, sentence] of cases) expect(faultsOf({ ...bare, steps })).to.match(sentence);
	});

	it('of a step that fails, what uses it says nothing: only the cause is told', () => {
		const faults = faultsOf({
			limits: [],
			steps: [
				{ name: 'in', do: 'inset', ring: 'cel', by: 'joint' },
				{ name: 'slab', do: 'plate', ring: 'in', thickness: 'joint', side: 'in' },
				{ name: 'n', do: 'number', value: 'joint + 1' },
				{ name: 'm', do: 'number', value: 'n * 2' }
			],
			elements: [{ name: 'glass', label: 'Glass', category: 'plate', of: ['slab'], material: 'glass' }],
			measures: [{ name: 'reach', label: 'Reach', kind: 'length', value: 'm' }]
		});
		expect(faults.split('\n').map((line) => line.split(':')[0])).to.deep.equal(['step in', 'step n']);
	});
});
