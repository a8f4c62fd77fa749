import { CodedError } from '../../units/coded-error';

/** A picture with more points than this is refused before anything is made of it. */
const MOST_POINTS = 64e6;

/**
 * What is wrong with a picture, in a sentence.
 *
 * ```ts
 * if (error instanceof PictureError) tell(error.message);
 * ```
 */
export class PictureError extends CodedError {
	readonly code = 'picture';
}

const PNG = 0x89504e47;
const START_OF_JPEG = 0xffd8;
/** Markers of a JPEG from here to there say its size, but for three that say something else. */
const [FIRST_FRAME, LAST_FRAME] = [0xffc0, 0xffcf];
const NO_FRAMES: readonly number[] = [0xffc4, 0xffc8, 0xffcc];

/**
 * How wide and high a PNG (ISO/IEC 15948) or JPEG (ITU-T T.81) says it is, from its first bytes.
 *
 * ```ts
 * const [width, height] = sizeOfPicture(bytes);
 * ```
 * @throws PictureError when it is neither, is cut off before it says so, or has too many points
 */
export function sizeOfPicture(bytes: Uint8Array): [width: number, height: number] {
	const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
	const isPng = bytes.length >= 4 && view.getUint32(0) === PNG;
	const isJpeg = bytes.length >= 2 && view.getUint16(0) === START_OF_JPEG;
	if (!isPng && !isJpeg) throw new PictureError('it is neither a PNG nor a JPEG');
	const size = isPng ? sizeOfPng(view) : sizeOfJpeg(view);
	if (!size || !(size[0] > 0 && size[1] > 0)) throw new PictureError('it is damaged');
	const points = size[0] * size[1];
	if (points > MOST_POINTS)
		throw new PictureError(
			`it has ${Math.round(points / 1e6)} million points; at most ${MOST_POINTS / 1e6} million are taken`
		);
	return size;
}

const sizeOfPng = (view: DataView): [number, number] | null =>
	view.byteLength > 24 ? [view.getUint32(16), view.getUint32(20)] : null;

function sizeOfJpeg(view: DataView): [number, number] | null {
	// Segments: a marker, a length, and in one of them the frame with its size.
	for (let at = 2; at + 9 < view.byteLength;) {
		const marker = view.getUint16(at);
		if (marker >= FIRST_FRAME && marker <= LAST_FRAME && !NO_FRAMES.includes(marker))
			return [view.getUint16(at + 7), view.getUint16(at + 5)];
		at += 2 + view.getUint16(at + 2);
	}
	return null;
}
