/**
 * Memory for what one thread makes and another draws. Where pages may share memory (`crossOriginIsolated`) nothing
 * of it is copied when it is sent; what has been sent is not written to any more.
 *
 * ```ts
 * const positions = new Float32Array(bufferOf(4 * 3 * count));
 * ```
 */
export const bufferOf = (bytes: number): ArrayBufferLike =>
	globalThis.crossOriginIsolated ? new SharedArrayBuffer(bytes) : new ArrayBuffer(bytes);

/** Below it a column is sent by its values: memory of its own would cost more than the copy (bytes). */
const WORTH_SHARING = 1024;

/** The same column in memory that another thread reads, or itself where it is there already or small. */
function columnShared(column: ArrayBufferView): ArrayBufferView {
	if (column.buffer instanceof SharedArrayBuffer || column.byteLength < WORTH_SHARING) return column;
	const bytes = new Uint8Array(bufferOf(column.byteLength));
	bytes.set(new Uint8Array(column.buffer, column.byteOffset, column.byteLength));
	const Column = column.constructor as new (buffer: ArrayBufferLike) => ArrayBufferView;
	return new Column(bytes.buffer);
}

/**
 * The same value for another thread: its columns lie in shared memory where pages may share it, so that whoever
 * receives it copies nothing. Columns that the sender goes on writing must not be among them.
 *
 * ```ts
 * const { area } = inSharedMemory({ area: new Float64Array(10_000), name: 'Hall' });
 * ```
 */
export function inSharedMemory<T>(value: T): T {
	if (!globalThis.crossOriginIsolated) return value;
	const shared = (one: unknown): unknown => {
		if (typeof one !== 'object' || one === null) return one;
		if (ArrayBuffer.isView(one)) return columnShared(one);
		if (Array.isArray(one)) return one.map(shared);
		if (one instanceof Map) return new Map([...one].map(([key, held]) => [key, shared(held)]));
		if (Object.getPrototypeOf(one) !== Object.prototype) return one;
		return Object.fromEntries(Object.entries(one).map(([key, held]) => [key, shared(held)]));
	};
	return shared(value) as T;
}
