/**
 * npm run bench: milliseconds by stage, and ratios to other ways of doing the same in this process.
 * Absolute times drift from machine to machine; the ratios are what is held.
 */
import { parseArgs } from 'node:util';
import { IfcAPI } from 'web-ifc';
import { Chain } from '../../src/core/chain/chain';
import { evaluateCurvature } from '../../src/core/geometry/curvature';
import { evaluateGrid } from '../../src/core/geometry/surface';
import { lengthTable, parametersAt } from '../../src/core/geometry/true-length';
import { massFaces } from '../../src/core/mass/faces';
import { setOut } from '../../src/core/grid/set-out';
import { settingOutSchema } from '../../src/core/project/setting-out-schema';
import { measureCells } from '../../src/core/measure/cell-measures';
import { Lattice } from '../../src/core/grid/lattice';
import { layTiles } from '../../src/core/pattern/lay-tiles';
import { makeEdges } from '../../src/core/pattern/edges';
import { patternOf } from '../../src/core/pattern/catalogue';
import { readStepFaces } from '../../src/core/exchange/step/read-surfaces';
import { writeGlb } from '../../src/core/exchange/glb/write';
import { writeIfc } from '../../src/core/exchange/ifc/write';
import { writeStepSolids } from '../../src/core/exchange/step/solids';
import { writeStep } from '../../src/core/exchange/step/write';
import { readProject } from '../../src/core/project/read';
import { hashOf } from '../../src/core/project/hash';
import { Files } from '../../src/core/project/files';
import type { Project, Zone } from '../../src/core/project/schema';
import { sideThread } from './side-thread';
import { applyEdits } from '../../src/core/project/commands';
import type { Form } from '../../src/core/project/form-schema';
import { MeshIndices } from '../../src/lib/model/mesh-index';
import * as THREE from 'three';
import { CellLayer } from '../../src/lib/model/cell-layer';
import { PieceLayer } from '../../src/lib/model/piece-layer';
import { modelMessage, type FaceView, type GroupView } from '../../src/lib/worker/views';
import { binsOf, clipOurs, clipTheirs, regionOf, touchedCells } from '../clip-case';
import { onlyFace, projectOf, revolved, sheet } from '../faces';
import { rationalSurfaceDerivatives, toVerb } from '../verb';
import { columnLoops } from '../../src/core/part/evaluate/column-loops';
import { runProgram } from '../../src/core/part/run';
import type { ProgramRunner } from '../../src/core/part/threads/program-runner';
import { queryRows, type Query } from '../../src/core/schedule/query';
import { makeSchedule } from '../../src/core/schedule/table';
import { aheadOfPlane, type Plane } from '../../src/core/geometry/solid/ahead-of-plane';
import {
	loadSolids,
	meshOfSolid,
	solidLibrary,
	solidOf,
	type ClosedMesh
} from '../../src/core/geometry/solid/library';
import { ballPart, framedCase, partCase, PIECES } from './parts';
import { placesOf } from '../../src/core/part/places';
import { cutLengths } from '../../src/core/cutting/lengths';
import { findClashes } from '../../src/core/clash/find';
import { clipPieces } from '../../src/core/cladding/clip-pieces';
import { keptSpace } from '../../src/core/cladding/kept-space';
import type { ClauseGroup, FaceModel, Model } from '../../src/core/cladding/model';
import { findMoves } from '../../src/core/moves/find-moves';
import type { Cells } from '../../src/core/pattern/cells';
import { likeSchema } from '../../src/core/project/like-schema';
import { movesSchema } from '../../src/core/project/moves-schema';
import { assignRules } from '../../src/core/cladding/assign';
import type { Condition } from '../../src/core/project/condition-schema';
import type { Rule } from '../../src/core/project/schema';
import { drive } from '../../src/core/driver/drive';
import type { SpelledDriver } from '../../src/core/project/driver-schema';
import { NOTHING_NAMED } from '../../src/core/named/named-values';
import { shippedParts } from '../../src/core/part/kit';
import { NOTHING_FOLLOWED } from '../../src/core/field/followed';
import { atOnce } from '../../src/core/units/steps';
import { drawingFonts } from '../../src/cli/fonts';
import { quickPacking } from '../../src/cli/packing';
import { bookOf } from '../../src/core/drawing/book';
import { elevationOf } from '../../src/core/drawing/elevation';
import { lookingAlong } from '../../src/core/drawing/frame';
import { flatPattern } from '../../src/core/unroll/flat-pattern';
import { writePdf } from '../../src/core/exchange/pdf/write';
import { compareReleased } from '../../src/core/release/compare';
import { releasedPieces } from '../../src/core/release/pieces';
import { formats } from '../../src/core/exchange/formats';
import { ringsOf } from '../../src/core/like/rings';
import { likeSets } from '../../src/core/like/sets';
import { withLimits } from '../../src/core/limit/beyond';
import { measuresFor } from '../../src/core/limit/measures';
import { shippedLimits } from '../../src/core/limit/shipped';
import { measureNaively } from './naive-measures';
import { framedStraight } from './straight';
import { sunByRaycaster, sunOfAYear } from './sun';

interface Result {
	readonly id: string;
	readonly cells: number;
	readonly ms: number;
	/** Of all pieces. */
	readonly triangles: number | null;
	readonly ratio: number | null;
	readonly against: string | null;
}

const { values } = parseArgs({
	options: { json: { type: 'boolean', default: false }, only: { type: 'string', default: '' } }
});
const results: Result[] = [];
const wanted = (id: string) => id.startsWith(values.only);

/** The median of several runs after two to warm up, in ms. */
async function time(act: (run: number) => unknown, runs = 9, warming = 2): Promise<number> {
	const times: number[] = [];
	for (let k = -warming; k < runs; k++) {
		const start = performance.now();
		await act(k);
		if (k >= 0) times.push(performance.now() - start);
	}
	return times.sort((a, b) => a - b)[Math.floor(times.length / 2)]!;
}

/** Two ways of one thing in turns, so that both meet the same moments of the machine. */
async function timeBoth(one: () => unknown, other: () => unknown, rounds = 15): Promise<[number, number]> {
	const times: [number[], number[]] = [[], []];
	for (let k = -5; k < rounds; k++)
		for (const [way, act] of [one, other].entries()) {
			const start = performance.now();
			await act();
			if (k >= 0) times[way]!.push(performance.now() - start);
		}
	const median = (list: number[]) => list.sort((a, b) => a - b)[list.length >> 1]!;
	return [median(times[0]), median(times[1])];
}

function note(
	id: string,
	cells: number,
	ms: number,
	against: { name: string; ms: number } | null = null,
	triangles: number | null = null
): void {
	results.push({
		id,
		cells,
		ms: Number(ms.toFixed(3)),
		triangles,
		ratio: against ? Number((against.ms / ms).toFixed(2)) : null,
		against: against?.name ?? null
	});
}

