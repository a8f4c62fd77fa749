import type { JoinedFaces } from '../cladding/join-rims';
import type { Lie } from '../cladding/lie';
import { liesOn } from '../cladding/lies';
import type { ClauseGroup, FaceModel, ZoneModel } from '../cladding/model';
import { clipped } from '../cladding/clip-pieces';
import { asksForBars, type BarsAtNodes } from '../cladding/bar-columns';
import { barsAtNodes } from '../cladding/bars-at-nodes';
import { meetingBars, withEnds } from '../cladding/cut-ends';
import { otherBarsOn } from '../cladding/other-bars';
import { programOf } from '../cladding/kit';
import { clad, type PieceGroup } from '../cladding/pieces';
import type { FaceSun } from '../field/field';
import { isAbout, withLimits } from '../limit/beyond';
import { measuresFor } from '../limit/measures';
import { limitsOfProject } from '../limit/shipped';
import type { Driver } from '../project/driver-schema';
import type { SaidLie, Zone } from '../project/schema';
import { pathTo } from '../project/typed-path';
import { plainFlag } from '../units/flag';
import { refuse } from '../units/problem';
import { once } from '../units/once';
import { sideBySide } from '../units/side-by-side';
import { checkConditions, drivenSites, surroundingsOf, type Suns } from './asking';
import { assign } from './assign-cells';
import { underFollowed } from './followed';
import type { Kept } from './memo';
import {
	barsOf,
	onCells,
	onChains,
	onLines,
	onNodes,
	remarkOnStock,
	Variants,
	type Placed
} from './place-parts';
import { remarksOnFace, remarksOnMoves, remarksOnRules } from './remarks';
import type { Run } from './stage';
import { chordsAt, withWebs, type Chords, type LaidWeb, type MetWeb } from './webs';

/** A zone with all its parts but those on nodes, which wait for the bars of the webs that meet there. */
export interface BegunZone {
	readonly joined: JoinedFaces;
	/** What stands on its lines, by face, as it ends. */
	readonly onLines: readonly (readonly ClauseGroup[])[];
	/** @param begun webs that meet at its nodes, by their zones @throws ProblemError */
	readonly finish: (begun: ReadonlyMap<string, BegunZone>) => Promise<ZoneModel>;
}

/**
 * The parts that the rules, choices by hand, runs and node clauses of a zone put on its sites; those on nodes later.
 *
 * @param meeting webs whose lines meet at its nodes @param chords what stands on the lines of the two grids that a web
 * joins @throws ProblemError
 */
export async function beginZone(
	run: Run,
	zone: Zone,
	laid: Kept<JoinedFaces>,
	sunsOfFaces: readonly FaceSun[],
	meeting: readonly LaidWeb[],
	chords: readonly Chords[]
): Promise<BegunZone> {
	const { timed } = run;
	const { joined, nets } = withWebs(run, zone, laid, meeting);
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
	remarks.push(...remarksOnMoves(zone, faces), ...remarksOnRules(zone, assignments));
	const placed = faces.map((face, f) =>
		timed('parts', () => [
			...onCells(zone, assigned[f]!, variants),
			...onLines(run, zone, face, assigned[f]!, variants),
			...onNodes(run, zone, face, assigned[f]!, variants),
			...onChains(zone, face, variants)
		])
	);
	const groups = placed.map((ofFace) => ofFace.map((): ClauseGroup[] => []));
	const all = placed.flatMap((ofFace, f) => ofFace.map((one, k) => ({ f, one, k })));
	const put = async (onNodes: boolean, bars: Bars | null) => {
		const hung = all.flatMap(({ f, one, k }) => {
			if ((one.over === 'node') !== onNodes) return [];
			remarks.push(...remarkOnStock(one));
			return hang(run, zone, joined, f, one, variants, suns, bars).map((make) => ({ f, k, make }));
		});
		let done = 0;
		const made = await run.timedLater('parts', () =>
			sideBySide(run.runner.abreast, hung, async ({ make }) => {
				const group = await make();
				await run.pause(++done / hung.length);
				return group;
			})
		);
		for (const [n, { f, k }] of hung.entries()) groups[f]![k]!.push(made[n]!);
	};
	await put(false, null);
	// Where bars end at one another, each is seen as it was before.
	const uncut = groups.map((ofFace) => ofFace.slice());
	const onLine = (f: number, k: number) => placed[f]![k]!.over === 'line';
	for (const { f, one, k } of all) {
		if (!one.ends?.how.others) continue;
		const others = uncut.map((ofFace, other) =>
			ofFace.filter((_, n) => onLine(other, n) && placed[other]![n]!.slot !== one.slot).flat()
		);
		groups[f]![k] = timed('parts', () =>
			endAtOthers(run, zone, joined.value, f, one, uncut[f]![k]!, others, chords)
		);
		await run.pause(1);
	}
	return {
		joined: joined.value,
		onLines: groups.map((ofFace, f) => ofFace.filter((_, k) => onLine(f, k)).flat()),
		async finish(begun) {
			// Parts on nodes know the bars that meet there, of any face and of webs: they come last.
			await put(true, new Bars(run, zone.id, faces, groups, nets, begun));
			const limited = groups.flatMap((ofFace, f) =>
				ofFace.flatMap((ofClause, k) =>
					ofClause.map((group, n) => underLimits(run, zone, faces[f]!, group, [f, k, n]))
				)
			);
			return { zone, faces, suns: sunsOfFaces, assignments, groups: limited, meetings, remarks };
		}
	};
}

