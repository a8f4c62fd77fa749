import { aheadOfPlane, type Plane } from '../geometry/solid/ahead-of-plane';
import type { ClosedMesh } from '../geometry/solid/library';
import { volumeWithin } from '../geometry/volume';
import { add, cross, dot, length, pointAt, scale, subtract, unit, type Vector } from '../geometry/vector';
import type { NodeGrid } from '../grid/node-grid';
import type { Face } from '../mass/face';
import type { Edges } from '../pattern/edges';
import type { Run } from '../project/schema';
import { plainFlag, type Flag } from '../units/flag';
import { cutRun, cutSolid, NOTHING, type Left } from './cut-run';
import type { CladFace } from './given-columns';
import { kindOfWay, lineKindOf } from './line-run';
import type { PieceGroup } from './pieces';
import type { Reach } from './reach';

/** How bars end where others of their run meet them. */
export type Ends = NonNullable<Run['ends']>;

/** A bar as it leaves a node: in the plane that touches the face there, in space where no face is. */
interface Arm {
	/** The first line of its bar; null of one of another run. */
	readonly bar: number | null;
	/** Away from the node, length 1. */
	readonly way: Vector;
	/** Others end at its side: it goes on through the node, or is of the lines that do. */
	readonly passes: boolean;
	/** How far it reaches to its sides, of a bar of another run; null for those of the run. */
	readonly reach: Reach | null;
}

/** A bar of another run, that those of a run end at too. */
export interface OtherBar {
	/** That it runs through. */
	readonly nodes: readonly number[];
	/** Its first line, where it ends at bars of other runs itself; null where it goes on. */
	readonly endsAs: number | null;
	readonly reach: Reach;
}

/** Where the bars of a run meet, by node. */
export interface MeetingBars {
	readonly arms: ReadonlyMap<number, readonly Arm[]>;
	/** The two nodes that each bar ends at, by its first line. */
	readonly nodes: ReadonlyMap<number, readonly [number, number]>;
	/** They lie on no face: any way may be that of a bar. */
	readonly inSpace: boolean;
}

/** What is known of where bars meet. */
type Meeting = Pick<CladFace, 'grid' | 'edges'> & {
	readonly face: Face | null;
	readonly sharedEdges: Uint8Array | null;
};

/**
 * The nodes of lines that follow one another.
 *
 * ```ts
 * const [start, end] = nodesAlong(edges, [0]);
 * ```
 */
export const nodesAlong = ({ from, to }: Edges, lines: readonly number[]): number[] => [
	from[lines[0]!]!,
	...lines.map((line) => to[line]!)
];

/** The way from a node to another; in the plane that touches the face at the first, where there is one. */
function wayFrom({ positions, normals }: NodeGrid, node: number, to: number, inSpace: boolean): Vector {
	const off = subtract(pointAt(positions, to), pointAt(positions, node));
	if (inSpace) return unit(off);
	const normal = pointAt(normals, node);
	return unit(subtract(off, scale(normal, dot(off, normal))));
}

/**
 * Where the bars of a run meet.
 *
 * ```ts
 * const { arms } = meetingBars(faceModel, [[0], [1], [2]], { is: 'mitred', others: false });
 * ```
 * @param bars the lines of each bar, in order; most have one @param others at the same nodes
 */
export function meetingBars(
	{ grid, edges, face, sharedEdges }: Meeting,
	bars: readonly (readonly number[])[],
	ends: Ends,
	others: readonly OtherBar[] = []
): MeetingBars {
	const inSpace = face === null;
	const arms = new Map<number, Arm[]>();
	const nodes = new Map<number, readonly [number, number]>();
	const put = (node: number, arm: Arm) => {
		const known = arms.get(node);
		if (known) known.push(arm);
		else arms.set(node, [arm]);
	};
	const isThrough = (bar: number) => {
		if (ends.is !== 'butted') return false;
		const kind = lineKindOf(edges, bar, sharedEdges);
		return kind === ends.through || (ends.rims && kind === 'rim' && kindOfWay(edges, bar) === ends.through);
	};
	const take = (run: readonly number[], through: boolean, { bar, reach }: Pick<Arm, 'bar' | 'reach'>) =>
		run.forEach((node, k) => {
			const passes = through || (k > 0 && k + 1 < run.length);
			for (const next of [run[k - 1], run[k + 1]])
				if (next !== undefined) put(node, { bar, way: wayFrom(grid, node, next, inSpace), passes, reach });
		});
	for (const lines of bars) {
		const bar = lines[0]!;
		const run = nodesAlong(edges, lines);
		nodes.set(bar, [run[0]!, run.at(-1)!]);
		take(run, isThrough(bar), { bar, reach: null });
	}
	for (const { nodes: run, endsAs, reach } of others)
		take(run, endsAs === null || isThrough(endsAs), { bar: null, reach });
	return { arms, nodes, inSpace };
}

