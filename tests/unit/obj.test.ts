import { expect } from 'chai';
import fc from '../property';
import { ObjFault } from '../../src/core/exchange/obj/read-text';
import { readObjGrids } from '../../src/core/exchange/obj/read-grids';
import { evaluateGrid } from '../../src/core/geometry/surface';
import { pointAt, type Vector } from '../../src/core/geometry/vector';

/** A grid of points as an OBJ group of quads, its faces in an order of their own, each started at any corner. */
function groupOf(
	name: string,
	rows: Vector[][],
	order: (k: number) => number,
	closed = false,
	first = 0
): string {
	const columns = rows[0]!.length;
	const lines = [`o ${name}`, ...rows.flat().map((p) => `v ${p.join(' ')}`)];
	const faces: string[] = [];
	for (let j = 0; j + 1 < rows.length; j++)
		for (let i = 0; i < (closed ? columns : columns - 1); i++) {
			const at = (di: number, dj: number) => first + 1 + (j + dj) * columns + ((i + di) % columns);
			const corners = [at(0, 0), at(1, 0), at(1, 1), at(0, 1)];
			const turn = order(faces.length) % 4;
			faces.push(
				`f ${[...corners.slice(turn), ...corners.slice(0, turn)].map((v) => `${v}/${v}/1`).join(' ')}`
			);
		}
	const shuffled = faces.map((face, k) => ({ face, at: order(k) })).sort((a, b) => a.at - b.at);
	return [...lines, ...shuffled.map(({ face }) => face), ''].join('\n');
}
const grid = (columns: number, rows: number, at: (i: number, j: number) => Vector) =>
	Array.from({ length: rows }, (_, j) => Array.from({ length: columns }, (_, i) => at(i, j)));

describe('OBJ meshes that are grids', () => {
	it('become faces through every vertex, whatever the order of their faces and corners', async () => {
		await fc.assert(
			fc.asyncProperty(
				fc.integer({ min: 3, max: 7 }),
				fc.integer({ min: 3, max: 7 }),
				fc.integer({ min: 1, max: 1e6 }),
				async (columns, rows, seed) => {
					const points = grid(columns, rows, (i, j) => [
						900 * i,
						120 * Math.sin(i + seed) + 80 * Math.cos(j),
						1000 * j + 40 * Math.sin(seed * i)
					]);
					const order = (k: number) => Math.abs(Math.trunc(Math.sin(k * seed + 1) * 1e6));
					const { faces, refused } = await readObjGrids(groupOf('wall', points, order));
					expect(refused).to.deep.equal([]);
					const { surface, name } = faces[0]!;
					expect(name).to.equal('wall');
					expect([surface.countU, surface.countV]).to.deep.equal([columns, rows]);
					// Rows run upward, and the corners of the surface are those of the mesh.
					const ends = evaluateGrid(surface, [0, 1], [0, 1]).points;
					const corners = [points[0]![0]!, points[0]!.at(-1)!, points.at(-1)![0]!, points.at(-1)!.at(-1)!];
					corners.forEach((p, k) =>
						p.forEach((value, axis) => expect(pointAt(ends, k)[axis]).to.be.closeTo(value, 1e-6))
					);
				}
			),
			{ numRuns: 40 }
		);
	});

	it('tell how far the mesh is from the face: of chords of a circle their rise', async () => {
		const steps = 24;
		const circle = grid(steps + 1, 5, (i, j) => {
			const t = (Math.PI * i) / steps;
			return [5000 * Math.cos(t), 5000 * Math.sin(t), 1500 * j];
		});
		const { faces } = await readObjGrids(groupOf('vault', circle, (k) => k));
		const rise = 5000 * (1 - Math.cos(Math.PI / steps / 2));
		expect(faces[0]!.deviation / rise).to.be.closeTo(1, 0.02);
	});

	it('a tube closes, and a fine mesh is drawn through fewer lines with its error told', async () => {
		const tube = grid(16, 4, (i, j) => {
			const t = (2 * Math.PI * i) / 16;
			return [3000 * Math.cos(t), 3000 * Math.sin(t), 1000 * j];
		});
		const fine = grid(121, 5, (i, j) => [100 * i, 300 * Math.sin(i / 7), 900 * j]);
		const text = groupOf('tube', tube, (k) => 7 * k, true) + groupOf('fine', fine, (k) => k, false, 64);
		const { faces, refused } = await readObjGrids(text);
		expect(refused).to.deep.equal([]);
		const [closed, thinned] = faces as [(typeof faces)[0], (typeof faces)[0]];
		const [from, to] = [0, 1].map((k) => pointAt(evaluateGrid(closed.surface, [0, 1], [0.5]).points, k));
		from!.forEach((value, axis) => expect(to![axis]).to.be.closeTo(value, 1e-6));
		expect(thinned.surface.countU).to.equal(48);
		expect(thinned.deviation).to.be.within(0.01, 5);
	});

	it('what is no grid is told by group and line; a broken file is refused', async () => {
		const triangles = 'o fan\nv 0 0 0\nv 1 0 0\nv 1 1 0\nf 1 2 3\n';
		const { refused: one } = await readObjGrids(triangles);
		expect(one[0]).to.match(/^group "fan", line 5: a face has 3 corners; grids of four-cornered faces/);
		const missing = groupOf(
			'gap',
			grid(4, 4, (i, j) => [i, 0, j]),
			(k) => k
		).replace(/f .*\n$/, '');
		const { refused: two } = await readObjGrids(missing);
		expect(two[0]).to.match(/^group "gap", line \d+: its 8 faces are no rectangular grid/);
		const twice = `${groupOf(
			'twice',
			grid(3, 2, (i, j) => [i, 0, j]),
			(k) => k
		)}f 1 2 5 4\n`;
		const { refused: three } = await readObjGrids(twice);
		expect(three[0]).to.match(/two faces run along one edge the same way/);
		const fails = async (text: string, says: RegExp) => {
			try {
				await readObjGrids(text);
				expect.fail('it was taken');
			} catch (error) {
				expect(error).to.be.instanceOf(ObjFault);
				expect((error as Error).message).to.match(says);
			}
		};
		await fails('v 0 0\n', /line 1: "v 0 0" is no vertex/);
		await fails('v 0 0 0\nf 1 2 3\n', /line 2: the face names the vertex 2, which is not there/);
		await fails('v 0 0 0\n', /holds no faces/);
	});
});
