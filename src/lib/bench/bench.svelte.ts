import { materialsOf, partsOf } from '$core/cladding/kit';
import { centreOf, pointAt, type Vector } from '$core/geometry/vector';
import { inspectPart, type Inspection } from '$core/part/inspect';
import { cornersOfTrial, trialsOf, type Trial } from '$core/part/trials';
import type { PartDefinition, PartInput } from '$core/project/part-definition';
import type { Problem } from '$core/units/problem';
import { cameTo, hang, type InputValues } from './hang';
import { orderedIn } from './ordered';
import type { Desk } from '$lib/state/desk.svelte';
import { insertAt, pathTo, setAt } from '$core/project/typed-path';

/** A trial's points, and where they come from. */
export interface NamedTrial extends Trial {
	/** A cell of the model that uses the part. */
	readonly real: boolean;
}

/** What a step makes on a trial: points (mm), lines through them and triangles between them by their places. */
export interface Ghost {
	readonly name: string;
	readonly is: string;
	readonly isChosen: boolean;
	readonly points: readonly Vector[];
	readonly loops: readonly (readonly number[])[];
	readonly triangles: readonly number[];
}

const MOST_REAL = 3;

function mean(points: readonly (Vector | undefined)[]): Vector | null {
	const there = points.flatMap((p) => (p ? [p] : []));
	return there.length ? centreOf(there) : null;
}

/** One part on the bench: what it is hung on, the values it is tried with, and what comes of it. */
export class Bench {
	/** The step whose result is shown. */
	step = $state<string | null>(null);
	/** Values the part is tried with; the definition keeps its own. */
	inputs = $state.raw<InputValues>({});
	private trialName = $state<string | null>(null);
	/** The trial's points where they have been dragged or typed. */
	private moved = $state.raw<readonly Vector[] | null>(null);
	private lastGood: { readonly part: PartDefinition; readonly inspection: Inspection } | null = null;

	constructor(
		private readonly desk: Desk,
		readonly id: string
	) {}

	readonly library = $derived.by(() => partsOf(this.desk.project.document));
	readonly materials = $derived.by(() => materialsOf(this.desk.project.document));
	readonly part = $derived.by(() => this.library.find((one) => one.id === this.id));
	/** Whether it has been made the project's own. */
	readonly own = $derived.by(() => this.desk.project.document.parts.some(({ id }) => id === this.id));
	readonly trials = $derived.by((): readonly NamedTrial[] =>
		this.part
			? [...trialsOf(this.part.anchor).map((trial) => ({ ...trial, real: false })), ...this.realCells()]
			: []
	);
	readonly trial = $derived(this.trials.find(({ name }) => name === this.trialName) ?? this.trials[0]);
	readonly points = $derived(this.moved ?? this.trial?.points ?? []);
	readonly corners = $derived(this.part ? cornersOfTrial(this.part.anchor, this.points.length) : 4);
	/** Lowered anew only when the definition or the number of corners changes. */
	private readonly inspections = $derived.by(() => {
		void this.part;
		return new Map<number, Inspection>();
	});
	inspectionFor(part: PartDefinition, corners: number): Inspection {
		const known = this.inspections.get(corners) ?? inspectPart(part, corners, this.library);
		this.inspections.set(corners, known);
		return known;
	}
	readonly inspection = $derived(this.part ? this.inspectionFor(this.part, this.corners) : null);
	/** What is wrong at some of a part's places, by their names in faults. */
	problemsAt(...places: readonly string[]): Problem[] {
		return (this.inspection?.faults ?? [])
			.filter(({ step }) => places.includes(step))
			.map(({ step, text }) => ({ at: step, text }));
	}
	/** What all steps make, those in groups included: names with types. */
	readonly made = $derived(
		new Map(
			[...(this.inspection?.steps ?? [])].flatMap(([name, { is }]) => (is ? [[name, is] as const] : []))
		)
	);
	/** What is shown: the part as it is, or as it was when it last worked. */
	readonly shown = $derived.by(() => {
		if (!this.part || !this.inspection) return null;
		if (this.inspection.faults.length === 0) this.lastGood = { part: this.part, inspection: this.inspection };
		return this.lastGood ?? { part: this.part, inspection: this.inspection };
	});
	readonly behind = $derived((this.inspection?.faults.length ?? 0) > 0);
	readonly piece = $derived.by(() => {
		const shown = this.shown;
		if (!shown || this.points.length === 0) return null;
		return hang(shown.part, shown.inspection, this, this.points, this.inputs);
	});
	/** What every step makes, as it came out; those whose solids are ordered are seen as what they are. */
	readonly ghosts = $derived.by((): readonly Ghost[] => {
		const { shown, piece } = this;
		if (!shown || !piece) return [];
		const ordered = new Set(orderedIn(shown.part));
		return [...shown.inspection.steps].flatMap(([name, view]): Ghost[] => {
			const isChosen = name === this.step;
			if (!view.is || !view.points.length || (ordered.has(name) && !isChosen)) return [];
			return [{ name, is: view.is, isChosen, ...cameTo(piece, view) }];
		});
	});