/** How fast the machine is at this moment, whatever is measured: a loop of adds, at best. */
function machine(when: 'before' | 'after'): void {
	const times = Array.from({ length: 5 }, () => {
		const start = performance.now();
		let sum = 0;
		for (let k = 0; k < 5e7; k++) sum = (sum + k * 7) | 0;
		// The sum is used, or nothing would be added.
		return performance.now() - start + (sum & 0);
	});
	note(`machine:${when}`, 0, Math.min(...times));
}

const mass = revolved(
	[
		[5200, 0],
		[4350, 2300],
		[3900, 4700],
		[4300, 7100],
		[5000, 9000]
	],
	'smooth'
);
const face = onlyFace(mass);
const sizes = [
	{ cells: 2_000, bays: 50, courses: 40 },
	{ cells: 10_000, bays: 100, courses: 100 },
	{ cells: 100_000, bays: 400, courses: 250 }
];
const count = (n: number) => ({ by: 'count' as const, count: n });

/** Cells that a trim of 400 corners touches, clipped; against a general-purpose library on the same cells. */
async function clip(): Promise<void> {
	if (!wanted('clip:10000')) return;
	const touched = touchedCells();
	const [bins, region] = [binsOf(), regionOf()];
	const ours = await time(() => clipOurs(touched, bins), 30);
	const theirs = await time(() => clipTheirs(touched, region), 9);
	note('clip:10000', touched.length, ours, { name: 'clipper2-ts', ms: theirs });
}

async function surface(): Promise<void> {
	const steps = (n: number) => Array.from({ length: n }, (_, k) => k / (n - 1));
	for (const { cells, bays, courses } of sizes) {
		const id = cells === 10_000 ? 'surface:derivatives' : `surface:derivatives:${cells}`;
		if (!wanted(id)) continue;
		const us = steps(bays);
		const vs = steps(courses);
		const ours = await time(() => evaluateGrid(face.surface, us, vs));
		if (cells !== 10_000) {
			note(id, cells, ours);
			continue;
		}
		const verb = toVerb(face.surface);
		const theirs = await time(() => {
			for (const v of vs) for (const u of us) rationalSurfaceDerivatives(verb, u, v, 1);
		}, 3);
		note(id, cells, ours, { name: 'verb-nurbs, point by point', ms: theirs });
	}
}

async function stages(): Promise<void> {
	for (const { cells: n, bays, courses } of sizes) {
		const settingOut = settingOutSchema.parse({ across: count(bays), up: count(courses) });
		const pattern = patternOf({ kind: 'rectangles' });
		const grid = setOut(face, settingOut, 'bench');
		const lattice = new Lattice(grid, face.surface);
		const { cells } = layTiles(lattice, pattern, 'bench');
		if (wanted(`setout:${n}`))
			note(
				`setout:${n}`,
				n,
				await time(() => {
					const rows = Float64Array.from({ length: grid.rows }, (_, j) => grid.v[j * grid.columns]!);
					const table = lengthTable(face.surface, rows);
					const shares = grid.across.division.fractions.subarray(0, grid.columns);
					for (let j = 0; j < grid.rows; j++) parametersAt(table, j, shares, grid.u, j * grid.columns);
				})
			);
		if (wanted(`grid:${n}`)) note(`grid:${n}`, n, await time(() => setOut(face, settingOut, 'bench')));
		if (wanted(`cells:${n}`)) {
			// Cells with addresses and kinds, their edges, and their measures.
			const made = () => {
				const laid = layTiles(lattice, pattern, 'bench');
				makeEdges(laid.grid, laid.cells);
				measureCells(laid.cells, laid.grid.positions);
			};
			note(`cells:${n}`, n, await time(made, 9));
		}
		if (wanted(`measures:${n}`)) {
			const ours = await time(() => measureCells(cells, grid.positions));
			const theirs = await time(() => measureNaively(cells, grid.positions), 3);
			note(`measures:${n}`, n, ours, { name: 'an object per cell', ms: theirs });
		}
		if (wanted(`parts:${n}`) || wanted(`meshes:${n}`) || wanted(`chain:${n}`))
			await wholeChain(n, bays, courses);
	}
}

/** A changed form, to buffers ready to draw, with Framed glass on every cell; against the same written straight. */
async function wholeChain(n: number, bays: number, courses: number): Promise<void> {
	const sizes = { joint: 2, frame_width: 10, frame_depth: 20, pane: 6, recess: 4 };
	const project = projectOf(
		mass,
		counts(bays, courses),
		{ rules: [ring] },
		{ variants: [{ id: 'f', name: 'f', part: 'framed-glass', values: sizes }] }
	);
	const path = 'masses/m/form/profile/points/1/0';
	const changed = (run: number) => applyEdits(project, [{ do: 'set', path, value: 4350 + run }]).project;
	const chain = new Chain();
	const indices = new MeshIndices((index) => index);
	let [parts, meshes, runs] = [0, 0, 0];
	const whole = async (run: number) => {
		const model = await chain.run(changed(run));
		const start = performance.now();
		const tables = model.zones[0]!.model!.groups.flatMap(({ group }) => group.run.elements);
		for (const { shape, count } of tables) if (shape.is === 'made') indices.of({ ...shape, count });
		indices.forgetUnused();
		meshes += performance.now() - start;
		parts += model.ms.parts;
		runs++;
		return tables;
	};
	const straight = (run: number) => {
		const { masses, zones } = changed(run);
		return framedStraight(onlyFace(masses[0]!.form), zones[0]!.settingOut, sizes);
	};
	const volume = (columns: Iterable<Float64Array>) =>
		[...columns].reduce((sum, column) => column.reduce((all, one) => all + one, sum), 0);
	const [made, expected] = [
		volume((await whole(0)).map((table) => table.volume)),
		volume([straight(0).volumes])
	];
	if (!(Math.abs(made - expected) < 1e-6 * expected))
		throw new Error(`the chain makes ${made} mm³, written straight it is ${expected} mm³`);
	let run = 0;
	const [ms, floor] = await timeBoth(
		() => whole(++run),
		() => straight(++run),
		n > 50_000 ? 5 : 9
	);
	note(`parts:${n}`, n, parts / runs);
	note(`meshes:${n}`, n, meshes / runs);
	note(`chain:${n}`, n, ms, { name: 'written straight', ms: floor });
	if (n > 50_000 && wanted(`chain:${n}`)) await onTwo(`chain:${n}:two`, n, changed);
}

/** The heaviest part of the kit, on a wall whose cells it fits. */
async function trusses(): Promise<void> {
	if (!wanted('trusses:10000:two')) return;
	const project = projectOf(
		sheet(100 * 1500, 100 * 1300),
		counts(100, 100),
		{ rules: [ring] },
		{ variants: [{ id: 'f', name: 'f', part: 'curved-truss-cell', values: {} }] }
	);
	const path = 'masses/m/form/head/points/1/2';
	const changed = (run: number) => applyEdits(project, [{ do: 'set', path, value: 130_000 + run }]).project;
	await onTwo('trusses:10000:two', 10_000, changed, 5);
}

