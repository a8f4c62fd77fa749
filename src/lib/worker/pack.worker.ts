import { CompressionStreamZlib, setWasmExports } from 'zlib-streams/zlib-streams.js';
import program from 'zlib-streams/zlib-streams.wasm?url';
import { PACKED } from '$core/exchange/archive';
import type { ToPack } from './side-packing';

const ready = WebAssembly.instantiateStreaming(fetch(program)).then(({ instance }) =>
	setWasmExports(instance.exports)
);

addEventListener('message', async ({ data: { from, into } }: MessageEvent<ToPack>) => {
	try {
		await ready;
		await from.pipeThrough(new CompressionStreamZlib('gzip', { level: PACKED })).pipeTo(into);
	} catch (error) {
		// Ended by the one who reads, or else told to it.
		await into.abort(error).catch(() => {});
	}
});
