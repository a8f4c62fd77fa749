import { cross, dot, length, pointAt, scale, subtract, unit, type Vector } from '../geometry/vector';
import type { GroupSource } from '../schedule/sources';
import { inDegrees } from '../units/scale';
import type { Ink } from './drawing';
import { seenAt, type Frame } from './frame';
import { inStrips, STRIP_LINE, STRIP_TEXT } from './in-strips';
import { pieceView } from './piece-view';
import { piecesByKind, type PiecesOfKind } from './pieces-of-kinds';
import type { BookSettings, Planned } from './planned';
import { scaleAtWhich, type Room, type Titles } from './sheet';
import { drawTable, plainTable, widthOfTable } from './table';

/** Lines that meet go on over the piece by so much (mm of paper), and end before the rim of their room. */
const [ON, RIM] = [6, 5];
/** Dashes of the lines that meet, and what is left out between (mm of paper). */
const DASH: readonly [number, number] = [4, 1.4];
/** Numbers stand so far beyond the ends of their lines (mm of paper). */
const BEYOND = 2.6;
/** The view from the side takes this share of the height. */
const SIDE = 0.34;

/** The lines that meet at a node, in the order they are numbered in, and the frames it is drawn in. */
interface Meeting {
	readonly at: Vector;
	readonly ways: readonly Vector[];
	readonly outside: Frame;
	readonly side: Frame;
}

function meetingAt({ source: { face, group }, row }: PiecesOfKind): Meeting {
	const site = group.sites[row]!;
	const { start, ways, normals } = face.nodes();
	const out = pointAt(normals, site);
	const own = Array.from({ length: start[site + 1]! - start[site]! }, (_, k) =>
		pointAt(ways, start[site]! + k)
	);
	const flat = (way: Vector) => subtract(way, scale(out, dot(way, out)));
	const first = own.find((way) => length(flat(way)) > 1e-6);
	const right = unit(flat(first ?? (Math.abs(out[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0])));
	const up = cross(out, right);
	return {
		at: pointAt(face.grid.positions, site),
		ways: own,
		outside: { right, up, away: scale(out, -1) },
		side: { right, up: out, away: up }
	};
}

/** Turns are told from the first line on, counter-clockwise seen from outside; slopes up to the outside. */
function anglesOf({ ways, outside }: Meeting): string[][] {
	// No nought has a sign.
	const degrees = (angle: number) => `${(Math.round(inDegrees(angle) * 10) / 10 + 0).toFixed(1)}°`;
	return ways.map((way, k) => {
		const [x, y, depth] = seenAt(outside, way);
		const turn = Math.atan2(y, x);
		const next = ways[(k + 1) % ways.length]!;
		const between = Math.acos(Math.min(1, Math.max(-1, dot(way, next))));
		return [
			`${k + 1}`,
			degrees(turn < -1e-4 ? turn + 2 * Math.PI : Math.abs(turn)),
			degrees(Math.asin(Math.min(1, Math.max(-1, -depth)))),
			ways.length > 1 ? degrees(between) : ''
		];
	});
}

/** The piece and the lines that meet there, about the middle of a room. @returns what the scale is one to */
function inkMeeting(ink: Ink, of: PiecesOfKind, { at, ways }: Meeting, frame: Frame, room: Room): number {
	const view = pieceView(of, frame);
	const [x, y] = seenAt(frame, at);
	const [left, foot, right, head] = view.bounds;
	const isEmpty = view.inked.length === 0;
	// As far as anything reaches from the node, to either side.
	const [wide, high] = isEmpty
		? [1, 1]
		: [Math.max(right - x, x - left), Math.max(head - y, y - foot)].map((one) => Math.max(1, one));
	const half = { width: room.width / 2 - ON - RIM, height: Math.max(3, room.height / 2 - ON) };
	const one = scaleAtWhich((n) => wide! / n <= half.width && high! / n <= half.height);
	const middle = [room.left + room.width / 2, room.foot + room.height / 2] as const;
	ink.place(view.inked, 1 / one, middle[0] - x / one, middle[1] - y / one);
	const ends: { readonly x: number; readonly y: number; readonly names: string[] }[] = [];
	ways.forEach((way, k) => {
		const [dx, dy] = seenAt(frame, way);
		const size = Math.hypot(dx, dy);
		// What comes straight to the eye is a point.
		if (size < 0.05) return;
		const reach = Math.min(
			(room.width / 2 - RIM) / (Math.abs(dx) / size || 1e-9),
			(room.height / 2 - BEYOND) / (Math.abs(dy) / size || 1e-9)
		);
		const [ux, uy] = [dx / size, dy / size];
		ink.dashed('heads', middle, [middle[0] + ux * reach, middle[1] + uy * reach], DASH);
		const [ex, ey] = [middle[0] + ux * (reach + BEYOND - 1), middle[1] + uy * (reach + BEYOND - 1)];
		const near = ends.find((end) => Math.hypot(end.x - ex, end.y - ey) < STRIP_LINE);
		if (near) near.names.push(`${k + 1}`);
		else ends.push({ x: ex, y: ey, names: [`${k + 1}`] });
	});
	// Lines that lie on each other on paper are named together.
	for (const end of ends)
		ink.text('heads', end.x, end.y - STRIP_TEXT / 2, STRIP_TEXT, end.names.join(', '), {
			from: end.names.length < 2 ? 'middle' : end.x < middle[0] ? 'right' : 'left',
			bold: true
		});
	return one;
}

/** A node from outside and from the side, with the angles of the lines that meet there. */
function drawNode(ink: Ink, of: PiecesOfKind, { left, foot, width, height }: Room): void {
	const meeting = meetingAt(of);
	const table = plainTable(
		['Line', 'Turn', 'Slope', 'To the next'].map((text, k) => ({ text, isNumber: k > 0 })),
		anglesOf(meeting)
	);
	const top = foot + height - 3;
	drawTable(ink, table, left, top);
	const room = {
		left: left + widthOfTable(table) + 2,
		foot: foot + STRIP_LINE + 2,
		width: width - widthOfTable(table) - 2,
		height: top - foot - STRIP_LINE - 2
	};
	const low = room.height * SIDE;
	const scales = [
		inkMeeting(ink, of, meeting, meeting.outside, {
			...room,
			foot: room.foot + low,
			height: room.height - low
		}),
		inkMeeting(ink, of, meeting, meeting.side, { ...room, height: low })
	];
	ink.text(
		'text',
		left,
		foot + 1.4,
		STRIP_TEXT,
		`From outside 1 : ${scales[0]!}, from the side 1 : ${scales[1]!}`
	);
}

/** Kinds of pieces on nodes, one by one. */
export const nodeSheets = (
	sources: readonly GroupSource[],
	settings: BookSettings,
	titles: Titles
): Planned[] =>
	inStrips(
		piecesByKind(sources, 'node'),
		{
			letters: 'ND',
			group: 'nodes',
			title: 'Nodes',
			series: 'Nodes, kind by kind',
			width: 122,
			height: 76,
			called: ['node', 'nodes'],
			facts: ({ source, row }) => `mass ${source.quantities().mass[row]!.toFixed(2)} kg`,
			draw: drawNode
		},
		settings,
		titles
	);