/** A changed project with a thread beside this one, and without, in turns. */
async function onTwo(
	id: string,
	n: number,
	changed: (run: number) => Project,
	rounds?: number
): Promise<void> {
	const threads = sideThread();
	const [alone, both] = [new Chain(), new Chain(new Files(), 0, threads)];
	let run = 0;
	const [two, one] = await timeBoth(
		() => both.run(changed(++run)),
		() => alone.run(changed(++run)),
		rounds
	);
	threads.end();
	note(id, n, two, { name: 'one thread', ms: one });
}

/** Points, normals and both curvatures of a 400 by 400 grid. */
async function curvature(): Promise<void> {
	if (!wanted('surface:curvature')) return;
	const steps = Array.from({ length: 400 }, (_, k) => k / 399);
	note('surface:curvature', 160_000, await time(() => evaluateCurvature(face.surface, steps, steps)));
}

const rail = (z: number, bulge: number) => ({
	points: [
		[0, 0, z],
		[4000, bulge, z],
		[9000, 0, z]
	] as [number, number, number][],
	joins: 'line' as const,
	closed: false
});

/** A ruled face with a fold is evened as far as it can be; level planes on one side of a prism. */
async function facesSetOut(): Promise<void> {
	if (wanted('even:ruled')) {
		const form: Form = { kind: 'ruled', foot: rail(0, 1500), head: rail(5000, -800) };
		const mass = { id: 'm', name: 'M', form, faces: [], evened: 0.5, trims: [] };
		const even = () => {
			try {
				massFaces(mass);
			} catch {
				// It says how far it comes: that takes longest.
			}
		};
		note('even:ruled', 0, await time(even));
	}
	if (wanted('planes:side')) {
		const outline = { shape: 'polygon' as const, sides: 5, radius: 8000, rounding: 0 };
		const form = { kind: 'prism', at: [0, 0], foot: 0, head: 9000, outline, curved: [] };
		const [mass] = readProject({
			format: 'zygaster project',
			version: 4,
			name: 'Side',
			masses: [{ id: 'm', name: 'M', form }]
		}).masses;
		const [side] = massFaces(mass!);
		const settingOut = settingOutSchema.parse({ ...counts(30, 6), along: 'level planes' });
		note('planes:side', 180, await time(() => setOut(side!, settingOut, 'bench')));
	}
}

const ring = {
	id: 'r',
	muted: false,
	cells: 'all' as const,
	corners: 'any' as const,
	courses: null,
	put: { variant: 'f', values: {} }
};

/** A control point of a 12 by 12 net dragged, 2,000 cells with Framed glass on it: what the worker does. */
async function dragNet(): Promise<void> {
	if (!wanted('drag:net')) return;
	const net: Form = {
		kind: 'net',
		degrees: [3, 3],
		points: 'control',
		rows: Array.from({ length: 12 }, (_, j) =>
			Array.from({ length: 12 }, (_, i): [number, number, number] => [
				i * 4000,
				j * 3000,
				6000 + 900 * Math.sin(i) * Math.cos(j)
			])
		)
	};
	const project = projectOf(
		net,
		{ across: count(50), up: count(40) },
		{ rules: [ring] },
		{ variants: [{ id: 'f', name: 'f', part: 'framed-glass', values: {} }] }
	);
	const chain = new Chain();
	const known = new Set<string>();
	const stages: Record<string, number> = {};
	let runs = 0;
	const ms = await time(
		async (run) => {
			const edits = [{ do: 'set' as const, path: 'masses/m/form/rows/5/6/2', value: 6000 + 40 * run }];
			const changed = applyEdits(project, edits).project;
			const start = performance.now();
			const model = await chain.run(changed);
			const chained = performance.now();
			modelMessage(model, known, start);
			if (run < 0) return;
			for (const [stage, took] of Object.entries(model.ms)) stages[stage] = (stages[stage] ?? 0) + took;
			stages['message'] = (stages['message'] ?? 0) + performance.now() - chained;
			runs++;
		},
		25,
		40
	);
	note('drag:net', 2000, ms);
	for (const [stage, sum] of Object.entries(stages)) note(`drag:net:${stage}`, 2000, sum / runs);
}

/** A STEP file of 500 rational B-spline faces of 12 by 12 points. */
async function importStep(): Promise<void> {
	if (!wanted('import:step')) return;
	const net = (k: number) => ({
		kind: 'net',
		degrees: [3, 3],
		rows: Array.from({ length: 12 }, (_, j) =>
			Array.from({ length: 12 }, (_, i) => [i * 1000, j * 900 + 11000 * k, 300 * Math.sin(i * j + k)])
		)
	});
	const model = await new Chain().run(
		readProject({
			format: 'zygaster project',
			version: 2,
			name: 'Many faces',
			masses: Array.from({ length: 500 }, (_, k) => ({ id: `m${k}`, name: `Mass ${k}`, form: net(k) }))
		})
	);
	const bytes = Buffer.concat(writeStep(model, '2026-01-01T00:00:00'));
	note('import:step', 500, await time(() => readStepFaces(bytes), 3));
}

/** Every part of the kit over 10,000 varied pieces; Framed glass beside a kernel written by hand. */
async function kit(): Promise<void> {
	for (const part of shippedParts) {
		const id = `part:${part.id}`;
		if (!wanted(id)) continue;
		const { run, triangles } = partCase(part);
		if (part.id !== 'framed-glass') {
			note(id, PIECES, await time(() => run(), 5), null, triangles(run()));
			continue;
		}
		const hand = framedCase();
		const name = 'a kernel written by hand';
		const [fast, byHand] = await timeBoth(() => run(), hand);
		note(id, PIECES, fast, { name, ms: byHand }, triangles(run()));
		const [reference, again] = await timeBoth(() => run(columnLoops), hand);
		note(`${id}:reference`, PIECES, reference, { name, ms: again });
	}
}

/**
 * A block of 1,000 triangles fitted to 10,000 varied spaces: the maps and volumes, and every vertex of every
 * piece once, as a file takes them. `block:10000:drawn` is what drawing waits for: the card maps the vertices.
 */
async function block(): Promise<void> {
	if (!wanted('block:10000')) return;
	const { run, triangles } = partCase(ballPart());
	const everyVertex = () => {
		for (const table of run().elements)
			for (let k = 0; k < table.count; k++)
				if (!Number.isFinite(placesOf(table.shape, k)[0])) throw new Error('no place');
	};
	note('block:10000', PIECES, await time(everyVertex), null, triangles(run()));
	note('block:10000:drawn', PIECES, await time(() => run()), null, triangles(run()));
}

