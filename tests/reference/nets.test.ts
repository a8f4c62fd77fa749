import { expect } from 'chai';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import { depthsOf } from '../../src/core/field/depth';
import { layerOf } from '../../src/core/grid/layer';
import type { NodeGrid } from '../../src/core/grid/node-grid';
import { setOut } from '../../src/core/grid/set-out';
import { Lattice } from '../../src/core/grid/lattice';
import { distance, dot, pointAt, scale, type Vector } from '../../src/core/geometry/vector';
import { placesOf } from '../../src/core/part/places';
import { massFaces } from '../../src/core/mass/faces';
import type { Form } from '../../src/core/project/form-schema';
import type { SettingOutInput } from '../../src/core/project/setting-out-schema';
import type { ProblemError } from '../../src/core/units/problem';
import { count, onlyFace, projectOf, revolved, settingOutOf, sheet } from '../faces';

const gridOf = (form: Form, settingOut: SettingOutInput) =>
	setOut(onlyFace(form), settingOutOf(settingOut), 'x');
const at = (grid: NodeGrid, i: number, j: number): Vector => pointAt(grid.positions, j * grid.columns + i);

const dome: Form = { kind: 'dome', at: [0, 0], foot: 0, radii: [6000, 6000, 6000], cut: 0 };
const drum = revolved([
	[4000, 0],
	[4000, 9000]
]);
/** A hilly net. */
const hills: Form = {
	kind: 'net',
	degrees: [3, 3],
	points: 'control',
	rows: [0, 3000, 6000, 9000, 12000].map((y, j) =>
		[0, 3000, 6000, 9000, 12000].map((x, i): [number, number, number] => [x, y, 1400 * Math.sin(1.3 * i + j)])
	)
};

describe('nets of equal chords', () => {
	for (const [name, form, size] of [
		['hills', hills, 800],
		['a dome', dome, 700],
		['a drum', drum, 650]
	] as const)
		it(`${name}: every edge is as long as was asked for, to 0.01 mm`, () => {
			const grid = gridOf(form, {
				across: { by: 'exact size', size, start: 'middle' },
				up: { by: 'exact size', size: size * 1.25, start: 'foot' },
				along: 'equal chords'
			});
			let edges = 0;
			const there = (node: number) => !grid.absent?.[node];
			for (let j = 0; j < grid.rows; j++)
				for (let i = 0; i < grid.columns; i++) {
					const node = j * grid.columns + i;
					if (!there(node)) continue;
					if (i + 1 < grid.columns && there(node + 1)) {
						expect(distance(at(grid, i, j), at(grid, i + 1, j))).to.be.closeTo(size, 0.01);
						edges++;
					}
					if (j + 1 < grid.rows && there(node + grid.columns)) {
						expect(distance(at(grid, i, j), at(grid, i, j + 1))).to.be.closeTo(size * 1.25, 0.01);
						edges++;
					}
				}
			expect(edges).to.be.above(60);
			// What is told of them as their error is the chords', not how far they are from even spacing.
			expect(Math.max(...grid.off)).to.be.below(0.01);
		});
});

