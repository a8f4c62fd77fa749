import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import type { Model } from '../../src/core/cladding/model';
import { bookOf } from '../../src/core/drawing/book';
import type { Page } from '../../src/core/drawing/drawing';
import { KeptViews } from '../../src/core/drawing/kept-views';
import { dimensionLine } from '../../src/core/drawing/own-dimension';
import type { OwnSheet } from '../../src/core/project/own-sheet-schema';
import type { Project } from '../../src/core/project/schema';
import fc from '../property';
import { count, projectOf, sheet } from '../faces';

const DAY = '2026-11-30';
const [BAYS, COURSES, SIZE] = [8, 4, 1500];
const wall = (wide = BAYS * SIZE): Project =>
	projectOf(
		sheet(wide, COURSES * SIZE),
		count(BAYS, COURSES),
		{ rules: [{ id: 'r', put: { variant: 'pane' } }] },
		{ variants: [{ id: 'pane', name: 'Pane', part: 'flat-panel', values: {} }] }
	);
const south = (id: string, scale: number, at: [number, number]): OwnSheet['views'][number] => ({
	id,
	of: { shows: 'elevation', from: 'south', zone: null },
	scale,
	at
});
const with_ = (project: Project, own: Partial<OwnSheet>): Project => ({
	...project,
	drawings: {
		...project.drawings,
		sheets: [{ id: 'own', title: 'By hand', views: [], dimensions: [], written: [], ...own }]
	}
});
const ownOf = (model: Model, kept?: KeptViews) =>
	bookOf(model, DAY, undefined, kept).find(({ group }) => group === 'own')!;
const textsOf = (page: Page, layer: string) =>
	page.inked.flatMap((one) => (one.layer === layer ? one.texts.map(({ text }) => text) : []));
const dimension = (from: string, to: string, way: 'along' | 'across' | 'up' = 'along', off = 8) => ({
	id: `${from} ${to}`,
	view: 'v',
	from: `z/${from}`,
	to: `z/${to}`,
	way,
	off
});
/** The address of a node of the wall. */
const addressOf = (model: Model) => model.zones[0]!.model!.faces[0]!.address;
const run = (project: Project) => new Chain().run(project);

