import { expect } from 'chai';
import Module from 'manifold-3d';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import type { ZoneModel } from '../../src/core/cladding/model';
import { joinedTubes } from '../../src/core/geometry/solid/joined-tubes';
import { loadSolids } from '../../src/core/geometry/solid/library';
import { dot, unit, type Vector } from '../../src/core/geometry/vector';
import { placesOf, trianglesOf } from '../../src/core/part/places';
import type { Form } from '../../src/core/project/form-schema';
import type { Project, ZoneInput } from '../../src/core/project/schema';
import { flagSentence } from '../../src/core/units/flag';
import { count, projectOf, sheet } from '../faces';
import { teller } from '../teller';
import { volumeWithin } from '../trial-run';

async function library() {
	const loaded = await Module();
	loaded.setup();
	return loaded;
}

const variants = [
	{ id: 'tell', name: 'Tell', part: 'teller', values: {} },
	{ id: 'upright', name: 'Upright', part: 'box-mullion', values: { width: 60, depth: 150, back: 0 } },
	{ id: 'level', name: 'Level', part: 'box-mullion', values: { width: 50, depth: 100, back: 0 } },
	{ id: 'tube', name: 'Tube', part: 'tube-edge', values: { diameter: 80, back: 30 } },
	{ id: 'cast', name: 'Cast', part: 'cast-node', values: {} },
	{ id: 'ball', name: 'Ball', part: 'node-ball', values: { takes_bars: true, diameter: 10 } },
	{ id: 'plate', name: 'Plate', part: 'node-plate', values: { reach: 5 } }
];
const nodes = (variant: string): ZoneInput['nodes'] => [{ id: 'n', variant }];
const bothWays: ZoneInput['runs'] = [
	{ id: 'up', lines: ['bay'], variant: 'upright' },
	{ id: 'across', lines: ['course'], variant: 'level' }
];

const withParts = (
	zone: Partial<ZoneInput>,
	form: Form = sheet(7000, 6000),
	grid = count(6, 5)
): Project => ({
	...projectOf(form, grid, zone, { variants }),
	parts: [teller]
});

async function zoneOf(...given: Parameters<typeof withParts>): Promise<ZoneModel> {
	const model = await new Chain().run(withParts(...given));
	expect(model.problems).to.deep.equal([]);
	return model.zones[0]!.model!;
}

const measured = ({ groups }: ZoneModel, lines: number, name: string): number[] =>
	groups
		.filter(({ group }) => group.over === 'node' && group.corners === lines)
		.flatMap(({ group }) => [...group.run.results.get(name)!]);

const dome: Form = { kind: 'dome', at: [0, 0], foot: 0, radii: [6000, 6000, 6000], cut: 0 };

