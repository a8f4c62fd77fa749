import { assignRules, NO_RULE } from '../cladding/assign';
import { remarksOn, unfitExceptions } from '../cladding/unfit-exceptions';
import { readyVariant, type ReadyVariant, usesBlocks } from '../cladding/kit';
import { loadSolids } from '../part/block/solids';
import { joinRims, type JoinedFaces } from '../cladding/join-rims';
import { edgesOfRuns } from '../cladding/line-run';
import { cladCells, cladLines, edgeFrames } from '../cladding/pieces';
import { guidesOfDepth, layerOf } from '../grid/layer';
import { meetingRims } from '../grid/meeting-rims';
import type { NodeGrid } from '../grid/node-grid';
import { stripShares } from '../grid/spacing';
import { followsLevels, guidesOf, setOut, type Following } from '../grid/set-out';
import { surfaceArea } from '../geometry/surface';
import type { Vector } from '../geometry/vector';
import { guidePoints } from '../mass/guides';
import { massAtLevels, massFaces } from '../mass/faces';
import { faceAddress, type Face } from '../mass/face';
import { bareArea } from '../measure/bare-area';
import { measureCells } from '../measure/cell-measures';
import { centresOnFace } from '../measure/face-centres';
import { trimmedArea } from '../measure/trimmed';
import { countUsedNodes, makeEdges } from '../pattern/edges';
import { guidesOfPattern, hangsOnPlaces, layCells, slotNames } from '../pattern/lay-cells';
import { withoutSlivers } from '../pattern/slivers';
import { Files } from '../project/files';
import type { Project, Rule, Zone } from '../project/schema';
import { formatNumber, formatQuantity } from '../units/quantity';
import { ProblemError, refuse, type Problem } from '../units/problem';
import { Memo, type Kept } from './memo';
import {
	stageNames,
	type ClauseGroup,
	type FaceModel,
	type MassState,
	type Model,
	type StageName,
	type ZoneModel,
	type ZoneState
} from '../cladding/model';

export interface ChainHooks {
	/** Called between steps with what comes next; await it to let the outside in. */
	step?(what: string, done: number, of: number): void | Promise<void>;
	/** Cells of all zones stand; pieces are still to come. */
	cells?(zones: readonly (readonly FaceModel[])[]): void;
}

/** Thrown out of a hook to give a run up; the results so far are kept. */
export class Cancelled extends Error {}

type Put = Rule['put'];

/** A face of a zone, with its mass and what it is kept under. */
interface FaceOfZone {
	readonly face: Face;
	readonly mass: string;
	readonly slot: string;
}

const now = () => performance.now();

function once<T>(make: () => T): () => T {
	let made: { value: T } | null = null;
	return () => (made ??= { value: make() }).value;
}

function keepOnly(map: Map<string, unknown>, things: readonly { readonly id: string }[]): void {
	const ids = new Set(things.map((thing) => thing.id));
	for (const id of map.keys()) if (!ids.has(id)) map.delete(id);
}

/**
 * A case that no stage has a sentence for: the clause says so, the last good model of it stays, and everything else
 * goes on.
 */
function unforeseen(error: unknown, at: string): Problem {
	const what = error instanceof Error ? error.message : String(error);
	return { at, text: `this cannot be made: the program met a case that it does not know (${what})` };
}

/** A code like another that no zone has. */
function freeCode(code: string, { zones }: Project): string {
	const base = code.replace(/\d+$/, '').slice(0, 4);
	const taken = new Set(zones.map((zone) => zone.code));
	for (let n = 2; ; n++) if (!taken.has(`${base}${n}`)) return `${base}${n}`;
}

/** All of a grid that its cells depend on, but for places. */
function topologyOf({ across, up, poles, rims, absent }: NodeGrid): string {
	const rows = rims && [[...rims.foot], [...rims.head]];
	const strips = [stripShares(across.division), stripShares(up.division)];
	return JSON.stringify([
		[across.steps, across.closed, up.steps, up.closed],
		poles,
		rows,
		strips,
		absent && [...absent]
	]);
}

