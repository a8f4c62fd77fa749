import * as THREE from 'three';
import { hearGestures, type Gestures } from './gestures';
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
} from './pose';

export const viewNames = ['Around', 'North', 'East', 'South', 'West', 'Above'] as const;
export type ViewName = (typeof viewNames)[number];

/** From where each view looks; all but the first without perspective. North is +y. */
const stances: Readonly<Record<ViewName, Pick<Pose, 'turn' | 'rise' | 'flat'>>> = {
	Around: { turn: Math.atan2(0.36, 0.86), rise: Math.atan2(0.36, Math.hypot(0.36, 0.86)), flat: false },
	North: { turn: Math.PI, rise: 0, flat: true },
	East: { turn: Math.PI / 2, rise: 0, flat: true },
	South: { turn: 0, rise: 0, flat: true },
	West: { turn: -Math.PI / 2, rise: 0, flat: true },
	Above: { turn: 0, rise: Math.PI / 2, flat: true }
};

const ALL_FREE: Frame['free'] = { left: 0, top: 0, right: 0, bottom: 0 };
/** rad for a pixel of the pointer's way. */
const TURN = 0.006;
/** How long the eye takes to another place (ms). */
const WAY = 260;

/** The camera and how it is moved; lengths in metres, z up. */
export class Eye {
	private readonly perspective = new THREE.PerspectiveCamera((2 * HALF_VIEW * 180) / Math.PI, 1);
	private readonly flat = new THREE.OrthographicCamera();
	private pose: Pose = { target: new THREE.Vector3(), distance: 30, ...stances.Around };
	private frameOf: Frame = { width: 1, height: 1, free: ALL_FREE };
	/** What the hand goes about: the point that was under it when it was laid on; looked for when it first moves. */
	private pivot: THREE.Vector3 | null = null;
	private laidOn: readonly [number, number] = [0, 0];
	private going = 0;
	/** How far from the target anything stands (m). */
	private reach = 100;
	private isTold = false;
	private ended = false;
	/** What a hand does, and keys. */
	readonly gestures: Gestures;
	private endGestures: (() => void) | undefined;
	/** The person has turned or moved it since it was last told where to stand. */
	byHand = false;
	/** A double click means something else. */
	still = false;
	/** Turning and moving rest while something else is dragged. */
	resting = false;
	/** Called when a hand moves it. */
	onhand: () => void = () => undefined;
	/** What lies under a point of the canvas, if anything does (m). */
	under: (x: number, y: number) => THREE.Vector3 | null = () => null;

	/** @param onmove is told when it has moved @param atOnce whether it goes to other places without being seen on its way */
	constructor(
		private readonly onmove: () => void,
		private readonly atOnce = true
	) {
		this.aimCameras(this.pose);
		this.gestures = {
			begin: (x, y) => {
				this.stop();
				this.pivot = null;
				this.laidOn = [x, y];
			},
			turn: (dx, dy) =>
				this.hand({ ...turned(this.pose, this.about(), [-TURN * dx, TURN * dy]), flat: false }),
			move: (dx, dy) => this.hand(moved(this.pose, this.about(), [dx, dy], this.frameOf)),
			nearer: (factor) => this.hand(nearer(this.pose, this.about(), factor)),
			centre: (x, y) => {
				if (this.still) return;
				this.byHand = true;
				this.onhand();
				const target = this.pointAt(x, y);
				const distance = this.pose.flat
					? this.pose.distance
					: placeOf(this.pose).sub(target).dot(axesOf(this.pose).back);
				this.go({ ...this.pose, target, distance });
			}
		};
	}

	/** Go by what hands do on a canvas. */
	hear(canvas: HTMLCanvasElement): void {
		this.endGestures = hearGestures(canvas, this.gestures, () => this.resting);
	}

	get camera(): THREE.Camera {
		return this.pose.flat ? this.flat : this.perspective;
	}

	/** Where it stands (m). */
	get at(): THREE.Vector3 {
		return this.perspective.position;
	}

	/** What of the world comes into the picture. */
	get view(): THREE.Frustum {
		const { projectionMatrix, matrixWorldInverse } = this.pose.flat ? this.flat : this.perspective;
		return new THREE.Frustum().setFromProjectionMatrix(
			new THREE.Matrix4().multiplyMatrices(projectionMatrix, matrixWorldInverse)
		);
	}

	/** Drawn without perspective. */
	get isFlat(): boolean {
		return this.pose.flat;
	}

	/** A length of the model at the target by a pixel of the picture (m). */
	get pixel(): number {
		return (2 * Math.tan(HALF_VIEW) * this.pose.distance) / this.frameOf.height;
	}

	/** Of the picture (CSS pixels). */
	get size(): Pick<Frame, 'width' | 'height'> {
		return this.frameOf;
	}

	/** Whether there is a picture to see anything in. */
	get hasRoom(): boolean {
		return this.frameOf.width > 1;
	}

	/** How far it sees (m). */
	get far(): number {
		return this.perspective.far;
	}

	/** What lies under a point of the canvas, or else is as far as what is looked at. */
	private pointAt(x: number, y: number): THREE.Vector3 {
		const found = this.under(x, y);
		if (found) return found;
		const ray = new THREE.Raycaster();
		this.aim(ray, x, y);
		const plane = new THREE.Plane().setFromNormalAndCoplanarPoint(axesOf(this.pose).back, this.pose.target);
		return ray.ray.intersectPlane(plane, new THREE.Vector3()) ?? this.pose.target.clone();
	}

