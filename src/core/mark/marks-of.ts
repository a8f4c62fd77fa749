import { besideName, siteOf } from '../cladding/beside';
import { markPrefix } from '../cladding/marks';
import type { ClauseGroup, Model, ZoneModel } from '../cladding/model';
import type { SiteSet } from '../cladding/sites';
import { pieceKindsOf } from '../like/bars-and-nodes';
import { kindsOf } from '../like/kinds';
import { markedSites, type MarkedSite, type Marking, type MarksSettings } from '../project/marks-schema';
import { inOrder } from '../units/in-order';
import { formatNumber } from '../units/quantity';
import { once } from '../units/once';
import { atOnce } from '../units/steps';
import { MarkError, readPattern, type MarkToken, type MarkWord } from './pattern';

/** Marks of one's own of the sites of a face; the empty one where its piece has the mark of its place. */
export interface SiteMarks {
	readonly zone: string;
	readonly face: number;
	readonly over: MarkedSite;
	readonly marks: readonly string[];
}

/** What the pieces of a model are called. */
export interface Marks {
	/** What is of one's own. */
	readonly own: readonly SiteMarks[];
	/** By kind of site: why its pieces have the marks of their places all the same. */
	readonly problems: Partial<Record<MarkedSite, string>>;
	/** Of pieces that have been frozen before, how many are there, and how many pieces came later. */
	readonly frozen: number;
	readonly later: number;
}

const keyOf = (zone: string, face: number, over: string) => `${zone} ${face} ${over}`;

/** A piece that is to be marked. */
interface ToMark {
	readonly zone: ZoneModel;
	readonly z: number;
	readonly clause: ClauseGroup;
	readonly sites: SiteSet;
	readonly row: number;
}

/** Pieces on one kind of site, in the order in which their numbers run. */
function inBuildingOrder({ zones }: Model, over: MarkedSite, { along, from, side }: Marking): ToMark[] {
	const pieces: ToMark[] = [];
	zones.forEach(({ model }, z) => {
		for (const clause of model?.groups ?? []) {
			if (clause.group.over !== over || besideName(clause)) continue;
			const sites = siteOf(model!, clause);
			for (let row = 0; row < clause.group.sites.length; row++)
				pieces.push({ zone: model!, z, clause, sites, row });
		}
	});
	const column = (read: (piece: ToMark) => number, turned = false) => {
		const values = Uint32Array.from(pieces, read);
		if (!turned) return values;
		const most = values.reduce((a, b) => Math.max(a, b), 0);
		return values.map((one) => most - one);
	};
	const site = ({ clause, row }: ToMark) => clause.group.sites[row]!;
	const course = column((piece) => piece.sites.course(site(piece)), from === 'head');
	const bay = column((piece) => piece.sites.bay(site(piece)), side === 'right');
	const order = inOrder(
		[
			column(({ z }) => z),
			column(({ clause }) => clause.face),
			...(along === 'courses' ? [course, bay] : [bay, course]),
			column(site)
		],
		pieces.length
	);
	return Array.from(order, (k) => pieces[k]!);
}

/** Only what can stand in a mark. */
const plain = (text: string) => text.replace(/[^\p{L}\p{N} ._/-]/gu, ' ').trim();

/** The highest level at or below a place, by its name; the lowest one for what lies below it. */
function levelNamer({ project: { levels } }: Model): (height: number) => string {
	const rising = [...levels].sort((a, b) => a.height - b.height);
	return (height) => {
		let name = rising[0]?.name ?? '0';
		for (const level of rising) if (level.height <= height) name = level.name;
		return plain(name);
	};
}

/** The height of a site: of the middle of the nodes that it lies on (mm). */
function heightOf({ zone, clause, sites, row }: ToMark): number {
	const { positions } = zone.faces[clause.face]!.grid;
	const nodes = sites.nodes(clause.group.sites[row]!);
	let sum = 0;
	for (let k = 0; k < nodes.length; k++) sum += positions[3 * nodes[k]! + 2]!;
	return sum / (nodes.length || 1);
}

/** What stands for the number of a piece until it is counted. */
const COUNTED = '\u0000';

const padded = (value: number, digits: number) => String(value).padStart(digits, '0');

