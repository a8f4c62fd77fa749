/** How fields are reckoned, by their ids: formula, and what it is of. */
const reckoned: Readonly<Record<string, string>> = {
	'cell.warp':
		'of four corners the gap between its two diagonals, of more how far they spread across the middle plane; of three nought',
	'cell.area': 'half the sum of the triangles between its middle and its edges; exact where the cell is flat',
	'cell.perimeter': 'the sum of its edges, each the straight way from node to node',
	'cell.longest_edge': 'the straight way from node to node, the longest',
	'cell.shortest_edge': 'the straight way from node to node, the shortest',
	'cell.smallest_angle': 'arccos of the product of two edges at a corner over their lengths, the smallest',
	'cell.largest_angle': 'arccos of the product of two edges at a corner over their lengths, the largest',
	'cell.height': 'z of the mean of its corners, over the project’s nought',
	'cell.slope': 'angle between the cell’s normal and straight up',
	'cell.radius':
		'of the face in the middle of the cell, the way it bends most: 1 over its larger principal curvature',
	'cell.largest_radius':
		'of the face in the middle of the cell, square to the way it bends most: 1 over its smaller principal curvature',
	'cell.off_even': 'how far its nodes are from where even true length along their lines would put them',
	'cell.share': 'its area over that of the pattern’s whole cell',
	'cell.openings': 'cells that lie in it',
	'cell.open_share': 'area of the cells that lie in it over its own with theirs',
	'line.length': 'the straight way from node to node',
	'line.height': 'z of the middle of its ends, over the project’s nought',
	'line.slope': 'angle between the line and level',
	'line.fold': 'angle between the normals of the cells on both sides; nought on a rim',
	'node.fold': 'the largest angle between the normals of two cells beside a line that ends there',
	'node.height': 'z of the node, over the project’s nought',
	'node.lines': 'lines that end there, each once'
};

/**
 * How a field is reckoned, in words.
 *
 * ```ts
 * howReckoned('line.fold'); // angle between the normals …
 * ```
 */
export const howReckoned = (id: string): string => reckoned[id] ?? `the field ${id}, as formulas name it`;
