import { expect } from 'chai';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import { barViews } from '../../src/core/drawing/bar-views';
import { bookOf } from '../../src/core/drawing/book';
import { Ink, type LayerName, type Page } from '../../src/core/drawing/drawing';
import { piecesByKind } from '../../src/core/drawing/pieces-of-kinds';
import { shortened } from '../../src/core/drawing/shortened';
import { polygonArea, type Place } from '../../src/core/geometry/polygon';
import type { Project } from '../../src/core/project/schema';
import { cellsOf } from '../../src/core/schedule/column';
import { sourcesOf } from '../../src/core/schedule/sources';
import { makeSchedule } from '../../src/core/schedule/table';
import { count, projectOf, revolved, sheet } from '../faces';

const textsOf = (page: Page, layer: LayerName) =>
	page.inked.filter((one) => one.layer === layer).flatMap(({ texts }) => texts.map(({ text }) => text));
const variants = [
	{ id: 'bar', name: 'Bar', part: 'box-mullion', values: {} },
	{ id: 'ball', name: 'Ball', part: 'node-ball', values: {} }
];
const framed = (form: Parameters<typeof projectOf>[0], steps: [number, number], ends?: object): Project =>
	projectOf(
		form,
		count(...steps),
		{
			runs: [{ id: 'b', lines: ['bay', 'course', 'rim'], variant: 'bar', ...(ends && { ends }) }],
			nodes: [{ id: 'n', variant: 'ball' }]
		} as never,
		{ variants } as never
	);
const pagesOf = async (project: Project, letters: string) => {
	const model = await new Chain().run(project);
	expect(model.problems).to.deep.equal([]);
	const book = bookOf(model, '2026-11-30');
	return {
		model,
		pages: book.filter(({ number }) => number.startsWith(letters)).flatMap((one) => one.draw())
	};
};

