import { platformPacking, type Packing } from '$core/exchange/archive';

/** What the thread that packs is told of a file, by a port of the file's own. */
export type ToPack = { readonly say: 'piece'; readonly piece: BufferSource } | { readonly say: 'end' };
/** What it answers. */
export type FromPack =
	| { readonly say: 'taken' }
	| { readonly say: 'packed'; readonly piece: Uint8Array }
	| { readonly say: 'end' }
	| { readonly say: 'failed'; readonly why: string };

/** Pieces of a quarter of a MB that may wait there: it goes on packing them while this thread reckons a list. */
const WAITING = 200;

/** Packs files in a thread beside the one that makes them, from the first that is opened to the end. */
export class SidePacking {
	private worker: Worker | null = null;
	private hasFailed = false;
	private readonly failed: ((error: Error) => void)[] = [];

	readonly open: Packing = () => {
		if (this.hasFailed) return platformPacking();
		const { port1: port, port2 } = new MessageChannel();
		this.thread().postMessage(port2, [port2]);
		const tell = (message: ToPack) => port.postMessage(message);
		let waiting = 0;
		let goOn = () => {};
		const readable = new ReadableStream<Uint8Array>({
			start: (into) => {
				const fail = (error: Error) => into.error(error);
				this.failed.push(fail);
				port.onmessage = ({ data }: MessageEvent<FromPack>) => {
					if (data.say === 'packed') into.enqueue(data.piece);
					else if (data.say === 'failed') fail(new Error(data.why));
					else if (data.say === 'end') into.close();
					else {
						waiting--;
						goOn();
					}
				};
			}
		});
		const writable = new WritableStream<BufferSource>({
			write(piece) {
				tell({ say: 'piece', piece });
				if (++waiting < WAITING) return;
				return new Promise<void>((resolve) => (goOn = resolve));
			},
			close: () => tell({ say: 'end' })
		});
		return { writable, readable };
	};

	end(): void {
		this.worker?.terminate();
	}

	private thread(): Worker {
		if (this.worker) return this.worker;
		const worker = new Worker(new URL('./pack.worker.ts', import.meta.url), { type: 'module' });
		worker.addEventListener('error', () => {
			this.hasFailed = true;
			for (const tell of this.failed) tell(new Error('the thread that packs files has ended'));
		});
		return (this.worker = worker);
	}
}
