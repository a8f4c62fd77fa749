import { assignRules, isAdjusting, isBare, NO_EXCEPTION, NO_RULE, type Assignment } from '../cladding/assign';
import { inChunks, type Chunk } from '../cladding/chunks';
import type { JoinedFaces } from '../cladding/join-rims';
import type { Driver } from '../project/driver-schema';
import { readyVariant, type ReadyVariant } from '../cladding/kit';
import { joinLines, type JoinedLines, type Joining } from '../cladding/join-lines';
import { edgesOfRuns } from '../cladding/line-run';
import type { ClauseGroup, FaceModel, ZoneModel } from '../cladding/model';
import { linesAt, nodesOfPlacings } from '../cladding/node-placings';
import { clad, type PieceGroup } from '../cladding/pieces';
import { hangsOn, refuseUnfit, type GridSite } from '../cladding/sites';
import { unfitExceptions } from '../cladding/unfit-exceptions';
import type { FaceSun } from '../field/field';
import type { PartDefinition } from '../project/part-definition';
import type { Rule, SaidLie, Zone } from '../project/schema';
import type { Lie } from '../cladding/lie';
import { liesOn } from '../cladding/lies';
import { SAME_POINT } from '../geometry/tolerance';
import { plainFlag } from '../units/flag';
import { refuse, type Problem } from '../units/problem';
import { formatNumber } from '../units/quantity';
import { asks, checkConditions, drivenSites, surroundingsOf, type Asking, type Suns } from './asking';
import { underFollowed } from './followed';
import type { Kept } from './memo';
import { remarksOnFace, remarksOnRules } from './remarks';
import type { Run } from './stage';
import { pathTo } from '../project/typed-path';

