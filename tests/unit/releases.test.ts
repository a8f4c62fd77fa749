import Ajv2020 from 'ajv/dist/2020.js';
import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { Chain } from '../../src/core/chain/chain';
import { applyEdits } from '../../src/core/project/commands';
import { readProjectText } from '../../src/core/project/read';
import type { Project } from '../../src/core/project/schema';
import { compareReleased } from '../../src/core/release/compare';
import { releaseFile } from '../../src/core/release/file';
import { releaseFileStructure, type ReleaseFile } from '../../src/core/release/file-schema';
import {
	countReleased,
	releasedPieces,
	releasedTexts,
	type ReleasedPieces
} from '../../src/core/release/pieces';
import { cellsOf } from '../../src/core/schedule/column';
import { makeSchedule } from '../../src/core/schedule/table';
import { count, projectOf, sheet } from '../faces';
import fc from '../property';

const released = async (project: Project) => releasedPieces(await new Chain().run(project));
const walled = (across: number, up: number, rest: object = {}) =>
	projectOf(
		sheet(12_000, 6000),
		count(across, up),
		{ rules: [{ id: 'all', put: { variant: 'pane' } }], ...rest } as never,
		{
			variants: [{ id: 'pane', name: 'Pane', part: 'flat-panel', values: {} }]
		} as never
	);

describe('what a release keeps', () => {
	it('is every piece that is listed, with its mark, its size and its mass', async () => {
		const model = await new Chain().run(
			readProjectText(readFileSync(new URL('../lido.json', import.meta.url), 'utf8'))
		);
		const pieces = releasedPieces(model);
		for (const list of ['panels', 'bars', 'louvers'] as const) {
			const schedule = makeSchedule(model, list);
			const own = pieces.texts.list.flatMap((one, k) => (one === list ? [k] : []));
			const told = (key: string) => cellsOf(schedule.column(key)!);
			expect(own.map((k) => pieces.texts.mark[k]!).sort()).to.deep.equal(told('mark').map(String).sort());
			const sum = (values: readonly (number | string | null)[]) =>
				values.reduce<number>((a, b) => a + Number(b), 0);
			expect(sum(own.map((k) => pieces.numbers.mass[k]!))).to.be.closeTo(sum(told('mass')), 1e-3);
			if (list === 'panels')
				expect(sum(own.map((k) => pieces.numbers.area[k]!))).to.be.closeTo(sum(told('area')), 1);
			if (list === 'bars')
				expect(sum(own.map((k) => pieces.numbers.length[k]!))).to.be.closeTo(sum(told('length')), 1e-2);
		}
		for (const values of Object.values(pieces.numbers)) expect(values.length).to.equal(countReleased(pieces));
		for (const values of Object.values(pieces.numbers))
			expect(values.every((one) => one === null || Number.isFinite(one))).to.equal(true);
	});

	it('is the same once it has been through JSON', async () => {
		const pieces = await released(walled(8, 4));
		const read = JSON.parse(JSON.stringify(pieces)) as ReleasedPieces;
		expect(compareReleased(pieces, read)).to.deep.equal({ same: 32, differences: [] });
	});
});

describe('the release file', () => {
	it('is what its structure in docs/ says, read by ajv, with every piece and the points that rebuild its corners', async () => {
		const kept = JSON.parse(
			readFileSync(new URL('../../docs/release.schema.json', import.meta.url), 'utf8')
		) as object;
		expect(kept, 'run npm run docs:schema').to.deep.equal(JSON.parse(JSON.stringify(releaseFileStructure())));
		const ajv = new Ajv2020({
			strict: false,
			formats: {
				uuid: /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/,
				'date-time': /^\d{4}-\d\d-\d\dT[\d:.]+Z$/
			}
		});
		const check = ajv.compile(kept);
		const model = await new Chain().run(
			readProjectText(readFileSync(new URL('../lido.json', import.meta.url), 'utf8'))
		);
		const { id, name } = model.project;
		const head = { project: { id, name }, number: 1, at: '2026-11-29T10:00:00.000Z', note: '' };
		const file = JSON.parse(JSON.stringify(releaseFile(head, releasedPieces(model)))) as ReleaseFile;
		expect(check(file), JSON.stringify(check.errors?.slice(0, 2))).to.equal(true);
		expect(check({ ...file, pieces: [{ ...file.pieces[0], mass: '3' }] })).to.equal(false);
		const anchors = makeSchedule(model, 'anchors');
		const [x, y, z] = ['x', 'y', 'z'].map((key) => cellsOf(anchors.column(key)!)) as [
			number[],
			number[],
			number[]
		];
		const points = file.pieces.flatMap((piece) => piece.anchors);
		expect(points.length).to.equal(anchors.rows);
		const sum = (values: readonly number[]) => values.reduce((a, b) => a + Math.abs(b), 0);
		for (const [axis, values] of [x, y, z].entries())
			expect(sum(points.map((point) => point[axis]!))).to.be.closeTo(sum(values), 1e-6 * points.length);
	});
});

