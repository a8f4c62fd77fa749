import { inRadians } from '../../units/scale';
import type { FaceModel, Model } from '../../cladding/model';

/** Where the picture is seen from: a little above, from the front left. */
const AZIMUTH = inRadians(-62);
const ELEVATION = inRadians(24);
const LIGHT = [-0.35, -0.55, 0.76] as const;
const TONES = ['#8FB0AC', '#C9B58A', '#9DB7C4', '#B9B7A6'] as const;

/**
 * So many cells are drawn in all, and of every face so many at least: of more, each is smaller than the eye tells apart in
 * a picture of this size, and a list of projects waits seconds for it.
 */
const MOST = 2000;
const LEAST = 24;

interface Drawn {
	readonly depth: number;
	readonly points: readonly (readonly [number, number])[];
	readonly fill: string;
}

function shade(hex: string, light: number): string {
	const level = 0.62 + 0.42 * Math.max(0, light);
	const channel = (k: number) => Math.min(255, Math.round(parseInt(hex.slice(k, k + 2), 16) * level));
	return `#${[1, 3, 5].map((k) => channel(k).toString(16).padStart(2, '0')).join('')}`;
}

/** The least and the largest of some numbers. */
function rangeOf(numbers: Uint32Array): [least: number, most: number] {
	let least = Infinity;
	let most = -Infinity;
	for (let k = 0; k < numbers.length; k++) {
		if (numbers[k]! < least) least = numbers[k]!;
		if (numbers[k]! > most) most = numbers[k]!;
	}
	return [least, most];
}

/** Bays and courses of a face in blocks, of each of which one module is drawn, blown up to what its block covers. */
interface Blocks {
	/** The block of each cell, and whether it is drawn. */
	readonly of: Uint32Array;
	readonly isDrawn: Uint8Array;
	/** By block: how many cells it has, the middle of all of them, how many are drawn, and the middle of those; mm. */
	readonly cells: Uint32Array;
	readonly middle: Float64Array;
	readonly drawn: Uint32Array;
	readonly drawnMiddle: Float64Array;
}

/** @param share of the face's cells that are to be drawn, up to 1 */
function inBlocks({ cells: { count, bay, course }, measures: { centre } }: FaceModel, share: number): Blocks {
	const [firstBay, lastBay] = rangeOf(bay);
	const [firstCourse, lastCourse] = rangeOf(course);
	const bays = Math.min(lastBay - firstBay + 1, Math.ceil(Math.sqrt(1 / share)));
	const courses = Math.min(lastCourse - firstCourse + 1, Math.ceil(1 / share / bays));
	const across = Math.floor((lastBay - firstBay) / bays) + 1;
	const blocks = across * (Math.floor((lastCourse - firstCourse) / courses) + 1);
	const [of, isDrawn] = [new Uint32Array(count), new Uint8Array(count)];
	const [cells, drawn] = [new Uint32Array(blocks), new Uint32Array(blocks)];
	const [middle, drawnMiddle] = [new Float64Array(3 * blocks), new Float64Array(3 * blocks)];
	const first = new Uint32Array(blocks);
	for (let c = 0; c < count; c++) {
		const block =
			Math.floor((course[c]! - firstCourse) / courses) * across + Math.floor((bay[c]! - firstBay) / bays);
		of[c] = block;
		if (cells[block]!++ === 0) first[block] = c;
		// The cells of one module have its bay and its course in common.
		const isOne = bay[c] === bay[first[block]!] && course[c] === course[first[block]!];
		isDrawn[c] = Number(isOne);
		drawn[block]! += Number(isOne);
		for (let a = 0; a < 3; a++) {
			middle[3 * block + a]! += centre[3 * c + a]!;
			if (isOne) drawnMiddle[3 * block + a]! += centre[3 * c + a]!;
		}
	}
	for (let k = 0; k < 3 * blocks; k++) {
		middle[k]! /= cells[Math.floor(k / 3)] || 1;
		drawnMiddle[k]! /= drawn[Math.floor(k / 3)] || 1;
	}
	return { of, isDrawn, cells, middle, drawn, drawnMiddle };
}