/** What is to be known of how a face was set out: rims that its net does not reach, a layer that crosses itself. */
function remarksOnFace({ bare, face, layer }: FaceModel, at: string): Problem[] {
	const said = (area: number) => formatNumber(area / 1e6, 1);
	const remarks: Problem[] = [];
	if (bare) {
		const whole = surfaceArea(face.surface);
		remarks.push({
			at: `${at}/settingOut/along`,
			text: `the net of equal chords covers ${said(whole - bare)} of ${said(whole)} m² of ${face.name}; ${said(bare)} m² along its rims stay bare. Measured another way, cells reach every rim`,
			remark: true
		});
	}
	if (layer?.crossed.length)
		remarks.push({
			at: `${at}/layer`,
			text: `the layer crosses itself in ${formatNumber(layer.crossed.length)} steps of ${face.name}: the face bends with a radius down to ${formatNumber(Math.round(layer.radius))} mm there; a depth of less works everywhere`,
			remark: true
		});
	return remarks;
}

/** What is said of cells that are smaller than the zone wants. */
function sliverRemarks(
	{ cells, put }: FaceModel['slivers'],
	area: Float64Array
): ReadonlyMap<number, string> {
	if (put === 'open') return new Map();
	return new Map(
		Array.from(cells, (c) => [
			c,
			`a sliver of ${formatQuantity(area[c]!, 'area')}, smaller than the zone wants`
		])
	);
}

/** Eight hex digits of a list of numbers, to tell lists of cells apart (FNV-1a). */
function fingerprint(list: Uint32Array): string {
	let hash = 0x811c9dc5;
	for (const n of list) hash = Math.imul(hash ^ n, 0x01000193);
	return `${list.length}:${(hash >>> 0).toString(16)}`;
}

/**
 * The one chain from the project to its pieces, kept between runs: each stage is a pure function whose
 * result is used again while its inputs stay the same. A zone that cannot be made keeps its last good model.
 */
export class Chain {
	private readonly memo: Memo;
	private readonly lastGood = new Map<string, ZoneModel>();
	private readonly lastFaces = new Map<string, Kept<Face[]>>();
	private ms = {} as Record<StageName, number>;

	/**
	 * @param files where large values of its projects lie
	 * @param serials given out already, by a chain whose place this one takes: what they named stays apart
	 */
	constructor(
		private readonly files = new Files(),
		serials = 0
	) {
		this.memo = new Memo(serials);
		this.cellSerial = serials;
	}

	/** @param kept the project, whole or naming files */
	async run(kept: Project, hooks: ChainHooks = {}): Promise<Model> {
		// Masses are made whole where they are computed: until then their files' names say all there is to know.
		const project = { ...kept, parts: this.files.wholeList(kept.parts) };
		this.ms = Object.fromEntries(stageNames.map((name) => [name, 0])) as Record<StageName, number>;
		this.memo.startRun();
		if (usesBlocks(project)) await loadSolids();
		const problems: Problem[] = [];
		const total = 2 * project.zones.length;
		const collect = <T>(at: string, act: () => T): T | null => {
			try {
				return act();
			} catch (error) {
				const { problem } = error instanceof ProblemError ? error : { problem: unforeseen(error, at) };
				if (!problems.some((known) => known.at === problem.at && known.text === problem.text))
					problems.push(problem);
				return null;
			}
		};
		const masses = project.masses.map((mass): MassState => {
			const made = collect(`masses/${mass.id}`, () => this.faces(project, mass.id, `masses/${mass.id}`));
			const kept = made ?? this.lastFaces.get(mass.id) ?? { value: [], serial: 0 };
			this.lastFaces.set(mass.id, kept);
			return { id: mass.id, faces: kept.value, serial: kept.serial, behind: !made };
		});

		const laidOut: (JoinedFaces | null)[] = [];
		for (const [k, zone] of project.zones.entries()) {
			await hooks.step?.(`Setting out ${zone.name}`, k, total);
			laidOut.push(collect(`zones/${zone.id}`, () => this.layOut(project, zone)));
		}
		hooks.cells?.(laidOut.flatMap((one) => (one ? [one.faces] : [])));

		const zones: ZoneState[] = [];
		for (const [k, zone] of project.zones.entries()) {
			await hooks.step?.(`Cladding ${zone.name}`, project.zones.length + k, total);
			const laid = laidOut[k];
			const clad = (faces: JoinedFaces) => this.timed('parts', () => this.clad(project, zone, faces));
			const made = laid ? collect(`zones/${zone.id}`, () => clad(laid)) : null;
			if (made) {
				this.lastGood.set(zone.id, made);
				problems.push(...made.remarks);
			}
			zones.push({ id: zone.id, model: made ?? this.lastGood.get(zone.id) ?? null, behind: !made });
		}
		keepOnly(this.lastGood, project.zones);
		keepOnly(this.lastFaces, project.masses);
		const guides = new Map(
			project.guides.flatMap(({ id }) => [
				...(collect(`guides/${id}`, () => this.guides(project, [id])) ?? [])
			])
		);
		this.memo.forgetUnused();
		return { project, masses, zones, guides, problems, ms: this.ms };
	}