/** Bars of two runs that leave a node as much the same way as this lie on one another, and do not end at each other. */
const SAME_WAY = 0.999;

/** A bar that goes on no further off the own one's way than this, 26°, has no side to end at: it is met end to end. */
const STRAIGHT_ON = -0.9;

/** The bar of the run itself as it leaves a node. */
const armOf = (meeting: readonly Arm[], bar: number): Arm | undefined =>
	meeting.find((arm) => arm.bar === bar);

/** How far a part reaches to the side of its line (mm). @param side length 1 */
function halfWidth(meshes: readonly ClosedMesh[], node: Vector, side: Vector, origin: Vector): number {
	const from = dot(subtract(node, origin), side);
	let half = 0;
	for (const { vertices } of meshes)
		for (let k = 0; k < vertices.length; k += 3)
			half = Math.max(
				half,
				Math.abs(vertices[k]! * side[0] + vertices[k + 1]! * side[1] + vertices[k + 2]! * side[2] - from)
			);
	return half;
}

/** The neighbours of an arm to either side: those that turn least from it. */
function neighbours(arm: Arm, others: readonly Arm[], normal: Vector): Arm[] {
	const across = cross(normal, arm.way);
	const turned = others
		.map((other) => {
			const angle = Math.atan2(dot(other.way, across), dot(other.way, arm.way));
			return { other, angle: angle < 0 ? angle + 2 * Math.PI : angle };
		})
		.sort((a, b) => a.angle - b.angle);
	const [first, last] = [turned[0], turned.at(-1)];
	if (!first) return [];
	return first === last ? [first.other] : [first.other, last!.other];
}

/** A way as it is square to another, length 1. */
const squared = (way: Vector, other: Vector): Vector => unit(subtract(way, scale(other, dot(way, other))));

/** The planes that end a bar at one of its nodes. */
function planesAt(
	{ arms, inSpace }: MeetingBars,
	ends: Ends,
	bar: number,
	node: number,
	grid: NodeGrid,
	halfAcross: (side: Vector, node: Vector) => number
): Plane[] {
	const meeting = arms.get(node) ?? [];
	const own = armOf(meeting, bar);
	if (!own) return [];
	const others = meeting.filter((arm) => arm !== own && !(arm.reach && dot(arm.way, own.way) > SAME_WAY));
	if (!others.length) return [];
	const at = pointAt(grid.positions, node);
	const normal = pointAt(grid.normals, node);
	if (ends.is === 'set back') return [{ at: add(at, scale(own.way, ends.by)), normal: own.way }];
	// In halves: the plane between two ways holds the normal, and what is nearer to the own way stays.
	const between = (other: Arm): Plane[] => {
		const normal = unit(subtract(own.way, other.way));
		return length(normal) > 0 ? [{ at, normal }] : [];
	};
	// In space there is no order about a normal: each may be in the way.
	const beside = (some: readonly Arm[]) => (inSpace ? some : neighbours(own, some, normal)).flatMap(between);
	const passing = others.filter(({ passes }) => passes);
	if (!passing.length || own.passes) return beside(own.passes ? passing : others);
	const atSides = passing.flatMap((other): Plane[] => {
		if (dot(other.way, own.way) < STRAIGHT_ON) return between(other);
		const side = squared(own.way, other.way);
		if (!length(side)) return [];
		const half = other.reach?.(side) ?? halfAcross(squared(other.way, own.way), at);
		return [{ at: add(at, scale(side, half)), normal: side }];
	});
	return inSpace ? [...atSides, ...beside(others.filter(({ passes }) => !passes))] : atSides;
}

