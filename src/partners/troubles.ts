/** What can go wrong with a partner, in the words of its page. */
export const troubles = {
	slow: 'answers only after some seconds',
	silent: 'takes it and never answers',
	lost: 'breaks the line before it has taken it',
	later: 'says “later” first',
	twice: 'says everything twice',
	error: 'answers 500 and does not take it',
	broken: 'takes it and answers 500',
	nonsense: 'answers something that is no message',
	another: 'answers to another batch',
	half: 'answers for half of the pieces only',
	huge: 'answers 50 MB'
} as const;
export type Trouble = keyof typeof troubles;

/** Which troubles there are, and with how many of the messages. */
export interface Mood {
	/** 0 to 1 */
	share: number;
	kinds: Trouble[];
}

/** What ships: things that happen with every partner now and then. */
export const usualMood = (): Mood => ({ share: 0.15, kinds: ['slow', 'silent', 'later', 'twice', 'error'] });

/** A mood from the settings of a program: TROUBLES as names set apart by commas, TROUBLE_SHARE. */
export function moodFrom(env: Readonly<Record<string, string | undefined>>): Mood {
	const mood = usualMood();
	if (env['TROUBLES'] !== undefined)
		mood.kinds = env['TROUBLES'].split(',').filter((one): one is Trouble => Object.hasOwn(troubles, one));
	if (env['TROUBLE_SHARE']) mood.share = Math.min(1, Math.max(0, Number(env['TROUBLE_SHARE']) || 0));
	return mood;
}

/** What goes wrong with the next message, if anything. @param chance draws 0 to below 1 */
export function draw({ share, kinds }: Mood, chance: () => number = Math.random): Trouble | null {
	if (!kinds.length || chance() >= share) return null;
	return kinds[Math.floor(chance() * kinds.length)]!;
}
