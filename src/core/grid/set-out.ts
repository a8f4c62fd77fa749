import { evaluateRows, transpose, type Surface } from '../geometry/surface';
import { lengthTable, lengthTo, lineLength } from '../geometry/true-length';
import { distance, pointAt, type Vector } from '../geometry/vector';
import type { Face } from '../mass/face';
import { nearestOnFace } from '../mass/trim/project';
import type { SettingOut, Start } from '../project/setting-out-schema';
import { refuse } from '../units/problem';
import { formatNumber } from '../units/quantity';
import { Belt, lengthsOf, polesOf } from './belt';
import { takeRims, type RimPlaces } from './meeting-rims';
import { normalsOf } from './normals';
import { equalChordNet } from './nets/equal-chords';
import { geodesicNet } from './nets/geodesics';
import { levelPlaneNet } from './nets/level-planes';
import { lineNet } from './nets/lines';
import type { NodeGrid, NodeNet, Spread } from './node-grid';
import { divide, type Division, type LineLengths, type Places } from './spacing';
import { POLE } from '../geometry/tolerance';

export const MOST_CELLS = 4_000_000;

/** What a setting-out may follow beside the face itself. */
export interface Following {
	readonly levels: readonly { readonly id: string; readonly name: string; readonly height: number }[];
	/** Guides by their id, as points that follow one another (mm). */
	readonly guides: ReadonlyMap<string, readonly Vector[]>;
}
const nothing: Following = { levels: [], guides: new Map() };

/** The guides that start lines lie at. */
export const guidesOf = ({ across, up }: SettingOut): string[] =>
	[across, up].flatMap((spacing) =>
		'start' in spacing && typeof spacing.start === 'object' && 'guide' in spacing.start
			? [spacing.start.guide]
			: []
	);

/** Whether a level that moves changes anything. */
export const followsLevels = ({ up }: SettingOut): boolean =>
	up.by === 'levels' || ('start' in up && typeof up.start === 'object' && 'level' in up.start);

/** Where a start line or a level comes to lie on the belts of a face. */
function placesOn(face: Face, belt: Belt, along: 'across' | 'up', follow: Following, at: string): Places {
	const level = (id: string) => {
		const found = follow.levels.find((one) => one.id === id);
		if (found) return found;
		const known = follow.levels.map((one) => one.name).join(', ') || 'none yet';
		return refuse(`${at}/start`, `the level "${id}" does not exist; known: ${known}`);
	};
	return {
		levels: () => belt.heights(follow.levels.map((one) => one.height)),
		startOf(start: Exclude<Start, string>) {
			if ('at' in start) return start.at;
			if ('level' in start) {
				const { name, height } = level(start.level);
				const [found] = belt.heights([height + start.plus]);
				return (
					found ??
					refuse(
						`${at}/start`,
						`${name} (${formatNumber(Math.round(height + start.plus))} mm) does not cross ${face.name}; a height between its foot and its head is accepted`
					)
				);
			}
			const points = follow.guides.get(start.guide);
			if (!points?.length)
				return refuse(`${at}/start`, `the guide "${start.guide}" does not exist; choose another start line`);
			const [[u, v]] = nearestOnFace(face, [points[0]!]) as [[number, number]];
			if (along === 'up') return belt.lengthTo(v);
			// Along the course line through the guide, as a share of the belt.
			const line = lengthTable(face.surface, [v]);
			return (lengthTo(line, 0, u) / (lineLength(line, 0) || 1)) * belt.length;
		}
	};
}

/** Parameters brought back into the surface's own, over the seam of a ring. */
const wrapped = (at: Float64Array, knots: Float64Array): Float64Array => {
	const [low, high] = [knots[0]!, knots.at(-1)!];
	const out = new Float64Array(at.length);
	for (let k = 0; k < at.length; k++) {
		const t = at[k]!;
		out[k] = t > high ? t - (high - low) : t < low ? t + (high - low) : t;
	}
	return out;
};

function netOf(
	surface: Surface,
	settingOut: SettingOut,
	spreads: { across: Spread; up: Spread },
	belts: { across: Belt; up: Belt },
	at: string
): NodeNet {
	switch (settingOut.along) {
		case 'level planes':
			return levelPlaneNet(surface, spreads, belts, settingOut.planes, at);
		case 'equal chords':
			return equalChordNet(surface, spreads, belts, at);
		case 'geodesics':
			return geodesicNet(surface, settingOut, spreads, belts);
		default:
			return lineNet(surface, settingOut, spreads, belts);
	}
}

