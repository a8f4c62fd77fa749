import { expect } from 'chai';
import * as THREE from 'three';
import { Chain } from '../../src/core/chain/chain';
import { CellLayer } from '../../src/lib/model/cell-layer';
import { faceView } from '../../src/lib/worker/views';
import { count, projectOf, sheet } from '../faces';

describe('the cells of a face in the picture', () => {
	it('are those of the newest face at its place as soon as it is shown', async () => {
		const chain = new Chain();
		const faceOf = async (across: number) => {
			const { zones } = await chain.run(projectOf(sheet(12000, 6000), count(across, 3)));
			return faceView(zones[0]!.model!.faces[0]!);
		};
		const [few, many] = [await faceOf(4), await faceOf(9)];
		const root = new THREE.Group();
		const layer = new CellLayer(root, true);
		const children: number[] = [];
		for (const face of [few, many]) {
			const { count: cells } = face.cells;
			layer.show(
				face,
				0,
				0,
				{ palette: ['#ffffff'], of: new Uint8Array(cells) },
				'clad',
				null,
				{ standing: new Uint8Array(cells), covered: new Uint8Array(cells), behind: false },
				{ kinds: [], lines: [] }
			);
			expect(layer.of({ zone: 0, face: 0 })!.view).to.equal(face);
			children.push(root.children.length);
		}
		expect(layer.size).to.equal(1);
		// Its mesh, its stand-ins, its lines and its nodes: none of the one before is left.
		layer.keepOnly(new Set());
		expect(children).to.deep.equal([root.children.length + 4, root.children.length + 4]);
	});
});
