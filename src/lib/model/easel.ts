import type * as THREE from 'three';
import { closeRenderer, makeRenderer, mannerHere, type Manner } from './renderer';

/** A canvas, and what draws on it. */
export interface Easel {
	readonly canvas: HTMLCanvasElement;
	readonly renderer: THREE.WebGLRenderer;
}

function makeEasel(): Easel {
	const canvas = document.createElement('canvas');
	return { canvas, renderer: makeRenderer(canvas, false) };
}

/** Set up before there is a model to draw. */
let spare: (Easel & { readonly manner: Manner }) | null = null;

/** Have an easel ready: it takes a while, and the document of a project is still on its way. */
export function setUpEasel(): void {
	if (spare?.renderer.getContext().isContextLost() === false) return;
	const manner = mannerHere();
	try {
		spare = { ...makeEasel(), manner };
	} catch {
		// Where nothing can be drawn, the model says so when it comes to be.
		spare = null;
	}
}

/** @throws Error where nothing can be drawn */
export function takeEasel(manner: Manner): Easel {
	const ready = spare;
	spare = null;
	if (ready?.manner === manner && !ready.renderer.getContext().isContextLost()) return ready;
	if (ready) closeRenderer(ready.renderer);
	return makeEasel();
}
