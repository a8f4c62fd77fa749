import * as THREE from 'three';
import type { Given } from './matter';
import { placedAt } from './placed-mesh';

/** Of what is seen through, only some points of a fine raster cast a shadow, so that it is light. */
const RASTER = `
	if (mod(floor(gl_FragCoord.x) + 2.0 * floor(gl_FragCoord.y), 5.0) > 0.5) discard;`;

const made = new Map<string, THREE.MeshDepthMaterial>();

/** What casts the shadows of a mesh. */
export function shadowOf(given: Given, isGlass: boolean): THREE.MeshDepthMaterial {
	const key = `${given} ${isGlass}`;
	let depth = made.get(key);
	if (!depth) {
		depth = new THREE.MeshDepthMaterial({ side: THREE.DoubleSide });
		depth.onBeforeCompile = (shader) => {
			if (given === 'placed') shader.vertexShader = placedAt(shader.vertexShader);
			if (isGlass)
				shader.fragmentShader = shader.fragmentShader.replace('void main() {', `void main() {${RASTER}`);
		};
		depth.customProgramCacheKey = () => key;
		made.set(key, depth);
	}
	return depth;
}
