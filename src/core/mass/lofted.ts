import { alignChains, chainKnots, splineControl } from '../geometry/path';
import { centreOf, distance, dot, subtract, type Vector } from '../geometry/vector';
import type { Form } from '../project/schema';
import { refuse } from '../units/problem';
import { makeFace, type Face } from './face';
import { chainOf } from './path';

type Lofted = Extract<Form, { kind: 'lofted' }>;

/** Sections have to follow one another and to run the same way, or the skin folds back on itself. */
function checkOrder(form: Lofted, at: string): void {
	const { sections } = form;
	const centres = sections.map((section) => centreOf(section.points));
	for (let k = 1; k < sections.length; k++) {
		if (sections[k]!.closed !== sections[0]!.closed)
			refuse(
				`${at}/sections/${k}`,
				`section ${k + 1} is ${sections[k]!.closed ? 'closed' : 'open'} and section 1 is not; close all or none`
			);
		if (distance(centres[k]!, centres[k - 1]!) < 1e-6)
			refuse(`${at}/sections/${k}`, `sections ${k} and ${k + 1} lie in the same place; move one of them`);
		if (!sections[k]!.closed) {
			const run = (n: number) => subtract(sections[n]!.points.at(-1)!, sections[n]!.points[0]!);
			if (dot(run(k), run(k - 1)) < 0)
				refuse(
					`${at}/sections/${k}`,
					`section ${k + 1} runs the other way than section ${k}; give its points in the opposite order`
				);
		}
		if (k < 2) continue;
		const before = subtract(centres[k - 1]!, centres[k - 2]!);
		const after = subtract(centres[k]!, centres[k - 1]!);
		if (dot(before, after) < 0)
			refuse(
				`${at}/sections/${k}`,
				`section ${k + 1} turns back behind section ${k}; put the sections in order from the foot to the head`
			);
	}
}

/** Common heights 0..1 of the sections: the chord length between them, averaged over the control points. */
function sectionParameters(rows: readonly (readonly Vector[])[]): number[] {
	const gaps = rows.slice(1).map((row, k) => {
		const chords = row.map((p, i) => distance(p, rows[k]![i]!));
		return chords.reduce((a, b) => a + b, 0) / chords.length;
	});
	const total = gaps.reduce((a, b) => a + b, 0);
	let sum = 0;
	const at = [0, ...gaps.map((gap) => (sum += gap) / total)];
	at[at.length - 1] = 1;
	return at;
}

/** A skin through sections, smooth (a cubic spline from section to section) or straight between them. */
export function loftedFaces(form: Lofted, at: string): Face[] {
	if (form.sections.length < 2)
		refuse(`${at}/sections`, `a loft needs at least 2 sections; it has ${form.sections.length}`);
	const chains = alignChains(form.sections.map((section, k) => chainOf(section, `${at}/sections/${k}`)));
	checkOrder(form, at);
	const sections = chains.map((chain) => chain.points);
	const heights = sectionParameters(sections);
	const countU = sections[0]!.length;
	const smooth = form.between === 'smooth' && sections.length > 2;
	const rows = smooth ? smoothRows(sections, heights) : sections;
	return [
		makeFace('skin', {
			degreeU: 3,
			degreeV: smooth ? 3 : 1,
			knotsU: chainKnots(chains[0]!.breaks),
			knotsV: smooth ? chainKnots(heights) : Float64Array.from([0, ...heights, 1]),
			countU,
			countV: rows.length,
			net: Float64Array.from(rows.flatMap((row) => row.flatMap((p) => [...p, 1])))
		})
	];
}

/** Control rows of the spline that runs through the control points of the sections, column by column. */
function smoothRows(sections: readonly (readonly Vector[])[], heights: readonly number[]): Vector[][] {
	const columns = sections[0]!.map((_, i) =>
		splineControl(
			sections.map((section) => section[i]!),
			heights,
			false
		)
	);
	return columns[0]!.map((_, j) => columns.map((column) => column[j]!));
}