/** One choice by hand of 5,000 changed, its hash too; against validating the whole document as it was done before. */
async function edit(): Promise<void> {
	if (!wanted('core:edit')) return;
	const project = projectOf(mass, counts(100, 50));
	const [zone] = project.zones as [Zone];
	const sites = Array.from({ length: 5000 }, (_, k) => ({ id: `m.shell/C${k}/B${k}/1`, place: null }));
	const exceptions = [{ id: 'by-hand', put: 'open' as const, sites }];
	const large = readProject({ ...project, zones: [{ ...zone, exceptions }] });
	hashOf(large);
	const path = 'zones/z/exceptions/by-hand/sites/m.shell~C2500~B2500~1/place';
	const value = (run: number) => [Math.abs(run % 7) / 10, 0.5];
	const one = await time(
		(run) => hashOf(applyEdits(large, [{ do: 'set', path, value: value(run) }]).project),
		60
	);
	const whole = await time(() => readProject(large), 15);
	note('core:edit', 5000, one, { name: 'validating the whole', ms: whole });
}
/** One cell painted by hand on 50,000 pieces, to buffers that can be sent. */
async function fiftyThousand(): Promise<void> {
	if (!wanted('exception:50000')) return;
	const variants = [{ id: 'f', name: 'f', part: 'flat-panel', values: {} }];
	const project = projectOf(mass, counts(250, 200), { rules: [ring] }, { variants });
	const chain = new Chain();
	const model = await chain.run(project);
	const known = new Set<string>();
	modelMessage(model, known, 0);
	const ms = await time(
		async (run) => {
			const site = { id: `m.shell/C${10 + Math.abs(run)}/B20/1`, place: [0.1, 0.1] };
			const value = { id: 'by-hand', put: 'open', sites: [site] };
			const edit = { do: 'insert' as const, path: 'zones/z/exceptions', index: 0, value };
			modelMessage(await chain.run(applyEdits(project, [edit]).project), known, 0);
		},
		15,
		5
	);
	note('exception:50000', 50_000, ms);
}
/** What the page opens on of a list of elements. */
function opened(model: Model): void {
	const list = makeSchedule(model, 'elements');
	for (const key of ['mark', 'part', 'element', 'material', 'stock', 'thickness', 'length', 'area', 'mass'])
		list.column(key);
}

/** A list of elements: as the page opens on it, with every column, sorted by marks and by a number, filtered by marks. */
async function longList(): Promise<void> {
	if (!wanted('schedule:200000') && !wanted('schedule:50000')) return;
	const variants = [{ id: 'framed', name: 'framed', part: 'framed-glass', values: {} }];
	const rules = [{ ...ring, put: { variant: 'framed' } }];
	const modelOf = (up: number) => new Chain().run(projectOf(mass, counts(200, up), { rules }, { variants }));
	const short = await modelOf(50);
	note('schedule:50000', makeSchedule(short, 'elements').rows, await time(() => opened(short)));
	if (!wanted('schedule:200000')) return;
	const model = await modelOf(200);
	const { rows } = makeSchedule(model, 'elements');
	note('schedule:200000', rows, await time(() => opened(model)));
	note('schedule:200000-all', rows, await time(() => void makeSchedule(model, 'elements').columns));
	const list = makeSchedule(model, 'elements');
	const asked: Query = { filters: [], sort: null, groupBy: null };
	for (const key of ['length', 'mark'])
		note(
			`schedule:200000-by-${key}`,
			rows,
			await time(() => {
				// As the page has it: a column that has not been sorted yet.
				const column = { ...list.column(key)! };
				queryRows({ ...list, column: () => column }, { ...asked, sort: { key, descending: true } });
			})
		);
	const filter = { key: 'mark', is: 'contains', value: 'c01' } as const;
	note(
		'schedule:200000-filter',
		rows,
		await time(() => void queryRows(list, { ...asked, filters: [filter] }))
	);
}
/** Turned and mirrored copies of a tube through 14 nodes, led over and under one another: a changed amount, to buffers. */
async function weave(): Promise<void> {
	if (!wanted('weave:32')) return;
	const chain = new Chain();
	const settingOut = settingOutSchema.parse({ across: count(32), up: count(13) });
	const tube = { id: 'tube', name: 'tube', part: 'woven-tube', values: {} };
	const run = { id: 'run', over: 'chains', lines: [], variant: 'tube', values: {} };
	const project = (over: number) => {
		const plain = projectOf(mass, { across: count(32), up: count(13) }, {}, { variants: [tube] });
		const copies = { count: 16, by: 'full circle', about: [0, 0], mirrored: true };
		const through = { by: 'steps', from: [1, 1], step: [1, 1] };
		const on = { is: 'chains', of: 'z', through, copies, over };
		const woven = {
			id: 'w',
			code: 'W',
			name: 'w',
			on,
			faces: [],
			settingOut,
			pattern: { kind: 'rectangles' },
			runs: [run]
		};
		return readProject({ ...plain, zones: [...plain.zones, woven] } as never);
	};
	const known = new Set<string>();
	modelMessage(await chain.run(project(40)), known, 0);
	const projects = Array.from({ length: 40 }, (_, k) => project(41 + k));
	const ms = await time(
		async (n) => modelMessage(await chain.run(projects[Math.abs(n) % 40]!), known, 0),
		15,
		5
	);
	note('weave:32', 32, ms);
}
/** Framed units, of each of which a round opening takes a quarter of a circle at a corner. */
async function clipSolids(): Promise<void> {
	if (!wanted('clip-solids:1000')) return;
	const [bays, courses, size] = [50, 20, 1500];
	const unit = { id: 'unit', name: 'unit', part: 'framed-glass', values: {} };
	const form = sheet(bays * size, courses * size);
	const rules = [{ id: 'r', put: { variant: 'unit' } }];
	const project = projectOf(
		form,
		{ across: count(bays), up: count(courses) },
		{ rules },
		{ variants: [unit] }
	);
	const trims = Array.from({ length: (bays * courses) / 4 }, (_, k) => ({
		by: 'outline' as const,
		id: `t${k}`,
		within: 5,
		face: project.zones[0]!.faces[0]!.face,
		keep: 'outside' as const,
		outline: { shape: 'circle' as const, radius: 700 },
		at: [(2 * (k % (bays / 2)) + 1) * size, 0, (2 * Math.floor((2 * k) / bays) + 1) * size] as const,
		turn: 0,
		direction: [0, 1, 0] as const
	}));
	const masses = [{ ...project.masses[0]!, trims }];
	const whole = (await new Chain().run(project)).zones[0]!.model!;
	const cut = (await new Chain().run({ ...project, masses } as never)).zones[0]!.model!;
	const [{ group }] = whole.groups as [ClauseGroup];
	const { grid, cells, origin } = cut.faces[0]!;
	const clip = () => clipPieces(group.run, origin, (row) => keptSpace(grid, cells, row));
	if (clip().left.some((left) => left === 1)) throw new Error('a unit that is not clipped');
	note('clip-solids:1000', 1000, await time(clip, 5, 1));
}
/** Two thousand bars mitred at both ends, by hand and by the library of solids. */
async function endsOfBars(): Promise<void> {
	if (!wanted('ends:2000')) return;
	await loadSolids();
	const section = [
		[-25, -60],
		[25, -60],
		[25, 60],
		[-25, 60]
	] as [number, number][];
	const bar = meshOfSolid(solidLibrary().Manifold.extrude(section, 1500));
	const half = Math.SQRT1_2;
	const planes: Plane[] = [0, 1500].flatMap((z) =>
		[half, -half].map((x): Plane => ({ at: [0, 0, z], normal: [x, 0, z ? -half : half] }))
	);
	const byHand = () => {
		for (let k = 0; k < 2000; k++)
			planes.reduce<ClosedMesh>((left, plane) => aheadOfPlane(left, plane)!, bar);
	};
	const byLibrary = () => {
		for (let k = 0; k < 2000; k++) {
			let left = solidOf(bar);
			for (const { at, normal } of planes) {
				const next = left.trimByPlane([...normal], normal[2] * at[2]);
				left.delete();
				left = next;
			}
			meshOfSolid(left);
			left.delete();
		}
	};
	const [quick, library] = await timeBoth(byHand, byLibrary, 5);
	note('ends:2000', 2000, quick, { name: 'planes of manifold-3d', ms: library });
}
/** Fifty thousand cells of a vase by what is alike; against a map of rounded measures as texts, which splits near pairs. */
async function likeSetsOfCells(): Promise<void> {
	if (!wanted('likesets:50000')) return;
	const { cells, grid } = (await new Chain().run(projectOf(mass, counts(250, 200)))).zones[0]!.model!
		.faces[0]!;
	const all = Uint32Array.from({ length: cells.count }, (_, c) => c);
	const tolerance = 0.1;
	const ours = () => atOnce(likeSets(ringsOf(cells, grid.positions, all, 4), tolerance, false));
	const asTexts = () => {
		const rings = ringsOf(cells, grid.positions, all, 4);
		const found = new Map<string, number[]>();
		for (let ring = 0; ring < rings.count; ring++) {
			const values = Array.from(rings.values.subarray(12 * ring, 12 * (ring + 1)), (one) =>
				Math.round(one / tolerance)
			);
			const turned = [0, 1, 2, 3].map((turn) =>
				[0, 1, 2].flatMap((row) => [0, 1, 2, 3].map((k) => values[4 * row + ((k + turn) % 4)]!)).join(' ')
			);
			const name = turned.sort()[0]!;
			const known = found.get(name);
			if (known) known.push(ring);
			else found.set(name, [ring]);
		}
		return found;
	};
	if (asTexts().size < ours().sizes.length) throw new Error('texts find fewer kinds than there are');
	const [own, texts] = [await time(ours, 10, 2), await time(asTexts, 5, 1)];
	note('likesets:50000', cells.count, own, { name: 'a map of texts', ms: texts });
	// Drawn together until every cell has hundreds within the tolerance: the time goes up with the cells, not with the pairs.
	const close = grid.positions.map(
		(value, k) => value / 20 + 30 * Math.sin(grid.positions[k - (k % 3) + ((k + 1) % 3)]! / 3000)
	);
	const dense = () => atOnce(likeSets(ringsOf(cells, close, all, 4), 2, false));
	note('likesets:dense', cells.count, await time(dense, 5, 1), { name: 'cells further apart', ms: own });
}

