import type { z } from 'zod';
import { materialSchema, type Material } from '../project/material-schema';

/**
 * Densities: glass EN 572-1 (2500), aluminium EN 1999-1-1 (2700), concrete EN 1991-1-1 (24 kN/m³); moduli of elasticity: glass
 * EN 572-1, aluminium EN 1999-1-1, steel EN 1993-1-1, all from memory; the others are common practice without a source.
 */
const given: readonly z.input<typeof materialSchema>[] = [
	{
		id: 'glass',
		label: 'Glass',
		density: 2500,
		stiffness: 70_000,
		colour: '#A5C4C2',
		opacity: 0.42,
		metalness: 0,
		roughness: 0.04,
		glass: true
	},
	{
		id: 'aluminium',
		label: 'Aluminium',
		density: 2700,
		stiffness: 70_000,
		colour: '#C6C8C7',
		opacity: 1,
		metalness: 0.55,
		roughness: 0.4
	},
	{
		id: 'bronze',
		label: 'Bronze-coloured aluminium',
		density: 2700,
		stiffness: 70_000,
		colour: '#80624A',
		opacity: 1,
		metalness: 0.55,
		roughness: 0.4
	},
	{
		id: 'steel',
		label: 'Steel',
		density: 7850,
		stiffness: 210_000,
		colour: '#83888B',
		opacity: 1,
		metalness: 0.6,
		roughness: 0.42
	},
	{
		id: 'zinc',
		label: 'Zinc sheet',
		density: 7140,
		colour: '#98A09F',
		opacity: 1,
		metalness: 0.4,
		roughness: 0.55
	},
	{
		id: 'timber',
		label: 'Larch',
		density: 590,
		stiffness: 11_000,
		colour: '#C59E6C',
		opacity: 1,
		metalness: 0,
		roughness: 0.75,
		surface: 'wood'
	},
	{
		id: 'mineral-wool',
		label: 'Mineral wool',
		density: 80,
		colour: '#C9B98A',
		opacity: 1,
		metalness: 0,
		roughness: 1,
		surface: 'cast'
	},
	{
		id: 'terracotta',
		label: 'Terracotta',
		density: 2000,
		colour: '#BC7350',
		opacity: 1,
		metalness: 0,
		roughness: 0.85,
		surface: 'cast'
	},
	{
		id: 'concrete',
		label: 'Concrete',
		density: 2400,
		colour: '#BDB9B0',
		opacity: 1,
		metalness: 0,
		roughness: 0.95,
		surface: 'cast'
	},
	{
		id: 'fabric',
		label: 'Coated fabric',
		density: 1200,
		colour: '#EAE6DA',
		opacity: 1,
		metalness: 0,
		roughness: 0.9,
		surface: 'woven'
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
