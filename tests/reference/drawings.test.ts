import { expect } from 'chai';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Chain } from '../../src/core/chain/chain';
import { drawingFonts } from '../../src/cli/fonts';
import { quickPacking } from '../../src/cli/packing';
import type { Model } from '../../src/core/cladding/model';
import { bookOf } from '../../src/core/drawing/book';
import { layers } from '../../src/core/drawing/drawing';
import { besideName } from '../../src/core/cladding/beside';
import { writeDxfPatterns } from '../../src/core/exchange/dxf/write-patterns';
import { sourcesOf } from '../../src/core/schedule/sources';
import { writeDxfLines } from '../../src/core/exchange/dxf/write-lines';
import { distance } from '../../src/core/geometry/vector';
import { layoutFigures } from '../../src/core/schedule/layout-figures';
import { writeDxf } from '../../src/core/exchange/dxf/write';
import { formats } from '../../src/core/exchange/formats';
import { writePdf } from '../../src/core/exchange/pdf/write';
import { writeSvg } from '../../src/core/exchange/svg/write';
import { readProjectText } from '../../src/core/project/read';
import { cellsOf } from '../../src/core/schedule/column';
import { makeSchedule } from '../../src/core/schedule/table';

const AT = '2026-11-29T10:00:00';
const directory = mkdtempSync(join(tmpdir(), 'drawings-'));
const kept = (name: string, content: string | Uint8Array) => {
	const path = join(directory, name);
	writeFileSync(path, content);
	return path;
};

/** What a program says of a file; it has to be content. */
function asked(program: string, ...args: string[]): string {
	const { status, stdout, stderr } = spawnSync(program, args, { encoding: 'utf8', maxBuffer: 1e9 });
	expect(status, `${program}: ${stderr} ${stdout.slice(0, 500)}`).to.equal(0);
	return stdout;
}

const DXF_READER = `
import json, sys, collections, ezdxf
drawing = ezdxf.readfile(sys.argv[1])
found = drawing.audit()
model = drawing.modelspace()
print(json.dumps(dict(errors=[str(e.message) for e in found.errors], units=drawing.header['$INSUNITS'],
    layers=sorted(l.dxf.name for l in drawing.layers), used=sorted({e.dxf.layer for e in model}),
    kinds=dict(collections.Counter(e.dxftype() for e in model)),
    length=sum((e.dxf.end - e.dxf.start).magnitude for e in model if e.dxftype() == 'LINE'),
    texts=[e.dxf.text for e in model if e.dxftype() == 'TEXT'])))
`;

/** Outlines less openings of every block, by the shoelace formula, times how often it is put in. */
const PATTERNS_READER = `
import json, sys, collections, math, ezdxf
drawing = ezdxf.readfile(sys.argv[1])
found = drawing.audit()
def area(block):
    sum = 0
    for e in block:
        if e.dxftype() == 'CIRCLE':
            sum -= math.pi * e.dxf.radius ** 2
        if e.dxftype() == 'LWPOLYLINE':
            assert e.closed
            p = [v[:2] for v in e.get_points()]
            own = abs(__builtins__.sum(p[k - 1][0] * p[k][1] - p[k][0] * p[k - 1][1] for k in range(len(p)))) / 2
            sum += own if e.dxf.layer == 'OUTLINE' else -own
    return sum
model = drawing.modelspace()
names = collections.Counter(e.dxf.name for e in model if e.dxftype() == 'INSERT')
print(json.dumps(dict(errors=[str(e.message) for e in found.errors], inserts=names.total(), blocks=len(names),
    area=math.fsum(area(drawing.blocks[name]) * count for name, count in names.items()),
    texts=[e.dxf.text for e in model if e.dxftype() == 'TEXT'])))
`;