/**
 * Divide a face into bays and courses.
 *
 * Courses are placed by true length on the belt line (the bay line in the middle of the face), bays by true
 * length on every course line, to 0.1 mm or better; or as the other ways of setting out have it.
 *
 * ```ts
 * const { positions, across, up } = setOut(face, zone.settingOut, pathTo('zones', zone.id, 'settingOut'));
 * ```
 * @param at the path of the setting-out clause
 * @param rims where other faces have the nodes on rims
 * @throws ProblemError when the counts or sizes cannot be made on this face
 */
export function setOut(
	face: Face,
	settingOut: SettingOut,
	at: string,
	follow = nothing,
	rims: RimPlaces | null = null
): NodeGrid {
	const { surface } = face;
	const turned = transpose(surface);
	const { poleHole, joint } = settingOut;
	if (!(poleHole >= 0))
		refuse(`${at}/poleHole`, `a hole of ${poleHole} mm cannot be made; 0 mm or more is accepted`);
	if (!(joint >= 0)) refuse(`${at}/joint`, `a joint of ${joint} mm cannot be made; 0 mm or more is accepted`);
	const ends = poleHole > 0 ? polesOf(surface) : { foot: false, head: false };
	const belts = {
		across: new Belt(surface, { first: 0, last: 0 }),
		up: new Belt(turned, { first: ends.foot ? poleHole : 0, last: ends.head ? poleHole : 0 })
	};
	// Of a surface whose knots lie as near as numbers can it is no number at all.
	if (!(belts.across.whole >= POLE && belts.up.whole >= POLE))
		refuse(at, `${face.name} has no size to divide`);
	if (!(belts.up.length > POLE))
		refuse(
			`${at}/poleHole`,
			`a hole of ${formatNumber(poleHole)} mm leaves nothing of the ${formatNumber(Math.round(belts.up.whole))} mm up ${face.name}; make it smaller`
		);
	const spreadOf = (key: 'across' | 'up', along: Surface, closed: boolean): Spread => {
		const lengths = lengthsOf(along, belts[key], settingOut[key].by);
		const places = placesOn(face, belts[key], key, follow, `${at}/${key}`);
		const what = key === 'across' ? 'bays' : 'courses';
		const shift = closed ? 0 : settingOut.shift[key === 'across' ? 0 : 1];
		const division = divide(settingOut[key], lengths, `${at}/${key}`, what, places, shift);
		return spread(division, lengths, closed);
	};
	const across = spreadOf('across', surface, face.closedAcross);
	const up = spreadOf('up', turned, face.closedUp);
	for (const [one, key, what] of [
		[across, 'across', 'bays'],
		[up, 'up', 'courses']
	] as const)
		if (one.closed && one.steps < 3)
			refuse(`${at}/${key}`, `a closed ring needs at least 3 ${what}; ${one.steps} is too few`, [
				{ label: `3 ${what}`, path: `${at}/${key}`, value: { by: 'count', count: 3 } }
			]);
	askFirst(across.steps, up.steps, settingOut.mostCells, at);
	const net = netOf(surface, settingOut, { across, up }, belts, at);
	return gridOf(surface, { across, up }, belts.up, rims ? takeRims(net, rims, surface) : net);
}

/**
 * Many cells are made only when the clause has been told so: its way out sets `mostCells`.
 * @throws ProblemError with the number of cells and the counts that need no asking
 */
function askFirst(bays: number, courses: number, most: number, at: string): void {
	const cells = bays * courses;
	if (cells <= Math.min(most, MOST_CELLS)) return;
	const fewer = (key: 'across' | 'up', what: string, other: number) => {
		const count = Math.max(1, Math.floor(Math.min(most, MOST_CELLS) / other));
		return {
			label: `${formatNumber(count)} ${what}`,
			path: `${at}/${key}`,
			value: { by: 'count', count }
		};
	};
	const ways = [fewer('across', 'bays', courses), fewer('up', 'courses', bays)];
	const made = `${formatNumber(bays)} bays by ${formatNumber(courses)} courses make ${formatNumber(cells)} cells`;
	if (cells > MOST_CELLS) refuse(at, `${made}; at most ${formatNumber(MOST_CELLS)} are accepted`, ways);
	refuse(at, `${made}, more than ${formatNumber(most)}: that takes long and much memory`, [
		{ label: `${formatNumber(cells)} cells`, path: `${at}/mostCells`, value: cells },
		...ways
	]);
}

function spread(division: Division, lengths: LineLengths, closed: boolean): Spread {
	return { steps: division.fractions.length - 1, division, lengths, closed };
}

