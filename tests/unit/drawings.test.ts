import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { Chain } from '../../src/core/chain/chain';
import type { Model } from '../../src/core/cladding/model';
import { bookOf } from '../../src/core/drawing/book';
import type { Planned, SheetGroup } from '../../src/core/drawing/planned';
import { drawClouds } from '../../src/core/drawing/clouds';
import { boxOf, polygonArea, type Box } from '../../src/core/geometry/polygon';
import { Ink, type Inked, type LayerName, type Page } from '../../src/core/drawing/drawing';
import { scaleThatFits } from '../../src/core/drawing/sheet';
import { unrolledFace } from '../../src/core/drawing/unrolled';
import { pagesOf } from '../../src/core/exchange/formats';
import { flatLayout } from '../../src/core/measure/flat-layout';
import { readProjectText } from '../../src/core/project/read';
import { cellsOf } from '../../src/core/schedule/column';
import { sourcesOf } from '../../src/core/schedule/sources';
import { makeSchedule } from '../../src/core/schedule/table';
import { count, projectOf, revolved, sheet } from '../faces';

const DAY = '2026-11-29';
const textsOf = (page: Page, layer: LayerName) =>
	page.inked.filter((one) => one.layer === layer).flatMap(({ texts }) => texts.map(({ text }) => text));
const ofGroup = (book: readonly Planned[], group: SheetGroup) => book.filter((one) => one.group === group);
const glazed = (form: Parameters<typeof projectOf>[0], across: number, up: number) =>
	projectOf(
		form,
		count(across, up),
		{ rules: [{ id: 'all', put: { variant: 'pane' } }] } as never,
		{ variants: [{ id: 'pane', name: 'Pane', part: 'flat-panel', values: {} }] } as never
	);