describe('geodesics', () => {
	it('on a cylinder they unroll to straight lines, on a sphere they are great circles (closed forms)', () => {
		// A drum whose head is divided as its foot: upright lines. Turned corners make bay lines run round it.
		const leaning: Form = {
			kind: 'ruled',
			foot: {
				points: Array.from({ length: 33 }, (_, k): [number, number, number] => {
					const t = (Math.PI * k) / 32;
					return [4000 * Math.cos(t), 4000 * Math.sin(t), 0];
				}),
				joins: 'smooth',
				closed: false
			},
			head: {
				points: Array.from({ length: 33 }, (_, k): [number, number, number] => {
					const t = (Math.PI * k) / 32;
					return [4000 * Math.cos(t), 4000 * Math.sin(t), 5000];
				}),
				joins: 'smooth',
				closed: false
			}
		};
		const upright = gridOf(leaning, { ...count(9, 6), along: 'geodesics' });
		for (let i = 0; i < upright.columns; i++)
			for (let j = 0; j < upright.rows; j++) {
				const [x, y, z] = at(upright, i, j);
				expect(Math.atan2(y, x)).to.be.closeTo((Math.PI * i) / 9, 3e-5);
				expect(z).to.be.closeTo((5000 * j) / 6, 1e-3);
			}
		// A belt of a sphere cut by two planes that are not level: lines from rim to rim are arcs of great circles.
		const R = 6000;
		const belt: Form = {
			...revolved(
				Array.from({ length: 41 }, (_, k): [number, number] => {
					const t = -1 + (2 * k) / 40;
					return [R * Math.cos(t), R * Math.sin(t)];
				}),
				'smooth',
				120
			)
		};
		const arcs = gridOf(belt, { ...count(7, 8), along: 'geodesics', shift: [0, 0] });
		for (let i = 0; i < arcs.columns; i++) {
			const [from, to] = [at(arcs, i, 0), at(arcs, i, 8)];
			const normal = [
				from[1] * to[2] - from[2] * to[1],
				from[2] * to[0] - from[0] * to[2],
				from[0] * to[1] - from[1] * to[0]
			] as Vector;
			const unit = scale(normal, 1 / Math.hypot(...normal));
			for (let j = 0; j <= 8; j++) expect(dot(unit, at(arcs, i, j))).to.be.closeTo(0, 0.5);
		}
	});
});

describe('level planes', () => {
	it('courses of a leaning wall lie level at equal heights, bays even by true length', () => {
		const wall: Form = {
			kind: 'ruled',
			foot: {
				points: [
					[0, 0, 0],
					[12000, 0, 0]
				],
				joins: 'line',
				closed: false
			},
			head: {
				points: [
					[-1500, 900, 4200],
					[6000, 1500, 6000],
					[13000, 0, 5200]
				],
				joins: 'smooth',
				closed: false
			}
		};
		const grid = gridOf(wall, {
			across: { by: 'count', count: 10 },
			up: { by: 'exact size', size: 900, start: 'foot' },
			along: 'level planes'
		});
		let met = 0;
		for (let j = 1; j + 1 < grid.rows; j++) {
			const zs = Array.from({ length: grid.columns }, (_, i) => i)
				.filter((i) => !grid.absent?.[j * grid.columns + i])
				.map((i) => at(grid, i, j)[2]);
			// Nodes where the plane runs out lie on the head; the others at one height.
			const height = zs.reduce((a, b) => Math.max(a, b));
			met += zs.filter((z) => Math.abs(z - height) < 1e-3).length;
		}
		expect(met).to.be.above(40);
		for (let i = 0; i < 10; i++)
			expect(
				distance(at(grid, i, 2), at(grid, i + 1, 2)) / distance(at(grid, 0, 2), at(grid, 1, 2))
			).to.be.closeTo(1, 2e-3);
	});
});

describe('a family of planes', () => {
	it('that leans cuts a drum in ellipses: every course lies in its own plane', () => {
		const planes: [number, number, number] = [0.2, 0, 1];
		const grid = gridOf(drum, { ...count(16, 9), along: 'level planes', planes });
		const along = (p: Vector) => dot(p, planes);
		for (let j = 2; j + 2 < grid.rows; j++) {
			const heights = Array.from({ length: 16 }, (_, i) => i)
				.filter((i) => !grid.absent?.[j * grid.columns + i])
				.map((i) => along(at(grid, i, j)));
			for (const height of heights) expect(height).to.be.closeTo(heights[0]!, 1e-3);
		}
		expect(() => gridOf(drum, { ...count(16, 9), along: 'level planes', planes: [1, 0, 0] })).to.throw(
			/the planes need a face that rises through them/
		);
	});
});

