import { readPoints } from '$core/exchange/csv/read-points';
import { netOfPoints, rowsOfPoints } from '$core/exchange/csv/rows-of-points';
import { outlinesOf, type ReadOutline } from '$core/exchange/dxf/outlines';
import type { ReadCurves } from '$core/exchange/dxf/read-curves';
import type { Vector } from '$core/geometry/vector';
import type { Form } from '$core/project/form-schema';
import type { Guide } from '$core/project/guide-schema';
import { readLines } from '$lib/components/read-lines';
import { freshId } from '$lib/edits/fresh-id';
import { readInThread } from '$lib/worker/read-in-thread';
import { transfer } from 'comlink';

/** More lines of one file are no guides any more. */
const MOST_GUIDES = 200;
/** More outlines of one file are no masses any more. */
const MOST_OUTLINES = 30;
/** An outline of more corners is a curve: it is drawn smooth, as one side. */
const MOST_CORNERS = 40;
/** How high what stands on an outline is at first (mm). */
const HEIGHT = 3600;

const isDrawing = ({ name }: File) => /\.dxf$/i.test(name);
const stem = (name: string) => name.replace(/\.[^.]*$/, '').trim();
/** To a thousandth of a millimetre: more digits are noise of the program that wrote them. */
const tidy = (value: number) => Math.round(value * 1000) / 1000;
const placed = ([x, y, z]: Vector): [number, number, number] => [tidy(x), tidy(y), tidy(z)];

const curvesOf = (file: File): Promise<ReadCurves> =>
	readInThread(file, (service, bytes) => service.dxf(transfer(bytes, [bytes.buffer]))).result;

/** Names by what they are called, each once. */
function numbered(names: readonly string[], taken: readonly string[]): string[] {
	const used = new Set(taken);
	return names.map((name) => {
		const base = name.slice(0, 52) || 'Guide';
		let called = base;
		for (let k = 2; used.has(called); k++) called = `${base} ${k}`;
		used.add(called);
		return called;
	});
}

/**
 * The lines of a DXF, or the points of a CSV or XLSX, as guides in space.
 * @param guides that are there @throws Error with a sentence
 */
export async function guidesFrom(
	file: File,
	guides: readonly Guide[]
): Promise<{ readonly guides: Guide[]; readonly told: readonly string[] }> {
	const { curves, told }: ReadCurves = isDrawing(file)
		? await curvesOf(file)
		: {
				curves: rowsOfPoints(readPoints(await readLines(file, 'Points'))).map(({ name, points }) => ({
					layer: name || stem(file.name),
					points,
					closed: false
				})),
				told: []
			};
	if (curves.length > MOST_GUIDES)
		throw new Error(
			`there are ${curves.length} lines in it; up to ${MOST_GUIDES} become guides. Save those that are wanted alone`
		);
	const names = numbered(
		curves.map(({ layer }) => layer),
		guides.map(({ name }) => name)
	);
	const made: Guide[] = [];
	for (const [k, { points, closed }] of curves.entries()) {
		const id = freshId('guide', [...guides, ...made]);
		made.push({ id, name: names[k]!, on: 'space', points: points.map(placed), joins: 'line', closed });
	}
	return { guides: made, told };
}

/** What stands on an outline. */
function prismOn({ points, height }: ReadOutline): Form {
	const joins = points.length > MOST_CORNERS ? 'smooth' : 'line';
	const corners = points.map(([x, y]): [number, number] => [tidy(x), tidy(y)]);
	return {
		kind: 'prism',
		outline: { shape: 'drawn', points: corners, joins, mirrored: false, rounding: 0 },
		at: [0, 0],
		foot: tidy(height),
		head: tidy(height) + HEIGHT,
		curved: []
	};
}

/** The highest degree that a net through so many points can have, of those that are smooth enough. */
const degreeFor = (points: number) => Math.min(3, points - 1);

/**
 * Masses on the outlines of a DXF, or through the points of a CSV or XLSX.
 * @throws Error with a sentence
 */
export async function formsFrom(file: File): Promise<{ readonly name: string; readonly form: Form }[]> {
	if (!isDrawing(file)) {
		const rows = netOfPoints(readPoints(await readLines(file, 'Points')));
		const degrees: [number, number] = [degreeFor(rows[0]!.length), degreeFor(rows.length)];
		const form: Form = { kind: 'net', rows: rows.map((row) => row.map(placed)), degrees, points: 'through' };
		return [{ name: stem(file.name), form }];
	}
	const outlines = outlinesOf((await curvesOf(file)).curves);
	if (!outlines.length)
		throw new Error('no line in it closes and lies level; what is built stands on outlines that do');
	if (outlines.length > MOST_OUTLINES)
		throw new Error(
			`there are ${outlines.length} outlines in it; masses stand on up to ${MOST_OUTLINES}. Save those that are wanted alone`
		);
	return outlines.map((outline) => ({ name: outline.layer, form: prismOn(outline) }));
}