describe('the sheets of a project', () => {
	let model: Model;
	let book: Planned[];
	before(async () => {
		model = await new Chain().run(
			readProjectText(readFileSync(new URL('../lido.json', import.meta.url), 'utf8'))
		);
		book = bookOf(model, DAY);
	});

	it('codes on the plan of the cover stand on tags of their own, over all that is drawn under them', () => {
		const [page] = ofGroup(book, 'cover')[0]!.draw();
		const order = page!.inked.map(({ layer }) => layer);
		const on = (layer: LayerName) => page!.inked.find((one) => one.layer === layer)!;
		const codes = on('heads').texts;
		expect(codes.map(({ text }) => text)).to.have.members(model.project.zones.map(({ code }) => code));
		expect(order.indexOf('tags')).to.be.greaterThan(order.indexOf('bars'));
		expect(order.indexOf('heads')).to.be.greaterThan(order.indexOf('tags'));
		const boxes = on('tags').fills.map(([ring]) =>
			boxOf([0, 2, 4, 6].map((k) => [ring![k]!, ring![k + 1]!] as const))
		);
		for (const { x, y, size, text } of codes) {
			const { low, high } = boxes.find(
				(box) => box.low[0] < x && x < box.high[0] && box.low[1] < y && y < box.high[1]
			)!;
			// Capitals are seven tenths as high as their size, at least half as wide.
			expect(high[1] - y, text).to.be.greaterThan(0.7 * size);
			expect(y - low[1], text).to.be.greaterThan(0);
			expect(high[0] - low[0], text).to.be.greaterThan(0.5 * size * text.length);
		}
	});

	it('each has a number of its own, and comes to as many pages as it says', () => {
		expect(new Set(book.map(({ number }) => number)).size).to.equal(book.length);
		for (const group of ['cover', 'unrolled', 'bars', 'nodes'] as const)
			for (const one of ofGroup(book, group)) expect(one.draw().length).to.equal(one.count);
	});

	it('every line and every text of them lies on its paper, and is a number', () => {
		const some = [
			...ofGroup(book, 'cover'),
			...ofGroup(book, 'elevations'),
			...ofGroup(book, 'unrolled'),
			...ofGroup(book, 'pieces').slice(0, 40),
			...ofGroup(book, 'bars')
		];
		for (const page of some.flatMap((one) => one.draw()))
			for (const { lines, texts, layer } of page.inked) {
				const isOutside = (value: number, k: number) =>
					!(value >= 0 && value <= (k % 2 ? page.height : page.width));
				expect(lines.findIndex(isOutside), `${page.title} ${layer}`).to.equal(-1);
				const wrong = texts.filter(({ x, y, size }) => isOutside(x, 0) || isOutside(y, 1) || !(size > 0));
				expect(wrong, page.title).to.deep.equal([]);
			}
	});

	it('the marks of the piece sheets are those of the pieces on cells, each once', () => {
		const listed = ['panels', 'louvers'] as const;
		const marks = listed.flatMap((name) => cellsOf(makeSchedule(model, name).column('mark')!));
		const drawn = ofGroup(book, 'pieces').flatMap((one) =>
			one.draw().flatMap((page) => textsOf(page, 'marks').flatMap((text) => text.split(',')))
		);
		const own = drawn.map((text) => text.trim()).filter(Boolean);
		expect(own.slice().sort()).to.deep.equal(marks.map(String).sort());
	});

	it('cut lengths of all bars stand on the sheets of bars, each bar once', () => {
		const bars = makeSchedule(model, 'bars');
		const drawn = ofGroup(book, 'bars')[0]!
			.draw()
			.flatMap((page) => textsOf(page, 'tables'));
		const marks = cellsOf(bars.column('mark')!).map(String);
		const told = new Set(marks);
		expect(drawn.filter((text) => told.has(text)).sort()).to.deep.equal(marks.slice().sort());
		const lengths = cellsOf(bars.column('length')!).map((value) => (value as number).toFixed(1));
		for (const length of new Set(lengths)) expect(drawn).to.include(length);
	});

	it('an unrolled zone has a mark in every cell that is large enough, and the others are counted', () => {
		const [roof] = ofGroup(book, 'unrolled');
		const page = roof!.draw()[0]!;
		const zone = model.zones[0]!.model!;
		const pieces = zone.groups
			.filter(({ group }) => group.over === 'cell')
			.reduce((sum, { group }) => sum + group.sites.length, 0);
		const note = textsOf(page, 'text').find((text) => text.includes('no room'));
		const left = note ? Number(/· (\d+) marks/.exec(note)![1]) : 0;
		expect(textsOf(page, 'marks').length + left).to.equal(pieces);
	});
});

