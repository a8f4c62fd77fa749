/**
 * What a line is to those who put something along it, or leave it out of the picture: uprights join a grid and the one
 * behind it, gaps the stations of a path.
 */
export const lineKinds = ['bay', 'course', 'diagonal', 'rim', 'upright', 'gap'] as const;
export type LineKind = (typeof lineKinds)[number];

/**
 * Where a line lies on the rims of its face, seen from outside; `trim` along an opening or what else a trim leaves,
 * `face` where another face of the zone meets it.
 */
export const rimSides = ['foot', 'head', 'left', 'right', 'trim', 'face'] as const;
export type RimSide = (typeof rimSides)[number];
