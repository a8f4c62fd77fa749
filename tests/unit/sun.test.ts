import { expect } from 'chai';
import { getSpa } from 'nrel-spa';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import type { FaceModel, Model } from '../../src/core/cladding/model';
import { columnValues, everySite } from '../../src/core/field/column';
import { fieldOf } from '../../src/core/field/fields';
import { blockerOf, FREE, makeBvh, type Bvh } from '../../src/core/geometry/bvh';
import type { Made } from '../../src/core/part/element-table';
import { directHours, type SunRays } from '../../src/core/sun/direct-hours';
import { momentOf, sunAt } from '../../src/core/sun/position';
import { hoursBetween, sunRays } from '../../src/core/sun/rays';
import { massSchema } from '../../src/core/project/form-schema';
import type { Sun } from '../../src/core/project/sun-schema';
import { sunSchema } from '../../src/core/project/sun-schema';
import { clockText, dayText, readClock, readDay } from '../../src/core/units/calendar';
import { inDegrees, inRadians } from '../../src/core/units/scale';
import { count, projectOf, sheet } from '../faces';

const sun = (more: Partial<Sun> = {}): Sun => ({ ...sunSchema.parse({}), ...more });
const between = (a: readonly number[], b: readonly number[]) =>
	inDegrees(Math.hypot(...a.map((value, k) => value - b[k]!)));
const way = (zenith: number, azimuth: number) => [
	Math.sin(zenith) * Math.sin(azimuth),
	Math.sin(zenith) * Math.cos(azimuth),
	Math.cos(zenith)
];

