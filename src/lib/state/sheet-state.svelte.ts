import { SvelteMap, SvelteSet } from 'svelte/reactivity';

/** A part of the build sheet, under a heading of its own. */
export type SheetPart = 'masses' | 'kit' | 'limits' | 'cost' | `zone ${string}`;

/** More zones than this and only the part that is worked on is open at first. */
const MOST_OPEN = 4;

/** The part of the sheet in which a path of the document stands. */
export function partOfPath(path: string): SheetPart {
	const [list, id] = path.split('/');
	if (list === 'zones' && id) return `zone ${id}`;
	if (['limits', 'loads', 'heat'].includes(list!)) return 'limits';
	if (list === 'cost') return 'cost';
	return list === 'variants' ? 'kit' : 'masses';
}

/** Something that a clause offers to do. */
export interface Act {
	readonly label: string;
	readonly act: () => void;
	/** Why it cannot be done now. */
	readonly disabled?: string | false;
}

/** Several of one kind, under a name of their own. */
export interface ActGroup {
	readonly label: string;
	readonly acts: readonly Act[];
}

/** Every act, those of groups by the name of their group too. */
export const allActs = (acts: readonly (Act | ActGroup)[]): Act[] =>
	acts.flatMap((one) =>
		'acts' in one ? one.acts.map((act) => ({ ...act, label: `${one.label} ${act.label}` })) : [one]
	);

/** A clause as Find knows it. */
export interface Said {
	readonly path: string;
	readonly number: string;
	/** As it reads on screen. */
	readonly words: string;
	readonly acts: readonly (Act | ActGroup)[];
}

type Teller = () => Said;

/** How somebody has the build sheet before them, and what it says. */
export class SheetState {
	/** Clauses that are read at full length, by their paths. */
	readonly atLength = new SvelteSet<string>();
	/** What was folded or opened by hand. */
	private readonly byHand = new SvelteMap<SheetPart, boolean>();
	private readonly foldedGroups = new SvelteSet<string>();
	/** The part that what is worked on stands in. */
	followed = $state<SheetPart | null>(null);
	private readonly tellers = new SvelteMap<string, Teller>();
	private readonly isLong: boolean;
	private readonly left = new Map<string, Said>();

	/** @param zones how many there are when the project is opened */
	constructor(zones: number) {
		this.isLong = zones > MOST_OPEN;
	}

	/** What is open and what is folded, to be looked at for changes. */
	get open(): readonly unknown[] {
		return [this.followed, ...this.byHand.entries()];
	}

	isFolded(part: SheetPart): boolean {
		return this.byHand.get(part) ?? (this.isLong && part !== this.followed);
	}

	/** Groups of the document's lists fold each by themselves. */
	isGroupFolded(list: string, id: string): boolean {
		return this.foldedGroups.has(`${list} ${id}`);
	}

	foldGroup(list: string, id: string, folded: boolean): void {
		if (folded) this.foldedGroups.add(`${list} ${id}`);
		else this.foldedGroups.delete(`${list} ${id}`);
	}

	fold(part: SheetPart, folded: boolean): void {
		this.byHand.set(part, folded);
	}

	/** Open the part that is worked on; one that was opened so before is folded again. */
	follow(part: SheetPart): void {
		if (this.byHand.get(part)) this.byHand.delete(part);
		this.followed = part;
	}

	/** Let Find know of a clause, for as long as it stands there. @returns how it leaves; its words are remembered */
	tell(path: string, teller: Teller): () => void {
		this.tellers.set(path, teller);
		return () => {
			if (this.tellers.get(path) !== teller) return;
			this.left.set(path, { ...teller(), acts: [] });
			this.tellers.delete(path);
		};
	}

	/** Every clause that stands on the sheet, or stood when it was last looked at. */
	said(): Said[] {
		const now = [...this.tellers.values()].map((teller) => teller());
		return [...now, ...[...this.left.values()].filter(({ path }) => !this.tellers.has(path))];
	}
}
