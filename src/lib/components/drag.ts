import type { Attachment } from 'svelte/attachments';

/** What follows the pointer from its press to its release. */
export interface Drag {
	/** What it returns is of no matter, but for false: nothing is taken hold of. */
	begin(event: PointerEvent): unknown;
	move(event: PointerEvent): void;
	end(event: PointerEvent): void;
	/** The pointer is lost, or the element goes: what was begun is taken back. */
	cancel(): void;
}

/**
 * Take hold with the first button, whatever lies under the pointer until it is let go.
 *
 * ```svelte
 * <canvas {@attach dragging({ begin, move, end, cancel })}></canvas>
 * ```
 */
export function dragging({ begin, move, end, cancel }: Drag): Attachment<HTMLElement | SVGElement> {
	return (element) => {
		let pointer: number | null = null;
		const down = (event: PointerEvent) => {
			if (pointer !== null || event.button !== 0 || begin(event) === false) return;
			pointer = event.pointerId;
			element.setPointerCapture(pointer);
		};
		const moved = (event: PointerEvent) => {
			if (event.pointerId === pointer) move(event);
		};
		const up = (event: PointerEvent) => {
			if (event.pointerId !== pointer) return;
			pointer = null;
			end(event);
		};
		const lost = () => {
			if (pointer === null) return;
			pointer = null;
			cancel();
		};
		const listeners = [
			['pointerdown', down],
			['pointermove', moved],
			['pointerup', up],
			['pointercancel', lost],
			['lostpointercapture', lost]
		] as const;
		for (const [name, act] of listeners) element.addEventListener(name, act as EventListener);
		return () => {
			for (const [name, act] of listeners) element.removeEventListener(name, act as EventListener);
			lost();
		};
	};
}
