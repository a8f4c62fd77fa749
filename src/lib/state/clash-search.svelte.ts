import type { Clashes } from '$core/clash/find';
import { same } from '$core/units/same';
import { proxy } from 'comlink';
import type { GroupView } from '$lib/worker/views';
import type { LiveModel, ModelView } from './model.svelte';
import { addressOf, type Found } from './selection.svelte';

/** A piece of a clash as the pages have it. */
export interface ClashingPiece {
	readonly group: GroupView;
	readonly site: Omit<Found, 'address'>;
	readonly address: string;
}

/** Clashes of the pieces of two variants, the deepest first. */
export interface ClashesOfTwo {
	/** Both variants, in the order of their ids. */
	readonly id: string;
	readonly one: GroupView;
	readonly other: GroupView;
	/** Numbers of clashes. */
	readonly clashes: readonly number[];
	readonly deepest: number;
}

/** The search for pieces that reach into each other: what it found last, and how far it is. */
export class ClashSearch {
	/** The panel of it is there. */
	shown = $state(false);
	found = $state.raw<Clashes | null>(null);
	/** Of the search under way; null when there is none. */
	share = $state<number | null>(null);
	failure = $state<string | null>(null);
	/** Sites that are marked in the model. */
	marked = $state.raw<readonly Omit<Found, 'address'>[]>([]);
	/** What stood in the model that was searched. */
	private of = $state.raw<readonly number[]>([]);

	constructor(private readonly model: LiveModel) {}

	/** The model is another one than was searched. */
	readonly isBehind = $derived.by(() => this.found !== null && !same(this.of, serialsOf(this.model.view)));

	/** The groups of the model by their serials, and the zones that they are of. */
	private readonly groups = $derived.by(
		() =>
			new Map(
				this.model.view.zones.flatMap(({ groups }, zone) =>
					groups.map((group) => [group.serial, { zone, group }] as const)
				)
			)
	);

	/** Find them. @param deeper mm */
	async look(deeper: number): Promise<void> {
		this.failure = null;
		this.share = 0;
		const before = serialsOf(this.model.view);
		try {
			const told = proxy((share: number) => {
				if (this.share !== null) this.share = share;
			});
			const found = await this.model.service.clashes(deeper, told);
			if (!found) return;
			this.found = found;
			this.of = before;
		} catch (error) {
			this.failure = error instanceof Error ? error.message : String(error);
		} finally {
			this.share = null;
		}
	}

	end(): void {
		void this.model.service.endSearch('clashes');
	}

	close(): void {
		if (this.share !== null) this.end();
		this.shown = false;
		this.marked = [];
	}

	/** One of the pieces that clash; null when the model has it no more. */
	piece(k: number): ClashingPiece | null {
		const known = this.groups.get(this.found!.group[k]!);
		const index = known?.group.sites[this.found!.row[k]!];
		if (!known || index === undefined) return null;
		const { zone, group } = known;
		const site = { zone, face: group.face, kind: group.over, index };
		return { group, site, address: addressOf(this.model.view, site) };
	}

	/** All clashes by the variants of their pieces, those of which there are most first. */
	readonly byTwo = $derived.by((): readonly ClashesOfTwo[] => {
		const { found } = this;
		if (!found) return [];
		const pieces = Array.from(found.row, (_, k) => this.piece(k));
		const lists = new Map<string, { one: GroupView; other: GroupView; clashes: number[] }>();
		for (let k = 0; k < found.depth.length; k++) {
			const two = [pieces[found.one[k]!], pieces[found.other[k]!]];
			if (!two[0] || !two[1]) continue;
			const [one, other] = [two[0].group, two[1].group].sort((a, b) =>
				a.variantId < b.variantId ? -1 : 1
			) as [GroupView, GroupView];
			const id = twoOf(one.variantId, other.variantId);
			const list = lists.get(id);
			if (list) list.clashes.push(k);
			else lists.set(id, { one, other, clashes: [k] });
		}
		return [...lists]
			.map(([id, list]) => ({ id, ...list, deepest: found.depth[list.clashes[0]!]! }))
			.sort((a, b) => b.clashes.length - a.clashes.length);
	});

	/** The sites of both pieces of some clashes. */
	sitesOf(clashes: readonly number[]): Omit<Found, 'address'>[] {
		const pieces = new Set(clashes.flatMap((k) => [this.found!.one[k]!, this.found!.other[k]!]));
		return [...pieces].flatMap((k) => this.piece(k)?.site ?? []);
	}
}

/** Whatever is made anew has another one. */
const serialsOf = ({ zones }: ModelView) => zones.flatMap(({ groups }) => groups.map(({ serial }) => serial));

/** One name for two variants, whichever comes first. */
export const twoOf = (one: string, other: string): string => [one, other].sort().join('+');
