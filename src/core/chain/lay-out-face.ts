import type { SetOutFace } from '../cladding/model';
import { once } from '../units/once';
import { drivenDepths, textsOfDepth } from '../driver/depth';
import { drivenSizes } from '../driver/sizes';
import { guidesIn } from '../field/guides';
import { surfaceArea } from '../geometry/surface';
import { bendWords, layerOf, smallestRadius } from '../grid/layer';
import { displaced } from '../grid/displaced';
import { atAllNodes, movedAlong } from '../grid/moved';
import type { NodeGrid } from '../grid/node-grid';
import type { Following } from '../grid/set-out';
import { stripShares } from '../grid/spacing';
import { addressBehind, faceAddress, type Face } from '../mass/face';
import { bareArea } from '../measure/bare-area';
import { cellCurvature } from '../measure/cell-curvature';
import { measureCells } from '../measure/cell-measures';
import { edgeFrames } from '../measure/edge-frames';
import { centresOnFace } from '../measure/face-centres';
import { trimmedArea } from '../measure/trimmed';
import { namedIn } from '../named/named-values';
import { NO_CHAINS } from '../pattern/chains';
import { uncutCells } from '../pattern/cells';
import { countUsedNodes, makeEdges } from '../pattern/edges';
import { foldedOver } from '../pattern/folded-over';
import { hangsOnPlaces, layPattern, slotNames } from '../pattern/lay-cells';
import type { SizesOfCells } from '../pattern/scatter/voronoi';
import { withoutSlivers } from '../pattern/slivers';
import { cutToTrims } from '../pattern/trim-cells';
import type { LayerDepth, Zone } from '../project/schema';
import { pathTo } from '../project/typed-path';
import { plainFlag, type Flag } from '../units/flag';
import { refuse } from '../units/problem';
import { formatNumber, formatQuantity } from '../units/quantity';
import { textsOf } from './asking';
import { followedIn, underFollowed } from './followed';
import { guidesNamed } from './masses';
import type { Kept } from './memo';
import { rootOf, zoneNamed } from './other-zones';
import type { Run } from './stage';

/** A face of a zone, and what it is kept under. */
export interface FaceOfZone {
	readonly face: Face;
	readonly mass: string;
	/** The faces of its mass: what is made of the face hangs on them. */
	readonly faces: Kept<Face[]>;
	readonly slot: readonly string[];
}

/** The faces of a zone with the grids on them. */
export interface SetOutFaces {
	readonly found: readonly FaceOfZone[];
	readonly grids: readonly Kept<NodeGrid>[];
	/** How far the nodes of each are moved after that (mm, flat x y z); null where they stay. */
	readonly offsets: readonly (Float64Array | null)[];
}

/** All of a grid that its cells depend on, but for places. */
function topologyOf({ across, up, poles, rims, absent }: NodeGrid): readonly unknown[] {
	const strips = [stripShares(across.division), stripShares(up.division)];
	return [across.steps, across.closed, up.steps, up.closed, poles, rims, strips, absent];
}

const foldedFlag = plainFlag(
	'cell.folded-over',
	'flagged',
	'the cell',
	'the grid turns over here: it lies deeper than the face is round'
);

/** @param count of cells that turn over */
function foldedWords(face: Face, grid: NodeGrid, depths: Float64Array, count: number): string {
	const inward = depths.some((depth) => depth < 0);
	const radius = smallestRadius(face.surface, grid.u, grid.v, inward);
	return `the grid turns over in ${formatNumber(count)} cells of ${face.name}: ${bendWords(radius)}`;
}