describe('parts on nodes know the bars that meet there', () => {
	before(loadSolids);

	it('their sizes and where their middles lie, of each line that has one', async () => {
		const zone = await zoneOf({ runs: bothWays, nodes: nodes('tell') });
		const inner = (name: string) =>
			new Set(measured(zone, 4, name).map((one) => Math.round(1e4 * one) / 1e4));
		expect([...inner('widest')]).to.deep.equal([60]);
		expect([...inner('narrowest')]).to.deep.equal([50]);
		expect([...inner('all_widths')]).to.deep.equal([2 * 60 + 2 * 50]);
		expect([...inner('deepest')]).to.deep.equal([150]);
		expect([...inner('shallowest')]).to.deep.equal([100]);
		// A box mullion stands behind its line.
		expect([...inner('outermost')]).to.deep.equal([-50]);
		expect([...inner('innermost')]).to.deep.equal([-75]);
		expect([...inner('longest')]).to.deep.equal([1200]);
		// Of corners of the wall both lines are rims, and no clause puts bars there.
		expect(measured(zone, 2, 'widest')).to.deep.equal([0, 0, 0, 0]);
	});

	it('where no bar stands is nothing, and its middle that of the others', async () => {
		const zone = await zoneOf({ runs: bothWays.slice(0, 1), nodes: nodes('tell') });
		const inner = (name: string) =>
			new Set(measured(zone, 4, name).map((one) => Math.round(1e4 * one) / 1e4));
		for (const [name, value] of [
			['widest', 60],
			['narrowest', 0],
			['shallowest', 0],
			['all_widths', 120],
			['outermost', -75],
			['innermost', -75]
		] as const)
			expect([name, ...inner(name)]).to.deep.equal([name, value]);
	});

	it('a change of a bar changes what stands at its ends, and nothing else does', async () => {
		const project = withParts({ runs: bothWays, nodes: nodes('tell') });
		const chain = new Chain();
		await chain.run(project);
		const wider = project.variants.map((one) =>
			one.id === 'upright' ? { ...one, values: { ...one.values, width: 90 } } : one
		);
		const after = await chain.run({ ...project, variants: wider });
		const again = await new Chain().run({ ...project, variants: wider });
		for (const model of [after, again])
			expect(Math.max(...measured(model.zones[0]!.model!, 4, 'widest'))).to.be.closeTo(90, 1e-3);
		const ball = wider.map((one) => (one.id === 'tell' ? { ...one, values: {} } : one));
		const kept = await chain.run({ ...project, variants: [...ball, { ...ball[0]!, id: 'other' }] });
		const serials = ({ groups }: ZoneModel) => groups.map(({ serial }) => serial);
		expect(serials(kept.zones[0]!.model!)).to.deep.equal(serials(after.zones[0]!.model!));
	});

	it('a ball as large as its bars need: their width over the sine of half the angle between them', async () => {
		const runs: ZoneInput['runs'] = [{ id: 'a', lines: ['bay', 'course', 'rim'], variant: 'upright' }];
		const zone = await zoneOf({ runs, nodes: nodes('ball') });
		for (const one of measured(zone, 4, 'needed_diameter')) expect(one).to.be.closeTo(60 * Math.SQRT2, 1e-3);
		for (const { group } of zone.groups)
			if (group.over === 'node' && group.corners === 4)
				for (const volume of group.run.elements[0]!.volume)
					expect(volume).to.be.closeTo((Math.PI / 6) * (60 * Math.SQRT2) ** 3, 10);
	});

	it('a plate whose arms would run into each other is held to where they do not: half the width for a right angle', async () => {
		const runs: ZoneInput['runs'] = [{ id: 'a', lines: ['bay', 'course', 'rim'], variant: 'upright' }];
		const zone = await zoneOf({ runs, nodes: nodes('plate') });
		for (const { group } of zone.groups) {
			if (group.over !== 'node' || group.corners !== 4) continue;
			const [arm] = measured(zone, 4, 'arm_length');
			expect(arm).to.be.closeTo((1.001 * (60 + 20)) / 2 + 1, 1e-3);
			// The square in its middle, what the arms go on beyond it, and the corners between them.
			const beyond = arm! - 40;
			const area = 80 * 80 + 4 * 80 * beyond + 2 * beyond * beyond;
			for (const found of group.run.results.get('face_area')!) expect(found).to.be.closeTo(area, 1);
			expect(group.flags.of(0).map(flagSentence).join()).to.contain('run into each other');
		}
	});

	it('castings at the nodes of a dome are closed, as large as they say, and take every tube', async () => {
		const { Manifold, Mesh } = await library();
		const runs: ZoneInput['runs'] = [
			{ id: 'a', lines: ['bay', 'course', 'diagonal', 'rim'], variant: 'tube' }
		];
		const zone = await zoneOf(
			{ runs, nodes: nodes('cast'), pattern: { kind: 'triangles', diagonal: 'rising' } },
			dome,
			count(8, 4)
		);
		let made = 0;
		for (const { group } of zone.groups) {
			if (group.over !== 'node' || group.corners > 12) continue;
			for (const table of group.run.elements)
				for (let n = 0; n < table.count; n++) {
					const corners = placesOf(table.shape, n).slice();
					const triangles = Uint32Array.from(trianglesOf(table.shape, n));
					const solid = Manifold.ofMesh(
						new Mesh({ numProp: 3, vertProperties: corners, triVerts: triangles })
					);
					expect([solid.status(), solid.genus()]).to.deep.equal(['NoError', 0]);
					expect(solid.volume()).to.be.closeTo(table.volume[n]!, 1e-4 * table.volume[n]!);
					solid.delete();
					made++;
				}
			for (const size of group.run.results.get('largest_arm')!) expect(size).to.be.closeTo(80 + 16, 2);
		}
		expect(made).to.be.above(20);
	});
});

