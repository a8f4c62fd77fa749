import type { Sun } from '../project/sun-schema';
import type { SunRays } from './direct-hours';
import { momentOf, sunAt } from './position';

const DAY_MS = 86_400_000;
/** Suns that stand nearer together than this are one: its disc is half as wide (degrees). */
const ONE_SUN = 1;

const inDegrees = (radians: number) => (radians * 180) / Math.PI;

/**
 * The hours of a day that are counted, each as its middle and how much of it counts.
 *
 * ```ts
 * hoursBetween(8.5, 10); // [[9, 1], [9.75, 0.5]]
 * ```
 */
export function hoursBetween(since: number, until: number): [middle: number, share: number][] {
	const hours: [number, number][] = [];
	for (let hour = since; hour < until; hour++) {
		const share = Math.min(1, until - hour);
		hours.push([hour + share / 2, share]);
	}
	return hours;
}

/**
 * Where the sun stands over a period, in steps of an hour, with the hours it stands there: those below the horizon
 * left out, and those that stand as near together as its own disc is wide taken as one, in their middle.
 *
 * ```ts
 * const { hours } = sunRays(project.sun); // add up to the hours of daylight
 * ```
 */
export function sunRays(sun: Sun): SunRays {
	const { from, to, since, until } = sun.period;
	const found = new Map<number, [x: number, y: number, z: number, hours: number]>();
	const hours = hoursBetween(since, until);
	for (let day = Date.parse(from); day <= Date.parse(to); day += DAY_MS) {
		const name = new Date(day).toISOString().slice(0, 10);
		for (const [middle, share] of hours) {
			const { direction, altitude, bearing } = sunAt(sun, momentOf(name, middle, sun.ahead));
			if (altitude <= 0) continue;
			const row = Math.floor(inDegrees(altitude) / ONE_SUN);
			const wide = ONE_SUN / Math.cos((((row + 0.5) * ONE_SUN) / 180) * Math.PI);
			const place = 1000 * row + Math.floor(inDegrees(bearing) / wide);
			const one = found.get(place) ?? [0, 0, 0, 0];
			found.set(place, one);
			for (let k = 0; k < 3; k++) one[k]! += share * direction[k]!;
			one[3] += share;
		}
	}
	const directions = new Float64Array(3 * found.size);
	const counted = new Float64Array(found.size);
	[...found.values()].forEach(([x, y, z, sum], r) => {
		const size = Math.hypot(x, y, z);
		directions.set([x / size, y / size, z / size], 3 * r);
		counted[r] = sum;
	});
	return { directions, hours: counted };
}
