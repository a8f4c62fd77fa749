import { strToU8, Zip, ZipPassThrough } from 'fflate';

const XML = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';
/** RFC 1951, as archives call it (APPNOTE 4.4.5). */
const DEFLATE = 8;

/** A file that is packed by the platform, several times as fast as a program of ours could. */
class PackedFile extends ZipPassThrough {
	private readonly packing = new CompressionStream('deflate-raw');
	private readonly into = this.packing.writable.getWriter();
	/** All of it has gone into the archive. */
	readonly packed: Promise<void>;

	constructor(name: string) {
		super(name);
		this.compression = DEFLATE;
		this.packed = this.pass();
	}

	/** Resolves when it takes more. */
	get ready(): Promise<void> {
		return this.into.ready;
	}

	private async pass(): Promise<void> {
		const from = this.packing.readable.getReader();
		for (;;) {
			const { done, value } = await from.read();
			this.ondata(null, value ?? new Uint8Array(0), done);
			if (done) return;
		}
	}

	protected override process(chunk: Uint8Array, final: boolean): void {
		void this.into.write(chunk.slice());
		if (final) void this.into.close();
	}
}

/** XML files one after the other into one archive; no more than a piece of one is in memory unpacked. */
export class Archive {
	private readonly pieces: Uint8Array[] = [];
	private readonly zip = new Zip((error, piece) => {
		if (error) throw error;
		this.pieces.push(piece);
	});

	/** @param at the moment that its files say they are of */
	constructor(private readonly at: Date) {}

	async add(name: string, texts: Iterable<string>): Promise<void> {
		const file = new PackedFile(name);
		file.mtime = this.at;
		this.zip.add(file);
		file.push(strToU8(XML));
		for (const text of texts) {
			file.push(strToU8(text));
			await file.ready;
		}
		file.push(new Uint8Array(0), true);
		await file.packed;
	}

	end(): Uint8Array {
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
