import type { MapView } from './map-sheets';

/** Cells drawn at once before the page is let in again. */
const SLICE = 6000;
/** Up to so many cells are drawn anew for every frame. */
export const DRAWN_AT_ONCE = 6000;

/** What is drawn: how many cells there are, and how to draw some of them. */
export interface MapContent {
	readonly count: number;
	readonly draw: (pen: CanvasRenderingContext2D, view: MapView, from: number, to: number) => void;
}

interface Drawn {
	readonly canvas: HTMLCanvasElement;
	readonly view: MapView;
}

/**
 * The cells of a large map as a picture, drawn in slices beside the screen. While the map is moved the last
 * picture is shown moved and scaled, so that panning costs the same however many cells there are.
 */
export class MapPicture {
	private ready: Drawn | null = null;
	private job = 0;
	private waiting = 0;

	/** @param onready called when a sharp picture is there */
	constructor(private readonly onready: () => void) {}

	/** Draw what there is, and start on a sharp picture when it is of something else. */
	show(
		pen: CanvasRenderingContext2D,
		content: MapContent,
		view: MapView,
		size: { readonly width: number; readonly height: number },
		ratio: number,
		fresh: boolean
	): void {
		const { ready } = this;
		if (ready) {
			const scale = view.scale / ready.view.scale;
			pen.drawImage(
				ready.canvas,
				view.originX - ready.view.originX * scale,
				view.originY - ready.view.originY * scale,
				size.width * scale,
				size.height * scale
			);
		}
		const same =
			ready &&
			!fresh &&
			ready.view.scale === view.scale &&
			ready.view.originX === view.originX &&
			ready.view.originY === view.originY;
		if (same) return;
		cancelAnimationFrame(this.job);
		clearTimeout(this.waiting);
		// While the map is being moved there is no use in a picture of every place on the way.
		this.waiting = window.setTimeout(() => this.start(content, view, size, ratio), fresh ? 0 : 90);
	}

	private start(
		content: MapContent,
		view: MapView,
		size: { readonly width: number; readonly height: number },
		ratio: number
	): void {
		const canvas = document.createElement('canvas');
		canvas.width = size.width * ratio;
		canvas.height = size.height * ratio;
		const pen = canvas.getContext('2d')!;
		pen.scale(ratio, ratio);
		let from = 0;
		const slice = () => {
			const to = Math.min(content.count, from + SLICE);
			content.draw(pen, view, from, to);
			from = to;
			if (from < content.count) {
				this.job = requestAnimationFrame(slice);
				return;
			}
			this.ready = { canvas, view };
			this.onready();
		};
		this.job = requestAnimationFrame(slice);
	}

	stop(): void {
		cancelAnimationFrame(this.job);
		clearTimeout(this.waiting);
	}
}
