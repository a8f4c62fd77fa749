/** What a hand does over a picture; places and ways in CSS pixels of the canvas. */
export interface Gestures {
	/** A hand is laid on, or the wheel turned, at a place. */
	begin(x: number, y: number): void;
	turn(dx: number, dy: number): void;
	move(dx: number, dy: number): void;
	/** @param factor what distances become, of what they are */
	nearer(factor: number): void;
	centre(x: number, y: number): void;
}

/** Of a notch of the wheel. */
const NOTCH = 0.999;
/** Turns of the wheel within this time (ms), at one place, are one gesture. */
const ONE_TURN = 400;
const STILL = 3;

/**
 * Hear a canvas: the first button turns, the second and the middle one move, the wheel comes nearer, a double click brings
 * to the middle; one finger turns, two move and come nearer.
 * @param resting whether something else has taken the pointer
 * @returns what ends it
 */
export function hearGestures(
	canvas: HTMLCanvasElement,
	gestures: Gestures,
	resting: () => boolean
): () => void {
	const pointers = new Map<number, { x: number; y: number; moves: boolean }>();
	let wheel = { time: -Infinity, x: 0, y: 0 };
	const at = ({ clientX, clientY }: MouseEvent) => {
		const { left, top } = canvas.getBoundingClientRect();
		return { x: clientX - left, y: clientY - top };
	};
	const middle = () => {
		const all = [...pointers.values()];
		const x = all.reduce((sum, one) => sum + one.x, 0) / all.length;
		const y = all.reduce((sum, one) => sum + one.y, 0) / all.length;
		return { x, y, spread: Math.hypot(all[0]!.x - x, all[0]!.y - y) };
	};
	const laidOn = () => {
		const { x, y } = middle();
		gestures.begin(x, y);
	};

	const down = (event: PointerEvent) => {
		if (pointers.size && event.pointerType === 'mouse') return;
		pointers.set(event.pointerId, { ...at(event), moves: event.button !== 0 });
		canvas.setPointerCapture(event.pointerId);
		laidOn();
	};
	const drag = (event: PointerEvent) => {
		const held = pointers.get(event.pointerId);
		if (!held) return;
		const before = middle();
		Object.assign(held, at(event));
		if (resting()) return;
		const now = middle();
		const [dx, dy] = [now.x - before.x, now.y - before.y];
		if (pointers.size > 1) {
			gestures.move(dx, dy);
			if (before.spread > STILL && now.spread > STILL) gestures.nearer(before.spread / now.spread);
		} else if (held.moves) gestures.move(dx, dy);
		else gestures.turn(dx, dy);
	};
	const up = (event: PointerEvent) => {
		if (pointers.delete(event.pointerId) && pointers.size) laidOn();
	};
	const roll = (event: WheelEvent) => {
		event.preventDefault();
		const { x, y } = at(event);
		const goesOn = event.timeStamp - wheel.time < ONE_TURN && Math.hypot(x - wheel.x, y - wheel.y) < STILL;
		if (!goesOn) gestures.begin(x, y);
		wheel = { time: event.timeStamp, x, y };
		const lines = event.deltaMode === WheelEvent.DOM_DELTA_LINE ? 30 : 1;
		gestures.nearer(NOTCH ** -Math.max(-400, Math.min(400, event.deltaY * lines)));
	};
	const twice = (event: MouseEvent) => {
		const { x, y } = at(event);
		gestures.centre(x, y);
	};
	const menu = (event: Event) => event.preventDefault();

	const ending = new AbortController();
	const { signal } = ending;
	canvas.addEventListener('pointerdown', down, { signal });
	canvas.addEventListener('pointermove', drag, { signal });
	for (const name of ['pointerup', 'pointercancel', 'lostpointercapture'] as const)
		canvas.addEventListener(name, up, { signal });
	canvas.addEventListener('wheel', roll, { signal, passive: false });
	canvas.addEventListener('dblclick', twice, { signal });
	canvas.addEventListener('contextmenu', menu, { signal });
	return () => ending.abort();
}
