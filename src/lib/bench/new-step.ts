import type { AnyStep } from '$core/project/part-definition';
import { sentences } from './step-words';

/** Where a new step starts from, apart from its name and the values it uses. */
const beginnings: Partial<Record<AnyStep['do'], Readonly<Record<string, unknown>>>> = {
	each: { over: 'edges', gathers: [], steps: [], elements: [] },
	repeat: { times: '3', index: 'turn', steps: [], elements: [] },
	along: { spaced: 'at most', spacing: '300 mm', steps: [], elements: [] },
	cases: {
		of: '0.5',
		cases: [
			{ below: '0.5', steps: [], elements: [] },
			{ from: '0.5', steps: [], elements: [] }
		]
	},
	part: { part: 'flat-panel', values: {} },
	number: { value: '100 mm' },
	'point on path': { ratio: '0.5', from: 'start' },
	corner: { number: 1 },
	lift: { by: '100 mm' },
	shift: { right: '100 mm', up: '0 mm' },
	choose: { when: 'true' },
	edge: { number: 1 },
	circle: { diameter: '300 mm', pieces: 16 },
	path: { runs: 'straight' },
	ring: { runs: 'straight' },
	inset: { by: '50 mm' },
	offset: { by: '50 mm' },
	shrink: { ratio: '0.2' },
	smooth: { times: 1 },
	rounded: { radius: '60 mm', pieces: 6 },
	divided: { into: 4 },
	'bowed sheet': { rise: '100 mm', pieces: 6 },
	plate: { thickness: '6 mm', side: 'in' },
	band: { depth: '60 mm' },
	bar: {
		profile: { shape: 'box', width: '50 mm', depth: '80 mm' },
		placed: 'behind',
		joints: 'mitred'
	},
	thicken: { thickness: '4 mm', side: 'in' },
	sphere: { diameter: '120 mm' },
	'joined tubes': { reach: '200 mm', fillet: '30 mm' },
	'block box': { from: ['0', '0', '0'], to: ['1', '1', '1'] },
	'block sphere': { centre: ['0.5', '0.5', '0.5'], radius: '0.3' },
	'block cylinder': { axis: 'out', middle: ['0.5', '0.5'], radius: '0.3', low: '0', high: '1' },
	'block outline': {
		axis: 'out',
		outline: [
			[0.2, 0.2],
			[0.8, 0.2],
			[0.5, 0.8]
		],
		low: '0',
		high: '1'
	},
	'fit block': { turns: '0', flip: 'false', mirror: 'false' }
};

/** What a step within a group is about, and directions that most go along; of other things the newest is first. */
const preferred = ['edge', 'small', 'piece', 'from', 'normal', 'plane'];

/**
 * A new step of a kind, standing on values that are there already.
 * @param sees names it may use, with their types
 * @returns null when a value it needs is not there yet, with what is missing
 */
export function newStep(
	kind: AnyStep['do'],
	name: string,
	sees: ReadonlyMap<string, string>
): { readonly step: Record<string, unknown> } | { readonly missing: string } {
	const step: Record<string, unknown> = { name, do: kind, ...beginnings[kind] };
	const known = [...sees];
	const taken = new Set<string>();
	const pick = (of: readonly string[]): string | undefined => {
		const fits = known.filter(([one, is]) => of.includes(is) && !taken.has(one)).map(([one]) => one);
		const found = preferred.find((one) => fits.includes(one)) ?? fits.at(-1);
		if (found) taken.add(found);
		return found;
	};
	for (const field of sentences[kind]) {
		if (typeof field === 'string') continue;
		if (field.is === 'use' && !field.optional) {
			// What is gone round is a ring, where there is one.
			const found = (kind === 'each' && pick(['ring'])) || pick(field.of);
			if (!found) return { missing: field.of[0]! };
			step[field.key] = found;
		} else if (field.is === 'uses' && !field.optional) {
			const ring = kind === 'part' ? pick(['ring']) : undefined;
			const corners = known.filter(([one, is]) => is === 'point' && /^(corner|point)\d+$/.test(one));
			const through = ring
				? [ring]
				: field.of.includes('point') && corners.length
					? corners.map(([one]) => one)
					: [pick(field.of)];
			if (!through[0]) return { missing: field.of[0]! };
			step[field.key] = through;
		}
	}
	return { step };
}