	private timed<T>(stage: StageName, act: () => T): T {
		const start = now();
		try {
			return act();
		} finally {
			this.ms[stage] += now() - start;
		}
	}

	private faces(project: Project, massId: string, at: string): Kept<Face[]> {
		const mass = project.masses.find((one) => one.id === massId);
		if (!mass) {
			const known = project.masses.map((one) => one.id).join(', ') || 'none yet';
			return refuse(at, `the mass "${massId}" does not exist; known: ${known}`);
		}
		const fixed = massAtLevels(mass, project.levels);
		return this.memo.use(`mass ${mass.id}`, JSON.stringify(fixed), () =>
			this.timed('surface', () => massFaces(this.files.whole(fixed)))
		);
	}

	/** The guides of some names, as points; names that are not there are left out. */
	private guides(project: Project, ids: readonly string[]): ReadonlyMap<string, readonly Vector[]> {
		const found = new Map<string, readonly Vector[]>();
		for (const guide of project.guides) {
			if (!ids.includes(guide.id)) continue;
			const faces = guide.on === 'map' ? this.faces(project, guide.mass, `guides/${guide.id}`) : null;
			const points = this.memo.use(`guide ${guide.id}`, JSON.stringify([guide, faces?.serial]), () =>
				guidePoints(guide, (_, name) => faces?.value.find((one) => one.name === name))
			);
			found.set(guide.id, points.value);
		}
		return found;
	}

	private layOut(project: Project, zone: Zone): JoinedFaces {
		const at = `zones/${zone.id}`;
		if (zone.faces.length === 0) refuse(`${at}/faces`, `${zone.name} has no faces yet; choose at least one`);
		const namesake = project.zones.find(({ code }) => code === zone.code)!;
		if (namesake !== zone)
			refuse(
				`${at}/code`,
				`${zone.code} is the code of ${namesake.name} already; every zone has its own, since marks begin with it`,
				[freeCode(zone.code, project)].map((value) => ({ label: value, path: `${at}/code`, value }))
			);
		const follow = {
			levels: followsLevels(zone.settingOut) ? project.levels : [],
			guides: this.guides(project, [...guidesOf(zone.settingOut), ...guidesOfPattern(zone.pattern)])
		};
		const named = zone.faces.map(({ mass, face }) => `${mass} ${face}`);
		const twice = zone.faces.find((_, k) => named.indexOf(named[k]!) < k);
		if (twice)
			refuse(`${at}/faces`, `the face "${twice.face}" of "${twice.mass}" is in the zone twice; take one out`);
		const found = zone.faces.map((wanted): FaceOfZone => {
			const faces = this.faces(project, wanted.mass, `${at}/faces`);
			const face = faces.value.find((one) => one.name === wanted.face);
			if (!face)
				return refuse(
					`${at}/faces`,
					`the mass "${wanted.mass}" has no face "${wanted.face}"; it has ${faces.value.map((one) => one.name).join(', ')}`
				);
			return { face, mass: wanted.mass, slot: `${zone.id} ${face.name} ${faces.serial}` };
		});
		const grids = this.grids(zone, found, follow);
		const laid = found.map((one, k) => this.layOutFace(zone, one, grids[k]!, follow, project));
		return this.memo.use(`rims ${zone.id}`, laid.map(({ serial }) => serial).join(' '), () =>
			this.timed('cells', () => joinRims(laid, () => ++this.cellSerial))
		).value;
	}

