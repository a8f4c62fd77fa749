import { expect } from 'chai';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Chain } from '../../src/core/chain/chain';
import { StepFault } from '../../src/core/exchange/step/part21';
import { readStepFaces } from '../../src/core/exchange/step/read-surfaces';
import { writeStepSolids } from '../../src/core/exchange/step/solids';
import { writeStep } from '../../src/core/exchange/step/write';
import { placesOf, trianglesOf } from '../../src/core/part/places';
import { prismOf } from '../../src/core/part/prism';
import { textOf } from '../written';
import { evaluateGrid, surfaceArea } from '../../src/core/geometry/surface';
import { cross, length, subtract, type Vector } from '../../src/core/geometry/vector';
import type { Face } from '../../src/core/mass/face';
import { patchDefinition } from '../../src/core/mass/imported';
import { trimmedArea } from '../../src/core/measure/trimmed';
import { readProject, readProjectText } from '../../src/core/project/read';

const bytes = (text: string) => new TextEncoder().encode(text);
const stamp = '2026-01-01T00:00:00';
const masses = [
	{
		kind: 'revolved',
		profile: {
			points: [
				[5200, 0],
				[3900, 4700],
				[5000, 9000]
			],
			joins: 'smooth'
		}
	},
	{ kind: 'dome', radii: [8000, 6000, 4000], cut: 500 },
	{
		kind: 'twisted',
		outline: { shape: 'polygon', sides: 5, radius: 6000 },
		head: 20000,
		twist: 40,
		taper: 0.7
	},
	{
		kind: 'vaulted',
		profile: {
			points: [
				[-6000, 0],
				[6000, 0]
			],
			joins: [{ arc: 2500 }]
		},
		length: 15000
	},
	{
		kind: 'net',
		rows: [
			[
				[0, 0, 0],
				[9000, 0, 900]
			],
			[
				[0, 8000, 500],
				[9000, 8000, -700]
			]
		],
		degrees: [1, 1]
	},
	{ kind: 'waves', size: [9000, 7000], height: '600 mm * sin(360 deg * x / 9 m) * cos(180 deg * y / 7 m)' }
].map((form, k) => ({ id: `m${k}`, name: `Mass ${k + 1}`, form }));

/** Trimmed faces: openings, cut off by planes and levels, a round one over the seam, and flat caps. */
const trimmedMasses = [
	{
		form: masses[0]!.form,
		trims: [
			{ id: 'a', by: 'plane', face: 'shell', at: [0, 0, 7000], normal: [0.2, 0.3, -1] },
			{
				id: 'b',
				by: 'outline',
				face: 'shell',
				outline: { shape: 'circle', radius: 1100 },
				at: [9000, 300, 3000],
				direction: [-1, 0, 0]
			}
		]
	},
	{ form: masses[1]!.form, trims: [{ id: 'a', by: 'level', face: 'shell', height: 3000 }] },
	{
		form: masses[4]!.form,
		trims: [
			{
				id: 'a',
				by: 'outline',
				face: 'skin',
				outline: { shape: 'rectangle', width: 2500, depth: 1800, rounding: 400 },
				at: [4000, 4000, -5000],
				turn: 20
			},
			{ id: 'b', by: 'plane', face: 'skin', at: [7000, 0, 0], normal: [-1, 0.2, 0] }
		]
	},
	{
		form: {
			kind: 'prism',
			outline: {
				shape: 'drawn',
				points: [
					[0, 0],
					[9000, 0],
					[9000, 4000],
					[4000, 4000],
					[4000, 9000],
					[0, 9000]
				]
			},
			head: 6000
		}
	},
	{ form: { kind: 'twisted', outline: { shape: 'circle', radius: 4000 }, head: 9000, taper: 0.5 } }
].map((mass, k) => ({ id: `t${k}`, name: `Trimmed ${k + 1}`, ...mass }));

const documentOf = (list: unknown) =>
	readProject({ format: 'zygaster project', version: 3, name: 'Round trip', masses: list });
