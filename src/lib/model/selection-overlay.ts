import type { GridSite } from '$core/cladding/sites';
import type { FaceView } from '$lib/worker/views';
import * as THREE from 'three';
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js';
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js';
import { LineSegmentsGeometry } from 'three/examples/jsm/lines/LineSegmentsGeometry.js';
import type { CellEntry } from './cell-layer';
import { lineSegments } from './cell-mesh';

const GOLD = 0xd98e1f;

/** Sites of one face that are selected. */
export type Chosen = Readonly<Record<GridSite, Set<number>>>;

/** What is selected: outlined and tinted, over everything else. */
export class SelectionOverlay {
	readonly group = new THREE.Group();
	private readonly line = new LineMaterial({
		color: GOLD,
		linewidth: 3,
		depthTest: false,
		transparent: true
	});
	private readonly fill = new THREE.MeshBasicMaterial({
		color: GOLD,
		transparent: true,
		opacity: 0.5,
		side: THREE.DoubleSide,
		polygonOffset: true,
		polygonOffsetFactor: -4,
		polygonOffsetUnits: -4,
		depthWrite: false
	});

	private readonly dots = new THREE.PointsMaterial({
		color: GOLD,
		size: 8,
		sizeAttenuation: false,
		depthTest: false,
		transparent: true
	});

	clear(): void {
		for (const child of [...this.group.children]) {
			this.group.remove(child);
			(child as THREE.Mesh).geometry.dispose();
		}
	}

	add({ view, triangles }: CellEntry, { cell: cells, line, node }: Chosen): void {
		this.addNodes(view, triangles.origin, node);
		const outline = new Set(line);
		for (let e = 0; e < view.edges.count; e++)
			if (cells.has(view.edges.left[e]!) !== cells.has(view.edges.right[e]!)) outline.add(e);
		const segments = lineSegments(view, triangles.origin, [...outline]);
		if (segments.length) {
			const lines = new LineSegments2(new LineSegmentsGeometry().setPositions(segments), this.line);
			lines.position.set(...triangles.origin);
			lines.renderOrder = 10;
			this.group.add(lines);
		}
		if (!cells.size) return;
		const source = triangles.geometry.getAttribute('position').array as Float32Array;
		const picked: number[] = [];
		for (let t = 0; t < triangles.cell.length; t++)
			if (cells.has(triangles.cell[t]!)) picked.push(...source.subarray(9 * t, 9 * t + 9));
		const geometry = new THREE.BufferGeometry();
		geometry.setAttribute('position', new THREE.BufferAttribute(Float32Array.from(picked), 3));
		const mesh = new THREE.Mesh(geometry, this.fill);
		// After the glass, which would otherwise be drawn over it.
		mesh.renderOrder = 9;
		mesh.position.set(...triangles.origin);
		this.group.add(mesh);
	}

	private addNodes(
		view: FaceView,
		origin: readonly [number, number, number],
		nodes: ReadonlySet<number>
	): void {
		if (!nodes.size) return;
		const places = [...nodes].flatMap((n) => origin.map((from, a) => view.grid.positions[3 * n + a]! - from));
		const geometry = new THREE.BufferGeometry();
		geometry.setAttribute('position', new THREE.Float32BufferAttribute(places, 3));
		const points = new THREE.Points(geometry, this.dots);
		points.position.set(...origin);
		points.renderOrder = 11;
		this.group.add(points);
	}

	resize(width: number, height: number): void {
		this.line.resolution.set(width, height);
	}
}