	private about(): THREE.Vector3 {
		return (this.pivot ??= this.pointAt(...this.laidOn));
	}

	private hand(pose: Pose): void {
		this.byHand = true;
		this.onhand();
		this.place(pose);
	}

	look(name: ViewName, box: THREE.Box3, free = ALL_FREE): void {
		this.bring(box, stances[name], free);
	}

	/**
	 * Bring a box into view from where the eye stands.
	 * @param normal where what is brought into view looks: the eye turns to face it @param free what cards leave of the picture
	 */
	frame(box: THREE.Box3, normal: THREE.Vector3 | null = null, free = ALL_FREE): void {
		const turn = normal ? facing(normal, this.pose) : this.pose;
		this.bring(box, { turn: turn.turn, rise: turn.rise, flat: this.pose.flat && !normal }, free);
	}

	private bring(box: THREE.Box3, stance: Pick<Pose, 'turn' | 'rise' | 'flat'>, free: Frame['free']): void {
		if (box.isEmpty()) return;
		this.byHand = false;
		this.go(fitted(box, stance, { ...this.frameOf, free }));
	}

	/** Whether all corners of a box are in the picture. @param box m */
	sees(box: THREE.Box3): boolean {
		const { width, height } = this.frameOf;
		return cornersOf(box).every((corner) => {
			const at = this.project(corner);
			return at && at.x >= 0 && at.y >= 0 && at.x <= width && at.y <= height;
		});
	}

	get stance(): Pose {
		return this.pose;
	}

	goTo(pose: Pose): void {
		this.byHand = true;
		this.go(pose);
	}

	/** Stand there at once. */
	stand(pose: Pose): void {
		this.stop();
		this.place(pose);
	}

	private stop(): void {
		cancelAnimationFrame(this.going);
		this.going = 0;
	}

	private go(to: Pose): void {
		this.stop();
		if (this.atOnce || matchMedia('(prefers-reduced-motion: reduce)').matches) {
			this.place(to);
			return;
		}
		const [from, began] = [this.pose, performance.now()];
		const step = () => {
			const share = Math.min(1, (performance.now() - began) / WAY);
			this.going = share < 1 ? requestAnimationFrame(step) : 0;
			this.place(between(from, to, 1 - (1 - share) ** 3));
		};
		step();
	}

	/** Tell how far the model reaches, so that all of it is drawn. @param box m */
	holds(box: THREE.Box3): void {
		const { radius } = box.getBoundingSphere(new THREE.Sphere());
		this.reach = Math.max(10, 3 * radius);
		this.place(this.pose);
	}

	private place(pose: Pose): void {
		this.aimCameras(pose);
		// Told once for all that was done, when whoever did it has ended: it may have been in the middle of an effect.
		if (this.isTold) return;
		this.isTold = true;
		queueMicrotask(() => {
			this.isTold = false;
			if (!this.ended) this.onmove();
		});
	}

	private aimCameras(pose: Pose): void {
		this.pose = pose;
		const { back, right, up } = axesOf(pose);
		const { perspective, flat } = this;
		const turn = new THREE.Matrix4().makeBasis(right, up, back);
		const { width, height } = this.frameOf;
		for (const camera of [perspective, flat]) camera.quaternion.setFromRotationMatrix(turn);
		perspective.position.copy(placeOf(pose));
		perspective.aspect = width / height;
		perspective.near = Math.max(0.02, pose.distance / 150);
		perspective.far = pose.distance + 3 * this.reach + pose.target.length();
		const half = Math.tan(HALF_VIEW) * pose.distance;
		const far = this.reach + pose.target.length();
		flat.position.copy(pose.target).addScaledVector(back, far);
		[flat.left, flat.right] = [(-half * width) / height, (half * width) / height];
		[flat.bottom, flat.top] = [-half, half];
		[flat.near, flat.far] = [0, 2 * far];
		for (const camera of [perspective, flat]) {
			camera.updateProjectionMatrix();
			camera.updateMatrixWorld();
		}
	}

	/** Where a point (m) lies on the canvas (CSS pixels), or null behind the camera. */
	project(point: THREE.Vector3): { x: number; y: number } | null {
		const at = point.clone().project(this.camera);
		if (at.z > 1) return null;
		const { width, height } = this.frameOf;
		return { x: ((at.x + 1) / 2) * width, y: ((1 - at.y) / 2) * height };
	}

	/** The ray through a point of the canvas (CSS pixels). */
	aim(raycaster: THREE.Raycaster, x: number, y: number): void {
		const { width, height } = this.frameOf;
		raycaster.setFromCamera(new THREE.Vector2((x / width) * 2 - 1, 1 - (y / height) * 2), this.camera);
	}

	/** Turn of the camera about the vertical (rad), for the north mark. */
	heading(): number {
		return this.pose.turn;
	}

	resize(width: number, height: number): void {
		if (!width || !height) return;
		this.frameOf = { width, height, free: ALL_FREE };
		this.place(this.pose);
	}

	dispose(): void {
		this.ended = true;
		this.stop();
		this.endGestures?.();
	}
}
