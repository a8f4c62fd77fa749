import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import type { PieceGroup } from '../../src/core/cladding/pieces';
import { compilePart } from '../../src/core/part/compile/compile';
import { shippedParts } from '../../src/core/part/kit';
import type { ZoneInput } from '../../src/core/project/schema';
import { flagTexts } from '../../src/core/schedule/pieces';
import { count, projectOf, sheet } from '../faces';

const blades = { id: 'blades', name: 'Blades', part: 'blade-stack', values: {} };
const glass = { id: 'glass', name: 'Glass', part: 'framed-glass', values: {} };

async function groupsOf(
	zone: Partial<Omit<ZoneInput, 'settingOut'>>,
	joint: number,
	width = 4000
): Promise<PieceGroup[]> {
	const project = projectOf(sheet(width, 2000), { ...count(2, 2), joint }, zone, {
		variants: [glass, blades]
	});
	const model = await new Chain().run(project);
	expect(model.problems).to.deep.equal([]);
	return model.zones[0]!.model!.groups.map(({ group }) => group);
}
const texts = (group: PieceGroup) => Array.from(group.sites, (_, row) => flagTexts(group, row).join('; '));

describe('what was done in silence', () => {
	it('a formula that has no usable value for a piece says so on that piece, and nought stands', async () => {
		const values = { angle: '20 deg / (bay - 1)' };
		const [group] = await groupsOf({ rules: [{ id: 'all', put: { variant: 'blades', values } }] }, 0);
		const said = texts(group!);
		expect(said[0]).to.contain('Angle has no usable value here; 0 stands for it');
		expect(said[1]).to.not.contain('usable');
		expect(group!.perPiece.get('angle')![0]).to.equal(0);
		expect(group!.perPiece.get('angle')![1]).to.be.closeTo(Math.PI / 9, 1e-12);
	});

	it('a corner that is too sharp for the joint says so; others do not', async () => {
		const rules = [{ id: 'all', put: { variant: 'glass', values: {} } }];
		const pattern = { kind: 'triangles' as const, diagonal: 'rising' as const };
		const [sharp] = await groupsOf({ rules, pattern }, 12, 12_000);
		expect(texts(sharp!).every((text) => text.includes('the joint is narrower'))).to.equal(true);
		const [wide] = await groupsOf({ rules, pattern }, 12, 2000);
		expect(texts(wide!).join()).to.not.contain('joint');
	});

	it('a solid is ordered once: a second element of it is refused', () => {
		const part = shippedParts.find(({ id }) => id === 'framed-glass')!;
		const [first] = part.elements;
		const twice = { ...part, elements: [...part.elements, { ...first!, name: 'again', label: 'Again' }] };
		expect(() => compilePart(twice, 4)).to.throw(
			/is in the element ".*" already, and would be ordered twice/
		);
	});
});
