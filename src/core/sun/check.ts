import type { Sun } from '../project/sun-schema';
import { pathTo } from '../project/typed-path';
import { formatNumber } from '../units/quantity';
import { refuse } from '../units/problem';

const MOST_DAYS = 366;
const at = pathTo('sun');

/**
 * Whether the sun can stand as a project says.
 *
 * ```ts
 * checkSun(project.sun);
 * ```
 * @returns yes @throws ProblemError where it says something that cannot be
 */
export function checkSun({ latitude, longitude, ahead, hour, period }: Sun): true {
	const within = (value: number, least: number, most: number, key: string, says: string) => {
		if (!(value >= least && value <= most))
			refuse(`${at}/${key}`, `${says}; ${formatNumber(least)} to ${formatNumber(most)} is accepted`);
	};
	within(latitude, -90, 90, 'latitude', `latitude ${formatNumber(latitude, 4)}° lies beyond the pole`);
	within(
		longitude,
		-180,
		180,
		'longitude',
		`longitude ${formatNumber(longitude, 4)}° goes round more than once`
	);
	within(ahead, -14, 14, 'ahead', `no clock is ${formatNumber(ahead, 2)} h ahead of universal time`);
	within(hour, 0, 24, 'hour', `the day has no hour ${formatNumber(hour, 2)}`);
	within(period.since, 0, 24, 'period/since', `the day has no hour ${formatNumber(period.since, 2)}`);
	within(period.until, 0, 24, 'period/until', `the day has no hour ${formatNumber(period.until, 2)}`);
	if (!(period.since < period.until))
		refuse(
			`${at}/period`,
			`sun is counted from ${formatNumber(period.since, 2)} h to ${formatNumber(period.until, 2)} h, which is no time; the second hour comes after the first`
		);
	const days = (Date.parse(period.to) - Date.parse(period.from)) / 86_400_000 + 1;
	if (!(days >= 1 && days <= MOST_DAYS))
		refuse(
			`${at}/period`,
			`the period from ${period.from} to ${period.to} ${days < 1 ? 'ends before it begins' : `is ${formatNumber(days)} days long`}; 1 to ${MOST_DAYS} days are accepted`
		);
	return true;
}
