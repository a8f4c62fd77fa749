import { NO_RULE, type Assignment } from '../cladding/assign';
import type { FaceModel } from '../cladding/model';
import { surfaceArea } from '../geometry/surface';
import { bendWords } from '../grid/layer';
import { coordinateSum, isOfSteps, offsetsOn } from '../grid/displaced';
import type { Zone } from '../project/schema';
import { pathTo } from '../project/typed-path';
import type { Problem } from '../units/problem';
import { formatNumber } from '../units/quantity';

/** What is to be known of how a face was set out: rims that its net does not reach, a layer that crosses itself. */
export function remarksOnFace({ bare, face, layer, said }: FaceModel, at: string): Problem[] {
	const squareMetres = (area: number) => formatNumber(area / 1e6, 1);
	const remarks: Problem[] = said.map((text) => ({ at: `${at}/on`, text, remark: true }));
	if (!face) return remarks;
	if (bare) {
		const whole = surfaceArea(face.surface);
		remarks.push({
			at: `${at}/settingOut/along`,
			text: `the net of equal chords covers ${squareMetres(whole - bare)} of ${squareMetres(whole)} m² of ${face.name}; ${squareMetres(bare)} m² along its rims stay bare. Measured another way, cells reach every rim`,
			remark: true
		});
	}
	if (layer?.crossed.length)
		remarks.push({
			at: `${at}/layer`,
			text: `the layer crosses itself in ${formatNumber(layer.crossed.length)} steps of ${face.name}: ${bendWords(layer.radius)}`,
			remark: true
		});
	return remarks;
}

/** Places that add up to no more than so much else (mm) are where they were. */
const SAME_SUM = 1;

/** Moves of nodes that were found for other nodes than there are now. */
export function remarksOnMoves(zone: Zone, faces: readonly FaceModel[]): Problem[] {
	if (zone.on.is !== 'faces') return [];
	return zone.moves.flatMap((clause): Problem[] => {
		const at = pathTo('zones', zone.id, 'moves', clause.id);
		if (clause.muted) return [];
		const anew = clause.aim === 'survey' ? 'Bring the survey in again' : 'Find them anew';
		const told = (text: string): Problem[] => [{ at, text: `${text}. ${anew}`, remark: true }];
		for (const found of clause.faces) {
			const own = faces.find(({ address }) => address === found.face);
			if (!own) continue;
			const { grid } = own;
			if (!isOfSteps(found, grid)) {
				const [bays, courses] = found.steps;
				return told(
					`its moves were found for ${bays} bays and ${courses} courses; there are ${grid.across.steps} and ${grid.up.steps} now, so nothing is moved`
				);
			}
			// Before this clause: what it and those after it do is taken away again.
			const later = zone.moves.slice(zone.moves.indexOf(clause));
			const moved = offsetsOn(found.face, grid, later);
			const back = moved ? coordinateSum(moved, grid.columns * grid.rows) : 0;
			const sum = coordinateSum(grid.positions, grid.columns * grid.rows) - back;
			if (Math.abs(sum - found.sum) > SAME_SUM)
				return told('its moves were found for nodes that lay elsewhere; they are made all the same');
		}
		return [];
	});
}

/** Rules that put nothing anywhere: because nothing is as they ask, or others before them have it all. */
export function remarksOnRules(zone: Zone, assignments: readonly Assignment[]): Problem[] {
	return zone.rules.flatMap((rule, k): Problem[] => {
		const sum = (of: 'asked' | 'taken' | 'passed') => assignments.reduce((all, one) => all + one[of][k]!, 0);
		if (rule.muted || sum('taken') > 0 || sum('passed') > 0) return [];
		const before = assignments.map(({ takenBy }) => takenBy[k]!).find((one) => one !== NO_RULE);
		const asked = sum('asked');
		const cells = asked === 1 ? 'The one cell' : `All ${formatNumber(asked)} cells`;
		const text =
			before === undefined
				? asked > 0
					? `${cells} that it asks for have another choice, made by hand`
					: 'no cell is as it asks'
				: `${cells} that it asks for are taken by rules before it, first by the ${ordinal(before + 1)} one; move it up, or ask for others`;
		return [{ at: pathTo('zones', zone.id, 'rules', rule.id), text, remark: true }];
	});
}
const ordinal = (n: number) => ['first', 'second', 'third', 'fourth', 'fifth'][n - 1] ?? `${n}th`;