describe('the sun', () => {
	it('stands where the published case says, and its incidence (Reda and Andreas, NREL/TP-560-34302)', () => {
		const moment = momentOf('2003-10-17', 12.5 + 30 / 3600, -7);
		expect(moment.toISOString()).to.equal('2003-10-17T19:30:30.000Z');
		const { altitude, bearing, direction } = sunAt(
			{ latitude: 39.742476, longitude: -105.1786, north: 0 },
			moment
		);
		// Values from memory, confirmed by two libraries below. It stands at 1 830 m; at sea level the air bends it 0.004° more.
		expect(90 - inDegrees(altitude)).to.be.closeTo(50.111622, 0.01);
		expect(inDegrees(bearing)).to.be.closeTo(194.340241, 0.01);
		// A surface of 30° slope, turned 10° from south to the east.
		const towards = inRadians(180 - 10);
		const normal = way(inRadians(30), towards);
		const cosine = normal.reduce((sum, value, k) => sum + value * direction[k]!, 0);
		expect(inDegrees(Math.acos(cosine))).to.be.closeTo(25.187, 0.01);
	});

	it('stands where another implementation of that algorithm puts it, over the whole earth and forty years', () => {
		fc.assert(
			fc.property(
				fc.double({ min: -66, max: 66, noNaN: true }),
				fc.double({ min: -180, max: 180, noNaN: true }),
				fc.date({ min: new Date('2000-01-01'), max: new Date('2040-12-31'), noInvalidDate: true }),
				(latitude, longitude, moment) => {
					const here = sunAt({ latitude, longitude, north: 0 }, moment);
					const spa = getSpa(moment, latitude, longitude, 0, { function: 0 });
					// Near the horizon the two bend its light by other formulas of the air.
					if (here.altitude < inRadians(5)) return;
					expect(between(here.direction, way(inRadians(spa.zenith), inRadians(spa.azimuth)))).to.be.below(
						0.01
					);
				}
			)
		);
	});

	it('turns with true north', () => {
		const moment = momentOf('2026-06-21', 12, 0);
		const straight = sunAt(sun(), moment);
		const turned = sunAt(sun({ north: 30 }), moment);
		const [x, y] = straight.direction;
		const [c, s] = [Math.cos(inRadians(30)), Math.sin(inRadians(30))];
		// Clockwise, seen from above.
		expect(between(turned.direction, [c * x + s * y, c * y - s * x, straight.direction[2]])).to.be.below(
			1e-9
		);
		expect(turned.bearing).to.equal(straight.bearing);
	});

	it('shines as long on an open plane as the hour-angle formula says', () => {
		// cos ω = −tan φ tan δ: 14.8446 h at 40° and 23.44° (closed form, no refraction, middle of the disc).
		const rays = sunRays(
			sun({ latitude: 40, period: { from: '2026-06-21', to: '2026-06-21', since: 0, until: 24 } })
		);
		const hours = rays.hours.reduce((a, b) => a + b, 0);
		// Steps of an hour: half a step at either end at most, and what the air bends, about 0.1 h.
		expect(hours).to.be.closeTo(14.8446, 1.1);
		const year = sunRays(sun({ latitude: 0 }));
		const allYear = year.hours.reduce((a, b) => a + b, 0);
		// At the equator half of all hours, and four minutes each morning and evening by the air.
		expect(allYear / 8760).to.be.closeTo(0.5, 0.01);
		const level = directHours(
			makeBvh(new Float64Array(), new Uint32Array()),
			rays,
			{ middles: new Float64Array(3), normals: Float64Array.of(0, 0, 1), before: Float64Array.of(1) },
			0,
			1
		);
		expect(level[0]).to.be.closeTo(hours, 1e-9);
	});

	it('counts parts of hours at the ends', () => {
		expect(hoursBetween(8.5, 10)).to.deep.equal([
			[9, 1],
			[9.75, 0.5]
		]);
		fc.assert(
			fc.property(
				fc.double({ min: 0, max: 24, noNaN: true }),
				fc.double({ min: 0, max: 24, noNaN: true }),
				(a, b) => {
					const hours = hoursBetween(Math.min(a, b), Math.max(a, b));
					expect(hours.reduce((sum, [, share]) => sum + share, 0)).to.be.closeTo(Math.abs(a - b), 1e-9);
				}
			)
		);
	});

	it('reads days and hours as people write them', () => {
		expect(['21 June 2026', '21 jun', '2026-6-21'].map((text) => readDay(text, 2026))).to.deep.equal(
			new Array(3).fill('2026-06-21')
		);
		expect(['30 February', '0 May', 'June', '2026-13-01'].map((text) => readDay(text, 2026))).to.deep.equal(
			new Array(4).fill(null)
		);
		expect(dayText('2026-03-01')).to.equal('1 March 2026');
		expect(['12:30', '12.5', '7', '24:30', '25', 'noon'].map(readClock)).to.deep.equal([
			12.5,
			12.5,
			7,
			null,
			null,
			null
		]);
		expect(clockText(7.25)).to.equal('7:15');
	});
});

/** Triangles in a heap, and rays through it. */
const soup = fc
	.array(fc.array(fc.double({ min: -50, max: 50, noNaN: true }), { minLength: 9, maxLength: 9 }), {
		maxLength: 60
	})
	.map((triangles) => ({
		points: Float64Array.from(triangles.flat()),
		index: Uint32Array.from({ length: 3 * triangles.length }, (_, k) => k)
	}));
const ray = fc
	.array(fc.double({ min: -60, max: 60, noNaN: true }), { minLength: 6, maxLength: 6 })
	.filter((r) => Math.hypot(r[3]!, r[4]!, r[5]!) > 1);
/** One box round everything: every triangle is tried. */
const unboxed = ({ triangles }: Bvh): Bvh => ({
	boxes: Float32Array.of(-1e9, -1e9, -1e9, 1e9, 1e9, 1e9),
	first: Uint32Array.of(0),
	count: Uint32Array.of(triangles.length / 9),
	triangles
});

