import { lineKindOf } from '$core/cladding/line-run';
import type { LineKind } from '$core/project/line-kinds';
import type { Hidden } from '$core/project/view-schema';
import type { Lens } from '$lib/state/desk.svelte';
import type { Found } from '$lib/state/selection.svelte';
import type { FaceView } from '$lib/worker/views';
import * as THREE from 'three';
import { BEHIND_LINES, litMaterial, type Lit } from './matter';
import { cellTriangles, colourCells, lineSegments, type CellTriangles } from './cell-mesh';
import { NO_CELL } from '$core/pattern/edges';
import type { CellColours, Standing } from './paint';
import { raycastSorted } from './raycast';

const INK = 0x1d2126;
const PATINA = 0x1f7a6b;
/** How large nodes are, from near (m). */
const NODE = 0.09;

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
function verticesOf({ cell }: CellTriangles, isWanted: (cell: number) => boolean): number[] {
	const drawn: number[] = [];
	cell.forEach((c, t) => {
		if (isWanted(c)) drawn.push(3 * t, 3 * t + 1, 3 * t + 2);
	});
	return drawn;
}

/** Draw and pick only some of the cells. */
function drawOnly(triangles: CellTriangles, alone: ReadonlySet<number> | null): void {
	const { geometry } = triangles;
	if (!alone && !geometry.index) return;
	geometry.setIndex(alone ? verticesOf(triangles, (cell) => alone.has(cell)) : null);
}

/**
 * The faces as plain cells, with their lines and nodes. Materials are shared and kept, so that a
 * new shape compiles no shader.
 */
export class CellLayer {
	private readonly entries = new Map<number, CellEntry>();
	private readonly matter: Lit;
	private readonly ink = new THREE.LineBasicMaterial({ color: INK, transparent: true });
	/** Lines of grids behind others, of webs and of paths. */
	private readonly behindInk = new THREE.LineBasicMaterial({
		color: PATINA,
		transparent: true,
		opacity: 0.7
	});
	private readonly workedInk = new THREE.LineBasicMaterial({
		color: PATINA,
		transparent: true,
		opacity: 0.55,
		depthTest: false
	});
	private worked: number | null = null;
	private readonly dots = new THREE.PointsMaterial({ color: PATINA, size: 3, sizeAttenuation: false });

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
		this.sample();
	}

	/** One of each kind and of nothing: their programs can be made, and drawn with, before there are cells. */
	private sample(): void {
		const nothing = new THREE.BufferGeometry();
		nothing.setAttribute('position', new THREE.BufferAttribute(new Float32Array(0), 3));
		const samples = [
			new THREE.Mesh(nothing, this.matter),
			new THREE.LineSegments(nothing, this.ink),
			new THREE.Points(nothing, this.dots)
		];
		for (const sample of samples) sample.frustumCulled = false;
		samples[0]!.castShadow = true;
		this.root.add(...samples);
	}

	/** Draw nodes as large as a picture of some scale bears. @param pixel what of the model a point of the picture is (m) */
	nodesAt(pixel: number): void {
		this.dots.size = Math.min(5, Math.max(1.5, NODE / pixel));
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

	/** @param alone the only cells that are drawn, or null for all @param standing which stand in the place of pieces, and which have some */
	show(
		face: FaceView,
		zone: number,
		f: number,
		{ palette, of }: CellColours,
		lens: Lens,
		alone: ReadonlySet<number> | null,
		{ standing, covered, behind }: Standing,
		{ kinds, lines }: Pick<Hidden, 'kinds' | 'lines'>
	): void {
		const entry = this.entry(face, zone, f);
		drawOnly(entry.triangles, alone);
		colourCells(entry.triangles, palette, of);
		entry.mesh.visible = (lens === 'set-out' || lens === 'check') && !behind;
		entry.standIns.visible = (lens === 'clad' || lens === 'issue') && standing.includes(1);
		if (entry.standIns.visible)
			entry.standIns.geometry.setIndex(
				verticesOf(entry.triangles, (cell) => standing[cell] === 1 && (!alone || alone.has(cell)))
			);
		const showsPieces = lens === 'clad' || lens === 'issue';
		// A piece belongs to the cell it hangs on; without panels one looks through to what is behind.
		entry.mesh.userData['picked'] = !behind && (!showsPieces || !kinds.includes('panel'));
		entry.lines.userData['behind'] = behind;
		this.inkOf(entry);
		this.drawLines(entry, showsPieces ? covered : null, lines);
		this.ink.opacity = lineOpacity[lens];
		entry.lines.visible = lens !== 'form' && !alone;
		entry.nodes.visible = lens === 'set-out' && !alone;
	}

	/** Lines of the zone that is worked on are seen through what is before them, where it stands behind others. */
	workOn(zone: number | null): void {
		this.worked = zone;
		for (const entry of this.all()) this.inkOf(entry);
	}

	private inkOf({ lines, zone }: CellEntry): void {
		const behind = zone === this.worked ? this.workedInk : this.behindInk;
		lines.material = lines.userData['behind'] === true ? behind : this.ink;
	}

	/** Where pieces meet, their own edges are seen: of the grid's lines only those beside cells without one are drawn. */
	private drawLines(
		{ view, lines }: CellEntry,
		covered: Uint8Array | null,
		hidden: readonly LineKind[]
	): void {
		const { edges } = view;
		const bare = (cell: number) => cell !== NO_CELL && !covered?.[cell];
		const some = covered !== null || hidden.length > 0;
		const drawn: number[] = [];
		if (some)
			for (let e = 0; e < edges.count; e++)
				if (
					(edges.left[e] === NO_CELL || bare(edges.left[e]!) || bare(edges.right[e]!)) &&
					!hidden.includes(lineKindOf(edges, e))
				)
					drawn.push(2 * e, 2 * e + 1);
		if (some || lines.geometry.index) lines.geometry.setIndex(some ? drawn : null);
	}

	private entry(face: FaceView, zone: number, f: number): CellEntry {
		const known = this.entries.get(face.serial);
		if (known && known.zone === zone && known.face === f) return known;
		if (known) this.drop(face.serial, known);
		// What was there before is gone at once: sites are looked up by their place.
		for (const [serial, other] of this.entries)
			if (other.zone === zone && other.face === f) this.drop(serial, other);
		const triangles = cellTriangles(face);
		const mesh = new THREE.Mesh(triangles.geometry, this.matter);
		mesh.raycast = raycastSorted;
		mesh.castShadow = mesh.receiveShadow = true;
		mesh.position.set(...triangles.origin);
		const shared = new THREE.BufferGeometry();
		for (const name of ['position', 'color'])
			shared.setAttribute(name, triangles.geometry.getAttribute(name));
		const standIns = new THREE.Mesh(shared, this.matter);
		standIns.raycast = raycastSorted;
		standIns.castShadow = standIns.receiveShadow = true;
		const lineGeometry = new THREE.BufferGeometry();
		lineGeometry.setAttribute('position', new THREE.BufferAttribute(lineSegments(face, triangles.origin), 3));
		const lines = new THREE.LineSegments(lineGeometry, this.ink);
		// Of their own, since which lines are drawn is of no matter to nodes.
		const nodeGeometry = new THREE.BufferGeometry();
		nodeGeometry.setAttribute('position', lineGeometry.getAttribute('position'));
		const nodes = new THREE.Points(nodeGeometry, this.dots);
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
		nodes.geometry.dispose();
		this.root.remove(mesh, standIns, lines, nodes);
		mesh.geometry.dispose();
		standIns.geometry.dispose();
		lines.geometry.dispose();
		this.entries.delete(serial);
	}
}
