import type { Own } from '$core/part/element-table';
import type { ElementView, GroupView } from '$lib/worker/views';
import * as THREE from 'three';
import { triangleCount } from '$core/part/places';
import type { CellLayer } from './cell-layer';
import { inDetail, MOST_TRIANGLES } from './detail';
import { Matter } from './matter';
import { MeshIndices } from './mesh-index';
import { PlacedMesh } from './placed-mesh';
import { plainPieces, type PlainPieces } from './plain-pieces';
import type { Manner } from './renderer';
import { shadowOf } from './shadow';
import { MM } from './metres';
import { ownIndex, WrittenMesh } from './written-mesh';

export interface PieceEntry {
	/** Its place in the view, which changes when zones change places. */
	zone: number;
	readonly group: GroupView;
	readonly element: ElementView;
	readonly mesh: WrittenMesh | PlacedMesh;
}

/** Pieces of a group, which are drawn in detail or plainly together. */
interface GroupEntry {
	zone: number;
	readonly group: GroupView;
	readonly meshes: PieceEntry['mesh'][];
	readonly triangles: number;
	/** Where they stand (m). */
	readonly sphere: THREE.Sphere;
	/** Whether they are to be seen, and whether all of them are. */
	wanted: boolean;
	whole: boolean;
	/** Made when they are first drawn plainly; null where there is no plainer way. */
	plain: PlainPieces | null | undefined;
}

/** The pieces: one mesh for each element of a group, in its material; plainly where they are far and there are many. */
export class PieceLayer {
	private readonly entries = new Map<string, PieceEntry>();
	private readonly indices = new MeshIndices((index) => new THREE.BufferAttribute(index, 1));
	private readonly matter: Matter;
	private readonly groups = new Map<number, GroupEntry>();
	private seen = new Set<string>();
	private readonly most: number;
	/** Everything is drawn in detail, however much there is. */
	private unsparing = false;

	constructor(
		private readonly root: THREE.Group,
		manner: Manner
	) {
		this.matter = new Matter(manner === 'plain');
		this.most = MOST_TRIANGLES[manner];
	}

	all(): IterableIterator<PieceEntry> {
		return this.entries.values();
	}

	/** @param alone the only sites whose pieces are drawn, or null for all */
	show(group: GroupView, zone: number, visible: boolean, alone: ReadonlySet<number> | null): void {
		const own = this.groupEntry(group, zone);
		own.zone = zone;
		own.wanted = visible;
		own.whole = alone === null;
		own.meshes.length = 0;
		group.elements.forEach((element, k) => {
			const key = `${group.serial} ${k}`;
			this.seen.add(key);
			const entry = this.entry(key, group, element, zone);
			entry.zone = zone;
			const { mesh } = entry;
			own.meshes.push(mesh);
			mesh.visible = visible;
			mesh.drawOnly(alone && ((instance) => alone.has(group.sites[element.row[instance]!]!)));
		});
	}

	private groupEntry(group: GroupView, zone: number): GroupEntry {
		const known = this.groups.get(group.serial);
		if (known) return known;
		const box = new THREE.Box3();
		for (const { bounds } of group.elements)
			for (const k of [0, 3]) box.expandByPoint(new THREE.Vector3().fromArray(bounds, k));
		box.translate(new THREE.Vector3(...group.origin));
		const sphere = box.getBoundingSphere(new THREE.Sphere());
		sphere.center.multiplyScalar(MM);
		sphere.radius *= MM;
		const triangles = group.elements.reduce((sum, one) => sum + triangleCount(one), 0);
		const made: GroupEntry = {
			zone,
			group,
			meshes: [],
			triangles,
			sphere,
			wanted: false,
			whole: true,
			plain: undefined
		};
		this.groups.set(group.serial, made);
		return made;
	}

