import { rounded } from '../units/quantity';

/** What an element is cut from: a plate's thickness, a bar's section. `Size` is where a size is had (mm). */
export interface Stock<Size> {
	readonly shape: StockShape;
	/** In the order of `sizeNames`. */
	readonly sizes: readonly Size[];
}

/** What each stock's sizes are; of an outline of one's own none. */
export const sizeNames = {
	plate: ['thickness'],
	frame: ['depth'],
	box: ['width', 'depth'],
	tube: ['width', 'depth', 'wall'],
	round: ['diameter', 'wall'],
	angle: ['width', 'depth', 'wall'],
	tee: ['width', 'depth', 'wall'],
	blade: ['thickness', 'depth'],
	own: [],
	ball: ['diameter']
} as const;
export type StockShape = keyof typeof sizeNames;

const words: Record<StockShape, string> = {
	plate: 'plate',
	frame: 'frame',
	box: 'box',
	tube: 'hollow box',
	round: 'round',
	angle: 'angle',
	tee: 'tee',
	blade: 'flat',
	own: 'own outline',
	ball: 'ball'
};

/**
 * As it is ordered: "hollow box 60 × 140 × 4".
 *
 * ```ts
 * stockText({ shape: 'plate', sizes: [6] }); // plate 6
 * ```
 * @param sizes mm
 */
export function stockText({ shape, sizes }: Stock<number>): string {
	const shown = sizes.map((mm) => String(rounded(mm, 1)));
	return [words[shape], shown.join(' × ')].filter(Boolean).join(' ');
}
