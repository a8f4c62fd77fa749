import { CompressionStreamZlib, setWasmExports } from 'zlib-streams/zlib-streams.js';
import program from 'zlib-streams/zlib-streams.wasm?url';
import { PACKED, platformPacking, type Packing } from '$core/exchange/archive';
import type { FromPack, ToPack } from './side-packing';

/** Without its program, as when the line is down, the platform packs: slower. */
const packing: Promise<Packing> = WebAssembly.instantiateStreaming(fetch(program)).then(
	({ instance }) => {
		setWasmExports(instance.exports);
		return () => new CompressionStreamZlib('gzip', { level: PACKED }) as ReturnType<Packing>;
	},
	() => platformPacking
);

/** Each file comes by a port of its own. */
addEventListener('message', async ({ data: port }: MessageEvent<MessagePort>) => {
	const tell = (message: FromPack) => port.postMessage(message);
	const { readable, writable } = (await packing)();
	const into = writable.getWriter();
	const packed = readable.getReader();
	port.onmessage = ({ data }: MessageEvent<ToPack>) => {
		// What fails is told to who reads.
		if (data.say === 'end') into.close().catch(() => {});
		else
			into.write(data.piece).then(
				() => tell({ say: 'taken' }),
				() => {}
			);
	};
	try {
		for (let one = await packed.read(); !one.done; one = await packed.read())
			tell({ say: 'packed', piece: one.value });
		tell({ say: 'end' });
	} catch (error) {
		tell({ say: 'failed', why: (error as Error).message });
	}
});
