import { expect } from 'chai';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Chain } from '../../src/core/chain/chain';
import { StepFault } from '../../src/core/exchange/step/part21';
import { readStepFaces } from '../../src/core/exchange/step/read-surfaces';
import { writeStep } from '../../src/core/exchange/step/write';
import { evaluateGrid, surfaceArea, type Surface } from '../../src/core/geometry/surface';
import { readProject } from '../../src/core/project/read';

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
const project = readProject({ format: 'zygaster project', version: 2, name: 'Round trip', masses });

/** A face of one analytic or spline surface in a file of its own; `#1` to `#99` are the given lines. */
const fileWith = (lines: string) =>
	`ISO-10303-21;\nHEADER;\nFILE_SCHEMA(('AUTOMOTIVE_DESIGN'));\nENDSEC;\nDATA;\n${lines}\n#200=(LENGTH_UNIT() NAMED_UNIT(*) SI_UNIT(.MILLI.,.METRE.));\nENDSEC;\nEND-ISO-10303-21;\n`;

describe('STEP (ISO 10303-21, AP242)', () => {
	let text: string;
	let written: Surface[];
	before(async () => {
		const model = await new Chain().run(project);
		expect(model.problems).to.deep.equal([]);
		written = model.masses.flatMap((mass) => mass.faces.map((face) => face.surface));
		text = writeStep(model, stamp);
	});

	it('comes back the same to 1e-9', async () => {
		const { faces, refused } = await readStepFaces(bytes(text));
		expect(refused).to.deep.equal([]);
		expect(faces.length).to.equal(written.length);
		faces.forEach(({ surface }, k) => {
			const wanted = written[k]!;
			const at = (knots: Float64Array) =>
				[0, 0.13, 0.5, 0.77, 1].map((t) => knots[0]! + t * (knots.at(-1)! - knots[0]!));
			const [ours, back] = [wanted, surface].map(
				(one) => evaluateGrid(one, at(one.knotsU), at(one.knotsV)).points
			);
			ours!.forEach((value, n) => expect(back![n]).to.be.closeTo(value, 1e-9 * 30000));
		});
	});

	it('gmsh with the OpenCASCADE kernel reads it and finds the same areas', function () {
		this.timeout(120_000);
		const folder = mkdtempSync(join(tmpdir(), 'zygaster-step-'));
		writeFileSync(join(folder, 'faces.stp'), text);
		const script = `SetFactory("OpenCASCADE");
Geometry.OCCTargetUnit = "MM";
v() = ShapeFromFile("${join(folder, 'faces.stp')}");
s() = Surface "*";
For k In {0:#s()-1}
  m() = Mass Surface{s(k)};
  Printf("AREA %.6f", m(0));
EndFor
`;
		writeFileSync(join(folder, 'area.geo'), script);
		const out = execFileSync('gmsh', [join(folder, 'area.geo'), '-0', '-v', '4'], { encoding: 'utf8' });
		const areas = [...out.matchAll(/AREA ([\d.]+)/g)].map((m) => Number(m[1]));
		const wanted = written.map((surface) => surfaceArea(surface));
		expect(areas.length).to.equal(wanted.length);
		// The kernel integrates with few points; on these faces it is within three thousandths.
		const sorted = (list: number[]) => [...list].sort((a, b) => a - b);
		sorted(areas).forEach((area, k) => expect(area / sorted(wanted)[k]! - 1).to.be.closeTo(0, 3e-3));
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
		// A face of ours cut down to half of its rim.
		const trimmed = text.replace(/(#\d+=VERTEX_POINT\('',)(#\d+)\);/, (_, head: string) => `${head}#90001);`);
		const point = "#90001=CARTESIAN_POINT('',(1.,2.,3.));\nENDSEC;\nEND-ISO";
		const { faces, refused: told } = await readStepFaces(bytes(trimmed.replace('ENDSEC;\nEND-ISO', point)));
		expect(faces.length).to.be.below(written.length);
		expect(told.join('\n')).to.match(/it is trimmed within its surface/);
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
