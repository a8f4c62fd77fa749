import { z } from 'zod';
import { formatNumber } from '../units/quantity';

/** Numbers of a document: all finite, each kind within what can still be meant. Stages say more where it makes no sense. */
const within = (bound: number, unit: string) => {
	const says = `a number from ${formatNumber(-bound)} to ${formatNumber(bound)}${unit} is accepted`;
	return z.number().min(-bound, says).max(bound, says);
};

/** A length or a coordinate, to 100 km. */
export const mm = within(1e8, ' mm');
/** mm², to a square of 100 km. */
export const squareMm = within(1e16, ' mm²');
/** An angle, to 100 turns. */
export const degrees = within(36_000, '°');
/** A factor, a share, a weight, a count that its stage bounds. */
export const plain = within(1e6, '');
/** A coordinate of a file in its own unit, times a weight. */
export const weighted = within(1e12, '');
