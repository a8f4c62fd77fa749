import type { Problem } from '$core/units/problem';
import { prefixesOf, tableBook } from '$core/cladding/table-book';
import type { FaceSun } from '$core/field/field';
import type { Followed } from '$core/field/followed';
import { pointAt } from '$core/geometry/vector';
import type { Files } from '$core/project/files';
import type { Project } from '$core/project/schema';
import type { Assignment } from '$core/cladding/assign';
import type { RimMeeting } from '$core/pattern/shared-rims';
import { proxy } from 'comlink';
import { leaveThread, startThread, takeThread, type Thread } from './thread';
import { addressesOf, layoutReport, type Addresses, type LayoutReport } from './layout-report';
import type {
	FaceView,
	GroupView,
	MassShapes,
	ModelMessage,
	ShapeView,
	ToldView,
	Unchanged
} from '$lib/worker/views';

/** Pieces of one clause on one face, and what is told of them. */
export interface ToldGroup extends GroupView, Omit<ToldView, 'serial'> {
	/** Changes with what is told of them alone. */
	readonly told: number;
}

export interface ZoneView {
	readonly id: string;
	readonly behind: boolean;
	readonly faces: readonly FaceView[];
	readonly groups: readonly ToldGroup[];
	/** The sun over each face. */
	readonly suns: readonly FaceSun[];
	/** What its cells can follow besides: guides, pictures, tables. */
	readonly followed: Followed;
	readonly assignments: readonly Assignment[];
	/** Its cells are no cells of the facade: it stands behind another, with no rules. */
	readonly bare: boolean;
	readonly meetings: readonly RimMeeting[];
}

export interface MassView {
	readonly id: string;
	readonly behind: boolean;
	readonly faces: readonly ShapeView[];
	readonly serial: number;
}

export interface ModelView {
	/** More of the same run is to come. */
	readonly partial: boolean;
	readonly masses: readonly MassView[];
	readonly zones: readonly ZoneView[];
	readonly guides: readonly Float64Array[];
	readonly problems: readonly Problem[];
	readonly ms: number;
}

export interface Progress {
	readonly what: string;
	readonly done: number;
	readonly of: number;
}

interface Wanted {
	readonly project: Project;
	readonly preview: boolean;
	/** Computed anew in a new thread for what is asked of it; the document is another one. */
	readonly again?: true;
}

/** A worker that has not let go so long after Cancel is ended, whatever it is in the middle of. */
const LET_GO_MS = 400;

function keepOnly<Key>(kept: Map<Key, unknown>, serials: ReadonlySet<Key>): void {
	for (const serial of kept.keys()) if (!serials.has(serial)) kept.delete(serial);
}

/**
 * A mark in the browser while a window computes. A window that was closed takes it along; one that is found at
 * opening is of a window that came to its end while it computed.
 */
const markOf = (owner: string) => `zygaster computing ${owner}`;

class GivenUp extends Error {}

/** What cells of a model can follow, as the model had it. */
function followedOf({ guides }: ModelMessage, { pictures, tables, zones }: Project): Followed {
	const prefixes = prefixesOf(zones);
	return {
		guides: new Map(
			guides.map(({ id, points }) => [
				id,
				Array.from({ length: points.length / 3 }, (_, k) => pointAt(points, k))
			])
		),
		pictures: new Map(pictures.map((one) => [one.id, one])),
		tables: new Map(tables.map((one) => [one.id, tableBook(one, prefixes)]))
	};
}

/** The computed model as the interface sees it; a worker keeps it up with the document. */
export class LiveModel {
	view = $state.raw<ModelView>({ partial: false, masses: [], zones: [], guides: [], problems: [], ms: 0 });
	/** The last run was given up; what is shown is the model before. */
	cancelled = $state(false);
	/** Set while a run takes long enough to be told about. */
	progress = $state.raw<Progress | null>(null);
	/** The view is older than the document. */
	behind = $state(true);
	failure = $state<string | null>(null);
	/** Nothing is computed until the person asks: the last time this window did not outlive it. */
	paused = $state(false);
	/** Edits are collected: the last model stays until it is run again. */
	held = $state(false);
	/** So many edits have come since what is shown. */
	waiting = $state(0);
	/** Runs that have ended; the screen tests wait for it. */
	runs = $state(0);

