import { MOST_SAMPLES } from '$core/project/brought-schema';

/** A picture with more points than this is refused before anything is made of it. */
const MOST_POINTS = 64e6;

export interface ReadPicture {
	readonly columns: number;
	readonly rows: number;
	/** Red, green, blue, row by row from the top. */
	readonly samples: number[];
}

/** How wide and high a PNG or JPEG says it is, from its first bytes; null when it is neither. */
export function sizeOf(bytes: Uint8Array): [width: number, height: number] | null {
	const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
	if (bytes.length > 24 && view.getUint32(0) === 0x89504e47) return [view.getUint32(16), view.getUint32(20)];
	if (bytes.length < 4 || view.getUint16(0) !== 0xffd8) return null;
	// Segments of a JPEG: a marker, a length, and in one of them the frame with its size.
	for (let at = 2; at + 9 < bytes.length;) {
		const marker = view.getUint16(at);
		const isFrame = marker >= 0xffc0 && marker <= 0xffcf && ![0xffc4, 0xffc8, 0xffcc].includes(marker);
		if (isFrame) return [view.getUint16(at + 7), view.getUint16(at + 5)];
		at += 2 + view.getUint16(at + 2);
	}
	return null;
}

/** Read a PNG or JPEG and take samples of it. @throws Error with a sentence */
export async function readPicture(file: Blob): Promise<ReadPicture> {
	const bytes = new Uint8Array(await file.arrayBuffer());
	const size = sizeOf(bytes);
	if (!size) throw new Error('it is neither a PNG nor a JPEG');
	const [width, height] = size;
	if (width * height > MOST_POINTS)
		throw new Error(
			`it has ${Math.round((width * height) / 1e6)} million points; at most ${MOST_POINTS / 1e6} million are taken`
		);
	const scale = Math.min(1, MOST_SAMPLES / Math.max(width, height));
	const [columns, rows] = [width, height].map((one) => Math.max(1, Math.round(one * scale))) as [
		number,
		number
	];
	let drawn: ImageBitmap;
	try {
		drawn = await createImageBitmap(file, {
			resizeWidth: columns,
			resizeHeight: rows,
			resizeQuality: 'high',
			colorSpaceConversion: 'none'
		});
	} catch {
		throw new Error('it is damaged');
	}
	const canvas = new OffscreenCanvas(columns, rows);
	const context = canvas.getContext('2d')!;
	// What is not covered counts as white paper.
	context.fillStyle = '#fff';
	context.fillRect(0, 0, columns, rows);
	context.drawImage(drawn, 0, 0);
	drawn.close();
	const { data } = context.getImageData(0, 0, columns, rows);
	return { columns, rows, samples: Array.from(data).filter((_, k) => k % 4 < 3) };
}
