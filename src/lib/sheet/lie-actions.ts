import type { Rule, SaidLie } from '$core/project/schema';

type Put = Exclude<Rule['put'], 'open'>;

/** What is put there, lying otherwise; as drawn where nothing is said. */
export function withLie<Key extends keyof SaidLie>(put: Put, key: Key, value: SaidLie[Key] | undefined): Put {
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
					{ label, act: () => set(withLie(put, key, value), label.toLowerCase()) },
					{ label: labelDriven, act: () => set(withLie(put, key, formula), labelDriven.toLowerCase()) }
				]
	);