	private thread = takeThread();
	private readonly faces = new Map<number, FaceView>();
	private readonly groups = new Map<number, GroupView>();
	private readonly told = new Map<number, ToldView>();
	/** Both together, by their serials: what has not changed stays the same object. */
	private readonly toldGroups = new Map<string, ToldGroup>();
	private readonly shapes = new Map<number, MassShapes>();
	private wanted: Wanted | null = null;
	private last: Wanted | null = null;
	/** The document of what is shown. */
	private good: Project | null = null;
	/** Hours of sun are counted with every run: somebody looks at them. */
	private hoursLookedAt = false;
	/** What the last change of layout did to addresses. */
	report = $state.raw<LayoutReport | null>(null);
	private readonly addresses = new Map<string, Addresses>();
	private running = false;
	/** The run under way, and how to end waiting for it. */
	private run = 0;
	private takenOver = 0;
	private giveUp: ((why: string) => void) | null = null;
	private readonly mark: string | null;

	/** Files that the thread has. */
	private readonly sent = new Set<string>();

	/**
	 * @param files those that its documents name
	 * @param owner the project and window it computes for, where a crash is to be noticed at the next opening
	 */
	constructor(
		private readonly files: Files,
		owner: string | null = null
	) {
		this.mark = owner && markOf(owner);
		this.paused = this.mark !== null && localStorage.getItem(this.mark) !== null;
		if (this.mark) addEventListener('pagehide', this.unmark);
	}

	private readonly unmark = () => {
		if (this.mark && !this.paused) localStorage.removeItem(this.mark);
	};

	/** What can be asked of its thread. */
	get service(): Thread['service'] {
		return this.thread.service;
	}

	/** Its thread is at work, or would be waited for too long (ms). */
	awake(longest: number): Promise<unknown> {
		return Promise.race([this.thread.awake, new Promise((resolve) => setTimeout(resolve, longest))]);
	}

	/** Compute after all: after a crash, or after a run was cancelled. */
	resume(): void {
		this.paused = false;
		this.unmark();
		this.wanted ??= this.last;
		void this.runWanted();
	}

	/** Collect edits, or compute with every edit again. */
	hold(on: boolean): void {
		this.held = on;
		if (!on) void this.runWanted();
	}

	/** Compute what has come, and hold on to that. */
	runOnce(): void {
		void this.runWanted(true);
	}

	/** Compute a document. While one run is under way only the newest document waits for the next. */
	request(project: Project, preview = false): void {
		const asked = this.wanted ?? this.last;
		if (asked?.project === project && asked.preview === preview) return;
		this.wanted = { project, preview };
		this.behind = true;
		if (!preview) this.waiting++;
		void this.runWanted();
	}

	/** Count hours of sun on every cell from now on. */
	lookAtHours(): void {
		if (this.hoursLookedAt) return;
		this.hoursLookedAt = true;
		this.wanted ??= this.last;
		this.behind = true;
		void this.runWanted();
	}

	/** Give the run up: at the next step of the chain, or soon by ending its thread. */
	cancel(): void {
		void this.service.cancel();
		const run = this.run;
		setTimeout(() => {
			if (this.running && this.run === run) this.restart('cancelled');
		}, LET_GO_MS);
	}

	/** Begin again with a new thread; the last good model stays. */
	private restart(why: string): void {
		this.thread.worker.terminate();
		this.thread = startThread();
		// What a thread has sent is known to it alone; its serials stay apart from those of the next.
		const serials = [this.faces, this.groups, this.told, this.shapes].flatMap((kept) => [...kept.keys()]);
		void this.service.begin(serials.reduce((a, b) => Math.max(a, b), this.takenOver) + 1_000_000);
		this.takenOver += 1_000_000;
		for (const kept of [this.faces, this.groups, this.told, this.shapes]) kept.clear();
		this.sent.clear();
		this.giveUp?.(why);
	}

	close(): void {
		// The next project begins with a thread that is warm, and finds nothing of this one.
		if (this.running) this.thread.worker.terminate();
		else leaveThread(this.thread);
		this.unmark();
		removeEventListener('pagehide', this.unmark);
	}

