import '$lib/no-evaluation';
import { warmUp } from '$lib/state/thread';
import type { ClientInit } from '@sveltejs/kit';

/** What a thread needs of the page until it goes on by itself (ms). */
const SET_OFF_MS = 40;

/**
 * The thread that computes a project, and what its model is drawn on, set off before the programs of its page are begun:
 * the graphics card makes its own programs meanwhile.
 */
export const init: ClientInit = async () => {
	if (!location.pathname.startsWith('/project/')) return;
	warmUp(false);
	await new Promise((resolve) => setTimeout(resolve, SET_OFF_MS));
	const { setUpScene } = await import('$lib/model/spare-scene');
	setUpScene();
};
