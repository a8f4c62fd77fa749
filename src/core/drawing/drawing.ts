import type { Place } from '../geometry/polygon';

/** What stands on a drawing, in kinds: each is a layer in the formats that have them. Pens are widths in mm. */
export const layers = {
	cuts: { name: 'CUTS', pen: 0, colour: '#cdc6b6' },
	frame: { name: 'FRAME', pen: 0.5, colour: '#1b1b18' },
	panels: { name: 'PANELS', pen: 0.13, colour: '#1b1b18' },
	bars: { name: 'BARS', pen: 0.18, colour: '#1b1b18' },
	nodes: { name: 'NODES', pen: 0.18, colour: '#1b1b18' },
	louvers: { name: 'LOUVERS', pen: 0.1, colour: '#1b1b18' },
	structure: { name: 'STRUCTURE', pen: 0.18, colour: '#55554e' },
	cells: { name: 'CELLS', pen: 0.13, colour: '#8a8a80' },
	outline: { name: 'OUTLINE', pen: 0.35, colour: '#1b1b18' },
	openings: { name: 'OPENINGS', pen: 0.25, colour: '#1b1b18' },
	folds: { name: 'FOLDS', pen: 0.18, colour: '#1f7a6b' },
	tags: { name: 'TAGS', pen: 0.13, colour: '#ffffff' },
	levels: { name: 'LEVELS', pen: 0.13, colour: '#b23b2a' },
	heads: { name: 'HEADS', pen: 0.13, colour: '#1f7a6b' },
	clouds: { name: 'CLOUDS', pen: 0.25, colour: '#b23b2a' },
	dimensions: { name: 'DIMENSIONS', pen: 0.13, colour: '#1f5f86' },
	marks: { name: 'MARKS', pen: 0.13, colour: '#1b1b18' },
	tables: { name: 'TABLES', pen: 0.13, colour: '#1b1b18' },
	text: { name: 'TEXT', pen: 0.13, colour: '#1b1b18' }
} as const satisfies Record<string, { readonly name: string; readonly pen: number; readonly colour: string }>;
export type LayerName = keyof typeof layers;

/** A line of text. Its place is on its base line; sizes are heights of capitals and what goes with them (mm of paper). */
export interface Text {
	readonly x: number;
	readonly y: number;
	readonly size: number;
	readonly text: string;
	/** Which end of it stands at its place. */
	readonly from: 'left' | 'middle' | 'right';
	/** rad, anticlockwise */
	readonly turn: number;
	readonly bold: boolean;
}

/** An area that is filled: x y of every corner of its rings; what lies within two of them is not (even-odd). */
export type Fill = readonly Float64Array[];

/** What lies on one layer: x1 y1 x2 y2 of every line, areas that are filled under them, and texts. */
export interface Inked {
	readonly layer: LayerName;
	readonly fills: readonly Fill[];
	readonly lines: Float64Array;
	readonly texts: readonly Text[];
}

/** A page as it is printed: mm of paper, from its lower left corner. */
export interface Page {
	readonly title: string;
	readonly width: number;
	readonly height: number;
	readonly inked: readonly Inked[];
}

/** A part of a model as it is drawn: lines in mm of the model, x to the right and y up; texts stand at places of it. */
export interface View {
	readonly inked: readonly Inked[];
	/** Left, foot, right, head (mm of the model). */
	readonly bounds: readonly [number, number, number, number];
}

/** How large a letter is on the average, for its size: Archivo's figures and small letters, measured. */
const LETTER = 0.56;

/** From the base line to the middle of capitals, for their size. */
const CAPITALS = 0.35;

/** About how wide a text is (mm). */
export const widthOfText = (text: string, size: number): number => text.length * LETTER * size;

/** Takes lines and texts of many layers. */
export class Ink {
	private readonly lines = new Map<LayerName, number[]>();
	private readonly texts = new Map<LayerName, Text[]>();
	private readonly fills = new Map<LayerName, Fill[]>();

	fill(layer: LayerName, rings: Fill): void {
		const known = this.fills.get(layer);
		if (known) known.push(rings);
		else this.fills.set(layer, [rings]);
	}