/** All schedules of fifty thousand framed units as a workbook; against the same as CSV. */
async function workbook(): Promise<void> {
	if (!wanted('export:xlsx')) return;
	const unit = { id: 'unit', name: 'unit', part: 'framed-glass', values: {} };
	const rules = [{ id: 'all', put: { variant: 'unit', values: {} } }];
	const project = projectOf(mass, counts(250, 200), { rules }, { variants: [unit] });
	const of = {
		model: await new Chain().run(project),
		project,
		at: '2026-11-29T10:00:00',
		released: null,
		fonts: drawingFonts,
		packing: quickPacking
	};
	const write = async (group: string) => {
		for (const format of formats) if (format.group === group) await format.write(of);
	};
	const csv = await time(() => write('csv'), 1, 0);
	note('export:xlsx', 50_000, await time(() => write('xlsx'), 1, 0), { name: 'as CSV', ms: csv });
}

/** Fifty thousand framed units with a hundred thousand bars, from the columns that the page gets to what the card draws. */
async function scene(): Promise<void> {
	if (!wanted('scene:50000')) return;
	const unit = { id: 'unit', name: 'unit', part: 'framed-glass', values: {} };
	const bar = { id: 'bar', name: 'bar', part: 'box-mullion', values: {} };
	const rules = [{ id: 'all', put: { variant: 'unit', values: {} } }];
	const runs = [{ id: 'bars', lines: ['bay', 'course', 'rim'], variant: 'bar' }];
	const project = projectOf(mass, counts(250, 200), { rules, runs } as never, { variants: [unit, bar] });
	const { zones } = modelMessage(await new Chain().run(project), new Set(), 0);
	const [zone] = zones as [(typeof zones)[number]];
	const nothing = new Uint8Array(50_000);
	const held = () => {
		const { external, heapUsed } = process.memoryUsage();
		return (external + heapUsed) / 1e6;
	};
	let most = 0;
	const draw = () => {
		const before = held();
		const root = new THREE.Group();
		const cells = new CellLayer(root, false);
		for (const [f, face] of (zone.faces as FaceView[]).entries())
			cells.show(
				face,
				0,
				f,
				{ palette: ['#ffffff'], of: nothing },
				'clad',
				null,
				{ standing: nothing, covered: nothing, behind: false },
				{ kinds: [], lines: [] }
			);
		const pieces = new PieceLayer(root, 'full');
		for (const group of zone.groups as GroupView[]) pieces.show(group, 0, true, null);
		most = Math.max(most, held() - before);
	};
	const columns = new Set(
		(zone.groups as GroupView[]).flatMap(({ elements }) =>
			elements
				.flatMap(({ shape }) => (shape.is === 'placed' ? [shape.maps] : [shape.positions]))
				.map(({ buffer }) => buffer)
		)
	);
	const shared = [...columns].reduce((sum, { byteLength }) => sum + byteLength, 0) / 1e6;
	note('scene:50000', 50_000, await time(draw, 3, 1));
	console.log(
		`scene:50000: ${shared.toFixed(0)} MB of columns that are drawn as they came, ${most.toFixed(0)} MB at most beside them`
	);
}

