import { ArrayBufferTarget, Muxer } from 'mp4-muxer';

/** How pictures are packed: what most programs play first. A browser has some of them. */
const WAYS = [
	{ codec: 'avc1.640033', name: 'avc' },
	{ codec: 'vp09.00.51.08', name: 'vp9' }
] as const;
/** Bits for a point of the picture. */
const FINENESS = 0.2;
/** A whole picture stands every so many. */
const WHOLE_EVERY = 48;
/** Pictures that wait to be packed. */
const WAITING = 4;

/** A clip that is written picture by picture, as an MP4 (ISO/IEC 14496-14). Sizes are even numbers. */
export class Clip {
	private failure: Error | null = null;

	private constructor(
		private readonly muxer: Muxer<ArrayBufferTarget>,
		private readonly encoder: VideoEncoder,
		private readonly perSecond: number
	) {}

	/** @throws Error where this browser cannot write one */
	static async of(width: number, height: number, perSecond: number): Promise<Clip> {
		for (const { codec, name } of typeof VideoEncoder === 'undefined' ? [] : WAYS) {
			const bitrate = Math.round(FINENESS * width * height * perSecond);
			const config: VideoEncoderConfig = { codec, width, height, bitrate, framerate: perSecond };
			if (!(await VideoEncoder.isConfigSupported(config)).supported) continue;
			const target = new ArrayBufferTarget();
			const muxer = new Muxer({ target, video: { codec: name, width, height }, fastStart: 'in-memory' });
			const encoder = new VideoEncoder({
				output: (chunk, told) => muxer.addVideoChunk(chunk, told),
				error: (error) => (clip.failure = error)
			});
			const clip = new Clip(muxer, encoder, perSecond);
			encoder.configure(config);
			return clip;
		}
		throw new Error('this browser cannot write clips; a current one can');
	}

	/** Take the next picture. @param k which one, from nought */
	async add(picture: OffscreenCanvas, k: number): Promise<void> {
		const microseconds = 1e6 / this.perSecond;
		const frame = new VideoFrame(picture, { timestamp: k * microseconds, duration: microseconds });
		this.encoder.encode(frame, { keyFrame: k % WHOLE_EVERY === 0 });
		frame.close();
		while (this.encoder.encodeQueueSize > WAITING && !this.failure)
			await new Promise((go) => setTimeout(go, 5));
		if (this.failure) throw this.failure;
	}

	async end(): Promise<Blob> {
		await this.encoder.flush();
		this.encoder.close();
		if (this.failure) throw this.failure;
		this.muxer.finalize();
		return new Blob([this.muxer.target.buffer], { type: 'video/mp4' });
	}

	/** Give it up. */
	close(): void {
		if (this.encoder.state !== 'closed') this.encoder.close();
	}
}
