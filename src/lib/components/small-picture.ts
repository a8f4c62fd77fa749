import type { Vector } from '$core/geometry/vector';

/** What is drawn: faces by their corners, lines and dots, mm. */
export interface Drawable {
	readonly faces: readonly (readonly Vector[])[];
	readonly lines?: readonly { readonly points: readonly Vector[]; readonly lit: boolean }[];
	readonly dots?: readonly { readonly at: Vector; readonly lit: boolean }[];
}

/** The same in a box of `width` by `height`: paths as SVG has them, faces from the back to the front. */
export interface SmallPicture {
	readonly width: number;
	readonly height: number;
	/** How much light falls on each face, 0 to 1. */
	readonly faces: readonly { readonly path: string; readonly light: number }[];
	readonly lines: readonly { readonly path: string; readonly lit: boolean }[];
	readonly dots: readonly { readonly x: number; readonly y: number; readonly lit: boolean }[];
}

const MARGIN = 5;
/** From where it is looked at: turned from the south, and risen (rad). */
const [TURN, RISE] = [0.5, 0.36];
/** Where light comes from. */
const LIGHT: Vector = [-0.35, -0.5, 0.79];

/** A point in the plane of the picture, and how near it is to the eye (mm). */
function seen([x, y, z]: Vector): Vector {
	const right = x * Math.cos(TURN) + y * Math.sin(TURN);
	const away = -x * Math.sin(TURN) + y * Math.cos(TURN);
	return [right, z * Math.cos(RISE) + away * Math.sin(RISE), z * Math.sin(RISE) - away * Math.cos(RISE)];
}

/** Light on a face; both sides are seen, and the one that is looked at is lit. */
function lightOn(corners: readonly Vector[]): number {
	const normal = [0, 0, 0];
	for (const [k, a] of corners.entries()) {
		const b = corners[(k + 1) % corners.length]!;
		for (let n = 0; n < 3; n++) {
			const [p, q] = [(n + 1) % 3, (n + 2) % 3];
			normal[n]! += (a[p]! - b[p]!) * (a[q]! + b[q]!);
		}
	}
	const size = Math.hypot(...normal) || 1;
	return Math.abs(normal.reduce((sum, one, n) => sum + (one / size) * LIGHT[n]!, 0));
}

/** Something as it stands, drawn small. */
export function smallPicture(
	{ faces, lines = [], dots = [] }: Drawable,
	[width, height]: readonly [number, number]
): SmallPicture {
	const drawn = faces
		.map((corners) => {
			const places = corners.map(seen);
			return {
				places,
				near: places.reduce((sum, [, , z]) => sum + z, 0) / places.length,
				light: lightOn(corners)
			};
		})
		.sort((a, b) => a.near - b.near);
	const traced = lines.map(({ points, lit }) => ({ places: points.map(seen), lit }));
	const marked = dots.map(({ at, lit }) => ({ place: seen(at), lit }));
	const all = [
		...drawn.flatMap(({ places }) => places),
		...traced.flatMap(({ places }) => places),
		...marked.map(({ place }) => place)
	];
	const [xs, ys] = [all.map(([x]) => x), all.map(([, y]) => y)];
	const [west, east, low, high] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
	const scale = Math.min(
		(width - 2 * MARGIN) / Math.max(1e-9, east - west),
		(height - 2 * MARGIN) / Math.max(1e-9, high - low)
	);
	const place = ([x, y]: Vector) => [
		width / 2 + (x - (west + east) / 2) * scale,
		height / 2 - (y - (low + high) / 2) * scale
	];
	const path = (places: readonly Vector[]) =>
		`M${places
			.map((one) =>
				place(one)
					.map((n) => n.toFixed(1))
					.join(' ')
			)
			.join('L')}`;
	return {
		width,
		height,
		faces: drawn.map(({ places, light }) => ({ path: `${path(places)}Z`, light })),
		lines: traced.map(({ places, lit }) => ({ path: path(places), lit })),
		dots: marked.map(({ place: at, lit }) => {
			const [x, y] = place(at) as [number, number];
			return { x, y, lit };
		})
	};
}
