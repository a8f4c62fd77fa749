import { Daylight } from '$lib/model/daylight';
import { Eye } from '$lib/model/eye';
import { closeRenderer, makeRenderer, type Manner } from '$lib/model/renderer';
import * as THREE from 'three';
import type { MadeElement } from './hang';
import { forgetShapes, PieceMeshes } from './piece-meshes';

const [WIDTH, HEIGHT] = [240, 150];

/** Draws small pictures of pieces, one after the other, with one renderer for all. */
export class Pictures {
	private readonly canvas = document.createElement('canvas');
	private readonly renderer: THREE.WebGLRenderer;
	private readonly scene = new THREE.Scene();
	private readonly meshes: PieceMeshes;
	private readonly eye: Eye;
	private readonly daylight: Daylight;

	constructor(manner: Manner) {
		const plain = manner === 'plain';
		[this.canvas.width, this.canvas.height] = [WIDTH, HEIGHT];
		this.renderer = makeRenderer(this.canvas, !plain);
		this.meshes = new PieceMeshes(plain);
		this.renderer.setSize(WIDTH, HEIGHT, false);
		this.eye = new Eye(() => undefined);
		this.eye.resize(WIDTH, HEIGHT);
		this.daylight = new Daylight(this.scene, this.renderer, manner);
	}

	/** A picture as a data address; null when there is nothing to show. */
	of(elements: readonly MadeElement[]): string | null {
		if (!elements.length) return null;
		const group = this.meshes.of(elements);
		this.scene.add(group);
		const box = new THREE.Box3().setFromObject(group);
		this.daylight.fit(box);
		this.renderer.shadowMap.needsUpdate = true;
		if (!box.isEmpty()) this.eye.holds(box);
		this.eye.look('Around', box);
		this.renderer.render(this.scene, this.eye.camera);
		const picture = this.canvas.toDataURL('image/png');
		this.scene.remove(group);
		forgetShapes(group);
		return picture;
	}

	dispose(): void {
		this.meshes.dispose();
		this.eye.dispose();
		closeRenderer(this.renderer);
	}
}