describe('shade', () => {
	it('boxes hide nothing: a ray is blocked where trying every triangle blocks it', () => {
		fc.assert(
			fc.property(soup, fc.array(ray, { minLength: 1, maxLength: 20 }), ({ points, index }, rays) => {
				const bvh = makeBvh(points, index);
				expect(bvh.triangles.length).to.equal(3 * index.length);
				for (const [x, y, z, dx, dy, dz] of rays) {
					const args = [x!, y!, z!, dx!, dy!, dz!, FREE] as const;
					expect(blockerOf(bvh, ...args) === FREE).to.equal(
						!index.length || blockerOf(unboxed(bvh), ...args) === FREE
					);
				}
			})
		);
	});

	it('the skyline of a place hides no blocker: hours are those of trying every triangle', () => {
		const unit = fc
			.tuple(...[0, 1, 2].map(() => fc.double({ min: -1, max: 1, noNaN: true })))
			.filter((v) => Math.hypot(...v) > 0.1)
			.map((v) => v.map((value) => value / Math.hypot(...v)));
		const skyward = unit.map(([x, y, z]) => [x!, y!, Math.abs(z!)]);
		fc.assert(
			fc.property(
				soup,
				fc.array(skyward, { minLength: 1, maxLength: 40 }),
				unit,
				fc.array(fc.double({ min: -60, max: 60, noNaN: true }), { minLength: 3, maxLength: 3 }),
				({ points, index }, directions, normal, middle) => {
					const rays: SunRays = {
						directions: Float64Array.from(directions.flat()),
						hours: new Float64Array(directions.length).fill(1)
					};
					const bvh = makeBvh(points, index);
					const places = {
						middles: Float64Array.from(middle),
						normals: Float64Array.from(normal),
						before: Float64Array.of(0.5)
					};
					const [x, y, z] = middle.map((value, k) => value + 0.5 * normal[k]!) as [number, number, number];
					const free = directions.filter(
						([dx, dy, dz]) =>
							dx! * normal[0]! + dy! * normal[1]! + dz! * normal[2]! > 0 &&
							(!index.length || blockerOf(unboxed(bvh), x, y, z, dx!, dy!, dz!, FREE) === FREE)
					);
					expect(directHours(bvh, rays, places, 0, 1)[0]).to.equal(free.length);
				}
			)
		);
	});

	it('a long screen before a wall takes the hours that the profile angle says', async () => {
		const upright = (id: string, y: number, width: number, height: number) => {
			const line = (z: number) => ({
				points: [
					[-width / 2, y, z],
					[width / 2, y, z]
				],
				joins: 'line',
				closed: false
			});
			return massSchema.parse({ id, name: id, form: { kind: 'ruled', foot: line(0), head: line(height) } });
		};
		// It looks south; the screen stands 6 m before it, 8 m high and so long that its ends do not matter.
		const [away, high] = [6000, 8000];
		const base = projectOf(sheet(1000, 1000), count(1, 8));
		const there = sun({
			latitude: 40,
			period: { from: '2026-02-01', to: '2026-04-30', since: 0, until: 24 }
		});
		const project = {
			...base,
			masses: [upright('low', 0, 10_000, 9000), upright('screen', -away, 2_000_000, high)],
			zones: [{ ...base.zones[0]!, faces: [{ mass: 'low', face: 'wall' }] }],
			sun: there
		};
		const model = await new Chain().run(project, { hoursOfSun: true });
		expect(model.problems).to.deep.equal([]);
		const { faces, suns } = model.zones[0]!.model!;
		const wanted = new Float64Array(8);
		for (let day = Date.parse('2026-02-01'); day <= Date.parse('2026-04-30'); day += 86_400_000)
			for (let hour = 0.5; hour < 24; hour++) {
				const spa = getSpa(new Date(day + hour * 3_600_000), 40, 0, 0, { function: 0 });
				const aside = inRadians(spa.azimuth - 180);
				if (spa.zenith >= 90 || Math.cos(aside) <= 0) continue;
				const rise = Math.tan(inRadians(90 - spa.zenith)) / Math.cos(aside);
				for (let c = 0; c < 8; c++)
					if (rise > (high - faces[0]!.measures.centre[3 * c + 2]!) / away) wanted[c]!++;
			}
		expect(wanted[0]).to.be.below(0.8 * wanted[7]!);
		// Suns within a degree count as one, which moves the edge of the shade by half of it at most.
		suns[0]!.hours!.forEach((hours, c) =>
			expect(hours, `course ${c + 1}`).to.be.closeTo(wanted[c]!, 0.02 * wanted[7]!)
		);
	});
});

