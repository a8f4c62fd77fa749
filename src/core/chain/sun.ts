import type { FaceModel } from '../cladding/model';
import type { FaceSun } from '../field/field';
import { asksForHours } from '../field/sun';
import { directHours, type SunRays, type SunnedPlaces } from '../sun/direct-hours';
import { momentOf, sunAt } from '../sun/position';
import { sunRays } from '../sun/rays';
import { shadeOf, sunnedCells } from '../sun/shade';
import type { Face } from '../mass/face';
import type { Zone } from '../project/schema';
import type { Bvh } from '../geometry/bvh';
import type { Kept } from './memo';
import type { Run } from './stage';

/** So many cells are counted between two breaths. */
const AT_ONCE = 200;

/** Hours of sun on places, a few at a time. */
async function countHours(
	shade: Bvh,
	rays: SunRays,
	places: SunnedPlaces,
	told: (share: number) => Promise<void>
): Promise<Float64Array> {
	const { length } = places.before;
	const hours = new Float64Array(length);
	for (let from = 0; from < length; from += AT_ONCE) {
		await told(from / length);
		hours.set(directHours(shade, rays, places, from, Math.min(length, from + AT_ONCE)), from);
	}
	return hours;
}

/** Whether a clause of a zone asks for hours of sun. */
export const needsHours = ({ rules, runs, nodes, exceptions }: Zone): boolean =>
	asksForHours([JSON.stringify([rules, runs, nodes, exceptions.map(({ put }) => put)])]);

/**
 * The sun over the faces of a zone: where it stands, and how long it falls on every cell where that is asked for.
 *
 * @param wanted hours are counted too, which takes its time @param standing the faces of all masses, which throw shade
 */
export async function sunOver(
	run: Run,
	zone: Zone,
	faces: readonly FaceModel[],
	wanted: boolean,
	standing: readonly Kept<Face[]>[]
): Promise<readonly FaceSun[]> {
	const { sun, memo, timed } = run;
	const { latitude, longitude, north, ahead, day, hour, period } = sun;
	const place = [latitude, longitude, north, ahead];
	const direction = memo.use(
		['sun'],
		[place, day, hour],
		() => sunAt(sun, momentOf(day, hour, ahead)).direction
	);
	let hours: readonly Kept<Float64Array>[] = [];
	if (wanted) {
		const rays = memo.use(['sun rays'], [place, period], () => timed('measures', () => sunRays(sun)));
		const shade = memo.use(['shade'], standing, () =>
			timed('measures', () => shadeOf(standing.flatMap(({ value }) => value)))
		);
		const counted: Kept<Float64Array>[] = [];
		for (const [f, face] of faces.entries())
			counted.push(
				await memo.useLater(['hours of sun', zone.id, f], [shade, rays, face.serial], () =>
					countHours(shade.value, rays.value, sunnedCells(face.measures), (share) =>
						run.pause((f + share) / faces.length)
					)
				)
			);
		hours = counted;
	}
	return faces.map(
		(_, f) =>
			memo.use(['sun over', zone.id, f], [direction, hours[f] ?? null], () => ({
				direction: direction.value,
				hours: hours[f]?.value ?? null
			})).value
	);
}
