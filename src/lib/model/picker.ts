import { pointAt as nodeAt, type Vector } from '$core/geometry/vector';
import type { Found } from '$lib/state/selection.svelte';
import * as THREE from 'three';
import type { CellLayer } from './cell-layer';
import type { Eye } from './eye';
import type { FormLayer } from './form-layer';
import { snapToRim, type Snap } from './measuring';
import { MM } from './metres';
import type { PieceLayer } from './piece-layer';

/** How near a click has to be to a node to take it (px). */
const NODE_REACH = 9;

/** What lies under places of the canvas (CSS pixels), for the eye as it stands. */
export class Picker {
	private readonly raycaster = new THREE.Raycaster();
	/** What a section leaves; what is cut away is not picked. */
	cut: THREE.Plane | null = null;
	/** Zones (by their places in the view) and masses (by their ids) that cannot be picked. */
	locked: { readonly zones: ReadonlySet<number>; readonly masses: ReadonlySet<string> } = {
		zones: new Set(),
		masses: new Set()
	};

	constructor(
		private readonly eye: Eye,
		private readonly cells: CellLayer,
		private readonly pieces: PieceLayer,
		private readonly forms: FormLayer
	) {}

	private seen(point: readonly [number, number, number]): { x: number; y: number } | null {
		return this.eye.project(new THREE.Vector3(...point).multiplyScalar(MM));
	}

	/** The face under a point of the canvas, as mass/face. */
	faceAt(x: number, y: number): string | null {
		this.eye.aim(this.raycaster, x, y);
		let best: { distance: number; name: string } | null = null;
		for (const { mass, shape, mesh, group } of this.forms.all()) {
			const hit = group.visible && !this.locked.masses.has(mass) ? this.hit(mesh) : undefined;
			if (hit && hit.distance < (best?.distance ?? Infinity))
				best = { distance: hit.distance, name: `${mass}/${shape.name}` };
		}
		return best?.name ?? null;
	}

	/**
	 * The cells whose middle lies where it is asked for on the canvas.
	 * @param through also those that something stands before
	 */
	cellsWhere(holds: (x: number, y: number) => boolean, through: boolean): Omit<Found, 'address'>[] {
		const found: Omit<Found, 'address'>[] = [];
		for (const { zone, face, view, triangles } of this.cells.all()) {
			if (this.locked.zones.has(zone)) continue;
			const { index: shown } = triangles.geometry;
			const drawn = shown
				? new Set(Array.from(shown.array, (vertex) => triangles.cell[Math.floor(vertex / 3)]!))
				: new Set(triangles.cell);
			for (const index of drawn) {
				const at = this.seen(nodeAt(view.measures.centre, index));
				if (!at || !holds(at.x, at.y)) continue;
				const seen = through ? null : this.at(at.x, at.y);
				const isSeen =
					seen?.zone === zone && seen.face === face && seen.kind === 'cell' && seen.index === index;
				if (through || isSeen) found.push({ zone, face, kind: 'cell', index });
			}
		}
		return found;
	}

	/** What lies under a point of the canvas (CSS pixels). */
	at(x: number, y: number): Omit<Found, 'address'> | null {
		this.eye.aim(this.raycaster, x, y);
		const hits: { distance: number; found: Omit<Found, 'address'> }[] = [];
		for (const { zone, face, mesh, triangles } of this.cells.all()) {
			// Hidden cells are picked too: a piece belongs to the cell it hangs on.
			const hit = mesh.userData['picked'] && !this.locked.zones.has(zone) ? this.hit(mesh) : undefined;
			if (hit)
				hits.push({
					distance: hit.distance,
					found: { zone, face, kind: 'cell', index: triangles.cell[Math.floor(hit.face!.a / 3)]! }
				});
		}
		for (const { zone, group, element, mesh } of this.pieces.all()) {
			const hit = mesh.visible && !this.locked.zones.has(zone) ? this.hit(mesh) : undefined;
			if (!hit) continue;
			const row = element.row[mesh.instanceAt(hit)]!;
			hits.push({
				distance: hit.distance - 1e-4,
				found: { zone, face: group.face, kind: group.over, index: group.sites[row]! }
			});
		}
		hits.sort((a, b) => a.distance - b.distance);
		return hits[0]?.found ?? null;
	}

	/**
	 * The place under a point of the canvas, mm: a node of the grid when one is near, a place on a face, or
	 * one at the height of the point before where there is no face.
	 */
	placeAt(x: number, y: number, height: number): Vector | null {
		this.eye.aim(this.raycaster, x, y);
		const shown = [...this.cells.all(), ...[...this.forms.all()].filter(({ group }) => group.visible)];
		const hit = shown.flatMap(({ mesh }) => this.hit(mesh) ?? []).sort((a, b) => a.distance - b.distance)[0];
		const { ray } = this.raycaster;
		const level = new THREE.Plane(new THREE.Vector3(0, 0, 1), -height * MM);
		const point = hit?.point ?? ray.intersectPlane(level, new THREE.Vector3());
		if (!point) return null;
		const entry = [...this.cells.all()].find(({ mesh }) => mesh === hit?.object);
		if (entry) {
			const { view, triangles } = entry;
			const { start, corners } = view.cells;
			const cell = triangles.cell[Math.floor(hit!.face!.a / 3)]!;
			for (const node of corners.subarray(start[cell]!, start[cell + 1]!)) {
				const at = nodeAt(view.grid.positions, node);
				const seen = this.seen(at);
				if (seen && Math.hypot(seen.x - x, seen.y - y) < NODE_REACH) return at;
			}
		}
		return point.divideScalar(MM).toArray();
	}

	/** The point of the model under a point of the canvas (m), if there is one. */
	pointAt(x: number, y: number): THREE.Vector3 | null {
		this.eye.aim(this.raycaster, x, y);
		return this.nearest()?.point ?? null;
	}

	private nearest(): THREE.Intersection | undefined {
		const drawn = [
			...[...this.cells.all()].flatMap(({ mesh, standIns }) => [mesh, standIns]),
			...[...this.pieces.all()].map(({ mesh }) => mesh)
		].filter(({ visible }) => visible);
		for (const { group, mesh } of this.forms.all()) if (group.visible) drawn.push(mesh);
		let best: THREE.Intersection | undefined;
		for (const mesh of drawn) {
			const hit = this.hit(mesh);
			if (hit && hit.distance < (best?.distance ?? Infinity)) best = hit;
		}
		return best;
	}

	private hit(mesh: THREE.Mesh): THREE.Intersection | undefined {
		const hits = this.raycaster.intersectObject(mesh, false);
		const { cut } = this;
		return cut ? hits.find(({ point }) => cut.distanceToPoint(point) >= 0) : hits[0];
	}

	/** What lengths are measured from at a point of the canvas. */
	snap(x: number, y: number): Snap | null {
		const found = this.at(x, y);
		const entry = found && this.cells.of(found);
		if (entry && found.kind === 'cell') {
			const { origin, direction } = this.raycaster.ray;
			const ray = new THREE.Ray(origin.clone().divideScalar(MM), direction.clone());
			const onRim = snapToRim(entry.view, found.index, { x, y }, (point) => this.seen(point), ray);
			if (onRim) return onRim;
		}
		this.eye.aim(this.raycaster, x, y);
		const hit = this.nearest();
		if (!hit?.face) return null;
		const normal = hit.face.normal.clone().transformDirection(hit.object.matrixWorld);
		return { is: 'face', at: hit.point.clone().divideScalar(MM).toArray(), normal: normal.toArray() };
	}
}
