import * as THREE from 'three';

const PLAIN = 'zygaster plain';

/** Whether this window draws plainly, for machines that draw in software: `?plain` once, and it stays so. */
export function isPlain(): boolean {
	if (new URLSearchParams(location.search).has('plain')) sessionStorage.setItem(PLAIN, 'yes');
	return sessionStorage.getItem(PLAIN) !== null;
}

/** Points of the drawing to a point of the screen. */
export const pixelRatio = (plain: boolean) => (plain ? 0.5 : Math.min(2, devicePixelRatio));

/** A renderer for a canvas. @param plain without smooth edges, for machines that draw in software */
export function makeRenderer(canvas: HTMLCanvasElement, plain: boolean): THREE.WebGLRenderer {
	const renderer = new THREE.WebGLRenderer({ canvas, antialias: !plain, alpha: true });
	// Asking for shader errors makes the page wait for the graphics card.
	renderer.debug.checkShaderErrors = false;
	renderer.toneMapping = THREE.NoToneMapping;
	return renderer;
}

/** Let go of what it holds on the graphics card at once: a browser has few such contexts for all its pages. */
export function closeRenderer(renderer: THREE.WebGLRenderer): void {
	renderer.dispose();
	renderer.forceContextLoss();
}

/** Free what is left in a scene: handles, lines, the sky, and the materials that things share. */
export function disposeAll(scene: THREE.Scene): void {
	scene.environment?.dispose();
	scene.traverse((one) => {
		const { geometry, material } = one as Partial<THREE.Mesh>;
		geometry?.dispose();
		for (const made of [material ?? []].flat()) made.dispose();
	});
	scene.clear();
}
