/** A message to oneself comes after those that are there: timers would wait longer. */
function byMessage(): () => Promise<void> {
	const { port1, port2 } = new MessageChannel();
	const waiting: (() => void)[] = [];
	port1.onmessage = () => waiting.shift()?.();
	return () =>
		new Promise((resolve) => {
			waiting.push(resolve);
			port2.postMessage(null);
		});
}

let take: (() => Promise<void>) | null = null;

/**
 * Let everything in that waits for this thread: messages, files, what other threads have done.
 *
 * ```ts
 * await turn();
 * ```
 */
export function turn(): Promise<void> {
	take ??=
		typeof setImmediate === 'function' ? () => new Promise((resolve) => setImmediate(resolve)) : byMessage();
	return take();
}
