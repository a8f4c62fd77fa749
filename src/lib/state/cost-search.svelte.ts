import type { Cost } from '$core/cost/cost';
import type { Project } from '$core/project/schema';
import { same } from '$core/units/same';
import { serialsOf, type LiveModel } from './model.svelte';

/** What the model costs: known of every one that stands, a moment after it does. */
export class CostSearch {
	private found = $state.raw<Cost | null>(null);
	private of = $state.raw<readonly unknown[]>([]);

	constructor(private readonly model: LiveModel) {}

	/** What is known of the model as it stands; null until it is. */
	readonly now = $derived.by(() => {
		const of = serialsOf(this.model.view);
		return this.found && same(this.of.slice(0, -1), of) ? this.found : null;
	});

	/** Add it up, unless it is known. @param left whether nobody waits for it any more: nothing is told then */
	async look({ cost, like }: Pick<Project, 'cost' | 'like'>, left: () => boolean): Promise<void> {
		const of = [...serialsOf(this.model.view), JSON.stringify([cost.rates, like])];
		if (this.found && same(this.of, of)) return;
		try {
			const found = await this.model.service.cost();
			if (found && !left()) [this.found, this.of] = [found, of];
		} catch {
			// Another model is being made: that one is added up when it stands.
		}
	}
}