	/** @param held though it is held */
	private async runWanted(held = false): Promise<void> {
		if (this.running || this.paused || !this.wanted) return;
		// The first model is made in any case: there is nothing to hold on to before it.
		if (this.held && !held && this.good) return;
		this.running = true;
		if (this.mark) localStorage.setItem(this.mark, new Date().toISOString());
		const { project, preview, again } = this.wanted;
		if (!again) {
			this.last = this.wanted;
			this.cancelled = false;
			this.waiting = 0;
		}
		this.wanted = null;
		try {
			const run = ++this.run;
			// It comes by a line of its own, and may come after the run has ended.
			const report = proxy((what: string, done: number, of: number) => {
				if (this.running && this.run === run && !again) this.progress = { what, done, of };
			});
			const isFirst = this.good === null;
			const firstCells = isFirst
				? proxy((message: ModelMessage) => {
						if (this.running && this.run === run) this.take(message, project);
					})
				: null;
			this.sendFiles();
			const ended = new Promise<never>((_, reject) => {
				this.giveUp = (why) => reject(new GivenUp(why));
				this.thread.worker.onerror = (event) => {
					event.preventDefault();
					if (this.run === run) this.restart(`its thread ended (${event.message || 'out of memory'})`);
				};
			});
			const message = await Promise.race([
				this.service.run(project, report, firstCells, this.hoursLookedAt),
				ended
			]);
			if (message) this.take(message, project);
			if (again) return;
			if (message) this.good = project;
			if (message && !preview) this.reportLayout();
			this.failure = null;
			this.behind = this.wanted !== null || !message;
			this.cancelled = !message;
		} catch (error) {
			if (again) return;
			this.cancelled = error instanceof GivenUp && error.message === 'cancelled';
			this.failure = this.cancelled ? null : error instanceof Error ? error.message : String(error);
			// What is shown can be exported: the new thread is given it.
			if (error instanceof GivenUp && this.good)
				this.wanted ??= { project: this.good, preview: true, again: true };
		} finally {
			this.giveUp = null;
			this.progress = null;
			this.running = false;
			this.unmark();
			this.runs++;
			if (this.wanted) void this.runWanted();
		}
	}

	/** Messages reach the thread in their order, so that it has them when the run begins. */
	private sendFiles(): void {
		for (const hash of this.files.names()) {
			if (this.sent.has(hash)) continue;
			void this.service.takeFile(hash, this.files.text(hash)!);
			this.sent.add(hash);
		}
	}

	/** Say what has become of addresses since the last settled document. */
	private reportLayout(): void {
		for (const zone of this.view.zones) {
			if (zone.behind) continue;
			const before = this.addresses.get(zone.id);
			const after = addressesOf(zone);
			this.addresses.set(zone.id, after);
			const report = before && layoutReport(before, after, zone);
			if (report) this.report = report;
		}
	}

	/** Put a message together with what is here already. */
	private take(message: ModelMessage, project: Project): void {
		const followed = followedOf(message, project);
		const merge = <T extends { serial: number }>(
			kept: Map<number, T>,
			items: readonly (T | Unchanged)[]
		): T[] =>
			items.map((item) => {
				if (!('unchanged' in item)) kept.set(item.serial, item);
				return kept.get(item.serial)!;
			});
		const zones = message.zones.map((zone): ZoneView => ({
			...zone,
			followed,
			faces: merge<FaceView>(this.faces, zone.faces),
			groups: merge<GroupView>(this.groups, zone.groups).map((group, k) => {
				const [{ serial, ...told }] = merge<ToldView>(this.told, [zone.told[k]!]) as [ToldView];
				const key = `${group.serial} ${serial}`;
				const both = this.toldGroups.get(key) ?? { ...group, ...told, told: serial };
				this.toldGroups.set(key, both);
				return both;
			})
		}));
		const masses = message.masses.map(({ id, behind, shapes }): MassView => {
			const [{ faces, serial }] = merge<MassShapes>(this.shapes, [shapes]) as [MassShapes];
			return { id, behind, faces, serial };
		});
		keepOnly(this.shapes, new Set(masses.map((mass) => mass.serial)));
		const faces = new Set(zones.flatMap((zone) => zone.faces.map((face) => face.serial)));
		const groups = new Set(zones.flatMap((zone) => zone.groups.map((group) => group.serial)));
		keepOnly(this.faces, faces);
		keepOnly(this.groups, groups);
		const all = zones.flatMap((zone) => zone.groups);
		keepOnly(this.told, new Set(all.map(({ told }) => told)));
		keepOnly(this.toldGroups, new Set(all.map(({ serial, told }) => `${serial} ${told}`)));
		const { partial, problems, total } = message;
		const guides = message.guides.map(({ points }) => points);
		this.view = { partial, masses, zones, guides, problems, ms: total };
	}
}

/** Whatever is made anew has another serial: as long as these are the same, so is the model. */
export const serialsOf = ({ zones }: ModelView): number[] =>
	zones.flatMap(({ faces, groups }) => [...faces, ...groups].map(({ serial }) => serial));
