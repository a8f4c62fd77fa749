import { expect } from 'chai';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import type { FaceModel } from '../../src/core/cladding/model';
import { columnValues, everySite } from '../../src/core/field/column';
import { fieldOf } from '../../src/core/field/fields';
import { openSides, areaOfTriangles } from '../../src/core/geometry/triangulate';
import { triangulateAround } from '../../src/core/geometry/triangulate-around';
import { polygonArea, type Place } from '../../src/core/geometry/polygon';
import { segmentDistance } from '../../src/core/geometry/follow';
import { pointAt } from '../../src/core/geometry/vector';
import { outlineOf } from '../../src/core/pattern/cells';
import { readProject } from '../../src/core/project/read';
import type { Form } from '../../src/core/project/form-schema';
import { patternSchema, type PatternOf } from '../../src/core/project/pattern-schema';
import type { Project } from '../../src/core/project/schema';
import { count, projectOf, revolved, sheet } from '../faces';
import { cornersOf, facesOf, volumeWithin } from '../trial-run';
import type { ElementTable } from '../../src/core/part/element-table';

const WALL = sheet(12_000, 7000);
const tube = revolved([
	[4000, 0],
	[4000, 7000]
]);
const dome: Form = { kind: 'dome', at: [0, 0], foot: 0, radii: [6000, 6000, 6000], cut: 1500 };
const door = {
	by: 'outline',
	id: 'door',
	face: 'wall',
	outline: { shape: 'ellipse', width: 3000, depth: 4000 },
	at: [5000, -3000, 3500],
	direction: [0, 1, 0]
};

type Scatter = Partial<Omit<PatternOf<'voronoi'>, 'sheet'>> & {
	readonly sheet?: Partial<NonNullable<PatternOf<'voronoi'>['sheet']>> | null;
};
const scatter = (said: Scatter) =>
	patternSchema.parse({
		kind: 'voronoi',
		seed: 3,
		count: 90,
		evening: 3,
		smallest: 60,
		margin: 25,
		...said
	});

/** A project whose sheets are pierced sheets of 4 mm without a joint. */
function projectWith(
	form: Form,
	said: Scatter,
	values: object = { joint: 0 },
	trims: object[] = []
): Project {
	const rule = {
		id: 'r',
		where: { is: 'all', of: [{ is: 'slot', of: ['sheet'] }] },
		put: { variant: 'v' }
	};
	const variants = [{ id: 'v', name: 'v', part: 'pierced-sheet', values: values as never }];
	const project = projectOf(
		form,
		count(12, 7),
		{ pattern: scatter(said), rules: (said.sheet ? [rule] : []) as never },
		{
			variants
		}
	);
	return trims.length ? readProject({ ...project, masses: [{ ...project.masses[0]!, trims }] }) : project;
}

async function made(project: Project) {
	const { problems, zones } = await new Chain().run(project);
	expect(problems.filter(({ remark }) => !remark)).to.deep.equal([]);
	const zone = zones[0]!.model!;
	return { zone, face: zone.faces[0]!, tables: zone.groups.flatMap(({ group }) => group.run.elements) };
}
const refusal = async (project: Project) => (await new Chain().run(project)).problems[0]!;

const isSheet = ({ cells }: FaceModel, c: number) => cells.polygon[c] === 1;
/** Areas of the sheets and of the cells in them (mm²). */
function areas(face: FaceModel) {
	let [sheets, openings] = [0, 0];
	for (let c = 0; c < face.cells.count; c++)
		if (isSheet(face, c)) sheets += face.measures.area[c]!;
		else openings += face.measures.area[c]!;
	return { sheets, openings, all: sheets + openings };
}
const ringOf = ({ cells, grid }: FaceModel, c: number) => {
	const { start, nodes } = outlineOf(cells);
	return Array.from(nodes.subarray(start[c]!, start[c + 1]!), (node) => pointAt(grid.positions, node));
};

