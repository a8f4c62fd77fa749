import type { Material } from '$core/project/material-schema';
import * as THREE from 'three';

/**
 * The materials of one scene, each look made once: a new one is a program that the graphics card is given and links,
 * which takes longer than drawing with it.
 */
export class Matter {
	private readonly made = new Map<string, THREE.MeshStandardMaterial>();

	/** @param finish what the scene wants beyond the look, for a kind of mesh */
	constructor(private readonly finish: (made: THREE.MeshStandardMaterial, kind: string) => void) {}

	of({ colour, metalness, roughness, opacity }: Material, kind = ''): THREE.MeshStandardMaterial {
		const look = JSON.stringify([colour, metalness, roughness, opacity, kind]);
		let made = this.made.get(look);
		if (!made) {
			made = new THREE.MeshStandardMaterial({
				color: colour,
				metalness,
				roughness,
				opacity,
				transparent: opacity < 1,
				side: THREE.DoubleSide,
				flatShading: true
			});
			this.finish(made, kind);
			this.made.set(look, made);
		}
		return made;
	}

	dispose(): void {
		for (const made of this.made.values()) made.dispose();
		this.made.clear();
	}
}
