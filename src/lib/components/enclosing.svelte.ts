import { isWithin, type Place } from '$core/geometry/polygon';

/** A shorter way than this is a click (px). */
const CLICK = 4;

/** What is drawn round things to choose them: with Shift a box, with Alt a line; in pixels of what it is drawn on. */
export class Enclosing {
	/** The outline, while it is drawn. */
	line = $state.raw<readonly Place[] | null>(null);
	private from: Place | null = null;
	private isBox = false;

	/** @returns whether the keys that are held ask for one */
	begin({ shiftKey, altKey }: PointerEvent, { x, y }: { readonly x: number; readonly y: number }): boolean {
		this.cancel();
		if (!shiftKey && !altKey) return false;
		this.from = [x, y];
		this.isBox = !altKey;
		return true;
	}

	get begun(): boolean {
		return this.from !== null;
	}

	move({ x, y }: { readonly x: number; readonly y: number }): void {
		if (!this.from) return;
		const [fromX, fromY] = this.from;
		if (!this.line && Math.hypot(x - fromX, y - fromY) <= CLICK) return;
		this.line = this.isBox
			? [
					[fromX, fromY],
					[x, fromY],
					[x, y],
					[fromX, y]
				]
			: [...(this.line ?? [this.from]), [x, y]];
	}

	/** Done: which places it holds, or null where nothing was drawn. */
	end(): ((x: number, y: number) => boolean) | null {
		const { line } = this;
		this.cancel();
		return line && ((x, y) => isWithin(line, [x, y]));
	}

	cancel(): void {
		this.from = null;
		this.line = null;
	}
}
