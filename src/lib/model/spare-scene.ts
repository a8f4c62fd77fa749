import { mannerHere, type Manner } from './renderer';
import { ModelScene } from './scene';

/** Set up before there is a model to draw. */
let spare: ModelScene | null = null;

/** Have a scene ready: it takes a while, and the document of a project is still on its way. */
export function setUpScene(): void {
	if (spare?.isLost === false) return;
	try {
		spare = new ModelScene(mannerHere());
	} catch {
		// Where nothing can be drawn, the model says so when it comes to be.
		spare = null;
	}
}

/** @throws Error where nothing can be drawn */
export function takeScene(manner: Manner): ModelScene {
	const ready = spare;
	spare = null;
	if (ready?.manner === manner && !ready.isLost) return ready;
	ready?.dispose();
	return new ModelScene(manner);
}
