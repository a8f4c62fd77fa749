import { expect } from 'chai';
import Module from 'manifold-3d';
import { evaluateGrid } from '../../src/core/geometry/surface';
import { massFaces } from '../../src/core/mass/faces';
import type { Face } from '../../src/core/mass/face';
import type { Form, OutlineDefinition } from '../../src/core/project/form-schema';
import { trimmedArea } from '../../src/core/measure/trimmed';

const facesOf = (form: Form) =>
	massFaces({ id: 'm', name: 'Mass', form, faces: [], evened: null, trims: [] });

/**
 * The flow of (x, 0, 0) out through a face (mm³): over all walls of an upright body it is its volume, since
 * top and foot let none of it through (divergence theorem). Straight
 * upward, so one height stands for all; midpoints across.
 */
function flowAlongX({ surface }: Face): number {
	const n = 200;
	let sum = 0;
	const knots = [...new Set(surface.knotsU)];
	knots.slice(1).forEach((end, piece) => {
		const from = knots[piece]!;
		const us = Array.from({ length: n }, (_, k) => from + ((k + 0.5) / n) * (end - from));
		const { points, du, dv } = evaluateGrid(surface, us, [0.5]);
		for (let k = 0; k < points.length; k += 3)
			sum += (points[k]! * (du[k + 1]! * dv[k + 2]! - du[k + 2]! * dv[k + 1]!) * (end - from)) / n;
	});
	return sum;
}

describe('volume of a prism mass', () => {
	const bay: OutlineDefinition = {
		shape: 'drawn',
		points: [
			[0, 0],
			[14000, 0],
			[14000, 5000],
			[6000, 5000],
			[6000, 11000],
			[0, 11000]
		],
		joins: 'line',
		mirrored: false,
		rounding: 0
	};
	const cases: [string, OutlineDefinition, number, [number, number][]][] = [
		['an angle', bay, 14000 * 5000 + 6000 * 6000, bay.points],
		[
			'six sides',
			{ shape: 'polygon', sides: 6, radius: 7000, rounding: 0 },
			1.5 * Math.sqrt(3) * 7000 ** 2,
			Array.from({ length: 6 }, (_, k): [number, number] => [
				7000 * Math.cos((k * Math.PI) / 3),
				7000 * Math.sin((k * Math.PI) / 3)
			])
		],
		[
			'rounded corners',
			{ shape: 'rectangle', width: 9000, depth: 6000, rounding: 1500 },
			9000 * 6000 - (4 - Math.PI) * 1500 ** 2,
			[]
		]
	];
	for (const [name, outline, area, corners] of cases)
		it(`${name}: plan area times height, and as manifold-3d extrudes it`, async () => {
			const height = 8300;
			const faces = facesOf({
				kind: 'prism',
				outline,
				at: [3000, -2000],
				foot: 500,
				head: 500 + height,
				curved: []
			});
			const walls = faces.filter((face) => face.name !== 'cap');
			const volume = walls.reduce((sum, face) => sum + flowAlongX(face), 0);
			expect(volume / (area * height)).to.be.closeTo(1, outline.shape === 'rectangle' ? 1e-5 : 1e-9);
			// The cap is the plan once more; rounded corners are followed to within a millimetre.
			const cap = faces.find((face) => face.name === 'cap')!;
			expect(trimmedArea(cap) / area).to.be.closeTo(1, corners.length ? 1e-9 : 3e-4);
			if (!corners.length) return;
			const { CrossSection } = await loaded();
			const solid = new CrossSection([corners]).extrude(height);
			// The library keeps single precision.
			expect(volume / solid.volume()).to.be.closeTo(1, 1e-6);
		});
});

let module: Awaited<ReturnType<typeof Module>> | null = null;
async function loaded() {
	if (!module) {
		module = await Module();
		module.setup();
	}
	return module;
}
