import type { Model } from '../../cladding/model';
import { hangsOn } from '../../cladding/sites';
import { inputKind } from '../../part/inputs';
import { partsOf } from '../../cladding/kit';
import { inputValues, pieceInputs } from '../../schedule/inputs';
import { listedAlike } from '../../schedule/listed';
import { besideName } from '../../cladding/beside';
import { pieceMarks } from '../../mark/marks-of';
import { pieceAddress } from '../../schedule/pieces';
import { cellOf, cellsOf, type Column } from '../../schedule/column';
import { makeSchedule, ofPieces } from '../../schedule/table';
import { formatNumber } from '../../units/quantity';
import { scales } from '../../units/scale';
import type { OwnColumn } from '../../project/schedules-schema';
import { keyOfOwn } from '../../schedule/own-columns';
import { asNumber, asText } from '../csv/read-table';
import { readValue, UnusableValue } from './read-value';

/** A piece that an edited list has otherwise. */
export interface EditedPiece {
	/** Of its cell: zone, face, course, bay, slot. */
	readonly address: string;
	readonly mark: string;
	/** The id of another variant; null where it stays. */
	readonly variant: string | null;
	/** Inputs set for it, as formulas. */
	readonly values: Readonly<Record<string, string>>;
	/** What is written by hand for it in columns of the project's own, by their ids; the empty text where it is taken away. */
	readonly own: Readonly<Record<string, string | number>>;
	/** What changes, in words: Depth 120 mm to 140 mm. */
	readonly said: readonly string[];
}

/** Lists of what stands on cells, of which each piece can be set otherwise by hand. */
export type EditableName = 'panels' | 'louvers' | 'structure';

/** What an edited list says, against the model as it stands. */
export interface EditedList {
	/** Rows with a mark or an address. */
	readonly rows: number;
	readonly pieces: readonly EditedPiece[];
	/** Marks and addresses that no piece of the list has. */
	readonly unknown: readonly string[];
	/** What cannot be taken, each in a sentence. */
	readonly refused: readonly string[];
	/** What of it is not read at all, each in a sentence. */
	readonly left: readonly string[];
}

/** A head without its unit, and the unit: "Depth (mm)". */
function headOf(cell: unknown): { title: string; unit: string } {
	const [, title = '', unit = ''] = /^(.*?)(?:\s*\(([^()]*)\))?$/s.exec(asText(cell)) ?? [];
	return { title: title.trim().toLowerCase(), unit: unit.trim() };
}

interface Piece {
	readonly z: number;
	readonly group: NonNullable<Model['zones'][number]['model']>['groups'][number];
	readonly row: number;
}

/** Pieces by their marks, which are of one each, and by their addresses. */
function piecesByName(model: Model, name: EditableName): Map<string, Piece> {
	const markOf = pieceMarks(model);
	const pieces = new Map<string, Piece>();
	for (const [z, { model: zone }] of model.zones.entries())
		for (const group of zone?.groups ?? []) {
			if (!ofPieces[name](group)) continue;
			for (let row = 0; row < group.group.sites.length; row++) {
				pieces.set(pieceAddress(zone!, group, row), { z, group, row });
				pieces.set(markOf(zone!, group, row), { z, group, row });
			}
		}
	return pieces;
}

/** Heads of columns that name pieces, and what is done with each of the others. */
interface Heads {
	readonly named: number;
	readonly variant: number;
	/** Columns of values that can be set, by title. */
	readonly values: readonly { readonly column: number; readonly title: string; readonly unit: string }[];
	/** Columns that are written by hand. */
	readonly byHand: readonly { readonly column: number; readonly of: Column; readonly own: OwnColumn }[];
	/** Columns that are reckoned: what stands in them is only compared. */
	readonly reckoned: readonly { readonly column: number; readonly of: Column }[];
	readonly unread: readonly string[];
}

/** @throws Error with a sentence when nothing names pieces */
function readHeads(
	cells: readonly unknown[],
	columns: readonly Column[],
	settable: ReadonlySet<string>,
	own: readonly OwnColumn[]
): Heads {
	const heads = cells.map(headOf);
	const at = (title: string) => heads.findIndex((head) => head.title === title);
	const named = at('mark') >= 0 ? at('mark') : at('address');
	if (named < 0)
		throw new Error(
			'no column of it is headed Mark; the first line has to have the heads of the list, as it was written'
		);
	const variant = at('variant');
	const values: Heads['values'][number][] = [];
	const reckoned: Heads['reckoned'][number][] = [];
	const byHand: Heads['byHand'][number][] = [];
	const unread: string[] = [];
	for (const [column, { title, unit }] of heads.entries()) {
		if (column === named || column === variant || title === '') continue;
		const of = columns.find((one) => one.title.toLowerCase() === title && !one.key.startsWith('set '));
		const hand = own.find(({ id, by }) => by.is === 'hand' && of?.key === keyOfOwn(id));
		// A value that is called as something that is reckoned cannot be told from it.
		if (of && hand) byHand.push({ column, of, own: hand });
		else if (of) reckoned.push({ column, of });
		else if (settable.has(title)) values.push({ column, title, unit });
		else unread.push(asText(cells[column]));
	}
	return { named, variant, values, byHand, reckoned, unread };
}

