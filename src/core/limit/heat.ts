import { unitHeat, type UnitHeat } from '../heat/pieces';
import { throughOf } from '../heat/shipped';
import type { HeatSettings } from '../project/heat-schema';
import type { PieceMeasure } from './measure';

const ofUnits = (
	id: string,
	label: string,
	kind: PieceMeasure['kind'],
	how: string,
	settings: HeatSettings,
	of: keyof UnitHeat
): PieceMeasure => ({
	id,
	label,
	kind,
	over: 'cell',
	how,
	read: (face, group) => unitHeat(face, group, settings)[of],
	given(face, group, row) {
		const { plates, glass, conducted, edge } = unitHeat(face, group, settings);
		const frame = group.ready.elements.findIndex(({ category }) => category === 'bar');
		const material = group.ready.materials[frame];
		return [
			{ label: 'area of the cell', value: face.measures.area[group.sites[row]!]!, kind: 'area' },
			{ label: 'plates', value: plates[row]!, kind: 'area' },
			{ label: 'glass among them', value: glass[row]!, kind: 'area' },
			{ label: 'U of the plates', value: conducted[row]! / plates[row]!, kind: 'transmittance' },
			...(material
				? [
						{
							label: `U of the frame, ${material.label}`,
							value: throughOf(settings, material).u,
							kind: 'transmittance' as const
						}
					]
				: []),
			{ label: 'edges of panes', value: edge[row]!, kind: 'length' },
			{ label: 'ψ of the spacer in W/mK', value: settings.spacer, kind: 'ratio' }
		];
	}
});

/**
 * Heat and light of units.
 *
 * ```ts
 * const u = heatMeasures(project.heat).find(({ id }) => id === 'unit.u');
 * ```
 */
export const heatMeasures = (settings: HeatSettings): readonly PieceMeasure[] => [
	ofUnits(
		'unit.u',
		'U-value of the unit',
		'transmittance',
		'(Σ A U + Σ l ψ) / A: glass and panels by their areas, the rest of the cell as frame of the material of its bars, the edges of panes by ψ of the spacer (component method of EN ISO 12631, from memory)',
		settings,
		'u'
	),
	ofUnits(
		'unit.glass_share',
		'share of glass of the unit',
		'ratio',
		'area of its glass over that of its cell',
		settings,
		'glassShare'
	),
	ofUnits(
		'unit.g',
		'g-value of the unit',
		'ratio',
		'g of its glass by area over its whole cell: what is no glass lets no sun in',
		settings,
		'g'
	)
];
