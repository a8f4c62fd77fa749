import type { FoundMoves } from '$core/moves/find-moves';
import type { Moves } from '$core/project/moves-schema';
import type { Project, Zone } from '$core/project/schema';
import type { Problem } from '$core/units/problem';
import { proxy } from 'comlink';
import { SvelteMap } from 'svelte/reactivity';
import type { LiveModel } from './model.svelte';

/** The search for better places of nodes: for which clause it is under way, and what it came to last. */
export class MoveSearch {
	/** The clause that moves are looked for. */
	under = $state<string | null>(null);
	share = $state(0);
	/** What the last search for each clause came to, and with which settings. */
	private readonly last = new SvelteMap<string, { readonly of: string; readonly found: FoundMoves }>();
	private readonly wrong = new SvelteMap<string, Problem>();

	constructor(private readonly model: LiveModel) {}

	/** What the moves of a clause came to when they were found; null where that was in another session, or with others. */
	foundFor(path: string, moves: Moves): FoundMoves | null {
		const last = this.last.get(path);
		return last?.of === settingsOf(moves) ? last.found : null;
	}

	problemOf(path: string): Problem | null {
		return this.wrong.get(path) ?? null;
	}

	/** Look for them. @returns null when that was ended, or cannot be done */
	async look(document: Project, zone: Zone, moves: Moves, path: string): Promise<FoundMoves | null> {
		this.under = path;
		this.share = 0;
		this.wrong.delete(path);
		try {
			const told = proxy((share: number) => {
				this.share = share;
			});
			const found = await this.model.service.moves(document, zone, moves.id, told);
			if (!found) return null;
			if ('problem' in found) {
				this.wrong.set(path, found.problem);
				return null;
			}
			this.last.set(path, { of: settingsOf(moves), found });
			return found;
		} catch (error) {
			this.wrong.set(path, { at: path, text: error instanceof Error ? error.message : String(error) });
			return null;
		} finally {
			this.under = null;
		}
	}

	end(): void {
		void this.model.service.endSearch('moves');
	}
}

/** All that moves are found by. */
const settingsOf = ({ aim, most, within, kinds, keeps }: Moves): string =>
	JSON.stringify([aim, most, within, kinds, keeps]);
