import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import type { Model } from '../../src/core/cladding/model';
import { applyEdits } from '../../src/core/project/commands';
import type { Limit } from '../../src/core/project/limit-schema';
import type { Project } from '../../src/core/project/schema';
import { formatQuantity } from '../../src/core/units/quantity';
import { fixesFor } from '../../src/lib/edits/fixes';
import { count, projectOf, sheet } from '../faces';
import fc from '../property';

const limit = (more: Partial<Limit>): Limit => ({
	id: 'own',
	of: 'cell.area',
	than: 'most',
	bound: 1e6,
	material: null,
	part: null,
	zone: null,
	muted: false,
	source: '',
	...more
});
const unit = { id: 'unit', name: 'Unit', part: 'framed-glass', values: { pane: 24 } };
const rules = [{ id: 'all', put: { variant: 'unit', values: {} } }];
const wall = (limits: Limit[], settingOut: Parameters<typeof projectOf>[1] = count(4, 2)): Project =>
	projectOf(sheet(8000, 3000), settingOut, { rules }, { variants: [unit], limits });

const beyond = ({ zones }: Model): number =>
	zones[0]!.model!.groups.reduce(
		(sum, { group: { flags } }) =>
			sum +
			[...flags.rows()].filter((row) =>
				flags.of(row).some(({ code, subject }) => code === 'limit.beyond' && subject === 'own')
			).length,
		0
	);

describe('what might bring pieces inside a limit', () => {
	it('finer steps do, whatever the bound: either way alone, or both; none is finer than it has to be by much', async () => {
		await fc.assert(
			fc.asyncProperty(fc.double({ min: 0.2, max: 2.9, noNaN: true }), async (squareMetres) => {
				const own = limit({ bound: squareMetres * 1e6 });
				const project = wall([own]);
				const before = await new Chain().run(project);
				expect(beyond(before)).to.equal(8);
				const fixes = fixesFor(project, project.zones[0]!, own, 'area', 3 / squareMetres, [], 'mm');
				expect(fixes).to.have.length(3);
				for (const { edits } of fixes) {
					const made = await new Chain().run(applyEdits(project, edits).project);
					expect(beyond(made)).to.equal(0);
					// By the ratio, and then a whole step more each way.
					const { cells } = made.zones[0]!.model!.faces[0]!;
					expect(cells.count).to.be.lessThan((8 * 3 * 1.02) / squareMetres + 8 + 8);
				}
			}),
			{ numRuns: 12 }
		);
	});

	it('too small cells are made larger; sizes are stepped in whole centimetres; steps listed by hand are left alone', () => {
		const least = limit({ of: 'cell.area', than: 'least', bound: 6e6 });
		const coarser = fixesFor(wall([least]), wall([least]).zones[0]!, least, 'area', 2, [], 'mm');
		expect(coarser.map(({ label }) => label)[0]).to.equal('1 bay in the place of 4');
		const sizes = {
			across: { by: 'at most' as const, size: 2000 },
			up: { by: 'list' as const, sizes: [1000, 2000], run: 'repeated' as const, start: 'foot' as const }
		};
		const project = wall([limit({})], sizes);
		const fixes = fixesFor(project, project.zones[0]!, limit({}), 'area', 1.5, [], 'mm');
		expect(fixes.map(({ label }) => label)).to.deep.equal([
			`bays of ${formatQuantity(1300, 'length')} in the place of ${formatQuantity(2000, 'length')}`
		]);
	});

	it('warp asks for flat cells, mass for thinner plates within what the part takes', () => {
		const warp = limit({ of: 'plate.warp', bound: 10 });
		const project = wall([warp]);
		const [zone] = project.zones as [Project['zones'][number]];
		expect(fixesFor(project, zone, warp, 'length', 4, [], 'mm').at(-1)!.label).to.match(/^triangles/);
		const mass = limit({ of: 'piece.mass', bound: 100 });
		const thinner = fixesFor(project, zone, mass, 'mass', 1.5, project.variants, 'mm').at(-1)!;
		expect(thinner.label).to.match(/thickness of Unit 15 mm in the place of 24 mm/);
		expect(applyEdits(project, thinner.edits).project.variants[0]!.values['pane']).to.equal(15);
	});

	it('cells that are warped too far are split by a rule before the others, of the material that is limited', async () => {
		const warp = limit({ of: 'plate.warp', bound: 10, material: 'glass' });
		// z = c xy: cells of 1 m by 1 m with 2 m over 8 m by 8 m are warped by 2000 / 64 / 2 mm each.
		const saddle = {
			kind: 'ruled',
			foot: {
				points: [
					[0, 0, 0],
					[8000, 0, 0]
				],
				joins: 'line',
				closed: false
			},
			head: {
				points: [
					[0, 8000, 0],
					[8000, 8000, 2000]
				],
				joins: 'line',
				closed: false
			}
		} as Parameters<typeof projectOf>[0];
		const pane = { id: 'pane', name: 'Pane', part: 'flat-panel', values: { sheet: 'glass' } };
		const put = [{ id: 'all', put: { variant: 'pane', values: {} } }];
		const project = projectOf(saddle, count(8, 8), { rules: put }, { variants: [pane], limits: [warp] });
		expect(beyond(await new Chain().run(project))).to.equal(64);
		const fixes = fixesFor(project, project.zones[0]!, warp, 'length', 1.6, [], 'mm');
		const { edits } = fixes.find(({ label }) => label.includes('split into two'))!;
		const made = await new Chain().run(applyEdits(project, edits).project);
		// The rule that had them is told that none is left for it.
		expect(made.problems.every(({ remark }) => remark)).to.equal(true);
		expect(beyond(made)).to.equal(0);
		const [group] = made.zones[0]!.model!.groups;
		expect(group!.group.ready.part.id).to.equal('split-panel');
		expect(group!.group.sites.length).to.equal(64);
		expect(group!.group.ready.materials.every(({ id }) => id === 'glass')).to.equal(true);
	});
});
