import { sampleLine, transpose, type Surface } from '../geometry/surface';
import { lengthTable, lineLength, parametersAt, type LengthTable } from '../geometry/true-length';
import { distance, pointAt, type Vector } from '../geometry/vector';
import type { Face } from '../mass/face';
import type { SettingOut } from '../project/setting-out-schema';
import type { NodeGrid, NodeNet } from './node-grid';
import { POLE } from '../geometry/tolerance';

/** The four rims of a face; those at its foot and head run across, the others up. */
export const rimNames = ['foot', 'right', 'head', 'left'] as const;
export type RimName = (typeof rimNames)[number];

/** Parameters of the nodes on rims, along each, where they are not to lie as the face would have them. */
export type RimPlaces = Readonly<Partial<Record<RimName, Float64Array>>>;

/** A face that is set out. */
export interface GridOnFace {
	readonly face: Face;
	readonly grid: NodeGrid;
}

/** Rims are one line, and nodes on them one node, where they are no further apart than this (mm). */
const SAME = 0.5;
/** Shares of its length at which a rim is compared with another. */
const COMPARED = Float64Array.of(0, 0.17, 0.5, 0.71, 1);
const COMPARED_BACK = COMPARED.map((share) => 1 - share).reverse();

const isUp = (rim: RimName) => rim === 'left' || rim === 'right';

/** A rim as a line of its own. */
class Rim {
	/** Its line is u at the foot of this surface, or v of it for a rim that runs up. */
	private readonly along: Surface;
	private readonly at: number;
	private readonly table: LengthTable;
	readonly length: number;
	/** Nodes on it, from the foot or the left. */
	readonly nodes: Uint32Array;
	/** Points of it to compare it by, as it runs and from its other end. */
	readonly compared: readonly Vector[];
	readonly back: readonly Vector[];

	constructor(
		{ face, grid }: GridOnFace,
		readonly name: RimName
	) {
		const { surface } = face;
		this.along = isUp(name) ? transpose(surface) : surface;
		const knots = this.along.knotsV;
		this.at = name === 'foot' || name === 'left' ? knots[0]! : knots.at(-1)!;
		this.table = lengthTable(this.along, [this.at]);
		this.length = lineLength(this.table, 0);
		this.nodes = nodesOf(grid, name);
		this.compared = this.points(COMPARED);
		this.back = this.points(COMPARED_BACK).reverse();
	}

	/** Parameters at ascending shares of its length. */
	parameters(shares: Float64Array): Float64Array {
		const out = new Float64Array(shares.length);
		parametersAt(this.table, 0, shares, out, 0);
		return out;
	}
	points(shares: Float64Array): Vector[] {
		const { points } = sampleLine(this.along, { v: this.at }, [...this.parameters(shares)]);
		return Array.from(shares, (_, k) => pointAt(points, k));
	}
}

function nodesOf({ columns, rows }: NodeGrid, rim: RimName): Uint32Array {
	const count = isUp(rim) ? rows : columns;
	return Uint32Array.from({ length: count }, (_, k) => {
		if (rim === 'foot') return k;
		if (rim === 'head') return (rows - 1) * columns + k;
		return k * columns + (rim === 'left' ? 0 : columns - 1);
	});
}

/** Shares of a rim's length where it stands at heights; null where it does not rise all the way. */
function sharesAtHeights(rim: Rim, heights: readonly number[]): Float64Array | null {
	const steps = 256;
	const shares = Float64Array.from({ length: steps + 1 }, (_, k) => k / steps);
	const zs = rim.points(shares).map((point) => point[2]);
	if (zs.some((z, k) => k > 0 && !(z > zs[k - 1]!))) return null;
	return Float64Array.from(heights, (height) => {
		const k = zs.findIndex((z) => z >= height);
		if (k <= 0) return k < 0 ? 1 : 0;
		let [low, high] = [shares[k - 1]!, shares[k]!];
		for (let round = 0; round < 40; round++) {
			const middle = (low + high) / 2;
			if (rim.points(Float64Array.of(middle))[0]![2] < height) low = middle;
			else high = middle;
		}
		return (low + high) / 2;
	});
}

/** Where a rim is divided, as shares of its length, when it is as a face has it. */
function divided({ grid }: GridOnFace, rim: Rim, settingOut: SettingOut): Float64Array {
	const { division } = isUp(rim.name) ? grid.up : grid.across;
	if (!isUp(rim.name) || settingOut.up.by !== 'levels') return division.fractions;
	const middle = grid.columns >> 1;
	const heights = Array.from(
		{ length: grid.rows },
		(_, j) => grid.positions[3 * (j * grid.columns + middle) + 2]!
	);
	const inner = sharesAtHeights(rim, heights.slice(1, -1));
	return inner ? Float64Array.of(0, ...inner, 1) : division.fractions;
}

