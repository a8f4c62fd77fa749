import { assignRules, NO_EXCEPTION, NO_RULE, type Assignment } from '../cladding/assign';
import { inChunks, type Chunk } from '../cladding/chunks';
import type { JoinedFaces } from '../cladding/join-rims';
import { readyVariant, type ReadyVariant } from '../cladding/kit';
import { edgesOfRuns } from '../cladding/line-run';
import type { ClauseGroup, FaceModel, ZoneModel } from '../cladding/model';
import { linesAt, nodesOfPlacings } from '../cladding/node-placings';
import { clad, type PieceGroup } from '../cladding/pieces';
import { refuseUnfit, type GridSite } from '../cladding/sites';
import { remarksOn, unfitExceptions } from '../cladding/unfit-exceptions';
import { surfaceArea } from '../geometry/surface';
import type { PartDefinition } from '../project/part-definition';
import type { Rule, Zone } from '../project/schema';
import type { Problem } from '../units/problem';
import { formatNumber } from '../units/quantity';
import type { Kept } from './memo';
import type { Run } from './stage';

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

/** The variants that a zone's clauses name, each made ready once. */
class Variants {
	private readonly ready = new Map<string, ReadyVariant>();

	constructor(private readonly run: Run) {}

	/** @param at the clause that names it @throws ProblemError */
	of(id: string, at: string): ReadyVariant {
		const known = this.ready.get(id) ?? readyVariant(this.run.project, id, at);
		this.ready.set(id, known);
		return known;
	}

	/** The part of one that hangs on sites of a kind. @throws ProblemError */
	partOn(kind: GridSite, id: string, at: string): PartDefinition {
		const { part } = this.of(id, at);
		refuseUnfit(part, kind, at);
		return part;
	}
}

/** What one clause puts on sites of a face. */
interface Placed {
	readonly clause: ClauseGroup['clause'];
	readonly over: GridSite;
	readonly variant: string;
	/** Formulas that set values piece by piece. */
	readonly values: Readonly<Record<string, string>>;
	readonly chunks: readonly Chunk[];
	/** The path of the clause. */
	readonly at: string;
	/** What is to be said of sites beside what their face says. */
	readonly said: ReadonlyMap<number, string>;
}

const NOTHING_SAID: ReadonlyMap<number, string> = new Map();

/** The parts that the rules, choices by hand, runs and node clauses of a zone put on its sites. @throws ProblemError */
export async function cladZone(run: Run, zone: Zone, joined: Kept<JoinedFaces>): Promise<ZoneModel> {
	const { memo, timed } = run;
	const at = `zones/${zone.id}`;
	const { faces, meetings } = joined.value;
	const variants = new Variants(run);
	const parts = zone.rules.map((rule) =>
		rule.put === 'open' ? null : variants.partOn('cell', rule.put.variant, `${at}/rules/${rule.id}`)
	);
	const { rules, exceptions } = zone;
	const assignments = faces.map(
		(face, f) =>
			memo.use(
				`assignment ${zone.id} ${f}`,
				[face.serial, rules, exceptions, parts.map((part) => part && part.anchor)],
				() =>
					timed('parts', () => {
						const left = new Set(face.slivers.put === 'open' ? face.slivers.cells : []);
						const partOf = (rule: Rule) => parts[rules.indexOf(rule)]!;
						return assignRules(zone, { ...face, left }, partOf);
					})
			).value
	);
	const remarks = faces.flatMap((face) => remarksOnFace(face, at));
	const groups: ClauseGroup[] = [];
	for (const [f, face] of faces.entries()) {
		const placed = timed('parts', () => [
			...onCells(zone, face, assignments[f]!, variants, remarks),
			...onLines(zone, face, variants),
			...onNodes(zone, face, variants)
		]);
		for (const [k, one] of placed.entries()) {
			const share = (part: number) => (f + (k + part) / placed.length) / faces.length;
			for (const group of await hang(run, zone, joined, f, one, variants, share)) groups.push(group);
		}
	}
	return { zone, faces, assignments, groups, meetings, remarks };
}