describe('true length against closed forms', () => {
	it('a helix: equal arcs of √(r² + (p/2π)²) per radian', () => {
		const [r, pitch, turns] = [3000, 2400, 1.5];
		const helix = (lift: number) =>
			Array.from({ length: 121 }, (_, k): [number, number, number] => {
				const t = (2 * Math.PI * turns * k) / 120;
				return [r * Math.cos(t), r * Math.sin(t), lift + (pitch * t) / (2 * Math.PI)];
			});
		const grid = gridOf(
			{
				kind: 'ruled',
				foot: { points: helix(0), joins: 'smooth', closed: false },
				head: { points: helix(1200), joins: 'smooth', closed: false }
			},
			count(18, 2)
		);
		for (let i = 0; i <= 18; i++) {
			const t = (2 * Math.PI * turns * i) / 18;
			expect(at(grid, i, 0)[2]).to.be.closeTo((pitch * t) / (2 * Math.PI), 0.1);
			expect(
				Math.hypot(at(grid, i, 0)[0] - r * Math.cos(t), at(grid, i, 0)[1] - r * Math.sin(t))
			).to.be.below(0.2);
		}
		expect(grid.across.lengths.belt).to.be.closeTo(
			2 * Math.PI * turns * Math.hypot(r, pitch / (2 * Math.PI)),
			0.1
		);
	});

	it('a shift turns the lines of a ring and keeps every step', () => {
		const plain = gridOf(drum, count(12, 3));
		const turned = gridOf(drum, { ...count(12, 3), shift: [500, 0] });
		for (let i = 0; i < 12; i++) {
			const angle = (grid: NodeGrid) => Math.atan2(at(grid, i, 1)[1], at(grid, i, 1)[0]);
			const way = angle(turned) - angle(plain);
			expect(4000 * Math.atan2(Math.sin(way), Math.cos(way))).to.be.closeTo(500, 0.1);
		}
		const lattice = new Lattice(turned, onlyFace(drum).surface);
		fc.assert(
			fc.property(
				fc.double({ min: 0, max: 11.99, noNaN: true }),
				fc.double({ min: 0, max: 2.99, noNaN: true }),
				(i, j) => {
					const [p, q] = lattice.place(...lattice.parameters(i, j));
					expect(((p - i) % 12) + q - j).to.be.closeTo(0, 1e-8);
				}
			)
		);
	});
});

describe('a layer at a depth', () => {
	it('of a sphere is a sphere; deeper than its radius it turns inside out, and the radius is told', () => {
		const face = onlyFace(dome);
		const grid = setOut(face, settingOutOf({ ...count(24, 8), poleHole: 500 }), 'x');
		const layerAt = (depth: string, guides = new Map<string, readonly Vector[]>(), shifted = false) =>
			layerOf(face.surface, grid, depthsOf(depth, grid, guides, 'x'), shifted);
		for (const depth of [-1500, 800]) {
			const layer = layerAt(`${depth} mm`);
			for (let k = 0; k < layer.positions.length; k += 3)
				expect(
					Math.hypot(layer.positions[k]!, layer.positions[k + 1]!, layer.positions[k + 2]!)
				).to.be.closeTo(6000 + depth, 1e-6);
			expect(layer.crossed.length).to.equal(0);
		}
		const deep = layerAt('-7 m');
		expect(deep.crossed.length).to.equal(24 * 8);
		expect(deep.radius).to.be.closeTo(6000, 1e-3);
		// Driven by the distance from a guide that is one point over the top.
		const top = [0, 0, 6500] as const;
		const depth = '-900 mm + 300 mm * min(1, distance.the_top / 8 m)';
		const driven = layerAt(depth, new Map([['the-top', [top]]]));
		driven.depth.forEach((value, node) => {
			const far = distance(top, pointAt(grid.positions, node));
			expect(value).to.be.closeTo(-900 + 300 * Math.min(1, far / 8000), 1e-9);
		});
		expect(new Set(driven.depth.map(Math.round)).size).to.be.above(5);
		const shifted = layerAt('-500 mm * up', new Map(), true);
		expect(shifted.positions.length).to.equal(3 * 24 * 8);
	});
});

