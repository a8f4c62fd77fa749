import type { Edit } from '$core/project/edits';
import type { Zone } from '$core/project/schema';
import type { Standing, StandingOf } from '$core/project/standing-schema';
import { insertAt, pathTo } from '$core/project/typed-path';
import type { FaceView } from '$lib/worker/views';
import { freshId } from './fresh-id';
import { newZone } from './new-things';

/** A zone on something else than faces, right behind the one it is made from. */
function madeFrom(from: Zone, zones: readonly Zone[], what: string, on: Standing, rest: Partial<Zone> = {}) {
	const id = freshId(`${from.id}-${what}`, zones);
	const more = id.slice(`${from.id}-${what}`.length).replace('-', ' ');
	const fresh: Zone = {
		...newZone(`${from.name} ${what}${more}`, [], zones),
		id,
		on,
		...rest
	};
	const index = zones.findIndex((one) => one.id === from.id) + 1;
	return { zone: fresh, edits: [insertAt(pathTo('zones'), index, fresh)] };
}

/** What makes a zone that stands on another, and the zone. */
export interface NewStanding {
	readonly zone: Zone;
	readonly edits: readonly Edit[];
}

/** A grid 600 mm behind a zone or before it, joined as the zone is. */
export const gridBeside = (zone: Zone, zones: readonly Zone[], side: 'behind' | 'before'): NewStanding =>
	madeFrom(
		zone,
		zones,
		'grid',
		{ is: 'layer', of: zone.id, depth: side === 'behind' ? '-600 mm' : '600 mm', shifted: false },
		{ pattern: zone.pattern }
	);

/** Lines between a grid and the zone it lies behind. */
export const webTo = (layer: Zone, on: StandingOf<'layer'>, zones: readonly Zone[]): NewStanding =>
	madeFrom(layer, zones, 'web', {
		is: 'web',
		from: on.of,
		to: layer.id,
		bars: on.shifted ? ['diagonal'] : ['upright', 'diagonal']
	});

/** Stations along the foot of a zone, where posts stand upright. */
export const stationsAlong = (zone: Zone, zones: readonly Zone[]): NewStanding =>
	madeFrom(zone, zones, 'path', {
		is: 'path',
		along: { is: 'rim', of: zone.id, side: 'foot' },
		lift: 0,
		aside: 0,
		turned: 'upright'
	});

/** Node by node up and to the right; round a ring as a weave of copies both ways. */
export function chainsOn(zone: Zone, zones: readonly Zone[], face: FaceView | undefined): NewStanding {
	const { across, positions } = face?.grid ?? { across: null, positions: new Float64Array(0) };
	const middle = (axis: 0 | 1): number => {
		let [low, high] = [Infinity, -Infinity];
		for (let k = axis; k < positions.length; k += 3) {
			low = Math.min(low, positions[k]!);
			high = Math.max(high, positions[k]!);
		}
		return Math.round((low + high) / 2);
	};
	const round = across?.closed ?? false;
	return madeFrom(zone, zones, 'chains', {
		is: 'chains',
		of: zone.id,
		through: { by: 'steps', from: [1, 1], step: [1, 1], most: null },
		copies: round
			? {
					count: Math.max(2, Math.floor(across!.steps / 2)),
					by: 'full circle',
					about: [middle(0), middle(1)],
					mirrored: true
				}
			: null,
		over: round ? 40 : 0
	});
}

/** A chain through nodes by their names, in their order. */
export const chainThrough = (zone: Zone, zones: readonly Zone[], nodes: readonly string[]): NewStanding =>
	madeFrom(zone, zones, 'chain', {
		is: 'chains',
		of: zone.id,
		through: { by: 'hand', nodes: [...nodes] },
		copies: null,
		over: 0
	});
