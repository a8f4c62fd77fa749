import { elementMass } from '../cladding/quantities';
import { cellOutline } from '../measure/cell-outline';
import { CellRectangles } from '../measure/cell-rectangles';
import type { Material } from '../project/material-schema';
import { formatNumber } from '../units/quantity';
import type { Kind } from '../like/kinds';
import { columnOf, numberHead, textHead, type Cell, type Column, type ColumnHead } from './column';
import { BETWEEN_ADDRESSES } from './listed';
import { besideName } from '../cladding/beside';
import type { GroupSource } from './sources';

/** Lists whose rows stand for many pieces: what is of one kind, of one material, put by one clause. */

/** Rows as columns. */
export function asColumns(heads: readonly ColumnHead[], rows: readonly (readonly Cell[])[]) {
	return {
		rows: rows.length,
		columns: heads.map((head, k): Column =>
			columnOf(
				head,
				rows.map((row) => row[k]!)
			)
		)
	};
}

const addressHead = textHead('address', 'Addresses');
const massHead = numberHead('mass', 'Mass', 'mass', true);
const piecesHead = numberHead('pieces', 'Pieces', 'count', true);
const flaggedHead = numberHead('flagged', 'Flagged', 'count', true);

const sitesInWords = { cell: 'cells', line: 'lines', node: 'nodes', chain: 'chains' } as const;

/** What something of the schedule comes to, added up row by row. */
class Sums {
	pieces = 0;
	flagged = 0;
	area = 0;
	length = 0;
	mass = 0;
	readonly addresses: string[] = [];

	add({ group, quantities, addresses }: GroupSource, row: number): void {
		this.pieces++;
		if (group.flags.has(row)) this.flagged++;
		this.length += quantities().cutLength[row]!;
		this.mass += quantities().mass[row]!;
		this.addresses.push(addresses()[row]!);
	}

	get address(): string {
		return this.addresses.join(BETWEEN_ADDRESSES);
	}
}

/** A cell's outline as a path in a box of so many units. */
const BOX = 100;
function pictureOf({ corners, openings }: ReturnType<typeof cellOutline>): string {
	const xs = corners.map(([x]) => x);
	const ys = corners.map(([, y]) => y);
	const [left, top] = [Math.min(...xs), Math.max(...ys)];
	const [wide, high] = [Math.max(...xs) - left, top - Math.min(...ys)];
	const scale = BOX / (Math.max(wide, high) || 1);
	const [dx, dy] = [(BOX - wide * scale) / 2, (BOX - high * scale) / 2];
	const loop = (ring: readonly (readonly [number, number])[]) =>
		`M${ring
			.map(([x, y]) => `${((x - left) * scale + dx).toFixed(1)} ${((top - y) * scale + dy).toFixed(1)}`)
			.join('L')}Z`;
	return [corners, ...openings].map(loop).join('');
}

/** What is of one kind: the first of it stands for all. */
interface OfKind {
	readonly source: GroupSource;
	readonly row: number;
	readonly sums: Sums;
}

/** Groups of pieces on one kind of site by their kinds. @param kindOf of a row; null of groups that have none */
function byKind(
	sources: readonly GroupSource[],
	kindOf: (source: GroupSource) => ((row: number) => number) | null
): Map<number, OfKind> {
	const found = new Map<number, OfKind>();
	for (const source of sources) {
		const kind = kindOf(source);
		const { sites } = source.group;
		for (let row = 0; kind && row < sites.length; row++) {
			const known = found.get(kind(row)) ?? { source, row, sums: new Sums() };
			found.set(kind(row), known);
			known.sums.add(source, row);
			if (source.group.over === 'cell') known.sums.area += source.face.measures.area[sites[row]!]!;
		}
	}
	return found;
}

/** A row for each kind of what is put on cells, along lines, on nodes. */
export function kindRows(sources: readonly GroupSource[]) {
	const rows: Cell[][] = [];
	const add = (
		{ name, corners, spread, size }: Kind,
		{ source, row, sums }: OfKind,
		[picture, long, short, edges, area]: readonly Cell[]
	) => {
		const { group, quantities } = source;
		const own = [name, sitesInWords[group.over], picture, group.ready.part.label, group.ready.variant.name];
		const each = [edges, area, quantities().mass[row]!, size > 1 ? spread : 0];
		const all = [sums.area || null, sums.mass, sums.flagged, sums.address];
		const points = group.over === 'line' ? null : corners;
		rows.push([...own, sums.pieces, points, long, short, ...each, ...all] as Cell[]);
	};
	const [first] = sources;
	if (first) {
		const { kinds, of } = first.kinds();
		const onCells = byKind(sources, ({ group, clause, z }) => {
			// What is put beside others is of no kind of its own.
			if (group.over !== 'cell' || besideName(clause)) return null;
			const own = of[z]![clause.face]!;
			return (row) => own[group.sites[row]!]!;
		});
		for (const [k, kind] of kinds.entries()) {
			const one = onCells.get(k);
			if (!one) continue;
			const { group, face } = one.source;
			const cell = group.sites[one.row]!;
			const outline = cellOutline(face, cell);
			const rectangles = new CellRectangles(face.cells, face.grid.positions);
			rectangles.look(cell);
			add(kind, one, [
				pictureOf(outline),
				rectangles.long,
				rectangles.short,
				outline.lengths.map((mm) => mm.toFixed(1)).join(' + '),
				face.measures.area[cell]!
			]);
		}
		for (const [over, { kinds: all, of: ofRows }] of [
			['line', first.barKinds()],
			['node', first.nodeKinds()]
		] as const) {
			const found = byKind(sources, ({ group, clause }) => {
				const own = group.over === over ? ofRows.get(clause) : undefined;
				return own ? (row) => own[row]! : null;
			});
			for (const [k, kind] of all.entries()) {
				const one = found.get(k)!;
				const cut = one.source.quantities().cutLength[one.row]!;
				add(kind, one, ['', cut || null, null, '', null]);
			}
		}
	}
	return asColumns(
		[
			textHead('kind', 'Kind'),
			textHead('sites', 'On'),
			textHead('picture', 'Outline'),
			textHead('part', 'Part'),
			textHead('variant', 'Variant'),
			piecesHead,
			numberHead('corners', 'Corners', 'count'),
			numberHead('long_side', 'Long side', 'length'),
			numberHead('short_side', 'Short side', 'length'),
			textHead('edges', 'Edges'),
			numberHead('each_area', 'Area of one', 'area'),
			numberHead('each_mass', 'Mass of one', 'mass'),
			numberHead('spread', 'Spread', 'length'),
			numberHead('area', 'Area', 'area', true),
			massHead,
			flaggedHead,
			addressHead
		],
		rows
	);
}

