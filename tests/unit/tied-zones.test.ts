import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import type { Model } from '../../src/core/cladding/model';
import type { Project } from '../../src/core/project/schema';
import { tiesFor } from '../../src/lib/edits/ties';
import { count, projectOf, sheet } from '../faces';

/** Three zones on a wall each; the second and third are set out as others, by their ids. */
function tied(second: string | null, third: string | null, across = 5): Project {
	const project = projectOf(sheet(9000, 6000), count(across, 3));
	const [zone] = project.zones;
	const own = count(2, 2);
	const other = (id: string, setOutAs: string | null) => ({
		...zone!,
		id,
		code: id.toUpperCase(),
		name: id,
		settingOut: { ...zone!.settingOut, ...own },
		setOutAs
	});
	return { ...project, zones: [zone!, other('b', second), other('c', third)] };
}
const cells = ({ zones }: Model) => zones.map(({ model }) => model!.faces[0]!.cells.count);

describe('zones that are set out as others', () => {
	it('have their steps, over several too, and follow a change that is made once', async () => {
		const chain = new Chain();
		expect(cells(await chain.run(tied('z', 'b')))).to.deep.equal([15, 15, 15]);
		expect(cells(await chain.run(tied('z', 'b', 7)))).to.deep.equal([21, 21, 21]);
		expect(cells(await chain.run(tied(null, 'b', 7)))).to.deep.equal([21, 4, 4]);
	});

	it('the document keeps what each says of itself', async () => {
		const { project } = await new Chain().run(tied('z', 'b'));
		expect(project.zones.map(({ settingOut }) => settingOut.across)).to.deep.equal([
			{ by: 'count', count: 5 },
			{ by: 'count', count: 2 },
			{ by: 'count', count: 2 }
		]);
	});

	it('that are set out as each other, or as one that is gone, have their own, and it is said', async () => {
		const round = await new Chain().run(tied('c', 'b'));
		expect(cells(round)).to.deep.equal([15, 4, 4]);
		expect(round.problems.map(({ at, text }) => [at, text])).to.deep.equal([
			['zones/b/setOutAs', 'b and c are set out as each other; give one of them its own'],
			['zones/c/setOutAs', 'c and b are set out as each other; give one of them its own']
		]);
		const gone = await new Chain().run(tied('roof', null));
		expect(cells(gone)).to.deep.equal([15, 4, 4]);
		expect(gone.problems[0]!.text).to.equal('the zone "roof" that b is set out as is not there any more');
	});

	it('are offered none that would lead back to themselves', () => {
		const project = tied('z', 'b');
		const offered = project.zones.map((zone) => tiesFor(project, zone).map(({ id }) => id));
		expect(offered).to.deep.equal([[], ['z'], ['z', 'b']]);
	});
});
