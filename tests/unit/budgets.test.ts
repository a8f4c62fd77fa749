import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import { scheduleCsv } from '../../src/core/exchange/csv/write';
import { BandedSystem, solveCyclic } from '../../src/core/geometry/banded';
import { DocumentError } from '../../src/core/project/faults';
import { readProject } from '../../src/core/project/read';
import type { Form } from '../../src/core/project/form-schema';
import type { PartInputForm } from '../../src/core/project/part-definition';
import type { ZoneInput } from '../../src/core/project/schema';
import { makeSchedule } from '../../src/core/schedule/table';
import { checkFormula } from '../../src/core/units/formula/check';
import { FormulaError } from '../../src/core/units/formula/expression';
import { checkTile } from '../../src/core/pattern/check-tile';
import { evaluateCurve } from '../../src/core/geometry/curve';
import { bezierChain, chainCurve } from '../../src/core/geometry/path';
import { count, projectOf, revolved, sheet } from '../faces';

/** What ran for minutes, or took the memory of the machine, comes to a sentence or a model at once. */
describe('budgets', () => {
	const ring = { kind: 'ring', corners: 4 } as const;
	const plate = {
		steps: [{ name: 'sheet', do: 'plate', ring: 'cell', thickness: '5 mm', side: 'in' }],
		elements: [{ name: 's', label: 'S', category: 'plate', of: ['sheet'], material: 'steel' }]
	} as Pick<PartInputForm, 'steps' | 'elements'>;
	const part = (id: string, rest: Partial<PartInputForm>): PartInputForm =>
		({
			id,
			label: id,
			role: 'panel',
			use: '',
			anchor: ring,
			inputs: [],
			limits: [],
			steps: [],
			elements: [],
			measures: [],
			...rest
		}) as PartInputForm;

	async function problemsOf(form: Form, zone: Partial<ZoneInput> = {}, rest = {}): Promise<string> {
		const settingOut = zone.settingOut ?? count(3, 2);
		const model = await new Chain().run(projectOf(form, settingOut, zone as object, rest));
		return model.problems.map(({ at, text }) => `${at}: ${text}`).join('\n');
	}
	const clad = (parts: PartInputForm[]) =>
		problemsOf(
			sheet(3000, 2000),
			{ rules: [{ id: 'all', put: { variant: 'v' } }] },
			{ parts, variants: [{ id: 'v', name: 'V', part: parts[0]!.id, values: {} }] }
		);
	const within = (depth: number, wrap: (inner: typeof plate, k: number) => typeof plate): typeof plate => {
		let group = plate;
		for (let k = 0; k < depth; k++) group = wrap(group, k);
		return group;
	};

	it('repeats within repeats are flagged on the piece, which stands as its plain cell', async () => {
		const steps = within(4, (inner, k) => ({
			steps: [{ name: `r${k}`, do: 'repeat', times: '1000', index: `k${k}`, ...inner }],
			elements: []
		}));
		const definition = part('deep', steps);
		const project = projectOf(
			sheet(3000, 2000),
			count(3, 2),
			{ rules: [{ id: 'all', put: { variant: 'v', values: {} } }] } as object,
			{ parts: [definition], variants: [{ id: 'v', name: 'V', part: 'deep', values: {} }] } as object
		);
		const model = await new Chain().run(project);
		expect(model.problems).to.deep.equal([]);
		const { group } = model.zones[0]!.model!.groups[0]!;
		expect([...group.run.flags].every((bits) => bits !== 0)).to.equal(true);
		expect(scheduleCsv(makeSchedule(model, 'panels').columns)).to.match(
			/would repeat more than 2000 times, or 20000 in all/
		);
	});

	it('small rings within small rings, and parts doubled twenty times, are refused with the number', async () => {
		const rings = within(4, (inner, k) => ({
			steps: [
				{
					name: `e${k}`,
					do: 'each',
					over: 'small rings',
					of: k === 3 ? 'cell' : 'small',
					across: 20,
					up: 20,
					...inner
				}
			],
			elements: []
		}));
		expect(await clad([part('rings', rings)])).to.match(/comes to more than 250000 operations/);
		const doubled = Array.from({ length: 21 }, (_, k) =>
			k === 20
				? part('p20', plate)
				: part(`p${k}`, {
						steps: ['a', 'b'].map((name) => ({
							name,
							do: 'part',
							part: `p${k + 1}`,
							on: ['cell'],
							values: {}
						}))
					} as Partial<PartInputForm>)
		);
		expect(await clad(doubled)).to.match(/made of more than 5000 elements/);
	});

	it('tiles of thousands of polygons, and places beyond all bounds, are refused; hundreds are looked through', () => {
		const tile = (many: number, x = 0) => ({
			id: 't',
			name: 'T',
			across: many,
			up: 1,
			polygons: Array.from({ length: many }, (_, k) => ({
				slot: `s${k}`,
				points: [
					[k + x, 0],
					[k + 1, 0],
					[k + 1, 1],
					[k, 1]
				]
			}))
		});
		const read = (tiles: unknown) => () =>
			readProject({ format: 'zygaster project', version: 4, name: 'T', tiles: [tiles] });
		expect(read(tile(3000))).to.throw(DocumentError, /at most 300 polygons/);
		expect(read(tile(2, 1e308))).to.throw(
			DocumentError,
			/a number from −1\s000\s000 to 1\s000\s000 is accepted/
		);
		expect(checkTile(tile(300) as Parameters<typeof checkTile>[0])).to.deep.equal([]);
	}).timeout(20_000);

	it('formulas are as long and as deep as a person writes', () => {
		const scope = { names: {}, functions: {} };
		for (const text of [
			'9'.repeat(1_000_000),
			`1${' + 1'.repeat(100_000)}`,
			`${'('.repeat(900)}1${')'.repeat(900)}`,
			`${'-'.repeat(1500)}1`
		])
			expect(() => checkFormula(text, scope)).to.throw(FormulaError, /at most/);
		expect(checkFormula(`1${' + 1'.repeat(400)}`, scope).kind).to.equal('arithmetic');
	});

	it('curves are followed no finer than anything is cut', async () => {
		const trim = {
			id: 'o',
			by: 'map',
			face: 'wall',
			outline: { shape: 'circle', radius: 500 },
			at: [0, 1000],
			within: 0.001
		};
		const mass = { id: 'm', name: 'Mass', form: sheet(3000, 2000), trims: [trim] };
		expect(await problemsOf(sheet(3000, 2000), {}, { masses: [mass] })).to.match(
			/trims\/o\/within: .*0.001 mm; 0.1 mm or more is accepted/
		);
	});

	it('a smooth profile of 20,000 points is a mass; more are refused', async () => {
		const points = Array.from({ length: 20_000 }, (_, k): [number, number] => [
			4000 + 300 * Math.sin(k / 50),
			k
		]);
		expect(await problemsOf(revolved(points, 'smooth'))).to.equal('');
		expect(() => projectOf(revolved([...points, [0, 20_001]], 'smooth'), count(3, 2))).to.throw(
			DocumentError,
			/points/
		);
	}).timeout(20_000);

	it('a net of 500 by 500 points is a mass', async () => {
		const rows = Array.from({ length: 500 }, (_, j) =>
			Array.from(
				{ length: 500 },
				(_, i) => [i * 100, 20 * Math.sin(i / 9) * Math.cos(j / 7), j * 100] as [number, number, number]
			)
		);
		const form: Form = { kind: 'net', rows, degrees: [3, 3], points: 'through' };
		expect(await problemsOf(form)).to.equal('');
	}).timeout(30_000);

	it('an empty loop of an imported face bounds nothing', async () => {
		const form = {
			kind: 'imported',
			source: 'x.stp',
			scale: 1,
			up: 'z',
			at: [0, 0, 0],
			refused: [],
			faces: [
				{
					name: 'f',
					degrees: [1, 1],
					knotsU: [0, 0, 1, 1],
					knotsV: [0, 0, 1, 1],
					net: [0, 0, 0, 1, 6000, 0, 0, 1, 0, 0, 4000, 1, 6000, 0, 4000, 1],
					ends: [[], [[0, 0, 0]]],
					deviation: null
				}
			]
		} as Form;
		expect(await problemsOf(form)).to.equal('');
	});

	it('the same face twice in a zone is told', async () => {
		const faces = [
			{ mass: 'm', face: 'wall' },
			{ mass: 'm', face: 'wall' }
		];
		expect(await problemsOf(sheet(3000, 2000), { faces })).to.match(/"wall" of "m" is in the zone twice/);
	});

	it('a schedule of 10,000 cells with blades is written', async () => {
		const project = projectOf(
			sheet(100_000, 300_000),
			count(100, 100),
			{ rules: [{ id: 'all', put: { variant: 'v', values: {} } }] } as object,
			{ variants: [{ id: 'v', name: 'V', part: 'blade-stack', values: {} }] } as object
		);
		const model = await new Chain().run(project);
		expect(makeSchedule(model, 'blades').rows).to.be.greaterThan(43_000);
	}).timeout(30_000);
});

