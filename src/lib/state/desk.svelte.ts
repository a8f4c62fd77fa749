import type { Look, Section } from '$core/project/view-schema';
import type { Edit } from '$core/project/edits';
import { namedValues, NOTHING_NAMED, type Named } from '$core/named/named-values';
import { namesForBound } from '$core/named/bound-values';
import { fieldNames, fieldsOver } from '$core/field/fields';
import { startingView, type SurfaceView } from './surface-view';
import { getContext, setContext } from 'svelte';
import { toast } from 'svelte-sonner';
import { clauseOf } from './clause-of';
import { FlagWalk } from './flag-walk.svelte';
import { KindSearch } from './kind-search.svelte';
import { MarkBook } from './mark-book.svelte';
import { ClashSearch } from './clash-search.svelte';
import { MoveSearch } from './move-search.svelte';
import type { LiveModel } from './model.svelte';
import type { OpenProject } from './project.svelte';
import { find, Selection, type Found } from './selection.svelte';
import { SheetState } from './sheet-state.svelte';
import { pathTo, setAt, type Path } from '$core/project/typed-path';
import { isWithin } from '$core/project/paths';
import { TotalsSearch } from './totals-search.svelte';
import { Partners } from './partners.svelte';
import { Survey } from './survey.svelte';
import { ToldColours, type Told } from './told-colours.svelte';
import { Visibility } from './visibility.svelte';

export const lenses = [
	{ id: 'form', label: 'Form' },
	{ id: 'set-out', label: 'Set out' },
	{ id: 'clad', label: 'Clad' },
	{ id: 'check', label: 'Check' },
	{ id: 'issue', label: 'Issue' }
] as const;
/** How lengths may be shown. */
export const displays = [
	{ value: 'mm', label: 'mm' },
	{ value: 'm', label: 'm' },
	{ value: 'ft-in', label: 'ft-in' }
] as const;
export type Lens = (typeof lenses)[number]['id'];

/** In which lens an edit of a path has its effect; null where it shows in all. */
function lensOfEffect(path: string): Lens | null {
	if (/^variants\b|^zones\/[^/]+\/(rules|runs|nodes|exceptions)\b/.test(path)) return 'clad';
	return /^zones\/[^/]+\/(settingOut|moves|pattern|layer|slivers)\b/.test(path) ? 'set-out' : null;
}
/** What each lens shows of what those two show. */
const shows: Readonly<Record<Lens, readonly Lens[]>> = {
	form: [],
	'set-out': ['set-out'],
	clad: ['clad', 'set-out'],
	check: ['set-out'],
	issue: ['clad', 'set-out']
};

/** A page narrower than this has room for the sheet and the model alone (CSS pixels). */
const NARROW = 1024;