function onCells(
	zone: Zone,
	face: FaceModel,
	{ rule: taken, exception }: Assignment,
	variants: Variants,
	remarks: Problem[]
): Placed[] {
	const at = `zones/${zone.id}`;
	const { rules, exceptions } = zone;
	const { start } = face.cells;
	const unfit = unfitExceptions(zone, face, exception, (id) => variants.of(id, `${at}/exceptions`).part);
	const byRule = rules.map((): number[] => []);
	const byHand = exceptions.map((): number[] => []);
	for (let c = 0; c < taken.length; c++) {
		if (exception[c] !== NO_EXCEPTION && !unfit.has(c)) byHand[exception[c]!]!.push(c);
		else if (taken[c] !== NO_RULE) byRule[taken[c]!]!.push(c);
	}
	for (const [c, text] of unfit)
		if (taken[c] === NO_RULE || rules[taken[c]!]!.put === 'open')
			remarks.push({ at: `${at}/exceptions`, text: `${text}; it stays open`, remark: true });
	const placed = (
		clause: ClauseGroup['clause'],
		put: Rule['put'],
		cells: readonly number[],
		where: string
	) =>
		put === 'open' || !cells.length
			? []
			: [
					{
						clause,
						over: 'cell' as const,
						variant: put.variant,
						values: put.values,
						chunks: inChunks(cells, (c) => start[c + 1]! - start[c]!),
						at: where,
						said: unfit
					}
				];
	return [
		...rules.flatMap((rule, k) =>
			placed({ kind: 'rule', rule }, rule.put, byRule[k]!, `${at}/rules/${rule.id}`)
		),
		...exceptions.flatMap((one, k) =>
			placed({ kind: 'exception', id: one.id }, one.put, byHand[k]!, `${at}/exceptions`)
		)
	];
}

function onLines(zone: Zone, { edges, sharedEdges }: FaceModel, variants: Variants): Placed[] {
	return edgesOfRuns(zone.runs, edges, sharedEdges).map((lines, k): Placed => {
		const run = zone.runs[k]!;
		const at = `zones/${zone.id}/runs/${run.id}`;
		variants.partOn('line', run.variant, at);
		return {
			clause: { kind: 'run', run },
			over: 'line',
			variant: run.variant,
			values: {},
			chunks: inChunks(lines, () => 2),
			at,
			said: NOTHING_SAID
		};
	});
}

function onNodes(zone: Zone, face: FaceModel, variants: Variants): Placed[] {
	if (!zone.nodes.length) return [];
	const at = `zones/${zone.id}/nodes`;
	const nodes = face.nodes();
	const partOf = ({ id, variant }: Zone['nodes'][number]) => variants.partOn('node', variant, `${at}/${id}`);
	return nodesOfPlacings(zone.nodes, partOf, nodes, at).map((found, k): Placed => {
		const placing = zone.nodes[k]!;
		return {
			clause: { kind: 'nodes', placing },
			over: 'node',
			variant: placing.variant,
			values: placing.values,
			chunks: inChunks(found, (n) => linesAt(nodes, n)),
			at: `${at}/${placing.id}`,
			said: NOTHING_SAID
		};
	});
}

/**
 * Hang what a clause puts on a face, chunk by chunk.
 * @param share of the zone that is done when so much of the clause is
 */
async function hang(
	run: Run,
	zone: Zone,
	{ value: { faces } }: Kept<JoinedFaces>,
	f: number,
	{ clause, over, variant, values, chunks, at, said }: Placed,
	variants: Variants,
	share: (part: number) => number
): Promise<ClauseGroup[]> {
	const face = faces[f]!;
	const ready = variants.of(variant, at);
	// Nodes of a face have lines of the others too.
	const serials = over === 'node' ? faces.map(({ serial }) => serial) : [face.serial];
	const name = clause.kind === 'exception' ? `${at}/${clause.id}` : at;
	const groups: ClauseGroup[] = [];
	for (const { corners, number, sites } of chunks) {
		const own = remarksOn(sites, said);
		const told = own.size ? { ...face, remarks: new Map([...face.remarks, ...own]) } : face;
		const kept: Kept<PieceGroup> = run.memo.use(
			`${zone.id} ${f} ${name} ${corners} ${number}`,
			[serials, sites, ready.variant, ready.definitions, ready.materials, values, [...own]],
			() => run.timed('parts', () => clad(ready, told, { over, sites, corners }, values, at))
		);
		groups.push({ clause, face: f, group: kept.value, serial: kept.serial });
		await run.pause(share(groups.length / chunks.length));
	}
	return groups;
}