	/** The faces of a zone set out, each by itself, then anew where they have to meet others. */
	private grids(zone: Zone, faces: readonly FaceOfZone[], follow: Following): Kept<NodeGrid>[] {
		const at = `zones/${zone.id}/settingOut`;
		const { settingOut } = zone;
		const inputs = JSON.stringify([settingOut, follow.levels, [...follow.guides]]);
		const alone = faces.map(({ face, slot }) =>
			this.memo.use(`grid ${slot}`, inputs, () =>
				this.timed('grid', () => setOut(face, settingOut, at, follow))
			)
		);
		if (faces.length < 2) return alone;
		const rims = this.memo.use(`meeting rims ${zone.id}`, alone.map(({ serial }) => serial).join(' '), () =>
			this.timed('grid', () =>
				meetingRims(
					faces.map(({ face }, k) => ({ face, grid: alone[k]!.value })),
					settingOut
				)
			)
		);
		return alone.map((grid, k) => {
			const [{ face, slot }, wanted] = [faces[k]!, rims.value[k]];
			if (!wanted) return grid;
			return this.memo.use(`meeting grid ${slot}`, `${grid.serial} ${rims.serial}`, () =>
				this.timed('grid', () => setOut(face, settingOut, at, follow, wanted))
			);
		});
	}

	private layOutFace(
		zone: Zone,
		{ face, mass, slot }: FaceOfZone,
		grid: Kept<NodeGrid>,
		follow: Following,
		project: Project
	): FaceModel {
		const at = `zones/${zone.id}`;
		const area = this.memo.use(`area ${slot}`, '', () =>
			once(() => (face.trims.length ? trimmedArea(face) : surfaceArea(face.surface)))
		);
		const { tiles } = project;
		const pattern = JSON.stringify([
			zone.pattern,
			zone.slivers,
			zone.pattern.kind === 'tile' ? tiles : [],
			[...follow.guides]
		]);
		const places = hangsOnPlaces(face, zone.pattern, tiles, at) || zone.slivers !== null;
		// Which nodes make a cell hangs on counts alone, unless the pattern looks at places or adds nodes.
		const counts = places ? String(grid.serial) : topologyOf(grid.value);
		const topology = this.memo.use(`topology ${zone.id} ${mass} ${face.name}`, `${counts} ${pattern}`, () =>
			this.timed('cells', () => {
				const laid = layCells(face, grid.value, zone.pattern, { tiles, guides: follow.guides }, at);
				if (laid.cells.count === 0)
					refuse(
						`${at}/pattern`,
						'the pattern leaves no cell on this face; take smaller steps, or another pattern'
					);
				const { cells, slivers } = withoutSlivers(laid.cells, laid.grid, zone.slivers);
				return {
					nodes: places ? laid.grid : null,
					cells,
					slivers,
					edges: makeEdges(laid.grid, cells),
					usedNodes: countUsedNodes(laid.grid, cells)
				};
			})
		);
		const layer = zone.layer;
		const known = project.guides.map(({ id }) => id);
		const driving = layer ? guidesOfDepth(layer.depth, known) : [];
		const lines = this.guides(project, driving);
		return this.memo.use(
			`cells ${slot}`,
			`${grid.serial} ${topology.serial} ${JSON.stringify([layer, [...lines]])}`,
			() => {
				const { cells, edges, usedNodes, slivers } = topology.value;
				const nodes = topology.value.nodes ?? grid.value;
				const { positions } = nodes;
				const measured = this.timed('measures', () => {
					const measures = measureCells(cells, positions);
					return { measures, frames: edgeFrames(edges, measures.normal) };
				});
				const origin = [0, 1, 2].map((k) => Math.round(positions[k]!)) as [number, number, number];
				return {
					face,
					address: faceAddress(mass, face.name),
					area: area.value,
					bare: zone.settingOut.along === 'equal chords' ? bareArea(face.surface, grid.value) : 0,
					grid: nodes,
					centresOnFace: once(() => centresOnFace(face.surface, nodes, cells, measured.measures.centre)),
					joint: zone.settingOut.joint,
					remarks: sliverRemarks(slivers, measured.measures.area),
					slots: slotNames(zone.pattern, tiles, at),
					cells,
					slivers,
					layer: layer ? layerOf(face.surface, grid.value, layer, lines, `${at}/layer`) : null,
					edges,
					sharedEdges: null,
					usedNodes,
					measures: measured.measures,
					edgeNormals: measured.frames.normal,
					folds: measured.frames.fold,
					origin,
					serial: ++this.cellSerial
				};
			}
		).value;
	}
	private cellSerial: number;

