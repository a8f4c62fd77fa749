import { expect } from 'chai';
import fc from 'fast-check';
import { PartError, compilePart } from '../../src/core/part/compile';
import { shippedParts } from '../../src/core/part/kit';
import { framedGlass } from '../../src/core/part/kit/framed-glass';
import { runProgram, type ColumnReader, type PartRun } from '../../src/core/part/run';
import { partSchema, type PartDefinition } from '../../src/core/project/part-definition';

type Point = [number, number, number];

/** Run a part once, on given corners (two for a pair), inputs as given or by default. */
function runOnce(
	part: PartDefinition,
	corners: Point[],
	inputs: Record<string, number> = {}
): PartRun & { flagTexts: string[] } {
	const columns: Record<string, number> = { course: 1, bay: 1 };
	const put = (name: string, p: Point) => p.forEach((value, k) => (columns[`${name}.${'xyz'[k]}`] = value));
	const edges = corners.map((p, k) =>
		Math.hypot(...p.map((v, a) => corners[(k + 1) % corners.length]![a]! - v))
	);
	const centre = [0, 1, 2].map((a) => corners.reduce((sum, p) => sum + p[a]!, 0) / corners.length) as Point;
	const normal: Point = [0, 0, 0];
	corners.forEach((p, k) => {
		const q = corners[(k + 1) % corners.length]!;
		normal[0] += (p[1] - q[1]) * (p[2] + q[2]);
		normal[1] += (p[2] - q[2]) * (p[0] + q[0]);
		normal[2] += (p[0] - q[0]) * (p[1] + q[1]);
	});
	const size = Math.hypot(...normal) || 1;
	put('normal', corners.length === 2 ? [0, 0, 1] : (normal.map((v) => v / size) as Point));
	put('centre', centre);
	if (corners.length === 2) {
		put('start', corners[0]!);
		put('end', corners[1]!);
		columns['line_length'] = edges[0]!;
	}
	corners.forEach((p, k) => put(`corner${k + 1}`, p));
	columns['cell_shortest_edge'] = Math.min(...edges);
	for (const input of part.inputs) {
		const value = inputs[input.name] ?? Number(input.default);
		columns[`input.${input.name}`] = input.kind === 'angle' ? (value * Math.PI) / 180 : value;
	}
	const program = compilePart(part, corners.length);
	const read = (name: string): ColumnReader => {
		const value = columns[name];
		if (value === undefined) throw new Error(`no column ${name}`);
		return (out, from, to) => out.fill(value, 0, to - from);
	};
	const run = runProgram(program, read, 1, [0, 0, 0]);
	const flagTexts = program.flags.filter((_, k) => run.flags[0]! & (1 << k)).map((flag) => flag.text);
	return { ...run, flagTexts };
}

/** Every element closed (each directed edge once, its opposite there), its mesh volume as stated. */
function expectClosed(run: PartRun): void {
	for (const table of run.elements)
		for (let n = 0; n < table.count; n++) {
			const seen = new Set<string>();
			let volume = 0;
			for (let t = 0; t < table.triangles.length; t += 3) {
				const [a, b, c] = [0, 1, 2].map((k) => table.triangles[t + k]!) as [number, number, number];
				for (const edge of [`${a} ${b}`, `${b} ${c}`, `${c} ${a}`]) {
					expect(seen.has(edge)).to.equal(false);
					seen.add(edge);
				}
				const at = (v: number) =>
					[0, 1, 2].map((k) => table.positions[3 * (n * table.verticesEach + v) + k]!) as Point;
				const [p, q, r] = [at(a), at(b), at(c)];
				volume +=
					(p[0] * (q[1] * r[2] - q[2] * r[1]) +
						p[1] * (q[2] * r[0] - q[0] * r[2]) +
						p[2] * (q[0] * r[1] - q[1] * r[0])) /
					6;
			}
			for (const edge of seen) expect(seen.has(edge.split(' ').reverse().join(' '))).to.equal(true);
			expect(volume).to.be.above(0);
			expect(
				Math.abs(volume / table.volume[n]! - 1),
				'volume of the mesh against the stated one'
			).to.be.below(2e-3);
		}
}

const square = (side: number): Point[] => [
	[0, 0, 0],
	[side, 0, 0],
	[side, side, 0],
	[0, side, 0]
];
const jitter = fc.double({ min: -180, max: 180, noNaN: true });
const corner = (x: number, y: number) =>
	fc.tuple(jitter, jitter, jitter).map(([a, b, c]): Point => [x + a, y + b, c]);