describe('releases compared', () => {
	it('a course more: those above are added, the others are lower and stand elsewhere, nothing is removed', async () => {
		const [before, after] = [await released(walled(8, 4)), await released(walled(8, 5))];
		const { same, differences } = compareReleased(before, after);
		expect(same).to.equal(0);
		expect(differences.filter((one) => one.is === 'added').map((one) => one.mark)).to.deep.equal(
			Array.from({ length: 8 }, (_, k) => `Z-C05-B0${k + 1}`)
		);
		const changed = differences.filter((one) => one.is === 'changed');
		expect(changed.length).to.equal(32);
		for (const one of changed) expect(one.what).to.include.members(['size', 'mass', 'place']);
		expect(changed[0]!.told).to.match(/short side 1\s?500 mm → 1\s?200 mm/);
		// And back: what was added is removed.
		expect(compareReleased(after, before).differences.filter((one) => one.is === 'removed').length).to.equal(
			8
		);
	});

	it('another part, another material, another mark: each is told as what it is', async () => {
		const plain = walled(4, 2);
		const before = await released(plain);
		const whatOf = async (project: Project) => [
			...new Set(compareReleased(before, await released(project)).differences.flatMap(({ what }) => what))
		];
		const [variant] = plain.variants;
		const other = (values: object, rest: object = {}) =>
			({ ...plain, variants: [{ ...variant!, values, ...rest }] }) as Project;
		expect(await whatOf(other({}, { part: 'framed-glass' }))).to.include.members([
			'part',
			'material',
			'mass'
		]);
		expect(await whatOf(other({ sheet: 'glass' }))).to.have.members(['mass', 'material']);
		expect(await whatOf(other({}, { name: 'Board' }))).to.deep.equal(['variant']);
		expect(
			await whatOf({ ...plain, zones: plain.zones.map((zone) => ({ ...zone, code: 'Q' })) })
		).to.deep.equal(['mark']);
	});

	it('kinds that are counted anew are no change of the pieces', async () => {
		const before = await released(walled(4, 2));
		const renamed = {
			...before,
			texts: { ...before.texts, kind: before.texts.kind.map((one) => `${one}0`) }
		};
		expect(compareReleased(before, renamed).differences).to.deep.equal([]);
	});

	it('whatever bays and courses: all pieces of both sides are told once', async () => {
		const size = fc.integer({ min: 1, max: 7 });
		await fc.assert(
			fc.asyncProperty(size, size, size, size, async (a, b, c, d) => {
				const [before, after] = [await released(walled(a, b)), await released(walled(c, d))];
				const { same, differences } = compareReleased(before, after);
				const many = (is: string) => differences.filter((one) => one.is === is).length;
				expect(same + many('changed') + many('added')).to.equal(c * d);
				expect(same + many('changed') + many('removed')).to.equal(a * b);
				expect(many('added')).to.equal(c * d - Math.min(a, c) * Math.min(b, d));
			}),
			{ numRuns: 20 }
		);
	});

	it('an edit that is taken back leaves nothing that differs', async () => {
		const project = walled(5, 3);
		const before = await released(project);
		const edit = { do: 'set' as const, path: 'zones/z/settingOut/joint', value: 20 };
		const { project: edited, inverse } = applyEdits(project, [edit]);
		expect(compareReleased(before, await released(edited)).differences.length).to.equal(15);
		expect(
			compareReleased(before, await released(applyEdits(edited, inverse).project)).differences
		).to.deep.equal([]);
	});

	it('keeps every text that it names', async () => {
		const { texts } = await released(walled(2, 1));
		expect(Object.keys(texts)).to.deep.equal([...releasedTexts]);
		expect(texts.address[0]).to.match(/^z\//);
	});
});