/** What must hold of every face with sheets: each opening is in one sheet, and every side of it lies beside that sheet. */
function expectSound(face: FaceModel): void {
	const { cells, edges } = face;
	const pierced = cells.pierced!;
	const seen = new Map<number, number>();
	for (let k = 0; k < pierced.cells.length; k++) {
		expect(isSheet(face, pierced.cells[k]!)).to.equal(true);
		for (let n = pierced.firstOpening[k]!; n < pierced.firstOpening[k + 1]!; n++)
			seen.set(pierced.openings[n]!, pierced.cells[k]!);
	}
	const openings = [...Array(cells.count).keys()].filter((c) => !isSheet(face, c));
	expect([...seen.keys()].sort((a, b) => a - b)).to.deep.equal(openings);
	for (let e = 0; e < edges.count; e++) {
		const [left, right] = [edges.left[e]!, edges.right[e]!];
		for (const [c, other] of [
			[left, right],
			[right, left]
		] as const)
			if (seen.has(c)) expect(other, 'beside an opening').to.equal(seen.get(c));
	}
	// Rims of triangles: the sheet's own, and that of each of its openings.
	for (let k = 0; k < pierced.cells.length; k++) {
		const triangles = pierced.triangles.subarray(pierced.firstCorner[k]!, pierced.firstCorner[k + 1]!);
		const sides = new Set(openSides(triangles).map(([a, b]) => `${b} ${a}`));
		for (let n = pierced.firstOpening[k]!; n < pierced.firstOpening[k + 1]!; n++) {
			const c = pierced.openings[n]!;
			const ring = cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!);
			ring.forEach((node, at) =>
				expect(sides.has(`${node} ${ring[(at + 1) % ring.length]!}`), 'a side of an opening').to.equal(true)
			);
		}
	}
}

/** The volume of a mesh that is closed: every side is run along once each way. */
function closedVolume(table: ElementTable, n: number): number {
	const faces = facesOf(table, n);
	expect(openSides(faces)).to.deep.equal([]);
	const ways = new Set(faces.map((a, k) => `${a} ${faces[k % 3 === 2 ? k - 2 : k + 1]!}`));
	expect(ways.size).to.equal(faces.length);
	return volumeWithin(cornersOf(table, n), faces);
}

