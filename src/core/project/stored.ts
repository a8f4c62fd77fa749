import { z } from 'zod';

/** A file by the hash (SHA-256, hexadecimal) of its text. */
export const fileHash = z.string().regex(/^[0-9a-f]{64}$/, 'a file is named by 64 hexadecimal digits');

const inFile = z.strictObject({ file: fileHash });
export type InFile = z.infer<typeof inFile>;

/** A large value: it stands here itself, or in a file that is kept once, however often it is used. */
export type Stored<T> = T | InFile;
export const stored = <T extends z.ZodType>(value: T) => z.union([value, inFile]);

/**
 * ```ts
 * if (isInFile(value)) tell(value.file);
 * ```
 */
export const isInFile = (value: unknown): value is InFile =>
	typeof value === 'object' && value !== null && !Array.isArray(value) && 'file' in value;
