import { CodedError } from '../../units/coded-error';

/** A group of faces of an OBJ file: corners as numbers of vertices from 0, and the line each stands on. */
export interface ObjGroup {
	readonly name: string;
	readonly faces: readonly (readonly number[])[];
	readonly lines: readonly number[];
}

export interface ObjText {
	/** Flat x y z, in the file's own unit. */
	readonly vertices: Float64Array;
	readonly groups: readonly ObjGroup[];
}

/** A file that cannot be read, with the line. */
export class ObjFault extends CodedError {
	readonly code: string = 'file.obj';

	constructor(where: string, text: string) {
		super(`${where}: ${text}`);
	}
}

/** Lines between two tellings of how far a read has come. */
const TELL_EVERY = 100_000;

/**
 * The vertices and face groups of an OBJ file; texture and normal indices are passed over.
 * @throws ObjFault when a line cannot be read or the file holds no faces
 */
export async function readObjText(
	text: string,
	progress: (share: number) => void | Promise<void> = () => {}
): Promise<ObjText> {
	const vertices: number[] = [];
	const groups: { name: string; faces: number[][]; lines: number[] }[] = [];
	let name = '';
	let group: (typeof groups)[number] | null = null;
	let at = 0;
	for (let line = 1; at < text.length; line++) {
		const end = text.indexOf('\n', at);
		const content = text.slice(at, end < 0 ? text.length : end).trim();
		at = end < 0 ? text.length : end + 1;
		if (line % TELL_EVERY === 0) await progress(at / text.length);
		const [word, ...rest] = content.split(/\s+/);
		if (word === 'v') {
			const numbers = rest.slice(0, 3).map(Number);
			if (numbers.length < 3 || !numbers.every(Number.isFinite))
				throw new ObjFault(`line ${line}`, `"${content}" is no vertex; v and three numbers are wanted`);
			for (const value of numbers) vertices.push(value);
		} else if (word === 'o' || word === 'g') {
			name = rest.join(' ');
			group = null;
		} else if (word === 'f') {
			const corners = rest.map((corner) => {
				const index = Number.parseInt(corner, 10);
				const vertex = index < 0 ? vertices.length / 3 + index : index - 1;
				if (!(vertex >= 0 && vertex < vertices.length / 3))
					throw new ObjFault(`line ${line}`, `the face names the vertex ${corner}, which is not there (yet)`);
				return vertex;
			});
			if (!group) groups.push((group = { name, faces: [], lines: [] }));
			group.faces.push(corners);
			group.lines.push(line);
		}
	}
	if (groups.length === 0) throw new ObjFault('the file', 'holds no faces (lines that begin with f)');
	return { vertices: Float64Array.from(vertices), groups };
}
