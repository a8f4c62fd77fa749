import type { JoinedFaces } from '../cladding/join-rims';
import { usesSolids } from '../cladding/kit';
import {
	stageNames,
	type MassState,
	type Model,
	type StageName,
	type ZoneModel,
	type ZoneState
} from '../cladding/model';
import type { Vector } from '../geometry/vector';
import type { Face } from '../mass/face';
import { sunSchema } from '../project/sun-schema';
import { checkSun } from '../sun/check';
import { inThisThread, type ProgramRunner } from '../part/threads/program-runner';
import { boundValues } from '../named/bound-values';
import { applyEdits } from '../project/commands';
import { loadSolids } from '../geometry/solid/library';
import { Files } from '../project/files';
import type { Project, Zone } from '../project/schema';
import { ProblemError, type Problem } from '../units/problem';
import { beginZone, type BegunZone } from './clad';
import { layOut } from './lay-out';
import { facesOfMass, guidesNamed } from './masses';
import { Kept, Memo } from './memo';
import { needsHours, sunOver } from './sun';
import { quickestZone } from './quickest-zone';
import type { Run } from './stage';
import { CodedError } from '../units/coded-error';
import { fieldNames } from '../field/fields';
import { namedValues, NOTHING_NAMED } from '../named/named-values';
import { pathTo } from '../project/typed-path';
import { settingOutOf } from './other-zones';
import { chordsOfWeb, isWeb, websMet } from './webs';

export interface ChainHooks {
	/** Called between pieces of work with what goes on; await it to let the outside in. */
	step?(what: string, done: number, of: number): void | Promise<void>;
	/** Cells of a zone stand, then those of two, then of all; pieces, and whatever comes after, are still to come. */
	cells?(model: Model): void;
	/** Hours of sun are counted on every cell, whether a clause asks for them or not. */
	readonly hoursOfSun?: boolean;
}

/**
 * Thrown out of a hook to give a run up; the results so far are kept.
 *
 * ```ts
 * chain.run(project, { step: () => { throw new Cancelled(); } }); // the last good model stays
 * ```
 */
export class Cancelled extends CodedError {
	readonly code = 'cancelled';
}

/** So many zones are told of as soon as they stand: one that stands soon, and the first of the document. */
const FEW_ZONES = 2;

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

/** The problems of a run, each told once. */
class Problems {
	readonly list: Problem[] = [];

	/** @param told elsewhere already */
	constructor(private readonly told: Problems | null = null) {}

	private has({ at, text }: Problem): boolean {
		return (
			this.list.some((known) => known.at === at && known.text === text) ||
			Boolean(this.told?.has({ at, text }))
		);
	}

	/** @returns null when it cannot be done, which is told; a run that is given up goes on out */
	async collect<T>(at: string, act: () => T | Promise<T>): Promise<T | null> {
		try {
			return await act();
		} catch (error) {
			if (error instanceof Cancelled) throw error;
			const { problem } = error instanceof ProblemError ? error : { problem: unforeseen(error, at) };
			if (!this.has(problem)) this.list.push(problem);
			return null;
		}
	}
}

/** Zones whose cells stand already, before anything is put on them. */
const withoutPieces =
	(laidOut: readonly (Kept<JoinedFaces> | null)[]) =>
	(zone: Zone, k: number): ZoneState => {
		const laid = laidOut[k];
		const nothing = { suns: [], assignments: [], groups: [], meetings: [], remarks: [] };
		return { id: zone.id, model: laid ? { zone, faces: laid.value.faces, ...nothing } : null, behind: true };
	};

/**
 * The one chain from the project to its pieces, kept between runs: each stage is a pure function whose
 * result is used again while what it was made of stays the same. A zone that cannot be made keeps its last good model.
 *
 * ```ts
 * const { zones, problems } = await new Chain(files).run(project);
 * ```
 */
export class Chain {
	private readonly memo: Memo;
	private readonly lastGood = new Map<string, ZoneModel>();
	private lastSun = sunSchema.parse({});
	private readonly lastFaces = new Map<string, Kept<Face[]>>();

	/**
	 * @param files where large values of its projects lie
	 * @param serials given out already, by a chain whose place this one takes: what they named stays apart
	 * @param runner runs what parts come to
	 */
	constructor(
		private readonly files = new Files(),
		serials = 0,
		private readonly runner: ProgramRunner = inThisThread
	) {
		this.memo = new Memo(serials);
	}

