import type { Zone } from '$core/project/schema';
import { parseQuantity, type LengthDisplay } from '$core/units/quantity';
import { patternWords } from '$lib/pattern/pattern-words';

/** Settings of a zone that are tried beside others. */
export interface Trial {
	readonly id: number;
	readonly settingOut: Zone['settingOut'];
	readonly pattern: Zone['pattern'];
}

export const MOST_TRIALS = 6;

/** A zone as it would be with the settings of a trial. */
export const withTrial = (zone: Zone, { settingOut, pattern }: Trial): Zone => ({
	...zone,
	setOutAs: null,
	settingOut,
	pattern
});

/** Patterns worth a look beside the one there is. */
export function firstTrials(zone: Zone): Trial[] {
	const others = ['rectangles', 'diamonds', 'triangles alternating']
		.map((value) => patternWords.find((word) => word.value === value)!.choice)
		.filter((choice) => JSON.stringify(choice) !== JSON.stringify(zone.pattern));
	return [zone.pattern, ...others]
		.slice(0, 3)
		.map((pattern, id) => ({ id, settingOut: zone.settingOut, pattern }));
}

type Spacing = Zone['settingOut']['across'] | Zone['settingOut']['up'];

/** A count ("24") or a largest size ("1500 mm"), as it is typed in a trial; a sentence when it is neither. */
export function readSteps(
	text: string,
	display: LengthDisplay
): { by: 'count'; count: number } | { by: 'at most'; size: number } | string {
	if (/^\s*\d+\s*$/.test(text)) return { by: 'count', count: Number(text) };
	try {
		return { by: 'at most', size: parseQuantity(text, 'length', display) };
	} catch {
		return 'A count, as in 24, or a largest size, as in 1500 mm, is wanted';
	}
}

/** A spacing in a few words. */
export function stepsInWords(spacing: Spacing): string {
	switch (spacing.by) {
		case 'count':
			return String(spacing.count);
		case 'at most':
			return `${spacing.size} mm`;
		case 'at least':
		case 'exact size':
			return `${spacing.by} ${spacing.size} mm`;
		case 'list':
			return `list of ${spacing.sizes.length}`;
		case 'parameters':
			return `${spacing.at.length} parameters`;
		case 'levels':
			return 'levels';
	}
}