describe('shipped parts', () => {
	it('keep to the schema of the document', () => {
		for (const part of shippedParts) expect(partSchema.parse(part)).to.deep.equal(part);
	});

	it('Framed glass on a 1 m square: closed forms', () => {
		const run = runOnce(framedGlass, square(1000), {
			joint: 10,
			frame_width: 40,
			frame_depth: 60,
			pane: 20,
			recess: 10
		});
		const [frame, pane] = run.elements;
		expect(frame!.volume[0]).to.be.closeTo((980 ** 2 - 900 ** 2) * 60, 1e-3);
		expect(frame!.length[0]).to.be.closeTo(4 * 980, 1e-6);
		expect(pane!.area[0]).to.be.closeTo(900 ** 2, 1e-6);
		expect(pane!.volume[0]).to.be.closeTo(900 ** 2 * 20, 1e-3);
		expect(run.results.get('clear_area')![0]).to.be.closeTo(900 ** 2, 1e-6);
		expect(run.flagTexts).to.deep.equal([]);
	});

	it('the inset of a triangle is mitred: its area is (r − w)²/r² of the whole (inradius r)', () => {
		const side = 1000;
		const triangle: Point[] = [
			[0, 0, 0],
			[side, 0, 0],
			[side / 2, (side * Math.sqrt(3)) / 2, 0]
		];
		const run = runOnce(framedGlass, triangle, { joint: 0, frame_width: 50 });
		const r = (side * Math.sqrt(3)) / 6;
		expect(run.results.get('clear_area')![0]).to.be.closeTo(
			((Math.sqrt(3) / 4) * side ** 2 * (r - 50) ** 2) / r ** 2,
			1e-4
		);
	});

	it('a held-back frame width says so; a cell too small is flagged and has no elements', () => {
		const held = runOnce(framedGlass, square(300), { frame_width: 90 });
		expect(held.flagTexts.join()).to.match(/Frame width: held back to a fifth/);
		expect(held.results.get('clear_area')![0]).to.be.closeTo((280 - 120) ** 2, 1e-6);
		const failed = runOnce(framedGlass, square(30), { joint: 20 });
		expect(failed.flagTexts.join()).to.match(/too small/);
		expect(failed.elements.every((table) => table.count === 0)).to.equal(true);
	});

	it('coincident and collapsed anchors give a flag, never a NaN', () => {
		for (const part of shippedParts) {
			const n = part.anchor.kind === 'pair' ? 2 : 4;
			const run = runOnce(part, new Array<Point>(n).fill([5, 5, 5]));
			expect(run.flagTexts.length).to.be.above(0);
			for (const values of run.results.values()) expect([...values].every(Number.isFinite)).to.equal(true);
			for (const table of run.elements) expect(table.count).to.equal(0);
		}
	});

	it('are closed with positive volume over random anchors', () => {
		fc.assert(
			fc.property(corner(0, 0), corner(1500, 0), corner(1500, 1200), corner(0, 1200), (a, b, c, d) => {
				for (const part of shippedParts) {
					if (part.anchor.kind === 'pair') expectClosed(runOnce(part, [a, c]));
					else expectClosed(runOnce(part, [a, b, c, d]));
					if (part.anchor.kind === 'ring' && part.anchor.corners === 'any')
						expectClosed(runOnce(part, [a, b, c]));
				}
			}),
			{ numRuns: 150 }
		);
	});

	it('Blade stack: count by spacing, length by the gap at both ends', () => {
		const blades = shippedParts.find((part) => part.id === 'blade-stack')!;
		const upright: Point[] = [
			[0, 0, 0],
			[2000, 0, 0],
			[2000, 0, 1000],
			[0, 0, 1000]
		];
		const run = runOnce(blades, upright, { spacing: 240, end_gap: 15 });
		expect(run.elements[0]!.count).to.equal(5);
		expect([...run.elements[0]!.length].every((mm) => Math.abs(mm - 1970) < 1e-6)).to.equal(true);
		expect([...run.elements[0]!.turn]).to.deep.equal([0, 1, 2, 3, 4]);
	});
});

describe('the checker', () => {
	const faultsOf = (change: Partial<PartDefinition>): string => {
		try {
			compilePart({ ...framedGlass, ...change }, 4);
		} catch (error) {
			if (error instanceof PartError) return error.message;
			throw error;
		}
		return '';
	};
	const bare = { elements: [], measures: [], limits: [] };

	it('names the step and says what is wrong: order, cycle, unknown, type, units, twice', () => {
		const cases: [PartDefinition['steps'], RegExp][] = [
			[
				[
					{ name: 'a', do: 'number', value: 'b + 1 mm' },
					{ name: 'b', do: 'number', value: 'joint' }
				],
				/step a: "b" comes later; move it above/
			],
			[
				[
					{ name: 'a', do: 'number', value: 'b' },
					{ name: 'b', do: 'number', value: 'a' }
				],
				/a cycle: a → b → a/
			],
			[[{ name: 'a', do: 'inset', ring: 'cel', by: 'joint' }], /step a: "cel" is not known/],
			[[{ name: 'a', do: 'inset', ring: 'centre', by: 'joint' }], /"centre" is a point; a ring is wanted/],
			[[{ name: 'a', do: 'inset', ring: 'cell', by: 'joint * joint' }], /is an area; a length is wanted/],
			[[{ name: 'joint', do: 'number', value: '1' }], /used already/],
			[[{ name: 'a', do: 'inset', ring: 'cell', by: ['1', '2'] }], /2 widths are given for a ring of 4/]
		];
		for (const [steps, sentence] of cases) expect(faultsOf({ ...bare, steps })).to.match(sentence);
	});
});
