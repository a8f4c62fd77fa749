import { expect } from 'chai';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { applyEdits } from '../../src/core/project/commands';
import type { Edit } from '../../src/core/project/edits';
import { CommandError, DocumentError } from '../../src/core/project/faults';
import { valueAt } from '../../src/core/project/paths';
import { readProject, readProjectText } from '../../src/core/project/read';

const demo = readProjectText(readFileSync(new URL('../../demo/tidal-lido.json', import.meta.url), 'utf8'));

describe('project document', () => {
	it('faults are sentences with their path; unknown keys are refused', () => {
		const faults = (value: unknown): string => {
			try {
				readProject(value);
			} catch (error) {
				expect(error).to.be.instanceOf(DocumentError);
				return (error as DocumentError).message;
			}
			return '';
		};
		expect(faults([])).to.match(/JSON object/);
		expect(faults({})).to.match(/format/);
		expect(faults({ ...demo, version: 7 })).to.match(/version: 7 is not known/);
		expect(faults({ ...demo, colour: 1 })).to.match(/colour: this key is not known/);
		expect(faults({ ...demo, zones: [{ ...demo.zones[0], code: 'gr' }] })).to.match(
			/zones\/0\/code: a code is/
		);
		expect(faults({ ...demo, masses: [demo.masses[0], demo.masses[0]] })).to.match(/"gull" is used twice/);
		expect(
			faults({ ...demo, masses: [{ ...demo.masses[2], form: { kind: 'revolved', turn: 'all' } }] })
		).to.match(/masses\/0\/form/);
		expect(() => readProjectText('{')).to.throw(DocumentError, 'not JSON');
	});
});

describe('commands', () => {
	const path = 'zones/gull/settingOut/across/count';

	it('a command and its inverse give the same document back', () => {
		const edits: fc.Arbitrary<Edit> = fc.oneof(
			fc.integer({ min: 1, max: 90 }).map((value): Edit => ({ do: 'set', path, value })),
			fc.integer({ min: 0, max: 2 }).map((index): Edit => ({ do: 'move', path: 'zones/street', index })),
			fc.integer({ min: 0, max: 3 }).map((index): Edit => ({
				do: 'insert',
				path: 'variants',
				index,
				value: { id: 'extra', name: 'x', part: 'framed-glass', values: {} }
			})),
			fc
				.constantFrom('zones/plunge/runs/lines', 'masses/drum', 'masses/drum/form/profile/points/1')
				.map((at): Edit => ({ do: 'remove', path: at }))
		);
		fc.assert(
			fc.property(edits, (edit) => {
				const { project, inverse } = applyEdits(demo, [edit]);
				expect(applyEdits(project, inverse).project).to.deep.equal(demo);
			})
		);
	});

	it('several edits are taken back in the opposite order', () => {
		const { project, inverse } = applyEdits(demo, [
			{ do: 'set', path, value: 40 },
			{ do: 'remove', path: 'zones/gull/rules/whole' },
			{ do: 'move', path: 'zones/gull', index: 2 }
		]);
		expect(valueAt(project, path)).to.equal(40);
		expect(project.zones.map((zone) => zone.id)).to.deep.equal(['street', 'plunge', 'gull', 'shaft']);
		expect(applyEdits(project, inverse).project).to.deep.equal(demo);
	});

	it('what is not there (any more), or would break the document, is refused', () => {
		const refuse = (edit: Edit, error: typeof CommandError | typeof DocumentError, sentence: RegExp) =>
			expect(() => applyEdits(demo, [edit])).to.throw(error, sentence);
		refuse({ do: 'set', path: 'zones/gone/name', value: 'x' }, CommandError, /"gone" is not there/);
		refuse({ do: 'remove', path: 'name' }, CommandError, /members of a list/);
		refuse({ do: 'set', path, value: 'many' }, DocumentError, /count/);
		refuse({ do: 'insert', path: 'zones', index: 9, value: {} }, CommandError, /past the end/);
	});
});
