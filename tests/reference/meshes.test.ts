/**
 * Meshes that are written, read by others: OBJ and STL by three's loaders, 3MF by Python's archive and XML readers.
 */
import { expect } from 'chai';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { BufferGeometry, Mesh } from 'three';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { Chain } from '../../src/core/chain/chain';
import type { Model } from '../../src/core/cladding/model';
import { write3mf } from '../../src/core/exchange/3mf/write';
import { writeObj } from '../../src/core/exchange/obj/write';
import { writeStl } from '../../src/core/exchange/stl/write';
import { pieceMarks } from '../../src/core/mark/marks-of';
import { readProjectText } from '../../src/core/project/read';
import { volumeWithin } from '../trial-run';
import { textOf } from '../written';

/** The volume of every piece by its mark (mm³), as parts state it. */
function volumesOf(model: Model): Map<string, number> {
	const markOf = pieceMarks(model);
	const found = new Map<string, number>();
	for (const { model: zone } of model.zones)
		for (const clause of zone!.groups)
			for (const { count, row, volume } of clause.group.run.elements)
				for (let k = 0; k < count; k++) {
					const mark = markOf(zone!, clause, row[k]!);
					found.set(mark, (found.get(mark) ?? 0) + volume[k]!);
				}
	return found;
}
const placesIn = (geometry: BufferGeometry) => geometry.getAttribute('position').array;
/** Corners of triangles, one after the other. */
const inOrder = (count: number) => Array.from({ length: count }, (_, k) => k);

describe('meshes of pieces, read back by others', () => {
	let model: Model;
	let wanted: Map<string, number>;
	let total: number;
	before(async function () {
		this.timeout(60_000);
		const lido = readProjectText(readFileSync(new URL('../lido.json', import.meta.url), 'utf8'));
		model = await new Chain().run(lido);
		wanted = volumesOf(model);
		total = [...wanted.values()].reduce((a, b) => a + b, 0);
		expect(wanted.size).to.be.above(500);
	});

	it('OBJ: an object for every piece by its mark, with its volume, closed and turned outward', () => {
		const text = textOf(writeObj(model));
		expect(text.split('\n')[0]).to.match(/millimetres, z up$/);
		const read = new Map<string, number>();
		// The loader gives an object for every group: its pieces have the name that stood before.
		let piece = '';
		const byGroup = text.split(/^(?=[og] )/m).flatMap((part) => {
			if (part.startsWith('o ')) piece = part.slice(2, part.indexOf('\n'));
			return part.startsWith('g ') ? [piece] : [];
		});
		const meshes = new OBJLoader().parse(text).children as Mesh[];
		expect(meshes.length).to.equal(byGroup.length);
		meshes.forEach(({ geometry }, k) => {
			const places = placesIn(geometry);
			const name = byGroup[k]!;
			read.set(name, (read.get(name) ?? 0) + volumeWithin(places, inOrder(places.length / 3)));
		});
		expect(read.size).to.equal(wanted.size);
		for (const [mark, volume] of wanted) expect(read.get(mark)! / volume, mark).to.be.closeTo(1, 2e-3);
	});

	it('STL: all bodies with their volume, normals on the side that corners say', () => {
		const file = writeStl(model);
		expect(new TextDecoder().decode(file.subarray(0, 80))).to.contain('millimetres');
		const geometry = new STLLoader().parse(file.buffer);
		const [places, normals] = [placesIn(geometry), geometry.getAttribute('normal').array];
		expect(volumeWithin(places, inOrder(places.length / 3)) / total).to.be.closeTo(1, 1e-3);
		let flat = 0;
		for (let k = 0; k < places.length; k += 9) {
			const at = (c: number, a: number) => places[k + 3 * c + a]! - places[k + a]!;
			const normal = [0, 1, 2].map((a) => {
				const [p, q] = [(a + 1) % 3, (a + 2) % 3];
				return at(1, p) * at(2, q) - at(1, q) * at(2, p);
			});
			const size = Math.hypot(...normal);
			if (size < 1) flat++;
			else normal.forEach((value, a) => expect(normals[k + a]!).to.be.closeTo(value / size, 1e-3));
		}
		expect(flat).to.be.below(places.length / 900);
	});

	it('3MF: an item for every piece by its mark; items of one object have its volume; in millimetres', async () => {
		const folder = mkdtempSync(join(tmpdir(), 'zygaster-3mf-'));
		try {
			writeFileSync(join(folder, 'a.3mf'), await write3mf(model, '2026-01-01T00:00:00'));
			const script = `
import json, sys, zipfile
import xml.etree.ElementTree as tree
N = '{http://schemas.microsoft.com/3dmanufacturing/core/2015/02}'
archive = zipfile.ZipFile(sys.argv[1])
assert archive.testzip() is None
tree.fromstring(archive.read('[Content_Types].xml'))
target = tree.fromstring(archive.read('_rels/.rels'))[0].get('Target')
model = tree.fromstring(archive.read(target.lstrip('/')))
bases = len(model.find(N + 'resources').find(N + 'basematerials'))
volumes = {}
for object in model.find(N + 'resources').findall(N + 'object'):
    mesh = object.find(N + 'mesh')
    at = [(float(v.get('x')), float(v.get('y')), float(v.get('z'))) for v in mesh.find(N + 'vertices')]
    edges, volume = {}, 0
    for t in mesh.find(N + 'triangles'):
        assert int(t.get('p1')) < bases
        c = [int(t.get(k)) for k in ('v1', 'v2', 'v3')]
        for k in range(3):
            edge = (c[k], c[(k + 1) % 3])
            assert edge not in edges
            edges[edge] = True
        (a, b, d), (e, f, g), (h, i, j) = [at[k] for k in c]
        volume += (a * (f * j - g * i) + b * (g * h - e * j) + d * (e * i - f * h)) / 6
    assert all((b, a) in edges for a, b in edges)
    volumes[object.get('id')] = volume
items = []
for item in model.find(N + 'build'):
    m = [float(v) for v in item.get('transform').split()]
    turn = m[0]*(m[4]*m[8]-m[5]*m[7]) - m[1]*(m[3]*m[8]-m[5]*m[6]) + m[2]*(m[3]*m[7]-m[4]*m[6])
    items.append([item.get('partnumber'), volumes[item.get('objectid')] * turn, item.get('objectid')])
print(json.dumps({'unit': model.get('unit'), 'items': items}))
`;
			const { unit, items } = JSON.parse(
				execFileSync('python3', ['-c', script, join(folder, 'a.3mf')], {
					encoding: 'utf8',
					maxBuffer: 2 ** 28
				})
			) as { unit: string; items: [mark: string, volume: number, object: string][] };
			expect(unit).to.equal('millimeter');
			expect(items.map(([mark]) => mark).sort()).to.deep.equal([...wanted.keys()].sort());
			for (const [mark, volume] of items) expect(volume / wanted.get(mark)!, mark).to.be.closeTo(1, 2e-3);
			expect(new Set(items.map(([, , object]) => object)).size).to.be.below(items.length);
		} finally {
			rmSync(folder, { recursive: true, force: true });
		}
	});
});
