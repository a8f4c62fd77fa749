import { inRadians } from '../units/scale';
import { alignChains, mapChain, type BezierChain } from '../geometry/path';
import { centreOf, distance, dot, subtract, unweighted, type Vector } from '../geometry/vector';
import type { Form, SectionDefinition } from '../project/form-schema';
import { refuse } from '../units/problem';
import { outlineChain } from './drawn-curve';
import { makeFace, type Face } from './face';
import { foldAt } from './fold';
import { fixedHeight } from './levels';
import { smoothPatch, straightPatch } from './patch';
import { chainOf } from './path';
import { matchOutlines } from './matched';
import { SAME_POINT } from '../geometry/tolerance';

type Lofted = Extract<Form, { kind: 'lofted' }>;

const isClosed = (section: SectionDefinition) => 'outline' in section || section.closed;

/** An outline laid in a horizontal plane: scaled in two directions, turned, moved, lifted. */
export function placed(
	chain: BezierChain,
	place: { at: readonly [number, number]; height: number; scale: readonly [number, number]; turn: number }
): BezierChain {
	const angle = inRadians(place.turn);
	const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
	return mapChain(chain, ([px, py]) => {
		const [x, y] = [px * place.scale[0], py * place.scale[1]];
		return [place.at[0] + cos * x - sin * y, place.at[1] + sin * x + cos * y, place.height];
	});
}

/** All sections as chains in space; outlines correspond before they are placed, so that turning one twists the skin. */
function sectionChains(sections: readonly SectionDefinition[], at: string): BezierChain[] {
	const where = (k: number) => `${at}/sections/${k}`;
	const outlines = sections.flatMap((section, k) =>
		'outline' in section
			? [
					{
						shape: section.outline.shape,
						chain: outlineChain(section.outline, `${where(k)}/outline`)
					}
				]
			: []
	);
	const matched = matchOutlines(outlines);
	let next = 0;
	return sections.map((section, k) => {
		if (!('outline' in section)) return chainOf(section, where(k));
		for (const [axis, factor] of section.scale.entries())
			if (!(factor > 0))
				refuse(
					`${where(k)}/scale/${axis}`,
					`a scale of ${factor} leaves nothing of the section; more than 0 is accepted`
				);
		return placed(matched[next++]!, { ...section, height: fixedHeight(section.height) });
	});
}

/** Sections have to follow one another and to run the same way, or the skin folds back on itself. */
function checkOrder(form: Lofted, chains: readonly BezierChain[], at: string): void {
	const points = chains.map((chain) => chain.points.map(unweighted));
	const centres = points.map(centreOf);
	for (let k = 1; k < chains.length; k++) {
		const where = `${at}/sections/${k}`;
		const [closed, first] = [isClosed(form.sections[k]!), isClosed(form.sections[0]!)];
		if (closed !== first)
			refuse(
				where,
				`section ${k + 1} is ${closed ? 'closed' : 'open'} and section 1 is not; close all or none`
			);
		if (distance(centres[k]!, centres[k - 1]!) < SAME_POINT)
			refuse(where, `sections ${k} and ${k + 1} lie in the same place; move one of them`);
		if (!closed) {
			const run = (n: number) => subtract(points[n]!.at(-1)!, points[n]![0]!);
			if (dot(run(k), run(k - 1)) < 0)
				refuse(
					where,
					`section ${k + 1} runs the other way than section ${k}; give its points in the opposite order`
				);
		} else if (dot(enclosed(points[k]!), enclosed(points[k - 1]!)) < 0)
			refuse(where, `section ${k + 1} goes round the other way than section ${k}; it would turn inside out`);
		if (k < 2) continue;
		const before = subtract(centres[k - 1]!, centres[k - 2]!);
		const after = subtract(centres[k]!, centres[k - 1]!);
		if (dot(before, after) < 0)
			refuse(
				where,
				`section ${k + 1} turns back behind section ${k}; put the sections in order from the foot to the head`
			);
	}
}

/** Twice the vector area of a ring of points. */
function enclosed(points: readonly Vector[]): Vector {
	let [x, y, z] = [0, 0, 0];
	points.forEach((p, k) => {
		const q = points[(k + 1) % points.length]!;
		x += (p[1] - q[1]) * (p[2] + q[2]);
		y += (p[2] - q[2]) * (p[0] + q[0]);
		z += (p[0] - q[0]) * (p[1] + q[1]);
	});
	return [x, y, z];
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
	const chains = alignChains(sectionChains(form.sections, at));
	checkOrder(form, chains, at);
	const rows = chains.map((chain) => chain.points);
	const heights = sectionParameters(rows.map((row) => row.map(unweighted)));
	const smooth = form.between === 'smooth' && rows.length > 2;
	const surface = (smooth ? smoothPatch : straightPatch)(rows, chains[0]!.breaks, heights);
	const fold = foldAt(surface);
	if (fold !== null) {
		const next = heights.findIndex((height) => height >= fold);
		refuse(
			`${at}/sections/${next}`,
			`the skin folds over between sections ${next} and ${next + 1}; bring them closer in shape or further apart`
		);
	}
	return [makeFace('skin', surface)];
}
