import { expect } from 'chai';
import { Bytes, phraseOf } from '../../src/core/exchange/bytes';
import fc from '../property';

const written = (into: Bytes) => Buffer.concat([...into.all()]).toString('utf8');

describe('files put together as bytes', () => {
	it('numbers are those that JavaScript reads back, to the decimals that are kept', () => {
		fc.assert(
			fc.property(
				fc.double({ min: -1.9e9, max: 1.9e9, noNaN: true }),
				fc.integer({ min: 0, max: 9 }),
				(value, decimals) => {
					const [plain, pointed] = [new Bytes(), new Bytes()];
					plain.number(value, decimals);
					expect(pointed.real(value, decimals)).to.equal(true);
					const [asNumber, asReal] = [written(plain), written(pointed)];
					expect(asNumber).to.match(/^-?\d+(\.\d*[1-9])?$/);
					expect(asReal).to.match(/^-?\d+\.(\d*[1-9])?$/);
					expect(Number(asReal)).to.equal(Number(asNumber));
					// Half of the last decimal, and what doubles of that size cannot tell.
					const off = 0.5 * 10 ** -decimals + Math.abs(value) * 2 ** -51;
					expect(Math.abs(Number(asNumber) - value)).to.be.at.most(off);
					expect(asNumber).not.to.equal('-0');
				}
			)
		);
	});

	it('numbers beyond nine digits before the point are told as JavaScript does; reals say that they are not', () => {
		const bytes = new Bytes();
		bytes.number(-1.25e12);
		expect(bytes.real(3e9, 3)).to.equal(false);
		expect(written(bytes)).to.equal('-1250000000000');
	});

	it('any texts and bytes come out one after the other, however long and in whatever letters', () => {
		const piece = fc.oneof(
			fc.string({ unit: 'grapheme', maxLength: 40 }),
			fc
				.tuple(fc.constantFrom('a', 'é', '𝄞', 'Za'), fc.integer({ min: 2000, max: 9000 }))
				.map(([one, times]) => one.repeat(times))
		);
		fc.assert(
			fc.property(
				fc.array(fc.tuple(piece, fc.constantFrom('bytes', 'text', 'part', 'phrase')), { maxLength: 200 }),
				(pieces) => {
					const bytes = new Bytes();
					const taken: Uint8Array[] = [];
					for (const [text, as] of pieces) {
						if (as === 'bytes') bytes.put(Buffer.from(text));
						else if (as === 'phrase' && text.length < 100) bytes.phrase(phraseOf(text));
						else if (as === 'part') bytes.text(`é${text}ab`, 1, 1 + text.length);
						else bytes.text(text);
						taken.push(...bytes.full());
					}
					taken.push(...bytes.all());
					const whole = Buffer.from(pieces.map(([text]) => text).join(''));
					expect(Buffer.concat(taken).equals(whole)).to.equal(true);
				}
			),
			{ numRuns: 30 }
		);
	});
});
