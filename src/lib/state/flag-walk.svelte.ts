import type { LiveModel } from './model.svelte';
import { flaggedPieces } from './flagged';
import type { Partners, Refusal } from './partners.svelte';
import type { Selection } from './selection.svelte';

/** Walking from flag to flag, the worst first. */
export class FlagWalk {
	/** Every piece that something is told of. */
	readonly all = $derived.by(() => flaggedPieces(this.model.view, this.refused));
	/** What partners say of pieces that are in the model: those that they refuse. */
	private readonly refused = $derived.by(
		(): ReadonlyMap<string, Refusal> =>
			new Map(this.partners.refusals.map((one) => [one.address, one] as const))
	);

	/** Why a partner refuses a piece; null where none does. */
	refusalOf(address: string): string | null {
		return this.refused.get(address)?.told ?? null;
	}
	/** Those of every clause by its path, the worst first. */
	readonly under = $derived.by(() => {
		const found = new Map<string, string[]>();
		for (const { address, clause } of this.all) {
			const known = found.get(clause);
			if (known) known.push(address);
			else found.set(clause, [address]);
		}
		return found as ReadonlyMap<string, readonly string[]>;
	});
	/** Where of them the chosen piece is; -1 where it is none. */
	readonly at = $derived.by(() => this.all.findIndex(({ address }) => address === this.selection.last));

	constructor(
		private readonly model: LiveModel,
		private readonly selection: Selection,
		private readonly partners: Partners
	) {}

	/** Choose the next of them, or the one before; from anything else the worst. @returns whether there is one */
	step(by: 1 | -1): boolean {
		const { all, at } = this;
		if (!all.length) return false;
		const next = at < 0 ? (by > 0 ? 0 : all.length - 1) : (at + by + all.length) % all.length;
		this.selection.choose([all[next]!.address]);
		return true;
	}
}
