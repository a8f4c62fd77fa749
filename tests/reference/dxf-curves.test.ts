import { expect } from 'chai';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { outlinesOf } from '../../src/core/exchange/dxf/outlines';
import type { ReadCurve } from '../../src/core/exchange/dxf/read-curve';
import { readDxfCurves } from '../../src/core/exchange/dxf/read-curves';
import { polygonArea } from '../../src/core/geometry/polygon';
import { distance } from '../../src/core/geometry/vector';

/** A drawing that ezdxf writes. @param body what is drawn on `m`; `d` is the document */
function drawing(body: string, unit = 4): string {
	const path = join(mkdtempSync(join(tmpdir(), 'curves-')), 'a.dxf');
	const program = `
import ezdxf, math
d = ezdxf.new('R2010'); d.header['$INSUNITS'] = ${unit}; m = d.modelspace()
${body}
d.saveas(${JSON.stringify(path)})`;
	const { status, stderr } = spawnSync('/usr/bin/python3', ['-c', program], { encoding: 'utf8' });
	expect(status, stderr).to.equal(0);
	return readFileSync(path, 'utf8');
}

const lengthOf = ({ points, closed }: ReadCurve) =>
	points.reduce((sum, point, k) => {
		const next = points[k + 1] ?? (closed ? points[0]! : point);
		return sum + distance(point, next);
	}, 0);
const only = (text: string) => {
	const { curves, told } = readDxfCurves(text);
	expect(told).to.deep.equal([]);
	expect(curves).to.have.length(1);
	return curves[0]!;
};

