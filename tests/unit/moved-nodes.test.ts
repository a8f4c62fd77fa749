import { expect } from 'chai';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import type { FaceModel, Model } from '../../src/core/cladding/model';
import { distance, pointAt } from '../../src/core/geometry/vector';
import { findMoves, type FoundMoves } from '../../src/core/moves/find-moves';
import { movesSchema, type Moves } from '../../src/core/project/moves-schema';
import type { Project, ZoneInput } from '../../src/core/project/schema';
import { readProject } from '../../src/core/project/read';
import { ProblemError } from '../../src/core/units/problem';
import { atOnce } from '../../src/core/units/steps';
import { count, projectOf, revolved, sheet } from '../faces';

const clause = (more: Partial<Moves> & Pick<Moves, 'aim'>): Moves => movesSchema.parse({ id: 'm', ...more });
const KEEPS_ALL_BUT_RIMS = { rims: false, levels: false, openings: true };
const like = { tolerance: 1, mirrored: 'apart' } as const;

async function facesOf(project: Project): Promise<readonly FaceModel[]> {
	const { zones, problems } = await new Chain().run(project);
	expect(problems.filter(({ remark }) => !remark)).to.deep.equal([]);
	return zones[0]!.model!.faces;
}
const find = (faces: readonly Parameters<typeof findMoves>[0][number][], moves: Moves): FoundMoves =>
	atOnce(findMoves(faces, moves, like, [], 'zones/z/moves/m'));
const refusal = (act: () => unknown): string => {
	try {
		act();
	} catch (error) {
		if (error instanceof ProblemError) return error.problem.text;
		throw error;
	}
	throw new Error('it was not refused');
};

/** A half of a ring whose lines follow its main curvatures; its cells are flat by themselves. */
const ring = (): Project =>
	projectOf(
		revolved(
			[
				[8000, 0],
				[9500, 1500],
				[8000, 3000],
				[6500, 1500]
			],
			'smooth'
		),
		count(36, 12)
	);

/** A hyperbolic paraboloid whose lines are the straight ones that lie in it: z = xy, over 10 m by 10 m. */
const straightLines = (): Project =>
	projectOf(
		{
			kind: 'ruled',
			foot: {
				points: [
					[0, 0, 0],
					[10_000, 0, 0]
				],
				joins: 'line',
				closed: false
			},
			head: {
				points: [
					[0, 10_000, 0],
					[10_000, 10_000, 3000]
				],
				joins: 'line',
				closed: false
			}
		} as Parameters<typeof projectOf>[0],
		count(8, 8)
	);

/** The same face with its nodes shaken, by a seed. */
function shaken(face: FaceModel, by: number, seed: number): FaceModel {
	const { grid } = face;
	let state = seed;
	const chance = () => {
		state = (Math.imul(state, 1_103_515_245) + 12_345) >>> 0;
		return state / 2 ** 31 - 1;
	};
	const positions = grid.positions.map((value) => value + by * chance());
	return { ...face, grid: { ...grid, positions } };
}

/** The grid as the moves leave it. */
function movedGrid(face: FaceModel, { faces }: FoundMoves): Float64Array {
	const { positions, columns } = face.grid;
	const moved = positions.slice();
	const { nodes } = faces.find(({ face: address }) => address === face.address)!;
	for (let k = 0; k < nodes.length; k += 5)
		for (let a = 0; a < 3; a++)
			moved[3 * ((nodes[k]! - 1) * columns + nodes[k + 1]! - 1) + a]! += nodes[k + 2 + a]!;
	return moved;
}
/** How far four points are from one plane: their volume over the largest of their triangles. */
function outOfPlane(points: Float64Array, corners: Uint32Array): number {
	const [a, b, c, d] = Array.from(corners, (n) => pointAt(points, n));
	const edge = (p: typeof a, q: typeof a) => p!.map((value, k) => q![k]! - value);
	const [u, v, w] = [edge(a, b), edge(a, c), edge(a, d)];
	const cross = (p: number[], q: number[]) => [
		p[1]! * q[2]! - p[2]! * q[1]!,
		p[2]! * q[0]! - p[0]! * q[2]!,
		p[0]! * q[1]! - p[1]! * q[0]!
	];
	const volume = cross(u, v).reduce((sum, value, k) => sum + value * w[k]!, 0);
	return Math.abs(volume) / Math.hypot(...cross(u, w));
}

