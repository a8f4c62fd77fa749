import type { z } from 'zod';
import { materialSchema, type Material } from '../project/material-schema';

/**
 * Densities: glass EN 572-1 (2500), aluminium EN 1999-1-1 (2700), concrete EN 1991-1-1 (24 kN/m³), all from memory; the others are common
 * practice without a source.
 */
const given: readonly z.input<typeof materialSchema>[] = [
	{
		id: 'glass',
		label: 'Glass',
		density: 2500,
		colour: '#8FB3B4',
		opacity: 0.62,
		metalness: 0.1,
		roughness: 0.08,
		glass: true
	},
	{
		id: 'aluminium',
		label: 'Aluminium',
		density: 2700,
		colour: '#8C8679',
		opacity: 1,
		metalness: 0.5,
		roughness: 0.5
	},
	{
		id: 'bronze',
		label: 'Bronze-coloured aluminium',
		density: 2700,
		colour: '#6E5A45',
		opacity: 1,
		metalness: 0.5,
		roughness: 0.5
	},
	{
		id: 'steel',
		label: 'Steel',
		density: 7850,
		colour: '#565B5E',
		opacity: 1,
		metalness: 0.6,
		roughness: 0.45
	},
	{
		id: 'zinc',
		label: 'Zinc sheet',
		density: 7140,
		colour: '#9AA19F',
		opacity: 1,
		metalness: 0.35,
		roughness: 0.6
	},
	{ id: 'timber', label: 'Larch', density: 590, colour: '#BC9A6A', opacity: 1, metalness: 0, roughness: 0.8 },
	{
		id: 'mineral-wool',
		label: 'Mineral wool',
		density: 80,
		colour: '#C9B98A',
		opacity: 1,
		metalness: 0,
		roughness: 1
	},
	{
		id: 'terracotta',
		label: 'Terracotta',
		density: 2000,
		colour: '#B8714F',
		opacity: 1,
		metalness: 0,
		roughness: 0.85
	},
	{
		id: 'concrete',
		label: 'Concrete',
		density: 2400,
		colour: '#B4AFA5',
		opacity: 1,
		metalness: 0,
		roughness: 0.95
	}
];

/**
 * The materials that ship; a project may have its own in their place and beside them.
 *
 * ```ts
 * const glass = shippedMaterials.find(({ id }) => id === 'glass');
 * ```
 */
export const shippedMaterials: readonly Material[] = given.map((one) => materialSchema.parse(one));
