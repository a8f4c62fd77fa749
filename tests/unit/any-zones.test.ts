import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import { cellAddress, edgeAddress } from '../../src/core/cladding/address';
import type { ZoneModel } from '../../src/core/cladding/model';
import { flatLayout } from '../../src/core/measure/flat-layout';
import { shippedParts } from '../../src/core/part/kit';
import { placesOf } from '../../src/core/part/places';
import { outlineOf } from '../../src/core/pattern/cells';
import { plainPatterns } from '../../src/core/project/pattern-schema';
import { readProject } from '../../src/core/project/read';
import type { Project } from '../../src/core/project/schema';
import fc from '../property';
import { projectOf, revolved, sheet } from '../faces';

/** Sizes of what is built (mm). */
const size = fc.integer({ min: 1500, max: 9000 });
const count = (most: number) => fc.integer({ min: 1, max: most }).map((n) => ({ by: 'count', count: n }));

const forms = fc.oneof(
	fc
		.tuple(size, size, size, fc.constantFrom(360, 360, 120, 300), fc.constantFrom('line', 'smooth'))
		.map(([foot, waist, head, turn, joins]) =>
			revolved(
				[[foot, 0] as const, [waist, 4000] as const, [head, 9000] as const] as never,
				joins as never,
				turn
			)
		),
	fc
		.tuple(size, size)
		.map(([foot, waist]) =>
			revolved([[foot, 0] as const, [waist, 5000] as const, [0, 7000] as const] as never, 'smooth')
		),
	fc.tuple(size, size).map(([width, height]) => sheet(width, height)),
	fc.tuple(size, size, size).map(([a, b, c]) => ({
		kind: 'dome',
		at: [100, 200],
		foot: 3000,
		radii: [a, b, c],
		cut: (a % 3) * 0.2 * c
	})),
	fc.tuple(size, fc.integer({ min: -90, max: 90 })).map(([radius, twist]) => ({
		kind: 'twisted',
		outline: { shape: 'polygon', sides: 3 + (radius % 4), radius, rounding: radius % 3 ? 0 : radius / 10 },
		at: [0, 0],
		foot: 0,
		head: 12000,
		twist,
		taper: 0.8
	})),
	fc.tuple(size, size).map(([width, depth]) => ({
		kind: 'prism',
		outline: { shape: 'rectangle', width, depth, rounding: width % 2 ? 0 : Math.min(width, depth) / 5 },
		at: [0, 0],
		foot: 0,
		head: 6000,
		curved: []
	}))
);

const spacing = (...starts: readonly unknown[]) => {
	const steps = fc.integer({ min: 600, max: 1900 });
	const start = fc.constantFrom(...starts);
	return fc.oneof(
		count(14),
		fc.tuple(fc.constantFrom('at most', 'at least'), steps).map(([by, mm]) => ({ by, size: mm })),
		fc.tuple(steps, start).map(([mm, from]) => ({ by: 'exact size', size: mm, start: from })),
		fc
			.tuple(fc.array(fc.integer({ min: 300, max: 1500 }), { minLength: 1, maxLength: 4 }), start)
			.map(([sizes, from]) => ({ by: 'list', sizes, start: from })),
		fc
			.uniqueArray(fc.integer({ min: 1, max: 99 }), { minLength: 1, maxLength: 8 })
			.map((at) => ({ by: 'parameters', at: at.map((one) => one / 100) }))
	);
};
const settings = fc.record({
	across: spacing('left', 'middle', 'right', { at: 1000 }),
	up: spacing('foot', 'middle', 'head', { at: 700 }),
	along: fc.constantFrom(
		'true length',
		'belt line',
		'own parameter',
		'level planes',
		'equal chords',
		'geodesics'
	),
	shift: fc.constantFrom([0, 0], [0, 0], [-250, 410]),
	joint: fc.constantFrom(0, 12),
	poleHole: fc.constantFrom(0, 300)
});

const sheets = fc.constantFrom(null, { per: 'face' }, { per: { bays: 3, courses: 2 } });
const patterns = fc.oneof(
	fc.constantFrom(...plainPatterns, 'running bond', 'random splits').map((kind) => ({ kind })),
	fc
		.constantFrom('rising', 'falling', 'alternating', 'shorter')
		.map((diagonal) => ({ kind: 'triangles', diagonal })),
	fc.constantFrom('upright', 'level').map((sides) => ({ kind: 'hexagons', sides })),
	fc.integer({ min: 2, max: 8 }).map((bays) => ({ kind: 'undulating', bays, rise: 0.4 })),
	fc
		.tuple(fc.integer({ min: 1, max: 99 }), fc.integer({ min: 20, max: 120 }), sheets)
		.map(([seed, cells, one]) => ({ kind: 'voronoi', seed, count: cells, margin: one ? 40 : 0, sheet: one }))
);
const trims = fc.constantFrom(
	null,
	{
		by: 'outline',
		outline: { shape: 'ellipse', width: 2600, depth: 1900 },
		at: [1500, -100, 3000],
		direction: [0, 1, 0]
	},
	{ by: 'plane', at: [0, 0, 3300], normal: [0.2, 0.1, 1] }
);

/** Each is made by itself, at length. */
const SLOW = 'cast-node';
const hangingOn = (kind: string) =>
	fc.constantFrom(
		...shippedParts.filter(({ id, anchor }) => anchor.kind === kind && id !== SLOW).map(({ id }) => id)
	);
const ends = [{ is: 'mitred' }, { is: 'butted', through: 'bay' }, { is: 'set back', by: 20 }];
const runs = fc.record(
	{
		ends: fc.constantFrom(...ends),
		joined: fc.constant({ stock: 6000, within: 5, staggered: true })
	},
	{ requiredKeys: [] }
);