describe('sheets between scattered cells', () => {
	it('on a flat wall sheets and openings make up the wall, and a sheet weighs its area by its thickness', async () => {
		for (const per of ['face' as const, { bays: 3, courses: 2 }]) {
			const { face, tables } = await made(projectWith(WALL, { sheet: { per } }));
			expect(areas(face).all).to.be.closeTo(84e6, 1);
			const volume = tables.reduce((sum, table) => sum + table.volume.reduce((a, b) => a + b, 0), 0);
			expect(volume / (4 * areas(face).sheets)).to.be.closeTo(1, 1e-9);
			expect(tables.reduce((sum, { count }) => sum + count, 0)).to.equal(per === 'face' ? 1 : 16);
			expectSound(face);
		}
	});

	it('the rim of every sheet is left plain', async () => {
		const plain = 80;
		const { face } = await made(projectWith(WALL, { sheet: { per: { bays: 4, courses: 3 }, plain } }));
		const { cells, openings, firstOpening } = face.cells.pierced!;
		let least = Infinity;
		cells.forEach((c, k) => {
			const rim = ringOf(face, c);
			for (let n = firstOpening[k]!; n < firstOpening[k + 1]!; n++)
				for (const p of ringOf(face, openings[n]!))
					rim.forEach((a, at) => {
						least = Math.min(least, segmentDistance(a, rim[(at + 1) % rim.length]!, p));
					});
		});
		expect(least).to.be.closeTo(plain, 0.01);
	});

	it('cells that reach into the plain rim are cut, or left out', async () => {
		const per = { bays: 3, courses: 2 };
		const cut = await made(projectWith(WALL, { sheet: { per, crossing: 'cut' } }));
		const out = await made(projectWith(WALL, { sheet: { per, crossing: 'left out' } }));
		const plain = await made(projectWith(WALL, { sheet: null }));
		const shapes = (face: FaceModel) =>
			[...Array(face.cells.count).keys()]
				.filter((c) => !isSheet(face, c))
				.map((c) => face.measures.area[c]!.toFixed(1));
		const whole = new Set(shapes(plain.face));
		expect(shapes(out.face).every((area) => whole.has(area))).to.equal(true);
		expect(shapes(out.face).length).to.be.below(plain.face.cells.count);
		expect(shapes(cut.face).length).to.be.above(plain.face.cells.count);
		expect(shapes(cut.face).some((area) => !whole.has(area))).to.equal(true);
		// No slits are left of what was cut: strips are at least half as wide as the smallest edge.
		for (let c = 0; c < cut.face.cells.count; c++) {
			const { area, perimeter } = cut.face.measures;
			if (!isSheet(cut.face, c)) expect((2 * area[c]!) / perimeter[c]!).to.be.above(29.9);
		}
	});

	it('on curved faces, over seams, at poles and beside openings of the face it holds as well', async () => {
		const per = { bays: 3, courses: 7 };
		for (const [form, trims, within] of [
			[tube, [], 0.003],
			[dome, [], 0.003],
			[WALL, [door], 1e-6]
		] as const) {
			const { face, tables } = await made(projectWith(form, { count: 200, sheet: { per } }, {}, [...trims]));
			expectSound(face);
			expect(areas(face).all / face.area()).to.be.closeTo(1, within);
			for (const table of tables) for (const volume of table.volume) expect(volume).to.be.above(0);
		}
	});

	it('any scatter on any of these: sound, and pieces are closed and outward', () =>
		fc.assert(
			fc.asyncProperty(
				fc.record({
					seed: fc.integer({ min: 0, max: 999 }),
					count: fc.integer({ min: 5, max: 70 }),
					evening: fc.integer({ min: 0, max: 3 }),
					smallest: fc.constantFrom(0, 80),
					margin: fc.constantFrom(5, 40)
				}),
				fc.record({
					per: fc.oneof(
						fc.record({ bays: fc.integer({ min: 1, max: 12 }), courses: fc.integer({ min: 1, max: 7 }) })
					),
					plain: fc.constantFrom(10, 90),
					crossing: fc.constantFrom('cut' as const, 'left out' as const)
				}),
				fc.constantFrom<readonly [Form, object[]]>([WALL, []], [tube, []], [dome, []], [WALL, [door]]),
				fc.constantFrom(0, 6),
				async (said, panels, [form, trims], joint) => {
					const { face, tables } = await made(
						projectWith(form, { ...said, sheet: panels }, { joint }, trims)
					);
					expectSound(face);
					for (const table of tables)
						for (let k = 0; k < table.count; k++)
							expect(closedVolume(table, k)).to.be.closeTo(table.volume[k]!, 1e-3 * table.volume[k]! + 10);
				}
			),
			{ numRuns: 25 }
		));

	it('turned inside out and mirrored it is the same sheet, with its thickness on the other side or not', async () => {
		const of = async (put: object) => {
			const project = projectWith(tube, { sheet: { per: { bays: 4, courses: 7 } } }, { joint: 5, out: 30 });
			const [rule] = project.zones[0]!.rules;
			const rules = [{ ...rule!, put: { ...(rule!.put as object), ...put } }];
			return made(readProject({ ...project, zones: [{ ...project.zones[0]!, rules }] }));
		};
		const [drawn, mirrored, flipped] = [await of({}), await of({ mirror: true }), await of({ flip: true })];
		const sum = (values: Float64Array) => values.reduce((a, b) => a + b, 0);
		const farthest = ({ tables, face }: typeof drawn) => {
			const { shape } = tables[0]!;
			if (shape.is !== 'own') throw new Error('every sheet is its own');
			let [low, high] = [Infinity, 0];
			for (let k = 0; k < shape.positions.length; k += 3) {
				const [x, y] = [0, 1].map((a) => shape.positions[k + a]! + face.origin[a]!) as [number, number];
				low = Math.min(low, Math.hypot(x, y));
				high = Math.max(high, Math.hypot(x, y));
			}
			return [low, high] as const;
		};
		// The sides of a bent sheet are not flat: they are folded the other way.
		expect(sum(mirrored.tables[0]!.volume) / sum(drawn.tables[0]!.volume)).to.be.closeTo(1, 1e-3);
		for (const [one, [low, high]] of [
			[drawn, [4026, 4030]],
			[mirrored, [4026, 4030]],
			[flipped, [3970, 3974]]
		] as const) {
			expect(farthest(one)[0]).to.be.closeTo(low, 1);
			expect(farthest(one)[1]).to.be.closeTo(high, 1);
			for (let k = 0; k < one.tables[0]!.count; k++) expect(closedVolume(one.tables[0]!, k)).to.be.above(0);
		}
	});

	it('what is open is known: how many, and what share', async () => {
		const { face } = await made(projectWith(WALL, { sheet: { per: 'face' } }));
		const read = (name: string) =>
			columnValues(fieldOf('cell', name).column(face, everySite(face.cells.count)), face.cells.count);
		const { openings } = areas(face);
		const c = face.cells.pierced!.cells[0]!;
		expect(read('openings')[c]).to.equal(face.cells.count - 1);
		expect(read('open_share')[c]).to.be.closeTo(openings / 84e6, 1e-9);
		expect(read('open_share').filter((share) => share > 0).length).to.equal(1);
	});
});

