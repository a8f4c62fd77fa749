import { partsOf } from '$core/cladding/kit';
import type { Edit } from '$core/project/edits';
import type { Limit } from '$core/project/limit-schema';
import type { Project, Rule, Variant, Zone } from '$core/project/schema';
import type { SettingOut } from '$core/project/setting-out-schema';
import { insertAt, pathTo, setAt } from '$core/project/typed-path';
import { counted } from '$core/units/counted';
import type { NumberKind } from '$core/units/dimension';
import { formatNumber, formatQuantity, type LengthDisplay } from '$core/units/quantity';
import { freshId } from './fresh-id';

/** Something that might bring pieces inside a limit; whether it does is tried. */
export interface Fix {
	/** What becomes of what: 41 bays in the place of 32. */
	readonly label: string;
	readonly edits: readonly Edit[];
}

type Direction = 'across' | 'up';
const words = { across: ['bay', 'bays'], up: ['course', 'courses'] } as const;

/** A little further than to the bound itself. */
const MARGIN = 1.02;
/** Sizes are stepped down to a whole of so much (mm). */
const WHOLE = 10;

/** Steps that are finer by a factor, or coarser where it is below 1, and what they are; null where they are listed by hand. */
function steps<D extends Direction>(
	direction: D,
	now: SettingOut[D],
	factor: number,
	display: LengthDisplay
): { readonly next: SettingOut[D]; readonly label: string } | null {
	const [one, many] = words[direction];
	const whole = (count: number) =>
		Math.max(1, factor > 1 ? Math.ceil(count * factor) : Math.floor(count * factor));
	switch (now.by) {
		case 'count': {
			const count = whole(now.count);
			return count === now.count
				? null
				: {
						next: { ...now, count },
						label: `${counted(count, one, many)} in the place of ${formatNumber(now.count)}`
					};
		}
		case 'levels': {
			if (now.sizes) return null;
			const each = whole(now.each);
			return each === now.each
				? null
				: {
						next: { ...now, each },
						label: `${counted(each, one, many)} a storey in the place of ${formatNumber(now.each)}`
					};
		}
		case 'at most':
		case 'at least':
		case 'exact size': {
			const size = Math.max(WHOLE, WHOLE * Math.floor(now.size / factor / WHOLE));
			const text = (mm: number) => formatQuantity(mm, 'length', display);
			return { next: { ...now, size }, label: `${many} of ${text(size)} in the place of ${text(now.size)}` };
		}
		default:
			return null;
	}
}

/** Another shape of cells that has less to warp. */
function flatterPattern({ id, pattern }: Zone): Fix[] {
	if (pattern.kind === 'triangles') return [];
	return [
		{
			label: 'triangles, which are flat, along the shorter diagonals',
			edits: [setAt(pathTo('zones', id, 'pattern'), { kind: 'triangles', diagonal: 'shorter' })]
		}
	];
}

/** The cells that are warped too far as two flat triangles each, by a rule before the others. */
function splitCells(document: Project, { id, rules }: Zone, { bound, material }: Limit): Fix[] {
	const variant: Variant = {
		id: freshId('split', document.variants),
		name: 'split',
		part: 'split-panel',
		values: material === null ? {} : { sheet: material }
	};
	const rule: Rule = {
		id: freshId('rule', rules),
		muted: false,
		where: {
			is: 'all',
			of: [
				{ is: 'corners', of: [4] },
				{ is: 'range', field: 'warp', at_least: bound, at_most: null }
			]
		},
		also: false,
		put: { variant: variant.id, values: {} }
	};
	return [
		{
			label: 'cells that are warped further split into two flat triangles',
			edits: [
				insertAt(pathTo('variants'), document.variants.length, variant),
				insertAt(pathTo('zones', id, 'rules'), 0, rule)
			]
		}
	];
}

/** Thicknesses of the variants that pieces of a zone are of, made thinner by a factor. */
function thinner(
	document: Project,
	variants: readonly Variant[],
	factor: number,
	display: LengthDisplay
): Fix[] {
	const parts = partsOf(document);
	return variants.flatMap((variant) =>
		(parts.find(({ id }) => id === variant.part)?.inputs ?? []).flatMap((input): Fix[] => {
			if (input.kind !== 'length' || input.scope !== 'shared' || !/thick/i.test(input.label)) return [];
			const now = Number(variant.values[input.name] ?? input.default);
			const next = Math.floor(now / factor);
			if (!(next >= Math.max(1, input.min ?? 1)) || next >= now) return [];
			const text = (mm: number) => formatQuantity(mm, 'length', display);
			return [
				{
					label: `${input.label.toLowerCase()} of ${variant.name} ${text(next)} in the place of ${text(now)}`,
					edits: [setAt(pathTo('variants', variant.id, 'values', input.name), next)]
				}
			];
		})
	);
}

/** Which way values go with the steps: areas and masses with both, warp with their square. */
const withBoth: ReadonlySet<NumberKind> = new Set(['area', 'mass', 'volume']);

/**
 * What might bring the pieces of a zone inside a limit: smaller or larger steps either way, cells that are split or flat,
 * thinner plates.
 * @param kind of what is limited @param share how far the worst of them goes beyond its bound: their ratio, above 1
 * @param variants that these pieces are of
 */
export function fixesFor(
	document: Project,
	zone: Zone,
	limit: Limit,
	kind: NumberKind,
	share: number,
	variants: readonly Variant[],
	display: LengthDisplay
): Fix[] {
	const isWarp = limit.of.endsWith('warp');
	const one = share * MARGIN;
	const both = isWarp || withBoth.has(kind) ? Math.sqrt(one) : one;
	const way = limit.than === 'most' ? (factor: number) => factor : (factor: number) => 1 / factor;
	const { across, up } = zone.settingOut;
	const isTied = zone.setOutAs !== null || zone.on.is !== 'faces';
	const moved = (directions: readonly Direction[], factor: number): Fix[] => {
		const found = directions.map((direction) =>
			direction === 'across'
				? { direction, ...steps('across', across, way(factor), display) }
				: { direction, ...steps('up', up, way(factor), display) }
		);
		if (isTied || found.some(({ next }) => !next)) return [];
		return [
			{
				label: found.map(({ label }) => label!).join(', '),
				edits: found.map(({ direction, next }): Edit =>
					setAt(pathTo('zones', zone.id, 'settingOut', direction), next!)
				)
			}
		];
	};
	return [
		...moved(['across'], one),
		...moved(['up'], one),
		...moved(['across', 'up'], both),
		...(isWarp && limit.than === 'most'
			? [...splitCells(document, zone, limit), ...flatterPattern(zone)]
			: []),
		...(kind === 'mass' ? thinner(document, variants, one, display) : [])
	];
}
