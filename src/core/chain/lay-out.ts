import { joinRims, type JoinedFaces } from '../cladding/join-rims';
import type { SetOutFace } from '../cladding/model';
import { once } from '../cladding/once';
import { drivenDepths, textsOfDepth } from '../driver/depth';
import { drivenSizes } from '../driver/sizes';
import { guidesIn } from '../field/guides';
import { surfaceArea } from '../geometry/surface';
import { layerOf } from '../grid/layer';
import { meetingRims } from '../grid/meeting-rims';
import type { NodeGrid } from '../grid/node-grid';
import { followsLevels, guidesOf, setOut, type Following } from '../grid/set-out';
import { stripShares } from '../grid/spacing';
import { faceAddress, type Face } from '../mass/face';
import { bareArea } from '../measure/bare-area';
import { cellCurvature } from '../measure/cell-curvature';
import { namedIn } from '../named/named-values';
import { measureCells } from '../measure/cell-measures';
import { edgeFrames } from '../measure/edge-frames';
import { centresOnFace } from '../measure/face-centres';
import { trimmedArea } from '../measure/trimmed';
import { countUsedNodes, makeEdges } from '../pattern/edges';
import { guidesOfPattern, hangsOnPlaces, layPattern, slotNames } from '../pattern/lay-cells';
import type { SizesOfCells } from '../pattern/scatter/voronoi';
import { cutToTrims } from '../pattern/trim-cells';
import { withoutSlivers } from '../pattern/slivers';
import type { Project, Zone } from '../project/schema';
import { plainFlag, type Flag } from '../units/flag';
import { refuse } from '../units/problem';
import { formatQuantity } from '../units/quantity';
import { textsOf } from './asking';
import { followedIn, underFollowed } from './followed';
import { facesOfMass, guidesNamed } from './masses';
import type { Kept } from './memo';
import type { Run } from './stage';
import { pathTo } from '../project/typed-path';

/** A face of a zone, and what it is kept under. */
interface FaceOfZone {
	readonly face: Face;
	readonly mass: string;
	/** The faces of its mass: what is made of the face hangs on them. */
	readonly faces: Kept<Face[]>;
	readonly slot: readonly string[];
}

/** A code like another that no zone has. */
function freeCode(code: string, { zones }: Project): string {
	const base = code.replace(/\d+$/, '').slice(0, 4);
	const taken = new Set(zones.map((zone) => zone.code));
	for (let n = 2; ; n++) if (!taken.has(`${base}${n}`)) return `${base}${n}`;
}

/** All of a grid that its cells depend on, but for places. */
function topologyOf({ across, up, poles, rims, absent }: NodeGrid): readonly unknown[] {
	const strips = [stripShares(across.division), stripShares(up.division)];
	return [across.steps, across.closed, up.steps, up.closed, poles, rims, strips, absent];
}

/** What is told of cells that are smaller than the zone wants. */
function sliverFlags(
	{ cells, put }: SetOutFace['slivers'],
	area: Float64Array
): ReadonlyMap<number, readonly Flag[]> {
	if (put === 'open') return new Map();
	return new Map(
		Array.from(cells, (c) => {
			const says = `a sliver of ${formatQuantity(area[c]!, 'area')}, smaller than the zone wants`;
			return [c, [plainFlag('cell.sliver', 'flagged', 'the cell', says)]];
		})
	);
}

function checkCode(zone: Zone, project: Project): void {
	const at = pathTo('zones', zone.id, 'code');
	const namesake = project.zones.find(({ code }) => code === zone.code)!;
	if (namesake !== zone)
		refuse(
			at,
			`${zone.code} is the code of ${namesake.name} already; every zone has its own, since marks begin with it`,
			[freeCode(zone.code, project)].map((value) => ({ label: value, path: at, value }))
		);
}

function facesOfZone(run: Run, zone: Zone): FaceOfZone[] {
	const at = pathTo('zones', zone.id, 'faces');
	if (zone.faces.length === 0) refuse(at, `${zone.name} has no faces yet; choose at least one`);
	const named = zone.faces.map(({ mass, face }) => `${mass} ${face}`);
	const twice = zone.faces.find((_, k) => named.indexOf(named[k]!) < k);
	if (twice) refuse(at, `the face "${twice.face}" of "${twice.mass}" is in the zone twice; take one out`);
	return zone.faces.map((wanted): FaceOfZone => {
		const faces = facesOfMass(run, wanted.mass, at);
		const face = faces.value.find((one) => one.name === wanted.face);
		if (!face)
			return refuse(
				at,
				`the mass "${wanted.mass}" has no face "${wanted.face}"; it has ${faces.value.map((one) => one.name).join(', ')}`
			);
		return { face, faces, mass: wanted.mass, slot: [zone.id, wanted.mass, face.name] };
	});
}

/** The faces of a zone set out, joined to cells and beside each other. @throws ProblemError */
export async function layOut(run: Run, zone: Zone): Promise<Kept<JoinedFaces>> {
	const { project, memo, timed } = run;
	checkCode(zone, project);
	const found = facesOfZone(run, zone);
	const follow = {
		levels: followsLevels(zone.settingOut) ? project.levels : [],
		guides: guidesNamed(run, [...guidesOf(zone.settingOut), ...guidesOfPattern(zone.pattern)])
	};
	const grids = gridsOf(run, zone, found, follow);
	const laid: Kept<SetOutFace>[] = [];
	for (const [k, one] of found.entries()) {
		await run.pause();
		laid.push(layOutFace(run, zone, one, grids[k]!, follow));
	}
	return memo.use(['rims', zone.id], laid, () =>
		timed('cells', () =>
			joinRims(
				laid.map(({ value }) => value),
				() => memo.nextSerial()
			)
		)
	);
}

