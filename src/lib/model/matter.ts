import type { Material } from '$core/project/material-schema';
import * as THREE from 'three';

/** What light falls on: with a lustre, or evenly, which is far cheaper where there is no graphics card. */
export type Lit = THREE.MeshStandardMaterial | THREE.MeshLambertMaterial;

/** Faces lie a little behind the lines that are drawn on them. */
export const BEHIND_LINES = { polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1 } as const;

/** @param plain for machines that draw in software */
export function litMaterial(
	plain: boolean,
	{ metalness = 0, roughness = 1, ...look }: THREE.MeshStandardMaterialParameters
): Lit {
	return plain
		? // Both sides of what is seen through are drawn at once.
			new THREE.MeshLambertMaterial({
				...(look as THREE.MeshLambertMaterialParameters),
				forceSinglePass: true
			})
		: new THREE.MeshStandardMaterial({ ...look, metalness, roughness });
}

/**
 * The materials of one scene, each look made once: a new one is a program that the graphics card is given and links,
 * which takes longer than drawing with it.
 */
export class Matter {
	private readonly made = new Map<string, Lit>();

	/** @param finish what the scene wants beyond the look, for a kind of mesh */
	constructor(
		private readonly plain: boolean,
		private readonly finish: (made: Lit, kind: string) => void
	) {}

	of({ colour, metalness, roughness, opacity }: Material, kind = ''): Lit {
		const look = JSON.stringify([colour, metalness, roughness, opacity, kind]);
		let made = this.made.get(look);
		if (!made) {
			made = litMaterial(this.plain, {
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
