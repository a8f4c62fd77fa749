import { expect } from 'chai';
import * as THREE from 'three';
import { Chain } from '../../src/core/chain/chain';
import { CellLayer } from '../../src/lib/model/cell-layer';
import { inDetail, type Chunk } from '../../src/lib/model/detail';
import { Matter } from '../../src/lib/model/matter';
import { PieceLayer } from '../../src/lib/model/piece-layer';
import { plainPieces } from '../../src/lib/model/plain-pieces';
import { modelMessage, type FaceView, type GroupView } from '../../src/lib/worker/views';
import { count, projectOf, sheet } from '../faces';
import fc from '../property';

const chunk: fc.Arbitrary<Chunk> = fc.record({
	triangles: fc.nat(100),
	inView: fc.boolean(),
	away: fc.nat(50)
});

describe('a budget of triangles', () => {
	it('is kept but for the nearest, and nothing plain is nearer than what is detailed', () => {
		fc.assert(
			fc.property(fc.array(chunk, { minLength: 1, maxLength: 30 }), fc.nat(1500), (chunks, most) => {
				const detailed = inDetail(chunks, most);
				const own = chunks.filter((_, k) => detailed[k]);
				const sum = own.reduce((all, { triangles }) => all + triangles, 0);
				expect(own.length).to.be.at.least(1);
				if (own.length > 1) expect(sum).to.be.at.most(most);
				const rank = ({ inView, away }: Chunk) => (inView ? 0 : 100) + away;
				const farthest = Math.max(...own.map(rank));
				const plain = chunks.filter((_, k) => !detailed[k]);
				for (const one of plain) expect(rank(one)).to.be.at.least(farthest);
				// Room is not left for the next one.
				const next = plain.sort((a, b) => rank(a) - rank(b))[0];
				if (next)
					expect(plain.some((one) => rank(one) === rank(next) && sum + one.triangles > most)).to.equal(true);
			})
		);
	});

	it('draws pieces plainly as their cells: of the same area, on the same places', async () => {
		const project = projectOf(
			sheet(70_000, 65_000),
			count(40, 50),
			{ rules: [{ id: 'all', put: { variant: 'p', values: {} } }] },
			{ variants: [{ id: 'p', name: 'p', part: 'framed-glass', values: {} }] }
		);
		const { zones } = modelMessage(await new Chain().run(project), new Set(), 0);
		const [face, groups] = [zones[0]!.faces[0] as FaceView, zones[0]!.groups as GroupView[]];
		const root = new THREE.Group();
		const cells = new CellLayer(root, true);
		const nothing = new Uint8Array(2000);
		cells.show(
			face,
			0,
			0,
			{ palette: ['#fff'], of: nothing },
			'clad',
			null,
			{ standing: nothing, covered: nothing, behind: false },
			{ kinds: [], lines: [] }
		);
		expect(groups.length).to.be.greaterThan(1);
		let area = 0;
		for (const group of groups) {
			const mesh = plainPieces(group, cells.of({ zone: 0, face: 0 })!, new Matter(true))!.drawn as THREE.Mesh;
			const { index } = mesh.geometry;
			const places = mesh.geometry.getAttribute('position');
			const at = (k: number) => new THREE.Vector3().fromBufferAttribute(places, index!.getX(k));
			let own = 0;
			for (let k = 0; k < index!.count; k += 3)
				own += new THREE.Triangle(at(k), at(k + 1), at(k + 2)).getArea();
			const wanted = [...group.sites].reduce((sum, c) => sum + face.measures.area[c]!, 0);
			expect(own / wanted).to.be.closeTo(1, 1e-4);
			area += own;
			// More is seen of the pane than of its frame: it is seen through.
			expect((mesh.material as THREE.Material).opacity).to.be.lessThan(0.8);
		}
		expect(area / (70_000 * 65_000)).to.be.closeTo(1, 1e-4);
	});

	it('a group that stays while its zone changes places is told in its new one', async () => {
		const project = projectOf(
			sheet(3000, 3000),
			count(2, 2),
			{ rules: [{ id: 'all', put: { variant: 'p', values: {} } }] },
			{ variants: [{ id: 'p', name: 'p', part: 'framed-glass', values: {} }] }
		);
		const { zones } = modelMessage(await new Chain().run(project), new Set(), 0);
		const pieces = new PieceLayer(new THREE.Group(), 'plain');
		const told = () => [...new Set(Array.from(pieces.all(), ({ zone }) => zone))];
		for (const place of [0, 1]) {
			for (const group of zones[0]!.groups as GroupView[]) pieces.show(group, place, true, null);
			expect(told()).to.deep.equal([place]);
		}
	});
});