/** A zone on a face, with a grid behind it, a web between the two, a path along a rim and chains through its nodes. */
const projects = fc
	.record({
		form: forms,
		setting: settings,
		pattern: patterns,
		trim: trims,
		run: runs,
		cut: fc.constantFrom({}, { cut: 'clip' }),
		cell: hangingOn('ring'),
		line: hangingOn('pair'),
		node: hangingOn('node'),
		behind: fc.record({ depth: fc.constantFrom('-300 mm', '250 mm', '-1200 mm'), shifted: fc.boolean() }),
		patternBehind: patterns,
		gaps: spacing('left', 'middle'),
		side: fc.constantFrom('foot', 'head', 'left', 'trim'),
		step: fc.constantFrom([1, 1], [2, 1], [1, 0], [0, 1], [1, -1]),
		copies: fc.constantFrom(null, { count: 5, by: 'full circle', about: [0, 0], mirrored: true }),
		over: fc.constantFrom(0, 40)
	})
	.map((asked): Project => {
		const variants = (['cell', 'line', 'node'] as const).map((id) => ({
			id,
			name: id,
			part: asked[id],
			values: {}
		}));
		const rules = [{ id: 'r', put: { variant: 'cell', ...asked.cut } }];
		const lines = ['bay', 'course', 'diagonal', 'rim', 'upright', 'gap'];
		const onLines = [{ id: 'l', lines, variant: 'line', ...asked.run }];
		const onNodes = [{ id: 'n', variant: 'node' }];
		const project = projectOf(
			asked.form as never,
			asked.setting as never,
			{ pattern: asked.pattern, rules, runs: onLines, nodes: onNodes } as never,
			{ variants }
		);
		const [mass, zone] = [project.masses[0]!, project.zones[0]!];
		const standing = (id: string, on: object, more: object = {}) => ({
			id,
			code: id.toUpperCase(),
			name: id,
			faces: [],
			settingOut: { across: asked.gaps, up: { by: 'count', count: 4 } },
			pattern: { kind: 'rectangles' },
			on,
			runs: [{ id: 'l', lines, variant: 'line' }],
			...more
		});
		const bars = asked.behind.shifted ? ['diagonal'] : ['upright', 'diagonal'];
		const { copies, over, side, step } = asked;
		const { trim, behind, patternBehind: pattern } = asked;
		return readProject({
			...project,
			masses: [{ ...mass, trims: trim ? [{ ...trim, id: 't', face: zone.faces[0]!.face }] : [] }],
			zones: [
				zone,
				standing('low', { is: 'layer', of: 'z', ...behind }, { pattern, rules }),
				standing('web', { is: 'web', from: 'z', to: 'low', bars }),
				standing('path', { is: 'path', along: { is: 'rim', of: 'z', side }, lift: 100, aside: 30 }),
				standing('weave', {
					is: 'chains',
					of: 'z',
					through: { by: 'steps', from: [1, 1], step },
					copies,
					over
				})
			]
		} as never);
	});

function expectSound({ faces, groups }: ZoneModel): void {
	for (const face of faces) {
		const { grid, measures, cells, edges } = face;
		if (cells.count) expect(flatLayout(face).points.every(Number.isFinite)).to.equal(true);
		for (const column of [grid.positions, grid.normals, ...Object.values(measures)])
			expect((column as Float64Array).every(Number.isFinite)).to.equal(true);
		const addresses = (all: number, of: (k: number) => string) =>
			expect(new Set(Array.from({ length: all }, (_, k) => of(k))).size).to.equal(all);
		addresses(cells.count, (c) => cellAddress('f', cells, c));
		addresses(edges.count, (e) => edgeAddress('f', edges, e));
	}
	for (const { group } of groups)
		for (const { volume, area, length, shape, count: all } of group.run.elements) {
			for (const column of [volume, area, length])
				for (const one of column) expect(one).to.be.at.least(-1).and.to.be.lessThan(Infinity);
			for (let k = 0; k < all; k++) expect(placesOf(shape, k).every(Number.isFinite)).to.equal(true);
		}
}

describe('any zones', () => {
	it('are made, or it is said in words why not; whatever is made is finite and has an address of its own', async () => {
		await fc.assert(
			fc.asyncProperty(projects, async (project) => {
				const { zones, problems } = await new Chain().run(project);
				for (const { text } of problems)
					expect(text).to.not.match(/does not know|NaN|Infinity|undefined|null|\[object/);
				for (const { model } of zones) if (model) expectSound(model);
			}),
			{ numRuns: 25 }
		);
	});

	it('a sheet fills a cell whose rim comes by the node of a pole twice', async () => {
		const dome = { kind: 'dome', at: [0, 0], foot: 0, radii: [1500, 1500, 1500], cut: 0 };
		const across = { by: 'parameters', at: [0.01, 0.02, 0.03] };
		const { zones, problems } = await new Chain().run(
			projectOf(
				dome as never,
				{ across, up: { by: 'count', count: 3 } } as never,
				{ pattern: { kind: 'rhombille' }, rules: [{ id: 'r', put: { variant: 's' } }] } as never,
				{ variants: [{ id: 's', name: 's', part: 'pierced-sheet', values: {} }] }
			)
		);
		expect(problems).to.deep.equal([]);
		const { faces, groups } = zones[0]!.model!;
		const { start, nodes } = outlineOf(faces[0]!.cells);
		const twice = Array.from({ length: faces[0]!.cells.count }, (_, c) =>
			nodes.subarray(start[c]!, start[c + 1]!)
		);
		expect(twice.some((ring) => new Set(ring).size < ring.length)).to.equal(true);
		expect(groups.flatMap(({ group }) => group.run.elements).length).to.be.greaterThan(0);
	});
});
