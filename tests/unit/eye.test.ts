import { expect } from 'chai';
import fc from '../property';
import * as THREE from 'three';
import {
	axesOf,
	between,
	cornersOf,
	facing,
	fitted,
	HALF_VIEW,
	moved,
	nearer,
	placeOf,
	turned,
	type Frame,
	type Pose
} from '../../src/lib/model/pose';

const frame: Frame = { width: 900, height: 500, free: { left: 0, top: 0, right: 0, bottom: 0 } };

/** Where a point lies in the picture, by three's own cameras and matrices. */
function seen(pose: Pose, point: THREE.Vector3): { x: number; y: number; depth: number } {
	const aspect = frame.width / frame.height;
	const half = Math.tan(HALF_VIEW) * pose.distance;
	const camera = pose.flat
		? new THREE.OrthographicCamera(-half * aspect, half * aspect, half, -half, 0.1, 1e5)
		: new THREE.PerspectiveCamera((2 * HALF_VIEW * 180) / Math.PI, aspect, 0.01, 1e5);
	const { back, up } = axesOf(pose);
	camera.position.copy(pose.flat ? pose.target.clone().addScaledVector(back, 1000) : placeOf(pose));
	camera.up.copy(up);
	camera.lookAt(pose.target);
	camera.updateMatrixWorld();
	const depth = point.clone().sub(camera.position).dot(back.clone().negate());
	const at = point.clone().project(camera);
	return { x: ((at.x + 1) / 2) * frame.width, y: ((1 - at.y) / 2) * frame.height, depth };
}

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const vector = fc
	.tuple(number(-40, 40), number(-40, 40), number(-10, 30))
	.map((v) => new THREE.Vector3(...v));
const pose: fc.Arbitrary<Pose> = fc.record({
	target: vector,
	turn: number(-7, 7),
	rise: number(-1.3, 1.5),
	distance: number(5, 200),
	flat: fc.boolean()
});
/** A point in the middle of the picture's depth, so that it stays before the eye. */
const held = fc.tuple(pose, number(-0.4, 0.4), number(-0.4, 0.4), number(-0.4, 0.4)).map(([one, a, b, c]) => {
	const { back, right, up } = axesOf(one);
	const point = one.target
		.clone()
		.addScaledVector(right, a * one.distance)
		.addScaledVector(up, b * one.distance)
		.addScaledVector(back, c * one.distance);
	return { one, point };
});

describe('how the eye stands', () => {
	it('keeps the point it turns about and comes nearer to where it is in the picture', () => {
		fc.assert(
			fc.property(
				held,
				number(-1, 1),
				number(-1, 1),
				number(0.3, 1.6),
				({ one, point }, across, upwards, factor) => {
					const before = seen(one, point);
					for (const after of [turned(one, point, [across, upwards]), nearer(one, point, factor)]) {
						const { x, y } = seen(after, point);
						expect(Math.hypot(x - before.x, y - before.y)).to.be.below(1e-3);
					}
					expect(nearer(one, point, factor).distance).to.be.closeTo(one.distance * factor, 1e-9);
				}
			)
		);
	});

	it('lets a point go with the pointer', () => {
		fc.assert(
			fc.property(held, number(-200, 200), number(-200, 200), ({ one, point }, dx, dy) => {
				const [before, after] = [seen(one, point), seen(moved(one, point, [dx, dy], frame), point)];
				expect(after.x - before.x).to.be.closeTo(dx, 1e-3);
				expect(after.y - before.y).to.be.closeTo(dy, 1e-3);
			})
		);
	});

	it('brings the whole of a box into what is free of the picture, and as near as that allows', () => {
		const room = fc.record({
			left: number(0, 250),
			right: number(0, 250),
			top: number(0, 60),
			bottom: number(0, 60)
		});
		fc.assert(
			fc.property(pose, vector, vector, room, (one, a, b, free) => {
				const box = new THREE.Box3().setFromPoints([a, b]);
				fc.pre(box.getSize(new THREE.Vector3()).length() > 2);
				const after = fitted(box, one, { ...frame, free });
				const places = cornersOf(box).map((corner) => seen(after, corner));
				const low = [Math.min(...places.map(({ x }) => x)), Math.min(...places.map(({ y }) => y))];
				const high = [Math.max(...places.map(({ x }) => x)), Math.max(...places.map(({ y }) => y))];
				expect(low[0]).to.be.at.least(free.left - 1e-6);
				expect(low[1]).to.be.at.least(free.top - 1e-6);
				expect(high[0]).to.be.at.most(frame.width - free.right + 1e-6);
				expect(high[1]).to.be.at.most(frame.height - free.bottom + 1e-6);
				// One way it fills most of what is free; perspective and the middle of the box leave something.
				if (one.flat && after.distance > 1.01) {
					const filled = Math.max(
						(high[0]! - low[0]!) / (frame.width - free.left - free.right),
						(high[1]! - low[1]!) / (frame.height - free.top - free.bottom)
					);
					expect(filled).to.be.closeTo(0.94, 1e-6);
				}
			})
		);
	});

	it('draws elevations and plans true: lengths square to the eye are alike at any depth', () => {
		const south: Pose = { target: new THREE.Vector3(3, 4, 5), turn: 0, rise: 0, distance: 60, flat: true };
		const metre = (y: number) =>
			seen(south, new THREE.Vector3(4, y, 5)).x - seen(south, new THREE.Vector3(3, y, 5)).x;
		expect(metre(-30)).to.be.closeTo(metre(30), 1e-9);
		expect(metre(0)).to.be.closeTo(frame.height / (2 * Math.tan(HALF_VIEW) * 60), 1e-9);
		// East is to the right from the south, the north is up from above.
		const above: Pose = { ...south, rise: Math.PI / 2 };
		const [from, north] = [
			seen(above, south.target),
			seen(above, south.target.clone().add(new THREE.Vector3(0, 1, 0)))
		];
		expect(north.y).to.be.below(from.y);
		expect(north.x).to.be.closeTo(from.x, 1e-6);
	});

	it('faces what it is turned to: its normal comes towards the eye', () => {
		fc.assert(
			fc.property(vector, number(-3, 3), (towards, turn) => {
				fc.pre(towards.length() > 1 && Math.hypot(towards.x, towards.y) > 0.2 * towards.length());
				const { back } = axesOf(facing(towards, { turn }));
				const level = new THREE.Vector3(towards.x, towards.y, 0).normalize();
				expect(new THREE.Vector3(back.x, back.y, 0).normalize().dot(level)).to.be.closeTo(1, 1e-9);
				expect(Math.asin(back.z)).to.be.within(-0.351, 1.301);
			})
		);
	});

	it('goes from one place to another by the shorter turn, and arrives', () => {
		fc.assert(
			fc.property(pose, pose, (a, b) => {
				const half = between(a, b, 0.5);
				expect(Math.abs(half.turn - a.turn)).to.be.at.most(Math.PI / 2 + 1e-9);
				const end = between(a, b, 1);
				expect(end.target.distanceTo(b.target)).to.be.below(1e-9);
				expect(end.distance).to.be.closeTo(b.distance, 1e-9 * b.distance);
				expect(axesOf(end).back.distanceTo(axesOf(b).back)).to.be.below(1e-9);
				expect(end.flat).to.equal(b.flat);
			})
		);
	});
});