/** Directions that are apart by an angle at least. */
const apart = (least: number) =>
	fc
		.array(fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -1, max: 1, noNaN: true }))), {
			minLength: 2,
			maxLength: 6
		})
		.map((all) => {
			const ways: Vector[] = [];
			for (const one of all as unknown as Vector[]) {
				if (Math.hypot(...one) < 0.1) continue;
				const way = unit(one);
				if (ways.every((other) => dot(way, other) < Math.cos(least))) ways.push(way);
			}
			return ways;
		})
		.filter((ways) => ways.length > 0);

describe('joined tubes', () => {
	before(loadSolids);

	it('two that go on straight are one: the volume of a cylinder', () => {
		const { vertices, triangles } = joinedTubes({
			ways: [
				[0, 0, 1],
				[0, 0, -1]
			],
			radii: [30, 30],
			reach: 200,
			fillet: 0
		});
		expect(volumeWithin(vertices, triangles) / (Math.PI * 30 ** 2 * 400)).to.be.closeTo(1, 0.01);
	});

	it('square to each other, three have the volume of their union (by manifold-3d), and more with a fillet', async () => {
		const { Manifold } = await library();
		const ways: Vector[] = [
			[1, 0, 0],
			[0, 1, 0],
			[0, 0, 1]
		];
		const tube = Manifold.cylinder(200, 30, 30, 128);
		const union = tube
			.add(tube.rotate([-90, 0, 0]))
			.add(tube.rotate([0, 90, 0]))
			.add(Manifold.sphere(30, 128));
		const volumes = [0, 20, 60].map((fillet) => {
			const { vertices, triangles } = joinedTubes({ ways, radii: [30, 30, 30], reach: 200, fillet });
			return volumeWithin(vertices, triangles);
		});
		expect(volumes[0]! / union.volume()).to.be.closeTo(1, 0.01);
		expect(volumes[1]!).to.be.above(1.02 * volumes[0]!);
		expect(volumes[2]!).to.be.above(1.1 * volumes[1]!);
	});

	it('any ways that are apart: closed, a ball in topology, flat at the ends, with room for every tube', async () => {
		const { Manifold, Mesh } = await library();
		fc.assert(
			fc.property(apart(0.7), fc.integer({ min: 0, max: 40 }), (ways, fillet) => {
				const radius = 30;
				const reach = 1.01 * ((radius + fillet) / Math.tan(0.35));
				const { vertices, triangles } = joinedTubes({ ways, radii: ways.map(() => radius), reach, fillet });
				const solid = Manifold.ofMesh(
					new Mesh({ numProp: 3, vertProperties: Float32Array.from(vertices), triVerts: triangles })
				);
				expect([solid.status(), solid.genus()]).to.deep.equal(['NoError', 0]);
				for (const way of ways) {
					const section: number[] = [];
					for (let k = 0; k < vertices.length; k += 3) {
						const at: Vector = [vertices[k]!, vertices[k + 1]!, vertices[k + 2]!];
						const along = dot(at, way);
						const aside = Math.sqrt(Math.max(0, dot(at, at) - along * along));
						if (aside < 1.3 * radius) expect(along).to.be.below(reach + 0.01);
						if (Math.abs(along - reach) < 0.01 && aside > 1 && aside < 2 * radius) section.push(aside);
					}
					expect(section.length).to.be.at.least(16);
					for (const one of section) expect(one).to.be.within(radius, 1.08 * radius + 0.1 * fillet);
				}
				solid.delete();
			}),
			{ numRuns: 40 }
		);
	});
});