/** Of a wall, how much its piece shades: straws of sun that a mesh stops, against all that reach a band of the wall. */
function shadedShare(
	model: Model,
	direction: readonly number[],
	band: readonly [low: number[], high: number[]]
): number {
	const { groups, faces } = model.zones[0]!.model!;
	const { origin } = faces[0]!;
	const meshes = groups.flatMap(({ group }) =>
		group.run.elements.map(({ shape, count }) => ({ shape: shape as Made, count }))
	);
	const points: number[] = [];
	const index: number[] = [];
	for (const { shape, count } of meshes)
		for (let piece = 0; piece < count; piece++) {
			const first = points.length / 3;
			for (let v = 0; v < 3 * shape.verticesEach; v++)
				points.push(shape.positions[3 * shape.verticesEach * piece + v]! + origin[v % 3]!);
			for (const corner of shape.triangles) index.push(first + corner);
		}
	const bvh = makeBvh(Float64Array.from(points), Uint32Array.from(index));
	// No whole number of them to a spacing.
	const STRAWS = 97;
	let stopped = 0;
	for (let a = 0; a < STRAWS; a++)
		for (let b = 0; b < STRAWS; b++) {
			const at = band[0].map(
				(low, k) => low + ([(a + 0.5) / STRAWS, 0, (b + 0.5) / STRAWS][k] ?? 0) * (band[1][k]! - low)
			);
			const [x, y, z] = at as [number, number, number];
			const [dx, dy, dz] = direction as [number, number, number];
			if (blockerOf(bvh, x, y, z, dx, dy, dz, FREE) !== FREE) stopped++;
		}
	return stopped / STRAWS ** 2;
}
const field = (face: FaceModel, name: string, direction: readonly [number, number, number]) => {
	const sunOver = { direction, hours: null };
	return columnValues(fieldOf('cell', name).column({ ...face, sun: sunOver }, everySite(1)), 1)[0]!;
};