describe('bars, one by one', () => {
	it('are as long, as wide and as deep as they are; the section times the length is what they weigh', async () => {
		const model = await new Chain().run(framed(sheet(8000, 4500), [4, 3]));
		const kinds = piecesByKind(sourcesOf(model), 'line');
		// Two lengths, and either within or on the rim.
		expect(
			new Set(kinds.map(({ source, row }) => source.quantities().cutLength[row]!.toFixed(3)))
		).to.have.length(2);
		for (const of of kinds) {
			const { outside, side, section } = barViews(of);
			const { mass, cutLength } = of.source.quantities();
			const size = ([left, foot, right, head]: readonly number[]) => [right! - left!, head! - foot!] as const;
			const [[along, width], [alongToo, depth]] = [size(outside.bounds), size(side.bounds)];
			expect(along).to.be.closeTo(cutLength[of.row]!, 0.01);
			expect(alongToo).to.be.closeTo(along, 0.01);
			const [across, deep] = size(section!.bounds);
			expect(across).to.be.closeTo(width, 0.01);
			expect(deep).to.be.closeTo(depth, 0.01);
			// Openings of a hollow section run the other way round: even-odd, the largest ring is the outer one.
			const areas = section!.inked
				.flatMap(({ fills }) => fills.flat())
				.map((ring) => {
					const places = Array.from({ length: ring.length / 2 }, (_, k): Place => [
						ring[2 * k]!,
						ring[2 * k + 1]!
					]);
					return Math.abs(polygonArea(places));
				})
				.sort((a, b) => b - a);
			const area = areas.slice(1).reduce((left, one) => left - one, areas[0]!);
			const { density } = of.source.group.ready.materials[0]!;
			expect((area * along * density) / 1e9).to.be.closeTo(mass[of.row]!, 1e-3 * mass[of.row]!);
		}
	});

	it('every kind stands on a sheet with how many there are, its length and how its ends are cut', async () => {
		const { model, pages } = await pagesOf(framed(sheet(8000, 4500), [4, 3], { is: 'mitred' }), 'BD-');
		const texts = pages.flatMap((page) => textsOf(page, 'text'));
		const schedule = makeSchedule(model, 'bars');
		const heads = texts.flatMap((text) => /^([A-Z]+\d+) · (\d+) bars? · Bar$/.exec(text)?.slice(1, 3) ?? []);
		const drawn = new Map<string, number>();
		for (let k = 0; k < heads.length; k += 2) drawn.set(heads[k]!, Number(heads[k + 1]));
		const listed = new Map<string, number>();
		for (const kind of cellsOf(schedule.column('kind')!).map(String))
			listed.set(kind, (listed.get(kind) ?? 0) + 1);
		expect([...drawn].sort()).to.deep.equal([...listed].sort());
		for (const length of new Set(
			cellsOf(schedule.column('length')!).map((one) => (one as number).toFixed(1))
		))
			expect(texts.some((text) => text.startsWith(`cut length ${length} · `))).to.equal(true);
		expect(texts.some((text) => text.includes('start 45.0°'))).to.equal(true);
		for (const page of pages) {
			const dimensions = textsOf(page, 'dimensions').map(Number);
			expect(dimensions.length).to.be.greaterThan(0);
			expect(dimensions.every((one) => one > 0)).to.equal(true);
		}
	});

	it('a view that is shortened keeps both its ends as they are, and no line reaches into the gap', () => {
		const place = fc.double({ min: 0, max: 1000, noNaN: true });
		fc.assert(
			fc.property(
				fc.array(fc.tuple(place, place, place, place), { minLength: 1, maxLength: 12 }),
				fc.double({ min: 100, max: 900, noNaN: true }),
				(lines, width) => {
					const ink = new Ink();
					for (const line of lines) ink.line('bars', ...line);
					const [gap, bounds] = [20, [0, 0, 1000, 1000] as const];
					const made = shortened({ inked: ink.done(), bounds }, width, gap);
					expect(made.bounds).to.deep.equal([0, 0, width, 1000]);
					const [first, second] = made.breaks!;
					expect(second - first).to.be.closeTo(gap, 1e-9);
					// How much of a line lies between two uprights, by its share across.
					const within = ([ax, ay, bx, by]: readonly number[], from: number, to: number) => {
						const size = Math.hypot(bx! - ax!, by! - ay!);
						if (ax === bx) return ax! >= from && ax! <= to ? size : 0;
						const [low, high] = [Math.max(from, Math.min(ax!, bx!)), Math.min(to, Math.max(ax!, bx!))];
						return low < high ? (size * (high - low)) / Math.abs(bx! - ax!) : 0;
					};
					const wanted = lines.reduce(
						(sum, line) => sum + within(line, 0, first) + within(line, 1000 - first, 1000),
						0
					);
					let drawn = 0;
					for (const { lines: all } of made.inked)
						for (let k = 0; k < all.length; k += 4) {
							const line = Array.from(all.subarray(k, k + 4));
							drawn += Math.hypot(line[2]! - line[0]!, line[3]! - line[1]!);
							const [low, high] = [Math.min(line[0]!, line[2]!), Math.max(line[0]!, line[2]!)];
							expect(low).to.be.at.least(-1e-6);
							expect(high).to.be.at.most(width + 1e-6);
							expect(high < first + 1e-6 || low > second - 1e-6).to.equal(true);
						}
					expect(drawn).to.be.closeTo(wanted, 1e-6 * (1 + wanted));
				}
			),
			{ numRuns: 200 }
		);
	});
});

describe('nodes, one by one', () => {
	it('on a plain wall lines meet square and without a slope', async () => {
		const { pages } = await pagesOf(framed(sheet(6000, 4000), [4, 4]), 'ND-');
		const angles = pages.flatMap((page) => textsOf(page, 'tables')).filter((text) => text.endsWith('°'));
		expect(new Set(angles)).to.deep.equal(new Set(['0.0°', '90.0°', '180.0°', '270.0°']));
	});

	it('round a cylinder of 24 bays the courses slope inwards by half a bay: 7.5°', async () => {
		const tower = revolved([
			[4000, 0],
			[4000, 6000]
		]);
		const { model, pages } = await pagesOf(framed(tower, [24, 3]), 'ND-');
		const cells = pages.flatMap((page) => textsOf(page, 'tables'));
		const slopes = new Set<string>();
		for (const [k, text] of cells.entries())
			// Of each line: its number, its turn, its slope and the angle to the next one.
			if (/^\d$/.test(text)) slopes.add(cells[k + 2]!);
		expect(slopes).to.deep.equal(new Set(['-7.5°', '0.0°']));
		const named = pages
			.flatMap((page) => textsOf(page, 'text'))
			.flatMap((text) => /· (\d+) nodes? ·/.exec(text)?.slice(1).map(Number) ?? []);
		const nodes = model.zones[0]!.model!.groups.filter(({ group }) => group.over === 'node');
		expect(named.reduce((sum, one) => sum + one, 0)).to.equal(
			nodes.reduce((sum, { group }) => sum + group.sites.length, 0)
		);
	});
});
