import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import type { Model } from '../../src/core/cladding/model';
import { pieceKindsOf } from '../../src/core/like/bars-and-nodes';
import type { Form } from '../../src/core/project/form-schema';
import { cellsOf } from '../../src/core/schedule/column';
import { makeSchedule } from '../../src/core/schedule/table';
import { atOnce } from '../../src/core/units/steps';
import { count, projectOf, revolved, sheet } from '../faces';
import fc from '../property';

const variants = [
	{ id: 'strip', name: 'strip', part: 'cap-strip', values: {} },
	{ id: 'ball', name: 'ball', part: 'node-ball', values: {} },
	{ id: 'star', name: 'star', part: 'node-star', values: {} }
];
async function modelOf(form: Form, grid: ReturnType<typeof count>, zone: object): Promise<Model> {
	const model = await new Chain().run(projectOf(form, grid, zone, { variants }));
	expect(model.problems.filter(({ remark }) => !remark)).to.deep.equal([]);
	return model;
}
const run = (lines: string[], ends: object | null = null) => ({
	runs: [{ id: 'r', lines, variant: 'strip', ends }]
});
const sizesOf = (model: Model, over: 'line' | 'node', tolerance = 1) =>
	atOnce(pieceKindsOf(model, over, { tolerance, mirrored: 'apart' })).kinds.map(({ size }) => size);

describe('kinds of bars and of nodes', () => {
	it('on a plain grid there are as many bars of each length as counting gives', async () => {
		const model = await modelOf(sheet(3000, 1600), count(3, 2), run(['bay', 'course', 'rim']));
		expect(sizesOf(model, 'line')).to.deep.equal([9, 8]);
		const names = cellsOf(makeSchedule(model, 'bars').column('kind')!);
		expect(names.filter((one) => one === 'A1')).to.have.length(9);
		expect(makeSchedule(model, 'kinds').rows).to.equal(2);
		// Within a tolerance that is wider than what tells them apart they are one.
		expect(sizesOf(model, 'line', 500)).to.deep.equal([17]);
	});

	it('bars of a mitred frame that face each other are one kind: each is the other turned round', async () => {
		const frame = await modelOf(sheet(2000, 1000), count(1, 1), run(['rim'], { is: 'mitred' }));
		expect(sizesOf(frame, 'line')).to.deep.equal([2, 2]);
		const square = await modelOf(sheet(1000, 1000), count(1, 1), run(['rim'], { is: 'mitred' }));
		expect(sizesOf(square, 'line')).to.deep.equal([4]);
	});

	it('bars as long as each other are two kinds where their ends are cut otherwise', async () => {
		const model = await modelOf(
			sheet(3000, 3000),
			count(3, 3),
			run(['bay', 'course', 'rim'], { is: 'mitred' })
		);
		const bars = makeSchedule(model, 'bars');
		const cuts = ['start', 'end'].map((key) => cellsOf(bars.column(key)!).map(String));
		const names = cellsOf(bars.column('kind')!).map(String);
		// A square frame by counting: within, between the rim and the next node, along the rim.
		expect(sizesOf(model, 'line')).to.deep.equal([12, 8, 4]);
		// Whatever is of one kind is cut alike at both ends, or the other way round.
		const cutOf = new Map<string, string>();
		names.forEach((name, row) => {
			const both = [cuts[0]![row]!, cuts[1]![row]!].sort().join();
			expect(cutOf.get(name) ?? both, name).to.equal(both);
			cutOf.set(name, both);
		});
	});

	it('nodes of a plain grid: those within, those on the rim, those at corners', async () => {
		const nodes = [{ id: 'n', variant: 'ball' }];
		const model = await modelOf(sheet(3000, 2000), count(3, 2), { nodes });
		expect(sizesOf(model, 'node').sort((a, b) => a - b)).to.deep.equal([2, 4, 6]);
	});

	it('on a turned form: within the tolerance of each other in one kind, and none split that are within half of it', async () => {
		const form = revolved(
			[
				[5200, 0],
				[4350, 2300],
				[5000, 5000]
			],
			'smooth'
		);
		const model = await modelOf(form, count(8, 6), run(['bay', 'course']));
		const bars = makeSchedule(model, 'bars');
		const [long, fold] = ['length', 'fold'].map((key) => cellsOf(bars.column(key)!).map(Number)) as [
			number[],
			number[]
		];
		fc.assert(
			fc.property(fc.double({ min: 0.5, max: 200, noNaN: true }), (tolerance) => {
				const { of } = atOnce(pieceKindsOf(model, 'line', { tolerance, mirrored: 'apart' }));
				const byAddress = new Map<string, number>();
				for (const { model: zone } of model.zones)
					for (const clause of zone!.groups)
						clause.group.sites.forEach((site, row) =>
							byAddress.set(`${clause.face} ${site}`, of.get(clause)![row]!)
						);
				const kinds = new Set(byAddress.values());
				// Eight bays that are turned copies: no more kinds than there are courses of bars.
				expect(kinds.size).to.be.at.most(6 + 5);
				const order = cellsOf(bars.column('kind')!);
				expect(order).to.have.length(long.length);
				for (let a = 0; a < long.length; a++)
					for (let b = 0; b < a; b++)
						if (order[a] === order[b]) {
							expect(Math.abs(long[a]! - long[b]!)).to.be.at.most(model.project.like.tolerance + 1e-6);
							expect(Math.abs(fold[a]! - fold[b]!) * 100).to.be.at.most(model.project.like.tolerance + 1e-6);
						} else if (Math.abs(long[a]! - long[b]!) < 1e-9)
							// Of one course: turned about the axis they are the same.
							expect(Math.abs(fold[a]! - fold[b]!) * 100).to.be.greaterThan(
								model.project.like.tolerance / 2 - 1e-6
							);
			}),
			{ numRuns: 8 }
		);
	});
});