/** Whether what stands in a cell is what the schedule has there. */
function isAsListed(column: Column, row: number, cell: unknown): boolean {
	const value = cellOf(column, row);
	if (asText(cell) === '') return true;
	const number = asNumber(cell);
	if (column.kind === 'text' || typeof value !== 'number')
		return asText(cell).replace(/^'/, '') === String(value ?? '').trim();
	return number !== null && listedAlike(column.kind, number * scales[column.kind].size, value);
}

/**
 * Read an edited list back: which values and variants it has otherwise than the model, piece by piece.
 *
 * ```ts
 * const { pieces, refused } = readEdited([['Mark', 'Depth (mm)'], ['GR-C01-B02', 140]], model, 'panels');
 * ```
 * @param lines of a table, the heads first
 * @throws Error with a sentence when it is no such list
 */
export function readEdited(
	lines: readonly (readonly unknown[])[],
	model: Model,
	list: EditableName
): EditedList {
	const [cells, ...body] = lines.filter((line) => line.some((value) => asText(value) !== ''));
	if (!cells || !body.length) throw new Error('it has no rows under its heads');
	const { columns } = makeSchedule(model, list);
	const listed = piecesByName(model, list);
	const settable = new Set(
		model.zones.flatMap(({ model: zone }) =>
			(zone?.groups ?? []).flatMap(({ group }) =>
				pieceInputs({ group }).map(({ label }) => label.toLowerCase())
			)
		)
	);
	const heads = readHeads(
		cells,
		columns,
		settable,
		model.project.schedules.columns.filter((one) => one.list === list)
	);
	const rowOf = new Map(
		cellsOf(columns.find(({ key }) => key === 'address')!).map((cell, row) => [cell, row])
	);
	const seen = new Set<string>();
	const pieces: EditedPiece[] = [];
	const unknown: string[] = [];
	const refused: string[] = [];
	const differs = new Map<Column, number>();
	let rows = 0;
	for (const line of body) {
		const name = asText(line[heads.named]).replace(/^'/, '');
		if (name === '' || name === 'Total') continue;
		rows++;
		const piece = listed.get(name);
		if (piece === undefined) unknown.push(name);
		else {
			const address = pieceAddress(model.zones[piece.z]!.model!, piece.group, piece.row);
			if (seen.has(address)) {
				refused.push(`${name}: it stands in the list twice; its first row counts`);
				continue;
			}
			seen.add(address);
			for (const { column, of } of heads.reckoned)
				if (!isAsListed(of, rowOf.get(address)!, line[column])) differs.set(of, (differs.get(of) ?? 0) + 1);
			const edited = editedPiece(line, heads, piece, rowOf.get(address)!, name, model, refused);
			if (!edited) continue;
			// By hand it is cells that are chosen, and what takes them.
			const { group } = piece.group;
			if (group.over !== 'cell' || besideName(piece.group))
				refused.push(`${name}: what stands there beside others, or along chains, is set by its clause`);
			else pieces.push({ address, mark: name, ...edited });
		}
	}
	return {
		rows,
		pieces,
		unknown,
		refused,
		left: [
			...[...differs].map(
				([{ title }, count]) =>
					`${title} differs from the model in ${formatNumber(count)} ${count === 1 ? 'row' : 'rows'}; it is reckoned, and cannot be set`
			),
			...heads.unread.map((head) => `${head} is no column of this list and no value of its parts`)
		]
	};
}

/** What one line has otherwise; null where nothing. */
function editedPiece(
	line: readonly unknown[],
	heads: Heads,
	{ group: { group }, row }: Piece,
	at: number,
	name: string,
	{ project }: Model,
	refused: string[]
): Pick<EditedPiece, 'variant' | 'values' | 'own' | 'said'> | null {
	const said: string[] = [];
	const values: Record<string, string> = {};
	let variant: string | null = null;
	const wanted = heads.variant < 0 ? '' : asText(line[heads.variant]);
	if (wanted && wanted !== group.ready.variant.name) {
		const found = project.variants.filter((one) => one.name === wanted);
		const part = partsOf(project).find(({ id }) => id === found[0]?.part);
		if (found.length !== 1 || !part)
			refused.push(`${name}: ${found.length ? 'several variants are' : 'no variant is'} called ${wanted}`);
		else if (!hangsOn(part, 'cell', group.corners))
			refused.push(`${name}: ${wanted} does not fit a cell of ${group.corners} corners`);
		else {
			variant = found[0]!.id;
			said.push(`${group.ready.variant.name} to ${wanted}`);
		}
	}
	for (const { column, title, unit } of heads.values) {
		const input = pieceInputs({ group }).find((one) => one.label.toLowerCase() === title);
		if (asText(line[column]) === '' && typeof line[column] !== 'boolean') continue;
		if (!input) {
			refused.push(`${name}: ${group.ready.part.label} has no value ${title}`);
			continue;
		}
		try {
			const { value, formula, text } = readValue(input, line[column], unit);
			const now = inputValues({ group }, input.name)(row);
			if (listedAlike(inputKind(input)!, value, now)) continue;
			values[input.name] = formula;
			said.push(`${input.label} ${text}`);
		} catch (error) {
			if (!(error instanceof UnusableValue)) throw error;
			refused.push(`${name}: ${error.message}`);
		}
	}
	const own: Record<string, string | number> = {};
	for (const { column, of, own: hand } of heads.byHand) {
		const now = cellOf(of, at) ?? '';
		const text = asText(line[column]).replace(/^'/, '');
		const number = asNumber(line[column]);
		const isNumber = of.kind !== 'text' && text !== '';
		if (isNumber && number === null) {
			refused.push(`${name}: ${hand.title} holds numbers, not "${text}"`);
			continue;
		}
		const next = isNumber ? number! : text;
		if (String(next) === String(now)) continue;
		own[hand.id] = next;
		said.push(`${hand.title} ${text || 'emptied'}`);
	}
	return said.length ? { variant, values, own, said } : null;
}