	/**
	 * @param kept the project, whole or naming files
	 * @throws Cancelled when a hook gives the run up
	 */
	async run(kept: Project, hooks: ChainHooks = {}): Promise<Model> {
		// Masses are made whole where they are computed: until then their files' names say all there is to know.
		const whole = {
			...kept,
			parts: this.files.wholeList(kept.parts),
			pictures: this.files.wholeList(kept.pictures),
			tables: this.files.wholeList(kept.tables)
		};
		const bound = boundValues(whole);
		// The document keeps them as they were last reckoned; one that was written by hand may be behind.
		const project = bound.edits.length ? applyEdits(whole, bound.edits).project : whole;
		const ms = Object.fromEntries(stageNames.map((name) => [name, 0])) as Record<StageName, number>;
		this.memo.startRun();
		const ofMasses = new Problems();
		const problems = new Problems(ofMasses);
		problems.list.push(...bound.problems);
		const withNodes = project.zones.filter(({ nodes }) => nodes.length);
		const total = 2 * project.zones.length + withNodes.length;
		let now = { what: '', done: 0 };
		if (await problems.collect('sun', () => checkSun(project.sun))) this.lastSun = project.sun;
		const zones: Zone[] = [];
		for (const zone of project.zones) {
			const settingOut = zone.setOutAs
				? await problems.collect(pathTo('zones', zone.id, 'setOutAs'), () => settingOutOf(project, zone))
				: null;
			zones.push(settingOut ? { ...zone, settingOut } : zone);
		}
		const run: Run = {
			project: { ...project, zones },
			sun: this.lastSun,
			named: (await problems.collect('named', () => namedValues(project.named, fieldNames))) ?? NOTHING_NAMED,
			files: this.files,
			memo: this.memo,
			runner: this.runner,
			timed(stage, act) {
				const start = performance.now();
				try {
					return act();
				} finally {
					ms[stage] += performance.now() - start;
				}
			},
			async timedLater(stage, act) {
				const start = performance.now();
				try {
					return await act();
				} finally {
					ms[stage] += performance.now() - start;
				}
			},
			pause: async (share = 0) => hooks.step?.(now.what, now.done + share, total)
		};
		const begin = async (what: string, done: number) => {
			now = { what, done };
			await run.pause();
		};
		const masses = new Map<string, MassState>();
		const makeMass = async (id: string) => {
			if (masses.has(id)) return;
			const made = await ofMasses.collect(pathTo('masses', id), () =>
				facesOfMass(run, id, pathTo('masses', id))
			);
			const faces = made ?? this.lastFaces.get(id) ?? new Kept<Face[]>([], 0);
			this.lastFaces.set(id, faces);
			masses.set(id, { id, faces: faces.value, serial: faces.serial, behind: !made });
		};
		const isMass = (id: string) => project.masses.some((mass) => mass.id === id);
		const state = (zones: readonly ZoneState[], guides: Model['guides']): Model => ({
			project,
			masses: project.masses.flatMap(({ id }) => masses.get(id) ?? []),
			zones,
			guides,
			problems: [...ofMasses.list, ...problems.list],
			ms
		});

		const laidOut = zones.map((): Kept<JoinedFaces> | null => null);
		let solids = Promise.resolve();
		const quickest = quickestZone(project);
		const others = [...zones.keys()].filter((k) => k !== quickest);
		for (const [n, k] of (zones.length ? [quickest, ...others] : []).entries()) {
			const zone = zones[k]!;
			await begin(`Setting out ${zone.name}`, n);
			for (const { mass } of zone.faces) if (isMass(mass)) await makeMass(mass);
			laidOut[k] = await problems.collect(pathTo('zones', zone.id), () => layOut(run, zone));
			if (n < FEW_ZONES || n === zones.length - 1)
				hooks.cells?.(state(zones.map(withoutPieces(laidOut)), new Map()));
			if (n === 0 && usesSolids(project)) {
				// Fetched while other faces are set out; the first to be told of a fault is who waits for it.
				solids = loadSolids();
				solids.catch(() => {});
			}
		}
		for (const { id } of project.masses) await makeMass(id);

		await solids;
		const begun = new Map<string, BegunZone>();
		// Webs come behind the grids that they join: their bars end at those of the grids.
		const order = zones.map((_, k) => k).sort((a, b) => Number(isWeb(zones[a]!)) - Number(isWeb(zones[b]!)));
		for (const [n, k] of order.entries()) {
			const zone = zones[k]!;
			const laid = laidOut[k];
			if (!laid) continue;
			const counts = hooks.hoursOfSun || needsHours(zone);
			if (counts) await begin(`Counting hours of sun on ${zone.name}`, zones.length + n);
			const standing = [...this.lastFaces.values()];
			const suns = await sunOver(run, zone, laid.value.faces, counts, standing);
			await begin(`Cladding ${zone.name}`, zones.length + n);
			const made = await problems.collect(pathTo('zones', zone.id), () =>
				beginZone(run, zone, laid, suns, websMet(zones, zone, laidOut), chordsOfWeb(zone, begun))
			);
			if (made) begun.set(zone.id, made);
		}
		const states: ZoneState[] = [];
		for (const zone of zones) {
			const nth = withNodes.findIndex(({ id }) => id === zone.id);
			if (nth >= 0) await begin(`Nodes of ${zone.name}`, 2 * zones.length + nth);
			const half = begun.get(zone.id);
			const made = half && (await problems.collect(pathTo('zones', zone.id), () => half.finish(begun)));
			if (made) {
				this.lastGood.set(zone.id, made);
				problems.list.push(...made.remarks);
			}
			states.push({ id: zone.id, model: made ?? this.lastGood.get(zone.id) ?? null, behind: !made });
		}
		keepOnly(this.lastGood, project.zones);
		keepOnly(this.lastFaces, project.masses);
		const guides = new Map<string, readonly Vector[]>();
		for (const { id } of project.guides)
			for (const [name, points] of (await problems.collect(pathTo('guides', id), () =>
				guidesNamed(run, [id])
			)) ?? [])
				guides.set(name, points);
		this.memo.forgetUnused();
		return state(states, guides);
	}
}
