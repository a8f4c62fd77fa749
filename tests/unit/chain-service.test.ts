import { expect } from 'chai';
import type { Project } from '../../src/core/project/schema';
import { chainService } from '../../src/lib/worker/chain-service';
import type { Made } from '../../src/core/part/element-table';
import type { GroupView, ModelMessage } from '../../src/lib/worker/views';
import { Chain } from '../../src/core/chain/chain';
import { cellKinds } from '../../src/core/pattern/cells';
import { practiceProject } from '../../src/lib/worker/practice';
import { count, projectOf, sheet } from '../faces';

const variants = [{ id: 'glass', name: 'Glass', part: 'framed-glass', values: {} }];
const rules = [{ id: 'all', put: { variant: 'glass', values: {} } }];
const wall = (across: number, up: number): Project =>
	projectOf(sheet(across * 1200, up * 1000), count(across, up), { rules } as never, { variants });
const nothing = () => undefined;
const serialsOf = ({ zones }: ModelMessage) =>
	zones.flatMap(({ faces }) => faces.map(({ serial }) => serial));

describe('the chain in its thread', () => {
	beforeEach(() => chainService.begin(0));

	it('practises on all that stands between a document and its first cells, and leaves nothing of it', async () => {
		const { zones, problems } = await new Chain().run(practiceProject());
		expect(problems).to.deep.equal([]);
		const [face] = zones[0]!.model!.faces;
		expect(face!.layer).to.not.equal(null);
		const kinds = new Set([...face!.cells.kind].map((kind) => cellKinds[kind]));
		expect([...kinds].sort(), 'cells within, at the ends and at the trim').to.deep.equal([
			'cut',
			'edge',
			'whole'
		]);
		await chainService.practise();
		const message = (await chainService.run(wall(2, 2), nothing, null))!;
		expect(message.zones.map(({ id }) => id)).to.deep.equal(['z']);
	});

	it('ends a run when its first cells have been taken: what comes last counts on them', async () => {
		const took: ModelMessage[] = [];
		let ended = false;
		let letGo: () => void = nothing;
		const run = chainService
			.run(wall(6, 4), nothing, (message) => {
				took.push(message);
				return new Promise((resolve) => (letGo = resolve));
			})
			.then((message) => {
				ended = true;
				return message!;
			});
		await new Promise((resolve) => setTimeout(resolve, 300));
		expect(took.length).to.equal(1);
		expect(ended, 'while the page has not taken them').to.equal(false);
		letGo();
		const message = await run;
		expect(took[0]!.partial).to.equal(true);
		expect(message.partial).to.equal(false);
		// The face is told once, by the first message.
		expect('unchanged' in took[0]!.zones[0]!.faces[0]!).to.equal(false);
		expect('unchanged' in message.zones[0]!.faces[0]!).to.equal(true);
		expect(serialsOf(message)).to.deep.equal(serialsOf(took[0]!));
	});

	/** Every column of a message that is worth sharing. */
	function columnsOf(value: unknown): (Float64Array | Uint8Array)[] {
		if (typeof value !== 'object' || value === null) return [];
		if (ArrayBuffer.isView(value)) return value.byteLength < 1024 ? [] : [value as Uint8Array];
		if (value instanceof Map) return [...value.values()].flatMap(columnsOf);
		return Object.values(value).flatMap(columnsOf);
	}

	it('sends all of a model by shared memory where a page allows it, the same to the last bit', async () => {
		const copied = (await chainService.run(wall(40, 25), nothing, null))!;
		chainService.begin(0);
		Object.assign(globalThis, { crossOriginIsolated: true });
		try {
			const shared = (await chainService.run(wall(40, 25), nothing, null))!;
			expect({ ...shared, ms: null, total: 0 }).to.deep.equal({ ...copied, ms: null, total: 0 });
			const columns = columnsOf(shared);
			expect(columns.length, 'cells, lines, places, pieces').to.be.above(30);
			for (const column of columns) expect(column.buffer).to.be.instanceOf(SharedArrayBuffer);
			for (const column of columnsOf(copied)) expect(column.buffer).to.be.instanceOf(ArrayBuffer);
			// What the other side gets is the same memory.
			const [group] = shared.zones[0]!.groups as GroupView[];
			const { positions } = group!.elements[0]!.shape as Made;
			const sent = structuredClone(positions);
			positions[0] = 42;
			expect(sent[0]).to.equal(42);
		} finally {
			Reflect.deleteProperty(globalThis, 'crossOriginIsolated');
		}
	});

	it('a project of one zone tells how far it is and is given up midway; the model before stands, and goes on', async () => {
		// However fast the machine is, it tells at every step.
		chainService.begin(0, 0);
		const before = await chainService.run(wall(6, 4), nothing, null);
		expect(before!.zones[0]!.groups.length).to.be.above(0);
		const shares: number[] = [];
		const given = await chainService.run(
			wall(150, 120),
			(what, done, of) => {
				shares.push(done / of);
				if (what.startsWith('Cladding') && done % 1 > 0) chainService.cancel();
			},
			null
		);
		expect(given).to.equal(null);
		// Within the cladding of its one zone, which is the second half.
		expect(shares.at(-1)!).to.be.above(0.5).and.below(1);
		expect(chainService.schedule('panels', []).rows).to.equal(24);
		const after = await chainService.run(wall(150, 120), nothing, null);
		expect(after!.zones[0]!.behind).to.equal(false);
		expect(chainService.schedule('panels', []).rows).to.equal(150 * 120);
	});
});
