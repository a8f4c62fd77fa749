import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { Chain } from '../../src/core/chain/chain';
import { lookingAlong, seenAt } from '../../src/core/drawing/frame';
import { Hiding } from '../../src/core/drawing/hidden-lines';
import { Gathered, solidsOf, type Solids } from '../../src/core/drawing/solids';
import type { Vector } from '../../src/core/geometry/vector';
import { readProjectText } from '../../src/core/project/read';
import fc from '../property';

/** Corners of a box by bits: x, y, z. */
const boxTriangles = [
	[0, 2, 3, 1],
	[4, 5, 7, 6],
	[0, 1, 5, 4],
	[2, 6, 7, 3],
	[0, 4, 6, 2],
	[1, 3, 7, 5]
].flatMap(([a, b, c, d]) => [a!, b!, c!, a!, c!, d!]);

const box = (low: Vector, size: Vector): number[] =>
	Array.from({ length: 8 }, (_, k) =>
		[0, 1, 2].map((axis) => low[axis]! + (k & (1 << axis) ? size[axis]! : 0))
	).flat();

function looked(way: Vector, boxes: readonly (readonly [low: Vector, size: Vector])[]): Solids {
	const into = new Gathered(lookingAlong(way));
	for (const [low, size] of boxes) into.add('panels', box(low, size), [0, 0, 0], boxTriangles);
	return into.done();
}

/** Every edge with its ends, and the stretches of it that are seen, from 0 to 1. */
function* looksOf({ corners, edges }: Solids) {
	const hiding = new Hiding(corners);
	for (const values of edges.values())
		for (let k = 0; k < values.length; k += 6) {
			const [ax, ay, ad, bx, by, bd] = values.subarray(k, k + 6) as unknown as [
				number,
				number,
				number,
				number,
				number,
				number
			];
			const seen: [number, number][] = [];
			hiding.seen(ax, ay, ad, bx, by, bd, (from, to) => seen.push([from, to]));
			const at = (t: number) => [ax + (bx - ax) * t, ay + (by - ay) * t, ad + (bd - ad) * t] as const;
			yield { at, length: Math.hypot(bx - ax, by - ay), seen };
		}
}

/** Every line that is seen, as x1 y1 x2 y2. */
function seenLines(solids: Solids): number[][] {
	return [...looksOf(solids)].flatMap(({ at, seen }) =>
		seen.map((stretch) => stretch.flatMap((t) => at(t).slice(0, 2)))
	);
}
const lengthOf = (lines: readonly (readonly number[])[]) =>
	lines.reduce((sum, [a, b, c, d]) => sum + Math.hypot(c! - a!, d! - b!), 0);

/** How far a point is behind the nearest triangle over it, asked of every one; and how near it is to the rim of any. */
function behind(corners: Float64Array, x: number, y: number, depth: number): { by: number; rim: number } {
	let [by, rim] = [-Infinity, Infinity];
	for (let t = 0; t < corners.length; t += 9) {
		const p = [0, 3, 6].map((k) => [corners[t + k]!, corners[t + k + 1]!, corners[t + k + 2]!] as const);
		const [a, b, c] = p as [(typeof p)[0], (typeof p)[0], (typeof p)[0]];
		const area = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
		if (!(area > 1e-9)) continue;
		const share = [
			[b, c],
			[c, a],
			[a, b]
		].map(([q, r]) => ((r![0] - q![0]) * (y - q![1]) - (r![1] - q![1]) * (x - q![0])) / area);
		const sides = [
			[b, c],
			[c, a],
			[a, b]
		].map(([q, r]) => Math.hypot(r![0] - q![0], r![1] - q![1]));
		const off = Math.min(...share.map((one, k) => (one * area) / sides[k]!));
		if (Math.abs(off) < rim) rim = Math.abs(off);
		if (off < 0) continue;
		by = Math.max(by, depth - share.reduce((sum, one, k) => sum + one * p[k]![2], 0));
	}
	return { by, rim };
}

