import type { Model } from '$core/cladding/model';
import { cellsMeasured, fitTo, type CellsMeasured, type Fit } from '$core/survey/fit';
import { matchPoints, type Matched, type MeasuredPoints } from '$core/survey/match';

/** Measured points against a model. */
export interface SurveyFound extends Pick<Matched, 'count' | 'nothing' | 'between' | 'twice'> {
	/** By zone and face of the view. */
	readonly cells: readonly (readonly CellsMeasured[])[];
	/** What would bring the nodes of each zone to where they were measured; null where nothing of it was, or it has no nodes of its own. */
	readonly fits: readonly (Fit | null)[];
}

export function surveyOf({ zones: all }: Model, points: MeasuredPoints, within: number): SurveyFound {
	const zones = all.map(({ id, model }) => ({ id, faces: model?.faces ?? [] }));
	const { of, ...matched } = matchPoints(zones, points, within);
	return {
		...matched,
		cells: zones.map(({ faces }, z) => faces.map((face, f) => cellsMeasured(face, of[z]![f]!, points.at))),
		fits: all.map(({ model }, z) => {
			// What stands on another zone goes with it.
			if (model?.zone.on.is !== 'faces' || !of[z]!.some((own) => own.some((point) => point >= 0)))
				return null;
			const before = model.zone.moves.find(({ aim }) => aim === 'survey') ?? null;
			return fitTo(model.faces, of[z]!, points.at, before);
		})
	};
}