const project = documentOf(masses);

/** The areas of all faces of a file, or the volumes of all its solids, as gmsh with OpenCASCADE finds them, ascending (mm², mm³). */
function massesByGmsh(text: string, of: 'Surface' | 'Volume'): number[] {
	const folder = mkdtempSync(join(tmpdir(), 'zygaster-step-'));
	writeFileSync(join(folder, 'file.stp'), text);
	const script = `SetFactory("OpenCASCADE");
Geometry.OCCTargetUnit = "MM";
v() = ShapeFromFile("${join(folder, 'file.stp')}");
s() = ${of} "*";
For k In {0:#s()-1}
  m() = Mass ${of}{s(k)};
  Printf("MASS %.6f", m(0));
EndFor
`;
	writeFileSync(join(folder, 'mass.geo'), script);
	// Its exit code says nothing: it cannot write again all that it has read.
	const { stdout } = spawnSync('gmsh', [join(folder, 'mass.geo'), '-0', '-v', '4'], {
		encoding: 'utf8',
		maxBuffer: 2 ** 28
	});
	return ascending([...stdout.matchAll(/MASS (-?[\d.]+)/g)].map((m) => Number(m[1])));
}
/** The same by its mesher, surface by surface: closer where faces are trimmed. */
function meshedAreasByGmsh(text: string): number[] {
	const folder = mkdtempSync(join(tmpdir(), 'zygaster-step-'));
	writeFileSync(join(folder, 'faces.stp'), text);
	const script = `SetFactory("OpenCASCADE");
Geometry.OCCTargetUnit = "MM";
Mesh.MeshSizeMax = 120;
Mesh.Algorithm = 5;
Mesh.StlOneSolidPerSurface = 1;
ShapeFromFile("${join(folder, 'faces.stp')}");
Mesh 2;
Save "${join(folder, 'faces.stl')}";
`;
	writeFileSync(join(folder, 'mesh.geo'), script);
	spawnSync('gmsh', [join(folder, 'mesh.geo'), '-', '-v', '2']);
	const solids = readFileSync(join(folder, 'faces.stl'), 'utf8')
		.split(/^solid /m)
		.slice(1);
	return ascending(
		solids.map((solid) => {
			const points = [...solid.matchAll(/vertex (\S+) (\S+) (\S+)/g)].map((m): Vector => [
				Number(m[1]),
				Number(m[2]),
				Number(m[3])
			]);
			let area = 0;
			for (let k = 0; k < points.length; k += 3)
				area += length(cross(subtract(points[k + 1]!, points[k]!), subtract(points[k + 2]!, points[k]!))) / 2;
			return area;
		})
	);
}
const ascending = (list: number[]) => [...list].sort((a, b) => a - b);
const areaOf = (face: Face) => (face.trims.length ? trimmedArea(face) : surfaceArea(face.surface));

/** A face of one analytic or spline surface in a file of its own; `#1` to `#99` are the given lines. */
const fileWith = (lines: string) =>
	`ISO-10303-21;\nHEADER;\nFILE_SCHEMA(('AUTOMOTIVE_DESIGN'));\nENDSEC;\nDATA;\n${lines}\n#200=(LENGTH_UNIT() NAMED_UNIT(*) SI_UNIT(.MILLI.,.METRE.));\nENDSEC;\nEND-ISO-10303-21;\n`;

