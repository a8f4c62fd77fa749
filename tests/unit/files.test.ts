import { expect } from 'chai';
import fc from '../property';
import { createHash } from 'node:crypto';
import { Chain } from '../../src/core/chain/chain';
import { DocumentError } from '../../src/core/project/faults';
import { Files, filesIn, hashOfFile } from '../../src/core/project/files';
import { isInFile } from '../../src/core/project/stored';
import { summarise } from '../../src/core/schedule/summary';
import { projectOf } from '../faces';
import { importedForm } from '../saving/large';

const count = (across: number, up: number) => ({
	across: { by: 'count' as const, count: across },
	up: { by: 'count' as const, count: up }
});
const project = projectOf(
	importedForm(600),
	count(8, 4),
	{},
	{
		variants: [{ id: 'v', name: 'V', part: 'framed-glass', values: {} }]
	}
);

describe('files of large values', () => {
	it('are named by the SHA-256 of their text, as node:crypto has it', () =>
		fc.assert(
			fc.property(fc.string({ unit: 'grapheme' }), (text) => {
				expect(hashOfFile(text)).to.equal(createHash('sha256').update(text).digest('hex'));
			})
		));

	it('what is put into files comes back the same, whatever else is there', () => {
		const thing = fc.oneof(
			fc.integer({ min: 2, max: 40 }).map((n) => importedForm(n, n)),
			fc.record({
				do: fc.constant('block mesh'),
				vertices: fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { maxLength: 2000 }),
				triangles: fc.array(fc.nat(3000), { maxLength: 8000 })
			}),
			fc.jsonValue()
		);
		fc.assert(
			fc.property(fc.dictionary(fc.string(), fc.array(thing)), (value) => {
				const plain = JSON.parse(JSON.stringify(value)) as typeof value;
				const files = new Files();
				const detached = files.detach(plain);
				expect(JSON.stringify(detached).length).to.be.at.most(JSON.stringify(plain).length);
				expect(files.whole(detached)).to.deep.equal(plain);
				// By way of their texts, as another window gets them.
				const elsewhere = new Files();
				for (const hash of filesIn(detached).keys()) elsewhere.take(hash, files.text(hash)!);
				expect(elsewhere.whole(detached)).to.deep.equal(plain);
			}),
			{ numRuns: 60 }
		);
	});

	it('the chain computes the same from a project that names them, and moving it names the same file', async () => {
		const files = new Files();
		const kept = files.detach(project);
		const { faces } = kept.masses[0]!.form as ReturnType<typeof importedForm>;
		expect(isInFile(faces)).to.equal(true);
		expect(JSON.stringify(kept).length).to.be.lessThan(JSON.stringify(project).length / 10);
		const figures = ({ zones }: ReturnType<typeof summarise>) => zones;
		const wanted = figures(summarise(await new Chain().run(project)));
		expect(wanted[0]!.cells.whole).to.equal(32);
		expect(figures(summarise(await new Chain(files).run(kept)))).to.deep.equal(wanted);
		const moved = files.detach({ ...files.wholeProject(kept).masses[0]!.form, at: [100, 0, 0] });
		expect(filesIn(moved)).to.deep.equal(filesIn(kept));
	});

	it('of two states that share a mass, the whole ones share it', () => {
		const files = new Files();
		const kept = files.detach(project);
		const renamed = { ...kept, name: 'Renamed' };
		expect(files.wholeProject(renamed).masses[0]).to.equal(files.wholeProject(kept).masses[0]);
		expect(files.wholeProject(kept)).to.equal(files.wholeProject(kept));
	});

	it('a file that has not come is told at its clause, and the last good model stays; then it is computed', async () => {
		const files = new Files();
		const kept = files.detach(project);
		const other = { ...kept, masses: files.detach([{ ...kept.masses[0]!, form: importedForm(900) }]) };
		const chain = new Chain(files);
		await chain.run(kept);
		const some = new Files();
		for (const hash of filesIn(kept).keys()) some.take(hash, files.text(hash)!);
		const late = new Chain(some);
		const before = (await late.run(kept)).zones[0]!.model;
		const { problems, zones } = await late.run(other);
		expect(problems[0]).to.include({
			at: 'masses/m/form/faces',
			text: 'what was read from bulge.stp has not come from the server yet'
		});
		expect(zones[0]).to.deep.include({ behind: true, model: before });
		for (const hash of filesIn(other).keys()) some.take(hash, files.text(hash)!);
		expect((await late.run(other)).problems).to.deep.equal([]);
	});

	it('what cannot stand there is refused with its place, and a text that is another’s by its name', () => {
		const files = new Files();
		const wrong = importedForm(100);
		(wrong.faces as { net: number[] }[])[0]!.net[7] = Number.POSITIVE_INFINITY;
		expect(() => files.detach(wrong)).to.throw(DocumentError, /faces\/0\/net\/7/);
		expect(() => files.take('0'.repeat(64), '{"faces":[]}')).to.throw(DocumentError, /did not arrive/);
		const text = '{"faces":7}';
		expect(() => files.take(hashOfFile(text), text)).to.throw(DocumentError);
	});
});
