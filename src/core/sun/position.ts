import { Body, Equator, Horizon, Observer } from 'astronomy-engine';
import type { Vector } from '../geometry/vector';
import type { Sun } from '../project/sun-schema';
import { inRadians } from '../units/scale';

/** Where the sun stands (rad), and the way to it in the model. */
export interface SunPosition {
	/** Of unit length; below the horizon after sunset. */
	readonly direction: Vector;
	/** Above the horizon, bent by the air. */
	readonly altitude: number;
	/** Clockwise from true north. */
	readonly bearing: number;
}

const HOUR_MS = 3_600_000;

/**
 * A moment of the place's own clock.
 *
 * ```ts
 * momentOf('2026-06-21', 12, 1).toISOString(); // 2026-06-21T11:00:00.000Z
 * ```
 * @param day as 2026-06-21 @param hour of the clock @param ahead hours that the clock is ahead of universal time
 */
export const momentOf = (day: string, hour: number, ahead: number): Date =>
	new Date(Date.parse(`${day}T00:00:00Z`) + (hour - ahead) * HOUR_MS);

/**
 * Where the sun stands over a place at a moment.
 *
 * ```ts
 * const { altitude } = sunAt({ latitude: 50, longitude: 0, north: 0 }, momentOf('2026-06-21', 12, 0));
 * ```
 * @param place degrees
 */
export function sunAt(
	{ latitude, longitude, north }: Pick<Sun, 'latitude' | 'longitude' | 'north'>,
	moment: Date
): SunPosition {
	const observer = new Observer(latitude, longitude, 0);
	const { ra, dec } = Equator(Body.Sun, moment, observer, true, true);
	const seen = Horizon(moment, observer, ra, dec, 'normal');
	const altitude = inRadians(seen.altitude);
	const bearing = inRadians(seen.azimuth);
	const inPlan = bearing + inRadians(north);
	const level = Math.cos(altitude);
	return {
		direction: [level * Math.sin(inPlan), level * Math.cos(inPlan), Math.sin(altitude)],
		altitude,
		bearing
	};
}