function drawFace(face: FaceModel, tone: string, share: number): Drawn[] {
	const { cells, grid, measures } = face;
	const blocks = inBlocks(face, share);
	const [ca, sa, ce, se] = [Math.cos(AZIMUTH), Math.sin(AZIMUTH), Math.cos(ELEVATION), Math.sin(ELEVATION)];
	const drawn: Drawn[] = [];
	for (let c = 0; c < cells.count; c++) {
		if (!blocks.isDrawn[c]) continue;
		const block = blocks.of[c]!;
		const times = Math.sqrt(blocks.cells[block]! / blocks.drawn[block]!);
		const points: [number, number][] = [];
		let depth = 0;
		for (let k = cells.start[c]!; k < cells.start[c + 1]!; k++) {
			const [x, y, z] = [0, 1, 2].map((a) => {
				const from = grid.positions[3 * cells.corners[k]! + a]! - blocks.drawnMiddle[3 * block + a]!;
				return blocks.middle[3 * block + a]! + from * times;
			}) as [number, number, number];
			const toward = x * ca + y * sa;
			points.push([-x * sa + y * ca, -(z * ce - toward * se)]);
			depth += toward * ce + z * se;
		}
		const n = 3 * c;
		const seen =
			measures.normal[n]! * ca * ce + measures.normal[n + 1]! * sa * ce + measures.normal[n + 2]! * se;
		const side = seen < 0 ? -1 : 1;
		const light =
			side *
			(LIGHT[0] * measures.normal[n]! +
				LIGHT[1] * measures.normal[n + 1]! +
				LIGHT[2] * measures.normal[n + 2]!);
		drawn.push({ depth: depth / points.length, points, fill: shade(tone, light) });
	}
	return drawn;
}

/**
 * A small picture of the whole model, its cells from far to near, as SVG.
 *
 * ```ts
 * const svg = writePicture(model, 640, 400);
 * ```
 */
export function writePicture(model: Model, width = 320, height = 200): string {
	const faces = model.zones.flatMap(({ model: zone }, k) =>
		zone ? zone.faces.map((face) => ({ face, tone: TONES[k % TONES.length]! })) : []
	);
	const share = MOST / faces.reduce((sum, { face }) => sum + face.cells.count, 0);
	const drawn = faces
		.flatMap(({ face, tone }) =>
			face.cells.count ? drawFace(face, tone, Math.min(1, Math.max(share, LEAST / face.cells.count))) : []
		)
		.sort((a, b) => a.depth - b.depth);
	const all = drawn.flatMap((cell) => cell.points);
	const bound = (axis: 0 | 1, pick: 'min' | 'max') =>
		all.reduce((best, p) => Math[pick](best, p[axis]), pick === 'min' ? Infinity : -Infinity);
	const [left, right, top, bottom] = [bound(0, 'min'), bound(0, 'max'), bound(1, 'min'), bound(1, 'max')];
	const margin = 12;
	const scale = Math.min(
		(width - 2 * margin) / (right - left || 1),
		(height - 2 * margin) / (bottom - top || 1)
	);
	const x = (value: number) => (width / 2 + (value - (left + right) / 2) * scale).toFixed(1);
	const y = (value: number) => (height / 2 + (value - (top + bottom) / 2) * scale).toFixed(1);
	const shapes = drawn.map(
		({ points, fill }) =>
			`<path d="M${points.map((p) => `${x(p[0])} ${y(p[1])}`).join('L')}Z" fill="${fill}"/>`
	);
	return [
		`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}">`,
		'<g stroke="#FCFBF7" stroke-width=".5" stroke-linejoin="round">',
		...shapes,
		'</g></svg>'
	].join('');
}
