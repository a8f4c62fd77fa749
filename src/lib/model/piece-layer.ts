import type { Own } from '$core/part/element-table';
import type { ElementView, GroupView } from '$lib/worker/views';
import * as THREE from 'three';
import { Matter } from './matter';
import { MeshIndices } from './mesh-index';
import { PlacedMesh } from './placed-mesh';
import { shadowOf } from './shadow';
import { ownIndex, WrittenMesh } from './written-mesh';

export interface PieceEntry {
	readonly zone: number;
	readonly group: GroupView;
	readonly element: ElementView;
	readonly mesh: WrittenMesh | PlacedMesh;
}

/** The pieces: one mesh for each element of a group, in its material. */
export class PieceLayer {
	private readonly entries = new Map<string, PieceEntry>();
	private readonly indices = new MeshIndices((index) => new THREE.BufferAttribute(index, 1));
	private readonly matter: Matter;
	private seen = new Set<string>();

	constructor(
		private readonly root: THREE.Group,
		plain: boolean
	) {
		this.matter = new Matter(plain);
	}

	all(): IterableIterator<PieceEntry> {
		return this.entries.values();
	}

	/** @param alone the only sites whose pieces are drawn, or null for all */
	show(group: GroupView, zone: number, visible: boolean, alone: ReadonlySet<number> | null): void {
		group.elements.forEach((element, k) => {
			const key = `${group.serial} ${k}`;
			this.seen.add(key);
			const { mesh } = this.entry(key, group, element, zone);
			mesh.visible = visible;
			mesh.drawOnly(alone && ((instance) => alone.has(group.sites[element.row[instance]!]!)));
		});
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
		this.seen = new Set();
		this.indices.forgetUnused();
	}
}
