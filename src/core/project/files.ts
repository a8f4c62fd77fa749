import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { z } from 'zod';
import { samplesSchema, tableRowsSchema } from './brought-schema';
import { DocumentError, faultsOf } from './faults';
import { facesSchema } from './form-schema';
import { isContainer } from './paths';
import { trianglesSchema, verticesSchema } from './part/block-steps';
import type { Project } from './schema';
import { isInFile } from './stored';

/**
 * Large values of a project live once, in files named by the hash of their text. The document that is kept, sent and
 * compared names them; the chain and the pages see it whole.
 */

/** What a file holds, by its name in the place it is taken from. */
const fileSchema = z.union([
	z.strictObject({ faces: facesSchema }),
	z.strictObject({ vertices: verticesSchema }),
	z.strictObject({ triangles: trianglesSchema }),
	z.strictObject({ samples: samplesSchema }),
	z.strictObject({ rows: tableRowsSchema })
]);
type FileContent = z.infer<typeof fileSchema>;
export type FileKind = 'faces' | 'vertices' | 'triangles' | 'samples' | 'rows';
type Large = readonly unknown[];

/** Values whose JSON text is shorter stay in the document. */
const LEAST_LETTERS = 16_000;

/** The large values of a thing of the document. */
function kindsIn(thing: Readonly<Record<string, unknown>>): readonly FileKind[] {
	if (thing['kind'] === 'imported') return ['faces'];
	if (thing['kind'] === 'picture') return ['samples'];
	if (thing['kind'] === 'table') return ['rows'];
	if (thing['do'] === 'block mesh' || thing['do'] === 'block sheet') return ['vertices', 'triangles'];
	return [];
}

/** A value with others in the place of its large ones; what has none is shared. */
function mapLarge(value: unknown, act: (kind: FileKind, large: unknown) => unknown): unknown {
	if (!isContainer(value)) return value;
	// Points and numbers; nothing lies below them.
	if (Array.isArray(value) && typeof value[0] === 'number') return value;
	const kinds = Array.isArray(value) ? [] : kindsIn(value);
	let copy: Record<string, unknown> | null = null;
	for (const [key, below] of Object.entries(value)) {
		const kind = kinds.find((one) => one === key);
		const next = kind ? act(kind, below) : mapLarge(below, act);
		if (next === below) continue;
		copy ??= (Array.isArray(value) ? value.slice() : { ...value }) as Record<string, unknown>;
		copy[key] = next;
	}
	return copy ?? value;
}

/**
 * The files that a value names, and what each is to hold.
 *
 * ```ts
 * const names = [...filesIn(project).keys()];
 * ```
 */
export function filesIn(value: unknown): Map<string, FileKind> {
	const found = new Map<string, FileKind>();
	mapLarge(value, (kind, large) => {
		if (isInFile(large)) found.set(large.file, kind);
		return large;
	});
	return found;
}

/**
 * The text of a file is that of its value as the schema reads it: keys in one order, nothing left out.
 *
 * ```ts
 * const { text: written } = readFile([[0, 0, 0]]);
 * ```
 * @throws DocumentError when it is no file of ours
 */
export function readFile(value: unknown): { readonly content: FileContent; readonly text: string } {
	const read = fileSchema.safeParse(value);
	if (!read.success) throw new DocumentError(faultsOf(read.error.issues, []));
	return { content: read.data, text: JSON.stringify(read.data) };
}

/**
 * ```ts
 * hashOfFile('[[0,0,0]]'); // what the file is called
 * ```
 */
export const hashOfFile = (text: string): string => bytesToHex(sha256(utf8ToBytes(text)));

/**
 * Files that are at hand.
 *
 * ```ts
 * const files = new Files();
 * ```
 */
export class Files {
	private readonly held = new Map<string, { readonly kind: FileKind; readonly value: Large }>();
	private readonly hashes = new WeakMap<Large, string>();
	/** Things that were made whole, by what they were before. */
	private readonly wholes = new WeakMap<object, object>();

	has(hash: string): boolean {
		return this.held.has(hash);
	}

	/** The names of all files at hand. */
	names(): Iterable<string> {
		return this.held.keys();
	}

	/** The text of a file as it is kept, if it is at hand. */
	text(hash: string): string | undefined {
		const file = this.held.get(hash);
		return file && JSON.stringify({ [file.kind]: file.value });
	}

	/** Take a file in by its text. @throws DocumentError when it is not the file of that name */
	take(hash: string, text: string): void {
		if (this.held.has(hash)) return;
		if (hashOfFile(text) !== hash) throw new DocumentError([`the file ${hash} did not arrive as it is kept`]);
		this.hold(hash, readFile(JSON.parse(text)).content);
	}

	private hold(hash: string, content: FileContent): void {
		const [[kind, value]] = Object.entries(content) as [[FileKind, Large]];
		this.held.set(hash, { kind, value });
		this.hashes.set(value, hash);
	}

	/**
	 * A value with its large ones put into files, where they are not there already.
	 * @throws DocumentError when one of them is not what can stand there
	 */
	detach<T>(value: T): T {
		return mapLarge(value, (kind, large) => {
			if (!Array.isArray(large)) return large;
			let hash = this.hashes.get(large);
			if (!hash) {
				if (JSON.stringify(large).length < LEAST_LETTERS) return large;
				const { text, content } = readFile({ [kind]: large });
				hash = hashOfFile(text);
				if (!this.held.has(hash)) this.hold(hash, content);
				this.hashes.set(large, hash);
			}
			return { file: hash };
		}) as T;
	}

	/** A value with what lies in files in its place; a file that is not at hand stays named. */
	whole<T extends object>(value: T): T {
		const known = this.wholes.get(value);
		if (known) return known as T;
		let missing = false;
		const made = mapLarge(value, (kind, large) => {
			if (!isInFile(large)) return large;
			const file = this.held.get(large.file);
			if (file?.kind === kind) return file.value;
			missing = true;
			return large;
		}) as T;
		if (!missing) this.wholes.set(value, made);
		return made;
	}

	/** The same for a project: of two that share a mass or a part, the whole ones share it too. */
	wholeProject(project: Project): Project {
		const known = this.wholes.get(project);
		if (known) return known as Project;
		const masses = this.wholeList(project.masses);
		const parts = this.wholeList(project.parts);
		const pictures = this.wholeList(project.pictures);
		const tables = this.wholeList(project.tables);
		const isShared =
			masses === project.masses &&
			parts === project.parts &&
			pictures === project.pictures &&
			tables === project.tables;
		const made = isShared ? project : { ...project, masses, parts, pictures, tables };
		const things = [...project.masses, ...project.parts, ...project.pictures, ...project.tables];
		if (things.every((one) => this.wholes.has(one))) this.wholes.set(project, made);
		return made;
	}

	/** Whether every file that a project names was at hand when it was made whole. */
	isWhole(project: Project): boolean {
		return this.wholes.has(project);
	}

	wholeList<T extends object>(list: T[]): T[] {
		const made = list.map((one) => this.whole(one));
		return made.every((one, k) => one === list[k]) ? list : made;
	}
}
