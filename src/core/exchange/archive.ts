import { Zip, type AsyncFlateStreamHandler, type ZipInputFile } from 'fflate';
import { turn } from '../units/turn';

const XML = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';
/** RFC 1951, as archives call it (APPNOTE 4.4.5). */
const DEFLATE = 8;
/** What stands before and after what is packed in a gzip file without a name of its own: RFC 1952, 2.3. */
const [HEAD, TAIL] = [10, 8];
/** Pieces of a file that wait to be packed while others, of the next files too, are made: 16 MB of a quarter each. */
const WAITING = 64;

/** Opens what packs one file as gzip (RFC 1952), best in another thread; what fails there fails where it is read. */
export type Packing = () => ReadableWritablePair<Uint8Array, BufferSource>;

/**
 * How hard files are packed, of nine: what makes files is as fast as this. Harder, as platforms pack, a list of a building
 * takes two to three times as long and is a fifth smaller.
 */
export const PACKED = 2;

/** As every platform packs, which in browsers holds up the thread that asks. */
export const platformPacking: Packing = () => new CompressionStream('gzip');

/** A file that is packed as gzip, which tells its checksum and its size at the end. */
class PackedFile implements ZipInputFile {
	readonly compression = DEFLATE;
	crc = 0;
	size = 0;
	/** Set by the archive that it is put into. */
	declare ondata: AsyncFlateStreamHandler;
	private readonly into: WritableStreamDefaultWriter<BufferSource>;
	private readonly from: ReadableStreamDefaultReader<Uint8Array>;

	constructor(
		readonly filename: string,
		readonly mtime: Date,
		packing: Packing
	) {
		const queue = new TransformStream<BufferSource, BufferSource>(
			{},
			new CountQueuingStrategy({ highWaterMark: WAITING })
		);
		this.into = queue.writable.getWriter();
		this.from = queue.readable.pipeThrough(packing()).getReader();
	}

	/** Resolves when it takes more. */
	async push(piece: Uint8Array<ArrayBuffer>): Promise<void> {
		await this.into.ready;
		// What fails is told to who takes what is packed.
		this.into.write(piece).catch(() => {});
	}

	end(): void {
		this.into.close().catch(() => {});
	}

	/** Put what is packed into the archive, to its end. */
	async pass(): Promise<void> {
		let passed = 0;
		let held = new Uint8Array(0);
		for (;;) {
			const { done, value } = await this.from.read();
			if (done) break;
			// The last bytes are no part of it, and nobody knows before the end which those are.
			const all = new Uint8Array(held.length + value.length);
			all.set(held);
			all.set(value, held.length);
			const end = Math.max(0, all.length - TAIL);
			const start = Math.min(end, Math.max(0, HEAD - passed));
			if (passed + end > HEAD) this.ondata(null, all.subarray(start, end), false);
			passed += end;
			held = all.slice(end);
		}
		const tail = new DataView(held.buffer);
		this.crc = tail.getUint32(0, true);
		this.size = tail.getUint32(4, true);
		this.ondata(null, new Uint8Array(0), true);
	}
}

/** XML files one after the other into one archive; no more than some pieces of each are in memory unpacked. */
export class Archive {
	private readonly passed: Promise<void>[] = [];
	private readonly pieces: Uint8Array[] = [];
	private readonly zip = new Zip((error, piece) => {
		if (error) throw error;
		this.pieces.push(piece);
	});

	/** @param at the moment that its files say they are of @param packing of each file */
	constructor(
		private readonly at: Date,
		private readonly packing: Packing
	) {}

	/** @param pieces of the file as UTF-8, each for good @throws what the packing of the file fails with, here or at the end */
	async add(name: string, pieces: Iterable<Uint8Array<ArrayBuffer>>): Promise<void> {
		const file = new PackedFile(name, this.at, this.packing);
		this.zip.add(file);
		const passed = file.pass();
		passed.catch(() => {});
		this.passed.push(passed);
		await file.push(new TextEncoder().encode(XML));
		for (const piece of pieces) {
			await file.push(piece);
			// Another thread packs, and goes on only as often as this one lets it in.
			await turn();
		}
		file.end();
	}

	async end(): Promise<Uint8Array> {
		await Promise.all(this.passed);
		this.zip.end();
		const whole = new Uint8Array(this.pieces.reduce((sum, { length }) => sum + length, 0));
		let at = 0;
		for (const piece of this.pieces) {
			whole.set(piece, at);
			at += piece.length;
		}
		return whole;
	}
}