/** The faces of a zone set out, each by itself, then anew where they have to meet others. */
function gridsOf(run: Run, zone: Zone, faces: readonly FaceOfZone[], follow: Following): Kept<NodeGrid>[] {
	const { memo, timed } = run;
	const at = pathTo('zones', zone.id, 'settingOut');
	const { settingOut } = zone;
	const alone = faces.map(({ face, faces: kept, slot }) =>
		memo.use(['grid', ...slot], [kept, settingOut, follow.levels, [...follow.guides]], () =>
			timed('grid', () => setOut(face, settingOut, at, follow))
		)
	);
	if (faces.length < 2) return alone;
	const rims = memo.use(['meeting rims', zone.id], alone, () =>
		timed('grid', () =>
			meetingRims(
				faces.map(({ face }, k) => ({ face, grid: alone[k]!.value })),
				settingOut
			)
		)
	);
	return alone.map((grid, k) => {
		const [{ face, slot }, wanted] = [faces[k]!, rims.value[k]];
		if (!wanted) return grid;
		return memo.use(['meeting grid', ...slot], [grid, rims], () =>
			timed('grid', () => setOut(face, settingOut, at, follow, wanted))
		);
	});
}

/** How the sizes of scattered cells come about where they follow something, and what they hang on. */
function sizesOfCells(
	run: Run,
	{ id, pattern }: Zone,
	address: string
): { readonly on: SizesOfCells | null; readonly under: readonly unknown[] } {
	if (pattern.kind !== 'voronoi' || typeof pattern.size === 'number') return { on: null, under: [] };
	const { size } = pattern;
	const texts = textsOf({ size });
	const followed = followedIn(run, texts);
	const named = namedIn(texts, run.named);
	const around = { followed, levels: [], slots: [], named, suns: new Map() };
	return {
		on: (cells, grid) =>
			drivenSizes(
				size,
				{ cells, grid, measures: measureCells(cells, grid.positions), address },
				around,
				pathTo('zones', id, 'pattern') + '/size'
			),
		under: [underFollowed(followed), [...named]]
	};
}

function layOutFace(
	run: Run,
	zone: Zone,
	{ face, faces, mass, slot }: FaceOfZone,
	grid: Kept<NodeGrid>,
	follow: Following
): Kept<SetOutFace> {
	const { project, memo, timed } = run;
	const at = pathTo('zones', zone.id);
	const { pattern, slivers, layer } = zone;
	const area = memo.use(['area', ...slot], [faces], () =>
		once(() => (face.trims.length ? trimmedArea(face) : surfaceArea(face.surface)))
	);
	const tiles = pattern.kind === 'tile' ? project.tiles : [];
	const laidAnew = hangsOnPlaces(pattern, tiles, at);
	// Which nodes make a cell hangs on counts alone, unless the pattern looks at places or adds nodes.
	const means = laidAnew ? [grid, [...follow.guides]] : topologyOf(grid.value);
	const address = faceAddress(mass, face.name);
	const sizes = sizesOfCells(run, zone, address);
	const uncut = memo.use(['uncut', ...slot], [means, pattern, tiles, sizes.under], () =>
		timed('cells', () =>
			layPattern(face, grid.value, pattern, { tiles, guides: follow.guides, sizesOn: sizes.on }, at)
		)
	);
	const places = laidAnew || face.trims.length > 0 || slivers !== null;
	const topology = memo.use(['topology', ...slot], [uncut, places ? grid : null, slivers], () =>
		timed('cells', () => {
			const laid = cutToTrims(face, laidAnew ? uncut.value : { ...uncut.value, grid: grid.value });
			if (laid.cells.count === 0)
				refuse(
					`${at}/pattern`,
					'the pattern leaves no cell on this face; take smaller steps, or another pattern'
				);
			const kept = withoutSlivers(laid.cells, laid.grid, slivers);
			return {
				nodes: places ? laid.grid : null,
				...kept,
				edges: makeEdges(laid.grid, kept.cells),
				usedNodes: countUsedNodes(laid.grid, kept.cells)
			};
		})
	);
	const guides = layer ? guidesNamed(run, guidesIn(textsOfDepth(layer.depth), project.guides)) : new Map();
	const named = namedIn(layer ? textsOfDepth(layer.depth) : [], run.named);
	const { along, joint } = zone.settingOut;
	return memo.use(
		['cells', ...slot],
		[grid, topology, area, along, joint, layer, [...guides], [...named]],
		() => {
			const { cells, edges, usedNodes, slivers } = topology.value;
			const nodes = topology.value.nodes ?? grid.value;
			const { positions } = nodes;
			const { measures, frames } = timed('measures', () => {
				const measures = measureCells(cells, positions);
				return { measures, frames: edgeFrames(edges, measures.normal) };
			});
			const deep = () => {
				const depth = drivenDepths(layer!.depth, grid.value, address, guides, `${at}/layer`, named);
				return layerOf(face.surface, grid.value, depth, layer!.shifted);
			};
			return {
				face,
				address,
				area: area.value,
				bare: along === 'equal chords' ? bareArea(face.surface, grid.value) : 0,
				grid: nodes,
				centresOnFace: once(() => centresOnFace(face.surface, nodes, cells, measures.centre)),
				curvature: once(() => cellCurvature(face.surface, nodes, cells)),
				joint,
				flags: sliverFlags(slivers, measures.area),
				slots: slotNames(pattern, tiles, at),
				cells,
				slivers,
				layer: layer ? deep() : null,
				edges,
				sharedEdges: null,
				usedNodes,
				measures,
				edgeNormals: frames.normal,
				folds: frames.fold,
				origin: [0, 1, 2].map((k) => Math.round(positions[k]!)) as [number, number, number],
				serial: memo.nextSerial()
			};
		}
	);
}