describe('the size of scattered cells', () => {
	const fades = { is: 'follows', field: 'height', from: [0, 7000], to: [1, 0] } as const;

	it('follows a field of the cells as they were scattered, and what comes to nothing is left out', async () => {
		const whole = (await made(projectWith(WALL, {}))).face;
		const faded = (await made(projectWith(WALL, { size: fades as never }))).face;
		expect(faded.cells.count).to.be.below(whole.cells.count + 1);
		// A cell keeps its middle when it is made smaller; its area goes by the square.
		let met = 0;
		for (let c = 0; c < faded.cells.count; c++) {
			const middle = centroid(ringOf(faded, c));
			for (let o = 0; o < whole.cells.count; o++) {
				const other = centroid(ringOf(whole, o));
				if (Math.hypot(middle[0] - other[0], middle[1] - other[1]) > 0.5) continue;
				met++;
				// The height it follows is that of the corners before the margin is taken off.
				const size = Math.sqrt(faded.measures.area[c]! / whole.measures.area[o]!);
				expect(size).to.be.closeTo(1 - other[1] / 7000, 0.06);
			}
		}
		expect(met).to.equal(faded.cells.count);
	});

	it('follows a guide: larger near it, fading from it', async () => {
		const guide = {
			id: 'path',
			name: 'Path',
			on: 'space',
			points: [
				[0, 0, 1000],
				[12_000, 0, 1000]
			]
		};
		const size = {
			is: 'follows',
			field: 'distance.path',
			from: [0, 5000],
			to: [1, 0.1],
			curve: [[0.5, 0.2]]
		};
		const project = projectWith(WALL, { size: size as never, sheet: { per: 'face' } });
		const { face } = await made(readProject({ ...project, guides: [guide] }));
		const near: number[] = [];
		const far: number[] = [];
		for (let c = 0; c < face.cells.count; c++) {
			if (isSheet(face, c)) continue;
			const height = face.measures.centre[3 * c + 2]!;
			if (Math.abs(height - 1000) < 700) near.push(face.measures.area[c]!);
			if (height > 5500) far.push(face.measures.area[c]!);
		}
		const mean = (values: number[]) => values.reduce((a, b) => a + b, 0) / values.length;
		expect(mean(near) / mean(far)).to.be.above(10);
	});

	it('what cannot be is said at its place', async () => {
		const at = 'zones/z/pattern';
		for (const [said, where, words] of [
			[{ sheet: { per: 'face' } }, null, null],
			[{ margin: 0, sheet: { per: 'face' } }, `${at}/margin`, 'need a margin'],
			[{ sheet: { plain: 0 } }, `${at}/sheet/plain`, 'falls apart; 1 mm or more'],
			[{ sheet: { per: { bays: 1.5, courses: 1 } } }, `${at}/sheet/per/bays`, 'whole numbers from 1'],
			[{ size: 0 }, `${at}/size`, 'up to 1 is accepted'],
			[{ size: { ...fades, field: 'from_rim' } }, `${at}/size/field`, 'cannot follow "from_rim"'],
			[{ size: { ...fades, from: [3, 3] } }, `${at}/size/from`, 'is no range']
		] as const) {
			const problem = await refusal(projectWith(WALL, said as never));
			expect(problem?.at ?? null).to.equal(where);
			if (words) expect(problem.text).to.contain(words);
		}
		const round = await refusal(projectWith(tube, { sheet: { per: 'face' } }));
		expect(round.at).to.equal(`${at}/sheet/per`);
		expect(round.text).to.contain('closes upon itself');
	});
});