/** Fifty thousand framed units with a hundred thousand bars as IFC and as GLB; two thousand as IFC against the writer of a library. */
async function building(): Promise<void> {
	if (!wanted('export:ifc') && !wanted('export:glb')) return;
	const unit = { id: 'unit', name: 'unit', part: 'framed-glass', values: {} };
	const bar = { id: 'bar', name: 'bar', part: 'box-mullion', values: {} };
	const rules = [{ id: 'all', put: { variant: 'unit', values: {} } }];
	const runs = [{ id: 'bars', lines: ['bay', 'course', 'rim'], variant: 'bar' }];
	const made = async (across: number, up: number) => {
		const project = projectOf(mass, counts(across, up), { rules, runs } as never, { variants: [unit, bar] });
		return new Chain().run(project);
	};
	const at = '2026-01-01T00:00:00';
	const model = await made(250, 200);
	if (wanted('export:ifc')) {
		let bytes = 0;
		const write = () => void (bytes = writeIfc(model, at).reduce((sum, { length }) => sum + length, 0));
		note('export:ifc', 50_000, await time(write, 1, 0));
		const most = process.resourceUsage().maxRSS / 1e3;
		console.log(
			`export:ifc: ${(bytes / 1e6).toFixed(0)} MB written, ${most.toFixed(0)} MB of memory at most`
		);
		const few = await made(50, 40);
		const api = new IfcAPI();
		await api.Init();
		const file = api.OpenModel(Buffer.concat(writeIfc(few, at)));
		const own = await time(() => void writeIfc({ ...few }, at), 5, 1);
		const theirs = await time(() => void api.SaveModel(file), 5, 1);
		api.CloseModel(file);
		note('export:ifc-2000', 2000, own, { name: 'web-ifc', ms: theirs });
	}
	if (wanted('export:glb')) {
		let bytes = 0;
		note('export:glb', 50_000, await time(() => void (bytes = writeGlb(model).length), 1, 0));
		console.log(`export:glb: ${(bytes / 1e6).toFixed(0)} MB written`);
	}
}

/** Five thousand flat plates as exact solids. */
async function plates(): Promise<void> {
	if (!wanted('export:step')) return;
	const plate = { id: 'plate', name: 'plate', part: 'flat-panel', values: {} };
	const rules = [{ id: 'all', put: { variant: 'plate', values: {} } }];
	const model = await new Chain().run(projectOf(mass, counts(100, 50), { rules }, { variants: [plate] }));
	let bytes = 0;
	const write = () =>
		void (bytes = writeStepSolids(model, '2026-01-01T00:00:00').reduce((sum, { length }) => sum + length, 0));
	note('export:step', 5000, await time(write, 3, 1));
	console.log(`export:step: ${(bytes / 1e6).toFixed(0)} MB written`);
}

/** What a release keeps of fifty thousand units, and two of them compared, of which one has a course less. */
async function releases(): Promise<void> {
	if (!wanted('release:50000') && !wanted('release:compare')) return;
	const unit = { id: 'unit', name: 'unit', part: 'framed-glass', values: {} };
	const rules = [{ id: 'all', put: { variant: 'unit', values: {} } }];
	const made = (up: number) =>
		new Chain().run(projectOf(mass, counts(250, up), { rules }, { variants: [unit] }));
	const model = await made(200);
	note('release:50000', 50_000, await time(() => releasedPieces({ ...model }), 3, 1));
	const [before, after] = [releasedPieces(await made(199)), releasedPieces(model)];
	note('release:compare', 50_000, await time(() => compareReleased(before, after), 3, 1));
}

/** Five thousand framed units round a vase: an elevation of them with hidden lines removed, and sheets of four hundred pieces as PDF. */
async function drawings(): Promise<void> {
	if (!wanted('drawing:elevation') && !wanted('drawing:sheets')) return;
	const unit = { id: 'unit', name: 'unit', part: 'framed-glass', values: {} };
	const rules = [{ id: 'all', put: { variant: 'unit', values: {} } }];
	const made = (across: number, up: number) =>
		new Chain().run(projectOf(mass, counts(across, up), { rules }, { variants: [unit] }));
	const units = await made(100, 50);
	const south = lookingAlong([0, 1, 0]);
	const scale = () => 1 / 50;
	note('drawing:elevation', 5000, await time(() => elevationOf(units, south, null, scale), 3, 1));
	const kinds = await made(4, 400);
	const fonts = await drawingFonts();
	const sheets = bookOf(kinds, '2026-11-29')
		.filter(({ group }) => group === 'pieces')
		.slice(0, 400);
	const pages = function* () {
		for (const one of sheets) yield* one.draw();
	};
	const pdf = () => writePdf('Sheets', [{ title: 'Pieces', pages: pages() }], fonts, '2026-11-29T10:00:00');
	note('drawing:sheets', sheets.length, await time(pdf, 1, 0));
}

/** Ten thousand pieces of a cone laid flat, which know together how their triangles are joined; and each by itself. */
async function unrolling(): Promise<void> {
	if (!wanted('unroll:10000')) return;
	const [bays, courses, facets] = [200, 50, 4];
	const triangles: number[] = [];
	for (let k = 0; k < facets; k++)
		triangles.push(k, k + 1, facets + 2 + k, k, facets + 2 + k, facets + 1 + k);
	const sides = Array.from({ length: bays * courses }, (_, cell) => {
		const points: number[] = [];
		for (const up of [0, 1])
			for (let k = 0; k <= facets; k++) {
				const t = (Math.floor(cell / bays) + up) / courses;
				const turn = (2 * Math.PI * ((cell % bays) + k / facets)) / bays;
				const r = 5000 - 2000 * t;
				points.push(r * Math.cos(turn), r * Math.sin(turn), 4000 * t);
			}
		return { points: Float64Array.from(points), triangles };
	});
	const areaOf = (list: typeof sides) => list.reduce((sum, side) => sum + flatPattern(side).area, 0);
	// Of the reference values: 112.397 m², less what facets are inside of the circle.
	if (Math.abs(areaOf(sides) / 1e6 - 112.397) > 0.001)
		throw new Error('pieces of a cone do not have its area');
	const apart = sides.map((side) => ({ ...side, triangles: [...triangles] }));
	note('unroll:10000', sides.length, await time(() => areaOf(sides), 9, 3), {
		name: 'each knows its own joints',
		ms: await time(() => areaOf(apart.map((side) => ({ ...side, triangles: [...side.triangles] }))), 3, 1)
	});
}

/** Ten thousand bars of all lengths cut from stock; against first fit decreasing as it is written down. */
async function pack(): Promise<void> {
	if (!wanted('pack:10000')) return;
	const lengths = Float64Array.from({ length: 10_000 }, (_, k) => 500 + ((k * 7919) % 3000));
	const plainly = () => {
		const rooms: number[] = [];
		for (const length of Array.from(lengths).sort((a, b) => b - a)) {
			const at = rooms.findIndex((room) => room >= length + 5);
			if (at < 0) rooms.push(6000 - length);
			else rooms[at]! -= length + 5;
		}
		return rooms.length;
	};
	const ours = () => cutLengths(lengths, 6000, 5).count;
	if (ours() > plainly()) throw new Error('more stock than first fit decreasing takes');
	note('pack:10000', 10_000, await time(ours, 10, 2), {
		name: 'first fit, looked for one by one',
		ms: await time(plainly, 5, 1)
	});
}

