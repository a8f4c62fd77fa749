import type { HeatSettings } from '../project/heat-schema';

/** What a material lets through: U (W/m²K), and g of glass. */
export interface Through {
	readonly u: number;
	readonly g: number | null;
}

/** Glass as a coated unit of two panes, metal as frames with a thermal break, others as they are filled: common practice, no source. */
const shipped: Readonly<Record<string, Through>> = {
	glass: { u: 1.1, g: 0.5 },
	aluminium: { u: 2.2, g: null },
	bronze: { u: 2.2, g: null },
	steel: { u: 2.8, g: null },
	timber: { u: 1.3, g: null },
	'mineral-wool': { u: 0.25, g: null }
};
const OTHER: Through = { u: 2.2, g: null };

/**
 * What a material lets through, as the project has it.
 *
 * ```ts
 * throughOf(project.heat, { id: 'glass', glass: true }).u; // 1.1
 * ```
 */
export function throughOf(
	{ materials }: HeatSettings,
	{ id, glass }: { readonly id: string; readonly glass: boolean }
): Through {
	const own = materials.find((one) => one.id === id);
	return own ?? shipped[id] ?? (glass ? shipped['glass']! : OTHER);
}
