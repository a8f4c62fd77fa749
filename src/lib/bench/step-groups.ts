import type { AnyStep } from '$core/project/part-definition';

/** What each kind of step is for, in a line. */
export const stepLines: Readonly<Record<AnyStep['do'], string>> = {
	number: 'A value that other steps use by its name',
	'point on path': 'By ratio or distance from an end',
	middle: 'Of a line or a ring',
	corner: 'Of a ring or a path, by its number',
	crossing: 'Where two lines meet, or come nearest',
	lift: 'Moved by a length along a direction',
	shift: 'Moved right and up in a plane',
	foot: 'Where a point falls square on a line or plane',
	choose: 'One of two, by a condition',
	direction: 'From one point to another',
	normal: 'Square to a ring',
	plane: 'A place with its own right and up',
	line: 'From point to point',
	edge: 'One side of a ring, by its number',
	path: 'Through points, straight or smooth',
	ring: 'Closed through points, straight or smooth',
	inset: 'A ring moved inward in its own plane',
	offset: 'A line moved aside',
	shrink: 'A ring drawn towards a point',
	smooth: 'Corners cut, again and again',
	rounded: 'Corners as arcs',
	circle: 'In a plane, in straight pieces',
	divided: 'Into equal pieces',
	'flat sheet': 'The face of a ring',
	'fan sheet': 'Triangles from a ring to a point',
	'ruled sheet': 'Straight between two lines',
	'band sheet': 'Between an outer and an inner ring',
	'bowed sheet': 'A face raised in its middle',
	'pierced sheet': 'The web around scattered openings',
	plate: 'A ring with a thickness, with openings',
	band: 'A frame between two rings',
	bar: 'A profile run along a line',
	pyramid: 'From a ring to a point',
	body: 'Between two rings',
	thicken: 'A sheet made solid',
	sphere: 'A ball at a point',
	'joined tubes': 'One smooth body where round arms meet',
	'block box': 'A box in the unit block',
	'block sphere': 'A ball in the unit block',
	'block cylinder': 'A cylinder in the unit block',
	'block outline': 'An outline swept through the block',
	'block mesh': 'A closed mesh that was brought in',
	'block sheet': 'An open mesh, given a thickness',
	'block union': 'Blocks joined to one',
	'block intersection': 'What blocks have in common',
	'block difference': 'A block less others',
	'fit block': 'A block bent to fill the cell’s space',
	each: 'Once for every edge, corner or small cell',
	repeat: 'So many times, or only when something holds',
	along: 'In pieces along a line',
	cases: 'One thing or another, by a value',
	part: 'Another part on points of this one'
};

/** The steps in groups, as they are offered. */
export const stepGroups: readonly { readonly label: string; readonly steps: readonly AnyStep['do'][] }[] = [
	{
		label: 'Numbers and points',
		steps: ['number', 'point on path', 'middle', 'corner', 'crossing', 'lift', 'shift', 'foot', 'choose']
	},
	{ label: 'Directions', steps: ['direction', 'normal', 'plane'] },
	{
		label: 'Lines and rings',
		steps: [
			'line',
			'edge',
			'path',
			'ring',
			'inset',
			'offset',
			'shrink',
			'smooth',
			'rounded',
			'circle',
			'divided'
		]
	},
	{
		label: 'Sheets',
		steps: ['flat sheet', 'fan sheet', 'ruled sheet', 'band sheet', 'bowed sheet', 'pierced sheet']
	},
	{
		label: 'Solids',
		steps: ['plate', 'band', 'bar', 'pyramid', 'body', 'thicken', 'sphere', 'joined tubes']
	},
	{
		label: 'Blocks',
		steps: [
			'block box',
			'block sphere',
			'block cylinder',
			'block outline',
			'block union',
			'block intersection',
			'block difference',
			'fit block'
		]
	},
	{ label: 'Many and sub-parts', steps: ['each', 'repeat', 'along', 'cases', 'part'] }
];
