import type { Material } from '$core/project/material-schema';
import * as THREE from 'three';
import { placedAt } from './placed-mesh';

/** What light falls on: with a lustre, or evenly, which is far cheaper where there is no graphics card. */
export type Lit = THREE.MeshStandardMaterial | THREE.MeshLambertMaterial;

/** Faces lie a little behind the lines that are drawn on them. */
export const BEHIND_LINES = { polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1 } as const;

/**
 * The sky that things mirror, reckoned where it is needed: zenith, a bright horizon with soft clouds, warm ground. Of a
 * rough thing's mirror image the horizon is blurred.
 */
const SKY = `
	vec3 skyTowards(vec3 way, float blur) {
		float clouds = 0.5 + 0.5 * sin(3.1 * way.x + 1.3 * way.z + 0.7) * sin(2.3 * way.y - 1.9 * way.x);
		vec3 high = mix(vec3(0.97, 0.93, 0.85), vec3(0.30, 0.47, 0.62), sqrt(clamp(way.z, 0.0, 1.0)));
		high = mix(high, vec3(0.93, 0.94, 0.95), 0.35 * clouds * clamp(2.0 * way.z, 0.0, 1.0));
		vec3 low = mix(vec3(0.80, 0.77, 0.72), vec3(0.60, 0.58, 0.53), clamp(-2.0 * way.z, 0.0, 1.0));
		return mix(low, high, smoothstep(-0.04 - blur, 0.04 + blur, way.z));
	}`;

/** Mirrors the sky, the more the flatter it is looked along; what is seen through is tinted deeper there. */
const MIRROR = `
	vec3 towardsEye = isOrthographic ? vec3(0.0, 0.0, 1.0) : normalize(vViewPosition);
	float facing = clamp(abs(dot(towardsEye, normal)), 0.0, 1.0);
	vec3 straight = mix(vec3(0.04), diffuseColor.rgb, metalnessFactor);
	vec3 mirrored = straight + (max(vec3(1.0 - roughnessFactor), straight) - straight) * pow(1.0 - facing, 5.0);
	vec3 mirroredWay = inverseTransformDirection(reflect(-towardsEye, normal * sign(dot(towardsEye, normal) + 1e-6)), viewMatrix);
	float through = 1.0 - diffuseColor.a;
	// The sun's own image is too small and too bright to draw: softened on metal, hardly there in a pane.
	outgoingLight -= mix(0.6, 0.9, step(0.01, through)) * reflectedLight.directSpecular;
	outgoingLight *= mix(1.0, 0.45 + 0.55 * facing, step(0.01, through));
	outgoingLight += mirrored * skyTowards(mirroredWay, 0.7 * roughnessFactor) / max(0.05, mix(1.0, diffuseColor.a, step(0.01, through)));
	diffuseColor.a = 1.0 - through * (1.0 - max(mirrored.r, max(mirrored.g, mirrored.b))) * (0.35 + 0.65 * facing);
`;

/** What surfaces look like from near; `onPiece` is a place on the piece (mm), its first number along the grain. */
const SURFACES: Readonly<Record<Exclude<Material['surface'], 'even'>, string>> = {
	wood: `
		vec2 across = onPiece.yz;
		float ring = length(across * vec2(0.11, 0.17) + 0.6 * noiseAt(onPiece * vec3(0.0016, 0.02, 0.02)));
		float fibre = noiseAt(onPiece * vec3(0.012, 0.5, 0.5));
		float board = 0.72 + 0.2 * noiseAt(vec3(floor(onPiece.yz / 90.0), 3.0)) + 0.16 * sin(6.0 * ring) * seen(6.0 * ring) + 0.14 * fibre;
		diffuseColor.rgb *= board;`,
	cast: `
		float cloud = noiseAt(onPiece * 0.0021) + 0.5 * noiseAt(onPiece * 0.013);
		float grain = noiseAt(onPiece * 0.21) * seen(onPiece.x * 0.21 + onPiece.z * 0.21);
		diffuseColor.rgb *= 0.88 + 0.11 * cloud + 0.07 * grain;`,
	woven: `
		float warp = sin(onPiece.x * 1.2) * seen(onPiece.x * 1.2);
		float weft = sin(onPiece.y * 1.2 + onPiece.z * 1.2) * seen(onPiece.y * 1.2 + onPiece.z * 1.2);
		diffuseColor.rgb *= 0.94 + 0.06 * warp * weft;`
};
const NOISE = `
	varying vec3 onPiece;
	float dotAt(vec3 p) { return fract(sin(dot(p, vec3(12.9898, 78.233, 37.719))) * 43758.5453); }
	float noiseAt(vec3 p) {
		vec3 i = floor(p); vec3 f = fract(p); f = f * f * (3.0 - 2.0 * f);
		return mix(
			mix(mix(dotAt(i), dotAt(i + vec3(1, 0, 0)), f.x), mix(dotAt(i + vec3(0, 1, 0)), dotAt(i + vec3(1, 1, 0)), f.x), f.y),
			mix(mix(dotAt(i + vec3(0, 0, 1)), dotAt(i + vec3(1, 0, 1)), f.x), mix(dotAt(i + vec3(0, 1, 1)), dotAt(i + vec3(1, 1, 1)), f.x), f.y), f.z);
	}
	// What is too fine for the picture's points is left out.
	float seen(float wave) { return 1.0 - smoothstep(0.4, 2.0, fwidth(wave)); }`;

