import { inRadians } from '../../units/scale';
import type { FaceModel, Model } from '../../cladding/model';

/** Where the picture is seen from: a little above, from the front left. */
const AZIMUTH = inRadians(-62);
const ELEVATION = inRadians(24);
const LIGHT = [-0.35, -0.55, 0.76] as const;
const TONES = ['#8FB0AC', '#C9B58A', '#9DB7C4', '#B9B7A6'] as const;

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

function drawFace({ cells, grid, measures }: FaceModel, tone: string): Drawn[] {
	const [ca, sa, ce, se] = [Math.cos(AZIMUTH), Math.sin(AZIMUTH), Math.cos(ELEVATION), Math.sin(ELEVATION)];
	const drawn: Drawn[] = [];
	for (let c = 0; c < cells.count; c++) {
		const points: [number, number][] = [];
		let depth = 0;
		for (let k = cells.start[c]!; k < cells.start[c + 1]!; k++) {
			const o = 3 * cells.corners[k]!;
			const [x, y, z] = [grid.positions[o]!, grid.positions[o + 1]!, grid.positions[o + 2]!];
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
	const drawn = model.zones
		.flatMap(({ model: zone }, k) =>
			zone ? zone.faces.map((face) => drawFace(face, TONES[k % TONES.length]!)) : []
		)
		.flat()
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
