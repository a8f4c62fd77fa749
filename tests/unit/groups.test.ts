import { expect } from 'chai';
import fc from '../property';
import { applyEdits } from '../../src/core/project/commands';
import type { Project } from '../../src/core/project/schema';
import {
	groupOf,
	membersOf,
	newGroup,
	outOfGroup,
	putInGroup,
	type Grouped
} from '../../src/lib/edits/groups';
import { count, projectOf, sheet } from '../faces';

/** Some masses and zones that have names alone in common. */
function many(number: number): Project {
	const project = projectOf(sheet(6000, 4000), count(2, 2));
	const ids = Array.from({ length: number }, (_, k) => `one-${k}`);
	const masses = ids.map((id) => ({ ...project.masses[0]!, id, name: id }));
	const zones = ids.map((id, k) => ({ ...project.zones[0]!, id, code: `Z${k}`, name: id, faces: [] }));
	return { ...project, masses, zones };
}

/** How often members of each group follow one of another or of none. */
function runsOf(document: Project, list: Grouped): Map<string, number> {
	const runs = new Map<string, number>();
	let last: string | undefined;
	for (const { id } of document[list]) {
		const group = groupOf(document, list, id)?.id;
		if (group && group !== last) runs.set(group, (runs.get(group) ?? 0) + 1);
		last = group;
	}
	return runs;
}

const step = fc.record({
	does: fc.constantFrom('new', 'put', 'out'),
	list: fc.constantFrom<Grouped>('masses', 'zones'),
	one: fc.nat(6),
	group: fc.nat(3)
});

describe('groups of masses and zones', () => {
	it('a member is in one at most, members stand together, nothing is lost, and undo brings back what was', () => {
		fc.assert(
			fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
				let document = many(7);
				for (const { does, list, one, group } of steps) {
					const id = `one-${one}`;
					const there = document.groups[group % Math.max(1, document.groups.length)];
					const edits =
						does === 'new' || !there
							? newGroup(document, 'Group', { masses: [], zones: [], [list]: [id] }).edits
							: does === 'out'
								? outOfGroup(document, list, id)
								: putInGroup(document, list, id, there);
					const next = applyEdits(document, edits);
					expect(applyEdits(next.project, next.inverse).project).to.deep.equal(document);
					document = next.project;
					for (const of of ['masses', 'zones'] as const) {
						expect(document[of].map((member) => member.id).sort()).to.deep.equal(
							Array.from({ length: 7 }, (_, k) => `one-${k}`)
						);
						const all = document.groups.flatMap((known) => membersOf(document, known)[of]);
						expect(new Set(all).size).to.equal(all.length);
						for (const [known, runs] of runsOf(document, of)) expect([known, runs]).to.deep.equal([known, 1]);
					}
				}
				expect(new Set(document.groups.map(({ name }) => name)).size).to.equal(document.groups.length);
			})
		);
	});

	it('a mass and its zones are one in one step; what is not there any more counts for nothing', () => {
		const document = many(4);
		const { group, edits } = newGroup(document, 'Hall', { masses: ['one-0'], zones: ['one-3', 'one-1'] });
		const made = applyEdits(document, edits).project;
		expect(membersOf(made, made.groups[0]!)).to.deep.equal({ masses: ['one-0'], zones: ['one-1', 'one-3'] });
		expect(made.zones.map(({ id }) => id)).to.deep.equal(['one-0', 'one-1', 'one-3', 'one-2']);
		const without = { ...made, zones: made.zones.filter(({ id }) => id !== 'one-3') };
		expect(membersOf(without, group).zones).to.deep.equal(['one-1']);
	});
});
