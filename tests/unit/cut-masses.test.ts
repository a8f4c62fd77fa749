import { expect } from 'chai';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import type { Model } from '../../src/core/cladding/model';
import { trimmedArea } from '../../src/core/measure/trimmed';
import { onFace } from '../../src/core/mass/trim/project';
import type { Face } from '../../src/core/mass/face';
import { EVERY_FACE, type Form } from '../../src/core/project/form-schema';
import type { Project } from '../../src/core/project/schema';
import { readProject } from '../../src/core/project/read';
import { revolved } from '../faces';

/** Upright, open at foot and head. */
const drum = (radius: number, height: number, x = 0): Form => ({
	...(revolved([
		[radius, 0],
		[radius, height]
	]) as Extract<Form, { kind: 'revolved' }>),
	axis: [x, 0]
});
/** Half a ball over the ground. */
const ball = (radius: number): Form => ({
	kind: 'dome',
	radii: [radius, radius, radius],
	at: [0, 0],
	foot: 0,
	cut: 0
});
/** A flat wall along x, facing −y, at a distance from the middle. */
const wall = (y: number, width: number, height: number): Form => {
	const line = (z: number) => ({
		points: [
			[-width / 2, y, z],
			[width / 2, y, z]
		] as [number, number, number][],
		joins: 'line' as const,
		closed: false
	});
	return { kind: 'ruled', foot: line(0), head: line(height) };
};

const cut = (mass: string, keep: 'outside' | 'inside' = 'outside', face = EVERY_FACE, within = 1) => ({
	by: 'mass' as const,
	id: `by-${mass}`,
	face,
	within,
	keep,
	mass
});
const projectOf = (masses: { id: string; form: Form; trims?: object[] }[]): Project =>
	readProject({
		format: 'zygaster project',
		version: 9,
		id: '5b1f6d0e-8a3c-4f27-9c1e-2f7d90b4a6e1',
		name: 'Test',
		masses: masses.map(({ id, form, trims = [] }) => ({ id, name: id, form, trims }))
	});
const facesOf = (model: Model, id: string): readonly Face[] => {
	expect(model.problems.map(({ text }) => text)).to.deep.equal([]);
	return model.masses.find((mass) => mass.id === id)!.faces;
};
const run = (masses: Parameters<typeof projectOf>[0]) => new Chain().run(projectOf(masses));
const places = ({ trims }: Face) => trims.flatMap(({ curves }) => curves.flatMap((one) => one.places));
/** Those that lie on the face itself. */
const corners = (face: Face) =>
	places(face)
		.filter(([, v]) => v >= face.surface.knotsV[0]! && v <= face.surface.knotsV.at(-1)!)
		.map((place) => onFace(face, place));

