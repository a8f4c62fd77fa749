import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import type { ZoneModel } from '../../src/core/cladding/model';
import { namesIn, prefixesOf } from '../../src/core/cladding/table-book';
import { siteSetOf } from '../../src/core/cladding/sites';
import { columnValues, everySite } from '../../src/core/field/column';
import { fieldOf } from '../../src/core/field/fields';
import { distance, pointAt, type Vector } from '../../src/core/geometry/vector';
import type { Form } from '../../src/core/project/form-schema';
import { plainPatterns } from '../../src/core/project/pattern-schema';
import { readProject } from '../../src/core/project/read';
import type { Project, ZoneInput } from '../../src/core/project/schema';
import { boundsOf } from '../../src/core/part/places';
import { edgeDirections } from '../../src/core/pattern/edges';
import fc from '../property';
import { count, projectOf, revolved, sheet } from '../faces';

const [WIDTH, HEIGHT] = [12_000, 8000];
const DEPTH = 600;

const drum = revolved([
	[5000, 0],
	[5000, HEIGHT]
]);

/** An elliptic hole in the middle of the sheet. */
const opening = {
	by: 'outline',
	id: 'hole',
	outline: { shape: 'ellipse', width: 4000, depth: 3000 },
	at: [6000, -100, 4000],
	direction: [0, 1, 0]
};

/** A zone that stands on something else than faces. */
const standing = (id: string, on: object, more: object = {}) =>
	({
		id,
		code: id.toUpperCase(),
		name: id,
		faces: [],
		settingOut: count(4, 4),
		pattern: { kind: 'rectangles' },
		on,
		...more
	}) as ZoneInput;
const layer = (id: string, more: object = {}, zone: Partial<ZoneInput> = {}) =>
	standing(id, { is: 'layer', of: 'z', depth: `-${DEPTH} mm`, shifted: false, ...more }, zone);

/** The first zone on a form, with others that stand on it. */
function projectWith(
	form: Form,
	across: number,
	up: number,
	others: readonly ReturnType<typeof standing>[],
	trims: readonly object[] = []
): Project {
	const project = projectOf(form, count(across, up));
	const [mass, zone] = [project.masses[0]!, project.zones[0]!];
	const { face } = zone.faces[0]!;
	return readProject({
		...project,
		masses: [{ ...mass, trims: trims.map((trim) => ({ ...trim, face })) }],
		zones: [zone, ...others]
	} as never);
}

async function zonesOf(project: Project): Promise<Record<string, ZoneModel>> {
	const { zones, problems } = await new Chain().run(project);
	expect(problems.filter(({ remark }) => !remark)).to.deep.equal([]);
	return Object.fromEntries(zones.map(({ id, model }) => [id, model!]));
}
async function problemsOf(project: Project) {
	return (await new Chain().run(project)).problems;
}
const linesOf = ({ faces }: ZoneModel) => faces.reduce((sum, { edges }) => sum + edges.count, 0);
function lengths({ faces }: ZoneModel, f = 0): Float64Array {
	const { edges } = faces[f]!;
	return columnValues(fieldOf('line', 'length').column(faces[f]!, everySite(edges.count)), edges.count);
}
const sum = (values: Float64Array) => values.reduce((all, one) => all + one, 0);
const nodesOf = ({ faces }: ZoneModel, f = 0): Vector[] =>
	Array.from({ length: faces[f]!.grid.positions.length / 3 }, (_, n) => pointAt(faces[f]!.grid.positions, n));

