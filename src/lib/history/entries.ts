import type { Edit } from '$core/project/edits';
import { hashOf } from '$core/project/hash';
import type { Project } from '$core/project/schema';
import type { HistoryEntry } from '$lib/protocol';

export type { HistoryEntry };

export interface Day {
	readonly title: string;
	readonly entries: readonly HistoryEntry[];
}

const dayOf = new Intl.DateTimeFormat('en-GB', {
	weekday: 'long',
	day: 'numeric',
	month: 'long',
	year: 'numeric'
});

/** Entries, newest first, under the day on which they were made. */
export function byDay(entries: readonly HistoryEntry[]): Day[] {
	const days = new Map<string, HistoryEntry[]>();
	for (const entry of entries) {
		const title = dayOf.format(new Date(entry.madeAt));
		const day = days.get(title);
		if (day) day.push(entry);
		else days.set(title, [entry]);
	}
	return [...days].map(([title, ofDay]) => ({ title, entries: ofDay }));
}

/** The edits that make a project what it once was: every part of it that differs, whole. */
export function backTo(now: Project, then: Project): Edit[] {
	return (Object.keys(now) as (keyof Project)[])
		.filter((key) => hashOf(now[key]) !== hashOf(then[key]))
		.map((key) => ({ do: 'set', path: key, value: then[key] }));
}