/** The middle of a ring's area, in the plane of the wall. */
function centroid(ring: readonly (readonly number[])[]): Place {
	let [x, z, area] = [0, 0, 0];
	ring.forEach((p, k) => {
		const q = ring[(k + 1) % ring.length]!;
		const part = p[0]! * q[2]! - q[0]! * p[2]!;
		x += (p[0]! + q[0]!) * part;
		z += (p[2]! + q[2]!) * part;
		area += part;
	});
	return [x / (3 * area), z / (3 * area)];
}

describe('triangles around openings', () => {
	it('fill an outline without its openings, whatever lies between them', () => {
		const square = (x: number, y: number, size: number): Place[] => [
			[x, y],
			[x + size, y],
			[x + size, y + size],
			[x, y + size]
		];
		fc.assert(
			fc.property(
				fc.array(fc.double({ min: 0.1, max: 0.8, noNaN: true }), { minLength: 1, maxLength: 16 }),
				(sizes) => {
					const places: Place[] = [...square(0, 0, 4)];
					const openings = sizes.map((size, k) =>
						square((k % 4) + 0.1, Math.floor(k / 4) + 0.1, size).map((p) => places.push(p) - 1)
					);
					// A place of no loop.
					places.push([3.95, 3.97]);
					const triangles = triangulateAround(places, [0, 1, 2, 3], openings);
					const flat = places.flatMap(([x, y]) => [x, y, 0]);
					const open = openings.reduce((sum, loop) => sum + polygonArea(loop.map((k) => places[k]!)), 0);
					expect(areaOfTriangles(flat, triangles)).to.be.closeTo(16 - open, 1e-9);
					expect(triangles.includes(places.length - 1)).to.equal(true);
					expect(openSides(triangles).length).to.equal(4 + 4 * sizes.length);
				}
			)
		);
	});

	it('are Delaunay between loops whose corners all but lie on lines', () => {
		/** How deep a place lies in the circle through three others, as a share of its radius; less than 0 outside. */
		const depthInCircle = ([a, b, c]: readonly Place[], p: Place): number => {
			const [bx, by, cx, cy] = [b![0] - a![0], b![1] - a![1], c![0] - a![0], c![1] - a![1]];
			const d = 2 * (bx * cy - by * cx);
			const x = a![0] + (cy * (bx * bx + by * by) - by * (cx * cx + cy * cy)) / d;
			const y = a![1] + (bx * (cx * cx + cy * cy) - cx * (bx * bx + by * by)) / d;
			const radius = Math.hypot(a![0] - x, a![1] - y);
			return 1 - Math.hypot(p[0] - x, p[1] - y) / radius;
		};
		const shape = fc.record({
			parts: fc.integer({ min: 3, max: 14 }),
			noise: fc.constantFrom(0, 1e-13, 1e-11, 1e-9),
			size: fc.constantFrom(1, 377, 10_000),
			skew: fc.double({ min: 0, max: 2, noNaN: true }),
			rounds: fc.array(
				fc.record({
					corners: fc.integer({ min: 3, max: 16 }),
					radius: fc.double({ min: 0.3, max: 1.3, noNaN: true }),
					turn: fc.double({ min: 0, max: 6, noNaN: true })
				}),
				{ minLength: 9, maxLength: 9 }
			),
			seed: fc.integer()
		});
		fc.assert(
			fc.property(shape, ({ parts, noise, size, skew, rounds, seed }) => {
				const places: Place[] = [];
				const put = (x: number, y: number) =>
					places.push([
						size * (x + skew * y + noise * Math.sin(seed + x)),
						size * (y + noise * Math.cos(seed + y))
					]) - 1;
				const rim = [
					[0, 0],
					[10, 0],
					[10, 10],
					[0, 10]
				] as const;
				const outline = rim.flatMap(([x, y], k) => {
					const [toX, toY] = rim[(k + 1) % 4]!;
					return Array.from({ length: parts }, (_, n) =>
						put(x + (n / parts) * (toX - x), y + (n / parts) * (toY - y))
					);
				});
				const openings = rounds.map(({ corners, radius, turn }, k) =>
					Array.from({ length: corners }, (_, n) => {
						const angle = turn + (2 * Math.PI * n) / corners;
						return put(
							1.7 + 3.3 * (k % 3) + radius * Math.cos(angle),
							1.7 + 3.3 * Math.floor(k / 3) + radius * Math.sin(angle)
						);
					})
				);
				const found = triangulateAround(places, outline, openings);
				const areaOf = (loop: readonly number[]) => polygonArea(loop.map((n) => places[n]!));
				const wanted = openings.reduce((area, loop) => area - areaOf(loop), areaOf(outline));
				const flat = places.flatMap(([x, y]) => [x, y, 0]);
				expect(areaOfTriangles(flat, found) / wanted).to.be.closeTo(1, 1e-9);
				const lines = new Set(
					[outline, ...openings].flatMap((loop) => loop.map((n, k) => `${n} ${loop[(k + 1) % loop.length]}`))
				);
				const beyond = new Map<string, number>();
				for (let k = 0; k < found.length; k += 3)
					for (let n = 0; n < 3; n++)
						beyond.set(`${found[k + n]} ${found[k + ((n + 1) % 3)]}`, found[k + ((n + 2) % 3)]!);
				for (const [side, corner] of beyond) {
					const [a, b] = side.split(' ').map(Number) as [number, number];
					const other = beyond.get(`${b} ${a}`);
					if (other === undefined || lines.has(side) || lines.has(`${b} ${a}`)) continue;
					const circle = [a, b, corner].map((n) => places[n]!);
					// Of corners that all but lie on a line no circle can be reckoned in plain numbers.
					if (Math.abs(polygonArea(circle)) < 1e-6 * size * size) continue;
					expect(depthInCircle(circle, places[other]!)).to.be.lessThan(1e-6);
				}
			}),
			{ numRuns: 60 }
		);
	});

	it('between loops that cross are none, or do not come to the area between them', () => {
		const ragged = fc.array(
			fc.tuple(fc.double({ min: 1, max: 9, noNaN: true }), fc.double({ min: 1, max: 9, noNaN: true })),
			{ minLength: 5, maxLength: 12 }
		);
		fc.assert(
			fc.property(ragged, fc.integer({ min: 2, max: 5 }), (points, across) => {
				// A square opening in the middle, and a ragged one that goes through its sides.
				const rim: Place[] = [
					[0, 0],
					[10, 0],
					[10, 10],
					[0, 10]
				];
				const square: Place[] = [
					[4, 4],
					[4, 6],
					[6, 6],
					[6, 4]
				];
				const crossing: Place[] = [...points, [5, 5 + across], [5.01, 5 - across]];
				const places = [...rim, ...square, ...crossing];
				const loops = [square, crossing].map((loop) => loop.map((place) => places.indexOf(place)));
				const found = triangulateAround(places, [0, 1, 2, 3], loops);
				const wanted = 100 - 4 - Math.abs(polygonArea(crossing));
				const flat = places.flatMap(([x, y]) => [x, y, 0]);
				expect(Math.abs(areaOfTriangles(flat, found) - wanted)).to.be.greaterThan(1e-6);
			}),
			{ numRuns: 300 }
		);
	});
});
