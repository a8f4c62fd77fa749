import type { Rule, SaidLie } from '$core/project/schema';

type Put = Exclude<Rule['put'], 'open'>;

/** What is put there, with something said otherwise of how it lies or is cut; as it is by itself where nothing is said. */
export function withSaid<Key extends keyof SaidLie | 'cut'>(
	put: Put,
	key: Key,
	value: Put[Key] | undefined
): Put {
	const rest = Object.fromEntries(Object.entries(put).filter(([name]) => name !== key));
	return (value === undefined ? rest : { ...rest, [key]: value }) as Put;
}

/** What a rule's menu offers for how its part lies, as far as it does not say it yet. */
export const lieActions = (put: Put, set: (put: Put, said: string) => void) =>
	(
		[
			['turn', 'Turn it on by a corner', 1, 'Turn it by a formula', 'mod(bay, 2)'],
			['flip', 'Turn it inside out', true, 'Turn it inside out by a formula', 'mod(course + bay, 2) == 0'],
			['mirror', 'Mirror it: the opposite hand', true, 'Mirror it by a formula', 'mod(bay, 2) == 0']
		] as const
	).flatMap(([key, label, value, labelDriven, formula]) =>
		put[key] !== undefined
			? []
			: [
					{ label, act: () => set(withSaid(put, key, value), label.toLowerCase()) },
					{ label: labelDriven, act: () => set(withSaid(put, key, formula), labelDriven.toLowerCase()) }
				]
	);

/** What it offers for cells that trims cut. */
export const clipActions = (put: Put, set: (put: Put, said: string) => void) =>
	put.cut === 'clip'
		? []
		: [
				{
					label: 'Clip it where trims cut its cells',
					act: () => set(withSaid(put, 'cut', 'clip'), 'clipped where trims cut')
				}
			];