describe('angles of the sun', () => {
	it('the profile angle is that of the handbook, and what an overhang shades', async () => {
		// tan(VSA) = tan(alt) / cos(HSA): standard formula, numbers computed.
		const wall = (await new Chain().run(projectOf(sheet(2000, 3000), count(1, 1)))).zones[0]!.model!
			.faces[0]!;
		for (const [altitude, aside, profile] of [
			[45, 60, 63.43495],
			[50, 30, 53.99479]
		] as const) {
			// The wall looks south (−y); the sun stands so far to the west of it.
			const direction = way(inRadians(90 - altitude), inRadians(180 + aside)) as [number, number, number];
			expect(inDegrees(field(wall, 'profile_angle', direction))).to.be.closeTo(profile, 1e-5);
			expect(inDegrees(field(wall, 'plan_angle', direction))).to.be.closeTo(aside, 1e-9);
			expect(inDegrees(field(wall, 'incidence', direction))).to.be.closeTo(
				inDegrees(Math.acos(Math.cos(inRadians(altitude)) * Math.cos(inRadians(aside)))),
				1e-9
			);
		}
		expect(800 * Math.tan(inRadians(53.99479))).to.be.closeTo(1100.89, 0.01);
	});

	const cases = [
		['blade-stack', { depth: 180, spacing: 250, thickness: 0.5, stand_off: 300, end_gap: 0 }],
		['upright-fins', { depth: 220, fins: 10, thickness: 0.5, stand_off: 300, end_gap: 0 }]
	] as const;
	for (const [part, values] of cases)
		it(`${part}: the shaded share is what straws of sun find on its blades`, async () => {
			for (const angle of [-35, 0, 25])
				for (const [day, hour] of [
					['2026-06-21', 13],
					['2026-03-20', 10],
					['2026-12-21', 14]
				] as const) {
					const project = projectOf(
						sheet(4000, 6000),
						count(1, 1),
						{ rules: [{ id: 'all', put: { variant: 'v', values: {} } }] } as never,
						{
							variants: [{ id: 'v', name: 'v', part, values: { ...values, angle } }],
							sun: sun({ day, hour })
						}
					);
					const model = await new Chain().run(project);
					expect(model.problems).to.deep.equal([]);
					const { direction } = model.zones[0]!.model!.suns[0]!;
					const share = model.zones[0]!.model!.groups[0]!.group.run.results.get('shaded')![0]!;
					// A band of whole spacings in the middle, so that the ends of blades and of the stack do not matter.
					const band: [number[], number[]] =
						part === 'blade-stack'
							? [
									[1800, 0, 2000],
									[2200, 0, 3000]
								]
							: [
									[1200, 0, 1600],
									[2800, 0, 2000]
								];
					expect(shadedShare(model, direction, band), `${angle}° on ${day}`).to.be.closeTo(share, 0.03);
				}
		});

	it('what cannot be a sun is said where it is said, and the last good model stays', async () => {
		const base = projectOf(sheet(2000, 3000), count(2, 2));
		const faults = [
			[{ latitude: 95 }, 'sun/latitude', /latitude 95° lies beyond the pole; −90 to 90 is accepted/],
			[{ hour: 25 }, 'sun/hour', /the day has no hour 25/],
			[
				{ period: { from: '2026-06-21', to: '2026-06-01', since: 0, until: 24 } },
				'sun/period',
				/ends before it begins/
			],
			[
				{ period: { from: '2026-06-21', to: '2026-06-21', since: 14, until: 9 } },
				'sun/period',
				/the second hour comes after the first/
			]
		] as const;
		for (const [more, at, says] of faults) {
			const { problems, zones } = await new Chain().run({ ...base, sun: sun(more as Partial<Sun>) });
			expect(problems.map((one) => one.at)).to.deep.equal([at]);
			expect(problems[0]!.text).to.match(says);
			expect(zones[0]!.model!.faces[0]!.cells.count).to.equal(4);
		}
	});
});

describe('blades that keep out the sun', () => {
	it('are turned so that the shade of each just reaches the next, or as near to it as they can be', async () => {
		const values = {
			angle: { is: 'keeps out', blades: 'lying', depth: 180, spacing: 250, to: [-90, 90] }
		};
		for (const [day, hour] of [
			['2026-06-21', 12],
			['2026-06-21', 9],
			['2026-12-21', 13]
		] as const) {
			const project = projectOf(
				sheet(3000, 2000),
				count(1, 1),
				{ rules: [{ id: 'all', put: { variant: 'v', values } }] } as never,
				{
					variants: [{ id: 'v', name: 'v', part: 'blade-stack', values: { depth: 180, spacing: 250 } }],
					sun: sun({ day, hour })
				}
			);
			const model = await new Chain().run(project);
			expect(model.problems).to.deep.equal([]);
			const { group } = model.zones[0]!.model!.groups[0]!;
			const sees = field(
				model.zones[0]!.model!.faces[0]!,
				'profile_angle',
				model.zones[0]!.model!.suns[0]!.direction
			);
			const shaded = group.run.results.get('shaded')![0]!;
			const angle = group.perPiece.get('angle')![0]!;
			// 250 mm apart, so many as 2 m hold; square to a low sun they shade 180 of 250 · cos P.
			const most = Math.min(1, 180 / (250 * Math.cos(sees)));
			expect(shaded, day).to.be.closeTo(most, 1e-9);
			if (most === 1) expect(inDegrees(angle)).to.be.within(-90, 90);
			else expect(angle).to.be.closeTo(sees - Math.PI / 2, 1e-9);
		}
	});
});
