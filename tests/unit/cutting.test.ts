import { expect } from 'chai';
import fc from '../property';
import { cutLengths, type CutLengths } from '../../src/core/cutting/lengths';
import { cutSheets } from '../../src/core/cutting/sheets';
import { Chain } from '../../src/core/chain/chain';
import type { ZoneInput } from '../../src/core/project/schema';
import { cellsOf } from '../../src/core/schedule/column';
import { makeSchedule } from '../../src/core/schedule/table';
import { count, projectOf, sheet } from '../faces';

/** What the bars of each stock length take of it, with the saw between them (mm). */
function takenOf(lengths: readonly number[], saw: number, { of, count }: CutLengths): number[] {
	const taken = new Array<number>(count).fill(-saw);
	of.forEach((n, bar) => {
		if (n >= 0) taken[n]! += lengths[bar]! + saw;
	});
	return taken;
}

/** First fit decreasing as it is written down. */
function firstFitDecreasing(lengths: readonly number[], stock: number, saw: number): number {
	const rooms: number[] = [];
	for (const length of [...lengths].filter((one) => one <= stock).sort((a, b) => b - a)) {
		const at = rooms.findIndex((room) => room >= length + saw);
		if (at < 0) rooms.push(stock - length);
		else rooms[at]! -= length + saw;
	}
	return rooms.length;
}

describe('Bars cut from stock lengths', () => {
	it('3 × 2 600, 3 × 1 700, 2 × 900, 2 × 780 with a saw of 5 mm take three of 6 m, none more than full', () => {
		const lengths = [2600, 2600, 2600, 1700, 1700, 1700, 900, 900, 780, 780];
		const plan = cutLengths(Float64Array.from(lengths), 6000, 5);
		expect(plan.count).to.equal(3);
		for (const taken of takenOf(lengths, 5, plan)) expect(taken).to.be.at.most(6000);
	});

	it('a bar as long as its stock is cut from one; a longer one from none', () => {
		const plan = cutLengths(Float64Array.of(6000, 6000.5, 2000, 2000, 1990), 6000, 5);
		expect(plan.of[1]).to.equal(-1);
		expect(plan.count).to.equal(2);
	});

	it('are never more than their stock, each cut once, and never worse than first fit decreasing', () => {
		fc.assert(
			fc.property(
				fc.array(fc.oneof(fc.integer({ min: 100, max: 7000 }), fc.constantFrom(780, 900, 1700, 2600)), {
					maxLength: 120
				}),
				fc.integer({ min: 0, max: 20 }),
				(lengths, saw) => {
					const plan = cutLengths(Float64Array.from(lengths), 6000, saw);
					const taken = takenOf(lengths, saw, plan);
					for (const one of taken) expect(one).to.be.within(1, 6000 + 1e-9);
					lengths.forEach((length, bar) => expect(plan.of[bar]! >= 0).to.equal(length <= 6000));
					expect(plan.count).to.be.at.most(firstFitDecreasing(lengths, 6000, saw));
				}
			)
		);
	});
});

