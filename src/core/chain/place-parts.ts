import { inChunks, type Chunk } from '../cladding/chunks';
import { joinLines, type JoinedLines, type Joining } from '../cladding/join-lines';
import { readyVariant, type ReadyVariant } from '../cladding/kit';
import type { Ends } from '../cladding/cut-ends';
import { edgesOfRuns } from '../cladding/line-run';
import type { ClauseGroup, FaceModel } from '../cladding/model';
import { linesAt, nodesOfPlacings } from '../cladding/node-placings';
import { hangsOn, refuseUnfit, type GridSite } from '../cladding/sites';
import { SAME_POINT } from '../geometry/tolerance';
import type { Driver } from '../project/driver-schema';
import type { PartDefinition } from '../project/part-definition';
import type { Rule, SaidLie, Zone } from '../project/schema';
import { pathTo } from '../project/typed-path';
import { refuse, type Problem } from '../units/problem';
import { formatNumber } from '../units/quantity';
import { asks } from './asking';
import { variantsOn, type AssignedCells, type CellChunks } from './assign-cells';
import type { Kept } from './memo';
import type { Run } from './stage';

/** The variants that a zone's clauses name, made ready once for as long as they stay as they are. */
export class Variants {
	constructor(private readonly run: Run) {}

	/** @param at the clause that names it @throws ProblemError */
	of(id: string, at: string): Kept<ReadyVariant> {
		const { project, memo } = this.run;
		const variant = project.variants.find((one) => one.id === id);
		return memo.use(['variant', id], [variant, project.parts, project.materials], () =>
			readyVariant(project, id, at)
		);
	}

	/** The part of one that hangs on sites of a kind. @throws ProblemError */
	partOn(kind: GridSite, id: string, at: string): PartDefinition {
		const { part } = this.of(id, at).value;
		refuseUnfit(part, kind, at);
		return part;
	}
}

/** What one clause puts on sites of a face. */
export interface Placed {
	readonly clause: ClauseGroup['clause'];
	readonly over: GridSite;
	readonly variant: string;
	/** What sets values piece by piece. */
	readonly values: Readonly<Record<string, Driver>>;
	/** How the part lies on its sites. */
	readonly lie: SaidLie;
	readonly chunks: readonly Chunk[];
	/** Made for whole cells and cut as trims cut them. */
	readonly clips: boolean;
	/** What its pieces are kept under: unlike that of every other. */
	readonly slot: string;
	/** The path of the clause, and of what it puts there. */
	readonly at: string;
	readonly putAt: string;
	/** What is to be said of sites beside what their face says. */
	readonly said: ReadonlyMap<number, string>;
	/** Lines of a run that are joined to longer bars. */
	readonly joined?: JoinedLines;
	/** How bars of a run end, and where they meet. */
	readonly ends?: { readonly how: Ends; readonly bars: readonly (readonly number[])[] };
}

/** What parts on lines, chains and nodes have in common: they lie as they are drawn, and no trim clips them. */
const AS_IT_COMES = { lie: {}, clips: false, said: new Map<number, string>() } as const;

export function onCells(
	zone: Zone,
	{ byRule, byHand, adjusted, unfit }: AssignedCells,
	variants: Variants
): Placed[] {
	const at = pathTo('zones', zone.id);
	const placed = (
		clause: ClauseGroup['clause'],
		put: Rule['put'],
		{ made, clipped }: CellChunks,
		where: string,
		own: string
	): Placed[] => {
		if (put === 'open') return [];
		const { variant, values, turn, flip, mirror } = put;
		const lie = said({ turn, flip, mirror });
		const putAt = `${own}/put`;
		const shared = { clause, over: 'cell', variant, values, lie, at: where, putAt, said: unfit } as const;
		return [
			...(made.length ? [{ ...shared, chunks: made, clips: false, slot: own }] : []),
			...(clipped.length ? [{ ...shared, chunks: clipped, clips: true, slot: `${own} clipped` }] : [])
		];
	};
	const byHandAt = (id: string) => `${at}/exceptions/${id}`;
	return [
		...zone.rules.flatMap((rule, k) => {
			const own = `${at}/rules/${rule.id}`;
			return placed({ kind: 'rule', rule }, rule.put, byRule[k]!, own, own);
		}),
		...zone.exceptions.flatMap(({ id, put }, k) =>
			put !== 'open' && 'as' in put
				? []
				: placed({ kind: 'exception', id }, put, byHand[k]!, `${at}/exceptions`, byHandAt(id))
		),
		...adjusted.flatMap(({ rule: k, exception, chunks }) => {
			const rule = zone.rules[k]!;
			const { id, put } = zone.exceptions[exception]!;
			if (rule.put === 'open' || put === 'open' || !('as' in put)) return [];
			const { values, turn, flip, mirror } = put;
			const lie = said({ turn, flip, mirror });
			// What the part of this rule has no use for was set for others.
			const { inputs } = variants.of(rule.put.variant, `${at}/rules/${rule.id}`).value.part;
			const own = Object.entries(values).filter(([name]) =>
				inputs.some((input) => input.name === name && input.scope === 'per piece')
			);
			const both = { ...rule.put, ...lie, values: { ...rule.put.values, ...Object.fromEntries(own) } };
			return placed({ kind: 'rule', rule }, both, chunks, `${at}/exceptions`, byHandAt(id)).map((one) => ({
				...one,
				slot: `${one.slot} ${rule.id}`
			}));
		})
	];
}

