import type { BatchPiece } from '$core/partner/message-schema';
import type { Judge } from '../inbox';

/** A bound of the works: what it is of, its value, and what is said of a piece beyond it. Invented values. */
interface Bound {
	readonly label: string;
	readonly key: 'long_side' | 'short_side' | 'length' | 'mass' | 'smallest_angle';
	readonly most?: number;
	readonly least?: number;
	readonly unit: 'mm' | 'kg' | '°';
}

/** The machines of the desk: its own, and nobody's. mm, kg; angles in degrees */
export const bounds: readonly Bound[] = [
	{ label: 'long side on the bed of the plate saw', key: 'long_side', most: 6000, unit: 'mm' },
	{ label: 'short side on the bed of the plate saw', key: 'short_side', most: 2500, unit: 'mm' },
	{ label: 'length in the bar saw', key: 'length', most: 7500, unit: 'mm' },
	{ label: 'mass on the crane', key: 'mass', most: 450, unit: 'kg' },
	{ label: 'smallest angle of a cut', key: 'smallest_angle', least: 15, unit: '°' }
];

/** The works take so many days for a first piece, and so many pieces a day. */
const FIRST_DAYS = 10;
const PIECES_A_DAY = 250;

const shown = (value: number, unit: Bound['unit']) =>
	`${Math.round(value * 10) / 10}${unit === '°' ? unit : ` ${unit}`}`;

/** Why a piece cannot be made here; empty where it can. */
export function whyNot(piece: BatchPiece): string {
	const faults = bounds.flatMap(({ label, key, most, least, unit }) => {
		const kept = piece[key];
		if (kept === null) return [];
		const value = unit === '°' ? (kept * 180) / Math.PI : kept;
		if (most !== undefined && value > most)
			return [`${label}: ${shown(value, unit)}, at most ${shown(most, unit)}`];
		if (least !== undefined && value < least)
			return [`${label}: ${shown(value, unit)}, at least ${shown(least, unit)}`];
		return [];
	});
	if (!piece.materials.length) faults.push('it is of no material');
	return faults.join('; ');
}

/** Whether the works take a piece, and when it would be there: they work off what came in before. */
export const judge: Judge = (piece, before) => {
	const reason = whyNot(piece);
	if (reason) return { is: 'refused', reason, lead_days: null };
	return { is: 'accepted', reason: '', lead_days: FIRST_DAYS + Math.ceil((before + 1) / PIECES_A_DAY) };
};
