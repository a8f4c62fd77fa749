import { DxfWriter, point3d, Units } from '@tarikjabiri/dxf';
import { lineKindOf } from '../../cladding/line-run';
import type { Model } from '../../cladding/model';
import { pointAt, type Vector } from '../../geometry/vector';
import { lineKinds } from '../../project/line-kinds';

const GUIDES = 'GUIDES';
/** Numbers of colours in the format's own index: green, and black on white. */
const [GREEN, BLACK] = [3, 7];

/** Of a zone's lines of a kind, as programs accept it: no signs that mean something to them. */
const layerOf = (code: string, kind: string) =>
	`${code} ${kind}`.toUpperCase().replace(/[<>/\\":;?*|=‘`,]/g, '_');

/**
 * Grid lines and guides in space as DXF, mm: every line once, on a layer for its zone and kind.
 *
 * ```ts
 * const text = writeDxfLines(model);
 * ```
 */
export function writeDxfLines({ zones, guides }: Pick<Model, 'zones' | 'guides'>): string {
	const dxf = new DxfWriter();
	dxf.setUnits(Units.Millimeters);
	const line = (a: Vector, b: Vector, layerName: string) =>
		dxf.addLine(point3d(...a), point3d(...b), { layerName });
	for (const { model } of zones) {
		if (!model) continue;
		for (const kind of lineKinds) dxf.addLayer(layerOf(model.zone.code, kind), BLACK, 'Continuous');
		for (const { edges, sharedEdges, grid } of model.faces)
			for (let e = 0; e < edges.count; e++) {
				// What two faces share is drawn on one of them.
				if (sharedEdges?.[e] === 2) continue;
				const kind = lineKindOf(edges, e, sharedEdges);
				const [from, to] = [edges.from[e]!, edges.to[e]!];
				line(pointAt(grid.positions, from), pointAt(grid.positions, to), layerOf(model.zone.code, kind));
			}
	}
	if (guides.size) dxf.addLayer(GUIDES, GREEN, 'Continuous');
	for (const points of guides.values()) {
		if (points.length === 1) dxf.addPoint(...points[0]!, { layerName: GUIDES });
		for (let k = 0; k + 1 < points.length; k++) line(points[k]!, points[k + 1]!, GUIDES);
	}
	return dxf.stringify();
}
