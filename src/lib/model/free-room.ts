import type { Frame } from './pose';

/** Room left between a card and what is brought into view (px). */
const GAP = 12;
/** Kept for what some lenses say along the top, so that the model stands still from lens to lens (px). */
const BAND = 58;
/** A card that is as high as this, of the picture, takes its side of it. */
const HIGH = 0.35;

/** What cards leave free of the picture they lie on. @param picture the element the model is drawn in */
export function freeOf(picture: HTMLElement): Frame['free'] {
	const whole = picture.getBoundingClientRect();
	const free = { left: 0, top: BAND, right: 0, bottom: 44 };
	for (const card of picture.parentElement!.querySelectorAll('.floating')) {
		const box = card.getBoundingClientRect();
		if (box.height < HIGH * whole.height) continue;
		const [left, right] = [box.right - whole.left + GAP, whole.right - box.left + GAP];
		if (left < right) free.left = Math.max(free.left, left);
		else free.right = Math.max(free.right, right);
	}
	// Of a narrow picture something has to remain.
	return free.left + free.right > 0.7 * whole.width ? { ...free, left: 0, right: 0 } : free;
}
