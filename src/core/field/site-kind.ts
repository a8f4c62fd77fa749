/** The kinds of places that a part can hang on, and that something can be known of. */
export const siteKinds = [
	'cell',
	'line',
	'node',
	'station',
	'chain',
	'layer cell',
	'layer line',
	'layer node'
] as const;
export type SiteKind = (typeof siteKinds)[number];
