import type { Vector } from '$core/geometry/vector';
import { Daylight } from '$lib/model/daylight';
import { Eye } from '$lib/model/eye';
import { draggedTo } from '$lib/model/handle-layer';
import { Picture } from '$lib/model/picture';
import { closeRenderer, makeRenderer, type Manner } from '$lib/model/renderer';
import * as THREE from 'three';
import type { MadeElement } from './bench.svelte';
import { forgetShapes, PieceMeshes } from './piece-meshes';

const MM = 0.001;
const GOLD = 0xd98e1f;
/** Left round a piece, of its size. */
const MARGIN = 0.22;

/** One piece on its trial anchors. */
export class BenchScene {
	private readonly renderer: THREE.WebGLRenderer;
	private readonly scene = new THREE.Scene();
	private readonly daylight: Daylight;
	private readonly eye: Eye;
	private readonly raycaster = new THREE.Raycaster();
	private readonly meshes: PieceMeshes;
	private readonly dots = new THREE.PointsMaterial({ color: GOLD, sizeAttenuation: false, depthTest: false });
	private piece = new THREE.Group();
	private readonly marked = new THREE.Group();
	private readonly picture: Picture;
	onDrawn: (() => void) | null = null;
	onCamera: (() => void) | null = null;

	constructor(canvas: HTMLCanvasElement, manner: Manner) {
		this.renderer = makeRenderer(canvas, false);
		this.meshes = new PieceMeshes(manner === 'plain');
		this.eye = new Eye(canvas, () => {
			this.onCamera?.();
			this.request();
		});
		this.daylight = new Daylight(this.scene, this.renderer, manner, true);
		this.picture = new Picture(this.renderer, this.scene, manner, this.eye, this.daylight);
		this.picture.onDrawn = () => this.onDrawn?.();
		this.marked.scale.setScalar(MM);
		this.scene.add(this.piece, this.marked);
	}

	show(elements: readonly MadeElement[]): void {
		this.scene.remove(this.piece);
		forgetShapes(this.piece);
		this.piece = this.meshes.of(elements);
		this.scene.add(this.piece);
		const box = new THREE.Box3().setFromObject(this.piece);
		this.daylight.fit(box);
		if (!box.isEmpty()) this.eye.holds(box);
		this.renderer.shadowMap.needsUpdate = true;
		this.request();
	}

	/** Mark the points of a step's result; lines are drawn over the picture. */
	mark(result: { readonly is: string; readonly points: readonly Vector[] } | null): void {
		forgetShapes(this.marked);
		this.marked.clear();
		if (result?.points.length) {
			const geometry = new THREE.BufferGeometry().setFromPoints(
				result.points.map(([x, y, z]) => new THREE.Vector3(x, y, z))
			);
			this.dots.size = result.is === 'solid' || result.is === 'sheet' ? 4 : 8;
			const points = new THREE.Points(geometry, this.dots);
			points.renderOrder = 10;
			this.marked.add(points);
		}
		this.request();
	}

	/** Bring points (mm) and what hangs on them into view. */
	frame(points: readonly Vector[]): void {
		const box = new THREE.Box3().setFromObject(this.piece);
		for (const p of points) box.expandByPoint(new THREE.Vector3(...p).multiplyScalar(MM));
		// Room for the card beside it.
		box.expandByVector(box.getSize(new THREE.Vector3()).multiplyScalar(MARGIN));
		this.eye.look('Around', box);
		this.request();
	}

	project(point: Vector): { x: number; y: number } | null {
		return this.eye.project(new THREE.Vector3(...point).multiplyScalar(MM));
	}

	/** Where a point goes when the pointer is at a place of the canvas. */
	drag(at: Vector, x: number, y: number): Vector {
		this.eye.aim(this.raycaster, x, y);
		const axes: Vector[] = [
			[1, 0, 0],
			[0, 1, 0],
			[0, 0, 1]
		];
		const to = draggedTo(
			{ at: [...at], axes: axes.map(([a, b, c]) => [a, b, c]) },
			this.raycaster.ray,
			false
		);
		return [Math.round(to[0]), Math.round(to[1]), Math.round(to[2])];
	}

	resize(width: number, height: number): void {
		this.picture.resize(width, height);
		this.eye.resize(width, height);
	}

	private request(): void {
		this.picture.request();
	}

	dispose(): void {
		this.picture.dispose();
		forgetShapes(this.piece);
		forgetShapes(this.marked);
		this.meshes.dispose();
		this.dots.dispose();
		this.eye.dispose();
		closeRenderer(this.renderer);
	}
}