describe('lines of a DXF that another program wrote', () => {
	it('lines that meet end to end are one, whichever way each runs; three that meet stay apart', () => {
		const chain = only(
			drawing(`
m.add_line((0, 0, 0), (1000, 0, 500), dxfattribs={'layer': 'AXIS'})
m.add_line((3000, 0, 500), (1000, 0, 500), dxfattribs={'layer': 'AXIS'})
m.add_line((3000, 0, 500), (3000, 4000, 500), dxfattribs={'layer': 'AXIS'})`)
		);
		expect(chain).to.deep.equal({
			layer: 'AXIS',
			closed: false,
			points: [
				[0, 0, 0],
				[1000, 0, 500],
				[3000, 0, 500],
				[3000, 4000, 500]
			]
		});
		const star = readDxfCurves(
			drawing(`for k in range(3): m.add_line((0, 0), (1000 * math.cos(k), 1000 * math.sin(k)))`)
		);
		expect(star.curves).to.have.length(3);
	});

	it('four lines that go round are a closed outline, in any unit', () => {
		for (const [unit, scale] of [
			[4, 1],
			[5, 10],
			[6, 1000],
			[1, 25.4],
			[2, 304.8]
		] as const) {
			const ring = only(
				drawing(
					`
p = [(0, 0), (9, 0), (9, 4), (0, 4)]
for k in (2, 0, 3, 1): m.add_line(p[k], p[(k + 1) % 4])`,
					unit
				)
			);
			expect(ring.closed).to.equal(true);
			expect(ring.points).to.have.length(4);
			expect(lengthOf(ring)).to.be.closeTo(26 * scale, 1e-6 * scale);
		}
	});

	it('bows, circles, ellipses and bulges have their closed lengths', () => {
		const arc = only(drawing(`m.add_arc((0, 0, 3000), 5000, 300, 60)`));
		expect(lengthOf(arc)).to.be.closeTo(((5000 * 2 * Math.PI) / 3) * 1, 2);
		expect(arc.points.every(([, , z]) => z === 3000)).to.equal(true);
		// It goes through the place opposite to where it is open: x = 5000.
		expect(Math.max(...arc.points.map(([x]) => x))).to.be.closeTo(5000, 0.6);
		const circle = only(drawing(`m.add_circle((100, 200), 1000)`));
		expect(circle.closed).to.equal(true);
		expect(lengthOf(circle)).to.be.closeTo(2000 * Math.PI, 2.2);
		const turned = only(drawing(`m.add_ellipse((0, 0), major_axis=(0, 4000, 0), ratio=0.5)`));
		expect(turned.closed).to.equal(true);
		expect(Math.max(...turned.points.map(([, y]) => y))).to.be.closeTo(4000, 1);
		expect(Math.max(...turned.points.map(([x]) => x))).to.be.closeTo(2000, 1);
		// Two half circles and two straights: bulge 1 is half a turn, anticlockwise.
		const track = only(
			drawing(
				`m.add_lwpolyline([(0, 0, 0), (6000, 0, 1), (6000, 2000, 0), (0, 2000, 1)], format='xyb', close=True)`
			)
		);
		expect(track.closed).to.equal(true);
		expect(lengthOf(track)).to.be.closeTo(12_000 + 2000 * Math.PI, 3);
		expect(Math.max(...track.points.map(([x]) => x))).to.be.closeTo(7000, 0.6);
		// A smaller bulge to the right.
		const bent = only(drawing(`m.add_lwpolyline([(0, 0, -0.5), (4000, 0, 0)], format='xyb')`));
		const turn = 4 * Math.atan(0.5);
		expect(lengthOf(bent)).to.be.closeTo((2000 / Math.sin(turn / 2)) * turn, 3);
		expect(Math.max(...bent.points.map(([, y]) => y))).to.be.closeTo(1000, 0.6);
	});

	it('splines go where the library that wrote them says', () => {
		const body = `
s = m.add_spline(degree=3)
s.control_points = [(0, 0, 0), (1000, 3000, 500), (4000, 3000, 1500), (6000, 0, 2000), (9000, 1000, 0)]
s.knots = [0, 0, 0, 0, 1, 2, 2, 2, 2]`;
		const curve = only(drawing(body));
		const checked = spawnSync(
			'/usr/bin/python3',
			[
				'-c',
				`
import ezdxf, json
m = ezdxf.new().modelspace()
${body}
print(json.dumps([list(p) for p in s.construction_tool().approximate(2000)]))`
			],
			{ encoding: 'utf8' }
		);
		const theirs = JSON.parse(checked.stdout) as [number, number, number][];
		for (const point of curve.points)
			expect(Math.min(...theirs.map((other) => distance(other, point)))).to.be.lessThan(4);
		expect(curve.points[0]).to.deep.equal([0, 0, 0]);
		expect(distance(curve.points.at(-1)!, [9000, 1000, 0])).to.be.lessThan(1e-6);
	});

	it('polylines in space and points keep their heights; what is no line is told', () => {
		const { curves, told } = readDxfCurves(
			drawing(`
m.add_polyline3d([(0, 0, 0), (1000, 0, 700), (2000, 0, 100)], dxfattribs={'layer': 'EDGE'})
m.add_point((5, 6, 7), dxfattribs={'layer': 'PINS'})
m.add_text('Level 2')
m.add_circle((0, 0), 5, dxfattribs={'extrusion': (0, 0, -1)})`)
		);
		expect(curves).to.deep.include({
			layer: 'EDGE',
			closed: false,
			points: [
				[0, 0, 0],
				[1000, 0, 700],
				[2000, 0, 100]
			]
		});
		expect(curves).to.deep.include({ layer: 'PINS', closed: false, points: [[5, 6, 7]] });
		expect(told).to.have.members(['1 TEXT not taken', '1 CIRCLE not taken']);
	});

	it('outlines are what closes and lies level, anticlockwise, the largest first', () => {
		const found = outlinesOf(
			readDxfCurves(
				drawing(`
m.add_lwpolyline([(0, 0), (0, 4000), (9000, 4000), (9000, 0)], close=True, dxfattribs={'layer': 'HALL', 'elevation': 1200})
m.add_circle((20000, 0), 5000, dxfattribs={'layer': 'DRUM'})
m.add_line((0, 0), (99000, 0), dxfattribs={'layer': 'AXIS'})
m.add_polyline3d([(0, 0, 0), (1000, 0, 700), (2000, 900, 100)], close=True)`)
			).curves
		);
		expect(found.map(({ layer, height }) => [layer, height])).to.deep.equal([
			['DRUM', 0],
			['HALL', 1200]
		]);
		expect(polygonArea(found[0]!.points) / (Math.PI * 5000 ** 2)).to.be.closeTo(1, 2e-3);
		expect(polygonArea(found[1]!.points)).to.equal(36e6);
	});

	it('a drawing without its unit, without lines, or that is none is told in a sentence', () => {
		expect(readDxfCurves(drawing(`m.add_line((0, 0), (5, 0))`, 0)).told).to.deep.equal([
			'it does not say its unit; millimetres are taken'
		]);
		expect(() => readDxfCurves(drawing(`m.add_text('nothing')`))).to.throw(
			'there are no lines in it. 1 TEXT not taken'
		);
		expect(() => readDxfCurves('solid a\nendsolid')).to.throw(
			/no DXF that can be read|there are no lines in it/
		);
	});
});