describe('a grid behind another', () => {
	for (const kind of plainPatterns)
		it(`${kind}: every node lies at its depth along the normal`, async () => {
			const { none, low } = await zonesOf(
				projectWith(sheet(WIDTH, HEIGHT), 12, 8, [
					layer('low', {}, { pattern: { kind } }),
					layer('none', { depth: '0 mm' }, { pattern: { kind } })
				])
			);
			expect(low!.faces[0]!.cells).to.deep.equal(none!.faces[0]!.cells);
			const behind = nodesOf(low!);
			nodesOf(none!).forEach(([x, y, height], n) => {
				// The sheet faces -y: behind it is +y.
				expect(distance(behind[n]!, [x, y + DEPTH, height])).to.be.lessThan(1e-6);
			});
		});

	it('has a pattern of its own', async () => {
		const { low } = await zonesOf(
			projectWith(sheet(WIDTH, HEIGHT), 12, 8, [layer('low', {}, { pattern: { kind: 'tetrakis square' } })])
		);
		const { start } = low!.faces[0]!.cells;
		for (let c = 0; c + 1 < start.length; c++) expect(start[c + 1]! - start[c]!).to.equal(3);
	});

	it('shifted, its nodes lie behind the middles of steps', async () => {
		const { low } = await zonesOf(
			projectWith(sheet(WIDTH, HEIGHT), 12, 8, [layer('low', { shifted: true })])
		);
		const { cells, grid } = low!.faces[0]!;
		expect([grid.columns, grid.rows, cells.count]).to.deep.equal([12, 8, 11 * 7]);
		expect(distance(pointAt(grid.positions, 0), [500, DEPTH, 500])).to.be.lessThan(1e-6);
		expect(distance(pointAt(grid.positions, 12 * 8 - 1), [11_500, DEPTH, 7500])).to.be.lessThan(1e-6);
	});

	it('shifted, it is filled by every pattern, to the middles of the outer steps', async () => {
		const scatter = { kind: 'voronoi' as const, count: 400 };
		const others = (['triangles', 'hexagons', 'running bond', 'random splits'] as const).map((kind) => ({
			kind
		}));
		const sheets = (['face', { bays: 4, courses: 3 }] as const).map((per) => ({
			...scatter,
			margin: 60,
			sheet: { per }
		}));
		const plain = plainPatterns.map((kind) => ({ kind }));
		for (const pattern of [...plain, ...others, scatter, ...sheets]) {
			const { low } = await zonesOf(
				projectWith(sheet(WIDTH, HEIGHT), 12, 8, [layer('low', { shifted: true }, { pattern })])
			);
			const [whole, wanted] = [sum(low!.faces[0]!.measures.area), (WIDTH - 1000) * (HEIGHT - 1000)];
			expect(whole, JSON.stringify(pattern)).to.be.closeTo(wanted, 1e-6 * wanted);
		}
		// All round a drum too, over the seam; cells are flat, and a little less than the drum.
		const round = 2 * Math.PI * (5000 - DEPTH) * (HEIGHT - 1000);
		for (const pattern of [scatter, sheets[1]!]) {
			const { low } = await zonesOf(projectWith(drum, 24, 8, [layer('low', { shifted: true }, { pattern })]));
			expect(sum(low!.faces[0]!.measures.area), JSON.stringify(pattern)).to.be.within(0.985 * round, round);
		}
	});

	it('on a ring it lies on the smaller ring', async () => {
		const ring = revolved([
			[5000, 0],
			[5000, 6000]
		]);
		const { low, far } = await zonesOf(
			projectWith(ring, 24, 6, [layer('low'), layer('far', { depth: '400 mm', shifted: true })])
		);
		for (const [x, y] of nodesOf(low!)) expect(Math.hypot(x, y)).to.be.closeTo(5000 - DEPTH, 1e-6);
		for (const [x, y] of nodesOf(far!)) expect(Math.hypot(x, y)).to.be.closeTo(5400, 1e-6);
		expect(far!.faces[0]!.cells.count).to.equal(24 * 5);
	});

	it('is matched by tables under its own marks', async () => {
		const { zones } = projectWith(sheet(WIDTH, HEIGHT), 6, 4, [layer('low')]);
		const { low } = await zonesOf(projectWith(sheet(WIDTH, HEIGHT), 6, 4, [layer('low')]));
		const prefixes = prefixesOf(zones);
		const [face] = low!.faces;
		expect([...prefixes.values()]).to.deep.equal(['Z', 'LOW']);
		expect(namesIn({ by: 'mark' }, prefixes, face!.address, face!.cells)[0]).to.equal('LOW-C01-B01');
	});

	it('follows a field of its nodes', async () => {
		const { low } = await zonesOf(
			projectWith(sheet(WIDTH, HEIGHT), 6, 4, [layer('low', { depth: '-300 mm - height / 10' })])
		);
		for (const [, y, height] of nodesOf(low!)) expect(y).to.be.closeTo(300 + height / 10, 1e-6);
	});

	it('that turns over says how deep it may be, and flags the cells', async () => {
		const ring = revolved([
			[1000, 0],
			[1000, 6000]
		]);
		const project = projectWith(ring, 24, 6, [layer('low', { depth: '-1500 mm' })]);
		const told = (await problemsOf(project)).find(({ at }) => at === 'zones/low/on');
		expect(told?.text)
			.to.contain('turns over in 144 cells')
			.and.to.match(/a radius down to 1\s000 mm/);
		const { low } = await zonesOf(project);
		expect(low!.faces[0]!.flags.get(0)?.map(({ code }) => code)).to.deep.equal(['cell.folded-over']);
	});

	it('that turns over at a rounding between nodes says the radius of that', async () => {
		const block: Form = {
			kind: 'prism',
			outline: { shape: 'rectangle', width: 8220, depth: 2906, rounding: 581 },
			at: [0, 0],
			foot: 0,
			head: 6000,
			curved: []
		};
		const told = await problemsOf(
			projectWith(block, 16, 3, [layer('low', { depth: '-1500 mm', shifted: true })])
		);
		expect(told.find(({ at }) => at === 'zones/low/on')?.text).to.contain('a radius down to 581 mm');
	});

	it('that turns over at a crease says so, and no radius', async () => {
		const waist = revolved([
			[7700, 0],
			[3700, 4000],
			[9000, 9000]
		]);
		const told = await problemsOf(projectWith(waist, 20, 30, [layer('low', { depth: '400 mm' })]));
		expect(told.find(({ at }) => at === 'zones/low/on')?.text).to.match(
			/turns over.*: the face has a crease there/
		);
	});

	it('of a zone that is not there, or is one itself, is told with a way out', async () => {
		const gone = projectWith(sheet(WIDTH, HEIGHT), 6, 4, [layer('low', { of: 'nobody' })]);
		expect((await problemsOf(gone)).map(({ at, text }) => `${at}: ${text}`)).to.deep.equal([
			'zones/low/on/of: the zone "nobody" is not there any more; there are Zone, low'
		]);
		const twice = projectWith(sheet(WIDTH, HEIGHT), 6, 4, [layer('low'), layer('deep', { of: 'low' })]);
		const [problem] = await problemsOf(twice);
		expect(problem!.fixes).to.deep.equal([{ label: 'Zone', path: 'zones/deep/on/of', value: 'z' }]);
	});
});

