import type { Lens } from '$lib/state/desk.svelte';
import type { Found } from '$lib/state/selection.svelte';
import type { FaceView } from '$lib/worker/views';
import * as THREE from 'three';
import { BEHIND_LINES, litMaterial, type Lit } from './matter';
import { cellTriangles, colourCells, lineSegments, type CellTriangles } from './cell-mesh';
import type { CellColours } from './paint';
import { raycastSorted } from './raycast';

const INK = 0x1d2126;
const PATINA = 0x1f7a6b;

export interface CellEntry {
	readonly zone: number;
	readonly face: number;
	readonly view: FaceView;
	readonly triangles: CellTriangles;
	readonly mesh: THREE.Mesh;
	/** The cells that stand in the place of pieces; they share the mesh's vertices. */
	readonly standIns: THREE.Mesh;
	readonly lines: THREE.LineSegments;
	readonly nodes: THREE.Points;
}

const lineOpacity: Record<Lens, number> = { form: 0, 'set-out': 0.5, clad: 0.22, check: 0.5, issue: 0.22 };

/** The vertices of some cells' triangles. */
function verticesOf({ cell }: CellTriangles, wanted: ReadonlySet<number>): number[] {
	const drawn: number[] = [];
	cell.forEach((c, t) => {
		if (wanted.has(c)) drawn.push(3 * t, 3 * t + 1, 3 * t + 2);
	});
	return drawn;
}

/** Draw and pick only some of the cells. */
function drawOnly(triangles: CellTriangles, alone: ReadonlySet<number> | null): void {
	const { geometry } = triangles;
	if (!alone && !geometry.index) return;
	geometry.setIndex(alone ? verticesOf(triangles, alone) : null);
	delete geometry.boundsTree;
}

/**
 * The faces as plain cells, with their lines and nodes. Materials are shared and kept, so that a
 * new shape compiles no shader.
 */
export class CellLayer {
	private readonly entries = new Map<number, CellEntry>();
	private readonly matter: Lit;
	private readonly ink = new THREE.LineBasicMaterial({ color: INK, transparent: true });
	private readonly dots = new THREE.PointsMaterial({ color: PATINA, size: 5, sizeAttenuation: false });

	constructor(
		private readonly root: THREE.Group,
		plain: boolean
	) {
		this.matter = litMaterial(plain, {
			vertexColors: true,
			roughness: 0.9,
			side: THREE.DoubleSide,
			flatShading: true,
			...BEHIND_LINES
		});
	}

	all(): IterableIterator<CellEntry> {
		return this.entries.values();
	}

	get size(): number {
		return this.entries.size;
	}

	of(one: Pick<Found, 'zone' | 'face'>): CellEntry | undefined {
		return [...this.all()].find(({ zone, face }) => zone === one.zone && face === one.face);
	}

	/** @param alone the only cells that are drawn, or null for all @param notMade those whose pieces failed */
	show(
		face: FaceView,
		zone: number,
		f: number,
		{ palette, of }: CellColours,
		lens: Lens,
		alone: ReadonlySet<number> | null,
		notMade: ReadonlySet<number>
	): void {
		const entry = this.entry(face, zone, f);
		drawOnly(entry.triangles, alone);
		colourCells(entry.triangles, palette, of);
		entry.mesh.visible = lens === 'set-out' || lens === 'check';
		const standing = new Set([...notMade].filter((cell) => !alone || alone.has(cell)));
		entry.standIns.visible = standing.size > 0 && (lens === 'clad' || lens === 'issue');
		if (entry.standIns.visible) entry.standIns.geometry.setIndex(verticesOf(entry.triangles, standing));
		this.ink.opacity = lineOpacity[lens];
		entry.lines.visible = lens !== 'form' && !alone;
		entry.nodes.visible = lens === 'set-out' && !alone;
	}

	private entry(face: FaceView, zone: number, f: number): CellEntry {
		const known = this.entries.get(face.serial);
		if (known && known.zone === zone && known.face === f) return known;
		if (known) this.drop(face.serial, known);
		const triangles = cellTriangles(face);
		const mesh = new THREE.Mesh(triangles.geometry, this.matter);
		mesh.raycast = raycastSorted;
		mesh.castShadow = mesh.receiveShadow = true;
		mesh.position.set(...triangles.origin);
		const shared = new THREE.BufferGeometry();
		for (const name of ['position', 'color'])
			shared.setAttribute(name, triangles.geometry.getAttribute(name));
		const standIns = new THREE.Mesh(shared, this.matter);
		standIns.castShadow = standIns.receiveShadow = true;
		const lineGeometry = new THREE.BufferGeometry();
		lineGeometry.setAttribute('position', new THREE.BufferAttribute(lineSegments(face, triangles.origin), 3));
		const lines = new THREE.LineSegments(lineGeometry, this.ink);
		const nodes = new THREE.Points(lineGeometry, this.dots);
		for (const one of [standIns, lines, nodes]) one.position.copy(mesh.position);
		// Whether a face is in view is not worth measuring it anew for every shape.
		for (const one of [mesh, standIns, lines, nodes]) one.frustumCulled = false;
		this.root.add(mesh, standIns, lines, nodes);
		const entry = { zone, face: f, view: face, triangles, mesh, standIns, lines, nodes };
		this.entries.set(face.serial, entry);
		return entry;
	}

	keepOnly(serials: ReadonlySet<number>): void {
		for (const [serial, entry] of this.entries) if (!serials.has(serial)) this.drop(serial, entry);
	}

	private drop(serial: number, { mesh, standIns, lines, nodes }: CellEntry): void {
		this.root.remove(mesh, standIns, lines, nodes);
		mesh.geometry.dispose();
		standIns.geometry.dispose();
		lines.geometry.dispose();
		this.entries.delete(serial);
	}
}
