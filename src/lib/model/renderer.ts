import * as THREE from 'three';

/** A renderer for a canvas. @param plain without smooth edges, for machines that draw in software */
export function makeRenderer(canvas: HTMLCanvasElement, plain: boolean): THREE.WebGLRenderer {
	const renderer = new THREE.WebGLRenderer({ canvas, antialias: !plain, alpha: true });
	// Asking for shader errors makes the page wait for the graphics card.
	renderer.debug.checkShaderErrors = false;
	renderer.toneMapping = THREE.NoToneMapping;
	return renderer;
}
