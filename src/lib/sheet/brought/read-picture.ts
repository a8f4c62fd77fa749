import { PictureError, sizeOfPicture } from '$core/exchange/picture/size';
import { MOST_SAMPLES } from '$core/project/brought-schema';

export interface ReadPicture {
	readonly columns: number;
	readonly rows: number;
	/** Red, green, blue, row by row from the top. */
	readonly samples: number[];
}

/** Read a PNG or JPEG and take samples of it. @throws PictureError */
export async function readPicture(file: Blob): Promise<ReadPicture> {
	const [width, height] = sizeOfPicture(new Uint8Array(await file.arrayBuffer()));
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
		throw new PictureError('it is damaged');
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
