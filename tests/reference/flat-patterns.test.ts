import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import { count, projectOf, revolved } from '../faces';
import fc from '../property';
import { loadSolids, meshOfSolid, solidLibrary } from '../../src/core/geometry/solid/library';
import { polygonArea, type Place } from '../../src/core/geometry/polygon';
import { areaOfTriangles } from '../../src/core/geometry/triangulate';
import { pointAt } from '../../src/core/geometry/vector';
import { shippedParts } from '../../src/core/part/kit/index';
import { placesOf, trianglesOf } from '../../src/core/part/places';
import { flatPattern } from '../../src/core/unroll/flat-pattern';
import { outerSides, type Side } from '../../src/core/unroll/outer-side';

type At = (s: number, t: number) => readonly [number, number, number];

/** A sheet of so many by so many facets, each of two triangles, seen from where s runs to the right and t up. */
function sheetOf(at: At, across: number, up: number): Side {
	const points = Float64Array.from(
		Array.from({ length: (across + 1) * (up + 1) }, (_, k) =>
			at((k % (across + 1)) / across, Math.floor(k / (across + 1)) / up)
		).flat()
	);
	const triangles = Array.from({ length: across * up }, (_, k) => {
		const a = Math.floor(k / across) * (across + 1) + (k % across);
		return [a, a + 1, a + across + 2, a, a + across + 2, a + across + 1];
	}).flat();
	return { points, triangles };
}
/** The sheet and another one behind it, closed all round: as a plate is made. */
function thickened(
	{ points, triangles }: Side,
	thickness: number,
	normalAt: (k: number) => readonly number[]
) {
	const count = points.length / 3;
	const vertices = new Float64Array(2 * points.length);
	vertices.set(points);
	for (let k = 0; k < count; k++)
		for (let n = 0; n < 3; n++)
			vertices[3 * (count + k) + n] = points[3 * k + n]! - thickness * normalAt(k)[n]!;
	const corners = [...triangles];
	const ways = new Set<string>();
	for (let k = 0; k < triangles.length; k += 3) {
		const [a, b, c] = [triangles[k]!, triangles[k + 1]!, triangles[k + 2]!];
		corners.push(count + a, count + c, count + b);
		ways.add(`${a} ${b}`).add(`${b} ${c}`).add(`${c} ${a}`);
	}
	for (const way of ways) {
		const [a, b] = way.split(' ').map(Number) as [number, number];
		if (!ways.has(`${b} ${a}`)) corners.push(b, a, count + a, b, count + a, count + b);
	}
	return { vertices, triangles: corners };
}
const far = (a: Place, b: Place) => Math.hypot(a[0] - b[0], a[1] - b[1]);
const netArea = ({
	outline,
	openings
}: {
	outline: readonly Place[];
	openings: readonly (readonly Place[])[];
}) => polygonArea(outline) + openings.reduce((sum, opening) => sum + polygonArea(opening), 0);

const frustum: At = (s, t) => {
	const r = 5000 - 2000 * t;
	const turn = 2 * Math.PI * s;
	return [r * Math.cos(turn), r * Math.sin(turn), 4000 * t];
};

