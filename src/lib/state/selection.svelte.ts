import { siteSetOf, type GridSite } from '$core/cladding/sites';
import type { FaceView } from '$lib/worker/views';
import type { ModelView } from './model.svelte';

/** A cell, a line, a node or a chain of the model. */
export interface Found {
	readonly address: string;
	readonly zone: number;
	readonly face: number;
	readonly kind: GridSite;
	readonly index: number;
}

type Entry = Pick<Found, 'kind' | 'index'>;
const books = new WeakMap<FaceView, Map<string, Entry>>();

/** All addresses of a face, made when the first one is looked up. */
function bookOf(face: FaceView): Map<string, Entry> {
	let book = books.get(face);
	if (!book) {
		books.set(face, (book = new Map<string, Entry>()));
		const counts = {
			cell: face.cells.count,
			line: face.edges.count,
			node: face.grid.positions.length / 3,
			chain: face.chains.start.length - 1
		};
		for (const [kind, count] of Object.entries(counts) as [GridSite, number][]) {
			const { address } = siteSetOf(face, kind);
			for (let index = 0; index < count; index++) book.set(address(index), { kind, index });
		}
	}
	return book;
}

export function addressOf(view: ModelView, { zone, face, kind, index }: Omit<Found, 'address'>): string {
	const { id, faces } = view.zones[zone]!;
	return `${id}/${siteSetOf(faces[face]!, kind).address(index)}`;
}

export function find(view: ModelView, address: string): Found | null {
	const slash = address.indexOf('/');
	const zone = view.zones.findIndex((one) => one.id === address.slice(0, slash));
	if (zone < 0) return null;
	// Pieces beside others on the same place have a name of their own behind its address.
	const [within = ''] = address.slice(slash + 1).split('+');
	for (const [face, one] of view.zones[zone]!.faces.entries()) {
		const entry = bookOf(one).get(within);
		if (entry) return { address, zone, face, ...entry };
	}
	return null;
}

/** The lines of the bar that a line begins, where several are joined to one. */
export function wholeBar(view: ModelView, found: Found): Found[] {
	if (found.kind !== 'line') return [found];
	const group = view.zones[found.zone]!.groups.find(
		({ over, face, bars, sites }) =>
			bars !== null && over === 'line' && face === found.face && sites.includes(found.index)
	);
	const lines = group?.bars![group.sites.indexOf(found.index)];
	return lines ? lines.map((index) => ({ ...found, index })) : [found];
}

/**
 * What is chosen: one thing in the sheet, the model, the map and the schedule.
 * Kept by address, so it stays through changes of the model.
 */
export class Selection {
	addresses = $state.raw<readonly string[]>([]);
	/** Faces of masses, as mass/face; they are chosen in the Form lens. */
	faces = $state.raw<readonly string[]>([]);
	/** The clause that is worked on, by its document path. */
	clause = $state<string | null>(null);
	readonly set = $derived(new Set(this.addresses));
	readonly last = $derived(this.addresses.at(-1) ?? null);

	choose(addresses: readonly string[]): void {
		this.addresses = addresses;
	}

	/** Add when it is not there, take out when it is. */
	toggle(address: string): void {
		this.addresses = this.set.has(address)
			? this.addresses.filter((one) => one !== address)
			: [...this.addresses, address];
	}

	/** Look at the next of what is chosen, or the one before; all of it stays chosen. */
	step(by: 1 | -1): void {
		const all = this.addresses;
		if (all.length < 2) return;
		this.addresses = by === 1 ? [...all.slice(1), all[0]!] : [all.at(-1)!, ...all.slice(0, -1)];
	}

	extend(addresses: readonly string[]): void {
		const added = new Set(addresses);
		this.addresses = [...this.addresses.filter((one) => !added.has(one)), ...addresses];
	}

	/** Add what was enclosed; take it away when all of it is there. */
	enclose(addresses: readonly string[]): void {
		if (!addresses.length) return;
		if (!addresses.every((one) => this.set.has(one))) return this.extend(addresses);
		const away = new Set(addresses);
		this.addresses = this.addresses.filter((one) => !away.has(one));
	}

	chooseFace(face: string, extend: boolean): void {
		if (!extend) this.faces = [face];
		else if (this.faces.includes(face)) this.faces = this.faces.filter((one) => one !== face);
		else this.faces = [...this.faces, face];
	}

	clear(): void {
		this.faces = [];
		this.addresses = [];
	}
}