describe('the space between two grids', () => {
	const block = { id: 'b', name: 'b', part: 'hollow-block', values: {} };
	const rules = [{ id: 'all', put: { variant: 'b', values: {} } }];
	/** How far in and out the bodies of all blocks reach (mm). */
	function depthOfBlocks(zone: ZoneModel): number[] {
		const reach = [Infinity, -Infinity];
		for (const { group } of zone.groups)
			for (const table of group.run.elements) {
				const { low, high } = boundsOfTable(table, zone.faces[0]!.origin);
				reach[0] = Math.min(reach[0]!, low);
				reach[1] = Math.max(reach[1]!, high);
			}
		return reach;
	}
	const boundsOfTable = (table: Parameters<typeof boundsOf>[0], origin: readonly number[]) => {
		const bounds = boundsOf(table);
		return { low: bounds[1]! + origin[1]!, high: bounds[4]! + origin[1]! };
	};

	it('is filled by blocks up to any other grid behind the same faces, from the one or from the other', async () => {
		const base = projectWith(sheet(WIDTH, HEIGHT), 6, 4, [
			layer('low'),
			layer('deep', { depth: '-1500 mm' })
		]);
		const [first, low, deep] = base.zones;
		const filled = (zones: readonly (object | undefined)[]) =>
			zonesOf(readProject({ ...base, variants: [block], zones } as never));
		// The sheet faces -y: behind it is +y.
		const up = await filled([{ ...first, rules, layer: { zone: 'low' } }, low, deep]);
		const [from, to] = depthOfBlocks(up['z']!);
		expect(from).to.be.closeTo(0, 1);
		expect(to).to.be.closeTo(DEPTH, 1);
		const between = await filled([first, { ...low, rules, layer: { zone: 'deep' } }, deep]);
		const [begins, ends] = depthOfBlocks(between['low']!);
		expect(begins).to.be.closeTo(DEPTH, 1);
		expect(ends).to.be.closeTo(1500, 1);
	});

	it('of a grid behind other faces is refused', async () => {
		const project = projectWith(sheet(WIDTH, HEIGHT), 6, 4, []);
		const [zone] = project.zones;
		const other = { ...zone!, id: 'other', code: 'O', name: 'Other' };
		const wrong = { ...project, zones: [{ ...zone!, layer: { zone: 'other' } }, other] };
		expect((await problemsOf(wrong))[0]).to.include({ at: 'zones/z/layer/zone' });
	});
});

