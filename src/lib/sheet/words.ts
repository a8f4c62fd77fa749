import { rimSides, type LineKind, type RimSide } from '$core/project/line-kinds';
import type { Form, FormKind } from '$core/project/form-schema';
import type { Standing, WebBar } from '$core/project/standing-schema';
import type { FaceView } from '$lib/worker/views';
import type { NodePlacing, SettingOut, Spacing } from '$core/project/schema';

/** Words of the sheet for the values of the document. */
export const formWords: Record<FormKind, string> = {
	revolved: 'revolved',
	ruled: 'ruled',
	lofted: 'lofted',
	vaulted: 'a vault',
	twisted: 'twisted',
	dome: 'a dome',
	net: 'a net',
	waves: 'waves',
	prism: 'a prism',
	imported: 'imported'
};
export type FormOf<Kind extends FormKind> = Extract<Form, { kind: Kind }>;

export const spacingWords: readonly { value: Spacing['by']; label: string }[] = [
	{ value: 'count', label: 'exactly' },
	{ value: 'at most', label: 'at most' },
	{ value: 'at least', label: 'at least' },
	{ value: 'exact size', label: 'steps of' },
	{ value: 'list', label: 'sizes of a list' },
	{ value: 'parameters', label: 'lines at parameters' },
	{ value: 'levels', label: 'the levels' }
];

/** What steps are measured along. */
export const alongWords: readonly { value: SettingOut['along']; label: string }[] = [
	{ value: 'true length', label: 'even true length on every line' },
	{ value: 'belt line', label: 'true length on the belt line' },
	{ value: 'own parameter', label: "the surface's own parameter" },
	{ value: 'level planes', label: 'planes cut through the form' },
	{ value: 'equal chords', label: 'a net of equal chords' },
	{ value: 'geodesics', label: 'straightest lines from foot to head' }
];

export const lineWords: readonly { value: LineKind; label: string }[] = [
	{ value: 'bay', label: 'bay lines' },
	{ value: 'course', label: 'course lines' },
	{ value: 'diagonal', label: 'diagonals' },
	{ value: 'rim', label: 'rims' },
	{ value: 'upright', label: 'uprights' },
	{ value: 'gap', label: 'gaps' }
];

/** How the part of a zone is called that stands so, and what there is in it. */
export const standingWords: Readonly<
	Record<
		Standing['is'],
		{ readonly title: string; readonly one: string; readonly count: (face: FaceView) => number }
	>
> = {
	faces: { title: 'Zone', one: 'cell', count: ({ cells }) => cells.count },
	layer: { title: 'Grid behind', one: 'cell', count: ({ cells }) => cells.count },
	web: { title: 'Web', one: 'line', count: ({ edges }) => edges.count },
	path: { title: 'Path', one: 'station', count: ({ grid }) => grid.columns },
	chains: { title: 'Chains', one: 'chain', count: ({ chains }) => chains.start.length - 1 }
};

export const webBarWords: readonly { value: WebBar; label: string }[] = [
	{ value: 'upright', label: 'uprights' },
	{ value: 'diagonal', label: 'diagonals' }
];

export const nodeWords: readonly { value: NodePlacing['nodes']; label: string }[] = [
	{ value: 'all', label: 'all nodes' },
	{ value: 'rim', label: 'nodes on rims' },
	{ value: 'inner', label: 'inner nodes' }
];

/** Whether lines of webs count among those that meet at nodes. */
export const webWords = [
	{ value: 'met', label: 'webs too' },
	{ value: 'left out', label: 'webs left out' }
];

/** The same on a path. */
export const stationWords: typeof nodeWords = [
	{ value: 'all', label: 'all stations' },
	{ value: 'rim', label: 'stations at its ends' },
	{ value: 'inner', label: 'stations between its ends' }
];

export const lineCountWords: readonly { value: string; label: string }[] = [
	{ value: 'any', label: 'any number of lines meet' },
	...[2, 3, 4, 5, 6, 7, 8, 9].map((n) => ({ value: String(n), label: `${n} lines meet` }))
];

/** Where on the rims of its face a line lies. */
export const rimLabels: Readonly<Record<RimSide, string>> = {
	foot: 'at the foot',
	head: 'at the head',
	left: 'on the left',
	right: 'on the right',
	trim: 'along a trim',
	face: 'where faces meet'
};
/** The rims that a path can run along. */
export const pathRimWords = rimSides
	.filter((side) => side !== 'face')
	.map((value) => ({ value, label: value === 'trim' ? 'round openings' : rimLabels[value] }));
export const rimWords = rimSides.map((value) => ({ value, label: rimLabels[value] }));
