import { expect } from 'chai';
import { PictureError, sizeOfPicture } from '../../src/core/exchange/picture/size';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import type { Model } from '../../src/core/cladding/model';
import { namesIn, prefixesOf } from '../../src/core/cladding/table-book';
import { readTable } from '../../src/core/exchange/csv/read-table';
import { valueIn } from '../../src/core/field/pictures';
import type { Picture, Table } from '../../src/core/project/brought-schema';
import { Files } from '../../src/core/project/files';
import { readProject } from '../../src/core/project/read';
import type { Project } from '../../src/core/project/schema';
import { count, projectOf, sheet } from '../faces';

/** Light from left to right in its red, from foot to head in its green; no blue. */
const gradient = (size: number, more: Partial<Picture> = {}): Picture => ({
	id: 'wave',
	kind: 'picture',
	name: 'Wave',
	columns: size,
	rows: size,
	samples: Array.from({ length: size * size }, (_, k) => [
		Math.round((255 * ((k % size) + 0.5)) / size),
		Math.round(255 * (1 - (Math.floor(k / size) + 0.5) / size)),
		0
	]).flat(),
	lies: 'face',
	reads: 'red',
	...more
});
const variants = [{ id: 's', name: 's', part: 'upright-fins', values: {} }];
/** Fins 100 mm deep and more, as a field says, on a wall that looks south. */
const following = (field: string, rest: Partial<Project>, span: [number, number] = [0, 1]): Project =>
	projectOf(
		sheet(8000, 6000),
		count(8, 6),
		{
			rules: [
				{
					id: 'all',
					put: {
						variant: 's',
						values: { depth: { is: 'follows', field, from: span, to: [100, 200] } }
					}
				}
			]
		} as never,
		{ variants, ...rest }
	);
async function deeper(project: Project, files = new Files()): Promise<{ values: number[]; model: Model }> {
	const model = await new Chain(files).run(project);
	expect(model.problems).to.deep.equal([]);
	const values: number[] = [];
	for (const { group } of model.zones[0]!.model!.groups)
		group.sites.forEach((c, row) => (values[c] = group.perPiece.get('depth')![row]! - 100));
	return { values, model };
}

describe('pictures', () => {
	it('say how light a place is: a made gradient, evenly between its samples', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 2, max: 64 }),
				fc.double({ min: 0, max: 1, noNaN: true }),
				fc.double({ min: 0, max: 1, noNaN: true }),
				(size, x, y) => {
					// Beyond the middles of the last samples it stays as it is there; samples have 256 steps.
					const held = (share: number) => Math.min(1 - 0.5 / size, Math.max(0.5 / size, share));
					const step = 1 / 255;
					expect(valueIn(gradient(size), x, y)).to.be.closeTo(held(x), step);
					expect(valueIn(gradient(size, { reads: 'green' }), x, y)).to.be.closeTo(held(y), step);
					expect(valueIn(gradient(size, { reads: 'blue' }), x, y)).to.equal(0);
					expect(valueIn(gradient(size, { reads: 'lightness' }), x, y)).to.be.closeTo(
						0.2126 * held(x) + 0.7152 * held(y),
						2 * step
					);
				}
			)
		);
	});

	it('lie on the face, or over what is seen from a side, which turns left and right round at the back', async () => {
		const bay = (c: number) => c % 8;
		for (const [lies, wanted] of [
			['face', (c: number) => (bay(c) + 0.5) / 8],
			['south', (c: number) => bay(c) / 7],
			['north', (c: number) => 1 - bay(c) / 7]
		] as const) {
			const { values } = await deeper(
				following('picture.wave', { pictures: [gradient(64, { lies })] } as never)
			);
			// The wall runs with x, and looks south. Over what is seen, the middles of its end cells are its ends.
			values.forEach((value, c) => expect(value, `${lies} ${c}`).to.be.closeTo(100 * wanted(c), 1.5));
		}
	});

	it('lie in a file of their own, named once, and are whole where they are followed', async () => {
		const project = following('picture.wave', { pictures: [gradient(128)] } as never);
		const files = new Files();
		const kept = files.detach(project);
		expect(JSON.stringify(kept).length).to.be.below(5000);
		expect(readProject(JSON.parse(JSON.stringify(kept)))).to.deep.equal(readProject(kept));
		const { values } = await deeper(kept, files);
		const { values: whole } = await deeper(project);
		expect(values).to.deep.equal(whole);
	});

	it('that do not hold together are said at their place', async () => {
		const { problems } = await new Chain().run(
			following('picture.wave', { pictures: [gradient(4, { samples: [1, 2, 3] })] } as never)
		);
		expect(problems[0]!.at).to.equal('pictures/wave');
		expect(problems[0]!.text).to.match(/3 values; 4 × 4 samples of three are wanted/);
	});
});

