import type { ReleaseFile } from './file-schema';
import type { ReleasedNumber, ReleasedPieces } from './pieces';

type FilePiece = ReleaseFile['pieces'][number];

/** What is kept of a piece in its middle is left out: its points say more. */
const told: readonly Exclude<ReleasedNumber, 'x' | 'y' | 'z'>[] = [
	'area',
	'length',
	'long_side',
	'short_side',
	'smallest_angle',
	'mass'
];

/**
 * A release as a file.
 *
 * ```ts
 * const head = { project: { id: project.id, name: project.name }, number: 1, at: '2026-11-27T10:00:00Z', note: '' };
 * const text = JSON.stringify(releaseFile(head, releasedPieces(model)));
 * ```
 */
export function releaseFile(
	head: Pick<ReleaseFile, 'project' | 'number' | 'at' | 'note'>,
	pieces: ReleasedPieces
): ReleaseFile {
	return { format: 'zygaster release', version: 1, ...head, pieces: filePieces(pieces) };
}

/**
 * Released pieces as files and messages for partners have them.
 *
 * ```ts
 * const marks = filePieces(releasedPieces(model)).map(({ mark }) => mark);
 * ```
 */
export function filePieces({ texts, numbers }: ReleasedPieces): FilePiece[] {
	return texts.address.map((address, k): FilePiece => {
		const own = Object.fromEntries(told.map((key) => [key, numbers[key][k] ?? null])) as Pick<
			FilePiece,
			(typeof told)[number]
		>;
		return {
			address,
			mark: texts.mark[k]!,
			list: texts.list[k] as FilePiece['list'],
			part: texts.part[k]!,
			variant: texts.variant[k]!,
			kind: texts.kind[k]!,
			materials: texts.materials[k] ? texts.materials[k].split(', ') : [],
			...own,
			anchors: JSON.parse(texts.anchors[k]!) as FilePiece['anchors']
		};
	});
}