/** Cells made flat plainly: corners on the middle planes of their cells, nodes in the middle of those, again and again. */
function flattenPlainly({ start, corners, count }: Cells, positions: Float64Array, rounds: number): void {
	const sums = new Float64Array(positions.length);
	const shares = new Uint8Array(positions.length / 3);
	for (let round = 0; round < rounds; round++) {
		const { centre, normal } = measureCells({ start, corners, count, pierced: null } as Cells, positions);
		sums.fill(0);
		shares.fill(0);
		for (let c = 0; c < count; c++)
			for (let k = start[c]!; k < start[c + 1]!; k++) {
				const p = 3 * corners[k]!;
				let off = 0;
				for (let a = 0; a < 3; a++) off += normal[3 * c + a]! * (positions[p + a]! - centre[3 * c + a]!);
				for (let a = 0; a < 3; a++) sums[p + a]! += positions[p + a]! - off * normal[3 * c + a]!;
				shares[corners[k]!]!++;
			}
		for (let p = 0; p < positions.length; p++) {
			const n = shares[Math.floor(p / 3)]!;
			if (n) positions[p] = sums[p]! / n;
		}
	}
}

/** Nodes of a vase, shaken, moved until its cells are flat; and cells of a twisted wall brought to fewer kinds. */
async function movedNodes(): Promise<void> {
	if (!wanted('flatter:10000') && !wanted('fewer-kinds:2000')) return;
	const faceOf = async (bays: number, courses: number) => {
		const [face] = (await new Chain().run(projectOf(mass, counts(bays, courses)))).zones[0]!.model!.faces;
		const positions = face!.grid.positions.map((value, k) => value + 3 * Math.sin(1000 * k));
		return { ...face!, grid: { ...face!.grid, positions } };
	};
	const keeps = { rims: false };
	const findFor = (face: FaceModel, moves: object) =>
		atOnce(
			findMoves([face], movesSchema.parse({ id: 'm', keeps, ...moves }), likeSchema.parse({}), [], 'moves')
		);
	if (wanted('flatter:10000')) {
		const face = await faceOf(100, 100);
		const flat = () => findFor(face, { aim: 'flat', most: 30, within: 0.1 });
		if (flat().warped[1] > 0) throw new Error('cells stay warped');
		const plainly = await time(() => flattenPlainly(face.cells, face.grid.positions.slice(), 100), 3, 1);
		note('flatter:10000', 10_000, await time(flat, 3, 1), {
			name: '100 rounds of plain projection',
			ms: plainly
		});
	}
	if (wanted('fewer-kinds:2000')) {
		const face = await faceOf(50, 40);
		const alike = () => findFor(face, { aim: 'alike', most: 20 });
		const { kinds } = alike();
		if (kinds[1] >= kinds[0]) throw new Error(`${kinds[0]} kinds stay ${kinds[1]}`);
		const all = Uint32Array.from({ length: face.cells.count }, (_, c) => c);
		const once = () => atOnce(likeSets(ringsOf(face.cells, face.grid.positions, all, 4), 1, false));
		note('fewer-kinds:2000', 2000, await time(alike, 3, 1), {
			name: 'counting kinds',
			ms: await time(once, 5, 1)
		});
	}
}

/** Ten limits over a hundred thousand panes. */
async function limits(): Promise<void> {
	if (!wanted('limits:100000')) return;
	const [bays, courses] = [400, 250];
	const rules = [{ id: 'r', put: { variant: 'pane' } }];
	const variants = [{ id: 'pane', name: 'pane', part: 'flat-panel', values: { sheet: 'glass' } }];
	const project = projectOf(
		sheet(bays * 1500, courses * 1300),
		counts(bays, courses),
		{ rules },
		{ variants }
	);
	const { faces, groups } = (await new Chain().run(project)).zones[0]!.model!;
	const said = ['sheet.long', 'sheet.short', 'plate.warp', 'piece.mass', 'cell.area'].flatMap((of, k) =>
		(['most', 'least'] as const).map((than) => ({
			...shippedLimits[0]!,
			id: `${of} ${than}`,
			of,
			than,
			// About a hundredth of nothing goes beyond any of them.
			bound: than === 'least' ? -1 : [6000, 3210, 10, 800, 4e6][k]!
		}))
	);
	const measures = measuresFor([groups[0]!.group.ready.part], project);
	const all = () => {
		for (const { group, face } of groups) withLimits(said, measures, faces[face]!, { ...group });
	};
	note('limits:100000', bays * courses, await time(all, 20, 3));
}

/** Panels between mullions: beside them, so that all neighbours only touch; and every one of them reaching into four. */
async function clashes(): Promise<void> {
	if (!wanted('clash:20000')) return;
	const [bays, courses] = [100, 66];
	const panel = (joint: number) => ({
		id: 'panel',
		name: 'panel',
		part: 'flat-panel',
		values: { joint, thickness: 20 }
	});
	const bar = { id: 'bar', name: 'bar', part: 'box-mullion', values: { width: 60, back: 0 } };
	const rules = [{ id: 'r', put: { variant: 'panel' } }];
	const runs = [{ id: 'b', lines: ['bay', 'course', 'rim'], variant: 'bar' }];
	for (const [id, joint] of [
		['clash:20000', 30],
		['clash:20000:all', 8]
	] as const) {
		const form = sheet(bays * 1500, courses * 1300);
		const variants = [panel(joint), bar];
		const project = projectOf(form, counts(bays, courses), { rules, runs } as never, { variants });
		const model = await new Chain().run(project);
		const pieces = model.zones[0]!.model!.groups.reduce((sum, { group }) => sum + group.sites.length, 0);
		const found = (await findClashes(model, 2)).depth.length;
		if (found !== (joint === 30 ? 0 : 4 * bays * courses)) throw new Error(`${found} clashes`);
		note(id, pieces, await time(() => findClashes(model, 2), 5, 1));
	}
}
/**
 * A changed form, to buffers ready to draw, of 10,000 cells with all that a designer may ask of them: three kinds of
 * parts, five drivers, ten conditions, an opening.
 */