/** What a piece is like, among those on the same kind of site. */
function kindNamer(model: Model): (piece: ToMark) => string {
	const { like } = model.project;
	const cells = once(() => atOnce(kindsOf(model, like)));
	const others = {
		line: once(() => atOnce(pieceKindsOf(model, 'line', like))),
		node: once(() => atOnce(pieceKindsOf(model, 'node', like)))
	};
	return ({ z, clause, row }) => {
		const { over, sites } = clause.group;
		if (over === 'line' || over === 'node') {
			const { kinds, of } = others[over]();
			return kinds[of.get(clause)![row]!]!.name;
		}
		const { kinds, of } = cells();
		return kinds[of[z]![clause.face]![sites[row]!]!]!.name;
	};
}

/** What a token says of a piece. */
function teller(model: Model): (word: MarkWord, digits: number, piece: ToMark) => string {
	const levelAt = levelNamer(model);
	const kindAt = kindNamer(model);
	return (word, digits, piece) => {
		const { zone, clause, sites, row } = piece;
		const site = clause.group.sites[row]!;
		switch (word) {
			case 'zone':
				return zone.zone.code;
			case 'face':
				return padded(clause.face + 1, digits);
			case 'level':
				return levelAt(heightOf(piece));
			case 'course':
				return padded(sites.course(site), digits);
			case 'bay':
				return padded(sites.bay(site), digits);
			case 'kind':
				return kindAt(piece);
			case 'part':
				return plain(clause.group.ready.part.label);
			case 'variant':
				return plain(clause.group.ready.variant.name);
			case 'number':
				return COUNTED;
		}
	};
}

/** What was kept, by the addresses of pieces. */
const frozenOf = ({ frozen }: MarksSettings): Map<string, string> =>
	new Map(
		(frozen ?? []).map((line) => {
			const at = line.indexOf(' ');
			return [line.slice(0, at), line.slice(at + 1)] as const;
		})
	);

const addressOf = ({ zone, clause, sites, row }: ToMark) =>
	`${zone.zone.id}/${sites.address(clause.group.sites[row]!)}`;

/**
 * Mark pieces one after the other: those that were frozen keep their marks, the others are counted on.
 * @throws MarkError when two would have the same mark
 */
function mark(
	pieces: readonly ToMark[],
	tokens: readonly MarkToken[],
	tell: ReturnType<typeof teller>,
	frozen: ReadonlyMap<string, string>,
	used: Set<string>
): string[] {
	const last = new Map<string, number>();
	const twice: string[] = [];
	const kept = pieces.map((piece) => (frozen.size ? frozen.get(addressOf(piece)) : undefined));
	// What was ever given to a piece is given to no other.
	for (const name of frozen.values()) used.add(name);
	const marks = pieces.map((piece, k) => {
		const known = kept[k];
		if (known !== undefined) return known;
		const open = tokens
			.map((token) => (typeof token === 'string' ? token : tell(token.word, token.digits, piece)))
			.join('');
		const digits = tokens.find((token) => typeof token !== 'string' && token.word === 'number');
		if (!digits || typeof digits === 'string') {
			if (used.has(open)) twice.push(open);
			used.add(open);
			return open;
		}
		let number = last.get(open) ?? 0;
		let name: string;
		do name = open.replaceAll(COUNTED, padded(++number, digits.digits));
		while (used.has(name));
		last.set(open, number);
		used.add(name);
		return name;
	});
	if (twice.length)
		throw new MarkError(
			`${formatNumber(twice.length + 1)} pieces or more would share marks, as ${twice[0]}; add (number), which tells them apart`
		);
	return marks;
}

const nothing: Marks = { own: [], problems: {}, frozen: 0, later: 0 };