describe('middles of cells on the face', () => {
	it('lie on a drum where the mean of the corners lies within it, over the seam too (closed form)', async () => {
		const [radius, bays] = [4000, 24];
		const drum = revolved([
			[radius, 0],
			[radius, 3000]
		]);
		const model = await new Chain().run(projectOf(drum, count(bays, 3)));
		const face = model.zones[0]!.model!.faces[0]!;
		const middles = face.centresOnFace();
		for (let c = 0; c < face.cells.count; c++) {
			const [on, mean] = [pointAt(middles, c), pointAt(face.measures.centre, c)];
			expect(Math.hypot(on[0], on[1])).to.be.closeTo(radius, 1e-6);
			expect(Math.hypot(mean[0], mean[1])).to.be.closeTo(radius * Math.cos(Math.PI / bays), 1e-3);
			const apart = radius * (1 - Math.cos(Math.PI / bays));
			expect(distance(on, mean), 'straight outward').to.be.closeTo(apart, 1e-3);
		}
	});
});

describe('faces of a zone that share a rim', () => {
	const hall: Form = {
		kind: 'prism',
		outline: { shape: 'rectangle', width: 12000, depth: 8000, rounding: 0 },
		at: [0, 0],
		foot: 0,
		head: 6000,
		curved: []
	};
	const sides = ['south', 'east', 'north', 'west'].map((face) => ({ mass: 'm', face }));
	it('share its edges and their mullions when counts agree, and it is told when they do not', async () => {
		const zone = {
			faces: sides,
			runs: [{ id: 'r', lines: ['bay' as const, 'course' as const, 'rim' as const], variant: 'm' }]
		};
		const variants = [{ id: 'm', name: 'm', part: 'box-mullion', values: {} }];
		const made = (up: SettingOutInput['up']) =>
			new Chain().run(projectOf(hall, { across: { by: 'at most', size: 2000 }, up }, zone, { variants }));
		const model = (await made({ by: 'count', count: 4 })).zones[0]!.model!;
		expect(model.meetings.map(({ shared, apart }) => [shared, apart])).to.deep.equal([
			[4, 0],
			[4, 0],
			[4, 0],
			[4, 0]
		]);
		const bars = model.groups.reduce((sum, { group }) => sum + group.sites.length, 0);
		// 6 + 4 + 6 + 4 bays round a ring, 4 courses: 20 · 4 uprights and 20 · 5 rails, every line once.
		expect(bars).to.equal(20 * 4 + 20 * 5);
		// A corner turns by a right angle.
		const corner = Array.from(model.faces[0]!.sharedEdges!).findIndex((mark) => mark === 1);
		expect(model.faces[0]!.folds[corner]!).to.be.closeTo(Math.PI / 2, 1e-9);
	});
	it('a swelled side meets its flat neighbours: their rim is divided once, by its own length, and they stay even', async () => {
		const swelled: Form = {
			...hall,
			curved: [
				{ id: 'south', out: 1500 },
				{ id: 'west', out: -900 }
			]
		};
		const runs = [{ id: 'r', lines: ['bay' as const, 'course' as const, 'rim' as const], variant: 'm' }];
		const variants = [{ id: 'm', name: 'm', part: 'box-mullion', values: {} }];
		const ways: SettingOutInput[] = [
			{ across: { by: 'count', count: 5 }, up: { by: 'count', count: 7 } },
			{ across: { by: 'count', count: 5 }, up: { by: 'levels', each: 2 } },
			{ across: { by: 'count', count: 5 }, up: { by: 'count', count: 7 }, along: 'own parameter' }
		];
		const levels = [2100, 3900].map((height, k) => ({ id: `l${k}`, name: `L${k}`, height }));
		for (const settingOut of ways) {
			const model = (
				await new Chain().run(projectOf(swelled, settingOut, { faces: sides, runs }, { variants, levels }))
			).zones[0]!.model!;
			const courses = model.faces[0]!.grid.up.steps;
			expect(courses).to.be.above(3);
			const said = JSON.stringify(settingOut.up);
			for (const { shared, apart, steps } of model.meetings)
				expect([shared, apart, ...steps], said).to.deep.equal([courses, 0, courses, courses]);
			const bars = model.groups.reduce((sum, { group }) => sum + group.sites.length, 0);
			expect(bars, said).to.equal(20 * courses + 20 * (courses + 1));
			// Flat sides stay as even as they are alone.
			const { grid } = model.faces[1]!;
			const alone = onlyGrid(settingOut, levels);
			alone.forEach((value, k) => expect(grid.positions[k]!).to.be.closeTo(value, 0.5));
			for (const { measures } of model.faces) expect(measures.area.every((area) => area > 0)).to.equal(true);
		}

		/** The east side set out by itself. */
		function onlyGrid(
			settingOut: SettingOutInput,
			levels: { id: string; name: string; height: number }[]
		): Float64Array {
			const face = massFaces({ id: 'm', name: 'Mass', form: hall, faces: [], evened: null, trims: [] })[1]!;
			return setOut(face, settingOutOf(settingOut), 'x', { levels, guides: new Map() }).positions;
		}
	});
	it('counts that differ are told, with nothing shared by mistake', async () => {
		const low: Form = { ...hall };
		const project = projectOf(
			low,
			{ across: { by: 'count', count: 3 }, up: { by: 'count', count: 4 } },
			{ faces: sides }
		);
		const [zone] = project.zones;
		const both = { ...project, zones: [zone!] };
		const model = await new Chain().run(both);
		expect(model.zones[0]!.model!.meetings.every(({ shared }) => shared === 4)).to.equal(true);
		// The cap has bays of its own over the walls' rims.
		const withCap = { ...zone!, faces: [...sides, { mass: 'm', face: 'cap' }] };
		const capped = await new Chain().run({ ...both, zones: [withCap] });
		expect(capped.problems).to.deep.equal([]);
		const meetings = capped.zones[0]!.model!.meetings.filter(({ faces }) => faces[1] === 4);
		expect(meetings.length).to.equal(4);
		expect(meetings.filter(({ apart }) => apart > 0).length).to.equal(2);
		// Three bays of a wall stand under the cap's four courses, and the other way round.
		for (const { apart, steps } of meetings) expect(steps).to.deep.equal(apart ? [3, 4] : [3, 3]);
	});
});

