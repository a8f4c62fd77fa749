import * as THREE from 'three';

/**
 * How pictures are drawn: *full* with lustre, mirrored sky and shadows; *light* for machines that take long over a picture,
 * evenly lit and coarser while it moves, as fine when it rests; *plain* for those that draw in software and for tests.
 */
export type Manner = 'plain' | 'light' | 'full';

const PLAIN = 'zygaster plain';

/** Whether this window draws plainly: `?plain` once, and it stays so. */
export function isPlain(): boolean {
	if (new URLSearchParams(location.search).has('plain')) sessionStorage.setItem(PLAIN, 'yes');
	return sessionStorage.getItem(PLAIN) !== null;
}

/** Whether the machine has no graphics card that a browser would use. */
function drawsInSoftware(): boolean {
	const gl = document.createElement('canvas').getContext('webgl2');
	const told = gl?.getExtension('WEBGL_debug_renderer_info');
	const name = gl && told ? String(gl.getParameter(told.UNMASKED_RENDERER_WEBGL)) : '';
	gl?.getExtension('WEBGL_lose_context')?.loseContext();
	return /swiftshader|llvmpipe|softpipe|software|basic render/i.test(name);
}

let found: Manner | null = null;
/** How pictures are drawn in this window: as was found to be fit. */
export function mannerHere(): Manner {
	if (isPlain()) return 'plain';
	return (found ??= drawsInSoftware() ? 'light' : 'full');
}

/** Pictures take long here: they are drawn lightly from now on. */
export function drawLightly(): void {
	found = 'light';
}

/** Points of the drawing to a point of the screen. */
export const pixelRatio = (plain: boolean) => (plain ? 0.5 : Math.min(2, devicePixelRatio));

/** A renderer for a canvas. @param smooth its edges are smoothed as they are drawn */
export function makeRenderer(canvas: HTMLCanvasElement, smooth: boolean): THREE.WebGLRenderer {
	const renderer = new THREE.WebGLRenderer({ canvas, antialias: smooth, alpha: true });
	// Asking for shader errors makes the page wait for the graphics card.
	renderer.debug.checkShaderErrors = false;
	renderer.toneMapping = THREE.NoToneMapping;
	return renderer;
}

/** Wait until the graphics card has drawn what it was given. @returns how long it took (ms) */
export async function drawn(renderer: THREE.WebGLRenderer): Promise<number> {
	const gl = renderer.getContext() as WebGL2RenderingContext;
	const began = performance.now();
	const sign = gl.fenceSync(gl.SYNC_GPU_COMMANDS_COMPLETE, 0);
	if (!sign) return 0;
	gl.flush();
	while (!gl.isContextLost()) {
		const is = gl.clientWaitSync(sign, 0, 0);
		if (is !== gl.TIMEOUT_EXPIRED) break;
		await new Promise((go) => setTimeout(go, 4));
	}
	gl.deleteSync(sign);
	return performance.now() - began;
}

/**
 * Let go of what it holds on the graphics card: a browser has few such contexts for all its pages. What was given to the
 * card before is waited for, or the page would stand still until that is drawn.
 */
export function closeRenderer(renderer: THREE.WebGLRenderer): void {
	renderer.dispose();
	void drawn(renderer).then(() => renderer.forceContextLoss());
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
