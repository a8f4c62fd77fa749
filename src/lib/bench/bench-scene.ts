import { MM } from '$lib/model/metres';
import type { Vector } from '$core/geometry/vector';
import { Daylight } from '$lib/model/daylight';
import { Eye } from '$lib/model/eye';
import { draggedTo } from '$lib/model/handle-layer';
import { Picture } from '$lib/model/picture';
import type { Frame } from '$lib/model/pose';
import { closeRenderer, makeRenderer, type Manner } from '$lib/model/renderer';
import * as THREE from 'three';
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js';
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js';
import { LineSegmentsGeometry } from 'three/examples/jsm/lines/LineSegmentsGeometry.js';
import type { Ghost } from './bench.svelte';
import type { MadeElement } from './hang';
import { forgetShapes, PieceMeshes } from './piece-meshes';

const GOLD = 0xd98e1f;
const INK = 0x1d2126;
/** Edges between triangles that meet flatter than this are not drawn (degrees). */
const EDGE_ANGLE = 22;
/** Left round a piece, of its size. */
const MARGIN = 0.12;

const pointsOf = ({ points }: Ghost) =>
	new THREE.BufferGeometry().setFromPoints(points.map(([x, y, z]) => new THREE.Vector3(x, y, z)));

/** The lines of a ghost, and of its triangles those along its edges. */
function edgesOf(ghost: Ghost): THREE.BufferGeometry {
	const { loops, triangles } = ghost;
	if (!loops.length && triangles.length) {
		const mesh = pointsOf(ghost).setIndex([...triangles]);
		const edges = new THREE.EdgesGeometry(mesh, EDGE_ANGLE);
		mesh.dispose();
		return edges;
	}
	const segments = loops.flatMap((loop) => loop.slice(1).flatMap((to, k) => [loop[k]!, to]));
	return pointsOf(ghost).setIndex(segments);
}

/** The same as lines that have a width. */
function segmentsOf(edges: THREE.BufferGeometry): LineSegmentsGeometry {
	const flat = edges.index ? edges.toNonIndexed() : edges;
	const made = new LineSegmentsGeometry().setPositions(flat.getAttribute('position').array as Float32Array);
	edges.dispose();
	flat.dispose();
	return made;
}

/** One piece on its trial anchors. */
export class BenchScene {
	private readonly renderer: THREE.WebGLRenderer;
	private readonly scene = new THREE.Scene();
	private readonly daylight: Daylight;
	private readonly eye: Eye;
	private readonly raycaster = new THREE.Raycaster();
	private readonly meshes: PieceMeshes;
	private readonly dots = new THREE.PointsMaterial({ color: GOLD, sizeAttenuation: false, depthTest: false });
	private readonly smallDots = new THREE.PointsMaterial({
		color: INK,
		size: 4,
		sizeAttenuation: false,
		depthTest: false,
		transparent: true,
		opacity: 0.45
	});
	private readonly thin = new THREE.LineBasicMaterial({
		color: INK,
		depthTest: false,
		transparent: true,
		opacity: 0.32
	});
	private readonly lit = new LineMaterial({ color: GOLD, linewidth: 2.5, depthTest: false });
	private piece = new THREE.Group();
	private readonly marked = new THREE.Group();
	private readonly picture: Picture;
	onDrawn: (() => void) | null = null;
	onCamera: (() => void) | null = null;

	constructor(canvas: HTMLCanvasElement, manner: Manner) {
		this.renderer = makeRenderer(canvas, false);
		this.meshes = new PieceMeshes(manner === 'plain');
		this.eye = new Eye(() => {
			this.onCamera?.();
			this.request();
		});
		this.eye.hear(canvas);
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

	/** Show what steps make, thinly; the chosen one is lit. */
	mark(ghosts: readonly Ghost[]): void {
		forgetShapes(this.marked);
		this.marked.clear();
		for (const ghost of ghosts) {
			const edges = edgesOf(ghost);
			const order = ghost.isChosen ? 10 : 9;
			const lines = ghost.isChosen
				? new LineSegments2(segmentsOf(edges), this.lit)
				: new THREE.LineSegments(edges, this.thin);
			lines.renderOrder = order;
			this.marked.add(lines);
			if (!ghost.isChosen && ghost.is !== 'point') continue;
			const dots = new THREE.Points(pointsOf(ghost), ghost.isChosen ? this.dots : this.smallDots);
			dots.renderOrder = order;
			this.marked.add(dots);
		}
		const chosen = ghosts.find(({ isChosen }) => isChosen);
		this.dots.size = chosen?.is === 'solid' || chosen?.is === 'sheet' ? 4 : 8;
		this.request();
	}

	/** Bring points (mm) and what hangs on them into view. @param free what cards leave of the picture */
	frame(points: readonly Vector[], free: Frame['free']): void {
		const box = new THREE.Box3().setFromObject(this.piece);
		for (const p of points) box.expandByPoint(new THREE.Vector3(...p).multiplyScalar(MM));
		// Room for the names of its corners.
		box.expandByVector(box.getSize(new THREE.Vector3()).multiplyScalar(MARGIN));
		this.eye.look('Around', box, free);
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
		this.lit.resolution.set(width, height);
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
		for (const material of [this.dots, this.smallDots, this.thin, this.lit]) material.dispose();
		this.eye.dispose();
		closeRenderer(this.renderer);
	}
}