describe('lines between a grid and one behind it', () => {
	const web = (bars: readonly string[], more: object = {}) =>
		standing('web', { is: 'web', from: 'z', to: 'low', bars, ...more });

	it('make the bars of a double-layer truss that counting gives, each once', async () => {
		await fc.assert(
			fc.asyncProperty(fc.integer({ min: 2, max: 9 }), fc.integer({ min: 2, max: 9 }), async (n, m) => {
				const shifted = projectWith(sheet(WIDTH, HEIGHT), n, m, [
					layer('low', { shifted: true }),
					web(['diagonal'])
				]);
				const one = await zonesOf(shifted);
				expect(linesOf(one['z']!)).to.equal(n * (m + 1) + m * (n + 1));
				expect(linesOf(one['low']!)).to.equal((n - 1) * m + n * (m - 1));
				// Nodes of the shifted grid without a cell of their own have no bars: there are none from two steps up.
				expect(linesOf(one['web']!)).to.equal(4 * n * m);
				const behind = await zonesOf(
					projectWith(sheet(WIDTH, HEIGHT), n, m, [layer('low'), web(['upright', 'diagonal'])])
				);
				expect(linesOf(behind['web']!)).to.equal((n + 1) * (m + 1) + n * (m + 1) + m * (n + 1));
				for (const zone of [one['web']!, behind['web']!]) {
					const { edges } = zone.faces[0]!;
					const pairs = Array.from(edges.from, (a, e) => `${a} ${edges.to[e]}`);
					expect(new Set(pairs).size).to.equal(pairs.length);
					const { address } = siteSetOf(zone.faces[0]!, 'line');
					expect(new Set(pairs.map((_, e) => address(e))).size).to.equal(pairs.length);
				}
			}),
			{ numRuns: 12 }
		);
	});

	it('are as long as Pythagoras has them', async () => {
		const { web: straight } = await zonesOf(
			projectWith(sheet(WIDTH, HEIGHT), 12, 8, [layer('low'), web(['upright', 'diagonal'])])
		);
		const { edges } = straight!.faces[0]!;
		const upright = edgeDirections.indexOf('upright');
		lengths(straight!).forEach((length, e) => {
			const wanted = edges.direction[e] === upright ? DEPTH : Math.hypot(DEPTH, 1000);
			expect(length).to.be.closeTo(wanted, 1e-6);
		});
		const { web: shifted } = await zonesOf(
			projectWith(sheet(WIDTH, HEIGHT), 12, 8, [layer('low', { shifted: true }), web(['diagonal'])])
		);
		for (const length of lengths(shifted!)) expect(length).to.be.closeTo(Math.hypot(500, 500, DEPTH), 1e-6);
	});

	it('zigzag: along a line diagonals meet at every second node of each side', async () => {
		const { web: zigzag } = await zonesOf(
			projectWith(sheet(WIDTH, HEIGHT), 6, 4, [layer('low'), web(['diagonal'])])
		);
		const { edges, grid } = zigzag!.faces[0]!;
		const top = grid.positions.length / 6;
		for (let e = 0; e < edges.count; e++) {
			const [i, j] = [edges.from[e]! % 7, Math.floor(edges.from[e]! / 7)];
			expect((i + j) % 2).to.equal(0);
			expect(edges.to[e]!).to.be.at.least(top);
		}
	});

	it('go on to the nodes that a trim made, in both', async () => {
		const others = [layer('low'), web(['upright', 'diagonal'])];
		const zones = await zonesOf(projectWith(sheet(WIDTH, HEIGHT), 12, 8, others, [opening]));
		const { cells, edges } = zones['z']!.faces[0]!;
		const used = new Set(cells.corners);
		expect([...used].some((node) => node >= 13 * 9)).to.equal(true);
		expect(linesOf(zones['web']!)).to.equal(used.size + edges.count);
		expect(zones['web']!.remarks).to.deep.equal([]);
	});

	it('leave out bars that have a node at one end only, and say so', async () => {
		const others = [layer('low', {}, { pattern: { kind: 'diamonds' } }), web(['upright'])];
		const zones = await zonesOf(projectWith(sheet(WIDTH, HEIGHT), 12, 8, others));
		const behind = new Set(zones['low']!.faces[0]!.cells.corners);
		expect(linesOf(zones['web']!)).to.equal(behind.size);
		expect(zones['web']!.remarks[0]!.text).to.contain(`${13 * 9 - behind.size} bars are left out`);
	});

	it('of grids that do not lie behind one another are refused, and uprights to a shifted one', async () => {
		const alone = projectWith(sheet(WIDTH, HEIGHT), 6, 4, [layer('low'), web(['upright'], { to: 'z' })]);
		expect((await problemsOf(alone))[0]).to.include({ at: 'zones/web/on/to' });
		const shifted = projectWith(sheet(WIDTH, HEIGHT), 6, 4, [
			layer('low', { shifted: true }),
			web(['upright'])
		]);
		const [problem] = await problemsOf(shifted);
		expect(problem!.text).to.contain('only diagonals join');
		expect(problem!.fixes).to.deep.equal([
			{ label: 'diagonals', path: 'zones/web/on/bars', value: ['diagonal'] }
		]);
	});
});