	/** A value that is being picked on the stage, of one of some types. */
	pick = $state.raw<{
		readonly of: readonly string[];
		readonly sees: ReadonlyMap<string, string>;
		readonly take: (name: string) => void;
	} | null>(null);
	/** Where the values that can be picked lie: a point itself, the middle of a line, of a ring. */
	readonly pickable = $derived.by((): readonly { readonly name: string; readonly at: Vector }[] => {
		const { pick } = this;
		if (!pick) return [];
		return [...pick.sees].flatMap(([name, is]) => {
			if (!pick.of.includes(is)) return [];
			const at = this.middleOf(name);
			return at ? [{ name, at }] : [];
		});
	});
	private middleOf(name: string): Vector | null {
		const ring = this.points.slice(0, this.corners);
		const [, of, number] = /^(corner|point|edge)(\d+)$/.exec(name) ?? [];
		const k = Number(number) - 1;
		if (of === 'edge') return mean([ring[k], ring[(k + 1) % ring.length]]);
		if (of) return mean([this.points[k]]);
		if (name === 'start' || name === 'node') return this.points[0] ?? null;
		if (name === 'end') return this.points.at(-1) ?? null;
		if (name === 'cell' || name === 'centre' || name === 'face_centre') return mean(ring);
		if (name === 'line' || name === 'chain') return mean(this.points);
		const view = this.shown?.inspection.steps.get(name);
		return view && this.piece ? mean(cameTo(this.piece, view).points) : null;
	}

	/** Cells of the model that this part is on: the most warped first. */
	private realCells(): NamedTrial[] {
		const { part } = this;
		if (part?.anchor.kind !== 'ring') return [];
		const label = part.label;
		const cells = this.desk.model.view.zones.flatMap((zone) =>
			zone.groups
				.filter((group) => group.part === label && group.over === 'cell')
				.flatMap((group) => {
					const face = zone.faces[group.face];
					return face ? Array.from(group.sites, (cell) => ({ face, cell })) : [];
				})
		);
		return cells
			.sort((a, b) => b.face.measures.warp[b.cell]! - a.face.measures.warp[a.cell]!)
			.slice(0, MOST_REAL)
			.map(({ face, cell }, k) => {
				const { start, corners } = face.cells;
				const points = Array.from(corners.subarray(start[cell]!, start[cell + 1]!), (node) =>
					pointAt(face.grid.positions, node)
				);
				const from = points[0]!;
				return {
					name: k === 0 ? 'worst real' : `real ${k + 1}`,
					real: true,
					points: points.map((p): Vector => [p[0] - from[0], p[1] - from[1], p[2] - from[2]])
				};
			});
	}

	chooseTrial(name: string): void {
		this.trialName = name;
		this.moved = null;
	}
	movePoint(k: number, to: Vector): void {
		this.moved = this.points.map((p, n) => (n === k ? to : p));
	}
	get isMoved(): boolean {
		return this.moved !== null;
	}
	resetTrial(): void {
		this.moved = null;
	}
	setInput(name: string, value: PartInput['default']): void {
		this.inputs = { ...this.inputs, [name]: value };
	}

	/** Change the definition; a part that ships becomes the project's own by that. */
	change(label: string, next: PartDefinition): boolean {
		const { document } = this.desk.project;
		if (this.own) return this.desk.do(label, setAt(pathTo('parts', this.id), next));
		return this.desk.do(
			`${label} (the project's own now)`,
			insertAt(pathTo('parts'), document.parts.length, next)
		);
	}
}