	line(layer: LayerName, x1: number, y1: number, x2: number, y2: number): void {
		const known = this.lines.get(layer);
		if (known) known.push(x1, y1, x2, y2);
		else this.lines.set(layer, [x1, y1, x2, y2]);
	}

	/** @param dash length of a dash and of what is left out after it, in the unit of the line */
	dashed(layer: LayerName, [ax, ay]: Place, [bx, by]: Place, [dash, gap]: readonly [number, number]): void {
		const size = Math.hypot(bx - ax, by - ay);
		for (let from = 0; from < size; from += dash + gap) {
			const [s, t] = [from / size, Math.min(1, (from + dash) / size)];
			this.line(layer, ax + s * (bx - ax), ay + s * (by - ay), ax + t * (bx - ax), ay + t * (by - ay));
		}
	}

	/** @param points x y of every corner */
	ring(layer: LayerName, points: readonly (readonly [number, number])[]): void {
		points.forEach(([x, y], k) => {
			const [nx, ny] = points[(k + 1) % points.length]!;
			this.line(layer, x, y, nx, ny);
		});
	}

	box(layer: LayerName, left: number, foot: number, width: number, height: number): void {
		this.ring(layer, [
			[left, foot],
			[left + width, foot],
			[left + width, foot + height],
			[left, foot + height]
		]);
	}

	text(
		layer: LayerName,
		x: number,
		y: number,
		size: number,
		text: string,
		{ from = 'left', turn = 0, bold = false }: Partial<Pick<Text, 'from' | 'turn' | 'bold'>> = {}
	): void {
		if (!text) return;
		const known = this.texts.get(layer) ?? [];
		known.push({ x, y, size, text, from, turn, bold });
		this.texts.set(layer, known);
	}

	/** A text on a tag of its own, which covers what lies under it. @param x of its middle, as `y` is */
	tag(x: number, y: number, size: number, text: string): void {
		const [width, height] = [widthOfText(text, size) + size * 0.6, size * 1.3];
		const [left, foot] = [x - width / 2, y - height / 2];
		this.fill('tags', [
			Float64Array.of(left, foot, left + width, foot, left + width, foot + height, left, foot + height)
		]);
		this.box('heads', left, foot, width, height);
		this.text('heads', x, y - size * CAPITALS, size, text, { from: 'middle', bold: true });
	}

	/** What another one has taken, at another place: its lines at a scale, its texts as large as they are. */
	place(inked: readonly Inked[], scale: number, x: number, y: number): void {
		for (const { layer, fills, lines, texts } of inked) {
			for (const rings of fills)
				this.fill(
					layer,
					rings.map((ring) => ring.map((value, k) => value * scale + (k % 2 ? y : x)))
				);
			for (let k = 0; k < lines.length; k += 4)
				this.line(
					layer,
					lines[k]! * scale + x,
					lines[k + 1]! * scale + y,
					lines[k + 2]! * scale + x,
					lines[k + 3]! * scale + y
				);
			for (const text of texts)
				this.text(layer, text.x * scale + x, text.y * scale + y, text.size, text.text, text);
		}
	}

	/** All of it, in the order of the layers. */
	done(): Inked[] {
		return (Object.keys(layers) as LayerName[]).flatMap((layer) => {
			const lines = this.lines.get(layer) ?? [];
			const texts = this.texts.get(layer) ?? [];
			const fills = this.fills.get(layer) ?? [];
			const isEmpty = !lines.length && !texts.length && !fills.length;
			return isEmpty ? [] : [{ layer, fills, lines: Float64Array.from(lines), texts }];
		});
	}
}

/** The box around lines and the places of texts; all nought where there are none. */
export function boundsOf(inked: readonly Inked[]): [number, number, number, number] {
	const box: [number, number, number, number] = [Infinity, Infinity, -Infinity, -Infinity];
	const take = (x: number, y: number) => {
		if (x < box[0]) box[0] = x;
		if (y < box[1]) box[1] = y;
		if (x > box[2]) box[2] = x;
		if (y > box[3]) box[3] = y;
	};
	for (const { lines, texts } of inked) {
		for (let k = 0; k < lines.length; k += 2) take(lines[k]!, lines[k + 1]!);
		for (const { x, y } of texts) take(x, y);
	}
	return box[0] > box[2] ? [0, 0, 0, 0] : box;
}
