import * as THREE from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';

export const viewNames = ['Around', 'North', 'East', 'South', 'West', 'Above'] as const;
export type ViewName = (typeof viewNames)[number];

/** Where each view looks from, before distance. North is +y. */
const directions: Record<ViewName, THREE.Vector3Tuple> = {
	Around: [0.36, -0.86, 0.36],
	North: [0, 1, 0.02],
	East: [1, 0, 0.02],
	South: [0, -1, 0.02],
	West: [-1, 0, 0.02],
	Above: [0, -0.001, 1]
};

/** The camera and how it is moved; lengths in metres, z up. */
export class Eye {
	readonly camera = new THREE.PerspectiveCamera(32, 1, 0.1, 2000);
	private readonly controls: OrbitControls;
	/** The person has turned or moved it since it was last told where to stand. */
	byHand = false;

	constructor(
		private readonly canvas: HTMLCanvasElement,
		onmove: () => void
	) {
		this.camera.up.set(0, 0, 1);
		this.controls = new OrbitControls(this.camera, canvas);
		this.controls.enableDamping = false;
		this.controls.maxPolarAngle = Math.PI * 0.52;
		this.controls.addEventListener('change', onmove);
		this.controls.addEventListener('start', () => (this.byHand = true));
	}

	/** Turning and panning rest while something else is dragged. */
	set resting(rest: boolean) {
		this.controls.enabled = !rest;
	}

	look(name: ViewName, box: THREE.Box3): void {
		this.stand(box, new THREE.Vector3(...directions[name]).normalize());
	}

	/** Bring a box into view from where the camera stands. */
	frame(box: THREE.Box3): void {
		this.stand(box, this.camera.position.clone().sub(this.controls.target).normalize());
	}

	private stand(box: THREE.Box3, direction: THREE.Vector3): void {
		if (box.isEmpty()) return;
		const centre = box.getCenter(new THREE.Vector3());
		// The least distance from which all eight corners are inside the view.
		const view = new THREE.Matrix4().lookAt(direction, new THREE.Vector3(), this.camera.up);
		const [right, up] = [0, 1].map((k) => new THREE.Vector3().setFromMatrixColumn(view, k));
		const tangent = Math.tan((this.camera.fov * Math.PI) / 360);
		let distance = 1;
		for (let k = 0; k < 8; k++) {
			const corner = new THREE.Vector3(
				k & 1 ? box.max.x : box.min.x,
				k & 2 ? box.max.y : box.min.y,
				k & 4 ? box.max.z : box.min.z
			).sub(centre);
			const needed =
				Math.max(Math.abs(corner.dot(right!)) / this.camera.aspect, Math.abs(corner.dot(up!))) / tangent;
			distance = Math.max(distance, needed + corner.dot(direction));
		}
		this.byHand = false;
		this.controls.target.copy(centre);
		this.camera.position.copy(centre).addScaledVector(direction, distance * 1.06);
		this.camera.near = distance / 100;
		this.camera.far = distance * 20;
		this.camera.updateProjectionMatrix();
		this.controls.update();
	}

	/** Where a point (m) lies on the canvas (CSS pixels), or null behind the camera. */
	project(point: THREE.Vector3): { x: number; y: number } | null {
		const at = point.clone().project(this.camera);
		if (at.z > 1) return null;
		return { x: ((at.x + 1) / 2) * this.canvas.clientWidth, y: ((1 - at.y) / 2) * this.canvas.clientHeight };
	}

	/** The ray through a point of the canvas (CSS pixels). */
	aim(raycaster: THREE.Raycaster, x: number, y: number): void {
		const { clientWidth, clientHeight } = this.canvas;
		raycaster.setFromCamera(
			new THREE.Vector2((x / clientWidth) * 2 - 1, 1 - (y / clientHeight) * 2),
			this.camera
		);
	}

	/** Turn of the camera about the vertical (rad), for the north mark. */
	heading(): number {
		return this.controls.getAzimuthalAngle();
	}

	resize(width: number, height: number): void {
		this.camera.aspect = width / height;
		this.camera.updateProjectionMatrix();
	}

	dispose(): void {
		this.controls.dispose();
	}
}