	/**
	 * Draw in detail what is nearest to an eye, for as long as there are not too many triangles; plainly what is farther.
	 * @param at of the eye, m @param view what it sees @param pixel what of the model a point of the picture is (m) @returns whether anything is drawn plainly
	 */
	seenFrom(at: THREE.Vector3, view: THREE.Frustum, pixel: number, cells: CellLayer): boolean {
		const wanted = [...this.groups.values()].filter((one) => one.wanted);
		const total = wanted.reduce((sum, { triangles }) => sum + triangles, 0);
		const chunks = wanted.map(({ triangles, sphere }) => ({
			triangles,
			inView: view.intersectsSphere(sphere),
			away: Math.max(0, sphere.distanceToPoint(at))
		}));
		const all = this.unsparing || total <= this.most;
		const detailed = all ? chunks.map(() => true) : inDetail(chunks, this.most);
		let sparing = false;
		for (const [k, one] of wanted.entries()) {
			const plain = detailed[k] || !one.whole ? null : this.plainOf(one, cells);
			sparing ||= Boolean(plain);
			for (const mesh of one.meshes) mesh.visible = !plain;
			if (one.plain) one.plain.drawn.visible = Boolean(plain) && chunks[k]!.inView;
			plain?.seenAt(pixel);
		}
		for (const one of this.groups.values()) if (!one.wanted && one.plain) one.plain.drawn.visible = false;
		return sparing;
	}

	private plainOf(one: GroupEntry, cells: CellLayer): GroupEntry['plain'] {
		if (one.plain !== undefined) return one.plain;
		const face = cells.of({ zone: one.zone, face: one.group.face });
		if (!face) return null;
		one.plain = plainPieces(one.group, face, this.matter);
		if (one.plain) this.root.add(one.plain.drawn);
		return one.plain;
	}

	/** Do something while everything is drawn in detail. @param look has the eye look anew */
	async inFull<T>(act: () => Promise<T>, look: () => void): Promise<T> {
		this.unsparing = true;
		look();
		try {
			return await act();
		} finally {
			this.unsparing = false;
			look();
		}
	}

	private entry(key: string, group: GroupView, element: ElementView, zone: number): PieceEntry {
		const { shape, count } = element;
		// Asked for each time, so that it is kept.
		const shared = shape.is === 'made' ? this.indices.of({ ...shape, count }) : null;
		const known = this.entries.get(key);
		if (known) return known;
		const given = shape.is === 'placed' ? 'placed' : 'written';
		const material = this.matter.of(element.material, given);
		const index = () => shared ?? new THREE.BufferAttribute(ownIndex(shape as Own), 1);
		const mesh =
			shape.is === 'placed'
				? new PlacedMesh(shape, count, material)
				: new WrittenMesh(shape, index(), material);
		// What lies outside the picture is not drawn, chunk by chunk.
		const { bounds } = element;
		const box = new THREE.Box3(
			new THREE.Vector3().fromArray(bounds),
			new THREE.Vector3().fromArray(bounds, 3)
		);
		mesh.geometry.boundingSphere = box.getBoundingSphere(new THREE.Sphere());
		mesh.position.set(...group.origin);
		mesh.castShadow = true;
		mesh.customDepthMaterial = shadowOf(given, element.material.opacity < 1);
		mesh.receiveShadow = !element.material.glass;
		this.root.add(mesh);
		const entry = { zone, group, element, mesh };
		this.entries.set(key, entry);
		return entry;
	}

	/** Drop what was not shown since the last call. */
	forgetUnseen(): void {
		for (const [key, { mesh }] of this.entries) {
			if (this.seen.has(key)) continue;
			this.root.remove(mesh);
			mesh.geometry.dispose();
			this.entries.delete(key);
		}
		const groups = new Set(Array.from(this.seen, (key) => Number(key.split(' ')[0])));
		for (const [serial, { plain }] of this.groups) {
			if (groups.has(serial)) continue;
			if (plain) this.root.remove(plain.drawn);
			plain?.dispose();
			this.groups.delete(serial);
		}
		this.seen = new Set();
		this.indices.forgetUnused();
	}
}
