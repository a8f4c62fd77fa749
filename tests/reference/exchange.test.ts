import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import Papa from 'papaparse';
import { WebIO } from '@gltf-transform/core';
import * as webIfc from 'web-ifc';
import { Chain } from '../../src/core/chain/chain';
import { count, projectOf, sheet } from '../faces';
import type { Model } from '../../src/core/cladding/model';
import { scheduleCsv } from '../../src/core/exchange/csv/write';
import { writeGlb } from '../../src/core/exchange/glb/write';
import { writeIfc } from '../../src/core/exchange/ifc/write';
import { flagTexts, pieceAddress } from '../../src/core/schedule/pieces';
import { instancesOf } from '../../src/core/part/element-table';
import { placesOf } from '../../src/core/part/places';
import { volumeWithin } from '../trial-run';
import { textOf } from '../written';
import { projectJson } from '../../src/core/exchange/json/write';
import { StepFile, type StepValue } from '../../src/core/exchange/step/part21';
import { readProjectText } from '../../src/core/project/read';
import { columnOf, textHead } from '../../src/core/schedule/column';
import { makeSchedule } from '../../src/core/schedule/table';
import { summarise } from '../../src/core/schedule/summary';
import { schemaFaults } from './ifc-schema';

const load = createRequire(import.meta.url);
const demo = readFileSync(new URL('../lido.json', import.meta.url), 'utf8');
const example = readFileSync(new URL('../../docs/examples/small.json', import.meta.url), 'utf8');

