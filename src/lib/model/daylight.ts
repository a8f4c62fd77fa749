import type { Look } from '$core/project/view-schema';
import * as THREE from 'three';
import { People } from './people';
import type { Manner } from './renderer';

/** From where a model shows well. */
const SHOWING: readonly [number, number, number] = [-0.42, -0.58, 0.78];
/** How far the light stands from the middle of the model, in radii. */
const FAR = 2.4;
/** A sun lower than this (its height by its distance) loses its strength down to the horizon. */
const LOW = 0.1;
const STRENGTH = 2.15;
/** How wide the sun is when its shadows are soft (rad): wider than in nature, as through a thin haze. */
const DISC = 0.022;

/** Paper, lit from above. */
function paper(): THREE.Texture {
	const canvas = document.createElement('canvas');
	canvas.width = canvas.height = 256;
	const pen = canvas.getContext('2d')!;
	const light = pen.createRadialGradient(128, 50, 0, 128, 50, 260);
	light.addColorStop(0, '#FBF9F3');
	light.addColorStop(1, '#EFEADD');
	pen.fillStyle = light;
	pen.fillRect(0, 0, 256, 256);
	const texture = new THREE.CanvasTexture(canvas);
	texture.colorSpace = THREE.SRGBColorSpace;
	return texture;
}

const HAZE = '#E6E3DA';
/** A sky all round that pales towards the horizon; below it there is the haze that ends the ground. */
function heaven(): THREE.Texture {
	const canvas = document.createElement('canvas');
	[canvas.width, canvas.height] = [8, 512];
	const pen = canvas.getContext('2d')!;
	const light = pen.createLinearGradient(0, 0, 0, 512);
	light.addColorStop(0, '#6F9CC0');
	light.addColorStop(0.3, '#A9C6DA');
	light.addColorStop(0.47, '#DBE5E8');
	light.addColorStop(0.5, HAZE);
	light.addColorStop(1, HAZE);
	pen.fillStyle = light;
	pen.fillRect(0, 0, 8, 512);
	const texture = new THREE.CanvasTexture(canvas);
	texture.colorSpace = THREE.SRGBColorSpace;
	texture.mapping = THREE.EquirectangularReflectionMapping;
	return texture;
}

/** Soft light of the sky and a sun; with shadows and a ground to take them unless drawn plainly. */
export class Daylight {
	private readonly sun = new THREE.DirectionalLight(0xfff6e6, STRENGTH);
	private readonly towards = new THREE.Vector3(...SHOWING);
	private readonly lit = new THREE.Sphere();
	private readonly ground = new THREE.Mesh(
		new THREE.CircleGeometry(400, 48),
		new THREE.ShadowMaterial({ opacity: 0.2 })
	);
	private readonly stone = new THREE.Mesh(
		new THREE.CircleGeometry(400, 48),
		new THREE.MeshLambertMaterial({ color: 0xefece6 })
	);
	private readonly haze = new THREE.Fog(HAZE, 1, 1000);
	/** Made when they are first seen. */
	private people: People | null = null;
	private look: Look | null = null;
	private readonly bounds = new THREE.Box3();
	/** Of the eye about the vertical (rad). */
	private turn = 0;

	/** @param onPaper whether there is paper behind the scene, or nothing */
	constructor(
		private readonly scene: THREE.Scene,
		private readonly renderer: THREE.WebGLRenderer,
		private readonly manner: Manner,
		private readonly onPaper = false
	) {
		scene.add(new THREE.HemisphereLight(0xf4f6fa, 0xd6cdba, 1.55));
		scene.add(this.sun, this.sun.target);
		if (manner === 'plain') return;
		// Ground and people belong to one of the looks; pictures of pieces have none.
		this.stone.visible = false;
		this.show('paper');
		renderer.shadowMap.enabled = true;
		renderer.shadowMap.type = THREE.PCFShadowMap;
		renderer.shadowMap.autoUpdate = false;
		this.sun.castShadow = true;
		this.sun.shadow.mapSize.setScalar(manner === 'full' ? 2048 : 1024);
		// The coarser the map is, the farther a face has to be from its own shadow.
		this.sun.shadow.bias = -1.2 / this.sun.shadow.mapSize.x;
		this.sun.shadow.normalBias = 0.03;
		this.ground.receiveShadow = true;
		// Under its own shadows, so that neither flickers.
		this.stone.position.z = -0.03;
		scene.add(this.ground, this.stone);
	}

	/** What is behind the model, and under it. */
	show(look: Look): void {
		if (this.manner === 'plain' || !this.onPaper || look === this.look) return;
		this.look = look;
		const outside = look === 'presentation';
		if (this.scene.background instanceof THREE.Texture) this.scene.background.dispose();
		this.scene.background = outside ? heaven() : look === 'lines' ? new THREE.Color('#FBF9F3') : paper();
		this.scene.backgroundRotation.set(Math.PI / 2, 0, 0);
		this.scene.fog = outside ? this.haze : null;
		this.stone.visible = outside;
		if (outside && !this.people) {
			this.people = new People();
			if (!this.bounds.isEmpty()) this.people.standAround(this.bounds);
			this.people.turn(this.turn);
			this.scene.add(this.people.group);
		}
		if (this.people) this.people.group.visible = outside;
	}

	/** What stands round the model goes by the eye. @param turn of it about the vertical (rad) @param far how far it sees (m) */
	seenFrom(turn: number, far: number): void {
		this.turn = turn;
		this.people?.turn(turn);
		this.haze.near = 0.35 * far;
		this.haze.far = 0.97 * far;
	}

	/** Let the sun stand in a direction; null where a model shows well. Below the horizon it gives no light. */
	from(direction: readonly [number, number, number] | null): void {
		this.towards.set(...(direction ?? SHOWING)).normalize();
		this.sun.intensity = STRENGTH * Math.min(1, Math.max(0, this.towards.z / LOW));
		this.stand(null);
	}

	/** Stand somewhere within the sun's disc, given by a place in a unit square; null for its middle. */
	within(at: readonly [number, number] | null): void {
		if (this.manner !== 'full') return;
		this.stand(at);
		this.renderer.shadowMap.needsUpdate = true;
	}

	private stand(at: readonly [number, number] | null): void {
		const { center, radius } = this.lit;
		if (radius < 0) return;
		const from = this.towards.clone();
		if (at) {
			const across = new THREE.Vector3(-from.y, from.x, 0).normalize();
			const up = from.clone().cross(across);
			const [turn, out] = [2 * Math.PI * at[0], DISC * Math.sqrt(at[1])];
			from
				.addScaledVector(across, out * Math.cos(turn))
				.addScaledVector(up, out * Math.sin(turn))
				.normalize();
		}
		this.sun.target.position.copy(center);
		this.sun.position.copy(center).addScaledVector(from, FAR * radius);
	}

	/** Let the sun's shadow cover a box (m). */
	fit(bounds: THREE.Box3): void {
		if (bounds.isEmpty()) return;
		const { radius } = bounds.getBoundingSphere(this.lit);
		this.stand(null);
		this.bounds.copy(bounds);
		this.people?.standAround(bounds);
		const { camera } = this.sun.shadow;
		camera.left = camera.bottom = -radius * 1.05;
		camera.right = camera.top = radius * 1.05;
		camera.near = radius * 0.2;
		camera.far = radius * 5;
		camera.updateProjectionMatrix();
	}
}
