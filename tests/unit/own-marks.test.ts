import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import type { Model } from '../../src/core/cladding/model';
import { MarkError, readPattern } from '../../src/core/mark/pattern';
import { marksOf, marksToFreeze } from '../../src/core/mark/marks-of';
import type { Project } from '../../src/core/project/schema';
import { cellsOf } from '../../src/core/schedule/column';
import { makeSchedule } from '../../src/core/schedule/table';
import { writeGlb } from '../../src/core/exchange/glb/write';
import { anchorsJson } from '../../src/core/exchange/json/write-anchors';
import { count, projectOf, sheet } from '../faces';
import fc from '../property';

const marking = (pattern: string, rest: object = {}) => ({
	pattern,
	along: 'courses' as const,
	from: 'foot' as const,
	side: 'left' as const,
	...rest
});
const variants = [
	{ id: 'v', name: 'One', part: 'flat-panel', values: {} },
	{ id: 'b', name: 'Bar', part: 'box-mullion', values: {} }
];
const levels = [
	{ id: 'low', name: 'Ground', height: 0 },
	{ id: 'high', name: 'Sun deck', height: 1000 }
];

async function wall(marks: object, across = 3, up = 2, rest: Partial<Project> = {}): Promise<Model> {
	const rules = [{ id: 'all', put: { variant: 'v', values: {} } }];
	const runs = [{ id: 'r', lines: ['bay' as const], variant: 'b' }];
	const whole = { cell: null, line: null, node: null, frozen: null, ...marks };
	const project = projectOf(sheet(across * 1000, up * 1000), count(across, up), { rules, runs }, {
		variants,
		levels,
		marks: whole,
		...rest
	} as Partial<Project>);
	return new Chain().run(project);
}
const marksIn = (model: Model, name: 'panels' | 'bars' | 'elements') =>
	cellsOf(makeSchedule(model, name).column('mark')!).map(String);

