import {
	servePrograms,
	SideThreads,
	type FromSide,
	type SideLine,
	type ToSide
} from '../src/core/part/threads/side-threads';
import { turn } from '../src/core/units/turn';

/** What happens on a line, for a test that wants to know or to meddle. */
export interface Watched {
	readonly sent: ToSide[];
	/** What comes through of an answer: nothing where it gets lost. */
	pass(message: FromSide): FromSide | null;
	/** The thread ends. */
	die(): void;
}

/** A line to a thread that is none: what it is told is copied as between threads, and answered a little later. */
export function sideLine(): SideLine & Watched {
	let take: (message: FromSide) => void = () => {};
	let ended = () => {};
	let serve: ((message: ToSide) => void) | null = null;
	const line: SideLine & Watched = {
		sent: [],
		pass: (message) => message,
		send(message) {
			line.sent.push(message);
			const copy = structuredClone(message);
			setImmediate(() => serve?.(copy));
		},
		listen(taking, ending) {
			[take, ended] = [taking, ending];
			serve = servePrograms((message) => {
				const passed = line.pass(structuredClone(message));
				if (passed) setImmediate(() => take(passed));
			});
		},
		die() {
			serve = null;
			ended();
		},
		end() {
			serve = null;
		}
	};
	return line;
}

/** So many of them beside this thread. */
export const sideThreads = (most: number): SideThreads =>
	new SideThreads(most, () => Array.from({ length: most }, sideLine), turn, 0);