/** Whether lines of parameters or of true length make up a net, so that its rims can be divided anew. */
const canMeet = ({ along }: SettingOut) =>
	along !== 'level planes' && along !== 'equal chords' && along !== 'geodesics';

/**
 * Where two faces of a zone share a rim and count the same steps on it, but would place their nodes each by its own
 * middle line, the rim is divided once, along itself, and both take that. What lies between follows towards the
 * middle of each face, which stays as it is.
 *
 * ```ts
 * const rims = meetingRims(gridsOnFaces, zone.settingOut); // of each face, or null
 * ```
 * @returns for each face the rims that it takes over; null for those that lie well as they are
 */
export function meetingRims(faces: readonly GridOnFace[], settingOut: SettingOut): (RimPlaces | null)[] {
	const taken = faces.map((): Partial<Record<RimName, Float64Array>> => ({}));
	const rims = faces.map((one) => {
		const { face, grid } = one;
		const isRing = face.closedAcross || face.closedUp;
		if (!canMeet(settingOut) || isRing || grid.absent || grid.rims) return [];
		return rimNames.map((name) => new Rim(one, name)).filter((rim) => rim.length > POLE);
	});
	rims.forEach((own, f) => {
		for (const rim of own)
			for (let g = f + 1; g < faces.length; g++)
				for (const other of rims[g]!) {
					const turned = sameLine(rim, other);
					if (turned === null || rim.nodes.length !== other.nodes.length) continue;
					if (nodesMeet(faces[f]!, rim, faces[g]!, other, turned)) continue;
					const back = (shares: Float64Array) =>
						turned ? shares.map((share) => 1 - share).reverse() : shares;
					// As that face has it whose middle line is most like it: a flat one stays even.
					const asEarlier = unlikeMiddle(faces[f]!, rim) <= unlikeMiddle(faces[g]!, other) + POLE;
					const shares = asEarlier
						? divided(faces[f]!, rim, settingOut)
						: back(divided(faces[g]!, other, settingOut));
					taken[f]![rim.name] ??= rim.parameters(shares);
					taken[g]![other.name] ??= other.parameters(back(shares));
				}
	});
	return taken.map((one) => (Object.keys(one).length ? one : null));
}

/** How much longer or shorter the middle line of a face is than its rim (mm). */
const unlikeMiddle = ({ grid }: GridOnFace, rim: Rim): number =>
	Math.abs((isUp(rim.name) ? grid.up : grid.across).lengths.belt - rim.length);

/** Whether two rims are one line: false as they run, true the other way; null when they are not. */
function sameLine(one: Rim, other: Rim): boolean | null {
	const isAlong = (points: readonly Vector[]) =>
		one.compared.every((point, k) => distance(point, points[k]!) < SAME);
	if (isAlong(other.compared)) return false;
	return isAlong(other.back) ? true : null;
}

function nodesMeet(one: GridOnFace, a: Rim, other: GridOnFace, b: Rim, turned: boolean): boolean {
	const last = b.nodes.length - 1;
	return a.nodes.every((node, k) => {
		const twin = b.nodes[turned ? last - k : k]!;
		return distance(pointAt(one.grid.positions, node), pointAt(other.grid.positions, twin)) < SAME;
	});
}

/** How much of a rim's own way reaches a line so far from it (0 on it, 0.5 in the middle of the face). */
const reach = (share: number) => (share < 0.5 ? (1 - 2 * share) ** 2 : 0);

/** The net with its nodes on rims where they are wanted; lines follow from there to the middle of the face. */
export function takeRims(net: NodeNet, rims: RimPlaces, { knotsU, knotsV }: Surface): NodeNet {
	const { columns, rows } = net;
	const [u, v] = [net.u.slice(), net.v.slice()];
	const share = (t: number, knots: Float64Array) => (t - knots[0]!) / (knots.at(-1)! - knots[0]!);
	for (const name of rimNames) {
		const wanted = rims[name];
		if (!wanted) continue;
		const up = isUp(name);
		const far = name === 'right' || name === 'head';
		const moved = up ? v : u;
		const own = up ? net.v : net.u;
		for (let j = 0; j < rows; j++)
			for (let i = 0; i < columns; i++) {
				const node = j * columns + i;
				const rim = up ? j * columns + (far ? columns - 1 : 0) : (far ? (rows - 1) * columns : 0) + i;
				const along = up ? share(net.u[node]!, knotsU) : share(net.v[node]!, knotsV);
				moved[node]! += reach(far ? 1 - along : along) * (wanted[up ? j : i]! - own[rim]!);
			}
	}
	const { absent, open } = net;
	return { columns, rows, u, v, absent, rims: net.rims, open };
}
