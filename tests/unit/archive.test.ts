import { expect } from 'chai';
import { unzipSync } from 'fflate';
import { quickPacking } from '../../src/cli/packing';
import { Archive, platformPacking, type Packing } from '../../src/core/exchange/archive';

function* pieces(count: number): Generator<Uint8Array<ArrayBuffer>> {
	for (let k = 0; k < count; k++)
		yield Uint8Array.from(Buffer.alloc(1 << 16, `<c r="N${k}"><v>${Math.sqrt(k)}</v></c>`));
}

async function packed(packing: Packing, count: number): Promise<Uint8Array> {
	const archive = new Archive(new Date('2026-11-29T10:00:00'), packing);
	await archive.add('first', pieces(count));
	await archive.add('empty', []);
	await archive.add('last', pieces(2));
	return archive.end();
}

describe('files of an archive', () => {
	it('are the same however they are packed, more than wait at a time among them', async () => {
		const [quick, plain] = await Promise.all([packed(quickPacking, 90), packed(platformPacking, 90)]);
		const [mine, theirs] = [unzipSync(quick), unzipSync(plain)];
		expect(Object.keys(mine)).to.deep.equal(['first', 'empty', 'last']);
		const whole = Buffer.concat([...pieces(90)]);
		for (const files of [mine, theirs]) {
			const first = Buffer.from(files['first']!);
			expect(first.subarray(first.length - whole.length).equals(whole)).to.equal(true);
		}
		for (const name of Object.keys(mine))
			expect(Buffer.compare(mine[name]!, theirs[name]!), name).to.equal(0);
	});

	it('that cannot be packed fail with what went wrong, wherever it did', async () => {
		for (const after of [0, 1, 70]) {
			let taken = 0;
			const failing: Packing = () =>
				new TransformStream<BufferSource, Uint8Array>({
					transform() {
						if (taken++ >= after) throw new Error('the thread has ended');
					}
				});
			const failed = await packed(failing, 90).then(
				() => null,
				(error: Error) => error.message
			);
			expect(failed, `${after} pieces`).to.equal('the thread has ended');
		}
	});
});