	private clad(project: Project, zone: Zone, { faces, meetings }: JoinedFaces): ZoneModel {
		const at = `zones/${zone.id}`;
		const ready = new Map<string, ReadyVariant>();
		const variantOf = (id: string, clause: string) => {
			const known = ready.get(id) ?? readyVariant(project, id, clause);
			ready.set(id, known);
			return known;
		};
		for (const rule of zone.rules)
			if (rule.put !== 'open') {
				const { part } = variantOf(rule.put.variant, `${at}/rules/${rule.id}`);
				if (part.anchor.kind !== 'ring' && part.anchor.kind !== 'double ring')
					refuse(
						`${at}/rules/${rule.id}`,
						`${part.label} hangs on a ${part.anchor.kind}, not on cells; choose a panel or a louver here`
					);
			}
		const partOf = (rule: Rule) =>
			rule.put === 'open' ? null : variantOf(rule.put.variant, `${at}/rules/${rule.id}`).part;

		const assignments = faces.map((face) => {
			const left = new Set(face.slivers.put === 'open' ? face.slivers.cells : []);
			return assignRules(zone, { ...face, left }, partOf);
		});
		const groups: ClauseGroup[] = [];
		const remarks = faces.flatMap((face) => remarksOnFace(face, at));
		faces.forEach((face, f) => {
			const assignment = assignments[f]!;
			const unfit = unfitExceptions(zone, face, assignment, (id) => variantOf(id, `${at}/exceptions`).part);
			for (const [c, text] of unfit)
				if (assignment.rule[c] === NO_RULE || zone.rules[assignment.rule[c]!]!.put === 'open')
					remarks.push({ at: `${at}/exceptions`, text: `${text}; it stays open`, remark: true });
			const put = (what: Put, cells: readonly number[], clause: ClauseGroup['clause'], where: string) => {
				if (what === 'open') return;
				const variant = variantOf(what.variant, where);
				for (const [corners, anchors] of byCorners(face, cells)) {
					const slot = `${zone.id} ${f} ${where} ${corners}`;
					const said = remarksOn(anchors, unfit);
					const key = `${face.serial} ${fingerprint(anchors)} ${JSON.stringify([variant.variant, variant.definitions, variant.materials, what.values, [...said]])}`;
					const told = said.size ? { ...face, remarks: new Map([...face.remarks, ...said]) } : face;
					const kept = this.memo.use(slot, key, () =>
						cladCells(variant, told, anchors, corners, what.values, where)
					);
					groups.push({ clause, face: f, group: kept.value, serial: kept.serial });
				}
			};
			zone.rules.forEach((rule, k) => {
				const isRuled = (c: number) => assignment.exception[c] === -1 || unfit.has(c);
				const cells = listWhere(assignment.rule, (r, c) => r === k && isRuled(c));
				put(rule.put, cells, { kind: 'rule', rule }, `${at}/rules/${rule.id}`);
			});
			zone.exceptions.forEach((exception, k) => {
				const cells = listWhere(assignment.exception, (x, c) => x === k && !unfit.has(c));
				put(exception.put, cells, { kind: 'exception', address: exception.id }, `${at}/exceptions`);
			});
			edgesOfRuns(zone.runs, face.edges, face.sharedEdges).forEach((anchors, k) => {
				const run = zone.runs[k]!;
				const where = `${at}/runs/${run.id}`;
				const variant = variantOf(run.variant, where);
				if (variant.part.anchor.kind !== 'pair')
					refuse(where, `${variant.part.label} hangs on cells, not on lines; choose a mullion here`);
				const key = `${face.serial} ${fingerprint(anchors)} ${JSON.stringify([variant.variant, variant.definitions, variant.materials])}`;
				const frames = { normal: face.edgeNormals, fold: face.folds };
				const kept = this.memo.use(`${zone.id} ${f} ${where}`, key, () =>
					cladLines(variant, face, face.edges, frames, anchors, where)
				);
				groups.push({ clause: { kind: 'run', run }, face: f, group: kept.value, serial: kept.serial });
			});
		});
		return { zone, faces, assignments, groups, meetings, remarks };
	}
}

function listWhere(column: Int32Array, wanted: (value: number, index: number) => boolean): number[] {
	const found: number[] = [];
	for (let c = 0; c < column.length; c++) if (wanted(column[c]!, c)) found.push(c);
	return found;
}

/** Cells sorted by how many corners they have, each list in building order. */
function byCorners(face: FaceModel, cells: readonly number[]): [number, Uint32Array][] {
	const lists = new Map<number, number[]>();
	for (const c of cells) {
		const corners = face.cells.start[c + 1]! - face.cells.start[c]!;
		const list = lists.get(corners);
		if (list) list.push(c);
		else lists.set(corners, [c]);
	}
	return [...lists].map(([corners, list]) => [corners, Uint32Array.from(list)]);
}
