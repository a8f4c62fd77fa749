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