describe('hidden lines', () => {
	it('a frame has right and up as they are read: east to the right from the south, north above in plan', () => {
		const near = (a: Vector, b: Vector) => a.forEach((one, k) => expect(one).to.be.closeTo(b[k]!, 1e-12));
		near(seenAt(lookingAlong([0, 1, 0]), [3, 5, 7]), [3, 7, 5]);
		near(seenAt(lookingAlong([-1, 0, 0]), [3, 5, 7]), [5, 7, -3]);
		near(seenAt(lookingAlong([0, 0, -1]), [3, 5, 7]), [3, 5, -7]);
	});

	it('of a box straight on the four edges in front are seen, of one askew nine', () => {
		expect(
			lengthOf(
				seenLines(
					looked(
						[0, 1, 0],
						[
							[
								[0, 0, 0],
								[3000, 500, 2000]
							]
						]
					)
				)
			)
		).to.be.closeTo(10_000, 0.01);
		const askew = seenLines(
			looked(
				[1, 1, -1],
				[
					[
						[0, 0, 0],
						[1000, 1000, 1000]
					]
				]
			)
		);
		// Each edge of a cube is seen at √(2/3) of its length along its diagonal.
		expect(askew.length).to.equal(9);
		expect(lengthOf(askew)).to.be.closeTo(9 * 1000 * Math.sqrt(2 / 3), 0.01);
	});

	it('a box before another hides just what it covers', () => {
		const lines = seenLines(
			looked(
				[0, 1, 0],
				[
					[
						[0, 0, 0],
						[1000, 100, 1000]
					],
					[
						[600, 500, 700],
						[1000, 100, 1000]
					]
				]
			)
		);
		// Of the one behind 400 mm of its foot and 300 mm of its left side are covered.
		expect(lengthOf(lines)).to.be.closeTo(4000 + 4000 - 700, 0.01);
		const covered = ([a, b, c, d]: number[]) =>
			(a! + c!) / 2 > 600.1 && (a! + c!) / 2 < 999.9 && (b! + d!) / 2 > 700.1 && (b! + d!) / 2 < 999.9;
		expect(lines.filter(covered)).to.deep.equal([]);
	});

	it('a box that is cut shows its cut in wide lines, what stands in it is closed behind, what is before it is gone', () => {
		const into = new Gathered(lookingAlong([0, 1, 0]), 500);
		const add = (low: Vector, size: Vector) => into.add('panels', box(low, size), [0, 0, 0], boxTriangles);
		add([0, 0, 0], [1000, 1000, 1000]);
		// Behind the cut one, and wholly covered by it; before the plane; beside both.
		add([200, 2000, 200], [300, 300, 300]);
		add([200, 0, 200], [300, 300, 300]);
		add([2000, 800, 0], [400, 100, 400]);
		const solids = into.done();
		const seen = seenLines(solids);
		// Of the one that is cut the outline, once over for its faces' halves; of the one beside it the front.
		const cut = seenLines({
			corners: solids.corners,
			cuts: [],
			edges: new Map([['outline', solids.edges.get('outline')!]])
		});
		expect(lengthOf(cut)).to.be.closeTo(4000, 0.01);
		const within = seen.filter(
			([a, b, c, d]) => [a, c].every((x) => x! > 1 && x! < 999) && [b, d].every((y) => y! > 1 && y! < 999)
		);
		expect(within).to.deep.equal([]);
		expect(lengthOf(seen.filter(([a]) => a! >= 2000))).to.be.closeTo(1600, 0.01);
	});

	it('whatever boxes stand wherever: a place of an edge is seen just where no triangle stands before it', () => {
		const size = fc.integer({ min: 200, max: 1500 });
		const place = fc.integer({ min: 0, max: 2500 });
		const made = fc.tuple(fc.tuple(place, place, place), fc.tuple(size, size, size));
		const way = fc.tuple(
			fc.integer({ min: 1, max: 9 }),
			fc.integer({ min: 1, max: 9 }),
			fc.integer({ min: -9, max: 5 })
		);
		fc.assert(
			fc.property(fc.array(made, { minLength: 2, maxLength: 7 }), way, (boxes, along) => {
				const solids = looked(along, boxes);
				for (const { at, seen } of looksOf(solids))
					for (let n = 1; n < 12; n++) {
						const t = n / 12.3;
						const { by: far, rim } = behind(solids.corners, ...at(t));
						const isNearEnd = seen.some(([from, to]) => Math.abs(from - t) < 2e-3 || Math.abs(to - t) < 2e-3);
						// Where it is a matter of hairs either is right.
						if (rim < 2 || Math.abs(far - 0.5) < 1 || isNearEnd) continue;
						expect(seen.some(([from, to]) => from <= t && t <= to)).to.equal(far <= 0.5);
					}
			}),
			{ numRuns: 60 }
		);
	});

	it('of a whole project they agree with a picture of its depths', async () => {
		const model = await new Chain().run(
			readProjectText(readFileSync(new URL('../lido.json', import.meta.url), 'utf8'))
		);
		const frame = lookingAlong([0.4, 1, -0.3]);
		const solids = solidsOf(model, frame, null);
		const { corners } = solids;
		// The nearest depth in every pixel of 40 mm.
		const PIXEL = 40;
		const xs = corners.filter((_, k) => k % 3 === 0);
		const ys = corners.filter((_, k) => k % 3 === 1);
		const [left, right] = [xs.reduce((a, b) => Math.min(a, b)), xs.reduce((a, b) => Math.max(a, b))];
		const [foot, head] = [ys.reduce((a, b) => Math.min(a, b)), ys.reduce((a, b) => Math.max(a, b))];
		const wide = Math.ceil((right - left) / PIXEL) + 1;
		const depths = new Float64Array(wide * (Math.ceil((head - foot) / PIXEL) + 1)).fill(Infinity);
		for (let t = 0; t < corners.length; t += 9) {
			const [ax, ay, ad, bx, by, bd, cx, cy, cd] = corners.subarray(t, t + 9) as unknown as number[];
			const area = (bx! - ax!) * (cy! - ay!) - (by! - ay!) * (cx! - ax!);
			if (!(area > 0)) continue;
			const [i0, i1] = [Math.min(ax!, bx!, cx!), Math.max(ax!, bx!, cx!)].map((x) =>
				Math.round((x - left) / PIXEL)
			) as [number, number];
			const [j0, j1] = [Math.min(ay!, by!, cy!), Math.max(ay!, by!, cy!)].map((y) =>
				Math.round((y - foot) / PIXEL)
			) as [number, number];
			for (let j = j0; j <= j1; j++)
				for (let i = i0; i <= i1; i++) {
					const [x, y] = [left + i * PIXEL, foot + j * PIXEL];
					const u = ((cx! - bx!) * (y - by!) - (cy! - by!) * (x - bx!)) / area;
					const v = ((ax! - cx!) * (y - cy!) - (ay! - cy!) * (x - cx!)) / area;
					if (u < 0 || v < 0 || u + v > 1) continue;
					const depth = u * ad! + v * bd! + (1 - u - v) * cd!;
					if (depth < depths[j * wide + i]!) depths[j * wide + i] = depth;
				}
		}
		let [asked, agree] = [0, 0];
		for (const { at, length, seen } of looksOf(solids)) {
			if (length < 2 * PIXEL) continue;
			const [x, y, depth] = at(0.5);
			const pixel = Math.round((y - foot) / PIXEL) * wide + Math.round((x - left) / PIXEL);
			const far = depth - depths[pixel]!;
			// What is well behind what the pixel shows is hidden, what is well before it is seen; between them a pixel cannot tell.
			if (Math.abs(far) < 300 || !Number.isFinite(far)) continue;
			asked++;
			if (seen.some(([from, to]) => from < 0.5 && to > 0.5) === far < 0) agree++;
		}
		expect(asked).to.be.above(5000);
		expect(agree / asked).to.be.above(0.99);
	});
});
