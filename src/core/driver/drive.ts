import { amountOf } from '../condition/amount';
import { counters, ordinals } from '../condition/counters';
import { fieldValues, type AskedSites } from '../condition/sites';
import { chanceOf } from '../field/chance';
import { fieldsOver } from '../field/fields';
import { followable } from '../field/followed';
import { kernelValue } from '../part/inputs';
import type { DriverOf, SpelledDriver } from '../project/driver-schema';
import type { Named } from '../named/named-values';
import type { PartInput } from '../project/part-definition';
import type { NumberKind } from '../units/dimension';
import { inRadians } from '../units/scale';
import { formatQuantity } from '../units/quantity';
import { plainFlag, type Flag } from '../units/flag';

/** What a driver came to for some sites. */
export interface Driven {
	/** In kernel units. */
	readonly values: Float64Array;
	/** What is told of rows whose field is outside the range. */
	readonly flags: ReadonlyMap<number, Flag>;
}

const NO_FLAGS: ReadonlyMap<number, Flag> = new Map();

/** A value of an input in kernel units: an amount, or the name of one of its choices. @throws FormulaError */
export function inputAmount(
	input: PartInput,
	kind: NumberKind,
	amount: number | string,
	named: Named
): number {
	const option = input.options?.findIndex(({ name }) => name === amount) ?? -1;
	if (option >= 0) return kernelValue(input, amount);
	if (kind === 'switch') return amount === 'true' || amount === 1 ? 1 : 0;
	return amountOf(amount, kind, named);
}

/** Straight from point to point through 0, 0 and 1, 1 unless the ends are given; what lies beyond has the end's value. */
function throughCurve(shares: Float64Array, curve: readonly (readonly [number, number])[]): void {
	if (!curve.length) return;
	const points = [...curve].sort((a, b) => a[0] - b[0]);
	if (points[0]![0] > 0) points.unshift([0, 0]);
	if (points.at(-1)![0] < 1) points.push([1, 1]);
	const xs = Float64Array.from(points, ([x]) => x);
	const ys = Float64Array.from(points, ([, y]) => y);
	for (let r = 0; r < shares.length; r++) {
		const x = shares[r]!;
		let k = 1;
		while (k < xs.length - 1 && xs[k]! < x) k++;
		const [x0, x1] = [xs[k - 1]!, xs[k]!];
		const t = x1 > x0 ? (x - x0) / (x1 - x0) : 1;
		shares[r] = ys[k - 1]! + Math.min(1, Math.max(0, t)) * (ys[k]! - ys[k - 1]!);
	}
}

function follow(
	driver: DriverOf<'follows'>,
	input: PartInput,
	kind: NumberKind,
	asked: AskedSites,
	sites: Uint32Array
): Driven {
	const field = fieldsOver(asked.over, followable(asked.around.followed)).find(
		({ name }) => name === driver.field
	)!;
	const all = fieldValues(asked, driver.field);
	const [a, b] = driver.from.map((amount) => amountOf(amount, field.kind, asked.around.named)) as [
		number,
		number
	];
	const [c, d] = driver.to.map((amount) => inputAmount(input, kind, amount, asked.around.named)) as [
		number,
		number
	];
	const shares = new Float64Array(sites.length);
	const outside: number[] = [];
	for (let r = 0; r < shares.length; r++) {
		const share = (all[sites[r]!]! - a) / (b - a);
		if (share < 0 || share > 1) outside.push(r);
		shares[r] = share < 0 ? 0 : share > 1 ? 1 : share;
	}
	throughCurve(shares, driver.curve);
	const { steps } = driver;
	if (steps !== null)
		for (let r = 0; r < shares.length; r++)
			shares[r] = steps === 1 ? 0 : Math.min(steps - 1, Math.floor(shares[r]! * steps)) / (steps - 1);
	const values = shares;
	for (let r = 0; r < values.length; r++) values[r] = c + values[r]! * (d - c);
	if (driver.outside === 'held' || !outside.length) return { values, flags: NO_FLAGS };
	const shown = (value: number) => formatQuantity(value, field.kind);
	const flags = new Map<number, Flag>();
	for (const r of outside)
		flags.set(
			r,
			plainFlag(
				'driver.outside',
				'flagged',
				input.label,
				`${input.label}: ${field.label} is ${shown(all[sites[r]!]!)}, outside ${shown(a)} to ${shown(b)}`
			)
		);
	return { values, flags };
}

