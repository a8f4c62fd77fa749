import { elementMass } from '../cladding/quantities';
import { pointAt } from '../geometry/vector';
import type { Paper } from '../project/drawings-schema';
import { instancesOf } from '../part/element-table';
import { stockReader } from '../schedule/columns';
import { widthOfText, type Ink, type Page, type View } from './drawing';
import { flatDrawing } from './flat-drawing';
import { cellView, sheetViews } from './flat-views';
import { lookingAlong } from './frame';
import { pieceView } from './piece-view';
import type { PiecesOfKind } from './pieces-of-kinds';
import { placeView, roomOf, sheetOf, type Room, type Titles } from './sheet';
import { drawTable, plainTable, TABLE_LINE } from './table';

/** Of what is written at a pattern (mm of paper). */
const TEXT = 2.4;

/** The piece itself, seen from outside, from above and from one side. */
function pictureOf(of: PiecesOfKind): View {
	const { face, group } = of.source;
	const n = pointAt(face.measures.normal, group.sites[of.row]!);
	const aside = Math.abs(n[2]) > 0.9 ? ([0.5, 0.6, 0] as const) : ([-n[1] * 0.7, n[0] * 0.7, -0.55] as const);
	return pieceView(of, lookingAlong([aside[0] - n[0], aside[1] - n[1], aside[2] - n[2]]));
}

/** What is made for a piece, one line for each thing. */
function elementsOf({ source: { group }, row }: PiecesOfKind) {
	const stockOf = stockReader();
	const rows = group.run.elements.flatMap((table) =>
		Array.from(instancesOf(table).of(row), (k) => [
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
			? `Warp ${warp.toFixed(1)} mm: the cell is drawn in its middle plane, its lengths are true`
			: 'Its cell is flat'
	];
}

/** Patterns take so much of the width; the picture and what is to be known stand beside them. */
const PATTERNS = 0.62;

/** A sheet for the pieces of a kind: its patterns, its picture, what it is made of and which pieces it stands for. */
export function pieceSheet(paper: Paper, titles: Titles, number: string, of: PiecesOfKind): Page {
	const room = roomOf(paper);
	const table = elementsOf(of);
	const low = Math.min(room.height * 0.42, (table.rows.length + 2) * TABLE_LINE + 26);
	const upper = { left: room.left, foot: room.foot + low, height: room.height - low };
	const { views, more } = sheetViews(of.source, of.row);
	const patterns = flatDrawing([cellView(of.source, of.row), ...views], {
		...upper,
		width: room.width * PATTERNS
	});
	return sheetOf(
		paper,
		titles,
		{ number, title: `Piece ${of.kind.name}`, scale: `1 : ${patterns.denominator}` },
		(ink) => {
			patterns.draw(ink);
			const beside = {
				...upper,
				left: room.left + room.width * PATTERNS,
				width: room.width * (1 - PATTERNS)
			};
			const told = [...facts(of), ...(more ? [`${more} more patterns, as the model has them`] : [])];
			told.forEach((text, k) =>
				ink.text('text', beside.left + 4, upper.foot + upper.height - 3 - k * 4.2, TEXT, text, {
					bold: k === 0
				})
			);
			const picture = pictureOf(of);
			const [left, foot, right, head] = picture.bounds;
			const under = { ...beside, height: beside.height - told.length * 4.2 - 4 };
			const share = Math.min(
				(under.width * 0.85) / (right - left || 1),
				(under.height * 0.85) / (head - foot || 1)
			);
			placeView(ink, picture, share, under);
			const most = Math.floor((low - 16) / TABLE_LINE) - 1;
			const taken = drawTable(
				ink,
				table,
				room.left,
				room.foot + low - 2,
				0,
				Math.min(most, table.rows.length)
			);
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
		}
	);
}