describe('drawings', () => {
	it('a scale is the largest of those in use at which all fits', () => {
		expect(scaleThatFits(38_000, 10_000, 380, 240)).to.equal(100);
		expect(scaleThatFits(38_001, 10_000, 380, 240)).to.equal(200);
		expect(scaleThatFits(300, 200, 380, 240)).to.equal(1);
	});

	it('a cylinder unrolled has its area: 226.1946711 m² at a radius of 4 m and a height of 9 m', async () => {
		const made = await new Chain().run(
			glazed(
				revolved([
					[4000, 0],
					[4000, 9000]
				]),
				48,
				12
			)
		);
		const zone = made.zones[0]!.model!;
		const { points } = flatLayout(zone.faces[0]!);
		const { cells } = zone.faces[0]!;
		let area = 0;
		for (let c = 0; c < cells.count; c++)
			for (let k = cells.start[c]!; k < cells.start[c + 1]!; k++) {
				const next = k + 1 < cells.start[c + 1]! ? k + 1 : cells.start[c]!;
				area += (points[2 * k]! * points[2 * next + 1]! - points[2 * next]! * points[2 * k + 1]!) / 2;
			}
		// Closed form: 2πrh.
		expect(area / 1e6).to.be.closeTo(226.1946711, 1e-4);
		const { bounds } = unrolledFace(zone, 0, sourcesOf(made), () => 1 / 100);
		expect(bounds[2] - bounds[0]).to.be.closeTo(2 * Math.PI * 4000, 0.1);
	});

	it('a wall of equal panes has one piece sheet: its true lengths, its angles, all its marks', async () => {
		const made = await new Chain().run(glazed(sheet(12_000, 6000), 8, 4));
		const pieces = ofGroup(bookOf(made, DAY), 'pieces');
		expect(pieces.length).to.equal(1);
		const [page] = pieces[0]!.draw();
		const told = textsOf(page!, 'dimensions');
		// The cell, and the pane within its joint of 8 mm; square corners are said once.
		expect(told.filter((text) => text === '1500.0').length).to.equal(4);
		expect(told.filter((text) => text === '1484.0').length).to.equal(4);
		expect(told.filter((text) => text === '90.0°').length).to.equal(4);
		expect(textsOf(page!, 'text')).to.include.members([
			'1484.0 × 1484.0 mm, 2.2023 m²',
			'Flat, all corners square'
		]);
		expect(
			textsOf(page!, 'marks')
				.join(' ')
				.match(/Z-C\d\d-B\d\d/g)!.length
		).to.equal(32);
		expect(textsOf(page!, 'text')).to.include('32 pieces of this kind');
	});

	it('the elevation of a wall has its sizes as dimensions, its levels by name, and a mark in every pane', async () => {
		const project = glazed(sheet(12_000, 6000), 8, 4);
		const levels = [
			{ id: 'ground', name: 'Ground', height: 0 },
			{ id: 'gallery', name: 'Gallery', height: 3200 }
		];
		const made = await new Chain().run({ ...project, levels });
		const [south] = ofGroup(bookOf(made, DAY), 'elevations');
		const page = south!.draw()[0]!;
		expect(textsOf(page, 'levels')).to.deep.equal(['Ground +0.000', 'Gallery +3.200']);
		const sizes = textsOf(page, 'dimensions').map(Number);
		// Panes stand back from the rim by half their joint.
		expect(sizes.some((size) => Math.abs(size - 12_000) <= 20)).to.equal(true);
		expect(textsOf(page, 'marks').length).to.equal(32);
	});

	it('a section through a drum shows its far half alone, cut where the plane meets it', async () => {
		const drum = glazed(
			revolved([
				[4000, 0],
				[4000, 9000]
			]),
			48,
			12
		);
		const drawings = { paper: 'A3', sections: [{ id: 'middle', looking: 'north', at: 250 }] } as const;
		const made = await new Chain().run({
			...drum,
			drawings: { ...drawings, sections: [...drawings.sections], block: [], sheets: [] }
		});
		const [section] = ofGroup(bookOf(made, DAY), 'sections');
		expect([section!.number, section!.title]).to.deep.equal(['S-01', 'Section at y = 250 mm, looking north']);
		const page = section!.draw()[0]!;
		const scale = Number(
			/1 : (\d+)/.exec(textsOf(page, 'text').find((text) => text.startsWith('Scale'))!)![1]
		);
		const { lines } = page.inked.find(({ layer }) => layer === 'outline')!;
		const xs = lines.filter((_, k) => k % 2 === 0);
		const [left, right] = [xs.reduce((a, b) => Math.min(a, b)), xs.reduce((a, b) => Math.max(a, b))];
		// The panes of the two sides: a chord of the circle, 250 mm off its middle.
		expect((right - left) * scale).to.be.closeTo(2 * Math.sqrt(4000 ** 2 - 250 ** 2), 60);
		expect(xs.every((x) => x - left < 100 / scale || right - x < 100 / scale)).to.equal(true);
		// Marks are those of pieces that are turned to the eye; within the drum none is.
		expect(textsOf(page, 'marks')).to.deep.equal([]);
	});

	describe('clouds', () => {
		const wall = glazed(sheet(12_000, 6000), 8, 4);
		const cloudsOf = (page: Page) => page.inked.find(({ layer }) => layer === 'clouds')?.lines ?? [];
		/** Whether a place is within the loops of a page's clouds: a ray crosses them an odd number of times. */
		const isWithin = (lines: ArrayLike<number>, x: number, y: number): boolean => {
			let crossed = 0;
			for (let k = 0; k < lines.length; k += 4) {
				const [x1, y1, x2, y2] = [lines[k]!, lines[k + 1]!, lines[k + 2]!, lines[k + 3]!];
				if (y1 > y !== y2 > y && x1 + ((y - y1) / (y2 - y1)) * (x2 - x1) > x) crossed++;
			}
			return crossed % 2 === 1;
		};
		const placesOf = (page: Page) =>
			page.inked.find(({ layer }) => layer === 'marks')!.texts.map(({ text, x, y }) => ({ text, x, y }));

		it('go round the marks of what differs, on elevations and laid flat, and round no others', async () => {
			const made = await new Chain().run(wall);
			const wanted = ['C01-B01', 'C01-B02', 'C04-B08'];
			const addresses = sourcesOf(made).flatMap((source) =>
				source
					.marks()
					.flatMap((mark, row) =>
						wanted.some((one) => mark.endsWith(one)) ? [source.addresses()[row]!] : []
					)
			);
			expect(addresses).to.have.length(3);
			const revised = { since: 'release 2', changed: new Set(addresses), gone: [] };
			const plain = bookOf(made, DAY);
			const clouded = bookOf(made, DAY, { last: null, revised });
			for (const group of ['elevations', 'unrolled'] as const) {
				const [first] = ofGroup(clouded, group);
				const page = first!.draw()[0]!;
				const lines = cloudsOf(page);
				for (const { text, x, y } of placesOf(page))
					expect(isWithin(lines, x, y), `${group} ${text}`).to.equal(
						wanted.some((one) => text.endsWith(one))
					);
				expect(textsOf(page, 'text').join()).to.contain('clouded: 3 places where it differs from release 2');
				const { inked } = ofGroup(plain, group)[0]!.draw()[0]!;
				expect(inked.filter(({ layer }) => layer === 'clouds')).to.deep.equal([]);
				// Nothing else of the sheet is another.
				const without = page.inked.filter(({ layer }) => layer !== 'clouds' && layer !== 'text');
				expect(without).to.deep.equal(inked.filter(({ layer }) => layer !== 'text'));
			}
			// From behind nothing of it is seen.
			expect(cloudsOf(ofGroup(clouded, 'elevations')[2]!.draw()[0]!)).to.have.length(0);
		});

		it('stand where something stood that is gone', async () => {
			const made = await new Chain().run(wall);
			const revised = { since: 'release 1', changed: new Set<string>(), gone: [[6000, -10, 3000] as const] };
			const page = ofGroup(
				bookOf(made, DAY, { last: null, revised: revised as never }),
				'elevations'
			)[0]!.draw()[0]!;
			const marks = placesOf(page);
			// Between the four panes about the middle of the wall.
			const around = ['C02-B04', 'C02-B05', 'C03-B04', 'C03-B05'].map((one) =>
				marks.find(({ text }) => text.endsWith(one))!
			);
			const middle = (key: 'x' | 'y') => around.reduce((sum, one) => sum + one[key] / 4, 0);
			expect(isWithin(cloudsOf(page), middle('x'), middle('y') + 0.7)).to.equal(true);
		});

		it('of a ring of cells have no hole, and of all cells are one', () => {
			const ink = new Ink();
			drawClouds(
				ink,
				[0, 1, 2].flatMap((i) =>
					[0, 1, 2].flatMap((j): Box[] =>
						i === 1 && j === 1
							? []
							: [
									boxOf([
										[100 + 20 * i, 80 + 20 * j],
										[120 + 20 * i, 100 + 20 * j]
									])
								]
					)
				)
			);
			const [{ lines }] = ink.done() as [Inked];
			for (const [x, y] of [
				[130, 110],
				[101, 81],
				[159, 139]
			] as const)
				expect(isWithin(lines, x, y)).to.equal(true);
			// Along its outer rim alone: 16 squares a side, each with a bow of five lines.
			expect(lines.length / 4 / 5).to.be.within(4 * 16, 4 * 17);
		});
	});

	it('what a section cuts is filled: as thick as panels are, as high as they are between their joints', async () => {
		const wall = glazed(sheet(12_000, 6000), 8, 4);
		const sections = [{ id: 's', looking: 'east' as const, at: 700 }];
		const made = await new Chain().run({ ...wall, drawings: { ...wall.drawings, sections } });
		const [page] = ofGroup(bookOf(made, DAY), 'sections')[0]!.draw();
		const fills = page!.inked.flatMap(({ fills: own }) => own);
		expect(fills.length).to.equal(4);
		const told = textsOf(page!, 'text').find((text) => text.startsWith('Scale 1 : '))!;
		const scale = Number(told.slice('Scale 1 : '.length));
		for (const rings of fills) {
			expect(rings.length).to.equal(1);
			const places = Array.from({ length: rings[0]!.length / 2 }, (_, k): [number, number] => [
				rings[0]![2 * k]!,
				rings[0]![2 * k + 1]!
			]);
			// Panels of 4 mm, 1500 high less a joint of 8 mm all round.
			expect(Math.abs(polygonArea(places)) * scale * scale).to.be.closeTo(4 * 1484, 1);
		}
		for (const one of ofGroup(bookOf(made, DAY), 'elevations'))
			expect(one.draw()[0]!.inked.every(({ fills: own }) => !own.length)).to.equal(true);
	});

	it('the title block has the lines of its own project on every paper, and the last release', async () => {
		const block = ['Client', 'Architect', 'Drawn by', 'Checked by', 'Contract', 'Stage'].map((label, k) => ({
			id: `l${k}`,
			label,
			text: k === 4 ? 'a contract of some forty letters to be told' : `${label} of it`
		}));
		for (const paper of ['A4', 'A0'] as const) {
			const made = await new Chain().run({
				...glazed(sheet(12_000, 6000), 8, 4),
				drawings: { paper, sections: [], block, sheets: [] }
			});
			const [page] = ofGroup(
				bookOf(made, DAY, { last: '2, 27 Nov 2026', revised: null }),
				'elevations'
			)[0]!.draw();
			const texts = page!.inked.flatMap((one) => (one.layer === 'text' ? one.texts : []));
			const said = texts.map(({ text }) => text);
			expect(said).to.include.members([
				'Client',
				'Client of it',
				'Stage of it',
				'Last release',
				'2, 27 Nov 2026'
			]);
			const long = texts.find(({ text }) => text.startsWith('a contract'))!;
			// What does not fit ends with …, within its own box.
			expect(long.text.endsWith('…')).to.equal(paper === 'A4');
			expect(texts.every(({ x }) => x > 20)).to.equal(true);
			// One beside the other and none upon another.
			const places = texts.map(({ x, y }) => `${x.toFixed(1)} ${y.toFixed(1)}`);
			expect(new Set(places).size).to.equal(places.length);
		}
	});

	it('a sheet that cannot be drawn is told and left out; where nobody is told, nothing is written', async () => {
		const made = await new Chain().run(glazed(sheet(3000, 3000), 2, 2));
		const book = bookOf(made, DAY);
		const broken: Planned = {
			...book[1]!,
			draw: () => {
				throw new Error('no room for it');
			}
		};
		const sheets = [book[0]!, broken, ...book.slice(2)];
		const told: string[] = [];
		const pages = [
			...pagesOf(sheets, ({ number }, error) => told.push(`${number}: ${(error as Error).message}`))
		];
		expect(told).to.deep.equal([`${broken.number}: no room for it`]);
		expect(pages.map(({ title }) => title)).to.deep.equal(
			[...pagesOf(book)].map(({ title }) => title).filter((title) => !title.startsWith(`${broken.number} `))
		);
		expect(() => [...pagesOf(sheets)]).to.throw('no room for it');
	});

	it('a project of nothing has a cover and elevations of nothing, and none of it fails', async () => {
		const empty = await new Chain().run({ ...glazed(sheet(1000, 1000), 1, 1), zones: [] });
		const book = bookOf(empty, DAY);
		expect(book.map(({ group }) => group)).to.deep.equal(['cover', ...Array<string>(5).fill('elevations')]);
		for (const one of book) expect(one.draw().length).to.equal(1);
	});
});
