import type { Handle, Handles, Vector } from '$lib/form/handles';
import * as THREE from 'three';
import { MM } from './metres';
import type { Eye } from './eye';

const PATINA = 0x1f7a6b;
const GOLD = 0xd98e1f;
/** How near the pointer has to be to take a handle (px). */
const NEAR = 10;

/** A round dot with a light rim. */
function dot(): THREE.Texture {
	const canvas = document.createElement('canvas');
	canvas.width = canvas.height = 32;
	const pen = canvas.getContext('2d')!;
	pen.fillStyle = '#ffffff';
	pen.beginPath();
	pen.arc(16, 16, 14, 0, 2 * Math.PI);
	pen.fill();
	return new THREE.CanvasTexture(canvas);
}

/** Points that can be dragged, and the lines between them. */
export class HandleLayer {
	private handles: Handles = { points: [], lines: [] };
	private readonly dots = new THREE.Points(
		new THREE.BufferGeometry(),
		new THREE.PointsMaterial({
			vertexColors: true,
			size: 11,
			sizeAttenuation: false,
			depthTest: false,
			transparent: true,
			map: dot()
		})
	);
	private readonly lines = new THREE.LineSegments(
		new THREE.BufferGeometry(),
		new THREE.LineBasicMaterial({ color: PATINA, transparent: true, opacity: 0.5, depthTest: false })
	);
	private held: string | null = null;

	constructor(root: THREE.Group) {
		this.dots.renderOrder = 12;
		this.lines.renderOrder = 11;
		for (const one of [this.dots, this.lines]) one.frustumCulled = false;
		root.add(this.lines, this.dots);
	}

	show(handles: Handles): void {
		this.handles = handles;
		const places = handles.points.flatMap(({ at }) => at);
		const ends = handles.lines.flatMap((line) => line.slice(1).flatMap((p, k) => [...line[k]!, ...p]));
		this.lines.geometry.dispose();
		this.lines.geometry = new THREE.BufferGeometry().setAttribute(
			'position',
			new THREE.Float32BufferAttribute(ends, 3)
		);
		this.dots.geometry.dispose();
		this.dots.geometry = new THREE.BufferGeometry().setAttribute(
			'position',
			new THREE.Float32BufferAttribute(places, 3)
		);
		this.paint();
	}

	/** Show which handle is held. */
	hold(path: string | null): void {
		this.held = path;
		this.paint();
	}

	private paint(): void {
		const colour = new THREE.Color();
		const colours = this.handles.points.flatMap(({ path }) =>
			colour.set(path === this.held ? GOLD : PATINA).toArray()
		);
		this.dots.geometry.setAttribute('color', new THREE.Float32BufferAttribute(colours, 3));
	}

	/** The handle nearest to a point of the canvas, if one is near. */
	at(eye: Eye, x: number, y: number): Handle | null {
		let best: Handle | null = null;
		let least = NEAR;
		for (const handle of this.handles.points) {
			const place = eye.project(new THREE.Vector3(...handle.at).multiplyScalar(MM));
			const far = place ? Math.hypot(place.x - x, place.y - y) : Infinity;
			if (far < least) {
				least = far;
				best = handle;
			}
		}
		return best;
	}
}

/**
 * Where a handle goes when the pointer's ray leaves it: along its one direction, in the plane of its two,
 * or, when it is free, in the plane of two that faces the eye most; `upright` keeps a free one over its place.
 * @param ray in metres
 */
export function draggedTo(handle: Pick<Handle, 'at' | 'axes'>, ray: THREE.Ray, upright: boolean): Vector {
	const from = new THREE.Vector3(...handle.at);
	const origin = ray.origin.clone().divideScalar(MM);
	const way = ray.direction;
	const axes = handle.axes.map((axis) => new THREE.Vector3(...axis));
	const vertical = axes.find((axis) => axis.z > 0.99);
	const line = axes.length === 1 ? axes[0]! : upright && vertical ? vertical : null;
	if (line) {
		// The point of the line that is nearest to the ray.
		const between = from.clone().sub(origin);
		const b = line.dot(way);
		const rest = 1 - b * b;
		if (rest < 1e-6) return handle.at;
		const t = (b * between.dot(way) - between.dot(line)) / rest;
		return from.addScaledVector(line, t).toArray();
	}
	const normals = axes.length === 2 ? [axes[0]!.clone().cross(axes[1]!)] : axes;
	const normal = normals.reduce((a, b) => (Math.abs(b.dot(way)) > Math.abs(a.dot(way)) ? b : a));
	const facing = normal.dot(way);
	if (Math.abs(facing) < 1e-3) return handle.at;
	const t = from.clone().sub(origin).dot(normal) / facing;
	return t > 0 ? origin.addScaledVector(way, t).toArray() : handle.at;
}
