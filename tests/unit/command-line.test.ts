import { expect } from 'chai';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { withLists } from '../../scripts/doc-lists';
import { main } from '../../src/cli/main';
import { documentSchemas } from '../../src/core/project/json-schema';
import { measureNaively } from '../bench/naive-measures';
import { measureCells } from '../../src/core/measure/cell-measures';
import { setOut } from '../../src/core/grid/set-out';
import { Lattice } from '../../src/core/grid/lattice';
import { layTiles } from '../../src/core/pattern/lay-tiles';
import { patternOf } from '../../src/core/pattern/catalogue';
import { count, onlyFace, revolved, settingOutOf } from '../faces';
import Ajv2020 from 'ajv/dist/2020.js';

const root = fileURLToPath(new URL('../../', import.meta.url));
/** Run the command line in this process. */
async function run(...args: string[]): Promise<{ status: number; stdout: string; stderr: string }> {
	const [out, err]: [string[], string[]] = [[], []];
	const status = await main(args, { print: (line) => out.push(line), complain: (line) => err.push(line) });
	return { status, stdout: out.join('\n'), stderr: err.join('\n') };
}

const example = join(root, 'docs/examples/small.json');

describe('command line', () => {
	const folder = mkdtempSync(join(tmpdir(), 'zyg-'));
	after(() => rmSync(folder, { recursive: true }));

	it('starts from its own build, with its exit code', () => {
		const zyg = (...args: string[]) =>
			spawnSync(process.execPath, ['scripts/zyg.mjs', ...args], { cwd: root, encoding: 'utf8' });
		expect(JSON.parse(zyg('summary', 'docs/examples/small.json').stdout).project).to.equal('Garden wall');
		expect(zyg('paint', 'x').status).to.equal(2);
	});

	it('summary prints one JSON object with the counts of every zone', async () => {
		const { stdout, status } = await run('summary', example);
		expect(status).to.equal(0);
		const summary = JSON.parse(stdout);
		expect(summary.zones[0]).to.include({
			name: 'Garden wall',
			faces: 1,
			bays: 7,
			courses: 2,
			nodes: 24,
			edges: 37
		});
		expect(summary.zones[0].cells).to.deep.equal({ whole: 14, edge: 0, cut: 0, strip: 0 });
		expect(summary.like_sets).to.equal(null);
		expect(summary.ms).to.have.keys('surface', 'grid', 'cells', 'measures', 'parts');
	});

	it('what is to be known of a model that stands is told, and it is written all the same', async () => {
		const document = JSON.parse(readFileSync(example, 'utf8'));
		const { across, up } = { across: 1300, up: 1700 };
		document.zones[0].settingOut = {
			across: { by: 'exact size', size: across, start: 'left' },
			up: { by: 'exact size', size: up, start: 'foot' },
			along: 'equal chords'
		};
		document.zones[0].layer = { depth: '-50 m' };
		document.masses[0].form = {
			kind: 'revolved',
			profile: {
				points: [
					[4000, 0],
					[4000, 5000]
				],
				joins: 'line'
			}
		};
		document.zones[0].faces[0].face = 'shell';
		const file = join(mkdtempSync(join(tmpdir(), 'zyg-')), 'remarks.json');
		writeFileSync(file, JSON.stringify(document));
		const { status, stdout, stderr } = await run('summary', file);
		expect(stderr).to.match(/the net of equal chords covers [\d.]+ of [\d.]+ m² of shell/);
		expect(stderr).to.match(/the layer crosses itself in \d+ steps of shell/);
		expect(status).to.equal(0);
		expect(JSON.parse(stdout).zones[0].cells.whole).to.be.greaterThan(0);
	});

	it('build writes every format', async () => {
		expect((await run('build', example, '--out', folder)).status).to.equal(0);
		expect(readdirSync(folder).sort()).to.deep.equal([
			'small-anchors.csv',
			'small-bars.csv',
			'small-blades.csv',
			'small-connectors.csv',
			'small-elements.csv',
			'small-kinds.csv',
			'small-lengths.csv',
			'small-lines.dxf',
			'small-louvers.csv',
			'small-materials.csv',
			'small-nodes.csv',
			'small-panels.csv',
			'small-patterns.dxf',
			'small-pieces.stp',
			'small-placing.json',
			'small-rules.csv',
			'small-sheets.csv',
			'small-structure.csv',
			'small.3mf',
			'small.dxf',
			'small.glb',
			'small.ifc',
			'small.json',
			'small.obj',
			'small.pdf',
			'small.stl',
			'small.stp',
			'small.xlsx'
		]);
	});

	it('faults go to stderr with their place, exit code 2', async () => {
		const file = join(folder, 'bad.json');
		const small = JSON.parse(readFileSync(join(root, 'docs/examples/small.json'), 'utf8'));
		const cases: [unknown, RegExp][] = [
			['{', /not JSON/],
			[{ ...small, shade: 1 }, /shade: this key is not known/],
			[
				{
					...small,
					zones: [
						{ ...small.zones[0], settingOut: { ...small.zones[0].settingOut, up: { by: 'count', count: 0 } } }
					]
				},
				/zones\/wall\/settingOut\/up: 0 courses cannot be made/
			],
			[
				{ ...small, variants: small.variants.slice(1) },
				/zones\/wall\/rules\/glass: the variant "glass" is not in the kit; known: blades, post/
			]
		];
		for (const [content, sentence] of cases) {
			writeFileSync(file, typeof content === 'string' ? content : JSON.stringify(content));
			const { status, stderr } = await run('summary', file);
			expect(stderr).to.match(sentence);
			expect(status).to.equal(2);
		}
		expect((await run('summary', join(folder, 'none.json'))).status).to.equal(2);
		expect((await run('paint', 'x')).status).to.equal(2);
	});
});