/** A group with what limits tell of its pieces. */
function underLimits(
	{ project, memo, timed }: Run,
	zone: Zone,
	face: FaceModel,
	group: ClauseGroup,
	place: readonly number[]
): ClauseGroup {
	const limits = limitsOfProject(project).filter((limit) => isAbout(limit, zone, group.group));
	if (!limits.length) return group;
	const { value: flags, serial } = memo.use(
		['limits', zone.id, ...place],
		[group.serial, limits, project.loads, project.heat],
		() =>
			timed('parts', () =>
				withLimits(limits, measuresFor([group.group.ready.part], project), face, group.group)
			)
	);
	return flags === group.group.flags ? group : { ...group, group: { ...group.group, flags }, told: serial };
}

/** The bars on the lines of a zone, as they meet at its nodes: measured when a part on nodes asks for them. */
class Bars {
	constructor(
		private readonly run: Run,
		private readonly zone: string,
		private readonly faces: readonly FaceModel[],
		/** By face and clause. */
		private readonly groups: readonly (readonly (readonly ClauseGroup[])[])[],
		private readonly nets: readonly MetWeb[],
		private readonly begun: ReadonlyMap<string, BegunZone>
	) {}

	at(f: number): Kept<BarsAtNodes> {
		const { nets, begun } = this;
		const faces = [...this.faces, ...nets.map(({ face }) => face)];
		const onLines = [
			...this.groups.map((ofFace) => ofFace.flat().filter(({ group }) => group.over === 'line')),
			...nets.map(({ web, f: own }) => begun.get(web)?.onLines[own] ?? [])
		];
		const serials = [
			...faces.map(({ serial }) => serial),
			...onLines.flatMap((ofFace) => ofFace.map(({ serial }) => serial))
		];
		return this.run.memo.use(['bars', this.zone, f], [serials], () =>
			barsAtNodes(
				faces[f]!.nodes(),
				faces,
				onLines.map((ofFace) => ofFace.map(({ group }) => group))
			)
		);
	}
}

/**
 * Bars of a run ended where those of other runs meet them.
 * @param others groups along lines by face, uncut @param chords of the grids that a web joins
 */
function endAtOthers(
	{ memo }: Run,
	zone: Zone,
	joined: JoinedFaces,
	f: number,
	{ ends, slot }: Placed,
	own: readonly ClauseGroup[],
	others: readonly (readonly ClauseGroup[])[],
	chords: readonly Chords[]
): ClauseGroup[] {
	const { faces } = joined;
	const serials = [
		...faces,
		...others.flat(),
		...chords.flatMap((grid) => [...grid.joined.faces, ...grid.onLines.flat()])
	].map(({ serial }) => serial);
	const meeting = once(() =>
		meetingBars(faces[f]!, ends!.bars, ends!.how, [
			...otherBarsOn(joined, f, others),
			...chordsAt(faces[f]!, f, chords)
		])
	);
	return own.map((made, n) => {
		const cut = memo.use(['ends', zone.id, f, slot, n], [made.serial, ends!.how, serials], () =>
			withEnds(made.group, faces[f]!, meeting(), ends!.how)
		);
		return { ...made, group: cut.value, serial: cut.serial, told: cut.serial };
	});
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

/** What of a lie varies from place to place. */
const driversOf = (said: SaidLie): Record<string, Driver> =>
	Object.fromEntries(
		Object.entries(said).filter(
			(one): one is [string, Driver] => typeof one[1] === 'string' || typeof one[1] === 'object'
		)
	);

const lieName = ({ turn, flip, mirror }: Lie) => `${turn}${flip ? 'f' : ''}${mirror ? 'm' : ''}`;

/** Hang what a clause puts on a face: what is to be done, chunk by chunk. */
function hang(
	run: Run,
	zone: Zone,
	{ value: { faces } }: Kept<JoinedFaces>,
	f: number,
	{ clause, over, variant, values, lie: saidLie, chunks, clips, slot, at, putAt, said, joined, ends }: Placed,
	variants: Variants,
	suns: Suns,
	barsOfZone: Bars | null
): (() => Promise<ClauseGroup>)[] {
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
	// Those that end at bars of other runs are ended when all of them are there.
	const meeting = ends && !ends.how.others && meetingBars(face, ends.bars, ends.how);
	const lying = chunks.flatMap(({ corners, number, sites: all }) =>
		liesOn(saidLie, asked, all, corners, putAt).map(({ lie, sites }) => ({ corners, number, sites, lie }))
	);
	return lying.map(({ corners, number, sites, lie }) => async () => {
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
		const asks = over === 'node' && asksForBars(programOf(ready.value, corners, at));
		const barsHere = asks ? barsOfZone!.at(f) : null;
		const told = {
			...flagged,
			...(joined && { edges: joined.edges }),
			...(clips && face.uncut()),
			...(barsHere && { bars: barsHere.value })
		};
		const bars = joined ? barsOf(joined, sites) : null;
		const kept: Kept<PieceGroup> = await run.memo.useLater(
			['pieces', zone.id, f, slot, corners, number, lieName(lie)],
			[
				serials,
				sites,
				bars,
				ends,
				barsHere,
				ready,
				values,
				own,
				underFollowed(followed),
				[...named],
				[...under]
			],
			async () => {
				const on = { over, sites, corners };
				const valuesAt = `${putAt}/values`;
				const group = await clad(run.runner, ready.value, told, on, values, asked, at, valuesAt, lie);
				if (clips) return clipped(group, face);
				const whole = { ...group, bars };
				return meeting ? withEnds(whole, face, meeting, ends!.how) : whole;
			}
		);
		return { clause, face: f, group: kept.value, serial: kept.serial, told: kept.serial };
	});
}