function make(model: Model): Marks {
	const { marks: settings } = model.project;
	const frozen = frozenOf(settings);
	if (!frozen.size && markedSites.every((over) => !settings[over])) return nothing;
	const tell = teller(model);
	const used = new Set<string>();
	const own = new Map<string, { zone: string; face: number; over: MarkedSite; marks: string[] }>();
	const problems: Partial<Record<MarkedSite, string>> = {};
	let [kept, later] = [0, 0];
	const byPlace = ({ zone, clause, sites, row }: ToMark) =>
		sites.mark(clause.group.sites[row]!, markPrefix(zone.zone.code, zone.faces.length, clause.face));
	const stood = (pieces: readonly ToMark[]) =>
		pieces.map((piece) => frozen.get(addressOf(piece)) ?? byPlace(piece));
	const AS_IT_IS: Marking = { pattern: '', along: 'courses', from: 'foot', side: 'left' };
	const toMark = markedSites.map((over) => ({
		over,
		marking: settings[over],
		pieces: inBuildingOrder(model, over, settings[over] ?? AS_IT_IS)
	}));
	const give = (over: MarkedSite, pieces: readonly ToMark[], names: readonly string[]) =>
		pieces.forEach(({ zone, clause, row }, k) => {
			const key = keyOf(zone.zone.id, clause.face, over);
			const list = own.get(key) ?? { zone: zone.zone.id, face: clause.face, over, marks: [] };
			own.set(key, list);
			const site = clause.group.sites[row]!;
			while (list.marks.length < site) list.marks.push('');
			list.marks[site] = names[k]!;
		});
	// Marks of places are names too: where some pieces have them, no other may.
	for (const { over, marking, pieces } of toMark) {
		if (frozen.size)
			for (const piece of pieces)
				if (frozen.has(addressOf(piece))) kept++;
				else later++;
		if (marking) continue;
		const names = stood(pieces);
		for (const name of names) used.add(name);
		if (frozen.size) give(over, pieces, names);
	}
	for (const { over, marking, pieces } of toMark) {
		if (!marking) continue;
		try {
			give(over, pieces, mark(pieces, readPattern(marking.pattern), tell, frozen, used));
		} catch (error) {
			if (!(error instanceof MarkError)) throw error;
			problems[over] = error.message;
			// What is frozen stays, whatever is asked for afterwards.
			if (frozen.size) give(over, pieces, stood(pieces));
		}
	}
	return { own: [...own.values()], problems, frozen: kept, later };
}

const known = new WeakMap<Model, Marks>();

/**
 * What the pieces of a model are called: as its project says, unique among all, or by their places.
 *
 * ```ts
 * const { problems } = marksOf(model); // why some have the marks of their places all the same
 * ```
 */
export function marksOf(model: Model): Marks {
	const made = known.get(model) ?? make(model);
	known.set(model, made);
	return made;
}

/**
 * The mark of any piece of a model, as it is written on it.
 *
 * ```ts
 * const markOf = pieceMarks(model);
 * markOf(zoneModel, group, 0); // GR-C01-B01
 * ```
 */
export function pieceMarks(model: Model): (zone: ZoneModel, clause: ClauseGroup, row: number) => string {
	const own = new Map(marksOf(model).own.map((one) => [keyOf(one.zone, one.face, one.over), one.marks]));
	let last: { readonly clause: ClauseGroup; readonly read: (row: number) => string } | null = null;
	return (zone, clause, row) => {
		if (last?.clause !== clause) {
			const sites = siteOf(zone, clause);
			const prefix = markPrefix(zone.zone.code, zone.faces.length, clause.face);
			const beside = besideName(clause);
			const marks = own.get(keyOf(zone.zone.id, clause.face, clause.group.over));
			const { sites: of } = clause.group;
			last = { clause, read: (at) => (marks?.[of[at]!] || sites.mark(of[at]!, prefix)) + beside };
		}
		return last.read(row);
	};
}

/**
 * Every piece's address and its mark, as they are kept when marks are frozen.
 *
 * ```ts
 * const lines = marksToFreeze(model);
 * ```
 */
export function marksToFreeze(model: Model): string[] {
	const markOf = pieceMarks(model);
	const lines = new Set<string>();
	for (const { model: zone } of model.zones)
		for (const clause of zone?.groups ?? []) {
			if (besideName(clause) || clause.group.over === 'chain') continue;
			const sites = siteOf(zone!, clause);
			for (let row = 0; row < clause.group.sites.length; row++)
				lines.add(
					`${zone!.zone.id}/${sites.address(clause.group.sites[row]!)} ${markOf(zone!, clause, row)}`
				);
		}
	return [...lines];
}
