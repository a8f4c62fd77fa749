import * as THREE from 'three';

const ZENITH = '#8FB3CC';
const HORIZON = '#FBF6E9';
const GROUND = '#B8AC90';
/** From where a model shows well. */
const SHOWING: readonly [number, number, number] = [-0.42, -0.58, 0.78];
/** How far the light stands from the middle of the model, in radii. */
const FAR = 2.4;
/** A sun lower than this (its height by its distance) loses its strength down to the horizon. */
const LOW = 0.1;
const STRENGTH = 2.6;

/** What glass and metal mirror: a bright sky over warm ground. */
function sky(renderer: THREE.WebGLRenderer): THREE.Texture {
	const scene = new THREE.Scene();
	const geometry = new THREE.SphereGeometry(10, 24, 12);
	const place = geometry.getAttribute('position');
	const colours = new Float32Array(place.count * 3);
	const [zenith, horizon, ground] = [ZENITH, HORIZON, GROUND].map((css) => new THREE.Color(css));
	for (let k = 0; k < place.count; k++) {
		const y = place.getY(k) / 10;
		const colour =
			y >= 0
				? horizon!.clone().lerp(zenith!, Math.sqrt(y))
				: horizon!.clone().lerp(ground!, Math.min(1, -4 * y));
		colours.set(colour.toArray(), 3 * k);
	}
	geometry.setAttribute('color', new THREE.BufferAttribute(colours, 3));
	const material = new THREE.MeshBasicMaterial({ vertexColors: true, side: THREE.BackSide });
	scene.add(new THREE.Mesh(geometry, material));
	const generator = new THREE.PMREMGenerator(renderer);
	const { texture } = generator.fromScene(scene);
	generator.dispose();
	return texture;
}

/** Soft sky light and a sun; with shadows and mirrored sky unless `plain`. */
export class Daylight {
	private readonly sun = new THREE.DirectionalLight(0xfff4df, STRENGTH);
	private readonly towards = new THREE.Vector3(...SHOWING);
	private readonly lit = new THREE.Sphere();

	constructor(scene: THREE.Scene, renderer: THREE.WebGLRenderer, plain: boolean) {
		scene.add(new THREE.HemisphereLight(0xf4f7fa, 0xcdbf9f, 1.55));
		scene.add(this.sun, this.sun.target);
		if (plain) return;
		renderer.shadowMap.enabled = true;
		renderer.shadowMap.type = THREE.PCFShadowMap;
		renderer.shadowMap.autoUpdate = false;
		this.sun.castShadow = true;
		this.sun.shadow.mapSize.set(2048, 2048);
		this.sun.shadow.bias = -0.0006;
		this.sun.shadow.normalBias = 0.03;
		scene.environment = sky(renderer);
		scene.environmentIntensity = 0.55;
		const ground = new THREE.Mesh(
			new THREE.CircleGeometry(400, 48),
			new THREE.ShadowMaterial({ opacity: 0.16 })
		);
		ground.receiveShadow = true;
		scene.add(ground);
	}

	/** Let the sun stand in a direction; null where a model shows well. Below the horizon it gives no light. */
	from(direction: readonly [number, number, number] | null): void {
		this.towards.set(...(direction ?? SHOWING)).normalize();
		this.sun.intensity = STRENGTH * Math.min(1, Math.max(0, this.towards.z / LOW));
		this.stand();
	}

	private stand(): void {
		const { center, radius } = this.lit;
		if (radius < 0) return;
		this.sun.target.position.copy(center);
		this.sun.position.copy(center).addScaledVector(this.towards, FAR * radius);
	}

	/** Let the sun's shadow cover a box (m). */
	fit(bounds: THREE.Box3): void {
		if (bounds.isEmpty()) return;
		const { radius } = bounds.getBoundingSphere(this.lit);
		this.stand();
		const { camera } = this.sun.shadow;
		camera.left = camera.bottom = -radius * 1.05;
		camera.right = camera.top = radius * 1.05;
		camera.near = radius * 0.2;
		camera.far = radius * 5;
		camera.updateProjectionMatrix();
	}
}