describe('flat patterns against what is known of them', () => {
	before(loadSolids);

	it('a cone frustum r 5 m, r 3 m, h 4 m: radii 11.18034 and 6.70820 m over 160.9969°, 112.397 m² (reference values)', () => {
		const n = 1440;
		const pattern = flatPattern(sheetOf(frustum, n, 3));
		expect(pattern.off).to.equal(0);
		expect(pattern.area / 1e6).to.be.closeTo(112.3970357, 1e-3);
		expect(netArea(pattern) / 1e6).to.be.closeTo(112.3970357, 1e-3);
		// Three corners of the rim give the radius of its arc: a b c / (4 A).
		const places = pattern.outline;
		const lengths = places.map((place, k) => far(place, places[(k + 1) % places.length]!));
		const slant = Math.hypot(4000, 2000);
		const [one, other] = lengths.flatMap((length, k) => (Math.abs(length - slant) < 1 ? [k] : []));
		const arcs = [
			places.slice(one! + 1, other! + 1),
			[...places.slice(other! + 1), ...places.slice(0, one! + 1)]
		];
		const found = arcs
			.map((arc) => {
				const [a, b, c] = [arc[0]!, arc[arc.length >> 1]!, arc.at(-1)!];
				const radius = (far(a, b) * far(b, c) * far(a, c)) / (4 * Math.abs(polygonArea([a, b, c])));
				const angle = 2 * Math.asin(far(a, b) / (2 * radius)) + 2 * Math.asin(far(b, c) / (2 * radius));
				return { radius, angle: (angle * 180) / Math.PI };
			})
			.sort((a, b) => b.radius - a.radius);
		expect(found[0]!.radius).to.be.closeTo(11180.34, 0.5);
		expect(found[1]!.radius).to.be.closeTo(6708.2, 0.5);
		for (const { angle } of found) expect(angle).to.be.closeTo(160.9969, 0.01);
	});

	it('pieces of a cylinder and of a cone: exact, and together they have the area of their surface', () => {
		let sum = 0;
		for (let k = 0; k < 12; k++)
			for (let course = 0; course < 3; course++) {
				const piece: At = (s, t) => frustum((k + s) / 12, (course + t) / 3);
				const pattern = flatPattern(sheetOf(piece, 60, 1));
				expect(pattern.off).to.equal(0);
				sum += netArea(pattern);
			}
		expect(sum / 1e6).to.be.closeTo(112.3970357, 1e-3);
		const quarter: At = (s, t) => [
			4000 * Math.cos((s * Math.PI) / 2),
			4000 * Math.sin((s * Math.PI) / 2),
			9000 * t
		];
		const pattern = flatPattern(sheetOf(quarter, 200, 2));
		expect(pattern.off).to.equal(0);
		expect(netArea(pattern) / 1e6).to.be.closeTo(226.1946711 / 4, 1e-3);
		const [left, right] = [0, 1].map((axis) => {
			const values = pattern.outline.map((place) => place[axis]!);
			return Math.max(...values) - Math.min(...values);
		});
		expect(left).to.be.closeTo(2000 * Math.PI, 0.2);
		expect(right).to.be.closeTo(9000, 1e-6);
	});

	it('a tube closed round is cut open once: 2 π r by its height', () => {
		const tube = sheetOf(
			(s, t) => [300 * Math.cos(2 * Math.PI * s), 300 * Math.sin(2 * Math.PI * s), 500 * t],
			90,
			1
		);
		// Its first and its last corners are the same.
		const closed = tube.triangles.map((k) => (k % 91 === 90 ? k - 90 : k));
		const side = { points: tube.points, triangles: closed };
		const used = [...new Set(closed)].sort((a, b) => a - b);
		const packed = {
			points: Float64Array.from(used.flatMap((k) => [...side.points.subarray(3 * k, 3 * k + 3)])),
			triangles: closed.map((k) => used.indexOf(k))
		};
		const pattern = flatPattern(packed);
		expect([pattern.off, pattern.cuts, pattern.openings.length]).to.deep.equal([0, 1, 0]);
		expect(pattern.area).to.be.closeTo(180 * 300 * Math.sin(Math.PI / 90) * 500, 1e-3);
	});

	it('a pyramid is cut open along one edge and folded along the others, each by the angle between its planes', () => {
		const [half, high] = [500, 250];
		const points = Float64Array.of(
			-half,
			-half,
			0,
			half,
			-half,
			0,
			half,
			half,
			0,
			-half,
			half,
			0,
			0,
			0,
			high
		);
		const pattern = flatPattern({ points, triangles: [0, 1, 4, 1, 2, 4, 2, 3, 4, 3, 0, 4] });
		expect([pattern.off, pattern.cuts, pattern.folds.length]).to.deep.equal([0, 1, 3]);
		// Normals (0, −h, a) and (h, 0, a): the cosine between them is a² / (a² + h²).
		const angle = Math.acos((half * half) / (half * half + high * high));
		for (const fold of pattern.folds) {
			expect(fold.angle).to.be.closeTo(-angle, 1e-9);
			expect(far(fold.from, fold.to)).to.be.closeTo(Math.hypot(half, half, high), 1e-6);
		}
		expect(netArea(pattern)).to.be.closeTo(4 * half * Math.hypot(half, high), 1e-3);
	});

	it('any folded strip is developed exactly: lengths, areas and folds (property)', () => {
		fc.assert(
			fc.property(
				fc.array(
					fc.tuple(
						fc.integer({ min: 40, max: 900 }),
						fc.integer({ min: -80, max: 80 }).filter((turn) => Math.abs(turn) !== 2)
					),
					{
						minLength: 2,
						maxLength: 6
					}
				),
				fc.integer({ min: 100, max: 2000 }),
				(steps, high) => {
					const profile: [number, number][] = [[0, 0]];
					let turn = 0;
					steps.forEach(([length, degrees], k) => {
						turn += k ? (degrees / 180) * Math.PI : 0;
						const [x, y] = profile.at(-1)!;
						profile.push([x + length * Math.cos(turn), y + length * Math.sin(turn)]);
					});
					const at: At = (s, t) => {
						const [x, y] = profile[Math.round(s * steps.length)]!;
						return [x, high * t, y];
					};
					const pattern = flatPattern(sheetOf(at, steps.length, 2));
					const wide = steps.reduce((sum, [length]) => sum + length, 0);
					expect(pattern.off).to.equal(0);
					expect(netArea(pattern)).to.be.closeTo(wide * high, 1e-6 * wide * high);
					const folded = steps.slice(1).filter(([, degrees]) => Math.abs(degrees) > 2);
					const angles = pattern.folds.map(({ angle }) => (angle * 180) / Math.PI);
					expect(angles.sort((a, b) => a - b).map(Math.round)).to.deep.equal(
						folded.map(([, degrees]) => degrees).sort((a, b) => a - b)
					);
				}
			)
		);
	});

	it('a part of a sphere is not developable: as near as can be, and how far off is told', () => {
		const [r, reach] = [10_000, 0.06];
		const cap: At = (s, t) => {
			const [x, y] = [(s - 0.5) * 2 * r * reach, (t - 0.5) * 2 * r * reach];
			return [x, y, Math.sqrt(r * r - x * x - y * y)];
		};
		const side = sheetOf(cap, 10, 10);
		const pattern = flatPattern(side);
		expect(pattern.off).to.be.greaterThan(0.05);
		// A side of 120 mm; the strain of a cap of half width a is of the order of (a / r)² / 12, more at corners.
		expect(pattern.off / 120).to.be.lessThan(reach * reach);
		expect(pattern.area / areaOfTriangles(side.points, side.triangles)).to.be.closeTo(1, reach * reach);
		// Looser tries are no better: seen from above, sides at the rim are shorter by as much as they lean.
		expect(pattern.off).to.be.lessThan(120 * (1 - Math.sqrt(1 - 2 * reach * reach)));
	});

	it('a plate has the side it was made over, with what is cut out of it', () => {
		const solid = solidLibrary().Manifold.extrude(
			[
				[
					[0, 0],
					[1200, 0],
					[1200, 800],
					[0, 800]
				],
				[
					[300, 200],
					[300, 600],
					[700, 600],
					[700, 200]
				]
			],
			6
		);
		const sides = outerSides(meshOfSolid(solid), 6, [0, 0, 1]);
		solid.delete();
		expect(sides).to.have.length(1);
		const pattern = flatPattern(sides[0]!);
		expect([pattern.off, pattern.openings.length, pattern.outline.length]).to.deep.equal([0, 1, 4]);
		expect(netArea(pattern)).to.be.closeTo(1200 * 800 - 400 * 400, 1e-2);
	});

	it('a bent plate has its outer side, longer than its inner one by the thickness times the turn', () => {
		const bent = sheetOf((s, t) => [1000 * Math.cos(s), 1000 * Math.sin(s), 600 * t], 100, 1);
		const normalAt = (k: number) => [bent.points[3 * k]! / 1000, bent.points[3 * k + 1]! / 1000, 0];
		const plate = thickened(bent, 20, normalAt);
		const widths = [1, -1].map((sign) => {
			const [side] = outerSides(plate, 20, [sign, sign, 0]);
			return netArea(flatPattern(side!)) / 600;
		});
		expect(widths[0]).to.be.closeTo(1000, 0.02);
		expect(widths[0]! - widths[1]!).to.be.closeTo(20, 0.01);
	});

	it('a plate no wider than it is thick has its largest side', () => {
		const strip = solidLibrary().Manifold.cube([30, 900, 24]);
		const [side] = outerSides(meshOfSolid(strip), 24, [0, 0, 1]);
		strip.delete();
		expect(flatPattern(side!).area).to.be.closeTo(30 * 900, 1e-2);
	});

	it('what is no sheet has no side to lay flat', () => {
		const cube = solidLibrary().Manifold.cube([100, 100, 100]);
		expect(outerSides(meshOfSolid(cube), 4, [0, 0, 1])).to.deep.equal([]);
		cube.delete();
	});

	it('every plate of every shipped part on cells has patterns of its net area, however it is made', async () => {
		const dome = revolved(
			[
				[9000, 0],
				[7000, 4500],
				[3000, 6500]
			],
			'smooth'
		);
		const seen = new Set<string>();
		for (const { id, anchor } of shippedParts) {
			if (anchor.kind !== 'ring') continue;
			const project = projectOf(
				dome,
				count(24, 4),
				{ rules: [{ id: 'r', put: { variant: 'v' } }] },
				{ variants: [{ id: 'v', name: 'v', part: id, values: {} }] }
			);
			const zone = (await new Chain().run(project)).zones[0]!.model!;
			for (const { face, group } of zone.groups)
				for (const table of group.run.elements) {
					if (table.stock?.shape !== 'plate') continue;
					for (let k = 0; k < table.count; k += 7) {
						const mesh = { vertices: placesOf(table.shape, k), triangles: trianglesOf(table.shape, k) };
						const site = group.sites[table.row[k]!]!;
						const outward = pointAt(zone.faces[face]!.measures.normal, site);
						const patterns = outerSides(mesh, table.stock.sizes[0]![k]!, outward).map(flatPattern);
						const area = patterns.reduce((sum, one) => sum + one.area, 0);
						seen.add(id);
						// What follows its face is measured on the face, and lies out from it.
						const within = id === 'pierced-sheet' || id === 'bowed-panel' ? 0.01 : 1e-4;
						expect(area / table.area[k]!, `${id} ${k}`).to.be.closeTo(1, within);
						for (const { off } of patterns) expect(off === 0, id).to.equal(id !== 'bowed-panel');
					}
				}
		}
		expect(seen.size).to.be.greaterThan(10);
	});
});