describe('sheets whose views are placed by hand', () => {
	it('a view lies where it is put, at its scale, and says both', async () => {
		const model = await run(with_(wall(), { views: [south('v', 100, [200, 150])] }));
		const own = ownOf(model);
		expect(own.number).to.equal('L-01');
		const [view] = own.layout!().views;
		const half = [(BAYS * SIZE) / 200, (COURSES * SIZE) / 200] as const;
		const box = [200 - half[0], 150 - half[1], 200 + half[0], 150 + half[1]];
		view!.box.forEach((value, k) => expect(value).to.be.closeTo(box[k]!, 0.2));
		expect(view!.fault).to.equal(null);
		const [page] = own.draw();
		expect(textsOf(page!, 'text').some((text) => text.endsWith('from the south · 1 : 100'))).to.equal(true);
		expect(textsOf(page!, 'text')).to.include('Scale 1 : 100');
	});

	it('a view that is larger than its sheet is told with the scale at which it has room; at that scale it has', async () => {
		const told = ownOf(await run(with_(wall(), { views: [south('v', 10, [200, 150])] }))).layout!().views[0]!;
		const scale = Number(told.fault!.match(/at 1 : (\d+) it has room/)![1]);
		const smaller = ownOf(await run(with_(wall(), { views: [south('v', scale, [210, 165])] })));
		expect(smaller.layout!().views[0]!.fault).to.equal(null);
		const aside = ownOf(await run(with_(wall(), { views: [south('v', 100, [40, 150])] })));
		expect(aside.layout!().views[0]!.fault).to.equal('it reaches past the sheet');
	});

	it('a dimension follows its points: a wider wall has a longer one, and one whose node is gone is told', async () => {
		const face = addressOf(await run(wall()));
		const dimensions = [
			dimension(`${face}/N/C01/B01`, `${face}/N/C01/B03`),
			dimension(`${face}/N/C01/B01`, `${face}/N/C05/B09`, 'across'),
			dimension(`${face}/N/C01/B01`, `${face}/N/C05/B09`, 'up'),
			dimension(`${face}/N/C01/B01`, `${face}/N/C04/B05`),
			dimension(`${face}/N/C01/B01`, `${face}/N/C99/B01`)
		];
		const told = async (wide: number) => {
			const views = [south('v', 200, [200, 150])];
			const own = ownOf(await run(with_(wall(wide), { views, dimensions })));
			return { texts: textsOf(own.draw()[0]!, 'dimensions'), lost: own.layout!().lost };
		};
		const narrow = await told(BAYS * SIZE);
		expect(narrow.texts).to.deep.equal(['3000', '12000', '6000', '7500']);
		expect(narrow.lost).to.deep.equal([dimensions[4]!.id]);
		expect((await told(BAYS * 2000)).texts).to.deep.equal([
			'4000',
			'16000',
			'6000',
			Math.hypot(8000, 4500).toFixed(0)
		]);
	});

	it('points to hang dimensions on lie on the view: each node of the wall once, at its place', async () => {
		const model = await run(with_(wall(), { views: [south('v', 50, [210, 160])] }));
		const points = ownOf(model).layout!().points('v');
		expect(points.length).to.equal((BAYS + 1) * (COURSES + 1));
		const at = (name: string) => points.find(({ address }) => address.endsWith(`/N/${name}`))!.at;
		const [a, b] = [at('C01/B01'), at('C05/B09')];
		expect(b[0] - a[0]).to.be.closeTo((BAYS * SIZE) / 50, 1e-6);
		expect(b[1] - a[1]).to.be.closeTo((COURSES * SIZE) / 50, 1e-6);
	});

	it('every kind of view is drawn; of one whose zone is gone it is said what is missing', async () => {
		const model = await run(wall());
		const zone = model.zones[0]!.id;
		const of = [
			{ shows: 'elevation', from: 'above', zone },
			{ shows: 'picture', from: 'south-west', zone: null },
			{ shows: 'section', section: 's' },
			{ shows: 'unrolled', zone, face: 1 },
			{ shows: 'unrolled', zone, face: 7 },
			{ shows: 'elevation', from: 'south', zone: 'gone' }
		] as const;
		const views = of.map((one, k) => ({
			id: `v${k}`,
			of: one,
			scale: 200,
			at: [100 + 40 * k, 150] as [number, number]
		}));
		const project = with_(wall(), { views });
		const sections = [{ id: 's', looking: 'north' as const, at: 0 }];
		const own = ownOf(await run({ ...project, drawings: { ...project.drawings, sections } }));
		expect(own.layout!().views.map(({ fault }) => fault)).to.deep.equal([
			null,
			null,
			null,
			null,
			`${model.zones[0]!.model!.zone.name} has no face 7 with cells`,
			'there is no zone gone any more'
		]);
		expect(own.draw()[0]!.inked.length).to.be.greaterThan(3);
	});

	it('views that are added one by one have room: none covers another, none reaches past the sheet', async () => {
		const project = wall();
		let views: OwnSheet['views'] = [];
		for (let k = 0; k < 4; k++) {
			const own = ownOf(await run(with_(project, { views })));
			const place = own.layout!().placeFor({ shows: 'elevation', from: 'south', zone: null });
			views = [...views, { id: `v${k}`, of: { shows: 'elevation', from: 'south', zone: null }, ...place }];
		}
		// The first was given all of the sheet: it is made as small as the others.
		views = views.map((view) => ({ ...view, scale: views[1]!.scale }));
		const laid = ownOf(await run(with_(project, { views }))).layout!().views;
		expect(laid.map(({ fault }) => fault)).to.deep.equal([null, null, null, null]);
		laid.slice(1).forEach(({ box }, k) =>
			laid.slice(1, k + 1).forEach(({ box: other }) => {
				const apart = box[0] >= other[2] || other[0] >= box[2] || box[1] >= other[3] || other[1] >= box[3];
				expect(apart).to.equal(true);
			})
		);
	});

	it('a view that is moved is not drawn anew; one of another model is', async () => {
		const chain = new Chain();
		const kept = new KeptViews();
		const first = with_(wall(), { views: [south('v', 100, [200, 150])] });
		const drawn = new Set<unknown>();
		const shownOf = async (project: Project) => {
			// As a document comes that was sent from another thread.
			const model = await chain.run(structuredClone(project));
			const { of } = project.drawings.sheets[0]!.views[0]!;
			ownOf(model, kept).draw();
			const shown = kept.get(model, null, of, () => {
				throw new Error('it is not kept');
			});
			drawn.add(shown.drawnAt(1 / 100));
		};
		await shownOf(first);
		const moved = { ...first.drawings.sheets[0]!, views: [south('v', 100, [150, 120])] };
		await shownOf({ ...first, drawings: { ...first.drawings, sheets: [moved] } });
		expect(drawn.size).to.equal(1);
		await shownOf(with_(wall(9000), { views: [south('v', 100, [200, 150])] }));
		expect(drawn.size).to.equal(2);
	});

	it('lines of dimensions are as long as what they measure, and as far off as is said (property)', () => {
		const place = fc.tuple(fc.integer({ min: -300, max: 300 }), fc.integer({ min: -300, max: 300 }));
		fc.assert(
			fc.property(place, place, fc.integer({ min: -40, max: 40 }), (a, b, off) => {
				fc.pre(Math.hypot(b[0] - a[0], b[1] - a[1]) > 1);
				const wanted = {
					along: Math.hypot(b[0] - a[0], b[1] - a[1]),
					across: Math.abs(b[0] - a[0]),
					up: Math.abs(b[1] - a[1])
				};
				for (const way of ['along', 'across', 'up'] as const) {
					const { from, to } = dimensionLine(a, b, way, off);
					expect(Math.hypot(to[0] - from[0], to[1] - from[1])).to.be.closeTo(wanted[way], 1e-9);
					expect(Math.hypot(from[0] - a[0], from[1] - a[1])).to.be.closeTo(Math.abs(off), 1e-9);
				}
			})
		);
	});
});
