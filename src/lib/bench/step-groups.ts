import type { AnyStep } from '$core/project/part-definition';

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
	{ label: 'Solids', steps: ['plate', 'band', 'bar', 'pyramid', 'body', 'thicken', 'sphere'] },
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
