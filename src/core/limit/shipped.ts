import { limitSchema, type Limit } from '../project/limit-schema';
import type { Project } from '../project/schema';
import type { z } from 'zod';

/** From memory where a standard is named; common practice has no source. */
const given: readonly z.input<typeof limitSchema>[] = [
	{
		id: 'glass-long-side',
		of: 'sheet.long',
		than: 'most',
		bound: 6000,
		material: 'glass',
		source: 'Jumbo size of float glass, 6000 × 3210 mm (EN 572-2)'
	},
	{
		id: 'glass-short-side',
		of: 'sheet.short',
		than: 'most',
		bound: 3210,
		material: 'glass',
		source: 'Jumbo size of float glass, 6000 × 3210 mm (EN 572-2)'
	},
	{
		id: 'glass-warp',
		of: 'plate.warp',
		than: 'most',
		bound: 10,
		material: 'glass',
		source: 'What a flat pane takes at a corner: common practice, no source'
	},
	{
		id: 'glass-bent',
		of: 'glass.bent',
		than: 'most',
		bound: 20,
		material: 'glass',
		source: 'What toughened glass takes for good when it is bent cold: common practice, no source'
	},
	{
		id: 'glass-wind',
		of: 'glass.stress',
		than: 'most',
		bound: 18,
		material: 'glass',
		source: 'Float glass under wind: common practice, no source; once the wind is said'
	},
	{
		id: 'bar-deflection',
		of: 'bar.deflection_share',
		than: 'most',
		bound: 1,
		source:
			'L/200 up to 3 m, 5 mm + L/300 up to 7.5 m, L/250 above (EN 13830, from memory); once the wind is said'
	},
	{
		id: 'glass-angle',
		of: 'cell.smallest_angle',
		than: 'least',
		bound: 20,
		material: 'glass',
		source: 'Sharper corners break when they are cut: common practice, no source'
	},
	...['aluminium', 'zinc', 'bronze', 'steel'].map((material) => ({
		id: `${material}-warp`,
		of: 'plate.warp',
		than: 'most' as const,
		bound: 25,
		material,
		source: 'What a flat sheet takes: common practice, no source'
	})),
	...['terracotta', 'concrete'].map((material) => ({
		id: `${material}-warp`,
		of: 'plate.warp',
		than: 'most' as const,
		bound: 3,
		material,
		source: 'Cast or sawn, it does not give: common practice, no source'
	})),
	{
		id: 'lift',
		of: 'piece.mass',
		than: 'most',
		bound: 800,
		source: 'One lift of a small crane: common practice, no source'
	},
	{
		id: 'aluminium-bar',
		of: 'bar.length',
		than: 'most',
		bound: 7000,
		material: 'aluminium',
		source: 'Stock length of extruded profiles: common practice, no source'
	},
	{
		id: 'steel-bar',
		of: 'bar.length',
		than: 'most',
		bound: 12_000,
		material: 'steel',
		source: 'Mill length of hollow sections: common practice, no source'
	},
	{
		id: 'fold',
		of: 'line.fold',
		than: 'most',
		bound: 95,
		source: 'Sharper corners need a bar of their own: common practice, no source'
	},
	{
		id: 'smallest-piece',
		of: 'cell.area',
		than: 'least',
		bound: 20_000,
		source: 'Smaller pieces are lost on site: common practice, no source'
	}
];

/** The limits that ship; a project may have its own in their place and beside them. */
export const shippedLimits: readonly Limit[] = given.map((one) => limitSchema.parse(one));

/**
 * The limits that ship, as the project has them, and then its own.
 *
 * ```ts
 * const lift = limitsOfProject(project).find(({ id }) => id === 'lift');
 * ```
 */
export function limitsOfProject({ limits }: Pick<Project, 'limits'>): readonly Limit[] {
	const shipped = new Set(shippedLimits.map(({ id }) => id));
	return [
		...shippedLimits.map((one) => limits.find(({ id }) => id === one.id) ?? one),
		...limits.filter(({ id }) => !shipped.has(id))
	];
}
