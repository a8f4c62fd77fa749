import type { Look } from '$core/project/view-schema';

/** What looks of the model are called. */
export const lookWords: Readonly<Record<Look, { readonly label: string; readonly note: string }>> = {
	paper: { label: 'Paper', note: 'as it is worked on' },
	presentation: { label: 'Presentation', note: 'sky, ground, people' },
	lines: { label: 'Lines', note: 'as it is drawn' },
	measures: { label: 'Measures', note: 'cells coloured' }
};