/** How a mesh's vertices are given: each written out, or of one mesh under maps; see `PlacedMesh`. */
export type Given = 'written' | 'placed';

/** @param plain for machines that draw in software */
export function litMaterial(
	plain: boolean,
	{ metalness = 0, roughness = 1, ...look }: THREE.MeshStandardMaterialParameters,
	given: Given = 'written',
	surface: Material['surface'] = 'even'
): Lit {
	const made = plain
		? // Both sides of what is seen through are drawn at once.
			new THREE.MeshLambertMaterial({
				...(look as THREE.MeshLambertMaterialParameters),
				forceSinglePass: true
			})
		: new THREE.MeshStandardMaterial({ ...look, metalness, roughness });
	const worked = !plain && surface !== 'even';
	if (plain && given === 'written') return made;
	made.onBeforeCompile = (shader) => {
		if (given === 'placed') shader.vertexShader = placedAt(shader.vertexShader);
		if (plain) return;
		let { fragmentShader } = shader;
		fragmentShader = fragmentShader
			.replace('void main() {', `${SKY}\nvoid main() {`)
			.replace('#include <opaque_fragment>', `${MIRROR}\n#include <opaque_fragment>`);
		if (worked) {
			shader.vertexShader = onPiece(shader.vertexShader, given);
			fragmentShader = `${NOISE}\n${fragmentShader.replace('#include <color_fragment>', `#include <color_fragment>\n${SURFACES[surface]}`)}`;
		}
		shader.fragmentShader = fragmentShader;
	};
	made.customProgramCacheKey = () => `${given} ${worked ? surface : ''}`;
	return made;
}

/** Lets a vertex shader tell where on its piece a place is: along the longest way of a mesh under maps, else upright. */
function onPiece(shader: string, given: Given): string {
	const told =
		given === 'placed'
			? `vec3 sizes = vec3(length(map1), length(map2), length(map3));
				vec3 local = position * sizes + fract(map0.x * 0.37 + map0.y * 0.71 + map0.z * 0.13) * 1000.0;
				onPiece = sizes.x >= sizes.y && sizes.x >= sizes.z ? local : sizes.y >= sizes.z ? local.yxz : local.zxy;`
			: 'onPiece = transformed.zxy;';
	return `varying vec3 onPiece;\n${shader.replace('#include <project_vertex>', `${told}\n#include <project_vertex>`)}`;
}

/**
 * The materials of one scene, each look made once: a new one is a program that the graphics card is given and links,
 * which takes longer than drawing with it.
 */
export class Matter {
	private readonly made = new Map<string, Lit>();

	/** @param finish what the scene wants beyond the look */
	constructor(
		private readonly plain: boolean,
		private readonly finish: (made: Lit) => void = () => undefined
	) {}

	of({ colour, metalness, roughness, opacity, surface }: Material, given: Given = 'written'): Lit {
		const look = JSON.stringify([colour, metalness, roughness, opacity, surface, given]);
		let made = this.made.get(look);
		if (!made) {
			const params = {
				color: colour,
				metalness,
				roughness,
				opacity,
				transparent: opacity < 1,
				side: THREE.DoubleSide,
				flatShading: true
			};
			made = litMaterial(this.plain, params, given, surface);
			this.finish(made);
			this.made.set(look, made);
		}
		return made;
	}

	dispose(): void {
		for (const made of this.made.values()) made.dispose();
		this.made.clear();
	}
}
