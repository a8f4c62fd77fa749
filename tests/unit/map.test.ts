import { expect } from 'chai';
import fc from '../property';
import { nameWithin } from '../../src/lib/map/draw-map';
import { extentOf, mapSheets, placeUnder, reachOf, toX, toY } from '../../src/lib/map/map-sheets';
import type { FaceView } from '../../src/lib/worker/views';

/** A face of one cell: so wide and so high (mm). */
function face(width: number, height: number): FaceView {
	const half = width / 2;
	return {
		cells: {
			count: 1,
			start: Uint32Array.from([0, 4]),
			corners: Uint32Array.from([0, 1, 3, 2]),
			bay: Uint32Array.from([1]),
			course: Uint32Array.from([1])
		},
		grid: {
			columns: 2,
			rows: 2,
			across: { closed: false },
			up: { closed: false, lengths: { belt: height } },
			flat: Float64Array.from([-half, 0, half, 0, -half, height, half, height]),
			courseLengths: Float64Array.from([width, width])
		}
	} as unknown as FaceView;
}
const length = fc.integer({ min: 500, max: 90_000 });
const faces = fc.array(fc.tuple(length, length), { minLength: 1, maxLength: 7 });
const room = fc.record({
	width: fc.integer({ min: 300, max: 1800 }),
	height: fc.integer({ min: 100, max: 900 })
});

describe('the faces of a zone on the map', () => {
	it('lie beside and over one another, never on one another, all within the whole', () => {
		fc.assert(
			fc.property(faces, room, (sizes, of) => {
				const sheets = mapSheets(
					sizes.map(([width, height]) => face(width, height)),
					of
				);
				expect(sheets).to.have.length(sizes.length);
				const { width, height } = extentOf(sheets);
				const reaches = sheets.map(reachOf);
				for (const [left, right, foot, head] of reaches) {
					expect(left).to.be.at.least(-1e-6);
					expect(foot).to.be.at.least(-1e-6);
					expect(right).to.be.at.most(width + 1e-6);
					expect(head).to.be.at.most(height + 1e-6);
				}
				reaches.forEach(([left, right, foot, head], k) =>
					reaches.slice(k + 1).forEach(([l, r, f, h]) => {
						const across = Math.min(right, r) - Math.max(left, l);
						const up = Math.min(head, h) - Math.max(foot, f);
						expect(Math.min(across, up)).to.be.below(0);
					})
				);
			})
		);
	});

	it('are as large as in one row upright at least, and four tall ones a good deal larger', () => {
		const scaleIn = (sheets: ReturnType<typeof mapSheets>, of: { width: number; height: number }) => {
			const { width, height } = extentOf(sheets);
			return Math.min(of.width / width, of.height / height);
		};
		fc.assert(
			fc.property(faces, room, (sizes, of) => {
				const wide = sizes.reduce((sum, [width]) => sum + width, 0);
				const high = Math.max(...sizes.map(([, height]) => height));
				const inOne = Math.min(Math.max(1, of.width - 64 * (sizes.length - 1)) / wide, of.height / high);
				const sheets = mapSheets(
					sizes.map(([width, height]) => face(width, height)),
					of
				);
				expect(scaleIn(sheets, of)).to.be.at.least(inOne * 0.999);
			})
		);
		const of = { width: 800, height: 170 };
		const tower = mapSheets(
			Array.from({ length: 4 }, () => face(12_000, 80_000)),
			of
		);
		expect(tower.every(({ turned }) => turned)).to.equal(true);
		// Upright, 80 m in 170 pixels; turned, two rows of two take half of the width each.
		expect(scaleIn(tower, of) / (of.height / 80_000)).to.be.above(2);
	});

	it('are found again under the pointer, turned or not', () => {
		fc.assert(
			fc.property(faces, room, fc.double({ min: 0.01, max: 0.99, noNaN: true }), (sizes, of, share) => {
				const view = { scale: 0.013, originX: 77, originY: 410 };
				for (const sheet of mapSheets(
					sizes.map(([width, height]) => face(width, height)),
					of
				)) {
					const [x, y] = [(share - 0.5) * 1000, share * sheet.layout.height];
					const [back, up] = placeUnder(view, sheet, toX(view, sheet, x, y), toY(view, sheet, x, y));
					expect(back).to.be.closeTo(x, 1e-6);
					expect(up).to.be.closeTo(y, 1e-6);
				}
			})
		);
	});

	it('names of faces keep to their room: what tells them apart from their neighbours is left', () => {
		const within = (room: number) => nameWithin('round · Deck round side 3', room, (text) => text.length);
		expect([25, 24, 17, 16, 13, 8, 7, 3, 2, 0].map(within)).to.deep.equal([
			'round · Deck round side 3',
			'Deck round side 3',
			'Deck round side 3',
			'…round side 3',
			'…round side 3',
			'…side 3',
			'…side 3',
			'…3',
			'…3',
			''
		]);
	});
});
