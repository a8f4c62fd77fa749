import { elementMass } from '../cladding/quantities';
import { pointAt } from '../geometry/vector';
import type { Kind } from '../like/kinds';
import type { Paper } from '../project/drawings-schema';
import { cellOutline } from '../measure/cell-outline';
import { instancesOf } from '../part/element-table';
import { stockReader } from '../schedule/columns';
import type { GroupSource } from '../schedule/sources';
import { inDegrees } from '../units/scale';
import { boundsOf, Ink, widthOfText, type Page, type View } from './drawing';
import { inkSeen } from './elevation';
import { lookingAlong } from './frame';
import { Hiding } from './hidden-lines';
import { placeView, scaleThatFits, sheetOf, type Room, type Titles } from './sheet';
import { addPieces, Gathered } from './solids';
import { drawTable, plainTable, TABLE_LINE } from './table';

/** The pieces of one kind; the first stands for all of them. */
export interface PiecesOfKind {
	readonly kind: Kind;
	readonly source: GroupSource;
	readonly row: number;
	readonly marks: readonly string[];
}

/** Of what is written at a pattern (mm of paper). */
const TEXT = 2.4;
/** Edges are this far from their lengths (mm of paper). */
const OFF = 3.2;

/** The cell of a piece laid into its middle plane, with its true lengths and angles. */
function patternOf(
	{ source: { face, group }, row }: PiecesOfKind,
	scaleOf: (bounds: View['bounds']) => number
): View {
	const outline = cellOutline(face, group.sites[row]!);
	const ink = new Ink();
	ink.ring('outline', outline.corners);
	for (const opening of outline.openings) ink.ring('openings', opening);
	const bounds = boundsOf(ink.done());
	const scale = scaleOf(bounds);
	const { corners, lengths, angles } = outline;
	const centre = corners.reduce(
		([x, y], p) => [x + p[0] / corners.length, y + p[1] / corners.length],
		[0, 0]
	);
	corners.forEach(([x, y], k) => {
		const [nx, ny] = corners[(k + 1) % corners.length]!;
		const size = Math.hypot(nx - x, ny - y) || 1;
		// Corners run anticlockwise: outside is to the right of an edge.
		const off = OFF / scale / size;
		const [mx, my] = [(x + nx) / 2 + (ny - y) * off, (y + ny) / 2 - (nx - x) * off];
		let turn = Math.atan2(ny - y, nx - x);
		if (turn > Math.PI / 2 + 1e-6) turn -= Math.PI;
		if (turn <= -Math.PI / 2 + 1e-6) turn += Math.PI;
		const down = (0.35 * TEXT) / scale;
		ink.text(
			'dimensions',
			mx + Math.sin(turn) * down,
			my - Math.cos(turn) * down,
			TEXT,
			lengths[k]!.toFixed(1),
			{
				from: 'middle',
				turn
			}
		);
		const away = Math.hypot(centre[0] - x, centre[1] - y) || 1;
		const inward = Math.min(9 / scale / away, 0.4);
		ink.text(
			'dimensions',
			x + (centre[0] - x) * inward,
			y + (centre[1] - y) * inward - down,
			TEXT,
			`${inDegrees(angles[k]!).toFixed(1)}°`,
			{ from: 'middle' }
		);
	});
	return { inked: ink.done(), bounds };
}

/** The piece itself, seen from outside, from above and from one side. */
function pictureOf({ source: { face, clause, group }, row }: PiecesOfKind): View {
	const n = pointAt(face.measures.normal, group.sites[row]!);
	const aside = Math.abs(n[2]) > 0.9 ? ([0.5, 0.6, 0] as const) : ([-n[1] * 0.7, n[0] * 0.7, -0.55] as const);
	const into = new Gathered(lookingAlong([aside[0] - n[0], aside[1] - n[1], aside[2] - n[2]]));
	addPieces(into, face, clause, new Set([row]));
	const solids = into.done();
	const ink = new Ink();
	inkSeen(ink, solids, new Hiding(solids.corners));
	const inked = ink.done();
	return { inked, bounds: boundsOf(inked) };
}

/** What is made for a piece, one line for each thing. */
function elementsOf({ source: { group }, row }: PiecesOfKind) {
	const stockOf = stockReader();
	const rows = group.run.elements.flatMap((table) =>
		(instancesOf(table).get(row) ?? []).map((k) => [
			group.ready.elements[table.element]!.label,
			group.ready.materials[table.element]!.label,
			stockOf(table, k) ?? '',
			table.length[k]! > 0 ? table.length[k]!.toFixed(1) : '',
			table.area[k]! > 0 ? (table.area[k]! / 1e6).toFixed(4) : '',
			elementMass(group, table, k).toFixed(2)
		])
	);
	const heads = ['Element', 'Material', 'Stock', 'Length (mm)', 'Area (m2)', 'Mass (kg)'];
	return plainTable(
		heads.map((text, k) => ({ text, isNumber: k > 2 })),
		rows
	);
}

