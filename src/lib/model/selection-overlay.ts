import type { GridSite } from '$core/cladding/sites';
import type { FaceView } from '$lib/worker/views';
import * as THREE from 'three';
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js';
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js';
import { LineSegmentsGeometry } from 'three/examples/jsm/lines/LineSegmentsGeometry.js';
import type { CellEntry } from './cell-layer';
import { lineSegments } from './cell-mesh';

/** How an overlay looks: what is selected, or what a clause is about while it is pointed at. */
export interface OverlayLook {
	readonly colour: number;
	/** Of its outline (px). */
	readonly width: number;
	readonly opacity: number;
	/** Whether what stands before it hides it. */
	readonly hidden: boolean;
}
export const SELECTED: OverlayLook = { colour: 0xd98e1f, width: 3, opacity: 0.22, hidden: false };
export const POINTED_AT: OverlayLook = { colour: 0x1f7a6b, width: 2, opacity: 0.4, hidden: false };
export const CLASHING: OverlayLook = { colour: 0xb23b2a, width: 2.5, opacity: 0.45, hidden: false };
export const FLAGGED: OverlayLook = { colour: 0xb23b2a, width: 2, opacity: 0.3, hidden: true };

/** Sites of one face that are selected. */
export type Chosen = Readonly<Record<GridSite, Set<number>>>;
export const nothingChosen = (): Chosen => ({
	cell: new Set(),
	line: new Set(),
	node: new Set(),
	chain: new Set()
});

/** Sites outlined and tinted, over everything else. */
export class SelectionOverlay {
	readonly group = new THREE.Group();
	private readonly line: LineMaterial;
	private readonly fill: THREE.MeshBasicMaterial;
	private readonly dots: THREE.PointsMaterial;

	constructor({ colour: color, width, opacity, hidden }: OverlayLook) {
		const over = {
			color,
			depthTest: hidden,
			transparent: true,
			polygonOffset: true,
			polygonOffsetFactor: -6,
			polygonOffsetUnits: -6
		};
		this.line = new LineMaterial({ ...over, linewidth: width });
		this.dots = new THREE.PointsMaterial({ ...over, size: 8, sizeAttenuation: false });
		this.fill = new THREE.MeshBasicMaterial({
			color,
			transparent: true,
			opacity,
			side: THREE.DoubleSide,
			polygonOffset: true,
			polygonOffsetFactor: -4,
			polygonOffsetUnits: -4,
			depthWrite: false
		});
	}

	clear(): void {
		for (const child of [...this.group.children]) {
			this.group.remove(child);
			(child as THREE.Mesh).geometry.dispose();
		}
	}

	add({ view, triangles }: CellEntry, { cell: cells, line, node, chain }: Chosen): void {
		this.addNodes(view, triangles.origin, node);
		const outline = new Set(line);
		for (let e = 0; e < view.edges.count; e++)
			if (cells.has(view.edges.left[e]!) !== cells.has(view.edges.right[e]!)) outline.add(e);
		for (const e of linesOfChains(view, chain)) outline.add(e);
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

/** The lines between the nodes of some chains. */
function linesOfChains({ chains, edges }: FaceView, chosen: ReadonlySet<number>): number[] {
	if (!chosen.size) return [];
	const nodes = new Set(
		[...chosen].flatMap((k) => [...chains.nodes.subarray(chains.start[k]!, chains.start[k + 1]!)])
	);
	return Array.from(edges.from.keys()).filter((e) => nodes.has(edges.from[e]!) && nodes.has(edges.to[e]!));
}
