import { expect } from 'chai';
import fc from '../property';
import { Lattice } from '../../src/core/grid/lattice';
import { setOut } from '../../src/core/grid/set-out';
import { cellKinds } from '../../src/core/pattern/cells';
import { checkTile } from '../../src/core/pattern/check-tile';
import { patternOf } from '../../src/core/pattern/catalogue';
import { layTiles } from '../../src/core/pattern/lay-tiles';
import { plainPatterns, type TileDefinition } from '../../src/core/project/pattern-schema';
import { count, onlyFace, settingOutOf, sheet } from '../faces';

const box = (x: number, y: number, width: number, height: number): [number, number][] => [
	[x, y],
	[x + width, y],
	[x + width, y + height],
	[x, y + height]
];
const tile = (across: number, up: number, ...polygons: [number, number][][]): TileDefinition => ({
	id: 't',
	name: 'T',
	across,
	up,
	polygons: polygons.map((points, k) => ({ slot: `s${k}`, points }))
});

describe('tiles that are drawn', () => {
	it('those that ship cover the plane once, as clipper2-ts sees it', () => {
		for (const kind of plainPatterns) {
			const { tile: made } = patternOf({ kind });
			const drawn = tile(
				made.across,
				made.up,
				...made.polygons.map((points) => points.map(([x, y]): [number, number] => [x, y]))
			);
			expect(checkTile(drawn), kind).to.deep.equal([]);
		}
	});

	it('a split of a tile at random covers it; with a piece taken out, moved or doubled it is told which', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 5 }),
				fc.integer({ min: 2, max: 5 }),
				fc.nat(),
				(across, up, seed) => {
					const pieces = Array.from({ length: across * up }, (_, k) =>
						box(k % across, Math.floor(k / across), 1, 1)
					);
					expect(checkTile(tile(across, up, ...pieces))).to.deep.equal([]);
					const k = seed % pieces.length;
					const without = checkTile(tile(across, up, ...pieces.filter((_, n) => n !== k)));
					expect(without.map(({ text }) => text)).to.deep.equal([
						`1 of ${across * up} steps are covered by no polygon`
					]);
					const doubled = checkTile(tile(across, up, ...pieces, pieces[k]!));
					expect(doubled[0]!.text).to.equal(
						`polygon ${k + 1} overlaps polygon ${pieces.length + 1} by 1 steps`
					);
				}
			),
			{ numRuns: 30 }
		);
	});

	it('what does not meet across the seam, crosses itself or runs the wrong way is said in words', () => {
		const seam = checkTile(tile(2, 1, box(0, 0, 1, 1), box(1, 0, 1.5, 1)));
		expect(seam[0]!.text).to.match(/polygon 1 overlaps polygon 2 across the seam by 0.5 steps/);
		const crossed = checkTile(
			tile(1, 1, [
				[0, 0],
				[1, 1],
				[1, 0],
				[0, 1]
			])
		);
		expect(crossed[0]!.text).to.equal('polygon 1 crosses itself');
		const back = checkTile(tile(1, 1, [...box(0, 0, 1, 1)].reverse()));
		expect(back[0]!.text).to.match(/goes round clockwise/);
		expect(() => patternOf({ kind: 'tile', tile: 't' }, [tile(2, 1, box(0, 0, 1, 1))])).to.throw(
			/the tile T: 1 of 2 steps are covered by no polygon/
		);
		expect(() => patternOf({ kind: 'tile', tile: 'u' }, [])).to.throw(
			/the tile "u" does not exist; known: none yet/
		);
	});

	it('whose middle is the end of a step but for rounding has its cells at home in one step each', () => {
		const bent: [number, number][] = [
			[0.4, 0],
			[1.4, 0],
			[1.7, 0.5],
			[1.4, 1],
			[0.4, 1],
			[0.7, 0.5]
		];
		const middle = bent.reduce((sum, [x]) => sum + x, 0) / bent.length;
		expect(middle).to.be.greaterThan(1).and.to.be.closeTo(1, 1e-15);
		const face = onlyFace(sheet(12_000, 3000));
		const grid = setOut(face, settingOutOf(count(12, 3)), 'tile');
		const pattern = patternOf({ kind: 'tile', tile: 't' }, [tile(1, 1, bent)]);
		const { cells } = layTiles(new Lattice(grid, face.surface), pattern, 'tile');
		const whole = cellKinds.indexOf('whole');
		const bays = Array.from(cells.bay).filter((_, c) => cells.kind[c] === whole && cells.course[c] === 2);
		// From its foot a cell reaches 1.7 steps to the right: the last that is whole begins in the eleventh.
		expect(bays).to.deep.equal(Array.from({ length: 11 }, (_, k) => k + 1));
	});

	it('of three hundred polygons knows each of its cells’ polygons', () => {
		const pieces = Array.from({ length: 300 }, (_, k) =>
			box((k % 20) / 2, Math.floor(k / 20) / 3, 1 / 2, 1 / 3)
		);
		const face = onlyFace(sheet(10_000, 5000));
		const grid = setOut(face, settingOutOf(count(10, 5)), 'tile');
		const pattern = patternOf({ kind: 'tile', tile: 't' }, [tile(10, 5, ...pieces)]);
		const { cells } = layTiles(new Lattice(grid, face.surface), pattern, 'tile');
		expect(Array.from(cells.polygon).sort((a, b) => a - b)).to.deep.equal(Array.from(pieces.keys()));
	});

	it('a star with off-lattice points: a re-entrant cell and its neighbours share every side', () => {
		// A four-pointed star in the middle of a step, and the four darts between it and the corners.
		const r = 0.2;
		const star: [number, number][] = [
			[0.5, 0],
			[0.5 + r, 0.5 - r],
			[1, 0.5],
			[0.5 + r, 0.5 + r],
			[0.5, 1],
			[0.5 - r, 0.5 + r],
			[0, 0.5],
			[0.5 - r, 0.5 - r]
		];
		const corners: [number, number][][] = [
			[
				[0, 0],
				[0.5, 0],
				[0.5 - r, 0.5 - r],
				[0, 0.5]
			],
			[
				[0.5, 0],
				[1, 0],
				[1, 0.5],
				[0.5 + r, 0.5 - r]
			],
			[
				[1, 0.5],
				[1, 1],
				[0.5, 1],
				[0.5 + r, 0.5 + r]
			],
			[
				[0.5, 1],
				[0, 1],
				[0, 0.5],
				[0.5 - r, 0.5 + r]
			]
		];
		expect(checkTile(tile(1, 1, star, ...corners))).to.deep.equal([]);
	});
});