/** What is ordered of one material. */
class MaterialSums {
	elements = 0;
	readonly pieces = new Set<string>();
	/** Of plates, of what is cut to length, of blades. */
	area = 0;
	length = 0;
	blades = 0;
	volume = 0;
	mass = 0;
	constructor(readonly material: Material) {}
}

/** A row for each material that anything is made of. */
export function materialRows(sources: readonly GroupSource[]) {
	const found = new Map<string, MaterialSums>();
	for (const { addresses, group } of sources)
		for (const table of group.run.elements) {
			const material = group.ready.materials[table.element]!;
			const { category } = group.ready.elements[table.element]!;
			const sums = found.get(material.id) ?? new MaterialSums(material);
			found.set(material.id, sums);
			sums.elements += table.count;
			let last = -1;
			for (let k = 0; k < table.count; k++) {
				if (category === 'plate') sums.area += table.area[k]!;
				else if (category === 'blade') sums.blades += table.length[k]!;
				else sums.length += table.length[k]!;
				sums.volume += table.volume[k]!;
				sums.mass += elementMass(group, table, k);
				if (table.row[k] === last) continue;
				last = table.row[k]!;
				sums.pieces.add(addresses()[last]!);
			}
		}
	const rows = [...found.values()].map((sums): Cell[] => [
		sums.material.label,
		sums.elements,
		sums.pieces.size,
		sums.area,
		sums.length,
		sums.blades,
		sums.volume,
		sums.mass,
		`${formatNumber(sums.material.density)} kg/m³`,
		[...sums.pieces].join(BETWEEN_ADDRESSES)
	]);
	return asColumns(
		[
			textHead('material', 'Material'),
			numberHead('elements', 'Elements', 'count', true),
			numberHead('pieces', 'In pieces', 'count'),
			numberHead('area', 'Plates', 'area', true),
			numberHead('length', 'Bars', 'length', true),
			numberHead('blades', 'Blades', 'length', true),
			numberHead('volume', 'Volume', 'volume', true),
			massHead,
			textHead('density', 'Density'),
			addressHead
		],
		rows
	);
}

/** How a clause is told in a list: "rule 2", "along lines 1", "by hand". */
function clauseInWords({ zone, clause: { clause } }: GroupSource): string {
	const numbered = (word: string, list: readonly { readonly id: string }[], id: string) =>
		`${word} ${list.findIndex((one) => one.id === id) + 1}`;
	switch (clause.kind) {
		case 'rule':
			return numbered('rule', zone.zone.rules, clause.rule.id);
		case 'run':
			return numbered('along lines', zone.zone.runs, clause.run.id);
		case 'nodes':
			return numbered('on nodes', zone.zone.nodes, clause.placing.id);
		case 'exception':
			return 'by hand';
	}
}

/** A row for each clause that puts something, and what it comes to. */
export function ruleRows(sources: readonly GroupSource[]) {
	const found = new Map<string, { source: GroupSource; sums: Sums }>();
	for (const source of sources) {
		const { zone, group, face } = source;
		const name = `${zone.zone.id} ${clauseInWords(source)} ${group.ready.variant.id}`;
		const known = found.get(name) ?? { source, sums: new Sums() };
		found.set(name, known);
		for (let row = 0; row < group.sites.length; row++) {
			known.sums.add(source, row);
			if (group.over === 'cell') known.sums.area += face.measures.area[group.sites[row]!]!;
		}
	}
	const rows = [...found.values()].map(({ source, sums }): Cell[] => [
		`${source.zone.zone.name}, ${clauseInWords(source)}`,
		source.zone.zone.name,
		clauseInWords(source),
		source.group.ready.part.label,
		source.group.ready.variant.name,
		sitesInWords[source.group.over],
		sums.pieces,
		source.group.over === 'cell' ? sums.area : null,
		sums.length || null,
		sums.mass,
		sums.flagged,
		sums.address
	]);
	return asColumns(
		[
			textHead('named', 'Clause'),
			textHead('zone', 'Zone'),
			textHead('clause', 'Put by'),
			textHead('part', 'Part'),
			textHead('variant', 'Variant'),
			textHead('sites', 'On'),
			piecesHead,
			numberHead('area', 'Area', 'area', true),
			numberHead('length', 'Length', 'length', true),
			massHead,
			flaggedHead,
			addressHead
		],
		rows
	);
}