describe('STEP (ISO 10303-21, AP242)', () => {
	let text: string;
	let written: Face[];
	before(async () => {
		const model = await new Chain().run(project);
		expect(model.problems).to.deep.equal([]);
		written = model.masses.flatMap((mass) => mass.faces);
		text = textOf(writeStep(model, stamp));
	});

	it('comes back the same to 1e-9', async () => {
		const { faces, refused } = await readStepFaces(bytes(text));
		expect(refused).to.deep.equal([]);
		expect(faces.length).to.equal(written.length);
		faces.forEach(({ surface }, k) => {
			const wanted = written[k]!.surface;
			const at = (knots: Float64Array) =>
				[0, 0.13, 0.5, 0.77, 1].map((t) => knots[0]! + t * (knots.at(-1)! - knots[0]!));
			const [ours, back] = [wanted, surface].map(
				(one) => evaluateGrid(one, at(one.knotsU), at(one.knotsV)).points
			);
			ours!.forEach((value, n) => expect(back![n]).to.be.closeTo(value, 1e-9 * 30000));
		});
	});

	it('pieces as solids: gmsh finds every one of them with its volume, plates and bars of one outline to a millionth', async function () {
		this.timeout(180_000);
		const lido = readProjectText(readFileSync(new URL('../lido.json', import.meta.url), 'utf8'));
		const zones = lido.zones.filter(({ name }) =>
			['Street screen', 'Plunge pool'].some((one) => name === one)
		);
		const model = await new Chain().run({ ...lido, zones: zones.length ? zones : lido.zones.slice(1, 2) });
		const wanted: number[] = [];
		let straight = 0;
		for (const { model: zone } of model.zones)
			for (const { group } of zone!.groups)
				for (const table of group.run.elements)
					for (let k = 0; k < table.count; k++) {
						const [places, triangles] = [placesOf(table.shape, k), trianglesOf(table.shape, k)];
						if (prismOf(places, triangles)) straight++;
						wanted.push(table.volume[k]!);
					}
		expect(straight).to.be.above(100);
		expect(wanted.length - straight).to.be.above(0);
		const found = massesByGmsh(textOf(writeStepSolids(model, stamp)), 'Volume');
		expect(found.length).to.equal(wanted.length);
		// Volumes are stated by the part, bodies are kept in 32 bits.
		ascending(wanted).forEach((volume, k) => expect(found[k]! / volume, `${k}`).to.be.closeTo(1, 1e-3));
	});

	it('gmsh with the OpenCASCADE kernel reads it and finds the same areas', function () {
		this.timeout(120_000);
		const areas = massesByGmsh(text, 'Surface');
		const wanted = ascending(written.map(areaOf));
		expect(areas.length).to.equal(wanted.length);
		// The kernel integrates with few points; on these faces it is within three thousandths.
		areas.forEach((area, k) => expect(area / wanted[k]! - 1).to.be.closeTo(0, 3e-3));
	});

	it('trimmed faces: gmsh finds the same areas, and they come back with their trims', async function () {
		this.timeout(120_000);
		const model = await new Chain().run(documentOf(trimmedMasses));
		expect(model.problems).to.deep.equal([]);
		const faces = model.masses.flatMap((mass) => mass.faces);
		const file = textOf(writeStep(model, stamp));
		const wanted = faces.map(areaOf);
		const areas = meshedAreasByGmsh(file);
		expect(areas.length).to.equal(wanted.length);
		// Triangles of at most 120 mm on radii of 2 m and more: less than a thousandth under what they span.
		areas.forEach((area, k) => expect(area / ascending(wanted)[k]! - 1, String(k)).to.be.closeTo(0, 1e-3));

		const read = await readStepFaces(bytes(file));
		expect(read.refused).to.deep.equal([]);
		const form = {
			kind: 'imported',
			source: 'x',
			faces: read.faces.map((face, k) => patchDefinition(`f${k}`, face.surface, face))
		};
		const again = await new Chain().run(documentOf([{ id: 'm', name: 'Again', form }]));
		expect(again.problems).to.deep.equal([]);
		again.masses[0]!.faces.forEach((face, k) =>
			expect(areaOf(face) / wanted[k]! - 1, faces[k]!.name).to.be.closeTo(0, 2e-4)
		);
	});

	it('analytic surfaces are converted exactly: areas in closed form, points at their distance', async () => {
		const frame =
			"#10=CARTESIAN_POINT('',(100.,200.,300.));\n#11=DIRECTION('',(0.,0.6,0.8));\n#12=DIRECTION('',(1.,0.,0.));\n#13=AXIS2_PLACEMENT_3D('',#10,#11,#12);";
		/** A ring of two circles at heights a and b with radii r and s: the rim of a full turn. */
		const ring = (r: number, a: number, s: number, b: number) => {
			const circle = (n: number, radius: number, height: number) => {
				const at = [100, 200 + 0.6 * height, 300 + 0.8 * height];
				return `#${n}=CARTESIAN_POINT('',(${at.map((v) => v.toFixed(9)).join(',')}));
#${n + 1}=AXIS2_PLACEMENT_3D('',#${n},#11,#12);
#${n + 2}=CIRCLE('',#${n + 1},${radius.toFixed(9)});
#${n + 3}=CARTESIAN_POINT('',(${(100 + radius).toFixed(9)},${at[1]!.toFixed(9)},${at[2]!.toFixed(9)}));
#${n + 4}=VERTEX_POINT('',#${n + 3});
#${n + 5}=EDGE_CURVE('',#${n + 4},#${n + 4},#${n + 2},.T.);
#${n + 6}=ORIENTED_EDGE('',*,*,#${n + 5},.T.);`;
			};
			return `${circle(20, r, a)}\n${circle(30, s, b)}\n#40=EDGE_LOOP('',(#26,#36));\n#41=FACE_OUTER_BOUND('',#40,.T.);`;
		};
		const face = "#50=ADVANCED_FACE('part',(#41),#14,.T.);";
		const cases: [string, string, number, (p: number[]) => number][] = [
			[
				"CYLINDRICAL_SURFACE('',#13,40.)",
				ring(40, 0, 40, 90),
				2 * Math.PI * 40 * 90,
				([x, y]) => Math.hypot(x!, y!) - 40
			],
			// A cone of half angle atan(1/2): r 40 at its frame, 85 at height 90.
			[
				`CONICAL_SURFACE('',#13,40.,${Math.atan(0.5).toFixed(15)})`,
				ring(40, 0, 85, 90),
				Math.PI * (40 + 85) * Math.hypot(45, 90),
				([x, y, z]) => Math.hypot(x!, y!) - 40 - z! / 2
			],
			[
				"SPHERICAL_SURFACE('',#13,50.)",
				ring(40, -30, 30, 40),
				2 * Math.PI * 50 * 70,
				(p) => Math.hypot(...p) - 50
			]
		];
		for (const [surface, rim, area, off] of cases) {
			const { faces, refused } = await readStepFaces(
				bytes(fileWith(`${frame}\n#14=${surface};\n${rim}\n${face}`))
			);
			expect(refused, surface).to.deep.equal([]);
			expect(surfaceArea(faces[0]!.surface) / area, surface).to.be.closeTo(1, 1e-9);
			const { points } = evaluateGrid(faces[0]!.surface, [0.1, 0.37, 0.8], [0.1, 0.6, 0.9]);
			for (let k = 0; k < points.length; k += 3) {
				const [x, y, z] = [points[k]! - 100, points[k + 1]! - 200, points[k + 2]! - 300];
				// In the frame: y and z of the file turned about x.
				expect(off([x, 0.8 * y - 0.6 * z, 0.6 * y + 0.8 * z])).to.be.closeTo(0, 1e-6);
			}
		}
	});

	/** A loop of straight edges through points, as entities from a number on; the edge loop has the number itself. */
	const straightLoop = (n: number, points: number[][]) => {
		const lines: string[] = [];
		const count = points.length;
		points.forEach((p, k) => {
			lines.push(
				`#${n + 1 + k}=CARTESIAN_POINT('',(${p.map((value) => value.toFixed(9)).join(',')}));`,
				`#${n + 20 + k}=VERTEX_POINT('',#${n + 1 + k});`,
				`#${n + 40 + k}=LINE('',#${n + 1 + k},#9);`,
				`#${n + 60 + k}=EDGE_CURVE('',#${n + 20 + k},#${n + 20 + ((k + 1) % count)},#${n + 40 + k},.T.);`,
				`#${n + 80 + k}=ORIENTED_EDGE('',*,*,#${n + 60 + k},.T.);`
			);
		});
		const edges = points.map((_, k) => `#${n + 80 + k}`).join(',');
		return `${lines.join('\n')}\n#${n}=EDGE_LOOP('',(${edges}));`;
	};
	const areaRead = async (lines: string) => {
		const { faces, refused } = await readStepFaces(bytes(fileWith(lines)));
		expect(refused).to.deep.equal([]);
		const form = {
			kind: 'imported',
			source: 'x',
			faces: faces.map((face, k) => patchDefinition(`f${k}`, face.surface, face))
		};
		const model = await new Chain().run(documentOf([{ id: 'm', name: 'Read', form }]));
		expect(model.problems).to.deep.equal([]);
		return { area: areaOf(model.masses[0]!.faces[0]!), trims: model.masses[0]!.faces[0]!.trims.length };
	};
	const upright =
		"#10=CARTESIAN_POINT('',(0.,0.,0.));\n#13=AXIS2_PLACEMENT_3D('',#10,$,$);\n#14=PLANE('',#13);";

	it('planes end where their loops do: a rectangle whole, an angle with a hole trimmed', async () => {
		const rectangle = [
			[0, 0, 0],
			[60, 80, 0],
			[20, 110, 0],
			[-40, 30, 0]
		];
		const whole = await areaRead(
			`${upright}\n${straightLoop(300, rectangle)}\n#60=FACE_OUTER_BOUND('',#300,.T.);\n#50=ADVANCED_FACE('p',(#60),#14,.T.);`
		);
		expect(whole.area).to.be.closeTo(100 * 50, 1e-6);
		expect(whole.trims).to.equal(0);
		const angle = [
			[0, 0, 0],
			[90, 0, 0],
			[90, 40, 0],
			[40, 40, 0],
			[40, 90, 0],
			[0, 90, 0]
		];
		const hole = [
			[10, 10, 0],
			[10, 30, 0],
			[35, 30, 0],
			[35, 10, 0]
		];
		const cut = await areaRead(
			`${upright}\n${straightLoop(300, angle)}\n${straightLoop(500, hole)}\n#60=FACE_OUTER_BOUND('',#300,.T.);\n#61=FACE_BOUND('',#500,.T.);\n#50=ADVANCED_FACE('p',(#60,#61),#14,.T.);`
		);
		expect(cut.area).to.be.closeTo(90 * 90 - 50 * 50 - 25 * 20, 1e-6);
	});

	it('a torus, whole and as a band, and a cap that one circle cuts off a sphere (Pappus, 2πRh)', async () => {
		const circle = (n: number, r: number, z: number, forward: boolean) =>
			`#${n}=CARTESIAN_POINT('',(0.,0.,${z.toFixed(9)}));
#${n + 1}=AXIS2_PLACEMENT_3D('',#${n},$,$);
#${n + 2}=CIRCLE('',#${n + 1},${r.toFixed(9)});
#${n + 3}=CARTESIAN_POINT('',(${r.toFixed(9)},0.,${z.toFixed(9)}));
#${n + 4}=VERTEX_POINT('',#${n + 3});
#${n + 5}=EDGE_CURVE('',#${n + 4},#${n + 4},#${n + 2},.T.);
#${n + 6}=ORIENTED_EDGE('',*,*,#${n + 5},.${forward ? 'T' : 'F'}.);
#${n + 7}=EDGE_LOOP('',(#${n + 6}));
#${n + 8}=FACE_BOUND('',#${n + 7},.T.);`;
		const frame = "#10=CARTESIAN_POINT('',(0.,0.,0.));\n#13=AXIS2_PLACEMENT_3D('',#10,$,$);";
		const whole = await areaRead(
			`${frame}\n#14=TOROIDAL_SURFACE('',#13,50.,15.);\n#50=ADVANCED_FACE('t',(),#14,.T.);`
		);
		expect(whole.area / (4 * Math.PI ** 2 * 50 * 15)).to.be.closeTo(1, 1e-9);
		// The outer half of the tube, between the circles at its top and its foot: 2πr(πR + 2r).
		const band = await areaRead(
			`${frame}\n#14=TOROIDAL_SURFACE('',#13,50.,15.);\n${circle(300, 50, -15, true)}\n${circle(400, 50, 15, false)}\n#50=ADVANCED_FACE('t',(#308,#408),#14,.T.);`
		);
		expect(band.area / (2 * Math.PI * 15 * (Math.PI * 50 + 2 * 15))).to.be.closeTo(1, 1e-9);
		for (const [forward, height] of [
			[true, 20],
			[false, 80]
		] as const) {
			const cap = await areaRead(
				`${frame}\n#14=SPHERICAL_SURFACE('',#13,50.);\n${circle(300, 40, 30, forward)}\n#50=ADVANCED_FACE('s',(#308),#14,.T.);`
			);
			expect(cap.area / (2 * Math.PI * 50 * height), String(forward)).to.be.closeTo(1, 1e-9);
		}
	});

	it('what cannot be taken is told by entity, number and line', async () => {
		const refused = async (lines: string) => (await readStepFaces(bytes(fileWith(lines)))).refused;
		const base = "#10=CARTESIAN_POINT('',(0.,0.,0.));\n#13=AXIS2_PLACEMENT_3D('',#10,$,$);";
		const [swept] = await refused(
			`${base}\n#14=SURFACE_OF_LINEAR_EXTRUSION('',#10,#13);\n#50=ADVANCED_FACE('a',(),#14,.T.);`
		);
		expect(swept).to.match(
			/^ADVANCED_FACE #50, line 9: its surface is a SURFACE_OF_LINEAR_EXTRUSION \(#14\); B-spline/
		);
		const [missing] = await refused(`${base}\n#50=ADVANCED_FACE('a',(),#77,.T.);`);
		expect(missing).to.match(/#50.*#77: is referred to but not in the file/);
		// A face of ours with a side of its rim taken out.
		let loops = 0;
		const open = text.replace(/(EDGE_LOOP\('',\()#\d+,/g, (whole, head: string) =>
			++loops === 3 ? head : whole
		);
		const { faces, refused: told } = await readStepFaces(bytes(open));
		expect(faces.length).to.equal(written.length - 1);
		expect(told.join('\n')).to.match(/its rim is not closed/);
	});

	it('broken files are refused in words, with the line', async () => {
		const fails = async (content: string, says: RegExp) => {
			let said = '';
			try {
				await readStepFaces(bytes(content));
			} catch (error) {
				expect(error).to.be.instanceOf(StepFault);
				said = (error as StepFault).message;
			}
			expect(said).to.match(says);
		};
		await fails('solid cube\nfacet normal 0 0 1', /not a STEP file/);
		await fails(
			text.slice(0, text.length / 2),
			/line \d+: (the file ends in the middle of a statement|the file is cut short)/
		);
		await fails(text.replace('END-ISO-10303-21;', ''), /cut short/);
		await fails(fileWith("#1=CARTESIAN_POINT('',(0.,0.,0.));"), /holds no faces/);
		await fails(fileWith("#1=POINT('it is never closed);"), /a text is never closed/);
		await fails(fileWith('#1=A();\n#1=B();'), /line 7: #1 is defined twice/);
	});

	it('units are brought to millimetres', async () => {
		const metres = text.replace('SI_UNIT(.MILLI.,.METRE.)', 'SI_UNIT($,.METRE.)');
		const { faces: mm } = await readStepFaces(bytes(text));
		const { faces: m } = await readStepFaces(bytes(metres));
		mm.forEach((face, k) =>
			expect(surfaceArea(m[k]!.surface) / surfaceArea(face.surface)).to.be.closeTo(1e6, 1)
		);
	});
});
