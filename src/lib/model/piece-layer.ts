import type { Material } from '$core/project/material-schema';
import type { ElementView, GroupView } from '$lib/worker/views';
import * as THREE from 'three';
import { acceleratedRaycast } from 'three-mesh-bvh';
import { MeshIndices } from './mesh-index';

export interface PieceEntry {
	readonly zone: number;
	readonly group: GroupView;
	readonly element: ElementView;
	readonly mesh: THREE.Mesh;
}

/** Draw and pick only the pieces on some of the anchors. */
function drawOnly(
	geometry: THREE.BufferGeometry,
	all: THREE.BufferAttribute,
	{ anchors }: GroupView,
	{ row, triangles }: ElementView,
	alone: ReadonlySet<number> | null
): void {
	if (!alone && geometry.index === all) return;
	const each = triangles.length;
	geometry.setIndex(
		alone ? Array.from(all.array).filter((_, k) => alone.has(anchors[row[Math.floor(k / each)]!]!)) : all
	);
	delete geometry.boundsTree;
}

/** The pieces: one mesh for each element of a group, in its material. */
export class PieceLayer {
	private readonly entries = new Map<string, PieceEntry>();
	private readonly indices = new MeshIndices((index) => new THREE.BufferAttribute(index, 1));
	private readonly materials = new Map<string, THREE.MeshStandardMaterial>();
	private seen = new Set<string>();

	constructor(private readonly root: THREE.Group) {}

	all(): IterableIterator<PieceEntry> {
		return this.entries.values();
	}

	/** @param alone the only anchors whose pieces are drawn, or null for all */
	show(group: GroupView, zone: number, visible: boolean, alone: ReadonlySet<number> | null): void {
		group.elements.forEach((element, k) => {
			const key = `${group.serial} ${k}`;
			this.seen.add(key);
			const { mesh } = this.entry(key, group, element, zone);
			mesh.visible = visible;
			drawOnly(mesh.geometry, this.indices.of(element), group, element, alone);
		});
	}

	private entry(key: string, group: GroupView, element: ElementView, zone: number): PieceEntry {
		const index = this.indices.of(element);
		const known = this.entries.get(key);
		if (known) return known;
		const geometry = new THREE.BufferGeometry();
		geometry.setAttribute('position', new THREE.BufferAttribute(element.positions, 3));
		geometry.setIndex(index);
		const mesh = new THREE.Mesh(geometry, this.material(element.material));
		mesh.frustumCulled = false;
		mesh.raycast = acceleratedRaycast;
		mesh.position.set(...group.origin);
		mesh.castShadow = true;
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

	private material({ colour, metalness, roughness, opacity }: Material): THREE.MeshStandardMaterial {
		const look = JSON.stringify([colour, metalness, roughness, opacity]);
		let made = this.materials.get(look);
		if (!made) {
			made = new THREE.MeshStandardMaterial({
				color: colour,
				metalness,
				roughness,
				transparent: opacity < 1,
				opacity,
				side: THREE.DoubleSide,
				flatShading: true
			});
			this.materials.set(look, made);
		}
		return made;
	}
}
