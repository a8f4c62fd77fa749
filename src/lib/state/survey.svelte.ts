import type { MeasuredPoints } from '$core/survey/match';
import type { SurveyFound } from '$lib/worker/survey';
import type { LiveModel } from './model.svelte';
import { addressOf } from './selection.svelte';

/** Steps of how far a corner is from where it was measured (mm), the last without an end; with their colours. */
export const surveySteps = [
	{ upTo: 2, colour: '#A9CBBF' },
	{ upTo: 5, colour: '#D9CF9E' },
	{ upTo: 10, colour: '#E2B35B' },
	{ upTo: 20, colour: '#CF7F45' },
	{ upTo: Infinity, colour: '#A8402F' }
] as const;
/** Of cells without a measured corner. */
const NOTHING = '#F4F0E6';

/** Points that were measured on the site, against the model as it stands. */
export class Survey {
	shown = $state(false);
	/** The file they are from. */
	file = $state<string | null>(null);
	points = $state.raw<MeasuredPoints | null>(null);
	/** How near a point has to be to its node (mm). */
	within = $state(50);
	/** Cells of which a side or diagonal changes by more (mm) are not filled by what was made for them. */
	gives = $state(5);
	found = $state.raw<SurveyFound | null>(null);
	private asked = 0;

	constructor(private readonly model: LiveModel) {}

	/** Look where the points are in the model as it stands. */
	async look(): Promise<void> {
		const { points, within } = this;
		const own = ++this.asked;
		if (!points) return;
		const found = await this.model.service
			.survey(points, within)
			// Another model is being made: it is looked at when it stands.
			.catch(() => null);
		if (found && own === this.asked) this.found = found;
	}

	/** What cells are painted by while it is looked at. */
	readonly painted = $derived.by(() => {
		if (!this.shown || !this.found) return null;
		const step = (way: number) =>
			way >= 0 ? surveySteps.findIndex(({ upTo }) => way <= upTo) : surveySteps.length;
		const of = this.found.cells.map((faces) => faces.map(({ away }) => Uint8Array.from(away, step)));
		return { palette: [...surveySteps.map(({ colour }) => colour), NOTHING], of };
	});

	/** Cells in the order of a measure, the worst first. @param from those above it (mm), up to `to` */
	cellsBy(which: 'away' | 'change', from: number, to = Infinity): string[] {
		const { view } = this.model;
		const found = (this.found?.cells ?? []).flatMap((faces, zone) =>
			faces.flatMap((measured, face) =>
				Array.from(measured[which], (way, index) => ({ way, zone, face, index })).filter(
					({ way }) => way > from && way <= to
				)
			)
		);
		return found
			.sort((a, b) => b.way - a.way)
			.map(({ zone, face, index }) => addressOf(view, { zone, face, kind: 'cell', index }));
	}
}