/** The same flags, and one more on some cells. */
function withFlag(
	flags: ReadonlyMap<number, readonly Flag[]>,
	cells: readonly number[],
	flag: Flag
): ReadonlyMap<number, readonly Flag[]> {
	if (!cells.length) return flags;
	return new Map([...flags, ...cells.map((c) => [c, [...(flags.get(c) ?? []), flag]] as const)]);
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

/** The second grid of a zone: its own, or that of another zone behind the same faces. */
interface Companion {
	readonly depth: LayerDepth;
	readonly shifted: boolean;
	readonly fromFace: boolean;
}

/** @throws ProblemError */
function companionOf(run: Run, zone: Zone): Companion | null {
	const { layer } = zone;
	if (!layer) return null;
	if (!('zone' in layer)) return { ...layer, fromFace: false };
	const at = `${pathTo('zones', zone.id)}/layer/zone`;
	const other = zoneNamed(run, layer.zone, at);
	const root = rootOf(run.project, zone);
	if (other === zone || !root || rootOf(run.project, other) !== root)
		refuse(
			at,
			`${zone.name} and ${other.name} do not lie behind one another: there is no space between them`
		);
	if (other.on.is !== 'layer') return { depth: '0 mm', shifted: false, fromFace: true };
	return { depth: other.on.depth, shifted: other.on.shifted, fromFace: true };
}

/**
 * A face joined to cells and measured, as a zone wants it, on its own nodes or on others at a depth behind them.
 *
 * @param offsets of the nodes of the grid, which are moved by so much (mm, flat x y z); null where they stay
 * @param depth of a zone that stands behind another @throws ProblemError
 */
export function layOutFace(
	run: Run,
	zone: Zone,
	{ face, faces, mass, slot }: FaceOfZone,
	grid: Kept<NodeGrid>,
	offsets: Float64Array | null,
	follow: Following,
	depth: LayerDepth | null = null
): Kept<SetOutFace> {
	const { project, memo, timed } = run;
	const at = pathTo('zones', zone.id);
	const { pattern, slivers } = zone;
	const layer = companionOf(run, zone);
	const area = memo.use(['area', ...slot], [faces], () =>
		once(() => (face.trims.length ? trimmedArea(face) : surfaceArea(face.surface)))
	);
	const tiles = pattern.kind === 'tile' ? project.tiles : [];
	const laidAnew = hangsOnPlaces(pattern, tiles, at);
	// Which nodes make a cell hangs on counts alone, unless the pattern looks at places or adds nodes.
	const means = laidAnew ? [grid, [...follow.guides]] : topologyOf(grid.value);
	const onFace = faceAddress(mass, face.name);
	const address = depth === null ? onFace : addressBehind(onFace, zone.id);
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
	const texts = [...(layer ? textsOfDepth(layer.depth) : []), ...(depth === null ? [] : textsOfDepth(depth))];
	const guides = guidesNamed(run, guidesIn(texts, project.guides));
	const named = namedIn(texts, run.named);
	const { along, joint } = zone.settingOut;
	return memo.use(
		['cells', ...slot],
		[grid, topology, offsets, area, along, joint, layer, depth, [...guides], [...named]],
		() => {
			const { cells, edges, usedNodes, slivers } = topology.value;
			const asSetOut = topology.value.nodes ?? grid.value;
			const onIt = offsets ? displaced(asSetOut, offsets) : asSetOut;
			const depths = depth !== null && drivenDepths(depth, grid.value, address, guides, `${at}/on`, named);
			const nodes = depths ? movedAlong(onIt, atAllNodes(onIt, depths)) : onIt;
			const folded = depths ? foldedOver(onIt.positions, nodes.positions, edges) : [];
			const { positions } = nodes;
			const { measures, frames } = timed('measures', () => {
				const measures = measureCells(cells, positions);
				return { measures, frames: edgeFrames(edges, measures.normal) };
			});
			const deep = () => {
				const depth = drivenDepths(layer!.depth, grid.value, address, guides, `${at}/layer`, named);
				// Another zone's lies as deep from the face itself, whatever this one does.
				const own = offsets ? displaced(grid.value, offsets) : grid.value;
				const first = depths && !layer!.fromFace ? movedAlong(own, depths) : own;
				return layerOf(face.surface, first, depth, layer!.shifted);
			};
			return {
				face,
				address,
				area: area.value,
				bare: along === 'equal chords' ? bareArea(face.surface, grid.value) : 0,
				grid: nodes,
				centresOnFace: once(() => centresOnFace(face.surface, nodes, cells, measures.centre)),
				uncut: once(() => {
					const before = uncutCells(cells);
					const whole = measureCells(before, positions);
					const centres = once(() => centresOnFace(face.surface, nodes, before, whole.centre));
					return { cells: before, measures: whole, centresOnFace: centres };
				}),
				curvature: once(() => cellCurvature(face.surface, nodes, cells)),
				joint,
				flags: withFlag(sliverFlags(slivers, measures.area), folded, foldedFlag),
				slots: slotNames(pattern, tiles, at),
				cells,
				slivers,
				layer: layer ? deep() : null,
				edges,
				chains: NO_CHAINS,
				sharedEdges: null,
				usedNodes,
				said: folded.length ? [foldedWords(face, grid.value, depths as Float64Array, folded.length)] : [],
				measures,
				edgeNormals: frames.normal,
				folds: frames.fold,
				origin: [0, 1, 2].map((k) => Math.round(positions[k]!)) as [number, number, number],
				serial: memo.nextSerial()
			};
		}
	);
}
