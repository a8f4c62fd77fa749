import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { Cancelled, Chain } from '../../src/core/chain/chain';
import type { Model } from '../../src/core/cladding/model';
import { compilePart } from '../../src/core/part/compile/compile';
import { shippedParts } from '../../src/core/part/kit';
import { RowTimes } from '../../src/core/part/threads/row-times';
import { SideThreads } from '../../src/core/part/threads/side-threads';
import { Files } from '../../src/core/project/files';
import { readProjectText } from '../../src/core/project/read';
import { sideBySide } from '../../src/core/units/side-by-side';
import { count, projectOf, sheet } from '../faces';
import fc from '../property';
import { contentOf, difference } from '../same-model';
import { turn } from '../../src/core/units/turn';
import { sideLine, sideThreads } from '../side-line';

const lido = readProjectText(readFileSync(new URL('../lido.json', import.meta.url), 'utf8'));

/** Eighty rows of eighty cells are seven chunks. */
const wall = (width: number, cells = 80) =>
	projectOf(
		sheet(80_000, 80_000),
		count(cells, cells),
		{ rules: [{ id: 'all', put: { variant: 'p', values: {} } }] },
		{ variants: [{ id: 'p', name: 'p', part: 'framed-glass', values: { frame_width: width } }] }
	);

const atHome = async (project: typeof lido) => contentOf(await new Chain().run(project));

describe('threads at the side', () => {
	it('give what one thread gives, bit for bit, whatever is on the zones', async () => {
		for (const project of [lido, wall(50)])
			for (const most of [1, 3]) {
				const made = await new Chain(new Files(), 0, sideThreads(most)).run(project);
				expect(difference(contentOf(made), await atHome(project))).to.equal(null);
			}
	}).timeout(60_000);

	it('do most of the work, learn a program once, and share the triangles that pieces share', async () => {
		const line = sideLine();
		const chain = new Chain(new Files(), 0, new SideThreads(1, () => [line], turn, 0));
		const first = await chain.run(wall(50));
		const again = await chain.run(wall(60));
		const said = (what: string) => line.sent.filter(({ say }) => say === what).length;
		expect(said('program')).to.equal(1);
		expect(said('run')).to.be.greaterThan(4);
		const lists = ({ zones }: Model) =>
			new Set(
				zones[0]!.model!.groups.flatMap(({ group }) =>
					group.run.elements.map(({ shape }) => (shape.is === 'made' ? shape.triangles : null))
				)
			);
		const atHome = lists(await new Chain().run(wall(50)));
		for (const made of [first, again]) expect(lists(made)).to.deep.equal(atHome);
	});

	it('lose nothing when a thread ends in the middle, or cannot do what it is told', async () => {
		const wanted = await atHome(wall(50));
		const dying = sideLine();
		let answers = 0;
		dying.pass = (message) => {
			if (message.say === 'made' && ++answers === 2) {
				setImmediate(() => dying.die());
				return null;
			}
			return message;
		};
		const failing = sideLine();
		failing.pass = (message) => (message.say === 'made' ? { say: 'failed', work: message.work } : message);
		for (const lines of [[dying], [failing], [sideLine(), failing]]) {
			const threads = new SideThreads(lines.length, () => lines, turn, 0);
			const made = await new Chain(new Files(), 0, threads).run(wall(50));
			expect(difference(contentOf(made), wanted)).to.equal(null);
		}
		expect(answers).to.equal(2);
	});

	it('that are ended in the middle leave what they were at to be done here', async () => {
		const line = sideLine();
		const threads = new SideThreads(1, () => [line], turn, 0);
		let answers = 0;
		// The last of a run is still under way when this thread has nothing else to do.
		line.pass = (message) => {
			if (message.say !== 'made' || ++answers < 3) return message;
			setImmediate(() => threads.end());
			return null;
		};
		const made = await new Chain(new Files(), 0, threads).run(wall(50));
		expect(answers).to.be.greaterThan(2);
		expect(difference(contentOf(made), await atHome(wall(50)))).to.equal(null);
	});

	it('are not bothered with what is packed nearly as soon as it is made', async () => {
		const line = sideLine();
		const chain = new Chain(new Files(), 0, new SideThreads(1, () => [line], turn, Infinity));
		for (const width of [50, 60]) await chain.run(wall(width));
		// What packing takes is known once.
		expect(line.sent.filter(({ say }) => say === 'run').length).to.be.at.most(2);
	});

	it('go on being sent what takes long to make, though the first took long to pack as well', () => {
		const program = compilePart(shippedParts[0]!, 4, shippedParts);
		const times = new RowTimes(5);
		const work = { program, count: 100 };
		expect(times.isWorthSending(program)).to.equal(false);
		times.wasMade(work, 50);
		// With the first columns are reckoned that the others only read.
		times.wasPacked(work, 900);
		expect(times.isWorthSending(program)).to.equal(true);
		times.wasPacked(work, 1);
		// One that is held up by something else counts little; many that take long do.
		times.wasPacked(work, 400);
		expect(times.isWorthSending(program)).to.equal(true);
		for (let k = 0; k < 20; k++) times.wasPacked(work, 20);
		expect(times.isWorthSending(program)).to.equal(false);
		for (let k = 0; k < 3; k++) times.wasPacked(work, 1);
		expect(times.isWorthSending(program)).to.equal(true);
	});

	it('are not started for a single work', async () => {
		let opened = 0;
		const threads = new SideThreads(2, () => (opened++, [sideLine(), sideLine()]), turn, 0);
		const made = await new Chain(new Files(), 0, threads).run(wall(50, 9));
		expect(made.zones[0]!.model!.groups).to.have.length(1);
		expect(opened).to.equal(0);
	});

	it('a run that is given up is over when it is told so, and the next one gives the whole model', async () => {
		const chain = new Chain(new Files(), 0, sideThreads(1));
		let steps = 0;
		const step = () => {
			if (++steps === 5) throw new Cancelled();
		};
		const fault = await chain.run(wall(50), { step }).catch((error: unknown) => error);
		expect(fault).to.be.instanceOf(Cancelled);
		const whole = await chain.run(wall(50));
		expect(difference(contentOf(whole), await atHome(wall(50)))).to.equal(null);
	});
});

describe('things done side by side', () => {
	it('come in their order, no more of them at a time than was said, and fail with the first that fails', async () => {
		await fc.assert(
			fc.asyncProperty(
				fc.array(fc.record({ waits: fc.nat(5), fails: fc.boolean() }), { maxLength: 20 }),
				fc.integer({ min: 1, max: 6 }),
				async (things, abreast) => {
					let [under, most] = [0, 0];
					const begun = new Set<number>();
					const act = async ({ waits, fails }: (typeof things)[number], k: number) => {
						begun.add(k);
						most = Math.max(most, ++under);
						for (let n = 0; n < waits; n++) await turn();
						under--;
						if (fails) throw new Error(String(k));
						return 10 * k;
					};
					const end = await sideBySide(abreast, things, act).catch((error: Error) => error);
					expect(under).to.equal(0);
					expect(most).to.be.at.most(abreast);
					const failing = things.findIndex(({ fails }) => fails);
					if (failing < 0) expect(end).to.deep.equal(things.map((_, k) => 10 * k));
					else {
						expect((end as Error).message).to.equal(String(failing));
						expect([...begun]).to.include.members(things.slice(0, failing).map((_, k) => k));
					}
				}
			)
		);
	});
});
