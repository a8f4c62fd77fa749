import { nameInFormulas } from '$core/field/followed';
import { guidesIn } from '$core/field/guides';
import type { Project } from '$core/project/schema';
import { pathTo } from '$core/project/typed-path';
import { clauseNumbers, zonePart } from './zone-clauses';

/** A clause that uses something: by its number and words, and its path. */
export interface User {
	readonly name: string;
	readonly path: string;
}

/** Every clause of the sheet as it stands in the document. */
function* clausesOf({ masses, zones, guides }: Project): Iterable<User & { readonly said: unknown }> {
	for (const [k, mass] of masses.entries())
		yield { name: `1.${k + 1} ${mass.name}`, path: pathTo('masses', mass.id), said: mass };
	for (const guide of guides) yield { name: guide.name, path: pathTo('guides'), said: guide };
	for (const [z, zone] of zones.entries()) {
		const of = (number: number, path: string, said: unknown) => ({
			name: `${zonePart(z)}.${number} ${zone.name}`,
			path,
			said
		});
		const numbers = clauseNumbers(zone);
		const { id, settingOut } = zone;
		yield of(1, pathTo('zones', id, 'faces'), [zone.faces, zone.on]);
		yield of(numbers.across, pathTo('zones', id, 'setOutAs'), { zone: zone.setOutAs });
		yield of(numbers.across, pathTo('zones', id, 'settingOut', 'across'), settingOut.across);
		yield of(numbers.up, pathTo('zones', id, 'settingOut', 'up'), settingOut.up);
		yield of(numbers.pattern, pathTo('zones', id, 'pattern'), zone.pattern);
		yield of(numbers.layer, pathTo('zones', id, 'layer'), zone.layer);
		for (const [k, rule] of zone.rules.entries())
			yield of(numbers.rule(k), pathTo('zones', id, 'rules', rule.id), rule);
		yield of(numbers.exceptions, pathTo('zones', id, 'exceptions'), zone.exceptions);
		for (const [k, run] of zone.runs.entries())
			yield of(numbers.run(k), pathTo('zones', id, 'runs', run.id), run);
		for (const [k, placing] of zone.nodes.entries())
			yield of(numbers.nodes(k), pathTo('zones', id, 'nodes', placing.id), placing);
	}
}

/** The keys under which clauses name things of each list. */
const keys = {
	variants: ['variant'],
	masses: ['mass'],
	zones: ['of', 'from', 'to', 'zone'],
	levels: ['level', 'above', 'below'],
	guides: ['guide']
} as const;

/** Whether a text names something by a field or formula that is measured from it. */
const measuredFrom: Partial<Record<keyof typeof keys, (text: string, id: string) => boolean>> = {
	guides: (text, id) => guidesIn([text], [{ id }]).length > 0,
	levels: (text, id) => text.includes(`level.${nameInFormulas(id)}`)
};

/** The clauses that name something of a list: by its id, or by a field that is measured from it. */
export function usersOf(document: Project, list: keyof typeof keys, id: string): User[] {
	const named = keys[list].map((key) => `"${key}":${JSON.stringify(id)}`);
	return [...clausesOf(document)].flatMap(({ name, path, said }) => {
		const text = JSON.stringify(said);
		const uses = named.some((one) => text.includes(one)) || measuredFrom[list]?.(text, id);
		return uses ? { name, path } : [];
	});
}
