import { expect } from 'chai';
import fc from '../property';
import { isWithin, polygonArea, side, type Place } from '../../src/core/geometry/polygon';
import { clipPolygon, piecesOf } from '../../src/core/geometry/clip/clip-polygon';
import { wholeCurve } from '../../src/core/geometry/clip/clip-polygon';
import { BAYS, binsOf, clipOurs, clipTheirs, hole, outline, regionOf, touchedCells } from '../clip-case';

/** Whether two segments cross by more than rounding: two that lie on one side of the cell do not. */
function crosses(a: Place, b: Place, c: Place, d: Place): boolean {
	const apart = (one: number, other: number) =>
		Math.min(Math.abs(one), Math.abs(other)) > 1e-14 && one * other < 0;
	return apart(side(a, b, c), side(a, b, d)) && apart(side(c, d, a), side(c, d, b));
}

describe('clipping cells in the lattice', () => {
	it('10,000 cells by a trim of 400 corners with a hole: area in equals area out to 1e-9, as clipper2-ts has it', () => {
		const touched = touchedCells();
		expect(touched.length).to.be.within(300, 1200);
		const names = new Set(touched.map(([i, j]) => i * BAYS + j));
		let whole = 0;
		for (let j = 0; j < BAYS; j++)
			for (let i = 0; i < BAYS; i++) {
				const middle: Place = [i + 0.5, j + 0.5];
				if (!names.has(i * BAYS + j) && isWithin(outline, middle) && !isWithin(hole, middle)) whole++;
			}
		const ours = clipOurs(touched, binsOf());
		expect((whole + ours) / (polygonArea(outline) + polygonArea(hole))).to.be.closeTo(1, 1e-9);
		// The library rounds to its own grid of 1e-8 steps.
		expect(ours / clipTheirs(touched, regionOf())).to.be.closeTo(1, 1e-6);
	});

	it('a trim exactly on grid lines leaves whole cells on its left and nothing on its right', () => {
		const box: Place[] = [
			[20, 30],
			[70, 30],
			[70, 45],
			[50, 45],
			[50, 80],
			[20, 80]
		];
		for (const [places, keeps] of [
			[box, true],
			[[...box].reverse(), false]
		] as const) {
			const all = [{ places, closed: true }];
			const touched = touchedCells(all);
			const isLeft = (p: Place) => isWithin(box, p) === keeps;
			// The line cuts no cell: those that it runs along are whole, on the one side or the other.
			const left = touched.filter(([i, j]) => isLeft([i + 0.5, j + 0.5]));
			expect(left.length).to.be.above(100);
			expect(clipOurs(touched, binsOf(all), isLeft)).to.equal(left.length);
		}
	});

	it('a cell with corners on its sides is cut as the same cell without them', () => {
		const plain: Place[] = [
			[0, 0],
			[4, 0],
			[4, 4],
			[0, 4]
		];
		const divided = plain.flatMap(([x, y], k) => {
			const [toX, toY] = plain[(k + 1) % 4]!;
			return [0, 1, 2, 3].map((n): Place => [x + ((toX - x) * n) / 4, y + ((toY - y) * n) / 4]);
		});
		const star = fc
			.tuple(
				fc.array(fc.double({ min: 0.5, max: 3, noNaN: true }), { minLength: 5, maxLength: 9 }),
				fc.double({ min: -1, max: 5, noNaN: true }),
				fc.double({ min: -1, max: 5, noNaN: true })
			)
			.map(([radii, x, y]) =>
				radii.map((r, k): Place => {
					const angle = (2 * Math.PI * k) / radii.length + 0.1234;
					return [x + r * Math.cos(angle), y + r * Math.sin(angle)];
				})
			);
		fc.assert(
			fc.property(star, fc.boolean(), (places, keepsInside) => {
				const curve = wholeCurve({ places: keepsInside ? places : places.toReversed(), closed: true }, 0);
				const [one, other] = [plain, divided].map((cell) => {
					const clipped = clipPolygon(cell, [curve]);
					return piecesOf(clipped)
						.map((piece) => polygonArea(piece.map(({ at }) => at)))
						.sort((a, b) => a - b);
				}) as [number[], number[]];
				expect(other.length).to.equal(one.length);
				for (const [k, area] of one.entries()) expect(other[k]).to.be.closeTo(area, 1e-9);
			}),
			{ numRuns: 400 }
		);
	});

	it('any simple cell, re-entrant ones too, by any simple outline: inside and outside make up the cell', () => {
		const ring = (reach: number) =>
			fc
				.array(
					fc.tuple(
						fc.double({ min: 0.3, max: 1, noNaN: true }),
						fc.double({ min: 0.2, max: 1, noNaN: true })
					),
					{
						minLength: 3,
						maxLength: 12
					}
				)
				.map((list): Place[] => {
					// Star-shaped about the origin, so simple and counter-clockwise.
					const total = list.reduce((sum, [step]) => sum + step, 0);
					let angle = 0;
					return list.map(([step, r]) => {
						angle += (2 * Math.PI * step) / total;
						return [reach * r * Math.cos(angle), reach * r * Math.sin(angle)];
					});
				})
				.filter((places) =>
					places.every((p, k) => {
						const q = places[(k + 1) % places.length]!;
						return p[0] * q[1] - p[1] * q[0] > 1e-3;
					})
				);
		fc.assert(
			fc.property(
				ring(1),
				ring(1),
				fc.double({ min: -0.8, max: 0.8, noNaN: true }),
				fc.double({ min: -0.8, max: 0.8, noNaN: true }),
				(cell, shape, dx, dy) => {
					const moved = shape.map(([x, y]): Place => [x + dx, y + dy]);
					const leftBy = (places: Place[]) => {
						const clipped = clipPolygon(cell, [wholeCurve({ places, closed: true }, 0)]);
						if (!clipped.untouched)
							return piecesOf(clipped).reduce(
								(sum, piece) => sum + polygonArea(piece.map(({ at }) => at)),
								0
							);
						const inside = isWithin(moved, cell[0]!);
						return inside === polygonArea(places) > 0 ? polygonArea(cell) : 0;
					};
					const both = leftBy(moved) + leftBy([...moved].reverse());
					expect(both / polygonArea(cell)).to.be.closeTo(1, 1e-9);
					const pieces = piecesOf(clipPolygon(cell, [wholeCurve({ places: moved, closed: true }, 0)]));
					for (const piece of pieces)
						piece.forEach(({ at: a }, k) => {
							const b = piece[(k + 1) % piece.length]!.at;
							expect(a, 'a corner twice').not.to.deep.equal(b);
							for (let n = k + 2; n < piece.length; n++)
								expect(
									crosses(a, b, piece[n]!.at, piece[(n + 1) % piece.length]!.at),
									'crosses itself'
								).to.equal(false);
						});
				}
			),
			{
				numRuns: 400,
				// A curve that goes out and in by one side, whose two parts are straight but for rounding.
				examples: [
					[
						[
							[-0.13309660330787518, 0.1492825984095471],
							[-0.07228720409581389, -0.18647938257086263],
							[0.07078588526932343, -0.18705442642888243],
							[0.45617089891908946, 2.934315018700557e-16]
						],
						[
							[0.1734899251528611, 0.09950500424830228],
							[0.10554943645042772, 0.16988030040295174],
							[-0.11599583290730914, 0.16292626168957425],
							[-0.19912265059594558, 0.018712830348319165],
							[-0.1307781334228561, -0.15131781064512417],
							[0.1604773917664966, -0.22053396956644714],
							[0.22415596524972725, -0.11233103692450884],
							[0.9365165545668773, -2.7247617805544124e-15]
						],
						-5.962963275929489e-9,
						0
					],
					// A curve through a re-entrant corner, in and out again beside it.
					[
						[
							[0.4685, 0.1392],
							[0.167, 0.1101],
							[0.4052, 0.7024],
							[-0.13, 0.2765],
							[-0.9606, -0.2779],
							[0.0349, -0.206],
							[0.9219, -0.3874],
							[0.2, 0]
						],
						[
							[0.4753, 0.3113],
							[-0.0348, 0.9994],
							[-0.3929, -0.3625],
							[-0.0828, -0.2248],
							[0.5583, -0.5823],
							[0.2, 0]
						],
						0,
						0
					]
				]
			}
		);
	});
});