/** Seen from further round than this the sun stands beside or behind the face: blades have nothing to keep out. */
const BESIDE = inRadians(89.9);

/**
 * The angle at which the shade of a blade just reaches the next: d · (cos θ · tan P − sin θ) = s, where P is the angle
 * of the sun to the face's normal as the blades see it, d their depth and s their spacing. A sun that no blade can
 * keep out meets them square; one that does not reach the face leaves them level.
 *
 * ```ts
 * keepingOut(inRadians(45), 180, 250); // rad
 * ```
 * @param seen rad @param depth mm @param spacing mm
 */
export function keepingOut(seen: number, depth: number, spacing: number): number {
	const angle = Math.abs(seen);
	if (angle > BESIDE) return 0;
	return Math.sign(seen) * (angle - Math.asin(Math.min(1, (spacing / depth) * Math.cos(angle))));
}

function keepOut(
	driver: DriverOf<'keeps out'>,
	input: PartInput,
	kind: NumberKind,
	asked: AskedSites,
	sites: Uint32Array
): Driven {
	const { named } = asked.around;
	const seen = fieldValues(asked, driver.blades === 'lying' ? 'profile_angle' : 'plan_angle');
	const [depth, spacing] = [driver.depth, driver.spacing].map((amount) =>
		amountOf(amount, 'length', named)
	) as [number, number];
	const [a, b] = driver.to.map((amount) => inputAmount(input, kind, amount, named)) as [number, number];
	const values = new Float64Array(sites.length);
	for (let r = 0; r < values.length; r++)
		values[r] = Math.max(
			Math.min(a, b),
			Math.min(Math.max(a, b), keepingOut(seen[sites[r]!]!, depth, spacing))
		);
	return { values, flags: NO_FLAGS };
}

/**
 * The values that a driver gives an input on some sites. It has been checked.
 *
 * ```ts
 * const { values } = drive({ is: 'chance', to: [0, 100], seed: 1 }, part.inputs[0]!, 'length', askedSites, sites);
 * ```
 */
export function drive(
	driver: SpelledDriver,
	input: PartInput,
	kind: NumberKind,
	asked: AskedSites,
	sites: Uint32Array
): Driven {
	switch (driver.is) {
		case 'follows':
			return follow(driver, input, kind, asked, sites);
		case 'keeps out':
			return keepOut(driver, input, kind, asked, sites);
		case 'alternates': {
			const choices = Float64Array.from(driver.values, (amount) =>
				inputAmount(input, kind, amount, asked.around.named)
			);
			const { numbers } = counters(driver.by, asked);
			const values = new Float64Array(sites.length);
			// The first bay, course or cell has the first value.
			for (let r = 0; r < values.length; r++)
				values[r] = choices[(numbers[sites[r]!]! - 1) % choices.length]!;
			return { values, flags: NO_FLAGS };
		}
		case 'chance': {
			const [c, d] = driver.to.map((amount) => inputAmount(input, kind, amount, asked.around.named)) as [
				number,
				number
			];
			const [course, bay] = [fieldValues(asked, 'course'), fieldValues(asked, 'bay')];
			const slot = ordinals(asked.over, asked.source);
			const draw = chanceOf(asked.source.address!, driver.seed);
			const values = new Float64Array(sites.length);
			for (let r = 0; r < values.length; r++) {
				const site = sites[r]!;
				values[r] = c + draw(course[site]!, bay[site]!, slot(site)) * (d - c);
			}
			return { values, flags: NO_FLAGS };
		}
	}
}