describe('stations along a path', () => {
	const path = (along: object, across: object, more: object = {}) =>
		standing('rail', { is: 'path', along, ...more }, { settingOut: { ...count(1, 1), across } });
	const railOf = async (form: Form, along: object, across: object, more: object = {}) => {
		const { rail } = await zonesOf(projectWith(form, 12, 8, [path(along, across, more)]));
		return rail!;
	};
	const foot = { is: 'rim', of: 'z', side: 'foot' };

	it('stand evenly on a rim, at most so far apart', async () => {
		const rail = await railOf(sheet(WIDTH, HEIGHT), foot, { by: 'at most', size: 1100 });
		expect(nodesOf(rail)).to.have.length(12);
		nodesOf(rail).forEach((point, n) => {
			expect(distance(point, [(n * WIDTH) / 11, 0, 0])).to.be.lessThan(1e-6);
		});
	});

	it('come round on a circle: true arcs, chords between', async () => {
		const ring = revolved([
			[5000, 0],
			[5000, 6000]
		]);
		const rail = await railOf(ring, foot, { by: 'count', count: 16 });
		expect(nodesOf(rail)).to.have.length(16);
		for (const length of lengths(rail)) expect(length).to.be.closeTo(10_000 * Math.sin(Math.PI / 16), 0.01);
		for (const [x, y] of nodesOf(rail)) expect(Math.hypot(x, y)).to.be.closeTo(5000, 0.01);
	});

	it('a guide that is free of the faces is led to them by a share: on a drum, the point of it nearest to each', async () => {
		const guide = {
			id: 'free',
			name: 'Free',
			points: [
				[-4000, -9000, 2000],
				[4000, -9000, 5000]
			],
			on: 'space'
		};
		const railAt = async (share: number | null) => {
			const along = { is: 'guide', guide: 'free', towards: share === null ? null : { of: 'z', share } };
			const project = projectWith(drum, 12, 8, [path(along, { by: 'count', count: 9 })]);
			const { rail } = await zonesOf(readProject({ ...project, guides: [guide] } as never));
			return rail!;
		};
		const free = nodesOf(await railAt(null));
		expect(nodesOf(await railAt(0))).to.deep.equal(free);
		for (const share of [0.4, 1]) {
			const rail = await railAt(share);
			const { normals } = rail.faces[0]!.grid;
			for (const [n, [x, y, z]] of nodesOf(rail).entries()) {
				// What is led lies on the ray from the drum's axis to a point of the guide at the same height.
				const t = (z - 2000) / 3000;
				const drawn = [-4000 + 8000 * t, -9000] as const;
				const away = Math.hypot(...drawn);
				const radius = (1 - share) * away + share * 5000;
				expect(Math.hypot(x - (drawn[0] / away) * radius, y - (drawn[1] / away) * radius)).to.be.below(3);
				const [nx, ny, nz] = pointAt(normals, n);
				// Upright where it is free, square to the drum where it lies on it.
				expect(Math.atan2(nz, nx * (x / radius) + ny * (y / radius))).to.be.closeTo(
					Math.atan2(1 - share, share),
					0.01
				);
			}
			const steps = lengths(rail);
			expect(Math.max(...steps) / Math.min(...steps)).to.be.below(1.02);
		}
	});

	it('are divided along the line as it is moved, not as it was', async () => {
		const ring = revolved([
			[5000, 0],
			[5000, 6000]
		]);
		const rail = await railOf(ring, foot, { by: 'at most', size: 1000 }, { lift: 1000 });
		// 2π × 6 m in steps of at most 1 m.
		expect(nodesOf(rail)).to.have.length(38);
	});

	it('stand on a course line of a grid, counted from either end', async () => {
		const third = await railOf(
			sheet(WIDTH, HEIGHT),
			{ is: 'line', of: 'z', along: 'course', number: 3 },
			{ by: 'count', count: 4 }
		);
		for (const [, , height] of nodesOf(third)) expect(height).to.be.closeTo(2000, 1e-6);
		const last = await railOf(
			sheet(WIDTH, HEIGHT),
			{ is: 'line', of: 'z', along: 'course', number: -1 },
			{ by: 'count', count: 4 }
		);
		for (const [, , height] of nodesOf(last)) expect(height).to.be.closeTo(HEIGHT, 1e-6);
	});

	it('lie to the left of their run, and outside, by so much', async () => {
		const rail = await railOf(
			sheet(WIDTH, HEIGHT),
			foot,
			{ by: 'count', count: 3 },
			{ lift: 200, aside: 100 }
		);
		// Seen from outside (from -y), to the left of a run to the right is up.
		nodesOf(rail).forEach((point, n) => expect(distance(point, [4000 * n, -200, 100])).to.be.lessThan(1e-6));
	});

	it('lean with the face, or stand upright', async () => {
		const cone = revolved([
			[5000, 0],
			[2000, 3000]
		]);
		const leaning = await railOf(cone, foot, { by: 'count', count: 8 });
		const { normals } = leaning.faces[0]!.grid;
		expect(normals[2]).to.be.closeTo(Math.SQRT1_2, 1e-6);
		const upright = await railOf(cone, foot, { by: 'count', count: 8 }, { turned: 'upright' });
		expect([...upright.faces[0]!.grid.normals.subarray(0, 3)]).to.deep.equal([0, 0, 1]);
	});

	it('stand where a level plane cuts the face, at a height above a level', async () => {
		const cone = revolved([
			[5000, 0],
			[2000, 3000]
		]);
		const at = { is: 'section', of: 'z', level: null, plus: 1000 };
		const rail = await railOf(cone, at, { by: 'count', count: 10 });
		expect(nodesOf(rail)).to.have.length(10);
		for (const [x, y, height] of nodesOf(rail)) {
			expect(height).to.be.closeTo(1000, 1e-6);
			expect(Math.hypot(x, y)).to.be.closeTo(4000, 0.6);
		}
		for (const length of lengths(rail)) expect(length).to.be.closeTo(8000 * Math.sin(Math.PI / 10), 1);
		// From rim to rim, no more and no less.
		const across = await railOf(sheet(WIDTH, HEIGHT), { ...at, plus: 3000 }, { by: 'count', count: 4 });
		const ends = nodesOf(across).map(([x]) => x);
		[0, 3000, 6000, 9000, 12_000].forEach((x, k) => {
			const found = ends[0]! > ends.at(-1)! ? [...ends].reverse() : ends;
			expect(found[k]).to.be.closeTo(x, 1e-3);
		});
		const project = projectWith(cone, 12, 8, [path({ ...at, plus: 9000 }, { by: 'count', count: 10 })]);
		expect((await problemsOf(project))[0]).to.include({
			at: 'zones/rail/on/along',
			text: 'nothing lies there that a path could run along: no face is as high or as low as that'
		});
	});

	it('a line of the grid that is not there is told with those that are', async () => {
		const project = projectWith(sheet(WIDTH, HEIGHT), 12, 8, [
			path({ is: 'line', of: 'z', along: 'bay', number: 14 }, { by: 'count', count: 3 })
		]);
		expect((await problemsOf(project))[0]).to.include({
			at: 'zones/rail/on/along/number',
			text: 'there is no bay line 14; 1 to 13, or -1 to -13 from the other end, are'
		});
	});
});

