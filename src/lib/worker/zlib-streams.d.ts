declare module 'zlib-streams/zlib-streams.js' {
	export function setWasmExports(exports: WebAssembly.Exports): void;
	export class CompressionStreamZlib extends TransformStream<Uint8Array, Uint8Array> {
		/** @param options how hard it packs, of nine */
		constructor(type: 'gzip', options: { readonly level: number });
	}
}