describe('Nodes moved so that cells come out better', () => {
	it('cells along the main curvatures of a ring become flat again after its nodes were shaken', async () => {
		const [face] = await facesOf(ring());
		const rough = shaken(face!, 5, 7);
		const found = find([rough], clause({ aim: 'flat', most: 30, within: 0.01, keeps: KEEPS_ALL_BUT_RIMS }));
		expect(found.warp[0]).to.be.above(5);
		expect(found.warped[1]).to.equal(0);
		const points = movedGrid(rough, found);
		const { cells } = rough;
		for (let c = 0; c < cells.count; c++)
			expect(outOfPlane(points, cells.corners.subarray(cells.start[c], cells.start[c + 1]))).to.be.below(
				0.02
			);
	});

	it('a saddle along its straight lines stays warped within a rim that is kept, and that is said', async () => {
		const [face] = await facesOf(straightLines());
		const found = find([face!], clause({ aim: 'flat', most: 100 }));
		// z = c xy: the middle of a cell's diagonals are apart by c/2 of its sides, here 3000 / (8 * 8) / 2 at most.
		expect(found.warp[0]).to.be.closeTo(3000 / 64 / 2, 2);
		expect(found.warped[1]).to.be.above(0.8 * 64);
		expect(found.onSaddle + found.kept).to.equal(found.warped[1]);
		expect(found.warp[1]).to.be.at.most(found.warp[0]);
	});

	it('none goes further than it may, and what is kept stays', async () => {
		const [face] = await facesOf(ring());
		const { grid } = face!;
		fc.assert(
			fc.property(
				fc.nat(1e6),
				fc.double({ min: 0.5, max: 20, noNaN: true }),
				fc.constantFrom<Moves['aim']>('flat', 'conical', 'alike'),
				(seed, most, aim) => {
					const rough = shaken(face!, 8, seed);
					const found = find([rough], clause({ aim, most }));
					const points = movedGrid(rough, found);
					for (let node = 0; node < grid.columns * grid.rows; node++) {
						const way = distance(pointAt(points, node), pointAt(rough.grid.positions, node));
						expect(way).to.be.at.most(most + 1e-3);
						const row = Math.floor(node / grid.columns);
						if (row === 0 || row === grid.rows - 1) expect(way).to.equal(0);
					}
					expect(found.warp[1]).to.satisfy(Number.isFinite);
					if (aim === 'flat') expect(found.warp[1]).to.be.at.most(found.warp[0] * 1.01);
					if (aim === 'alike') expect(found.kinds[1]).to.be.at.most(found.kinds[0]);
				}
			),
			{ numRuns: 12 }
		);
	});

	it('a sheet with uneven steps is brought to one kind, by less than its steps differ', async () => {
		const uneven = [1490, 1510, 1495, 1505, 1498, 1502, 1493, 1507];
		const project = projectOf(sheet(12_000, 4500), {
			across: { by: 'list', sizes: uneven, run: 'once', start: 'left' },
			up: { by: 'list', sizes: [1490, 1510, 1500], run: 'once', start: 'foot' }
		});
		const faces = await facesOf(project);
		const found = find(faces, clause({ aim: 'alike', most: 20, keeps: KEEPS_ALL_BUT_RIMS }));
		expect(found.kinds).to.deep.equal([23, 1]);
		expect(found.furthest).to.be.below(20);
		expect(found.spread).to.be.at.most(like.tolerance);
		// No node may go anywhere near as far: nothing becomes alike, and nothing is moved.
		const none = find(faces, clause({ aim: 'alike', most: 0.01 }));
		expect(none.kinds[1]).to.equal(23);
		expect(none.moved).to.equal(0);
	});

	it('parallelograms: courses are one another, moved, where that is near enough; else it says how far it is', async () => {
		const project = straightLines();
		const [face] = await facesOf(project);
		const said = refusal(() => find([face!], clause({ aim: 'translation', most: 20 })));
		const far = Number(/up to ([\d ]+)/.exec(said.replace(/[\u00A0\u202F]/g, ''))![1]!.replace(/\s/g, ''));
		// The mean of every course and column taken from z = c xy leaves c (x - 5000)(y - 5000): 750 mm in the corners.
		expect(far).to.be.closeTo(750, 1);
		const found = find([face!], clause({ aim: 'translation', most: 800 }));
		const points = movedGrid(face!, found);
		const { columns, rows } = face!.grid;
		for (let j = 0; j + 1 < rows; j++)
			for (let i = 0; i + 1 < columns; i++) {
				const at = (p: number, q: number, a: number) => points[3 * (q * columns + p) + a]!;
				for (let a = 0; a < 3; a++)
					expect(at(i + 1, j + 1, a) - at(i, j + 1, a)).to.be.closeTo(at(i + 1, j, a) - at(i, j, a), 1e-3);
			}
		expect(found.warped[1]).to.equal(0);
	});

	it('at conical nodes, offset planes of the four cells meet in one point', async () => {
		const [face] = await facesOf(ring());
		const rough = shaken(face!, 2, 3);
		const { grid } = rough;
		const found = find(
			[rough],
			clause({ aim: 'conical', most: 30, within: 0.005, keeps: KEEPS_ALL_BUT_RIMS })
		);
		const points = movedGrid(rough, found);
		const normal = (i: number, j: number) => {
			const p = [
				[i, j],
				[i + 1, j],
				[i + 1, j + 1],
				[i, j + 1]
			].map(([a, b]) => pointAt(points, b! * grid.columns + (a! % grid.columns)));
			const [d, e] = [0, 1].map((k) => p[k + 2]!.map((value, a) => value - p[k]![a]!));
			const n = [
				d![1]! * e![2]! - d![2]! * e![1]!,
				d![2]! * e![0]! - d![0]! * e![2]!,
				d![0]! * e![1]! - d![1]! * e![0]!
			];
			return n.map((value) => value / Math.hypot(...n));
		};
		// Four planes at distance 1 of normals n1 … n4 meet in one point where n1 + n3 and n2 + n4 are one vector's multiples
		// alike: their tips lie in one plane.
		let most = 0;
		for (let j = 1; j + 1 < grid.rows; j++)
			for (let i = 1; i < grid.columns; i++) {
				const [a, b, c, d] = [normal(i - 1, j - 1), normal(i, j - 1), normal(i, j), normal(i - 1, j)];
				const [u, v, w] = [b, c, d].map((n) => n.map((value, k) => value - a[k]!));
				const volume =
					u![0]! * (v![1]! * w![2]! - v![2]! * w![1]!) +
					u![1]! * (v![2]! * w![0]! - v![0]! * w![2]!) +
					u![2]! * (v![0]! * w![1]! - v![1]! * w![0]!);
				most = Math.max(most, Math.abs(volume));
			}
		expect(most).to.be.below(1e-5);
	});

	it('what asks for nothing that can be is refused with what would do', async () => {
		const faces = await facesOf(straightLines());
		expect(refusal(() => find(faces, clause({ aim: 'flat', most: 0 })))).to.include('above 0 mm');
		expect(refusal(() => find(faces, clause({ aim: 'flat', within: -1 })))).to.include('above 0 mm');
		expect(refusal(() => find(faces, clause({ aim: 'alike', kinds: 0 })))).to.include('one kind or more');
		const one = await facesOf(projectOf(sheet(1000, 1000), count(1, 1)));
		expect(refusal(() => find(one, clause({ aim: 'flat' })))).to.include('let some go');
	});
});

