import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import { unitHeat, zoneHeat } from '../../src/core/heat/pieces';
import { unitTransmittance } from '../../src/core/heat/unit';
import { measuresFor } from '../../src/core/limit/measures';
import { shippedParts } from '../../src/core/part/kit';
import { heatSchema } from '../../src/core/project/heat-schema';
import { cellsOf } from '../../src/core/schedule/column';
import { makeSchedule } from '../../src/core/schedule/table';
import { count, projectOf, sheet } from '../faces';

const heat = heatSchema.parse({});

describe('Heat and light of units', () => {
	it('the worked case: glass 1.35 × 2.85 m at 1.1, frame the rest of 1.5 × 3 m at 2.2, 8.4 m of edge at 0.08', () => {
		// EN ISO 12631's component method, formula from memory; the number is computed by hand.
		const glass = 1.35 * 2.85;
		const u = unitTransmittance(
			[
				{ area: glass, u: 1.1 },
				{ area: 1.5 * 3 - glass, u: 2.2 }
			],
			8.4,
			0.08
		);
		expect(u).to.be.closeTo(1.40883, 5e-6);
	});

	it('a framed unit of a model has what that sum says of its glass, its frame and the edge of its pane', async () => {
		const project = projectOf(
			sheet(6000, 6000),
			count(4, 2),
			{ rules: [{ id: 'r', put: { variant: 'unit', values: {} } }] },
			{ variants: [{ id: 'unit', name: 'unit', part: 'framed-glass', values: {} }] }
		);
		const model = await new Chain().run(project);
		const zone = model.zones[0]!.model!;
		const { group } = zone.groups[0]!;
		const { u, glassShare, g } = unitHeat(zone.faces[0]!, group, heat);
		const { columns } = makeSchedule(model, 'elements');
		const column = (key: string) => cellsOf(columns.find((one) => one.key === key)!);
		const pane = column('material').indexOf('Glass');
		const glass = Number(column('area')[pane]) / 1e6;
		// The pane is its cell, 1.5 by 3 m, less as much on every side: w from (1.5 - 2w)(3 - 2w) = glass.
		const w = (9 - Math.sqrt(81 - 16 * (4.5 - glass))) / 8;
		const edge = 2 * (1.5 - 2 * w + 3 - 2 * w);
		const wanted = unitTransmittance(
			[
				{ area: glass, u: 1.1 },
				{ area: 4.5 - glass, u: 2.2 }
			],
			edge,
			0.08
		);
		for (const one of u) expect(one).to.be.closeTo(wanted, 1e-4);
		for (const one of glassShare) expect(one).to.be.closeTo(glass / 4.5, 1e-6);
		for (const one of g) expect(one).to.be.closeTo((0.5 * glass) / 4.5, 1e-6);
		const all = zoneHeat(zone, heat)!;
		expect(all.u).to.be.closeTo(wanted, 1e-4);
		expect(all.area / 1e6).to.be.closeTo(36, 1e-6);
		const measure = measuresFor(shippedParts, project).find(({ id }) => id === 'unit.u')!;
		const read = measure.read(zone.faces[0]!, group, { than: 'most', bound: 0 }, () => true);
		expect([...read]).to.deep.equal([...u]);
	});

	it('a zone is the mean of its units by area; materials of the project count in the place of those that ship', async () => {
		const project = projectOf(
			sheet(6000, 3000),
			{
				across: { by: 'list', sizes: [1000, 2000, 3000], run: 'once', start: 'left' },
				up: { by: 'count', count: 1 }
			},
			{ rules: [{ id: 'r', put: { variant: 'pane', values: {} } }] },
			{ variants: [{ id: 'pane', name: 'pane', part: 'framed-glass', values: {} }] }
		);
		const zone = (await new Chain().run(project)).zones[0]!.model!;
		const own = heatSchema.parse({ spacer: 0.05, materials: [{ id: 'glass', u: 0.7, g: 0.3 }] });
		let [sum, area] = [0, 0];
		for (const { group } of zone.groups) {
			const { u } = unitHeat(zone.faces[0]!, group, own);
			group.sites.forEach((cell, row) => {
				const size = zone.faces[0]!.measures.area[cell]!;
				sum += size * u[row]!;
				area += size;
				expect(u[row]).to.be.within(0.7, 2.2);
			});
		}
		const all = zoneHeat(zone, own)!;
		expect(all.u).to.be.closeTo(sum / area, 1e-12);
		expect(all.g).to.be.closeTo(0.3 * all.glassShare, 1e-12);
		expect(all.u).to.be.below(zoneHeat(zone, heat)!.u);
	});
});
