import { inputKind, setKey } from '../part/inputs';
import type { PartInput } from '../project/part-definition';
import { numberHead, textHead, type Cell } from './column';
import type { PieceColumn } from './columns';
import type { GroupSource } from './sources';

/** Inputs that pieces can have values of their own for. */
export const pieceInputs = ({ group }: Pick<GroupSource, 'group'>): PartInput[] =>
	group.ready.part.inputs.filter((input) => input.scope === 'per piece' && inputKind(input) !== null);

/**
 * What an input stands at, piece by piece: what is set for each, or the variant's (mm, rad, plain).
 *
 * ```ts
 * const angle = inputValues(group, 'angle')(0);
 * ```
 */
export function inputValues({ group }: Pick<GroupSource, 'group'>, name: string): (row: number) => number {
	const own = group.perPiece.get(name);
	const shared = group.ready.inputs.get(name)!;
	return (row) => (own ? own[row]! : shared);
}

/** A value as it is listed: choices and switches in words. */
function listed(input: PartInput, value: number): Cell {
	if (input.options) return input.options[Math.round(value) - 1]?.label ?? '';
	return input.kind === 'switch' ? (value ? 'yes' : 'no') : value;
}

/** Inputs that are set piece by piece anywhere among a schedule's pieces; those of one name and kind are one. */
export function inputColumns(sources: readonly GroupSource[]): PieceColumn[] {
	const found = new Map<string, PieceColumn>();
	for (const source of sources)
		for (const input of pieceInputs(source)) {
			const kind = inputKind(input)!;
			const key = setKey(input.label, kind);
			if (found.has(key) || !source.group.perPiece.has(input.name)) continue;
			const isText = input.options !== undefined || input.kind === 'switch';
			const head = isText ? textHead(key, input.label) : numberHead(key, input.label, kind);
			found.set(key, { ...head, read: (one) => reader(one, key) });
		}
	return [...found.values()];
}

function reader(source: GroupSource, key: string): (row: number) => Cell {
	const input = pieceInputs(source).find((one) => setKey(one.label, inputKind(one)!) === key);
	if (!input) return () => null;
	const value = inputValues(source, input.name);
	return (row) => listed(input, value(row));
}