describe('JSON Schema', () => {
	it('in docs/ is current, and takes the demo and the example (ajv)', () => {
		const ajv = new Ajv2020({
			strict: false,
			formats: { uuid: /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/ }
		});
		for (const [name, schema] of Object.entries(documentSchemas())) {
			const kept = JSON.parse(readFileSync(join(root, `docs/${name}.schema.json`), 'utf8'));
			expect(kept, 'run npm run docs:schema').to.deep.equal(JSON.parse(JSON.stringify(schema)));
			if (name !== 'project') continue;
			const check = ajv.compile(kept);
			for (const file of ['demo/tidal-lido.json', 'docs/examples/small.json'])
				expect(
					check(JSON.parse(readFileSync(join(root, file), 'utf8'))),
					JSON.stringify(check.errors?.slice(0, 2))
				).to.equal(true);
		}
	});
});

describe('lists in the documentation', () => {
	it('name every part and material that ships', () => {
		const page = readFileSync(join(root, 'docs/project-format.md'), 'utf8');
		expect(page, 'run npm run docs:schema').to.equal(withLists(page));
		expect(page).to.contain('`woven-tube`').and.contain('`concrete`');
	});
});

describe('measures', () => {
	it('in columns agree with the plain way, cell by cell', () => {
		const face = onlyFace(
			revolved(
				[
					[4000, 0],
					[3000, 4000],
					[4500, 9000]
				],
				'smooth'
			)
		);
		const grid = setOut(face, settingOutOf(count(14, 9)), 'x');
		for (const kind of ['rectangles', 'diamonds'] as const) {
			const { cells } = layTiles(new Lattice(grid, face.surface), patternOf({ kind }), 'x');
			const columns = measureCells(cells, grid.positions);
			measureNaively(cells, grid.positions).forEach((plain, c) => {
				for (const key of [
					'area',
					'perimeter',
					'longestEdge',
					'shortestEdge',
					'smallestAngle',
					'largestAngle',
					'warp'
				] as const)
					expect(columns[key][c]!).to.be.closeTo(plain[key], 1e-9 * Math.max(1, plain[key]) + 1e-9);
			});
		}
	});
});