describe('files, read back by readers that did not write them', () => {
	let model: Model;
	let louvers: number;
	before(async () => {
		model = await new Chain().run(readProjectText(demo));
		const pieces = summarise(model).zones.map((zone) => zone.pieces['Blade stack'] ?? 0);
		louvers = pieces.reduce((a, b) => a + b, 0);
	});

	it('CSV (RFC 4180): every row and sum comes back, formulas are guarded', () => {
		const schedule = makeSchedule(model, 'panels');
		const parse = (text: string) => {
			const { data, errors } = Papa.parse<string[]>(text, { newline: '\r\n' });
			expect(errors).to.deep.equal([]);
			return data;
		};
		const [head, ...rows] = parse(scheduleCsv(schedule.columns));
		expect(rows.length).to.equal(schedule.rows);
		for (const row of rows) expect(row.length).to.equal(head!.length);
		const at = head!.indexOf('Glass (m2)');
		const glass = rows.reduce((sum, row) => sum + Number(row[at]), 0);
		expect(glass).to.be.closeTo(summarise(model).glass_m2, 0.05);
		// Text of every kind comes back as it was, guarded where a spreadsheet would reckon with it.
		const texts = [
			'plain',
			'a,b',
			'say "so"',
			' blank before',
			'two\r\nlines',
			'',
			"it's",
			'=1+1',
			'-2',
			'@x',
			'+3'
		];
		const columns = [0, 1].map(() => columnOf(textHead('said', 'Said'), texts));
		const back = parse(scheduleCsv(columns)).slice(1);
		expect(back).to.deep.equal(
			texts.map((value) => {
				const guarded = /^[=+@-]/.test(value) ? `'${value}` : value;
				return [guarded, guarded];
			})
		);
	});

	it('JSON: the project comes back the same', () => {
		expect(readProjectText(projectJson(model.project))).to.deep.equal(model.project);
	});

	it('GLB (glTF 2.0): gltf-validator finds no error; one node per piece with address and mark', async () => {
		const glb = writeGlb(model);
		const validator = load('gltf-validator') as {
			validateBytes(bytes: Uint8Array): Promise<{ issues: { numErrors: number; messages: unknown[] } }>;
		};
		const report = await validator.validateBytes(glb);
		expect(report.issues.numErrors, JSON.stringify(report.issues.messages.slice(0, 3))).to.equal(0);
		const length = new DataView(glb.buffer, glb.byteOffset).getUint32(12, true);
		const json = JSON.parse(new TextDecoder().decode(glb.subarray(20, 20 + length))) as {
			nodes: {
				extras?: { address?: string; mark?: string };
				translation?: number[];
				matrix?: number[];
				mesh?: number;
			}[];
			accessors: { type: string; min?: number[]; max?: number[] }[];
		};
		const { panels, bars } = summarise(model);
		const marked = json.nodes.filter((node) => node.extras?.address);
		expect(marked.length).to.equal(panels + bars.count + louvers);
		expect(new Set(marked.map((node) => node.extras!.address)).size).to.equal(marked.length);
		// What several pieces have is one mesh.
		expect(new Set(marked.map((node) => node.mesh)).size).to.be.below(0.8 * marked.length);
		// Metres and Y up: the roof stands between 4 and 10 m over the ground.
		const roof = json.nodes.filter((node) => node.extras?.mark?.startsWith('GR-'));
		for (const node of roof) expect(node.translation?.[1] ?? node.matrix![13]).to.be.within(3, 11);
	});

	it('GLB: every piece stands where it stands, with its own mesh or one that it shares', async () => {
		const document = await new WebIO().readBinary(writeGlb(model));
		const wanted = boxesOf(model);
		let compared = 0;
		for (const node of document.getRoot().listNodes()) {
			const mesh = node.getMesh();
			if (!mesh) continue;
			const m = node.getWorldMatrix();
			const box = new Box();
			for (const primitive of mesh.listPrimitives()) {
				const places = primitive.getAttribute('POSITION')!.getArray()!;
				const world: number[] = [];
				for (let o = 0; o < places.length; o += 3) {
					const [x, y, z] = [0, 1, 2].map(
						(a) => m[a]! * places[o]! + m[4 + a]! * places[o + 1]! + m[8 + a]! * places[o + 2]! + m[12 + a]!
					) as [number, number, number];
					world.push(1000 * x, -1000 * z, 1000 * y);
				}
				box.take(world);
			}
			const address = node.getExtras()['address'] as string;
			box.isAs(wanted.get(address)!, address);
			compared++;
		}
		expect(compared).to.be.above(1000);
	});

	describe('IFC4 (ISO 16739-1)', () => {
		let text: string;
		const api = new webIfc.IfcAPI();
		let file: number;
		before(async () => {
			text = textOf(writeIfc(model, '2026-01-01T00:00:00'));
			await api.Init();
			file = api.OpenModel(new TextEncoder().encode(text));
		});
		after(() => api.CloseModel(file));
		const lines = (type: number) => {
			const ids = api.GetLineIDsWithType(file, type);
			return Array.from({ length: ids.size() }, (_, k) => ids.get(k));
		};

		it('web-ifc finds every piece, assembly and type', () => {
			const { panels, bars } = summarise(model);
			expect(lines(webIfc.IFCPLATE).length).to.equal(panels);
			expect(lines(webIfc.IFCMEMBER).length).to.equal(bars.count);
			expect(lines(webIfc.IFCSHADINGDEVICE).length).to.equal(louvers);
			const device = api.GetLine(file, lines(webIfc.IFCSHADINGDEVICE)[0]!) as {
				ObjectType: { value: string };
				PredefinedType: { value: string };
			};
			expect(device.ObjectType.value).to.equal('LOUVER');
			expect(device.PredefinedType.value).to.equal('USERDEFINED');
		});

		it('every piece is in one assembly, every assembly in a storey, the spatial tree is whole', () => {
			const refs = (value: unknown) => (value as { value: number }[]).map((one) => one.value);
			const parent = new Map<number, number>();
			for (const id of lines(webIfc.IFCRELAGGREGATES)) {
				const line = api.GetLine(file, id) as { RelatingObject: { value: number }; RelatedObjects: unknown };
				for (const part of refs(line.RelatedObjects)) {
					expect(parent.has(part), 'aggregated once').to.equal(false);
					parent.set(part, line.RelatingObject.value);
				}
			}
			for (const id of lines(webIfc.IFCRELCONTAINEDINSPATIALSTRUCTURE)) {
				const line = api.GetLine(file, id) as {
					RelatingStructure: { value: number };
					RelatedElements: unknown;
				};
				for (const part of refs(line.RelatedElements)) parent.set(part, line.RelatingStructure.value);
			}
			const [project] = lines(webIfc.IFCPROJECT);
			for (const piece of [webIfc.IFCPLATE, webIfc.IFCMEMBER, webIfc.IFCSHADINGDEVICE].flatMap(lines)) {
				let at: number | undefined = piece;
				for (let up = 0; up < 8 && at !== project; up++) at = parent.get(at!);
				expect(at).to.equal(project);
			}
		});

		/** m */
		const DEEPEST = 0.2;

		it('every piece is in the storey that it stands in, every zone is a group of its assemblies', () => {
			const refs = (value: unknown) => (value as { value: number }[]).map((one) => one.value);
			const storeyOf = new Map<number, number>();
			for (const id of lines(webIfc.IFCRELCONTAINEDINSPATIALSTRUCTURE)) {
				const line = api.GetLine(file, id) as {
					RelatingStructure: { value: number };
					RelatedElements: unknown;
				};
				for (const part of refs(line.RelatedElements)) storeyOf.set(part, line.RelatingStructure.value);
			}
			const assemblies = new Set(storeyOf.keys());
			for (const id of lines(webIfc.IFCRELAGGREGATES)) {
				const line = api.GetLine(file, id) as { RelatingObject: { value: number }; RelatedObjects: unknown };
				const storey = storeyOf.get(line.RelatingObject.value);
				if (storey) for (const part of refs(line.RelatedObjects)) storeyOf.set(part, storey);
			}
			const storeys = lines(webIfc.IFCBUILDINGSTOREY).map((id) => {
				const { Elevation, Name } = api.GetLine(file, id) as Record<'Elevation' | 'Name', { value: number }>;
				return { id, low: Elevation.value / 1000, name: Name.value };
			});
			storeys.sort((a, b) => a.low - b.low);
			expect(storeys.map(({ name }) => name)).to.deep.equal(
				[...model.project.levels].sort((a, b) => a.height - b.height).map(({ name }) => name)
			);
			let checked = 0;
			const used = new Set<number>();
			// In metres, y up.
			api.StreamAllMeshes(file, (mesh) => {
				const s = storeys.findIndex(({ id }) => id === storeyOf.get(mesh.expressID));
				expect(s).to.be.at.least(0);
				used.add(s);
				let [low, high] = [Infinity, -Infinity];
				for (let k = 0; k < mesh.geometries.size(); k++) {
					const { geometryExpressID, flatTransformation: m } = mesh.geometries.get(k);
					const geometry = api.GetGeometry(file, geometryExpressID);
					const vertices = api.GetVertexArray(geometry.GetVertexData(), geometry.GetVertexDataSize());
					for (let o = 0; o < vertices.length; o += 6) {
						const y = m[1]! * vertices[o]! + m[5]! * vertices[o + 1]! + m[9]! * vertices[o + 2]! + m[13]!;
						[low, high] = [Math.min(low, y), Math.max(high, y)];
					}
					geometry.delete();
				}
				// The middle of its cell or line decides; a piece lies up to its depth beside it.
				if (s > 0) expect(high).to.be.above(storeys[s]!.low - DEEPEST);
				if (s + 1 < storeys.length) expect(low).to.be.below(storeys[s + 1]!.low + DEEPEST);
				checked++;
			});
			expect(checked).to.be.above(1000);
			expect(used.size).to.be.above(1);
			const grouped = lines(webIfc.IFCRELASSIGNSTOGROUP).flatMap((id) =>
				refs((api.GetLine(file, id) as { RelatedObjects: unknown }).RelatedObjects)
			);
			expect(new Set(grouped)).to.deep.equal(assemblies);
			expect(grouped.length).to.equal(assemblies.size);
			expect(lines(webIfc.IFCGROUP).length).to.equal(model.zones.length);
		});

		const globalIds = (ifc: string) => [
			...new Set([...ifc.matchAll(/=IFC\w+\('([^']{22})',/g)].map((m) => m[1]!))
		];

		it('GlobalIds are valid, unique and the same in every export', () => {
			const ids = [...text.matchAll(/=IFC\w+\('([^']{22})',\$,/g)].map((m) => m[1]!);
			expect(ids.length).to.be.above(5000);
			expect(new Set(ids).size).to.equal(ids.length);
			for (const id of ids) expect(id).to.match(/^[0-3][0-9A-Za-z_$]{21}$/);
			expect(textOf(writeIfc(model, '2026-01-01T00:00:00'))).to.equal(text);
		});

		it('GlobalIds survive every renaming; a duplicate has others', async () => {
			const { project } = model;
			const named = <T extends { name: string }>(list: readonly T[]) =>
				list.map((one, k) => ({ ...one, name: `Other ${k}` }));
			const renamed = {
				...project,
				name: 'Other',
				levels: named(project.levels),
				masses: named(project.masses),
				variants: named(project.variants),
				zones: named(project.zones).map((zone, k) => ({ ...zone, code: `O${k}` }))
			};
			const write = async (other: typeof project) =>
				textOf(writeIfc(await new Chain().run(other), '2026-01-01T00:00:00'));
			const other = await write(renamed);
			expect(other).to.contain('Other 0').and.not.contain('Gull roof');
			expect(globalIds(other).sort()).to.deep.equal(globalIds(text).sort());
			const kept = new Set(globalIds(text));
			const copy = await write({ ...project, id: 'a1f9b3c2-7d54-4e0b-8f13-6c2d90e7b5a4' });
			expect(globalIds(copy).filter((id) => kept.has(id))).to.deep.equal([]);
		});

		it('variants of one name stay apart as types', async () => {
			const [first, second] = model.project.variants;
			const same = {
				...model.project,
				variants: model.project.variants.map((one) =>
					one.id === second!.id ? { ...one, part: first!.part, values: {}, name: first!.name } : one
				)
			};
			const ifc = textOf(writeIfc(await new Chain().run(same), '2026-01-01T00:00:00'));
			expect(ifc.match(/=IFC\w+TYPE\(/g)!.length).to.equal(text.match(/=IFC\w+TYPE\(/g)!.length);
		});

		it('keeps to the schema: types, attributes, enumerations, references, aggregates', async () => {
			const step = await StepFile.open(new TextEncoder().encode(text));
			expect(step.schema).to.equal('IFC4');
			expect(schemaFaults(step)).to.deep.equal([]);
			// The check bites; a small file shows it as well.
			const small = textOf(writeIfc(await new Chain().run(readProjectText(example)), '2026-01-01T00:00:00'));
			expect(schemaFaults(await StepFile.open(new TextEncoder().encode(small)))).to.deep.equal([]);
			for (const [from, to, says] of [
				['.CURTAIN_PANEL.', '.PANEL.', /PredefinedType: .* is not of IfcPlateTypeEnum/],
				[/IFCPLATE\((.*?),\$,/, 'IFCPLATE($1,', /attributes, 9 are wanted/],
				[/(IFCRELAGGREGATES\('[^']*',\$,'[^']*',\$,#\d+,)\(.*?\)/, '$1()', /RelatedObjects: 0 members/],
				['IFCPLATETYPE(', 'IFCPANETYPE(', /IFCPANETYPE is not in IFC4/],
				[/(IFCMEMBER\()'[^']*'/, '$1$', /GlobalId: must not be empty/],
				[/IFCIDENTIFIER\('[^']*'\)/, 'IFCIDENTIFIER(7)', /STRING.* is wanted/]
			] as const) {
				const broken = small.replace(from, to);
				expect(broken).to.not.equal(small);
				const faults = schemaFaults(await StepFile.open(new TextEncoder().encode(broken)));
				expect(faults.join('\n')).to.match(says);
			}
		});

		/** What the other reader makes of the bodies of every piece, where they stand: m, z up, turned outward. */
		const bodiesRead = () => {
			const found = new Map<number, { places: number[]; triangles: Uint32Array }[]>();
			api.StreamAllMeshes(file, (mesh) => {
				const own = found.get(mesh.expressID) ?? [];
				found.set(mesh.expressID, own);
				for (let k = 0; k < mesh.geometries.size(); k++) {
					const { geometryExpressID, flatTransformation: m } = mesh.geometries.get(k);
					const geometry = api.GetGeometry(file, geometryExpressID);
					const values = api.GetVertexArray(geometry.GetVertexData(), geometry.GetVertexDataSize());
					const places: number[] = [];
					for (let o = 0; o < values.length; o += 6) {
						const [x, y, z] = [0, 1, 2].map(
							(a) => m[a]! * values[o]! + m[4 + a]! * values[o + 1]! + m[8 + a]! * values[o + 2]! + m[12 + a]!
						) as [number, number, number];
						places.push(x, -z, y);
					}
					const triangles = api.GetIndexArray(geometry.GetIndexData(), geometry.GetIndexDataSize()).slice();
					geometry.delete();
					own.push({ places, triangles });
				}
			});
			return found;
		};

		it('what several pieces have is written once, and stands where each of them stands', () => {
			expect(lines(webIfc.IFCMAPPEDITEM).length).to.be.above(2 * lines(webIfc.IFCREPRESENTATIONMAP).length);
			expect(lines(webIfc.IFCEXTRUDEDAREASOLID).length).to.be.above(400);
			// Bars of one section share it.
			expect(lines(webIfc.IFCARBITRARYPROFILEDEFWITHVOIDS).length).to.be.within(1, 40);
			const bodies = bodiesRead();
			const byAddress = new Map<string, number>();
			for (const piece of bodies.keys())
				byAddress.set((api.GetLine(file, piece) as { Name: { value: string } }).Name.value, piece);
			let compared = 0;
			for (const [address, wanted] of boxesOf(model)) {
				const read = bodies.get(byAddress.get(address)!);
				if (!read) continue;
				const box = new Box();
				for (const { places } of read) box.take(places.map((value) => 1000 * value));
				box.isAs(wanted, address);
				compared++;
			}
			expect(compared).to.equal(bodies.size);
		});

		it('says of every piece what is told of it', () => {
			const told = model.zones.flatMap(({ model: zone }) =>
				zone!.groups.flatMap(({ group }) => Array.from(group.flags.rows(), (row) => flagTexts(group, row)))
			);
			expect(told.length).to.be.above(5);
			const written = [...text.matchAll(/'Flags',\$,\(IFCTEXT\(/g)];
			// What could not be made is no piece.
			expect(written.length).to.be.within(1, told.length);
		});

		it('plates have their layers: web-ifc reads as many of each thickness, and the width is their sum', async () => {
			const project = projectOf(
				sheet(9000, 4000),
				count(6, 4),
				{
					rules: [
						{
							id: 'low',
							where: { is: 'all', of: [{ is: 'range', field: 'course', at_least: null, at_most: 1 }] },
							put: { variant: 'thick', values: {} }
						},
						{ id: 'rest', put: { variant: 'thin', values: {} } }
					]
				} as never,
				{
					variants: [
						{ id: 'thick', name: 'Thick', part: 'flat-panel', values: { thickness: 12 } },
						{ id: 'thin', name: 'Thin', part: 'flat-panel', values: { thickness: 4 } }
					]
				}
			);
			const own = api.OpenModel(
				new TextEncoder().encode(textOf(writeIfc(await new Chain().run(project), '2026-01-01T00:00:00')))
			);
			const all = (type: number) => {
				const ids = api.GetLineIDsWithType(own, type);
				return Array.from({ length: ids.size() }, (_, k) => api.GetLine(own, ids.get(k), true));
			};
			const found = all(webIfc.IFCRELASSOCIATESMATERIAL).map(({ RelatedObjects, RelatingMaterial }) => ({
				pieces: RelatedObjects.length as number,
				layers: RelatingMaterial.MaterialLayers.map(
					(layer: { LayerThickness: { value: number } }) => layer.LayerThickness.value
				) as number[]
			}));
			expect(found).to.have.deep.members([
				{ pieces: 6, layers: [12] },
				{ pieces: 18, layers: [4] }
			]);
			// What several have alike is one set of quantities that they share.
			const pieces = new Map<number, number>();
			for (const { RelatedObjects, RelatingPropertyDefinition } of all(webIfc.IFCRELDEFINESBYPROPERTIES))
				for (const { Name, LengthValue } of RelatingPropertyDefinition.Quantities ?? [])
					if (Name.value === 'Width')
						pieces.set(LengthValue.value, (pieces.get(LengthValue.value) ?? 0) + RelatedObjects.length);
			expect([...pieces]).to.have.deep.members([
				[12, 6],
				[4, 18]
			]);
			expect(all(webIfc.IFCELEMENTQUANTITY)).to.have.length.below(24);
			api.CloseModel(own);
		});

		it('every real has its dot, as ISO 10303-21 asks', () => {
			const numbers = text.match(/IFC(?:CARTESIANPOINT|COLOURRGB|QUANTITY\w+|MASSMEASURE)[^;]*;/g)!.join('');
			expect(numbers).to.not.match(/[(,]-?\d+[,)]/);
			expect(text).to.not.match(/[(,]-?\d+E/);
		});

		it('stated volumes are those of the bodies', async () => {
			const step = await StepFile.open(new TextEncoder().encode(text));
			const refs = (value: StepValue | undefined) => (value as { ref: number }[]).map((one) => one.ref);
			const attribute = (id: number, k: number) => step.records(id)[0]!.values[k];
			const ref = (id: number, k: number) => (attribute(id, k) as { ref: number }).ref;
			const bodies = bodiesRead();
			const bodyVolume = (product: number) =>
				bodies.get(product)!.reduce((sum, { places, triangles }) => sum + volumeWithin(places, triangles), 0);
			let compared = 0;
			for (const relation of step.ids('IFCRELDEFINESBYPROPERTIES')) {
				const set = ref(relation, 5);
				if (step.records(set)[0]!.type !== 'IFCELEMENTQUANTITY') continue;
				const quantity = refs(attribute(set, 5)).find(
					(id) =>
						step.records(id)[0]!.type === 'IFCQUANTITYVOLUME' &&
						(attribute(id, 0) as { text: string }).text === 'NetVolume'
				);
				if (quantity === undefined) continue;
				const stated = attribute(quantity, 3) as number;
				for (const product of refs(attribute(relation, 4))) {
					// Bodies are written from 32-bit coordinates: a few thousandths of a millimetre on walls of 3 mm
					// and on frames that are held back to 4 mm.
					expect(bodyVolume(product) / stated).to.be.closeTo(1, 1e-3);
					compared++;
				}
			}
			const { panels, bars } = summarise(model);
			expect(compared).to.equal(panels + bars.count);
		});

		it('solids are closed (each directed edge once, and its opposite) and turned outward', () => {
			const points = new Map(
				[...text.matchAll(/#(\d+)=IFCCARTESIANPOINTLIST3D\(\((.*)\)\);/g)].map((m) => [
					m[1]!,
					[...m[2]!.matchAll(/\(([^()]*)\)/g)].map((p) => p[1]!.split(',').map(Number))
				])
			);
			let checked = 0;
			for (const m of text.matchAll(/IFCTRIANGULATEDFACESET\(#(\d+),\$,\.T\.,\((.*?)\),\$\);/g)) {
				const at = points.get(m[1]!)!;
				const edges = new Set<string>();
				let volume = 0;
				for (const t of m[2]!.matchAll(/\((\d+),(\d+),(\d+)\)/g)) {
					const [a, b, c] = [1, 2, 3].map((k) => Number(t[k])) as [number, number, number];
					for (const edge of [`${a} ${b}`, `${b} ${c}`, `${c} ${a}`]) {
						expect(edges.has(edge), 'a directed edge twice').to.equal(false);
						edges.add(edge);
					}
					const [p, q, r] = [at[a - 1]!, at[b - 1]!, at[c - 1]!] as [number[], number[], number[]];
					volume +=
						p[0]! * (q[1]! * r[2]! - q[2]! * r[1]!) +
						p[1]! * (q[2]! * r[0]! - q[0]! * r[2]!) +
						p[2]! * (q[0]! * r[1]! - q[1]! * r[0]!);
				}
				for (const edge of edges) expect(edges.has(edge.split(' ').reverse().join(' '))).to.equal(true);
				expect(volume).to.be.above(0);
				if (++checked === 1500) break;
			}
			expect(checked).to.be.above(300);
		});
	});
});

/** A box round points: mm, z up. */
class Box {
	readonly sides = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];

	/** @param places x y z, flat @param origin that they are seen from */
	take(places: ArrayLike<number>, origin: readonly number[] = [0, 0, 0]): void {
		for (let k = 0; k < places.length; k++) {
			const [a, value] = [k % 3, places[k]! + origin[k % 3]!];
			this.sides[a] = Math.min(this.sides[a]!, value);
			this.sides[3 + a] = Math.max(this.sides[3 + a]!, value);
		}
	}

	/** The same to a tenth of a millimetre. */
	isAs(wanted: Box, name: string): void {
		this.sides.forEach((side, k) => expect(side, name).to.be.closeTo(wanted.sides[k]!, 0.1));
	}
}

/** Where the pieces of a model stand, by their addresses. */
function boxesOf({ zones }: Model): Map<string, Box> {
	const found = new Map<string, Box>();
	for (const { model: zone } of zones)
		for (const clause of zone!.groups)
			for (let row = 0; row < clause.group.sites.length; row++) {
				const box = new Box();
				for (const table of clause.group.run.elements)
					for (const k of instancesOf(table).of(row))
						box.take(placesOf(table.shape, k), zone!.faces[clause.face]!.origin);
				found.set(pieceAddress(zone!, clause, row), box);
			}
	return found;
}
