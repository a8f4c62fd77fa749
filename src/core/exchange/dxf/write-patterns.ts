import { DxfWriter, point3d, Units } from '@tarikjabiri/dxf';
import type { Model } from '../../cladding/model';
import { layers } from '../../drawing/drawing';
import { diameterOf, sheetPatterns, type SheetPattern } from '../../drawing/flat-views';
import { piecesByKind } from '../../drawing/pieces-of-kinds';
import { boxOf, type Place } from '../../geometry/polygon';
import { sourcesOf } from '../../schedule/sources';

/** Numbers of colours in the format's own index: red, green, black on white. */
const [RED, GREEN, BLACK] = [1, 3, 7];
/** Between two sheets (mm), and of what is written on them. */
const [APART, TEXT] = [100, 40];
/** Places of a row, after which the next one begins. */
const IN_A_ROW = 40;

/** Names of blocks as programs accept them: no signs that mean something to them. */
const blockName = (name: string) => name.replace(/[^A-Za-z0-9_-]/g, '_');

/** A sheet as a block, from the lower left corner of the box round it. */
function addPattern(dxf: DxfWriter, name: string, { pattern, isGlass }: SheetPattern): Place {
	const { low, high } = boxOf(pattern.outline);
	const block = dxf.addBlock(name);
	const at = ([x, y]: Place) => ({ point: { x: x - low[0], y: y - low[1] } });
	const ring = (places: readonly Place[], layerName: string) =>
		block.addLWPolyline(places.map(at), { layerName, flags: 1 });
	ring(pattern.outline, layers.outline.name);
	for (const opening of pattern.openings) {
		const diameter = diameterOf(opening);
		if (diameter === null) {
			ring(opening, layers.openings.name);
			continue;
		}
		const middle = [0, 1].map(
			(axis) => opening.reduce((sum, place) => sum + place[axis]!, 0) / opening.length
		);
		block.addCircle(point3d(middle[0]! - low[0], middle[1]! - low[1]), diameter / 2, {
			layerName: layers.openings.name
		});
	}
	for (const { from, to } of isGlass ? [] : pattern.folds)
		block.addLine(point3d(from[0] - low[0], from[1] - low[1]), point3d(to[0] - low[0], to[1] - low[1]), {
			layerName: layers.folds.name
		});
	return [high[0] - low[0], high[1] - low[1]];
}

/**
 * Every sheet of every piece laid flat in its true size, mm: one block for those that are alike, put in as often as there
 * are, each with the mark of its piece. Sheets that do not lie flat are left out.
 *
 * ```ts
 * const text = writeDxfPatterns(model);
 * ```
 */
export function writeDxfPatterns(model: Model): string {
	const dxf = new DxfWriter();
	dxf.setUnits(Units.Millimeters);
	const used = [
		[layers.outline, BLACK],
		[layers.openings, RED],
		[layers.folds, GREEN],
		[layers.marks, BLACK]
	] as const;
	for (const [{ name }, colour] of used) dxf.addLayer(name, colour, 'Continuous');
	let top = 0;
	for (const { kind, source, row, marks } of piecesByKind(sourcesOf(model), 'cell'))
		for (const [k, one] of sheetPatterns(source, row).entries()) {
			if (one.pattern.off === Infinity) continue;
			const name = blockName(k ? `${kind.name}-${k + 1}` : kind.name);
			const [wide, tall] = addPattern(dxf, name, one);
			const step = [wide + APART, tall + APART + 2 * TEXT] as const;
			const placed = marks.flatMap((mark) => Array.from({ length: one.count }, () => mark));
			dxf.addText(point3d(0, top - TEXT), TEXT, `${kind.name} ${one.called}, ${placed.length} x`, {
				layerName: layers.marks.name
			});
			top -= 2 * TEXT;
			placed.forEach((mark, n) => {
				const [x, y] = [(n % IN_A_ROW) * step[0], top - Math.floor(n / IN_A_ROW) * step[1] - tall];
				dxf.addInsert(name, point3d(x, y), { layerName: layers.outline.name });
				dxf.addText(point3d(x, y - 1.3 * TEXT), TEXT, mark, { layerName: layers.marks.name });
			});
			top -= Math.ceil(placed.length / IN_A_ROW) * step[1] + APART;
		}
	return dxf.stringify();
}
