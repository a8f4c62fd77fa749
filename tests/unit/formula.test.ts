import { expect } from 'chai';
import fc from '../property';
import { evaluate } from 'mathjs';
import { checkFormula } from '../../src/core/units/formula/check';
import { FormulaError, numberOf } from '../../src/core/units/formula/expression';
import { evaluateConstant } from '../../src/core/units/formula/evaluate';
import { LENGTH, dimensionOf } from '../../src/core/units/dimension';
import { formatLength, parseQuantity } from '../../src/core/units/quantity';

const scope = { names: { span: numberOf(LENGTH), lean: numberOf(dimensionOf('angle')) }, functions: {} };

describe('formulas', () => {
	it('reads lengths with units and arithmetic, as a person types them', () => {
		const cases: [string, number][] = [
			['1 500 mm', 1500],
			['5 ft', 1524],
			['5 ft 3 1/2 in', 1524 + 3.5 * 25.4],
			['4200/3', 1400],
			['1.2 m + 35', NaN],
			['1.2 m + 35 mm', 1235],
			['(3 m - 200 mm) / 2', 1400]
		];
		for (const [text, mm] of cases) {
			if (Number.isNaN(mm)) expect(() => parseQuantity(text, 'length')).to.throw(FormulaError, 'mixes');
			else expect(parseQuantity(text, 'length'), text).to.be.closeTo(mm, 1e-9);
		}
		expect(parseQuantity('1.5', 'length', 'm')).to.equal(1500);
		// Areas and volumes are shown in metres, and typed so; with a unit they are what they say.
		expect(parseQuantity('0.05', 'area')).to.be.closeTo(50_000, 1e-6);
		expect(parseQuantity('2', 'volume')).to.be.closeTo(2e9, 1e-3);
		expect(parseQuantity('300 mm * 200 mm', 'area')).to.be.closeTo(60_000, 1e-6);
		expect(parseQuantity('30', 'angle')).to.be.closeTo(Math.PI / 6, 1e-15);
	});

	it('refuses mixed units, unknown names and anything that is not arithmetic, in a sentence', () => {
		const refused: [string, RegExp][] = [
			['span + lean', /mixes a length with an angle/],
			['span + sapn', /"sapn".*known here: span, lean/],
			['sin(span)', /takes an angle/],
			['span = 3', /may not contain/],
			['import("fs")', /not a number/],
			['[1, 2]', /may not contain/],
			['span and 3', /conditions/],
			['span +', /cannot be read/],
			['constructor', /not known/]
		];
		for (const [text, sentence] of refused)
			expect(() => checkFormula(text, scope), text).to.throw(FormulaError, sentence);
		expect(() => parseQuantity('1/0', 'length')).to.throw('no finite value');
		expect(() => parseQuantity('2.5', 'count')).to.throw('whole number');
		expect(() => parseQuantity('3 kg', 'length')).to.throw('a length is wanted');
	});

	it('agrees with mathjs on generated arithmetic', () => {
		const number = fc.double({ min: -1e3, max: 1e3, noNaN: true }).map((x) => `(${x.toFixed(4)})`);
		const { formula } = fc.letrec<{ formula: string }>((tie) => ({
			formula: fc.oneof(
				{ depthSize: 'small' },
				number,
				fc
					.tuple(tie('formula'), fc.constantFrom('+', '-', '*'), tie('formula'))
					.map(([a, op, b]) => `(${a} ${op} ${b})`),
				fc.tuple(fc.constantFrom('abs', 'floor', 'ceil'), tie('formula')).map(([f, a]) => `${f}(${a})`),
				tie('formula').map((a) => `sqrt(abs(${a}))`),
				fc.tuple(fc.constantFrom('sin', 'cos'), number).map(([f, a]) => `${f}(${a} rad)`),
				fc
					.tuple(fc.constantFrom('and', 'or'), tie('formula'), tie('formula'), tie('formula'))
					.map(([op, a, b, c]) => `(${a} <= ${b} ${op} not (${c} > ${b}) ? ${a} : ${c})`),
				fc
					.tuple(tie('formula'), tie('formula'), tie('formula'))
					.map(([a, b, c]) => `(${a} < ${b} ? ${c} : ${a})`),
				fc
					.tuple(fc.constantFrom('min', 'max'), tie('formula'), tie('formula'))
					.map(([f, a, b]) => `${f}(${a}, ${b})`)
			)
		}));
		fc.assert(
			fc.property(formula, (text) => {
				// Longer than a person writes is refused, and tested elsewhere.
				fc.pre(text.length <= 4000);
				const ours = evaluateConstant(checkFormula(text, { names: {}, functions: {} }), text);
				const theirs = evaluate(text) as number;
				expect(Math.abs(ours - theirs)).to.be.at.most(1e-9 * Math.max(1, Math.abs(theirs)));
			}),
			{ numRuns: 4000 }
		);
	});

	it('prints lengths so that reading them gives them back', () => {
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 90_000_000 }), (tenths) => {
				const mm = tenths / 10;
				expect(parseQuantity(formatLength(mm, 'mm'), 'length')).to.be.closeTo(mm, 0.051);
				expect(parseQuantity(formatLength(mm, 'ft-in'), 'length')).to.be.closeTo(mm, 25.4 / 32 + 1e-6);
			})
		);
	});
});