describe('banded systems', () => {
	it('a tridiagonal one that goes round, against the product with its own matrix', () => {
		const n = 9;
		const rows = Array.from({ length: n }, (_, k) => ({
			before: 1 + (k % 3),
			own: 9 + k,
			after: 2 - (k % 2)
		}));
		const wanted = rows.map((_, k) => [Math.sin(k), k * k]);
		const right = rows.map(({ before, own, after }, k) =>
			[0, 1].map(
				(d) => before * wanted[(k + n - 1) % n]![d]! + own * wanted[k]![d]! + after * wanted[(k + 1) % n]![d]!
			)
		);
		solveCyclic(rows, right).forEach((value, k) =>
			value.forEach((x, d) => expect(x).to.be.closeTo(wanted[k]![d]!, 1e-12))
		);
		const none = new BandedSystem(2, 1);
		none.set(0, 0, 0);
		expect(() => none.solve([[1], [1]])).to.throw(RangeError);
	});

	it('the closed spline through points of a circle passes through them and follows it', () => {
		const points = Array.from({ length: 13 }, (_, k): [number, number, number] => {
			const angle = ((k % 12) * Math.PI) / 6;
			return [1000 * Math.cos(angle), 1000 * Math.sin(angle), 0];
		});
		const chain = bezierChain(points, new Array<'smooth'>(12).fill('smooth'));
		const { points: found } = evaluateCurve(
			chainCurve(chain),
			Array.from({ length: 97 }, (_, k) => k / 96)
		);
		for (let k = 0; k < 97; k++)
			expect(Math.hypot(found[3 * k]!, found[3 * k + 1]!)).to.be.closeTo(1000, 1.5);
	});
});