describe('Plates cut from stock sheets', () => {
	it('lie within their sheet, apart by the gap, each once; what is larger than one is on none', () => {
		const size = fc.integer({ min: 50, max: 2500 });
		fc.assert(
			fc.property(
				fc.array(fc.tuple(size, size), { maxLength: 60 }),
				fc.integer({ min: 0, max: 30 }),
				(all, gap) => {
					const long = Float64Array.from(all, ([a, b]) => Math.max(a, b));
					const short = Float64Array.from(all, ([a, b]) => Math.min(a, b));
					const { of, x, y, turned, count: sheets } = cutSheets(long, short, [2000, 1000], gap);
					const boxes = all.map((_, k) => ({
						sheet: of[k]!,
						x: x[k]!,
						y: y[k]!,
						right: x[k]! + (turned[k] ? short[k]! : long[k]!),
						top: y[k]! + (turned[k] ? long[k]! : short[k]!)
					}));
					boxes.forEach((box, k) => {
						expect(box.sheet >= 0).to.equal(long[k]! <= 2000 && short[k]! <= 1000);
						if (box.sheet < 0) return;
						expect(box.sheet).to.be.below(sheets);
						expect(box.right).to.be.at.most(2000);
						expect(box.top).to.be.at.most(1000);
						for (const other of boxes.slice(0, k)) {
							if (other.sheet !== box.sheet) continue;
							const apart =
								other.right + gap <= box.x ||
								box.right + gap <= other.x ||
								other.top + gap <= box.y ||
								box.top + gap <= other.y;
							expect(apart, JSON.stringify([box, other])).to.equal(true);
						}
					});
				}
			)
		);
	});

	it('four quarters of a sheet lie on one', () => {
		const four = (value: number) => new Float64Array(4).fill(value);
		expect(cutSheets(four(995), four(495), [2000, 1000], 10).count).to.equal(1);
		expect(cutSheets(four(996), four(495), [2000, 1000], 10).count).to.equal(2);
	});
});

describe('The lists of what is cut', () => {
	const zone: Partial<ZoneInput> = {
		rules: [{ id: 'r', put: { variant: 'pane', values: {} } }],
		runs: [{ id: 'l', lines: ['bay', 'rim'], variant: 'bar' }] as NonNullable<ZoneInput['runs']>
	};
	const variants = [
		{ id: 'pane', name: 'pane', part: 'flat-panel', values: { sheet: 'glass', thickness: 10 } },
		{ id: 'bar', name: 'bar', part: 'box-mullion', values: {} }
	];
	const listed = async (stock: object) => {
		const project = projectOf(sheet(6000, 7200), count(4, 2), zone, {
			variants,
			stock: { saw: 5, gap: 10, lengths: [], sheets: [], ...stock }
		});
		const model = await new Chain().run(project);
		const read = (name: 'lengths' | 'sheets' | 'elements') => {
			const { rows, columns } = makeSchedule(model, name);
			const column = (key: string) => cellsOf(columns.find((one) => one.key === key)!);
			return { rows, column };
		};
		return { lengths: read('lengths'), sheets: read('sheets'), elements: read('elements') };
	};
	const sum = (values: readonly unknown[]) => values.reduce((all: number, one) => all + Number(one ?? 0), 0);

	it('have every bar and plate once, by the marks of the elements, and their lengths add up to theirs', async () => {
		const { lengths, sheets, elements } = await listed({});
		const category = elements.column('category');
		const marksOf = (wanted: string) => elements.column('mark').filter((_, row) => category[row] === wanted);
		const inLengths = lengths.column('marks').flatMap((marks) => String(marks).split(', '));
		expect(inLengths.sort()).to.deep.equal([...marksOf('bar')].sort());
		const inSheets = sheets.column('marks').flatMap((marks) =>
			String(marks)
				.split('; ')
				.map((one) => one.split(' at ')[0])
		);
		expect(inSheets.sort()).to.deep.equal([...marksOf('plate')].sort());
		const ofBars = sum(elements.column('length').filter((_, row) => category[row] === 'bar'));
		expect(sum(lengths.column('length'))).to.be.closeTo(ofBars, 1e-6);
		// Eight panes of 1.5 m by 3.6 m: on a sheet of 6 m by 3.21 m two lie side by side.
		expect(sheets.rows).to.equal(4);
	});

	it('say what no stock is long enough for', async () => {
		const { lengths, sheets } = await listed({
			lengths: [{ id: 'aluminium', length: 2000 }],
			sheets: [{ id: 'glass', long: 3500, short: 3000 }]
		});
		expect(sheets.column('flags')).to.deep.equal(['larger than the sheet of 3\u202f500 × 3\u202f000 mm']);
		expect(sheets.column('number')).to.deep.equal([null]);
		const flags = lengths.column('flags').filter(Boolean);
		expect(flags).to.deep.equal(['longer than the stock of 2\u202f000 mm']);
	});
});