describe('a mass cut by another', () => {
	it('an upright drum by another: what is left of each is an arc times its height (closed form)', async () => {
		await fc.assert(
			fc.asyncProperty(
				fc.integer({ min: 3000, max: 9000 }),
				fc.integer({ min: 3000, max: 9000 }),
				fc.double({ min: 0.15, max: 0.85, noNaN: true }),
				async (r, s, share) => {
					const apart = Math.abs(r - s) + share * (r + s - Math.abs(r - s));
					const model = await run([
						{ id: 'a', form: drum(r, 6000), trims: [cut('b')] },
						{ id: 'b', form: drum(s, 6000, apart), trims: [cut('a')] }
					]);
					for (const [id, own, other] of [
						['a', r, s],
						['b', s, r]
					] as const) {
						const half = Math.acos((own * own + apart * apart - other * other) / (2 * own * apart));
						const wanted = (2 * Math.PI - 2 * half) * own * 6000;
						const [face] = facesOf(model, id);
						expect(trimmedArea(face!)).to.be.closeTo(wanted, 1e-4 * wanted);
					}
				}
			),
			{ numRuns: 6 }
		);
	});

	it('a wall by half a ball: half a disc is gone, or alone is left; the curve lies on both', async () => {
		const [R, y] = [5000, -1800];
		const disc = (Math.PI / 2) * (R * R - y * y);
		for (const keep of ['outside', 'inside'] as const) {
			const model = await run([
				{ id: 'wall', form: wall(y, 16000, 7000), trims: [cut('ball', keep)] },
				{ id: 'ball', form: ball(R) }
			]);
			const [face] = facesOf(model, 'wall');
			const wanted = keep === 'inside' ? disc : 16000 * 7000 - disc;
			expect(trimmedArea(face!)).to.be.closeTo(wanted, 2e-4 * wanted);
			const on = corners(face!);
			expect(on.length).to.be.greaterThan(20);
			for (const [x, , z] of on) expect(Math.hypot(x, y, z)).to.be.closeTo(R, 1e-3);
		}
	});

	it('a ball by a wall through it: two caps of the height that they have (Archimedes, 2πRh)', async () => {
		const [R, y] = [5000, -1800];
		for (const [keep, height] of [
			['outside', R + y],
			['inside', R - y]
		] as const) {
			const model = await run([
				{ id: 'ball', form: ball(R), trims: [cut('wall', keep)] },
				{ id: 'wall', form: wall(y, 16000, 7000) }
			]);
			const [face] = facesOf(model, 'ball');
			// Half of a cap: the ground cuts it.
			const wanted = Math.PI * R * height;
			expect(trimmedArea(face!)).to.be.closeTo(wanted, 3e-4 * wanted);
		}
	});

	it('follows what cuts it, and not what trims that; faces that lie within it are gone', async () => {
		const chain = new Chain();
		const project = (radius: number, trims: object[] = []) =>
			projectOf([
				{ id: 'wall', form: wall(-1800, 16000, 7000), trims: [cut('ball')] },
				{ id: 'ball', form: ball(radius), trims }
			]);
		const area = (model: Model) => trimmedArea(facesOf(model, 'wall')[0]!);
		const before = area(await chain.run(project(5000)));
		const larger = area(await chain.run(project(5200)));
		expect(before - larger).to.be.closeTo((Math.PI / 2) * (5200 ** 2 - 5000 ** 2), 2000);
		const level = { by: 'level', id: 'top', face: 'shell', height: 3000 };
		const shell = (await chain.run(project(5200))).masses[1]!.faces[0]!.name;
		expect(area(await chain.run(project(5200, [{ ...level, face: shell }])))).to.equal(larger);

		const block: Form = {
			kind: 'prism',
			outline: { shape: 'rectangle', width: 3000, depth: 3000, rounding: 0 },
			at: [4500, 0],
			foot: 0,
			head: 2000
		} as never;
		const whole = facesOf(await run([{ id: 'block', form: block }]), 'block').length;
		const left = facesOf(
			await run([
				{ id: 'block', form: block, trims: [cut('ball')] },
				{ id: 'ball', form: ball(5000) }
			]),
			'block'
		);
		// The side towards the middle of the ball lies within it all over.
		expect(left).to.have.length(whole - 1);
	});

	it('what cannot be is said: itself, one that is not there, one that does not meet it, nothing left', async () => {
		const said = async (trims: object[], other: Form = ball(5000)) => {
			const model = await run([
				{ id: 'wall', form: wall(-1800, 16000, 7000), trims },
				{ id: 'ball', form: other }
			]);
			return model.problems[0];
		};
		expect((await said([cut('wall')]))!.text).to.match(/cannot be cut by itself/);
		expect((await said([cut('tower')]))!.text).to.equal('the mass "tower" does not exist; known: wall, ball');
		expect((await said([cut('ball', 'outside', 'skin')], ball(900)))!.text).to.match(/do not meet|no face/);
		expect((await said([cut('ball', 'inside')], ball(900)))!.text).to.match(/nothing of it is left/);
		expect((await said([cut('ball', 'outside', EVERY_FACE, 0)]))!.text).to.match(/0.1 mm or more/);
		expect(await said([cut('ball')], ball(900))).to.equal(undefined);
	});
});
