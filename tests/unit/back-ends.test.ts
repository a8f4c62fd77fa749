import { expect } from 'chai';
import fc from '../property';
import { DomainBuilder } from '../../src/core/part/builder';
import { FlagList } from '../../src/core/part/flag-list';
import { loadSolids } from '../../src/core/geometry/solid/library';
import { compilePart } from '../../src/core/part/compile/compile';
import type { BackEnd } from '../../src/core/part/evaluate/back-end';
import { columnLoops } from '../../src/core/part/evaluate/column-loops';
import { twoLanes } from '../../src/core/part/evaluate/two-lanes';
import { trialSheet } from '../../src/core/part/sheet/trial-sheet';
import type { Vector } from '../../src/core/geometry/vector';
import { unsigned } from '../../src/core/part/evaluate/wasm-module';
import { shippedParts } from '../../src/core/part/kit';
import type { Program } from '../../src/core/part/program';
import type { ColumnReader } from '../../src/core/field/column';
import { runProgram } from '../../src/core/part/run';
import { arithmetic } from '../../src/core/units/formula/expression';

/** Repeatable noise for a column, another for every name; within -1 .. 1. */
const noise = (name: string, row: number) =>
	Math.sin([...name].reduce((h, c) => h * 31 + c.charCodeAt(0), row * 7.3));

