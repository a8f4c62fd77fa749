/** Something that can be found by its words. */
export interface Entry {
	readonly label: string;
	readonly kind: string;
	/** The key that does the same. */
	readonly key?: string;
	/** It can be done at many a clause: what is itself called by the words comes before. */
	readonly isAtClause?: boolean;
	readonly act: () => void;
}

/** After every rank that a label has. */
const LAST = 4;

/** Entries that have all words of a text: those that begin with it first, those that can be done at a clause last. */
export function matching(entries: readonly Entry[], text: string): Entry[] {
	const whole = text.trim().toLowerCase();
	const words = whole.split(/\s+/).filter(Boolean);
	if (!words.length) return [...entries];
	const ranked: [number, Entry][] = [];
	for (const entry of entries) {
		const label = entry.label.toLowerCase();
		const all = `${label} ${entry.kind}`;
		if (!words.every((word) => all.includes(word))) continue;
		const rank = label.startsWith(whole)
			? 0
			: ` ${label}`.includes(` ${whole}`)
				? 1
				: label.includes(whole)
					? 2
					: 3;
		ranked.push([rank > 0 && entry.isAtClause ? LAST : rank, entry]);
	}
	return ranked.sort(([a], [b]) => a - b).map(([, entry]) => entry);
}