describe('files of pictures', () => {
	/** The head of a PNG (ISO/IEC 15948): signature, then the length, name, width and height of its first chunk. */
	const png = (width: number, height: number) => {
		const view = new DataView(new ArrayBuffer(33));
		[0x89504e47, 0x0d0a1a0a, 13, 0x49484452, width, height].forEach((word, k) => view.setUint32(4 * k, word));
		return new Uint8Array(view.buffer);
	};
	/** The head of a JPEG (ITU-T T.81): an application segment, then a frame of a kind. */
	const jpeg = (frame: number, width: number, height: number) =>
		Uint8Array.of(
			...[0xff, 0xd8, 0xff, 0xe0, 0, 6, 1, 2, 3, 4],
			...[0xff, frame, 0, 11, 8, height >> 8, height & 255, width >> 8, width & 255, 1, 1, 17, 0]
		);

	it('say their size in their first bytes', () => {
		expect(sizeOfPicture(png(640, 480))).to.deep.equal([640, 480]);
		for (const frame of [0xc0, 0xc1, 0xc2, 0xcf])
			expect(sizeOfPicture(jpeg(frame, 1000, 300))).to.deep.equal([1000, 300]);
	});

	it('that are too large, damaged or none are refused before anything is made of them', () => {
		const refused = (bytes: Uint8Array, words: string) =>
			expect(() => sizeOfPicture(bytes)).to.throw(PictureError, words);
		refused(png(10_000, 10_000), 'it has 100 million points; at most 64 million are taken');
		refused(jpeg(0xc0, 40_000, 40_000), 'million points');
		for (const whole of [png(640, 480), jpeg(0xc0, 1000, 300)])
			for (let length = 4; length < 20; length++) refused(whole.slice(0, length), 'it is damaged');
		// Tables of a JPEG are no frames.
		refused(jpeg(0xc4, 1000, 300), 'it is damaged');
		refused(png(0, 480), 'it is damaged');
		refused(new TextEncoder().encode('GIF89a and so on'), 'it is neither a PNG nor a JPEG');
		refused(new Uint8Array(), 'it is neither');
	});
});

describe('tables', () => {
	const table = (more: Partial<Table>): Table => ({
		id: 'batches',
		kind: 'table',
		name: 'Batches',
		by: 'mark',
		columns: [
			{ id: 'batch', label: 'Batch' },
			{ id: 'weight', label: 'Weight' }
		],
		rows: [],
		...more
	});

	it('are matched by mark and by address; cells without a row have 0, and the later of two rows stands', async () => {
		const base = following('table.batches_weight', {}, [0, 100]);
		const laid = await new Chain().run({ ...base, zones: [{ ...base.zones[0]!, rules: [] }] });
		const { address, cells } = laid.zones[0]!.model!.faces[0]!;
		for (const by of ['mark', 'address'] as const) {
			const names = namesIn({ by }, prefixesOf(base.zones), address, cells);
			expect(new Set(names).size).to.equal(48);
			// Every third has a row, in any order, one of them twice.
			const some = names
				.map((name, c) => [name, 7, c] as [string, number, number])
				.filter((_, c) => c % 3 === 0);
			const rows: Table['rows'] = [[names[0]!, 1, 99], ...some.reverse()];
			const { values } = await deeper({ ...base, tables: [table({ by, rows })] });
			values.forEach((value, c) => expect(value, names[c]).to.be.closeTo(c % 3 ? 0 : c, 1e-9));
		}
	});

	it('are asked for by conditions: a column within bounds, and whether a cell has a row', async () => {
		const base = projectOf(sheet(4000, 3000), count(4, 3));
		const rows: Table['rows'] = [
			['W-C01-B01', 1, 10],
			['W-C02-B03', 2, 20],
			['W-C03-B04', 3, null],
			['W-C09-B09', 4, 40]
		];
		const rules = [
			{
				id: 'heavy',
				where: {
					is: 'all',
					of: [{ is: 'range', field: 'table.batches_weight', at_least: 15, at_most: null }]
				},
				put: { variant: 's', values: {} }
			},
			{ id: 'listed', where: { is: 'all', of: [{ is: 'formula', formula: 'table.batches' }] }, put: 'open' }
		];
		const zone = { ...base.zones[0]!, code: 'W', rules };
		const model = await new Chain().run({
			...base,
			zones: [zone],
			variants,
			tables: [table({ rows })]
		} as never);
		expect(model.problems.filter(({ remark }) => !remark)).to.deep.equal([]);
		expect([...model.zones[0]!.model!.assignments[0]!.taken]).to.deep.equal([1, 2]);
	});

	it('are read from their lines: the column that names cells is found, numbers as people write them', () => {
		const { by, columns, rows, twice, left } = readTable([
			['Batch no.', 'Panel', 'Weight (kg)', 'Note', 'Weight (kg)'],
			['4', 'GR-C01-B02', '1 234,5', 'first', 7],
			['5', 'GR-C01-B03a', '1,234.5', '', null],
			['', '', '', '', ''],
			['6', 'GR-C01-B02', '−12.25', 'again', '1e3']
		]);
		expect(by).to.equal('mark');
		expect(columns.map(({ id }) => id)).to.deep.equal(['batch_no', 'weight_kg', 'weight_kg_2']);
		expect(rows).to.deep.equal([
			['GR-C01-B02', 4, 1234.5, 7],
			['GR-C01-B03a', 5, 1234.5, null],
			['GR-C01-B02', 6, -12.25, 1000]
		]);
		expect(twice).to.deep.equal(['GR-C01-B02']);
		expect(left).to.deep.equal(['Note']);
		expect(
			readTable([
				['a', 'n'],
				['gull.skin/C01/B02/1', '3']
			]).by
		).to.equal('address');
	});

	it('that cannot be followed are refused with what is wanted', () => {
		const refused = (lines: unknown[][]) => {
			try {
				readTable(lines);
				return '';
			} catch (error) {
				return (error as Error).message;
			}
		};
		expect(refused([['mark', 'batch']])).to.match(/no rows under its heads/);
		expect(
			refused([
				['mark', 'batch'],
				['pane 7', 4]
			])
		).to.match(/none of its columns names cells; .*GR-C01-B02/);
		expect(
			refused([
				['mark', 'note'],
				['GR-C01-B02', 'blue']
			])
		).to.match(/none of its columns has numbers/);
	});
});
