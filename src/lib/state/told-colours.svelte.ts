import type { LiveModel } from './model.svelte';
import { find } from './selection.svelte';

/** Something that is said of pieces, and the colour of the cells they are on. */
export interface ToldWord {
	readonly label: string;
	readonly colour: string;
}
/** What is said of pieces: of each the place of its word among the words. */
export interface Told {
	readonly title: string;
	/** Of several pieces on a cell the word that stands first is shown. */
	readonly words: readonly ToldWord[];
	/** Of pieces that are in the model. */
	readonly pieces: readonly { readonly address: string; readonly word: number }[];
}

/** Of cells that nothing is said of. */
const NOTHING = '#F4F0E6';

/** Colours of cells by what is said of their pieces: by a comparison, or by a partner. */
export class ToldColours {
	shown = $state.raw<Told | null>(null);

	constructor(private readonly model: LiveModel) {}

	/** The palette, and the place in it of every cell by zone and face; how many pieces are on no cell. */
	private readonly laid = $derived.by(() => {
		const { shown } = this;
		if (!shown) return null;
		const { view } = this.model;
		const bare = shown.words.length;
		const of = view.zones.map(({ faces }) =>
			faces.map(({ cells }) => new Uint8Array(cells.count).fill(bare))
		);
		let elsewhere = 0;
		for (const { address, word } of shown.pieces) {
			const found = find(view, address);
			if (found?.kind !== 'cell') {
				elsewhere++;
				continue;
			}
			const cells = of[found.zone]![found.face]!;
			cells[found.index] = Math.min(cells[found.index]!, word);
		}
		return { palette: [...shown.words.map(({ colour }) => colour), NOTHING], of, elsewhere };
	});
	/** What cells are painted by while it is shown. */
	readonly painted = $derived.by(() => this.laid);
	/** Pieces that no cell shows: bars, parts on nodes, and what is not in the model any more. */
	readonly elsewhere = $derived.by(() => this.laid?.elsewhere ?? 0);

	/** The pieces that a word is said of. */
	addressesOf(word: number): string[] {
		return (this.shown?.pieces ?? []).filter((one) => one.word === word).map(({ address }) => address);
	}
}