/** What planes leave of the meshes of a piece. @param planes about the origin that the meshes have */
const leftAhead = (planes: readonly Plane[], meshes: readonly ClosedMesh[]): (Left | null)[] =>
	meshes.map((mesh): Left | null => {
		let ahead: ClosedMesh | null = mesh;
		for (const plane of planes) ahead = ahead && aheadOfPlane(ahead, plane);
		if (ahead === mesh) return { mesh, share: 1 };
		if (!ahead) return leftByLibrary(planes, mesh);
		const share = volumeWithin(ahead.vertices, ahead.triangles) / volumeWithin(mesh.vertices, mesh.triangles);
		return share > NOTHING ? { mesh: ahead, share } : null;
	});

/** The same for what several outlines are cut of. */
const leftByLibrary = (planes: readonly Plane[], mesh: ClosedMesh): Left | null =>
	cutSolid(mesh, planes[0]!.at, (whole) => {
		let left = whole;
		for (const { at, normal } of planes) {
			const next = left.trimByPlane([...normal], dot(subtract(at, planes[0]!.at), normal));
			if (left !== whole) left.delete();
			left = next;
		}
		return left;
	});

/** Planes as near to each other as this (mm) are one cut. */
const SAME_CUT = 0.1;

/** Planes that take something away, each of them once. */
const cutting = (planes: readonly Plane[], meshes: readonly ClosedMesh[], origin: Vector): Plane[] =>
	planes.filter((plane, k) => {
		const isLike = ({ normal, at }: Plane) =>
			dot(normal, plane.normal) > SAME_WAY && Math.abs(dot(subtract(at, plane.at), normal)) < SAME_CUT;
		if (planes.slice(0, k).some(isLike)) return false;
		const about = { at: subtract(plane.at, origin), normal: plane.normal };
		return meshes.some((mesh) => aheadOfPlane(mesh, about) !== mesh);
	});

/** Cuts of a bar: two at each end. */
const CUTS = 4;

/**
 * Bars of a group, ended where others of their run meet them.
 *
 * ```ts
 * const ends = { is: 'mitred', others: false } as const;
 * const { run } = withEnds(group.group, faceModel, meetingBars(faceModel, [[0], [1]], ends), ends);
 * ```
 * @throws Error when `loadSolids` has not been awaited
 */
export function withEnds(
	group: PieceGroup,
	{ grid, origin }: Pick<CladFace, 'grid' | 'origin'>,
	meeting: MeetingBars,
	ends: Ends
): PieceGroup {
	const endAngles = new Float64Array(CUTS * group.sites.length).fill(NaN);
	const cut = cutRun(group.run, (row, meshes) => {
		const bar = group.sites[row]!;
		const half = (side: Vector, node: Vector) => halfWidth(meshes, node, side, origin);
		const planes = meeting.nodes.get(bar)!.map((node) => planesAt(meeting, ends, bar, node, grid, half));
		planes.forEach((own, end) => {
			const { way } = armOf(meeting.arms.get(meeting.nodes.get(bar)![end]!)!, bar)!;
			const told = meeting.inSpace ? cutting(own, meshes, origin) : own;
			told.slice(0, CUTS / 2).forEach(({ normal }, k) => {
				const off = Math.acos(Math.min(1, Math.max(-1, dot(normal, way))));
				const side = cross(pointAt(grid.normals, meeting.nodes.get(bar)![end]!), way);
				endAngles[CUTS * row + (CUTS / 2) * end + k] = dot(normal, side) < 0 ? -off : off;
			});
		});
		return leftAhead(
			planes.flat().map(({ at, normal }) => ({ at: subtract(at, origin), normal })),
			meshes
		);
	});
	const lost = new Map<number, Flag>();
	for (const { row } of group.run.elements)
		for (const one of row)
			if (cut.left[one] === 0)
				lost.set(one, plainFlag('piece.clipped-away', 'failed', 'the piece', 'its ends leave nothing of it'));
	return { ...group, run: cut.run, endAngles, flags: group.flags.with(lost) };
}
