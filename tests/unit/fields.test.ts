import { expect } from 'chai';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import { siteSetOf, type GridSite } from '../../src/core/cladding/sites';
import { columnValues } from '../../src/core/field/column';
import { fieldOf, fieldsOver } from '../../src/core/field/fields';
import { partFields } from '../../src/core/part/anchors';
import { compilePart } from '../../src/core/part/compile/compile';
import { trialColumns } from '../../src/core/part/trials';
import { runProgram } from '../../src/core/part/run';
import { partSchema, type Anchor } from '../../src/core/project/part-definition';
import type { Vector } from '../../src/core/geometry/vector';
import { count, projectOf, revolved } from '../faces';

/** A part that does nothing but measure what it hangs on, by all the names that fields have in parts. */
const measuring = (id: string, anchor: Anchor) =>
	partSchema.parse({
		id,
		label: id,
		role: 'structure',
		use: '',
		anchor,
		inputs: [],
		limits: [],
		steps: [],
		elements: [],
		measures: partFields(anchor).map(({ name, label, kind, over }) => ({
			name: `own_${name}`,
			label: `${label} ${name}`,
			kind,
			value: `${over}.${name}`
		}))
	});

/** The same within another part that hangs on the same points: there the fields are reckoned by its program. */
const around = (inner: ReturnType<typeof measuring>, corners: number) =>
	partSchema.parse({
		...inner,
		id: `around-${inner.id}`,
		steps: [
			{
				name: 'inner',
				do: 'part',
				part: inner.id,
				on: Array.from({ length: corners }, (_, k) => `corner${k + 1}`),
				values: {}
			}
		],
		measures: inner.measures.map(({ name, label, kind }) => ({ name, label, kind, value: `inner_${name}` }))
	});

const coordinate = fc.double({ min: -3000, max: 3000, noNaN: true });
const point = fc.tuple(coordinate, coordinate, coordinate);
/** Rings that go round: angles in their order, each corner at some distance and off the plane. */
const ringOf = (n: number) =>
	fc
		.tuple(
			fc.array(fc.double({ min: 500, max: 2500, noNaN: true }), { minLength: n, maxLength: n }),
			fc.array(fc.double({ min: -150, max: 150, noNaN: true }), { minLength: n, maxLength: n }),
			point
		)
		.map(([radii, off, [x, y, z]]) =>
			radii.map((radius, k): Vector => {
				const turn = (2 * Math.PI * k) / n;
				return [x + radius * Math.cos(turn), y + off[k]!, z + radius * Math.sin(turn)];
			})
		);

function measured(
	part: ReturnType<typeof measuring>,
	corners: number,
	points: readonly Vector[],
	library: readonly ReturnType<typeof measuring>[]
) {
	const columns = trialColumns(part.anchor, points);
	const run = runProgram(
		compilePart(part, corners, library),
		(name) => (out) => out.fill(columns.get(name)!),
		1,
		[0, 0, 0]
	);
	return new Map([...run.results].map(([name, values]) => [name, values[0]!]));
}

describe('fields', () => {
	it('of a ring are the same, reckoned in columns over cells and by the program of a part around', () => {
		for (const n of [3, 4, 5, 7]) {
			const inner = measuring('inner-ring', { kind: 'ring', corners: n });
			const outer = around(inner, n);
			fc.assert(
				fc.property(ringOf(n), (points) => {
					const [own, within] = [inner, outer].map((part) => measured(part, n, points, [inner]));
					for (const [name, value] of own!)
						expect(within!.get(name), `${n} corners, ${name}`).to.be.closeTo(
							value,
							1e-6 * (1 + Math.abs(value))
						);
				}),
				{ numRuns: 60 }
			);
		}
	});

	it('have permanent ids, each once, and one name among those of their kind of site', () => {
		for (const over of ['cell', 'line', 'node', 'chain'] as const) {
			const fields = fieldsOver(over);
			expect(new Set(fields.map(({ id }) => id)).size).to.equal(fields.length);
			for (const { id, name } of fields) {
				expect(id).to.equal(`${over}.${name}`);
				expect(fieldOf(over, name).id).to.equal(id);
			}
		}
		// What settings, files and formulas of projects name: these stay.
		expect(fieldsOver('cell').map(({ name }) => name)).to.include.members([
			'warp',
			'area',
			'perimeter',
			'longest_edge',
			'shortest_edge',
			'smallest_angle',
			'largest_angle',
			'height',
			'slope',
			'facing',
			'radius',
			'largest_radius',
			'off_even',
			'share',
			'across',
			'up',
			'from_rim',
			'chance',
			'corners',
			'course',
			'bay',
			'incidence',
			'profile_angle',
			'plan_angle',
			'hours_of_sun'
		]);
	});

	it('are finite for every site of a model, read by what they say they need and nothing else', async () => {
		const drum = revolved([
			[4000, 0],
			[3000, 5000]
		]);
		const model = await new Chain().run(projectOf(drum, count(12, 5), { pattern: { kind: 'diamonds' } }));
		const { faces, suns } = model.zones[0]!.model!;
		const face = { ...faces[0]!, sun: suns[0]! };
		const counts: Record<GridSite, number> = {
			cell: face.cells.count,
			line: face.edges.count,
			node: face.grid.positions.length / 3,
			chain: 0
		};
		for (const over of ['cell', 'line', 'node'] as const)
			for (const field of fieldsOver(over)) {
				const source = Object.fromEntries(field.needs.map((need) => [need, face[need as 'cells']]));
				const sites = Uint32Array.from({ length: counts[over] }, (_, k) => k);
				const values = columnValues(field.column(source, sites), sites.length);
				expect(values.every(Number.isFinite), field.id).to.equal(true);
			}
		// Closed forms: bars of a cone's course line are chords of its circle.
		const lines = siteSetOf(face, 'line');
		const lengths = fieldOf('line', 'length').column(face, Uint32Array.of(0));
		const [a, b] = Array.from(lines.nodes(0), (n) => face.grid.positions.subarray(3 * n, 3 * n + 3));
		expect(columnValues(lengths, 1)[0]).to.be.closeTo(
			Math.hypot(a![0]! - b![0]!, a![1]! - b![1]!, a![2]! - b![2]!),
			1e-9
		);
	});
});
