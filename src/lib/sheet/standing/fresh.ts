import type { LayerDepth } from '$core/project/schema';

/** A depth that follows something, to start from. */
export const followsHeight: LayerDepth = {
	is: 'follows',
	field: 'height',
	from: [0, 10_000],
	to: [-900, -300],
	curve: [],
	steps: null,
	outside: 'held'
};