export function onLines(
	run: Run,
	zone: Zone,
	face: FaceModel,
	cells: AssignedCells,
	variants: Variants
): Placed[] {
	const held = asks(run, 'line', zone.runs, face, variantsOn(zone, cells));
	const runs = zone.runs.filter(({ over }) => over === 'lines');
	return edgesOfRuns(runs, face.edges, face.sharedEdges, held).map((lines, k): Placed => {
		const run = runs[k]!;
		const at = pathTo('zones', zone.id, 'runs', run.id);
		variants.partOn('line', run.variant, at);
		if (run.ends?.is === 'set back' && !(run.ends.by >= 0))
			refuse(
				`${at}/ends/by`,
				`ends set back by ${run.ends.by} mm would overrun the node; 0 mm or more is accepted`
			);
		const joined = run.joined && joinedLines(face, lines, run.joined, at);
		return {
			clause: { kind: 'run', run },
			over: 'line',
			variant: run.variant,
			values: run.values,
			slot: at,
			chunks: inChunks(joined ? joined.bars.map(([first]) => first!) : lines, () => 2),
			at,
			putAt: at,
			...AS_IT_COMES,
			...(joined && { joined }),
			...(run.ends && { ends: { how: run.ends, bars: joined?.bars ?? lines.map((line) => [line]) } })
		};
	});
}

/** @throws ProblemError for a stock that no line fits */
function joinedLines(
	{ edges, grid }: FaceModel,
	lines: readonly number[],
	how: Joining,
	at: string
): JoinedLines {
	if (!(how.stock > 0))
		refuse(`${at}/joined/stock`, `bars of ${how.stock} mm cannot be cut; a length above 0 mm is accepted`);
	return joinLines(edges, grid.positions, lines, how);
}

/** What is to be said of lines that are longer than the bars they are cut from. */
export function remarkOnStock({ at, joined }: Placed): Problem[] {
	if (!joined?.tooLong.length) return [];
	const { tooLong } = joined;
	const longest = formatNumber(Math.ceil(Math.max(...tooLong) - SAME_POINT));
	const lines = tooLong.length === 1 ? 'One line is' : `${formatNumber(tooLong.length)} lines are`;
	return [
		{
			at: `${at}/joined/stock`,
			text: `${lines} longer than the stock; bars of ${longest} mm would do`,
			remark: true
		}
	];
}

export function onChains(zone: Zone, { chains }: FaceModel, variants: Variants): Placed[] {
	const pointsOf = (k: number) => chains.start[k + 1]! - chains.start[k]!;
	return zone.runs
		.filter(({ over }) => over === 'chains')
		.map((run): Placed => {
			const at = pathTo('zones', zone.id, 'runs', run.id);
			const part = variants.partOn('chain', run.variant, at);
			const all = run.muted ? [] : Array.from({ length: chains.start.length - 1 }, (_, k) => k);
			const unfit = all.find((k) => !hangsOn(part, 'chain', pointsOf(k)));
			if (unfit !== undefined) refuse(at, tooFewOrMany(part, pointsOf(unfit)));
			return {
				clause: { kind: 'run', run },
				over: 'chain',
				variant: run.variant,
				values: run.values,
				slot: at,
				chunks: inChunks(all, pointsOf),
				at,
				putAt: at,
				...AS_IT_COMES
			};
		});
}

/** What a part wants of a chain that has other than so many points. */
function tooFewOrMany({ label, anchor }: PartDefinition, points: number): string {
	const wanted = anchor.kind === 'chain' && anchor.corners !== 'any' ? anchor.corners : 2;
	const off = Math.abs(wanted - points);
	const way = points < wanted ? `add ${off}, or close the ring` : `take ${off} away`;
	return `${label} goes through ${wanted} points; the chain has ${points}: ${way}`;
}

export function onNodes(
	run: Run,
	zone: Zone,
	face: FaceModel,
	cells: AssignedCells,
	variants: Variants
): Placed[] {
	if (!zone.nodes.length) return [];
	const at = pathTo('zones', zone.id, 'nodes');
	const nodes = face.nodes();
	const partOf = ({ id, variant }: Zone['nodes'][number]) => variants.partOn('node', variant, `${at}/${id}`);
	const held = asks(run, 'node', zone.nodes, face, variantsOn(zone, cells));
	return nodesOfPlacings(zone.nodes, partOf, nodes, at, held).map((found, k): Placed => {
		const placing = zone.nodes[k]!;
		return {
			clause: { kind: 'nodes', placing },
			over: 'node',
			variant: placing.variant,
			values: placing.values,
			slot: `${at}/${placing.id}`,
			chunks: inChunks(found, (n) => linesAt(nodes, n)),
			at: `${at}/${placing.id}`,
			putAt: `${at}/${placing.id}`,
			...AS_IT_COMES
		};
	});
}

/** The lines of the bars that begin at some of them. */
export function barsOf({ bars }: JoinedLines, sites: Uint32Array): readonly (readonly number[])[] {
	const byFirst = new Map(bars.map((bar) => [bar[0]!, bar]));
	return Array.from(sites, (site) => byFirst.get(site)!);
}

/** What is said of a lie, without what is not. */
const said = (lie: { [Key in keyof SaidLie]: SaidLie[Key] | undefined }): SaidLie =>
	Object.fromEntries(Object.entries(lie).filter(([, value]) => value !== undefined));