/** Positions, normals and places on the flat map for the nodes of a net. */
function gridOf(
	surface: Surface,
	wanted: { across: Spread; up: Spread },
	belt: Belt,
	net: NodeNet
): NodeGrid {
	const { columns, rows, absent, rims } = net;
	const across = fitted(wanted.across, columns, net.open);
	const up = fitted(wanted.up, rows, net.open);
	const u = wrapped(net.u, surface.knotsU);
	const v = wrapped(net.v, surface.knotsV);
	const level = isLevel(v, columns, rows);
	const samples = level ? evaluateRows(surface, u, columns, level) : evaluateRows(surface, u, 1, v);
	const laid = laidFlat(surface, belt, { across, up }, net, u, v, level);
	const poles = Array.from(laid.courseLengths.keys()).filter((j) => laid.courseLengths[j]! < POLE);
	const normals = normalsOf(surface, samples, { u, v }, columns, poles);
	const none = new Float64Array(0);
	return {
		across,
		up,
		columns,
		rows,
		positions: samples.points,
		normals,
		u: net.u,
		v: net.v,
		flat: laid.flat,
		courseLengths: laid.courseLengths,
		off: net.chords ? chordErrors(net, net.chords, samples.points) : laid.off,
		poles,
		absent,
		rims,
		extraI: none,
		extraJ: none
	};
}

/** How far the chords that come to every node from before it are from their length. */
function chordErrors(
	{ columns, rows, absent }: NodeNet,
	chords: readonly [number, number],
	positions: Float64Array
): Float64Array {
	const off = new Float64Array(columns * rows);
	for (let j = 0; j < rows; j++)
		for (let i = 0; i < columns; i++) {
			const node = j * columns + i;
			for (const [before, chord] of [
				[i > 0 ? node - 1 : -1, chords[0]],
				[j > 0 ? node - columns : -1, chords[1]]
			] as const)
				if (before >= 0 && !absent?.[node] && !absent?.[before])
					off[node] = Math.max(
						off[node]!,
						Math.abs(distance(pointAt(positions, node), pointAt(positions, before)) - chord)
					);
		}
	return off;
}

/** A net decides itself how many lines there are, and whether it comes round. */
function fitted(one: Spread, lines: number, open: boolean): Spread {
	const closed = one.closed && !open;
	const steps = lines - (closed ? 0 : 1);
	if (steps === one.steps) return { ...one, closed };
	const fractions = Float64Array.from({ length: steps + 1 }, (_, k) => k / steps);
	return { ...one, steps, closed, division: { fractions, makeUp: { first: 0, last: 0 }, whole: null } };
}

/** The parameter up of every row, where it is one; null where rows rise and fall. */
function isLevel(v: Float64Array, columns: number, rows: number): Float64Array | null {
	const own = new Float64Array(rows);
	for (let j = 0; j < rows; j++) {
		own[j] = v[j * columns]!;
		for (let i = 1; i < columns; i++) if (v[j * columns + i] !== own[j]) return null;
	}
	return own;
}

/** Every node laid flat, and how far it is from even true length. */
function laidFlat(
	surface: Surface,
	belt: Belt,
	{ across, up }: { across: Spread; up: Spread },
	net: NodeNet,
	u: Float64Array,
	v: Float64Array,
	level: Float64Array | null
): Pick<NodeGrid, 'flat' | 'off' | 'courseLengths'> {
	const { columns, rows } = net;
	const flat = new Float64Array(2 * columns * rows);
	const off = new Float64Array(columns * rows);
	if (net.even) {
		const { even } = net;
		for (let j = 0, o = 0; j < rows; j++)
			for (let i = 0; i < columns; i++) {
				flat[o++] = (even.across[i]! - 0.5) * even.courseLengths[j]!;
				flat[o++] = even.up[j]!;
			}
		return { flat, off, courseLengths: even.courseLengths };
	}
	const courseLengths = new Float64Array(rows);
	const period = surface.knotsU.at(-1)! - surface.knotsU[0]!;
	const table = lengthTable(surface, level ?? v);
	const periodV = surface.knotsV.at(-1)! - surface.knotsV[0]!;
	for (let j = 0; j < rows; j++)
		for (let i = 0; i < columns; i++) {
			const node = j * columns + i;
			const line = level ? j : node;
			const size = lineLength(table, line);
			if (level || i === columns >> 1) courseLengths[j] = size;
			const turns = Math.round((net.u[node]! - u[node]!) / period);
			const along = size < POLE ? 0 : lengthTo(table, line, u[node]!);
			const x = along + turns * size - size / 2;
			const rounds = Math.round((net.v[node]! - v[node]!) / periodV);
			const y = i > 0 && level ? flat[2 * j * columns + 1]! : belt.lengthTo(v[node]!) + rounds * belt.length;
			flat[2 * node] = x;
			flat[2 * node + 1] = y;
			off[node] = Math.hypot(
				x - (across.division.fractions[i]! - 0.5) * size,
				y - up.division.fractions[j]! * up.lengths.belt
			);
		}
	return { flat, off, courseLengths };
}