describe('spacing of lists and places', () => {
	it('a storey rhythm repeats from its start line, whatever the length; make-ups are what is left', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 6000, max: 30000 }),
				fc.constantFrom('foot' as const, 'middle' as const, 'head' as const),
				(height, start) => {
					const grid = gridOf(sheet(5000, height), {
						across: { by: 'count', count: 2 },
						up: { by: 'list', sizes: [3600, 900], start, run: 'repeated' }
					});
					const { fractions, makeUp } = grid.up.division;
					const steps = [...fractions.slice(1)].map((f, k) => (f - fractions[k]!) * height);
					const inner = steps.slice(makeUp.first ? 1 : 0, makeUp.last ? -1 : undefined);
					inner.forEach((step, k) =>
						expect(Math.abs(step - 3600) < 0.2 || Math.abs(step - 900) < 0.2, `${k} ${step}`).to.equal(true)
					);
					for (let k = 1; k < inner.length; k++) expect(inner[k]! + inner[k - 1]!).to.be.closeTo(4500, 0.3);
					expect(steps.reduce((a, b) => a + b, 0)).to.be.closeTo(height, 1e-6);
				}
			)
		);
	});

	it('levels make lines at their heights, with so many courses between; a start line at a level lies there', () => {
		const levels = [
			{ id: 'one', name: 'One', height: 3200 },
			{ id: 'two', name: 'Two', height: 6100 },
			{ id: 'far', name: 'Far', height: 90000 }
		];
		const follow = { levels, guides: new Map() };
		const storeys = setOut(
			onlyFace(sheet(4000, 9000)),
			settingOutOf({ across: { by: 'count', count: 1 }, up: { by: 'levels', each: 2 } }),
			'x',
			follow
		);
		const heights = Array.from({ length: storeys.rows }, (_, j) => at(storeys, 0, j)[2]);
		[0, 1600, 3200, 4650, 6100, 7550, 9000].forEach((z, j) => expect(heights[j]).to.be.closeTo(z, 0.01));
		const from = setOut(
			onlyFace(sheet(4000, 9000)),
			settingOutOf({
				across: { by: 'count', count: 1 },
				up: { by: 'exact size', size: 1000, start: { level: 'one', plus: 50 } }
			}),
			'x',
			follow
		);
		const lines = Array.from({ length: from.rows }, (_, j) => at(from, 0, j)[2]);
		expect(lines.some((z) => Math.abs(z - 3250) < 0.01)).to.equal(true);
		expect(from.up.division.makeUp.first).to.be.closeTo(250, 0.01);
	});

	it('impossible ones are refused in words, with the nearest thing that works', () => {
		const says = (settingOut: SettingOutInput, sentence: RegExp) =>
			expect(() => gridOf(sheet(5000, 3000), settingOut)).to.throw(sentence);
		const across = { by: 'count' as const, count: 2 };
		says({ across, up: { by: 'list', sizes: [], start: 'foot' } }, /the list of courses is empty/);
		says(
			{ across, up: { by: 'list', sizes: [2000, 1500], run: 'once', start: 'foot' } },
			/3.500 mm and reaches 500 mm beyond the belt line of 3.000 mm/
		);
		says({ across, up: { by: 'levels', each: 1 } }, /no level crosses the face/);
		says(
			{ across, up: { by: 'exact size', size: 500, start: { at: 4000 } } },
			/4.000 mm along a line of 3.000 mm/
		);
		says({ across: { by: 'parameters', at: [0.2, 1.2] }, up: across }, /the parameter 1.2 cannot be a line/);
		says({ across, up: across, poleHole: -1 }, /a hole of -1 mm/);
		says(
			{ across: { by: 'at least', size: 6000 }, up: across },
			/6.000 mm is more than the 5.000 mm of the belt line/
		);
		says(
			{ across: { by: 'count', count: 3000 }, up: { by: 'count', count: 2000 } },
			/make 6.000.000 cells; at most 4.000.000/
		);
	});

	it('more than a million cells are made only when they were asked for', () => {
		const counts = (mostCells?: number): SettingOutInput => ({
			across: { by: 'count', count: 1100 },
			up: { by: 'count', count: 1000 },
			...(mostCells && { mostCells })
		});
		try {
			gridOf(sheet(5000, 3000), counts());
			expect.fail('made without asking');
		} catch (error) {
			const { text, fixes } = (error as ProblemError).problem;
			expect(text).to.match(/1.100 bays by 1.000 courses make 1.100.000 cells, more than 1.000.000/);
			expect(fixes!.map(({ label }) => label.replace(/\D/g, ''))).to.deep.equal(['1100000', '1000', '909']);
			const [make] = fixes!;
			expect(make!.path).to.match(/mostCells$/);
			const grid = gridOf(sheet(5000, 3000), counts(make!.value as number));
			expect(grid.columns * grid.rows).to.equal(1101 * 1001);
		}
	});
});

