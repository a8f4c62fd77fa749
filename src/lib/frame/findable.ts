import { goto } from '$app/navigation';
import { partsOf } from '$core/cladding/kit';
import { formats } from '$core/exchange/formats';
import { pathTo } from '$core/project/typed-path';
import { looks } from '$core/project/view-schema';
import { addForm } from '$lib/edits/add-mass';
import { membersOf } from '$lib/edits/groups';
import { newFormWords } from '$lib/edits/new-things';
import { displays, type Desk } from '$lib/state/desk.svelte';
import { lookWords } from '$lib/state/look-words';
import { allActs } from '$lib/state/sheet-state.svelte';
import { addressOf, type Found } from '$lib/state/selection.svelte';
import { exportProject } from './export-project';
import type { Entry } from './matching';
import { keysHeard } from './keys';

/** Everything of a project that has words, but for its pieces. */
export function findable(desk: Desk): Entry[] {
	const { project, selection } = desk;
	const { document } = project;
	const home = `/project/${project.id}`;
	const page = (path: string) => () => void goto(`${home}/${path}`);
	const clause = (path: string) => {
		selection.clause = path;
		void goto(path.startsWith('parts/') ? `${home}/part/${path.split('/')[1]}` : home);
	};
	return [
		...keysHeard().map(({ does, shown, act }) => ({ label: does, kind: 'action', key: shown, act })),
		{ label: 'Build sheet and model', kind: 'page', act: page('') },
		{ label: 'Schedule', kind: 'page', act: page('schedule') },
		{ label: 'Drawings', kind: 'page', act: page('drawings') },
		{ label: 'Releases', kind: 'page', act: page('releases') },
		{ label: 'History', kind: 'page', act: page('history') },
		{ label: 'Kit', kind: 'page', act: page('kit') },
		{ label: 'All projects', kind: 'page', act: () => void goto('/') },
		{ label: 'Keys and mouse', kind: 'list', key: '?', act: () => void (desk.keysShown = true) },
		...document.zones.map(({ id, name }) => ({
			label: name,
			kind: 'zone',
			act: () => {
				desk.activeZone = id;
				clause(pathTo('zones', id, 'faces'));
			}
		})),
		...document.groups.map((group) => {
			const { masses, zones } = membersOf(document, group);
			const first = zones[0] ? pathTo('zones', zones[0], 'faces') : masses[0] && pathTo('masses', masses[0]);
			return { label: group.name, kind: 'group', act: () => void (first && clause(first)) };
		}),
		...document.masses.map(({ id, name }) => ({
			label: name,
			kind: 'mass',
			act: () => clause(pathTo('masses', id))
		})),
		...partsOf(document).map(({ id, label }) => ({ label, kind: 'part', act: page(`part/${id}`) })),
		...document.variants.map(({ id, name }) => ({
			label: name,
			kind: 'variant',
			act: () => clause(pathTo('variants', id))
		})),
		...desk.sheet.said().flatMap(({ path, number, words, acts }) => [
			{ label: `${number} ${words}`, kind: 'clause', act: () => clause(path) },
			...allActs(acts)
				.filter(({ disabled }) => !disabled)
				.map(({ label, act }) => ({ label, kind: `at clause ${number}`, isAtClause: true, act }))
		]),
		...newFormWords.map(({ kind, label }) => ({
			label: `Add a mass: ${label}`,
			kind: 'action',
			act: () => addForm(desk, kind)
		})),
		...formats.map((format) => ({
			label: `Export ${format.label} (${format.called})`,
			kind: 'export',
			act: () => void exportProject(desk, format)
		})),
		...displays.map(({ value, label }) => ({
			label: `Lengths in ${label}`,
			kind: 'setting',
			act: () => void desk.set(pathTo('display'), value, `lengths in ${value}`)
		})),
		...looks.map((look) => ({
			label: `${lookWords[look].label}: ${lookWords[look].note}`,
			kind: 'look',
			act: () => void (desk.look = look)
		})),
		...document.views.map((view) => ({
			label: view.name,
			kind: 'kept view',
			act: () => void goto(`${home}?view=${view.id}`)
		}))
	];
}

/** Bars and nodes by their marks of places are looked for when a letter behind the bay, or an N, says so. */
const beyondCells = /-N-|-[A-Z]\d*$/;

/** Pieces by their mark, looked for only when something like a mark is typed. */
export function piecesMarked(desk: Desk, text: string, most: number): Entry[] {
	const { model, project, selection } = desk;
	const wanted = text.trim().toUpperCase();
	if (wanted.length < 2) return [];
	const list: Entry[] = [];
	const known = new Set<string>();
	const add = (mark: string, found: Omit<Found, 'address'>) => {
		if (known.has(mark)) return;
		known.add(mark);
		const zone = model.view.zones[found.zone]!;
		const address = addressOf(model.view, found);
		list.push({
			label: mark,
			kind: zone.id,
			act: () => {
				desk.activeZone = zone.id;
				selection.choose([address]);
			}
		});
	};
	for (const { zone, face, kind, site, mark } of desk.marks.all()) {
		if (list.length >= most) return list;
		const z = model.view.zones.findIndex(({ id }) => id === zone);
		if (z >= 0 && mark.toUpperCase().startsWith(wanted)) add(mark, { zone: z, face, kind, index: site });
	}
	if (!/^[A-Z][A-Z0-9]*(\.\d+)?-/.test(wanted)) return list;
	model.view.zones.forEach((zone, z) => {
		const code = project.document.zones.find((one) => one.id === zone.id)?.code ?? '';
		if (!wanted.startsWith(code)) return;
		zone.faces.forEach((face, f) => {
			const look = (kind: 'cell' | 'line' | 'node', count: number) => {
				for (let site = 0; site < count && list.length < most; site++) {
					const mark = desk.markOf({ zone: z, face: f, kind, index: site });
					if (mark.toUpperCase().startsWith(wanted)) add(mark, { zone: z, face: f, kind, index: site });
				}
			};
			look('cell', face.cells.count);
			if (!beyondCells.test(wanted)) return;
			look('line', face.edges.count);
			look('node', face.grid.positions.length / 3);
		});
	});
	return list;
}