describe('A clause that moves nodes', () => {
	const withMoves = (project: Project, moves: readonly unknown[], more: Partial<ZoneInput> = {}): Project =>
		readProject({ ...project, zones: [{ ...project.zones[0]!, moves, ...more }] });
	const zoneOf = ({ zones }: Model) => zones[0]!.model!;

	it('moves what it found, and whatever stands on it: cells, grids behind, webs', async () => {
		const project = straightLines();
		const [face] = await facesOf(project);
		const found = find([face!], clause({ aim: 'translation', most: 800 }));
		const behind = {
			...project.zones[0]!,
			id: 'b',
			code: 'B',
			faces: [],
			on: { is: 'layer', of: 'z', depth: '-100 mm', shifted: false }
		};
		const both = readProject({
			...project,
			zones: [
				{
					...project.zones[0]!,
					moves: [{ ...clause({ aim: 'translation', most: 800 }), faces: found.faces }]
				},
				behind
			]
		});
		const { zones, problems } = await new Chain().run(both);
		expect(problems).to.deep.equal([]);
		const [first, second] = zones.map(({ model }) => model!.faces[0]!.grid);
		const wanted = movedGrid(face!, found);
		for (let k = 0; k < wanted.length; k++) expect(first!.positions[k]).to.be.closeTo(wanted[k]!, 1e-9);
		for (let node = 0; node < wanted.length / 3; node++)
			expect(distance(pointAt(second!.positions, node), pointAt(first!.positions, node))).to.be.closeTo(
				100,
				1e-6
			);
		expect(Math.max(...zones[0]!.model!.faces[0]!.measures.warp)).to.be.below(1e-3);
	});

	it('does nothing when it is muted, or found for other counts, and says the latter', async () => {
		const project = straightLines();
		const [face] = await facesOf(project);
		const { faces } = find([face!], clause({ aim: 'flat', most: 50, keeps: KEEPS_ALL_BUT_RIMS }));
		const asSetOut = face!.grid.positions;
		const muted = await new Chain().run(
			withMoves(project, [{ ...clause({ aim: 'flat' }), muted: true, faces }])
		);
		expect(zoneOf(muted).faces[0]!.grid.positions).to.deep.equal(asSetOut);
		const other = await new Chain().run(
			withMoves(project, [{ ...clause({ aim: 'flat' }), faces }], {
				settingOut: count(9, 8)
			})
		);
		expect(other.problems.map(({ at, text }) => [at, text])).to.deep.equal([
			[
				'zones/z/moves/m',
				'its moves were found for 8 bays and 8 courses; there are 9 and 8 now, so nothing is moved. Find them anew'
			]
		]);
		const { positions } = zoneOf(other).faces[0]!.grid;
		expect(positions[5]).to.be.closeTo(0, 1e-6);
	});

	it('says when the face has changed since', async () => {
		const project = straightLines();
		const [face] = await facesOf(project);
		const { faces } = find([face!], clause({ aim: 'flat', most: 50, keeps: KEEPS_ALL_BUT_RIMS }));
		const moved = withMoves(project, [{ ...clause({ aim: 'flat' }), faces }]);
		expect((await new Chain().run(moved)).problems).to.deep.equal([]);
		const form = JSON.parse(JSON.stringify(moved.masses[0]!.form).replaceAll('3000', '3500')) as unknown;
		const changed = readProject({ ...moved, masses: [{ ...moved.masses[0]!, form }] });
		expect((await new Chain().run(changed)).problems.map(({ text }) => text)).to.deep.equal([
			'its moves were found for nodes that lay elsewhere; they are made all the same. Find them anew'
		]);
	});

	it('nodes between those of the grid go with them', async () => {
		const project = straightLines();
		const split = {
			...project,
			zones: [
				{
					...project.zones[0]!,
					pattern: { kind: 'random splits', along: 'both', often: 0.8, smallest: 100, seed: 1 }
				}
			]
		};
		const whole = readProject(split);
		const [before] = await facesOf(whole);
		const { columns, rows } = before!.grid;
		const nodes = Array.from({ length: columns * rows }, (_, n) => [
			Math.floor(n / columns) + 1,
			(n % columns) + 1,
			0,
			0,
			25
		]).flat();
		const faces = [{ face: before!.address, steps: [8, 8], sum: 0, nodes }];
		const [after] = await facesOf(withMoves(whole, [{ ...clause({ aim: 'flat' }), faces }]));
		const { positions } = before!.grid;
		expect(positions.length).to.be.above(3 * columns * rows);
		for (let n = 0; n < positions.length; n += 3) {
			expect(after!.grid.positions[n]).to.be.closeTo(positions[n]!, 1e-9);
			expect(after!.grid.positions[n + 2]).to.be.closeTo(positions[n + 2]! + 25, 1e-9);
		}
	});
});
