import * as THREE from 'three';

/** How tall somebody is (m). */
const HEIGHT = 1.72;
/** Where they stand: round the model, by a share of the way round and how far off it (m). */
const PLACES = [
	[0.04, 3.2],
	[0.055, 3.9],
	[0.19, 2.4],
	[0.33, 5.1],
	[0.47, 2.8],
	[0.485, 2.5],
	[0.62, 4.2],
	[0.8, 3],
	[0.93, 6]
] as const;

/** The outline of somebody who stands there in a coat, of height 1. */
function figure(): THREE.ShapeGeometry {
	const body = new THREE.Shape();
	body.moveTo(-0.075, 0);
	body.lineTo(-0.02, 0);
	body.lineTo(0.005, 0.4);
	body.lineTo(0.03, 0);
	body.lineTo(0.085, 0);
	body.bezierCurveTo(0.09, 0.2, 0.115, 0.35, 0.105, 0.5);
	body.bezierCurveTo(0.13, 0.6, 0.14, 0.76, 0.09, 0.81);
	body.bezierCurveTo(0.05, 0.835, 0.03, 0.83, 0.028, 0.86);
	body.absarc(0.005, 0.925, 0.068, -1.2, Math.PI + 1.2, false);
	body.bezierCurveTo(-0.03, 0.83, -0.05, 0.835, -0.09, 0.81);
	body.bezierCurveTo(-0.14, 0.76, -0.13, 0.6, -0.105, 0.5);
	body.bezierCurveTo(-0.115, 0.35, -0.085, 0.2, -0.075, 0);
	return new THREE.ShapeGeometry(body, 8);
}

/** People by whom the size of a model is told: flat figures that turn to the eye. */
export class People {
	readonly group = new THREE.Group();

	constructor() {
		const geometry = figure()
			.rotateX(Math.PI / 2)
			.scale(HEIGHT, HEIGHT, HEIGHT);
		for (const [k] of PLACES.entries()) {
			const tone = new THREE.Color().setHSL(0.08 + 0.03 * (k % 3), 0.12, 0.22 + 0.06 * (k % 4));
			const one = new THREE.Mesh(
				geometry,
				new THREE.MeshLambertMaterial({ color: tone, side: THREE.DoubleSide })
			);
			one.scale.setScalar(0.95 + 0.03 * (k % 4));
			one.castShadow = true;
			this.group.add(one);
		}
	}

	/** @param bounds of the model (m) */
	standAround({ min, max }: THREE.Box3): void {
		const [width, depth] = [max.x - min.x, max.y - min.y];
		for (const [k, [share, off]] of PLACES.entries()) {
			const along = 4 * share;
			const [side, at] = [Math.floor(along), along % 1];
			const [x, y] = [
				[min.x + at * width, min.y - off],
				[max.x + off, min.y + at * depth],
				[max.x - at * width, max.y + off],
				[min.x - off, max.y - at * depth]
			][side]! as [number, number];
			this.group.children[k]!.position.set(x, y, 0);
		}
	}

	/** @param turn of the eye about the vertical (rad) */
	turn(turn: number): void {
		for (const one of this.group.children) one.rotation.z = turn;
	}
}