async function richChain(): Promise<void> {
	if (!wanted('chain:10000-rich') && !wanted('chain:10000-rich-simd')) return;
	const range = (field: string, at_least: number | null, at_most: number | null) => ({
		is: 'range',
		field,
		at_least,
		at_most
	});
	const follows = (field: string, from: number[], to: number[]) => ({ is: 'follows', field, from, to });
	const rules = [
		{
			id: 'low',
			where: {
				is: 'all',
				of: [range('height', null, 4000), range('area', 1, null), range('slope', 10, null)]
			},
			put: {
				variant: 'hood',
				values: { depth: follows('height', [0, 6000], [20, 60]) }
			}
		},
		{
			id: 'bays',
			where: {
				is: 'any',
				of: [
					{ is: 'every', step: 5, from: 1, by: 'bays' },
					{ is: 'chance', share: 0.1, seed: 3 },
					{ is: 'all', of: [range('facing', 80, 100), range('height', 6000, null)] }
				]
			},
			put: { variant: 'stack', values: { angle: follows('facing', [0, 360], [-30, 30]) } }
		},
		{
			id: 'rest',
			where: {
				is: 'all',
				of: [range('from_rim', 2, null), { is: 'kind', of: ['whole'] }, range('warp', null, 5000)]
			},
			put: {
				variant: 'fins',
				values: {
					depth: { is: 'alternates', values: [150, 250], by: 'bays' },
					angle: { is: 'chance', to: [-10, 10], seed: 1 },
					fins: follows('bay', [1, 125], [2, 4])
				}
			}
		},
		{ id: 'open', put: 'open' }
	];
	const part = (id: string, of: string) => ({ id, name: id, part: of, values: {} });
	const project = projectOf(mass, counts(125, 80), { rules } as never, {
		variants: [part('hood', 'folded-hood'), part('stack', 'blade-stack'), part('fins', 'upright-fins')]
	});
	const trims = [
		{
			by: 'outline',
			id: 'door',
			face: 'shell',
			outline: { shape: 'ellipse', width: 3000, depth: 4000 },
			at: [0, -30_000, 4500],
			direction: [0, 1, 0]
		}
	];
	const cut = readProject({ ...project, masses: [{ ...project.masses[0]!, trims }] });
	const changedBy = (chain: Chain) => {
		let run = 0;
		return async () => {
			const path = 'masses/m/form/profile/points/1/0';
			const changed = applyEdits(cut, [{ do: 'set', path, value: 4350 + ++run }]).project;
			const { problems, zones } = await chain.run(changed);
			const parts = new Set(zones[0]!.model!.groups.map(({ group }) => group.ready.part.id));
			if (problems.some(({ remark }) => !remark) || parts.size < 3) throw new Error(JSON.stringify(problems));
		};
	};
	const inOneLane: ProgramRunner = {
		abreast: 1,
		run: ({ program, column, count, origin, sheetOf }) =>
			runProgram(program, column, count, origin, columnLoops, sheetOf)
	};
	// A form that is being dragged: the engine has compiled what its first changes ran through.
	note('chain:10000-rich', 10_000, await time(changedBy(new Chain()), 41, 20));
	const [two, one] = await timeBoth(
		changedBy(new Chain()),
		changedBy(new Chain(new Files(), 0, inOneLane)),
		15
	);
	note('chain:10000-rich-simd', 10_000, two, { name: 'its parts in one lane', ms: one });
}

/** Ten rules of three conditions on 100,000 cells: which takes each, with fields that were read before. */
async function rules(): Promise<void> {
	if (!wanted('rules:100000')) return;
	const project = projectOf(mass, counts(400, 250));
	const face = (await new Chain().run(project)).zones[0]!.model!.faces[0]!;
	const range = (field: string, at_least: number | null, at_most: number | null): Condition => ({
		is: 'range',
		field,
		at_least,
		at_most
	});
	const ten = Array.from({ length: 10 }, (_, k): Rule => ({
		id: `r${k}`,
		muted: false,
		also: false,
		where: {
			is: k % 2 ? 'any' : 'all',
			of: [
				range('height', 200 * k, 20_000),
				range('area', 1000, 3e6 + k),
				k % 3 ? { is: 'every', step: k + 2, from: 1, by: 'cells' } : { is: 'kind', of: ['edge', 'cut'] }
			]
		},
		put: 'open'
	}));
	const around = {
		followed: NOTHING_FOLLOWED,
		levels: [],
		slots: face.slots,
		named: NOTHING_NAMED,
		suns: new Map()
	};
	const none = new Set<number>();
	const ms = await time(
		() => assignRules({ rules: ten, exceptions: [] }, face, none, around, () => null),
		15,
		15
	);
	note('rules:100000', 100_000, ms);
}
/** Five drivers on 100,000 cells: two that follow a field (one through a curve), two that alternate, one by chance. */
async function drivers(): Promise<void> {
	if (!wanted('driver:100000')) return;
	const face = (await new Chain().run(projectOf(mass, counts(400, 250)))).zones[0]!.model!.faces[0]!;
	const around = {
		followed: NOTHING_FOLLOWED,
		levels: [],
		slots: face.slots,
		named: NOTHING_NAMED,
		suns: new Map()
	};
	const asked = { over: 'cell' as const, count: 100_000, source: face, around };
	const input = { name: 'depth', label: 'Depth', kind: 'length', default: 1, scope: 'per piece' } as const;
	const follows = { is: 'follows', from: [0, 20_000], to: [100, 900], steps: null, outside: 'held' } as const;
	const five: SpelledDriver[] = [
		{ ...follows, field: 'height', from: [0, 20_000], to: [100, 900], curve: [] },
		{
			...follows,
			field: 'area',
			from: [0, 3e6],
			to: [900, 100],
			curve: [
				[0.2, 0.7],
				[0.6, 0.8]
			]
		},
		{ is: 'alternates', values: [100, 200], by: 'cells' },
		{ is: 'alternates', values: [100, 200, 300], by: 'bays' },
		{ is: 'chance', to: [0, 500], seed: 1 }
	];
	const all = Uint32Array.from({ length: 100_000 }, (_, c) => c);
	const ms = await time(() => five.map((one) => drive(one, input, 'length', asked, all)), 15, 15);
	note('driver:100000', 100_000, ms);
}
const counts = (across: number, up: number) => ({ across: count(across), up: count(up) });

async function main(): Promise<void> {
	machine('before');
	await loadSolids();
	await edit();
	await fiftyThousand();
	await longList();
	await weave();
	await clipSolids();
	await endsOfBars();
	await clashes();
	await limits();
	await likeSetsOfCells();
	await movedNodes();
	await pack();
	await workbook();
	await drawings();
	await unrolling();
	await scene();
	await building();
	await plates();
	await releases();
	await rules();
	await drivers();
	await richChain();
	if (wanted('sun:10000'))
		note('sun:10000', 10_000, sunOfAYear(), { name: 'three, ray by ray', ms: sunByRaycaster() }, 20_000);
	await importStep();
	await surface();
	await clip();
	await curvature();
	await facesSetOut();
	await dragNet();
	await kit();
	await block();
	await stages();
	await trusses();
	machine('after');
	const shown = results.filter(({ id }) => wanted(id) || id.startsWith('machine:'));
	if (values.json) {
		console.log(JSON.stringify(shown, null, 2));
		return;
	}
	console.table(
		Object.fromEntries(
			shown.map(({ id, cells, ms, triangles, ratio, against }) => [
				id,
				{ cells, ms, triangles: triangles ?? '', ratio: ratio ?? '', against: against ?? '' }
			])
		)
	);
}

void main();