/** Words in lines of a width, as many lines as there are; what has no room is counted. */
function paragraph(ink: Ink, words: readonly string[], { left, foot, width, height }: Room): void {
	const step = TEXT * 1.5;
	let y = foot + height - TEXT;
	let line = '';
	for (const [k, word] of words.entries()) {
		const next = line ? `${line}, ${word}` : word;
		if (widthOfText(next, TEXT) <= width) {
			line = next;
			continue;
		}
		if (y - step < foot) {
			ink.text('marks', left, y, TEXT, `… and ${words.length - k} more, as the schedule has them`);
			return;
		}
		ink.text('marks', left, y, TEXT, `${line},`);
		line = word;
		y -= step;
	}
	ink.text('marks', left, y, TEXT, line);
}

/** Warps up to this (mm) are none. */
const FLAT = 0.05;

/** What is to be known of a kind, in short lines. */
function facts({ kind, source: { face, group, quantities }, row, marks }: PiecesOfKind): string[] {
	const cell = group.sites[row]!;
	const warp = face.measures.warp[cell]!;
	return [
		`${marks.length} ${marks.length === 1 ? 'piece' : 'pieces'} of this kind${kind.spread >= 0.005 ? `, up to ${kind.spread.toFixed(2)} mm from this one` : ''}`,
		`${group.ready.part.label}, ${group.ready.variant.name}`,
		`Area of the cell ${(face.measures.area[cell]! / 1e6).toFixed(4)} m²`,
		`Mass ${quantities().mass[row]!.toFixed(2)} kg`,
		warp > FLAT
			? `Warp ${warp.toFixed(1)} mm: drawn in its middle plane, lengths are true`
			: 'Flat: drawn as it is'
	];
}

/** A sheet for the pieces of a kind: its pattern, its picture, what it is made of and which pieces it stands for. */
export function pieceSheet(paper: Paper, titles: Titles, number: string, of: PiecesOfKind): Page {
	let denominator = 1;
	const width = (room: Room) => room.width * 0.55;
	const lowerPart = (room: Room) =>
		Math.min(room.height * 0.42, (elementsOf(of).rows.length + 2) * TABLE_LINE + 26);
	const pattern = (room: Room) => {
		const [w, h] = [width(room) - 4 * OFF, room.height - lowerPart(room) - 4 * OFF];
		return patternOf(of, ([left, foot, right, head]) => {
			denominator = scaleThatFits(right - left, head - foot, w, h);
			return 1 / denominator;
		});
	};
	const draw = (ink: Ink, room: Room, view: View) => {
		const low = lowerPart(room);
		const upper = { left: room.left, foot: room.foot + low, height: room.height - low };
		placeView(ink, view, 1 / denominator, { ...upper, width: width(room) });
		const picture = pictureOf(of);
		const [left, foot, right, head] = picture.bounds;
		const beside = { ...upper, left: room.left + width(room), width: room.width - width(room) };
		const share = Math.min(
			(beside.width * 0.85) / (right - left || 1),
			(beside.height * 0.7) / (head - foot || 1)
		);
		placeView(ink, picture, share, beside);
		facts(of).forEach((text, k) =>
			ink.text('text', beside.left + 4, upper.foot + upper.height - 3 - k * 4.2, TEXT, text, {
				bold: k === 0
			})
		);
		const table = elementsOf(of);
		const most = Math.floor((low - 16) / TABLE_LINE) - 1;
		const taken = drawTable(ink, table, room.left, room.foot + low - 2, 0, Math.min(most, table.rows.length));
		if (table.rows.length > most)
			ink.text(
				'text',
				room.left,
				room.foot + low - taken - 5,
				TEXT,
				`… and ${table.rows.length - most} more elements, as the schedule has them`
			);
		paragraph(ink, of.marks, {
			left: room.left,
			foot: room.foot,
			width: room.width,
			height: Math.max(8, low - taken - 8)
		});
	};
	// The scale is known once the pattern has been laid out, and stands in the title block.
	let view: View | null = null;
	sheetOf(paper, titles, { number, title: '', scale: '' }, (_ink, room) => (view = pattern(room)));
	return sheetOf(
		paper,
		titles,
		{ number, title: `Piece ${of.kind.name}`, scale: `1 : ${denominator}` },
		(ink, room) => draw(ink, room, view!)
	);
}
