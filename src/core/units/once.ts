/**
 * A value that is made when it is first asked for.
 *
 * ```ts
 * const quantities = once(() => pieceQuantities(group.group)); // made when it is first asked for
 * ```
 */
export function once<T>(make: () => T): () => T {
	let made: { value: T } | null = null;
	return () => (made ??= { value: make() }).value;
}
