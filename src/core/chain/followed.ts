import { prefixesOf, tableBook } from '../cladding/table-book';
import { nameInFormulas, type Followed } from '../field/followed';
import { guidesIn } from '../field/guides';
import { isInFile } from '../project/stored';
import { pathTo } from '../project/typed-path';
import { refuse } from '../units/problem';
import { guidesNamed } from './masses';
import type { Run } from './stage';

const named = (kind: 'picture' | 'table', id: string, texts: readonly string[]) => {
	const name = new RegExp(`\\b${kind}\\.${nameInFormulas(id)}`);
	return texts.some((text) => name.test(text));
};

/**
 * The guides, pictures and tables that texts of clauses name.
 *
 * @param guides ids of guides that are named otherwise @throws ProblemError at a picture that cannot be read
 */
export function followedIn(run: Run, texts: readonly string[], guides: readonly string[] = []): Followed {
	const { project, memo } = run;
	const pictures = project.pictures.filter(({ id }) => named('picture', id, texts));
	for (const { id, columns, rows, samples } of pictures)
		if (!isInFile(samples) && samples.length !== 3 * columns * rows)
			refuse(
				pathTo('pictures', id),
				`the picture has ${samples.length} values; ${columns} × ${rows} samples of three are wanted`
			);
	const prefixes = [...prefixesOf(project.zones)];
	const tables = project.tables.filter(({ id }) => named('table', id, texts));
	return {
		guides: guidesNamed(run, [...guides, ...guidesIn(texts, project.guides)]),
		pictures: new Map(pictures.map((one) => [one.id, one])),
		tables: new Map(
			tables.map((one) => [
				one.id,
				memo.use(['table', one.id], [one, prefixes], () => tableBook(one, new Map(prefixes))).value
			])
		)
	};
}

/** The same as values to be kept under. */
export const underFollowed = ({ guides, pictures, tables }: Followed): readonly unknown[] => [
	...guides,
	...pictures,
	...tables
];
