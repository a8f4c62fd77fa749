import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import type { FaceModel } from '../../src/core/cladding/model';
import { segmentDistance } from '../../src/core/geometry/follow';
import { outlineOf } from '../../src/core/pattern/cells';
import { NO_CELL } from '../../src/core/pattern/edges';
import type { Form } from '../../src/core/project/form-schema';
import { plainPatterns } from '../../src/core/project/pattern-schema';
import type { PatternChoice } from '../../src/core/project/schema';
import type { SettingOutInput } from '../../src/core/project/setting-out-schema';
import { pointAt } from '../../src/core/geometry/vector';
import { projectOf, scattered } from '../faces';

type Corners = [number, number, number][];
/** Corners of flat walls (mm), from the foot's left end around; their areas are those of the polygons. */
const walls: Record<string, Corners> = {
	upright: [
		[0, 0, 0],
		[9000, 0, 0],
		[9000, 0, 6000],
		[0, 0, 6000]
	],
	'with a sloping head': [
		[0, 0, 0],
		[9000, 0, 0],
		[9000, 0, 7500],
		[0, 0, 5000]
	],
	'with a sloping foot and a head that slopes the other way': [
		[0, 0, 0],
		[9000, 0, 2200],
		[8200, 0, 5600],
		[700, 0, 7900]
	]
};
const ruled = ([a, b, c, d]: Corners): Form => ({
	kind: 'ruled',
	foot: { points: [a!, b!], joins: 'line', closed: false },
	head: { points: [d!, c!], joins: 'line', closed: false }
});
function polygonOf(corners: readonly (readonly number[])[]): number {
	let twice = 0;
	corners.forEach((one, k) => {
		const next = corners[(k + 1) % corners.length]!;
		twice += one[0]! * next[2]! - next[0]! * one[2]!;
	});
	return twice / 2;
}

const nets = ['true length', 'belt line', 'own parameter', 'level planes', 'geodesics'] as const;
const spacings: Record<string, Pick<SettingOutInput, 'across' | 'up'>> = {
	counts: { across: { by: 'count', count: 8 }, up: { by: 'count', count: 6 } },
	'exact sizes': {
		across: { by: 'exact size', size: 1300, start: 'middle' },
		up: { by: 'exact size', size: 900, start: 'foot' }
	},
	'at most': { across: { by: 'at most', size: 1500 }, up: { by: 'at most', size: 800 } },
	'at least': { across: { by: 'at least', size: 1100 }, up: { by: 'at least', size: 950 } },
	lists: {
		across: { by: 'list', sizes: [900, 1400], start: 'left', run: 'repeated' },
		up: { by: 'list', sizes: [1100, 700, 700], start: 'foot', run: 'repeated' }
	}
};
const patterns: PatternChoice[] = [
	...plainPatterns.map((kind) => ({ kind })),
	{ kind: 'hexagons', sides: 'upright' },
	{ kind: 'running bond', offset: 0.5, way: 'back and forth' },
	{ kind: 'undulating', bays: 4, rise: 0.5 },
	{ kind: 'random splits', seed: 7, smallest: 250, often: 0.8, along: 'both' },
	scattered(60)
];

async function layOut(form: Form, settingOut: SettingOutInput, pattern: PatternChoice): Promise<FaceModel> {
	const model = await new Chain().run(projectOf(form, settingOut, { pattern }));
	expect(model.problems).to.deep.equal([]);
	return model.zones[0]!.model!.faces[0]!;
}
const areaOf = ({ measures }: FaceModel) => measures.area.reduce((a, b) => a + b, 0);

/** Of all outlines, points that sides only run through included, in the plane y = 0 (mm²). */
function outlinesOf({ cells, grid }: FaceModel): number {
	const { start, nodes } = outlineOf(cells);
	let sum = 0;
	for (let c = 0; c < cells.count; c++)
		sum += polygonOf(
			Array.from(nodes.subarray(start[c], start[c + 1]), (node) => pointAt(grid.positions, node))
		);
	return sum;
}

describe('a net of equal chords', () => {
	const area = 20_000 * 12_000;
	const wall = ruled([
		[0, 0, 0],
		[20_000, 0, 0],
		[20_000, 0, 12_000],
		[0, 0, 12_000]
	]);
	const remarks = async (across: number, up: number) => {
		const model = await new Chain().run(
			projectOf(wall, {
				across: { by: 'exact size', size: across, start: 'left' },
				up: { by: 'exact size', size: up, start: 'foot' },
				along: 'equal chords'
			})
		);
		const [face] = model.zones[0]!.model!.faces;
		return { covered: areaOf(face!) / area, told: model.problems.map(({ text }) => text) };
	};

	it('that reaches every rim says nothing', async () => {
		const { covered, told } = await remarks(2000, 1500);
		expect(covered).to.be.closeTo(1, 1e-6);
		expect(told).to.deep.equal([]);
	});

	it('that leaves a strip bare tells its area', async () => {
		// 6 of 3 m leave 2 m of 20; 7 of 1.6 m leave 0.8 m of 12.
		const { covered, told } = await remarks(3000, 1600);
		expect(covered).to.be.closeTo((18 * 11.2) / (20 * 12), 1e-6);
		expect(told.join()).to.match(/covers 201\.6 of 240 m² of wall; 38\.4 m² along its rims stay bare/);
	});
});

describe('cells cover the face', () => {
	for (const along of nets)
		for (const [w, [name, corners]] of Object.entries(walls).entries())
			it(`${along}, a flat wall ${name}: every third spacing and pattern, to 1e-9`, async () => {
				const area = polygonOf(corners);
				for (const [s, [spacing, sizes]] of Object.entries(spacings).entries())
					for (const [p, pattern] of patterns.entries()) {
						// Over the three walls, each of them comes with each.
						if ((s + p) % 3 !== w) continue;
						const face = await layOut(ruled(corners), { ...sizes, along }, pattern);
						const what = `${spacing}, ${Object.values(pattern).join(' ')}`;
						expect(outlinesOf(face) / area, what).to.be.closeTo(1, 1e-9);
						// A side that runs through a bend of its line is straight from corner to corner.
						expect(areaOf(face) / area, what).to.be.closeTo(1, 2e-3);
						// Where a cell has no neighbour the face ends.
						const { edges, grid } = face;
						for (let e = 0; e < edges.count; e++) {
							if (edges.left[e] !== NO_CELL && edges.right[e] !== NO_CELL) continue;
							for (const node of [edges.from[e]!, edges.to[e]!]) {
								const point = pointAt(grid.positions, node);
								const off = corners.map((one, k) => segmentDistance(one, corners[(k + 1) % 4]!, point));
								expect(Math.min(...off), what).to.be.below(1e-3);
							}
						}
					}
			});
});