describe('chains through the nodes of a grid', () => {
	const chains = (through: object, more: object = {}) =>
		standing('weave', { is: 'chains', of: 'z', through, ...more });
	const rising = { by: 'steps', from: [1, 1], step: [1, 1] };
	const about = [0, 0];
	const weaveOf = async (form: Form, across: number, up: number, through: object, more: object = {}) => {
		const { weave } = await zonesOf(projectWith(form, across, up, [chains(through, more)]));
		return weave!;
	};
	/** The points of every chain. */
	const strandsOf = ({ faces }: ZoneModel): Vector[][] => {
		const { start, positions } = faces[0]!.chains;
		return Array.from({ length: start.length - 1 }, (_, k) =>
			Array.from({ length: start[k + 1]! - start[k]! }, (_, n) => pointAt(positions, start[k]! + n))
		);
	};

	it('go on by so many bays and courses until the rim, or back to the start', async () => {
		const [toRim] = strandsOf(await weaveOf(sheet(WIDTH, HEIGHT), 12, 8, rising));
		expect(toRim).to.have.length(9);
		toRim!.forEach((point, k) => expect(distance(point, [1000 * k, 0, 1000 * k])).to.be.lessThan(1e-6));
		const [round] = strandsOf(await weaveOf(drum, 24, 6, { by: 'steps', from: [1, 3], step: [2, 0] }));
		// Twelve nodes, and the first once more.
		expect(round).to.have.length(13);
		expect(distance(round![0]!, round![12]!)).to.equal(0);
	});

	it('turned copies are the rotation matrix, and a full circle of them closes', async () => {
		for (const [count, angle] of [
			[8, 45],
			[16, 22.5],
			[32, 11.25]
		] as const) {
			const byCircle = strandsOf(
				await weaveOf(drum, 32, 8, rising, { copies: { count, by: 'full circle', about } })
			);
			const byAngle = strandsOf(await weaveOf(drum, 32, 8, rising, { copies: { count, by: angle, about } }));
			expect(byCircle).to.have.length(count);
			byCircle.forEach((strand, k) =>
				strand.forEach((point, n) => {
					const [x, y, z] = byCircle[0]![n]!;
					const turn = (k * angle * Math.PI) / 180;
					const wanted: Vector = [
						x * Math.cos(turn) - y * Math.sin(turn),
						x * Math.sin(turn) + y * Math.cos(turn),
						z
					];
					expect(distance(point, wanted)).to.be.lessThan(1e-6);
					expect(distance(point, byAngle[k]![n]!)).to.be.lessThan(1e-6);
				})
			);
			const [first, last] = [byCircle[0]![0]!, byCircle.at(-1)![0]!];
			const gap = 2 * 5000 * Math.sin((angle * Math.PI) / 360);
			expect(distance(first, last)).to.be.closeTo(gap, 1e-6);
		}
	});

	it('an angle that does not close is told with the one that would', async () => {
		const open = await weaveOf(drum, 32, 8, rising, { copies: { count: 32, by: 11, about } });
		expect(open.remarks.map(({ text }) => text)).to.deep.equal([
			'32 chains at 11° come to 352°: the circle does not close; 11.25° would'
		]);
	});

	it('woven, each strand is over and under in turn by the amount, and its partner the other way', async () => {
		const by = 40;
		for (const count of [8, 16]) {
			const flat = strandsOf(
				await weaveOf(drum, 32, 8, rising, { copies: { count, by: 'full circle', about, mirrored: true } })
			);
			const zone = await weaveOf(drum, 32, 8, rising, {
				copies: { count, by: 'full circle', about, mirrored: true },
				over: by
			});
			expect(zone.remarks).to.deep.equal([]);
			const strands = strandsOf(zone);
			expect(strands).to.have.length(2 * count);
			// Nodes lie on the drum; what is led off it is 40 mm outside or inside, in turn.
			let led = 0;
			for (const strand of strands) {
				const off = strand.map(([x, y]) => Math.hypot(x, y) - 5000).filter((d) => Math.abs(d) > by / 2);
				for (let k = 1; k < off.length; k++) expect(Math.sign(off[k]!)).to.equal(-Math.sign(off[k - 1]!));
				for (const d of off) expect(Math.abs(d)).to.be.closeTo(by, 26);
				led += off.length;
			}
			// Over the 8 courses a strand goes a quarter round: it meets each that comes the other way on its way.
			expect(led % 2).to.equal(0);
			expect(led).to.be.above(2 * count);
			expect(flat.every((strand) => strand.length === 9)).to.equal(true);
		}
	});

	it('go through nodes chosen by hand, in their order; one that is gone is said to be released', async () => {
		const zone = await weaveOf(sheet(WIDTH, HEIGHT), 12, 8, {
			by: 'hand',
			nodes: ['C01/B01', 'C04/B02', 'C99/B01', 'C02/B05']
		});
		const wanted: Vector[] = [
			[0, 0, 0],
			[1000, 0, 3000],
			[4000, 0, 1000]
		];
		expect(strandsOf(zone)[0]).to.have.length(3);
		strandsOf(zone)[0]!.forEach((point, k) => expect(distance(point, wanted[k]!)).to.be.lessThan(1e-6));
		expect(zone.remarks[0]!.text).to.contain('C99/B01 is not there any more');
	});

	it('carry one tube through all of their nodes, listed once each', async () => {
		const tube = { id: 'tube', name: 'tube', part: 'woven-tube', values: {} };
		const run = { id: 'run', over: 'chains', lines: [], variant: 'tube', values: {} };
		const project = projectWith(drum, 32, 8, [
			{ ...chains(rising, { copies: { count: 8, by: 'full circle', about } }), runs: [run] } as ZoneInput
		]);
		const { weave } = await zonesOf({ ...project, variants: [tube] } as Project);
		const [group] = weave!.groups;
		expect(group!.group.sites.length).to.equal(8);
		expect([...group!.group.run.results.get('run_length')!].every((length) => length > 9000)).to.equal(true);
	});

	it('woven, carry tubes that can be bent, however many they are', async () => {
		const tube = { id: 'tube', name: 'tube', part: 'woven-tube', values: {} };
		const run = { id: 'run', over: 'chains', lines: [], variant: 'tube', values: {} };
		for (const count of [5, 7, 11, 17, 20, 23, 26]) {
			const copies = { count, by: 'full circle', about, mirrored: true };
			const woven = chains(rising, { copies, over: 42 });
			const project = projectWith(drum, 32, 8, [{ ...woven, runs: [run] } as ZoneInput]);
			const { weave } = await zonesOf({ ...project, variants: [tube] } as Project);
			const { group } = weave!.groups[0]!;
			expect(group.sites.length).to.equal(2 * count);
			expect(group.flags.all().map(({ says }) => `${count}: ${says}`)).to.deep.equal([]);
		}
	});

	it('of a zone of several faces say which one they follow', async () => {
		const block: Form = {
			kind: 'prism',
			outline: { shape: 'rectangle', width: 6000, depth: 4000, rounding: 0 },
			at: [0, 0],
			foot: 0,
			head: 3000,
			curved: []
		};
		const project = projectWith(block, 6, 3, [chains(rising)]);
		const faces = ['south', 'east'].map((face) => ({ mass: 'm', face }));
		const { weave } = await zonesOf({
			...project,
			zones: [{ ...project.zones[0]!, faces }, project.zones[1]!]
		} as Project);
		expect(weave!.remarks.map(({ text }) => text)).to.deep.equal([
			'chains go through the nodes of the first face of Zone, m.south, alone'
		]);
	});

	it('asked for more nodes than there are, or one alone, say how many there are', async () => {
		const long = await weaveOf(sheet(WIDTH, HEIGHT), 12, 8, { ...rising, most: 14 });
		expect(long.remarks[0]!.text).to.equal('14 nodes are asked for; 9 are there before the rim');
		const project = projectWith(sheet(WIDTH, HEIGHT), 12, 8, [
			chains({ by: 'steps', from: [13, 9], step: [1, 1] })
		]);
		expect((await problemsOf(project))[0]!.text).to.equal(
			'a chain goes through two nodes at least; one is there'
		);
	});
});