/** Everything about one open project, shared by its pages. */
export class Desk {
	readonly selection = new Selection();
	readonly clashes: ClashSearch;
	readonly flags: FlagWalk;
	readonly kinds: KindSearch;
	readonly marks = new MarkBook();
	readonly moves: MoveSearch;
	readonly totals: TotalsSearch;
	readonly sheet: SheetState;
	readonly visibility: Visibility;
	readonly told: ToldColours;
	readonly partners: Partners;
	readonly survey: Survey;
	lens = $state<Lens>('clad');
	/** Whatever is changed, this lens stays. */
	pinned = $state(false);
	/** The lens was turned to by an edit: the sheet need not be brought to it. */
	turned = false;
	/** The zone the map shows. */
	activeZone = $state<string | null>(null);
	/** The key of what cells are coloured by. */
	measure = $state(fieldsOver('cell')[0]!.id);
	labels = $state(false);
	/** How the Form lens shows faces. */
	surface = $state.raw<SurfaceView>(startingView);
	/** Where there is little room it is asked for. */
	mapShown = $state(innerWidth >= NARROW);
	/** The map has all of the room, the model none. */
	mapAlone = $state(false);
	/** The side of the picture on which a card covers nothing that is chosen. */
	cardSide = $state<'left' | 'right'>('right');
	/** The cell that is in the middle of the picture of the model. */
	lookedAt = $state<string | null>(null);
	/** Dialogs that every page of the project can open. */
	finding = $state(false);
	keysShown = $state(false);
	/** Cells that a clause is about, lit while it is pointed at: of each face of a zone. */
	lit = $state.raw<{ readonly zone: string; readonly cells: readonly (readonly number[])[] } | null>(null);
	/** The hour of the project's day whose sun lights the model; null for a light that shows it well. */
	lightAt = $state<number | null>(null);
	/** Where the model is cut open; it stays so through all lenses. */
	section = $state.raw<Section | null>(null);
	look = $state<Look>('paper');
	/** The kept view that is shown, until the eye moves. */
	keptView = $state<string | null>(null);
	/** Counts up whenever what is chosen is to be brought into the picture. */
	framings = $state(0);
	/** Files that were written since the project was opened, the newest first. */
	written = $state.raw<readonly { readonly name: string; readonly size: string; readonly at: Date }[]>([]);
	/** Pieces of the model that are far are drawn plainly: there are too many. */
	sparing = $state(false);
	/** The release that drawings are clouded against; null for none. */
	cloudsSince = $state<number | null>(null);
	/** Lengths are being measured in the model. */
	measures = $state(false);
	/** A guide is being drawn in the model. */
	drawsGuide = $state(false);
	/** Addresses that are shown alone; null when everything is. */
	isolated = $state.raw<readonly string[] | null>(null);
	/** The model has been seen, or waited for long enough: what lies around it is put together. */
	begun = $state(false);
	/** The lens whose colours are shown: under the look of measures always theirs. */
	readonly painted = $derived<Lens>(this.look === 'measures' ? 'check' : this.lens);
	/** The lens that the model is drawn for: pieces that clash are seen as pieces. */
	readonly drawn = $derived.by((): Lens =>
		this.painted === 'check' && this.clashes.shown ? 'clad' : this.painted
	);
	/** What is looked at is said in a band along the top of the model. */
	readonly hasBand = $derived(['form', 'check', 'issue'].includes(this.lens) || this.painted === 'check');
	/** What cells are coloured by instead of a measure. */
	readonly chosenColours = $derived.by(() => this.told.painted ?? this.survey.painted ?? this.kinds.painted);
	readonly display = $derived.by(() => this.project.document.display);

	/** Values of the whole project; none while one of them is wrong. */
	readonly named = $derived.by((): Named => {
		try {
			return namedValues(this.project.document.named, fieldNames);
		} catch {
			return NOTHING_NAMED;
		}
	});

	/** What formulas of bound numbers may name; nothing while one of the named values is wrong. */
	readonly boundNames = $derived.by((): Named => {
		try {
			return namesForBound(this.project.document);
		} catch {
			return NOTHING_NAMED;
		}
	});
	/** The formulas of numbers that follow one, by their paths. */
	readonly bound = $derived.by(
		() => new Map(this.project.document.bound.map(({ id, value }) => [id, value]))
	);

	constructor(
		readonly project: OpenProject,
		readonly model: LiveModel
	) {
		this.clashes = new ClashSearch(model);
		this.kinds = new KindSearch(model);
		this.moves = new MoveSearch(model);
		this.totals = new TotalsSearch(model);
		this.told = new ToldColours(model);
		this.partners = new Partners(project.id);
		this.survey = new Survey(model);
		this.flags = new FlagWalk(model, this.selection, this.partners);
		this.sheet = new SheetState(project.document.zones.length);
		this.visibility = new Visibility(project.id);
		this.activeZone = project.document.zones[0]?.id ?? null;
	}

	/** What the piece at a site is called. */
	markOf(found: Omit<Found, 'address'>): string {
		const zone = this.model.view.zones[found.zone]!;
		const code = this.project.document.zones.find(({ id }) => id === zone.id)?.code ?? '';
		return this.marks.of(zone, code, found);
	}

