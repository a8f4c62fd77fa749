import { MeshFault, refuseMany, standing, type Triangles } from './triangles';

const HEADER = 80;
const EACH = 50;

/**
 * An STL file, binary or as text. Source of the layout: the StereoLithography interface specification (3D
 * Systems, 1989), from memory.
 * @param most triangles that are taken @returns corners with y up, in the file's unit
 * @throws MeshFault
 */
export function readStl(bytes: Uint8Array, most: number): Triangles {
	const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
	const stated = bytes.byteLength >= HEADER + 4 ? view.getUint32(HEADER, true) : -1;
	// A binary file may begin with the word of a text too: its size tells.
	if (stated >= 0 && bytes.byteLength === HEADER + 4 + EACH * stated) return readBinary(view, stated, most);
	const start = new TextDecoder().decode(bytes.subarray(0, 512));
	if (/^\s*solid\b[^]*?(facet|vertex|endsolid)/.test(start))
		return readText(new TextDecoder().decode(bytes), most);
	throw new MeshFault(
		stated >= 0
			? `it is cut short or no STL file: its head tells of ${stated} triangles, which take ${HEADER + 4 + EACH * stated} bytes; it has ${bytes.byteLength}`
			: 'it is no STL file: it is shorter than the head of one'
	);
}

function readBinary(view: DataView, count: number, most: number): Triangles {
	refuseMany(count, most);
	const corners = new Float64Array(9 * count);
	for (let t = 0; t < count; t++)
		// The first three numbers are the normal, which follows from the corners.
		for (let k = 0; k < 9; k++)
			corners[9 * t + k] = view.getFloat32(HEADER + 4 + EACH * t + 12 + 4 * k, true);
	return checked(corners);
}

function readText(text: string, most: number): Triangles {
	const found: number[] = [];
	let line = 0;
	for (const content of text.split('\n')) {
		line++;
		const [word, ...rest] = content.trim().split(/\s+/);
		if (word !== 'vertex') continue;
		const numbers = rest.map(Number);
		if (numbers.length !== 3 || !numbers.every(Number.isFinite))
			throw new MeshFault(
				`line ${line}: "${content.trim()}" is no corner; vertex and three numbers are wanted`
			);
		found.push(...(numbers as [number, number, number]));
	}
	if (found.length % 9) throw new MeshFault('it is cut short: its last triangle has no three corners');
	refuseMany(found.length / 9, most);
	return checked(Float64Array.from(found));
}

function checked(corners: Float64Array): Triangles {
	if (!corners.length) throw new MeshFault('it holds no triangles');
	if (!corners.every(Number.isFinite)) throw new MeshFault('a corner of it is not a number');
	return standing(corners);
}
