import type { Project } from '$core/project/schema';
import { same } from '$core/units/same';
import type { ZoneTotals } from '$lib/worker/chain-service';
import { serialsOf, type LiveModel } from './model.svelte';

/** What zones come to, in cost and heat: known of every model that stands, a moment after it does. */
export class TotalsSearch {
	private found = $state.raw<ZoneTotals | null>(null);
	private of = $state.raw<readonly unknown[]>([]);

	constructor(private readonly model: LiveModel) {}

	/** What is known of the model as it stands; null until it is. */
	readonly now = $derived.by(() => {
		const of = serialsOf(this.model.view);
		return this.found && same(this.of.slice(0, -1), of) ? this.found : null;
	});

	/** Add it up, unless it is known. @param left whether nobody waits for it any more: nothing is told then */
	async look(
		{ cost, like, heat }: Pick<Project, 'cost' | 'like' | 'heat'>,
		left: () => boolean
	): Promise<void> {
		const of = [...serialsOf(this.model.view), JSON.stringify([cost.rates, like, heat])];
		if (this.found && same(this.of, of)) return;
		try {
			const found = await this.model.service.totals();
			if (found && !left()) [this.found, this.of] = [found, of];
		} catch {
			// Another model is being made: that one is added up when it stands.
		}
	}
}
