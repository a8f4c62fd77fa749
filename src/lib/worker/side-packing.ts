import { platformPacking, type Packing } from '$core/exchange/archive';

/** A file that the thread which packs takes from one stream and puts into the other. */
export interface ToPack {
	readonly from: ReadableStream<BufferSource>;
	readonly into: WritableStream<Uint8Array>;
}

/** Packs files in a thread beside the one that makes them, from the first that is opened to the end. */
export class SidePacking {
	private worker: Worker | null = null;
	private hasFailed = false;
	private readonly failed: ((error: unknown) => void)[] = [];

	readonly open: Packing = () => {
		if (this.hasFailed) return platformPacking();
		const before = new TransformStream<BufferSource, BufferSource>();
		const after = new TransformStream<Uint8Array, Uint8Array>({
			start: (controller) => {
				this.failed.push((error) => controller.error(error));
			}
		});
		const file: ToPack = { from: before.readable, into: after.writable };
		try {
			this.thread().postMessage(file, [file.from, file.into]);
		} catch {
			// Not every browser hands streams to another thread.
			return platformPacking();
		}
		return { writable: before.writable, readable: after.readable };
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
