import { CompressionStreamZlib, setWasmExports } from 'zlib-streams/zlib-streams.js';
import program from 'zlib-streams/zlib-streams.wasm?url';
import { PACKED, platformPacking, type Packing } from '$core/exchange/archive';
import type { ToPack } from './side-packing';

/** Without its program, as when the line is down, the platform packs: slower. */
const packing: Promise<Packing> = WebAssembly.instantiateStreaming(fetch(program)).then(
	({ instance }) => {
		setWasmExports(instance.exports);
		return () => new CompressionStreamZlib('gzip', { level: PACKED }) as ReturnType<Packing>;
	},
	() => platformPacking
);

addEventListener('message', async ({ data: { from, into } }: MessageEvent<ToPack>) => {
	const open = await packing;
	// What fails is told to who reads.
	await from
		.pipeThrough(open())
		.pipeTo(into)
		.catch(() => {});
});
