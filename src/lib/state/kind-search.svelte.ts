import type { Kind, Kinds } from '$core/like/kinds';
import type { LikeSettings } from '$core/project/like-schema';
import { same } from '$core/units/same';
import type { PieceKindsFound } from '$lib/worker/chain-service';
import { serialsOf, type LiveModel } from './model.svelte';
import { kindPalette, kindPlace } from './kind-colours';
import { addressOf } from './selection.svelte';

/** A kind of pieces, and which it is among all. */
export interface KindOf extends Kind {
	readonly index: number;
}

/** Which pieces are alike: known of every model that stands, a moment after it does. */
export class KindSearch {
	/** The panel of it is there. */
	shown = $state(false);
	private found = $state.raw<Kinds | null>(null);
	private of = $state.raw<readonly unknown[]>([]);

	/** What the panel lists. */
	over = $state<'cell' | 'line' | 'node'>('cell');
	/** Kinds of bars, or of pieces on nodes, as they were found last. */
	private others = $state.raw<{ readonly of: readonly unknown[]; readonly found: PieceKindsFound } | null>(
		null
	);

	constructor(private readonly model: LiveModel) {}

	/** What is listed while it is known; null until it is. */
	readonly listed = $derived.by((): readonly KindOf[] | null => {
		if (this.over === 'cell') return this.now ? this.pieces : null;
		const { others } = this;
		if (others?.of[0] !== this.over) return null;
		return others.found.kinds.map((kind, index) => ({ ...kind, index })).sort((a, b) => b.size - a.size);
	});

	/** Look which bars, or pieces on nodes, are alike, unless it is known. */
	async lookAt(over: 'line' | 'node', like: LikeSettings): Promise<void> {
		const of = [over, ...serialsOf(this.model.view), like.tolerance, like.mirrored];
		if (this.others && same(this.others.of, of)) return;
		try {
			const found = await this.model.service.pieceKinds(over, { ...like });
			if (found) this.others = { of, found };
		} catch {
			// Another model is being made: that one is looked at when it stands.
		}
	}

	/** What is known of the model as it stands; null until it is. */
	readonly now = $derived.by(() =>
		this.found && same(this.of, [...serialsOf(this.model.view), ...this.of.slice(-2)]) ? this.found : null
	);

	/** Look which are alike, unless it is known. @param left whether nobody waits for it any more: nothing is told then */
	async look(like: LikeSettings, left: () => boolean): Promise<void> {
		const of = [...serialsOf(this.model.view), like.tolerance, like.mirrored];
		if (this.found && same(this.of, of)) return;
		try {
			const found = await this.model.service.kinds({ ...like });
			if (found && !left()) [this.found, this.of] = [found, of];
		} catch {
			// Another model is being made: that one is looked at when it stands.
		}
	}

	/** How many kinds the cells of a zone are of; null while it is not known. */
	countIn(zone: number): number | null {
		const faces = this.now?.of[zone];
		return faces ? new Set(faces.flatMap((kinds) => [...kinds])).size : null;
	}

	/** The kinds of which something is put on cells, those with most pieces first. */
	readonly pieces = $derived.by((): readonly KindOf[] =>
		(this.now?.kinds ?? [])
			.map((kind, index) => ({ ...kind, index }))
			.filter(({ variant }) => variant !== null)
			.sort((a, b) => b.size - a.size)
	);

	/** The place of every kind in the palette, by its index. */
	readonly places = $derived.by((): Uint8Array => {
		const all = this.now?.kinds ?? [];
		const places = Uint8Array.from(all, ({ size }) => kindPlace(-1, size));
		this.pieces.forEach(({ index, size }, rank) => (places[index] = kindPlace(rank, size)));
		return places;
	});
	/** What cells are painted by while kinds are looked at. */
	readonly painted = $derived.by(() => {
		if (!this.shown || !this.now) return null;
		const { places } = this;
		const of = this.now.of.map((faces) =>
			faces.map((kinds) => Uint8Array.from(kinds, (kind) => places[kind]!))
		);
		return { palette: kindPalette, of };
	});

	/** What is of a kind that is listed. */
	addressesOf(index: number): string[] {
		const { view } = this.model;
		const { over } = this;
		if (over !== 'cell')
			return view.zones.flatMap(({ groups }, zone) =>
				groups.flatMap(({ serial, face, sites }) => {
					const own = this.others?.found.of.get(serial);
					return own
						? Array.from(sites)
								.filter((_, row) => own[row] === index)
								.map((site) => addressOf(view, { zone, face, kind: over, index: site }))
						: [];
				})
			);
		return (this.now?.of ?? []).flatMap((faces, zone) =>
			faces.flatMap((kinds, face) =>
				Array.from(kinds.keys())
					.filter((cell) => kinds[cell] === index)
					.map((cell) => addressOf(view, { zone, face, kind: 'cell', index: cell }))
			)
		);
	}
}
