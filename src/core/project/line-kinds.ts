/** What a line of a grid is to those who put something along it, or leave it out of the picture. */
export const lineKinds = ['bay', 'course', 'diagonal', 'rim'] as const;
export type LineKind = (typeof lineKinds)[number];
