import { z } from 'zod';

/**
 * Up to version 6 of the document formulas knew fields by other names, which commands of the log still use; they are
 * told by the kind of their site now, so that no name of a part's own comes between.
 */
const before: Readonly<Record<string, string>> = {
	cell_area: 'cell.area',
	cell_perimeter: 'cell.perimeter',
	cell_longest_edge: 'cell.longest_edge',
	cell_shortest_edge: 'cell.shortest_edge',
	cell_smallest_angle: 'cell.smallest_angle',
	cell_largest_angle: 'cell.largest_angle',
	cell_warp: 'cell.warp',
	cell_height: 'cell.height',
	line_length: 'line.length',
	line_height: 'line.height',
	node_height: 'node.height',
	chain_length: 'chain.length'
};
const EARLIER = new RegExp(`(?<![.\\w])(${Object.keys(before).join('|')})\\b`, 'g');

const inToday = (value: unknown): unknown =>
	typeof value === 'string' && value.includes('_') ? value.replace(EARLIER, (name) => before[name]!) : value;

/** The text of a formula that may name fields. */
export const withFields = <T extends z.ZodString>(text: T) => z.preprocess(inToday, text);

/** A depth over the grid, which knows how far guides are: `distance.tide_line`, `from_tide_line` up to version 6. */
export const withGuides = <T extends z.ZodString>(text: T) =>
	z.preprocess(
		(value) => (typeof value === 'string' ? value.replace(/(?<![.\w])from_(?=[a-z])/g, 'distance.') : value),
		text
	);
