import type { StockShape } from '../part/stock';

const box = (width: number, depth: number) => (width * depth ** 3) / 12;

/** A plate upright in the middle or at the end of one that lies: about the axis through the middle of both. */
function flanged(width: number, depth: number, wall: number): number {
	const upright = depth - wall;
	const [flange, web] = [width * wall, wall * upright];
	if (!(flange + web > 0)) return NaN;
	// From the outer side of the flange.
	const middle = (flange * (wall / 2) + web * (wall + upright / 2)) / (flange + web);
	return (
		box(width, wall) +
		flange * (middle - wall / 2) ** 2 +
		box(wall, upright) +
		web * (wall + upright / 2 - middle) ** 2
	);
}

/**
 * Second moment of area of a bar's section (mm⁴), about the axis across its depth: that by which it stands against what
 * presses square on the face. Closed forms; null where the stock has no such section.
 *
 * ```ts
 * secondMoment('tube', [60, 140, 4]); // 3 753 472 mm⁴
 * ```
 * @param sizes of the stock, in its order (mm)
 */
export function secondMoment(shape: StockShape, sizes: readonly number[]): number | null {
	const [a = 0, b = 0, wall = 0] = sizes;
	switch (shape) {
		case 'box':
		case 'blade':
			return box(a, b);
		case 'tube':
			return box(a, b) - box(Math.max(0, a - 2 * wall), Math.max(0, b - 2 * wall));
		case 'round': {
			const inside = b > 0 ? Math.max(0, a - 2 * b) : 0;
			return (Math.PI * (a ** 4 - inside ** 4)) / 64;
		}
		case 'angle':
		case 'tee':
			return flanged(a, b, wall);
		default:
			return null;
	}
}
