// Imports go one way. Core: each room may use the ones before it, never one after.
const core = [
	'units',
	'geometry',
	'project',
	'mass',
	'grid',
	'pattern',
	'measure',
	'field',
	'part',
	'strength',
	'cladding',
	'heat',
	'limit',
	'like',
	'mark',
	'moves',
	'unroll',
	'survey',
	'clash',
	'cost',
	'cutting',
	'schedule',
	'drawing',
	'release',
	'partner',
	'exchange',
	'chain'
];

const oneWay = core.slice(0, -1).map((room, k) => ({
	name: `core-${room}-looks-back-only`,
	severity: 'error',
	from: { path: `^src/core/${room}/` },
	to: { path: `^src/core/(${core.slice(k + 1).join('|')})/` }
}));

module.exports = {
	forbidden: [
		...oneWay,
		{
			name: 'core-stands-alone',
			severity: 'error',
			from: { path: '^src/core/' },
			to: { path: '^src/(lib|routes|cli|partners)/' }
		},
		// Programs of somebody else's: they know what anybody may read, and nobody here knows them.
		{
			name: 'partners-stand-apart',
			severity: 'error',
			from: { path: '^src/partners/' },
			to: { path: '^src/(lib|routes|cli)/' }
		},
		{
			name: 'partners-are-strangers',
			severity: 'error',
			from: { path: '^src/(lib|routes|cli)/' },
			to: { path: '^src/partners/' }
		},
		{
			name: 'core-has-no-platform',
			severity: 'error',
			from: { path: '^src/core/' },
			to: { dependencyTypes: ['core'] }
		},
		{
			name: 'core-has-no-interface',
			severity: 'error',
			from: { path: '^src/core/' },
			to: { path: 'node_modules/(svelte|@sveltejs|three|bits-ui|chart\\.js|kysely|pg)/' }
		},
		{
			name: 'lib-below-routes',
			severity: 'error',
			from: { path: '^src/lib/' },
			to: { path: '^src/(routes|cli)/' }
		},
		{
			name: 'server-stays-on-the-server',
			severity: 'error',
			from: { path: '^src/(lib/(?!server/)|routes/.*\\+(page|layout)\\.(svelte|ts)$)' },
			to: { path: '^src/lib/server/' }
		},
		// A rule that resolves nothing cannot fail.
		{
			name: 'everything-resolves',
			severity: 'error',
			from: { path: '^src/' },
			// Files that are asked for by their address are found by the bundler, which fails where there is none.
			to: { couldNotResolve: true, pathNot: '^(\\$(app/|env|service-worker)|\\./\\$types$)|\\?url$' }
		},
		// What names itself, as a component within itself does, is no circle.
		{
			name: 'no-circles',
			severity: 'error',
			from: { path: '(.+)' },
			to: { circular: true, pathNot: '^$1$' }
		},
		{
			name: 'no-circles-of-folders',
			severity: 'error',
			scope: 'folder',
			from: { path: '^src/lib/' },
			to: { circular: true, path: '^src/lib/' }
		}
	],
	options: {
		doNotFollow: { path: 'node_modules' },
		tsPreCompilationDeps: true,
		tsConfig: { fileName: 'tsconfig.json' },
		webpackConfig: { fileName: 'scripts/lib/aliases.mjs' },
		enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'svelte', 'default'] }
	}
};