	/** Do a command; what cannot be is said, and nothing changes. */
	do(label: string, ...edits: Edit[]): boolean {
		const locked = this.lockedOf(edits);
		if (locked) {
			this.sayLocked(locked);
			return false;
		}
		try {
			this.project.do(label, ...edits);
			this.turnToEffect(edits);
			return true;
		} catch (error) {
			toast.error(error instanceof Error ? error.message : String(error));
			return false;
		}
	}

	/** The path of something locked that edits would change. */
	private lockedOf(edits: readonly Edit[]): string | undefined {
		return this.visibility.locked.find((path) => edits.some((edit) => isWithin(edit.path, path)));
	}

	/** Say that something is locked, with the way to unlock it. @param path of a zone or a mass */
	sayLocked(path: string): void {
		const [list, id] = path.split('/') as ['zones' | 'masses', string];
		const name = this.project.document[list].find((one) => one.id === id)?.name ?? id;
		toast(`${name} is locked`, {
			id: `locked ${path}`,
			action: { label: 'Unlock', onClick: () => this.visibility.lock(path, false) }
		});
	}

	/** Whether a zone of the model can be chosen from; if not, it is said. @param index of the zone in the view */
	mayChoose(index: number): boolean {
		const zone = this.model.view.zones[index];
		const path = zone && pathTo('zones', zone.id);
		if (!path || !this.visibility.isLocked(path)) return true;
		this.sayLocked(path);
		return false;
	}

	/** Show where an edit has its effect, if it does not show now; where colours are looked at it is offered. */
	private turnToEffect(edits: readonly Edit[]): void {
		const lens = edits.map(({ path }) => lensOfEffect(path)).find((one) => one !== null);
		if (!lens || this.pinned || shows[this.lens].includes(lens)) return;
		if (this.lens !== 'check') this.turnTo(lens);
		else
			toast('Its pieces are shown in the Clad lens', {
				action: { label: 'Show', onClick: () => this.turnTo(lens) }
			});
	}

	/** To the next flag, or the one before: its piece is chosen and brought into the picture, its zone onto the map. */
	walkFlags(by: 1 | -1): void {
		if (!this.flags.step(by)) return;
		const { view } = this.model;
		const found = find(view, this.selection.last!);
		if (found) {
			this.activeZone = view.zones[found.zone]!.id;
			// The sheet goes along, also from a clause that is being edited.
			this.selection.clause = clauseOf(view, this.project.document.zones, found) ?? this.selection.clause;
		}
		this.framings++;
	}

	/** Another lens, while the sheet stays where it is. */
	private turnTo(lens: Lens): void {
		if (this.lens === lens) return;
		this.turned = true;
		this.lens = lens;
	}

	/** Colour the cells by a measure, with a zone on the map; the sheet stays at the clause that was asked. */
	showInColour(measure: string, zone: string): void {
		this.measure = measure;
		this.activeZone = zone;
		this.turnTo('check');
	}

	/** Colour the cells by what is said of their pieces. */
	showTold(told: Told): void {
		if (this.clashes.shown) this.clashes.close();
		this.kinds.shown = this.survey.shown = false;
		this.told.shown = told;
		this.turnTo('check');
	}

	/** The mass that is worked on: the one of the chosen face or clause. */
	readonly activeMass = $derived.by(() => {
		const clause = this.selection.clause?.match(/^masses\/([^/]+)/)?.[1];
		const id = this.selection.faces.at(-1)?.split('/')[0] ?? clause;
		return this.project.document.masses.find((mass) => mass.id === id);
	});

	/** Show the selection alone, or everything again. */
	isolate(): void {
		const { addresses } = this.selection;
		this.isolated = this.isolated || !addresses.length ? null : addresses;
	}

	set<T>(path: Path<T>, value: NoInfer<T>, label: string): boolean {
		return this.do(label, setAt(path, value));
	}
}

const key = Symbol('desk');
export const provideDesk = (desk: Desk) => setContext(key, desk);
export const useDesk = () => getContext<Desk>(key);
