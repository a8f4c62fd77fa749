import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { Cancelled, Chain } from '../../src/core/chain/chain';
import { quickestZone } from '../../src/core/chain/quickest-zone';
import { readProjectText } from '../../src/core/project/read';

const demo = readProjectText(readFileSync(new URL('../../demo/tidal-lido.json', import.meta.url), 'utf8'));
const lido = readProjectText(readFileSync(new URL('../lido.json', import.meta.url), 'utf8'));

/** Which zones have cells, each time cells are told of; the last time all do. */
async function told(project: typeof demo): Promise<string[][]> {
	const standing: string[][] = [];
	const run = new Chain().run(project, {
		cells: ({ zones }) => {
			standing.push(zones.filter(({ model }) => model?.faces.length).map(({ id }) => id));
			// Their pieces are not waited for.
			if (standing.length === 3) throw new Cancelled();
		}
	});
	await run.catch((error: unknown) => expect(error).to.be.instanceOf(Cancelled));
	return standing;
}

describe('the zone that stands soonest', () => {
	it('is told of first, then the first of the document, then all: trims, lofts and scattered cells come later', async () => {
		const [one, two, all] = await told(demo);
		const { masses, zones } = demo;
		const soon = zones[quickestZone(demo)]!;
		const under = masses.find(({ id }) => id === soon.faces[0]!.mass)!;
		expect([under.form.kind, under.trims.length, soon.pattern.kind]).to.deep.equal([
			'ruled',
			0,
			'rectangles'
		]);
		expect(one).to.deep.equal([soon.id]);
		expect(two).to.have.members([soon.id, zones[0]!.id]);
		expect(all).to.have.members((await told({ ...demo, zones: [...zones].reverse() })).at(-1)!);
	});
	it('is the first of the document among those that are alike, and one on faces before those behind it', () => {
		const on = (...ids: string[]) => ({
			...lido,
			zones: ids.map((id) => ({ ...lido.zones.find((zone) => zone.faces.length > 0)!, id }))
		});
		expect(quickestZone(on('a', 'b', 'c'))).to.equal(0);
		const behind = demo.zones.filter(({ on: { is } }) => is !== 'faces');
		expect(behind.length).to.be.greaterThan(2);
		const street = demo.zones.find(({ id }) => id === 'street')!;
		expect(quickestZone({ ...demo, zones: [...behind, street] })).to.equal(behind.length);
		// Where no zone is on faces, or none is left, there is nothing to choose.
		expect(quickestZone({ ...demo, zones: behind })).to.equal(0);
		expect(quickestZone({ ...demo, zones: [] })).to.equal(0);
	});
});