/** The variants that a zone's clauses name, made ready once for as long as they stay as they are. */
class Variants {
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
interface Placed {
	readonly clause: ClauseGroup['clause'];
	readonly over: GridSite;
	readonly variant: string;
	/** What sets values piece by piece. */
	readonly values: Readonly<Record<string, Driver>>;
	/** How the part lies on its sites. */
	readonly lie: SaidLie;
	readonly chunks: readonly Chunk[];
	/** What its pieces are kept under: unlike that of every other. */
	readonly slot: string;
	/** The path of the clause, and of what it puts there. */
	readonly at: string;
	readonly putAt: string;
	/** What is to be said of sites beside what their face says. */
	readonly said: ReadonlyMap<number, string>;
	/** Lines of a run that are joined to longer bars. */
	readonly joined?: JoinedLines;
}

const NOTHING_SAID: ReadonlyMap<number, string> = new Map();

/** The parts that the rules, choices by hand, runs and node clauses of a zone put on its sites. @throws ProblemError */
export async function cladZone(
	run: Run,
	zone: Zone,
	joined: Kept<JoinedFaces>,
	sunsOfFaces: readonly FaceSun[]
): Promise<ZoneModel> {
	const { timed } = run;
	const at = pathTo('zones', zone.id);
	const { faces, meetings } = joined.value;
	const suns = new Map(sunsOfFaces.map((sun, f) => [faces[f]!.address, sun]));
	const variants = new Variants(run);
	const parts = zone.rules.map((rule) =>
		rule.put === 'open' ? null : variants.partOn('cell', rule.put.variant, `${at}/rules/${rule.id}`)
	);
	const asking = surroundingsOf(run, 'cell', zone.rules, faces, suns);
	checkConditions(run, zone, faces);
	const partByHand = (id: string) => variants.of(id, `${at}/exceptions`).value.part;
	const assigned = faces.map((face, f) => assign(run, zone, face, f, parts, partByHand, asking));
	const assignments = assigned.map(({ assignment }) => assignment);
	const remarks = faces.flatMap((face) => remarksOnFace(face, at));
	for (const { open } of assigned)
		for (const text of open)
			remarks.push({ at: `${at}/exceptions`, text: `${text}; it stays open`, remark: true });
	remarks.push(...remarksOnRules(zone, assignments));
	const groups: ClauseGroup[] = [];
	for (const [f, face] of faces.entries()) {
		const placed = timed('parts', () => [
			...onCells(zone, assigned[f]!, variants),
			...onLines(run, zone, face, assigned[f]!, variants),
			...onNodes(run, zone, face, assigned[f]!, variants),
			...onChains(zone, face, variants)
		]);
		for (const [k, one] of placed.entries()) {
			remarks.push(...remarkOnStock(one));
			const share = (part: number) => (f + (k + part) / placed.length) / faces.length;
			for (const group of await hang(run, zone, joined, f, one, variants, suns, share)) groups.push(group);
		}
	}
	return { zone, faces, suns: sunsOfFaces, assignments, groups, meetings, remarks };
}

/** What becomes of the cells of a face: it hangs on the cells and the clauses, whatever their places are. */
interface AssignedCells {
	readonly assignment: Assignment;
	/** The cells of each rule and of each choice by hand. */
	readonly byRule: readonly (readonly Chunk[])[];
	readonly byHand: readonly (readonly Chunk[])[];
	/** Cells of a rule on which a choice by hand sets something otherwise. */
	readonly adjusted: readonly {
		readonly rule: number;
		readonly exception: number;
		readonly chunks: readonly Chunk[];
	}[];
	/** Cells whose choice by hand cannot stand there, with the sentence that says so. */
	readonly unfit: ReadonlyMap<number, string>;
	/** Sentences about those of them that no rule puts anything on. */
	readonly open: readonly string[];
}

function assign(
	{ memo, timed }: Run,
	zone: Zone,
	face: FaceModel,
	f: number,
	parts: readonly (PartDefinition | null)[],
	partByHand: (variant: string) => PartDefinition,
	{ around, under, places }: Asking
): AssignedCells {
	const { rules, exceptions } = zone;
	const { cells, slots, address, slivers, grid } = face;
	const byHand = exceptions.map(({ put }) =>
		put === 'open' || 'as' in put ? null : partByHand(put.variant)
	);
	const hung = [...parts, ...byHand].map((part) => part && [part.label, part.anchor]);
	const steps = [grid.across.steps, grid.up.steps];
	const made = () => {
		const left = new Set(slivers.put === 'open' ? slivers.cells : []);
		const assignment = assignRules(zone, face, left, around, (rule) => parts[rules.indexOf(rule)]!);
		const waits = isBare(zone) ? { untaken: 0 } : null;
		return sorted(zone, face, { ...assignment, ...waits }, partByHand);
	};
	return memo.use(
		['assignment', zone.id, f],
		[
			cells,
			slots,
			address,
			slivers,
			steps,
			zone.on.is,
			rules,
			exceptions,
			hung,
			under,
			places ? face.serial : null
		],
		() => timed('parts', made)
	).value;
}

/** The cells of every clause, in chunks. */
function sorted(
	zone: Zone,
	face: FaceModel,
	assignment: Assignment,
	partByHand: (variant: string) => PartDefinition
): AssignedCells {
	const { rule: taken, exception } = assignment;
	const { rules, exceptions } = zone;
	const { start } = face.cells;
	const unfit = unfitExceptions(zone, face, exception, partByHand);
	const byRule = rules.map((): number[] => []);
	const byHand = exceptions.map((): number[] => []);
	const adjusted = new Map<string, number[]>();
	for (let c = 0; c < taken.length; c++) {
		const chosen = exception[c] === NO_EXCEPTION ? null : zone.exceptions[exception[c]!]!;
		if (chosen && isAdjusting(chosen) && taken[c] !== NO_RULE) {
			const key = `${taken[c]} ${exception[c]}`;
			const known = adjusted.get(key);
			if (known) known.push(c);
			else adjusted.set(key, [c]);
		} else if (chosen && !isAdjusting(chosen) && !unfit.has(c)) byHand[exception[c]!]!.push(c);
		else if (taken[c] !== NO_RULE) byRule[taken[c]!]!.push(c);
	}
	assignment.also.forEach((cells, k) => {
		if (rules[k]!.also) byRule[k] = [...cells];
	});
	const chunks = (lists: readonly (readonly number[])[]) =>
		lists.map((cells) => inChunks(cells, (c) => start[c + 1]! - start[c]!));
	const sets = [...adjusted].map(([key, cells]) => {
		const [rule, exception] = key.split(' ').map(Number) as [number, number];
		return { rule, exception, chunks: chunks([cells])[0]! };
	});
	const isOpen = (c: number) => taken[c] === NO_RULE || rules[taken[c]!]!.put === 'open';
	const open = [...unfit].filter(([c]) => isOpen(c)).map(([, text]) => text);
	return { assignment, byRule: chunks(byRule), byHand: chunks(byHand), adjusted: sets, unfit, open };
}

function onCells(
	zone: Zone,
	{ byRule, byHand, adjusted, unfit }: AssignedCells,
	variants: Variants
): Placed[] {
	const at = pathTo('zones', zone.id);
	const placed = (
		clause: ClauseGroup['clause'],
		put: Rule['put'],
		chunks: readonly Chunk[],
		where: string,
		own: string
	): Placed[] => {
		if (put === 'open' || !chunks.length) return [];
		const { variant, values, ...lie } = put;
		const putAt = `${own}/put`;
		return [{ clause, over: 'cell', variant, values, lie, chunks, slot: own, at: where, putAt, said: unfit }];
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

/** The variant on every cell, a choice by hand before what a rule puts there; null where a cell is open. */
function variantsOn({ rules, exceptions }: Zone, { assignment }: AssignedCells) {
	const ofRules = rules.map(({ put }) => (put === 'open' ? null : put.variant));
	const ofHands = exceptions.map(({ put }) => (put === 'open' || 'as' in put ? null : put.variant));
	return (c: number): string | null => {
		const chosen = assignment.exception[c]!;
		const rule = assignment.rule[c]!;
		if (chosen !== NO_EXCEPTION && !isAdjusting(exceptions[chosen]!)) return ofHands[chosen]!;
		return rule === NO_RULE ? null : ofRules[rule]!;
	};
}

function onLines(run: Run, zone: Zone, face: FaceModel, cells: AssignedCells, variants: Variants): Placed[] {
	const held = asks(run, 'line', zone.runs, face, variantsOn(zone, cells));
	const runs = zone.runs.filter(({ over }) => over === 'lines');
	return edgesOfRuns(runs, face.edges, face.sharedEdges, held).map((lines, k): Placed => {
		const run = runs[k]!;
		const at = pathTo('zones', zone.id, 'runs', run.id);
		variants.partOn('line', run.variant, at);
		const joined = run.joined && joinedLines(face, lines, run.joined, at);
		return {
			clause: { kind: 'run', run },
			over: 'line',
			variant: run.variant,
			values: run.values,
			lie: {},
			slot: at,
			chunks: inChunks(joined ? joined.bars.map(([first]) => first!) : lines, () => 2),
			at,
			putAt: at,
			said: NOTHING_SAID,
			...(joined && { joined })
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
function remarkOnStock({ at, joined }: Placed): Problem[] {
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

function onChains(zone: Zone, { chains }: FaceModel, variants: Variants): Placed[] {
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
				lie: {},
				slot: at,
				chunks: inChunks(all, pointsOf),
				at,
				putAt: at,
				said: NOTHING_SAID
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

function onNodes(run: Run, zone: Zone, face: FaceModel, cells: AssignedCells, variants: Variants): Placed[] {
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
			lie: {},
			slot: `${at}/${placing.id}`,
			chunks: inChunks(found, (n) => linesAt(nodes, n)),
			at: `${at}/${placing.id}`,
			putAt: `${at}/${placing.id}`,
			said: NOTHING_SAID
		};
	});
}

/** The lines of the bars that begin at some of them. */
function barsOf({ bars }: JoinedLines, sites: Uint32Array): readonly (readonly number[])[] {
	const byFirst = new Map(bars.map((bar) => [bar[0]!, bar]));
	return Array.from(sites, (site) => byFirst.get(site)!);
}

/** What is told of cells, with what is said of those whose choice by hand cannot stand there. */
function withUnfit(
	flags: FaceModel['flags'],
	said: readonly (readonly [number, string])[]
): FaceModel['flags'] {
	const more = said.map(([c, says]) => {
		const unfit = plainFlag('exception.unfit', 'flagged', 'the cell', says);
		return [c, [...(flags.get(c) ?? []), unfit]] as const;
	});
	return new Map([...flags, ...more]);
}

/** What is said of a lie, without what is not. */
const said = (lie: { [Key in keyof SaidLie]: SaidLie[Key] | undefined }): SaidLie =>
	Object.fromEntries(Object.entries(lie).filter(([, value]) => value !== undefined));

/** What of a lie varies from place to place. */
const driversOf = (said: SaidLie): Record<string, Driver> =>
	Object.fromEntries(
		Object.entries(said).filter(
			(one): one is [string, Driver] => typeof one[1] === 'string' || typeof one[1] === 'object'
		)
	);
const lieName = ({ turn, flip, mirror }: Lie) => `${turn}${flip ? 'f' : ''}${mirror ? 'm' : ''}`;

/**
 * Hang what a clause puts on a face, chunk by chunk.
 * @param share of the zone that is done when so much of the clause is
 */
async function hang(
	run: Run,
	zone: Zone,
	{ value: { faces } }: Kept<JoinedFaces>,
	f: number,
	{ clause, over, variant, values, lie: saidLie, chunks, slot, at, putAt, said, joined }: Placed,
	variants: Variants,
	suns: Suns,
	share: (part: number) => number
): Promise<ClauseGroup[]> {
	const face = faces[f]!;
	const ready = variants.of(variant, at);
	// Nodes of a face have lines of the others too.
	const serials = over === 'node' ? faces.map(({ serial }) => serial) : [face.serial];
	const asked = drivenSites(
		run,
		over,
		{ ...values, ...driversOf(saidLie) },
		joined ? { ...face, edges: joined.edges } : face,
		suns,
		ready.value.underSun
	);
	const { followed, named, suns: under } = asked.around;
	const groups: ClauseGroup[] = [];
	const lying = chunks.flatMap(({ corners, number, sites: all }) =>
		liesOn(saidLie, asked, all, corners, putAt).map(({ lie, sites }) => ({ corners, number, sites, lie }))
	);
	for (const { corners, number, sites, lie } of lying) {
		if (lie.flip && ready.value.part.anchor.kind === 'double ring')
			refuse(
				`${putAt}/flip`,
				`${ready.value.part.label} fills the space between two grids, and cannot be turned inside out`
			);
		const own = (said.size ? [...sites] : []).flatMap((site) => {
			const says = said.get(site);
			return says === undefined ? [] : [[site, says] as const];
		});
		const flagged = own.length ? { ...face, flags: withUnfit(face.flags, own) } : face;
		const told = joined ? { ...flagged, edges: joined.edges } : flagged;
		const bars = joined ? barsOf(joined, sites) : null;
		const kept: Kept<PieceGroup> = run.memo.use(
			['pieces', zone.id, f, slot, corners, number, lieName(lie)],
			[serials, sites, bars, ready, values, own, underFollowed(followed), [...named], [...under]],
			() =>
				run.timed('parts', () => ({
					...clad(ready.value, told, { over, sites, corners }, values, asked, at, `${putAt}/values`, lie),
					bars
				}))
		);
		groups.push({ clause, face: f, group: kept.value, serial: kept.serial });
		await run.pause(share(groups.length / lying.length));
	}
	return groups;
}