describe('drawings, read by programs that did not write them', () => {
	let model: Model;
	before(async () => {
		model = await new Chain().run(
			readProjectText(readFileSync(new URL('../lido.json', import.meta.url), 'utf8'))
		);
	});
	const sheets = (groups: readonly string[], most = Infinity) =>
		bookOf(model, AT.slice(0, 10))
			.filter(({ group }) => groups.includes(group))
			.slice(0, most);

	it('PDF: sound, fonts in it, a page for every sheet, with bookmarks and the marks and sums of the schedule as text', async function () {
		this.timeout(120_000);
		const bytes = await formats
			.find(({ id }) => id === 'pdf')!
			.write({
				model,
				project: model.project,
				at: AT,
				released: null,
				fonts: drawingFonts,
				packing: quickPacking
			});
		const path = kept('all.pdf', bytes as Uint8Array);
		expect(asked('qpdf', '--check', path)).to.match(/No syntax or stream encoding errors/);
		const fonts = asked('pdffonts', path).trim().split('\n').slice(2);
		expect(fonts.length).to.equal(2);
		for (const font of fonts) expect(font).to.match(/CID TrueType\s+Identity-H\s+yes/);
		const pages = bookOf(model, AT.slice(0, 10)).reduce((sum, { count }) => sum + count, 0);
		expect(asked('pdfinfo', path)).to.match(new RegExp(`Pages:\\s+${pages}\n`));
		const { outlines } = JSON.parse(asked('qpdf', '--json=2', '--json-key=outlines', path)) as {
			outlines: { title: string; kids: { title: string }[] }[];
		};
		expect(outlines.map(({ title }) => title)).to.deep.equal([
			'Cover',
			'Elevations',
			'Unrolled',
			'Pieces',
			'Bars',
			'Nodes'
		]);
		const text = asked('pdftotext', path, '-');
		const bars = makeSchedule(model, 'bars');
		const words = new Set(text.split(/[\s,]+/));
		for (const list of ['panels', 'bars', 'nodes'] as const)
			for (const mark of cellsOf(makeSchedule(model, list).column('mark')!))
				if (!words.has(String(mark))) expect.fail(`${String(mark)} stands nowhere`);
		const metres = cellsOf(bars.column('length')!).reduce<number>((sum, one) => sum + Number(one), 0) / 1000;
		expect(text).to.include(`${bars.rows} bars, ${metres.toFixed(1)} m`);
		const mass = ['panels', 'bars', 'louvers'] as const;
		const tonnes =
			mass
				.flatMap((list) => cellsOf(makeSchedule(model, list).column('mass')!))
				.reduce<number>((sum, one) => sum + Number(one), 0) / 1000;
		expect(text).to.include(`${tonnes.toFixed(2)} t`);
	});

	it('PDF: the same sheets at the same moment are the same file; letters that the font has not are question marks', async () => {
		const [cover] = sheets(['cover'])[0]!.draw();
		const strange = {
			...cover!,
			inked: [
				{
					layer: 'text',
					fills: [],
					lines: new Float64Array(0),
					texts: [
						{ x: 50, y: 50, size: 4, text: 'Halle 木 ≤ 3\u202f200 mm²', from: 'left', turn: 0, bold: false }
					]
				}
			]
		} as typeof cover;
		const write = async () => writePdf('Test', [{ title: 'A', pages: [strange!] }], await drawingFonts(), AT);
		const [one, other] = [await write(), await write()];
		expect(Buffer.compare(one, other)).to.equal(0);
		expect(asked('pdftotext', kept('strange.pdf', one), '-')).to.include('Halle ? ≤ 3 200 mm²');
	});

	it('DXF of lines in space: sound, every line once and as long as it is, guides as they run', () => {
		const path = kept('lines.dxf', writeDxfLines(model));
		const found = JSON.parse(asked('/usr/bin/python3', '-c', DXF_READER, path)) as {
			errors: string[];
			units: number;
			layers: string[];
			used: string[];
			kinds: Record<string, number>;
			length: number;
		};
		expect(found.errors).to.deep.equal([]);
		expect(found.units).to.equal(4);
		expect(found.layers).to.include.members(found.used);
		const figures = model.zones.map(({ model: zone }) => layoutFigures(zone!.faces));
		const runs = [...model.guides.values()].flatMap((points) =>
			points.slice(1).map((point, k) => distance(point, points[k]!))
		);
		const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0);
		expect(found.kinds['LINE']).to.equal(sum(figures.map(({ edges }) => edges)) + runs.length);
		expect(found.length).to.be.closeTo(sum(figures.map(({ lineLength }) => lineLength)) + sum(runs), 1);
		expect(found.used).to.include('GR DIAGONAL');
	});

	it('DXF of flat patterns: sound, a block for sheets that are alike, put in once for each, with the area of the schedule', () => {
		const path = kept('patterns.dxf', writeDxfPatterns(model));
		const found = JSON.parse(asked('/usr/bin/python3', '-c', PATTERNS_READER, path)) as {
			errors: string[];
			inserts: number;
			blocks: number;
			area: number;
			texts: string[];
		};
		expect(found.errors).to.deep.equal([]);
		const sources = sourcesOf(model).filter(
			({ group, clause }) => group.over === 'cell' && !besideName(clause)
		);
		let [area, plates] = [0, 0];
		const marks = new Set<string>();
		for (const { group, marks: marksOf } of sources) {
			const called = marksOf();
			for (const table of group.run.elements)
				if (table.stock?.shape === 'plate')
					table.row.forEach((row, k) => {
						[area, plates] = [area + table.area[k]!, plates + 1];
						marks.add(called[row]!);
					});
		}
		expect(found.inserts).to.equal(plates);
		expect(found.blocks).to.be.lessThan(found.inserts);
		// The schedule's is that of a plate as it is seen along its normal: warped ones are a little larger laid flat.
		expect(found.area / area).to.be.within(1, 1.003);
		expect(found.texts).to.include.members([...marks]);
	});

	it('DXF: sound, in millimetres, every layer there is one that is defined, as many lines as long', () => {
		const { drawings } = model.project;
		const sections = [{ id: 's', looking: 'north' as const, at: 8000 }];
		const cut = { ...model, project: { ...model.project, drawings: { ...drawings, sections } } };
		const section = bookOf(cut, AT.slice(0, 10)).filter(({ group }) => group === 'sections');
		const pages = [...sheets(['elevations'], 1), ...sheets(['unrolled'], 2), ...section].flatMap((one) =>
			one.draw()
		);
		const path = kept('some.dxf', writeDxf(pages));
		const found = JSON.parse(asked('/usr/bin/python3', '-c', DXF_READER, path)) as {
			errors: string[];
			units: number;
			layers: string[];
			used: string[];
			kinds: Record<string, number>;
			length: number;
			texts: string[];
		};
		expect(found.errors).to.deep.equal([]);
		expect(found.units).to.equal(4);
		expect(found.layers).to.include.members(found.used);
		expect(Object.values(layers).map(({ name }) => name)).to.include.members(found.used);
		const inked = pages.flatMap((page) => page.inked);
		const lines = inked.reduce((sum, one) => sum + one.lines.length / 4, 0);
		expect(found.kinds).to.deep.equal({
			LINE: lines,
			HATCH: inked.reduce((sum, { fills }) => sum + fills.length, 0),
			TEXT: inked.reduce((sum, { texts }) => sum + texts.length, 0)
		});
		let length = 0;
		for (const one of inked)
			for (let k = 0; k < one.lines.length; k += 4)
				length += Math.hypot(one.lines[k + 2]! - one.lines[k]!, one.lines[k + 3]! - one.lines[k + 1]!);
		expect(found.length).to.be.closeTo(length, 1e-3 * length);
		expect(found.texts).to.include.members(inked.flatMap(({ texts }) => texts.map(({ text }) => text)));
	});

	it('SVG: well formed, drawn as the sheet is: as wide, and with ink where its lines are', () => {
		const [page] = sheets(['elevations'], 2)[1]!.draw();
		const path = kept('one.svg', writeSvg(page!));
		asked('xmllint', '--noout', path);
		asked('rsvg-convert', '--width', '840', '--format', 'png', '--output', join(directory, 'one.png'), path);
		const png = readFileSync(join(directory, 'one.png'));
		expect([png.readUInt32BE(16), png.readUInt32BE(20)]).to.deep.equal([840, 594]);
		// A sheet of nothing packs to a hundredth of one that is drawn on.
		expect(png.length).to.be.above(20_000);
	});
});