describe('slivers and joints', () => {
	const round = {
		by: 'outline' as const,
		id: 't',
		face: 'wall',
		keep: 'outside' as const,
		within: 5,
		outline: { shape: 'circle' as const, radius: 1480 },
		at: [6000, -9000, 3500] as [number, number, number],
		turn: 0,
		direction: [0, 1, 0] as [number, number, number]
	};
	const made = (zone: Parameters<typeof projectOf>[2], settingOut: SettingOutInput = count(24, 14)) => {
		const project = projectOf(sheet(12000, 7000), settingOut, zone);
		return new Chain().run({ ...project, masses: [{ ...project.masses[0]!, trims: [round] }] });
	};
	it('merging keeps the area, leaves none behind, and the cells stay whole', async () => {
		const plain = (await made({})).zones[0]!.model!.faces[0]!;
		const small = 60_000;
		const before = plain.measures.area.filter((area, c) => plain.cells.kind[c] !== 0 && area < small).length;
		expect(before).to.be.above(2);
		const merged = (await made({ slivers: { under: small, put: 'merge' } })).zones[0]!.model!.faces[0]!;
		const sum = (list: Float64Array) => list.reduce((a, b) => a + b, 0);
		expect(sum(merged.measures.area) / sum(plain.measures.area)).to.be.closeTo(1, 1e-9);
		expect(merged.slivers.joined).to.equal(before);
		expect(
			merged.measures.area.filter((area, c) => merged.cells.kind[c] !== 0 && area < small).length
		).to.equal(0);
		expect(merged.cells.count).to.equal(plain.cells.count - before);
		expect(merged.usedNodes - merged.edges.count + merged.cells.count, 'Euler, one hole').to.equal(0);
	});
	it('left open they are taken by no rule, flagged they are told on the piece', async () => {
		const rules = [{ id: 'r', put: { variant: 'f', values: {} } }];
		const kit = { variants: [{ id: 'f', name: 'f', part: 'framed-glass', values: { frame_width: 10 } }] };
		const open = projectOf(
			sheet(12000, 7000),
			count(24, 14),
			{ rules, slivers: { under: 60_000, put: 'open' } },
			kit
		);
		const model = await new Chain().run({ ...open, masses: [{ ...open.masses[0]!, trims: [round] }] });
		expect(model.problems).to.deep.equal([]);
		const { assignments, faces } = model.zones[0]!.model!;
		expect(assignments[0]!.untaken).to.equal(faces[0]!.slivers.cells.length);
		const zones = [{ ...open.zones[0]!, slivers: { under: 60_000, put: 'flag' as const } }];
		const flagged = await new Chain().run({
			...open,
			zones,
			masses: [{ ...open.masses[0]!, trims: [round] }]
		});
		const told = flagged.zones[0]!.model!.groups.flatMap(({ group }) => group.flags.all());
		const slivers = told.filter(({ code }) => code === 'cell.sliver');
		expect(slivers.length).to.equal(faces[0]!.slivers.cells.length);
		expect(slivers[0]!.says).to.match(/a sliver of 0\.0\d m²/);
	});
	it('a joint leaves half its width open on every side of a pane', async () => {
		const kit = { variants: [{ id: 'f', name: 'f', part: 'framed-glass', values: {} }] };
		const rules = [{ id: 'r', put: { variant: 'f', values: {} } }];
		const widthWith = async (joint: number) => {
			const project = projectOf(sheet(12000, 6000), { ...count(12, 6), joint }, { rules }, kit);
			const { groups } = (await new Chain().run(project)).zones[0]!.model!;
			const frame = groups[0]!.group.run.elements.find((table) => table.length[0]! > 0)!;
			const xs = placesOf(frame.shape, 0).filter((_, k) => k % 3 === 0);
			return Math.max(...xs) - Math.min(...xs);
		};
		expect((await widthWith(0)) - (await widthWith(20))).to.be.closeTo(20, 0.01);
	});
});