describe('marks of a pattern of one’s own', () => {
	it('say what is known of a piece; numbers run among those that are alike otherwise, in building order', async () => {
		const by = async (pattern: string, rest: object = {}) =>
			marksIn(await wall({ cell: marking(pattern, rest) }), 'panels');
		const code = (await wall({})).zones[0]!.model!.zone.code;
		expect(await by('(zone)-(number 3)')).to.deep.equal(
			['001', '002', '003', '004', '005', '006'].map((one) => `${code}-${one}`)
		);
		expect(await by('C(course 2)/B(bay 2)')).to.deep.equal([
			'C01/B01',
			'C01/B02',
			'C01/B03',
			'C02/B01',
			'C02/B02',
			'C02/B03'
		]);
		expect(await by('(level) (number)')).to.deep.equal([
			'Ground 1',
			'Ground 2',
			'Ground 3',
			'Sun deck 1',
			'Sun deck 2',
			'Sun deck 3'
		]);
		// Six that are alike: one kind.
		expect(await by('(kind).(number)')).to.deep.equal(['A1.1', 'A1.2', 'A1.3', 'A1.4', 'A1.5', 'A1.6']);
		// Listed in building order as before; from the head and the right they are numbered the other way round.
		expect(await by('(number)', { from: 'head', side: 'right' })).to.deep.equal([
			'6',
			'5',
			'4',
			'3',
			'2',
			'1'
		]);
		expect(await by('(number)', { along: 'bays' })).to.deep.equal(['1', '3', '5', '2', '4', '6']);
		expect(await by('(part)-(variant)-(number 2)')).to.include('Flat panel-One-06');
	});

	it('are written on everything that leaves: elements, anchors, GLB', async () => {
		const model = await wall({ cell: marking('P(number 2)'), line: marking('M(number 2)') });
		const marks = marksIn(model, 'panels');
		expect(marksIn(model, 'elements').filter((mark) => mark.startsWith('P01-'))).to.have.length(1);
		expect(marksIn(model, 'bars')[0]).to.equal('M01');
		const placed = JSON.parse(anchorsJson(model)) as { pieces: { mark: string }[] };
		expect(placed.pieces.map(({ mark }) => mark)).to.include.members(marks);
		const glb = new TextDecoder().decode(writeGlb(model));
		for (const mark of marks) expect(glb).to.include(`"mark":"${mark}"`);
	});

	it('are refused where two pieces would share one: those have the marks of their places, and it says why', async () => {
		const model = await wall({ cell: marking('(zone)-(course)') });
		expect(marksOf(model).problems.cell).to.match(
			/pieces or more would share marks, as \w+-1; add \(number\)/
		);
		expect(marksIn(model, 'panels')[0]).to.match(/-C01-B01$/);
		expect(new Set(marksIn(model, 'panels')).size).to.equal(6);
	});

	it('never take the mark of another piece’s place', async () => {
		const places = marksIn(await wall({}), 'bars');
		const pattern = places[0]!.replace(/\d+-v$/, '(bay 2)-v');
		const model = await wall({ cell: marking(pattern) });
		expect(marksOf(model).problems.cell).to.match(/share marks/);
		const counted = await wall({ cell: marking(places[0]!.replace(/\d+-v$/, '(number 2)-v')) });
		const all = [...marksIn(counted, 'panels'), ...marksIn(counted, 'bars')];
		expect(new Set(all).size).to.equal(all.length);
	});

	it('frozen they stay when pieces come and go; those that come later are counted on, and no mark is given twice', async () => {
		const before = await wall({ cell: marking('P(number)') }, 3, 2);
		const frozen = marksToFreeze(before);
		const after = await wall({ cell: marking('P(number)'), frozen }, 4, 3);
		const addresses = (model: Model) => cellsOf(makeSchedule(model, 'panels').column('address')!).map(String);
		const markAt = (model: Model) =>
			new Map(addresses(model).map((address, row) => [address, marksIn(model, 'panels')[row]!]));
		const [old, now] = [markAt(before), markAt(after)];
		for (const [address, mark] of old) expect(now.get(address), address).to.equal(mark);
		expect([...now.values()].filter((mark) => ![...old.values()].includes(mark)).sort()).to.deep.equal([
			'P10',
			'P11',
			'P12',
			'P7',
			'P8',
			'P9'
		]);
		// Six cells and four lines between bays before, twelve and nine now.
		expect(marksOf(after)).to.include({ frozen: 6 + 4, later: 6 + 5 });
		// What has gone keeps its mark from others.
		const fewer = await wall({ cell: marking('P(number)'), frozen }, 2, 3);
		expect(marksIn(fewer, 'panels').some((mark) => mark === 'P3')).to.equal(false);
	});

	it('frozen they stay when a pattern is asked for that is refused', async () => {
		const before = await wall({ cell: marking('P(number)') });
		const after = await wall({ cell: marking('(zone)-(course)'), frozen: marksToFreeze(before) }, 5, 2);
		expect(marksOf(after).problems.cell).to.match(/share marks/);
		expect(marksIn(after, 'panels').filter((mark) => /^P[1-6]$/.test(mark))).to.have.length(6);
		expect(new Set(marksIn(after, 'panels')).size).to.equal(10);
	});

	it('whatever pattern is typed: all marks are there once, or a sentence says why not', async () => {
		const models = new Map<string, Promise<Model>>();
		const pieces = [
			'(zone)',
			'(level)',
			'(course 2)',
			'(bay)',
			'(kind)',
			'(number 3)',
			'(part)',
			'-',
			'X',
			'.',
			'(',
			')',
			'(colour)',
			'(number 99)',
			'§'
		];
		await fc.assert(
			fc.asyncProperty(fc.array(fc.constantFrom(...pieces), { maxLength: 6 }), async (parts) => {
				const pattern = parts.join('');
				let isRead = true;
				try {
					readPattern(pattern);
				} catch (error) {
					expect(error).to.be.instanceOf(MarkError);
					isRead = false;
				}
				const made = models.get(pattern) ?? wall({ cell: marking(pattern) }, 2, 2);
				models.set(pattern, made);
				const model = await made;
				const marks = marksIn(model, 'panels');
				expect(new Set(marks).size).to.equal(4);
				expect(marks.every((mark) => mark.trim() !== '')).to.equal(true);
				if (!isRead) expect(marksOf(model).problems.cell).to.be.a('string');
			}),
			{ numRuns: 60 }
		);
	});

	it('what no mark can be made by is refused with what would be accepted', () => {
		expect(() => readPattern('GR')).to.throw(MarkError, /add \(number\)/);
		expect(() => readPattern('(number 12)')).to.throw(MarkError, /1 to 8 are accepted/);
		expect(() => readPattern('(zone-(number)')).to.throw(MarkError, /bracket/);
		expect(() => readPattern('a;b(number)')).to.throw(MarkError, /cannot stand in a mark/);
	});
});