describe('the two back ends of the part language', () => {
	before(loadSolids);

	it('give the same bits for every operation, in fused stretches and between them', () => {
		const special = [0, 1, -1, 0.5, -2.5, 3, 1e-300, 1e300, NaN, Infinity];
		const value = fc.oneof(fc.constantFrom(...special), fc.double({ min: -1e4, max: 1e4, noNaN: true }));
		const rows = fc.array(fc.tuple(value, value, value), { minLength: 1, maxLength: 300 });
		fc.assert(
			fc.property(rows, fc.shuffledSubarray([...arithmetic], { minLength: 1 }), (given, order) => {
				const b = new DomainBuilder(new FlagList());
				let [x, y, z] = [b.column('a'), b.column('b'), b.column('c')];
				order.forEach((op, k) => {
					const made = b.apply(op, x, y, z);
					b.result(`${k} ${op}`, b.apply('choose', b.apply('equal', made, made), made, b.constant(-77)));
					// Feed results on, so that stretches hang together.
					[x, y, z] = [y, z, b.apply('min', made, x)];
				});
				const program = b.finish();
				const column =
					(name: string): ColumnReader =>
					(out, from, to) => {
						for (let r = from; r < to; r++) out[r - from] = given[r]!['abc'.indexOf(name)]!;
					};
				const run = (backEnd: BackEnd) =>
					[...runProgram(program, column, given.length, [0, 0, 0], backEnd).results].map(([name, values]) => [
						name,
						[...values]
					]);
				expect(run(twoLanes)).to.deep.equal(run(columnLoops));
			}),
			{ numRuns: 150 }
		);
	});

	it('products are joined to the sums they go into, and to nothing else; the bits stay', () => {
		const term = fc.record({ product: fc.boolean(), minus: fc.boolean(), kept: fc.boolean() });
		const value = fc.double({ min: -1e6, max: 1e6, noNaN: true });
		fc.assert(
			fc.property(
				fc.array(term, { minLength: 1, maxLength: 9 }),
				fc.array(fc.tuple(value, value), { minLength: 10, maxLength: 10 }),
				(terms, values) => {
					const b = new DomainBuilder(new FlagList());
					let sum = b.column('0 0');
					let wanted = values[0]![0];
					const keptProducts: [string, number][] = [];
					terms.forEach(({ product, minus, kept }, k) => {
						const [x, y] = values[k + 1]!;
						const register = product
							? b.multiply(b.column(`${k + 1} 0`), b.column(`${k + 1} 1`))
							: b.column(`${k + 1} 0`);
						const number = product ? x * y : x;
						sum = minus ? b.subtract(sum, register) : b.add(sum, register);
						wanted = minus ? wanted - number : wanted + number;
						if (!product || !kept) return;
						b.result(`product ${k}`, register);
						keptProducts.push([`product ${k}`, number]);
					});
					b.result('sum', sum);
					const program = b.finish();
					const column =
						(name: string): ColumnReader =>
						(out) => {
							const [k, which] = name.split(' ').map(Number);
							out.fill(values[k!]![which!]!);
						};
					for (const backEnd of [columnLoops, twoLanes]) {
						const { results } = runProgram(program, column, 1, [0, 0, 0], backEnd);
						expect(results.get('sum')![0]).to.equal(wanted);
						for (const [name, number] of keptProducts) expect(results.get(name)![0]).to.equal(number);
					}
					const joined = terms.filter(({ product, kept }) => product && !kept).length;
					const count = (wantedOp: string) =>
						program.root.operations.filter(({ op }) => op === wantedOp).length;
					expect(count('add product') + count('subtract product')).to.equal(joined);
				}
			),
			{ numRuns: 200 }
		);
	});

	for (const part of shippedParts)
		it(`${part.label}: the same elements, flags and measures on a thousand varied anchors`, () => {
			const corners = part.anchor.kind === 'pair' ? 2 : 4;
			const program: Program = compilePart(part, corners, shippedParts);
			const home: Vector[] = [
				[0, 0, 0],
				[1400, 0, 0],
				[1400, 1100, 0],
				[0, 1100, 0]
			];
			const column =
				(name: string): ColumnReader =>
				(out, from, to) => {
					const [what = '', axis = 'x'] = name.split('.');
					const a = 'xyz'.indexOf(axis);
					const input = part.inputs.find((one) => name === `input.${one.name}`);
					for (let r = from; r < to; r++) {
						// Inputs take a few values each, as those of variants do.
						const wild = input ? Math.round(2 * noise(name, r)) / 2 : noise(name, r);
						// Every fiftieth anchor has fallen into one point.
						if (!input && r % 50 === 0) {
							out[r - from] = 0;
							continue;
						}
						if (input)
							out[r - from] = Number(input.default) * (input.kind === 'angle' ? 0.017 : 1 + 0.4 * wild);
						else if (what.startsWith('corner'))
							out[r - from] = home[Number(what.slice(6)) - 1]![a]! + 900 * wild ** 3;
						else if (what === 'start' || what === 'end')
							out[r - from] = (what === 'end' ? 1500 : 0) + 400 * wild;
						else if (/^way\d/.test(what)) {
							const turn = (Number(what.slice(3)) * Math.PI) / 2;
							out[r - from] = [Math.cos(turn), Math.sin(turn), 0][a]! + 0.3 * wild;
						} else if (what === 'normal') out[r - from] = axis === 'z' ? 1 : 0.3 * wild;
						else out[r - from] = 600 + 500 * wild;
					}
				};
			const fallen = home.map((): Vector => [0, 0, 0]);
			const sheetOf = (row: number) => trialSheet(part.anchor, row % 50 ? home : fallen)(row);
			const [fast, reference] = [twoLanes, columnLoops].map((backEnd) =>
				runProgram(program, column, 1000, [100, 200, 300], backEnd, sheetOf)
			);
			expect(fast).to.deep.equal(reference);
			const made = new Map<number, number>();
			for (const { element, count } of fast!.elements) made.set(element, (made.get(element) ?? 0) + count);
			expect(Math.max(...made.values())).to.be.above(300);
			expect(
				fast!.flags.some((bits) => bits !== 0),
				'some anchors are too wild'
			).to.equal(true);
		});

	it('numbers in the module format: the example of its source', () => {
		// LEB128 as described in the WebAssembly Core Specification 2.0, 5.2.2; worked example from memory.
		expect(unsigned(624485)).to.deep.equal([0xe5, 0x8e, 0x26]);
		expect(unsigned(0)).to.deep.equal([0]);
	});
});
