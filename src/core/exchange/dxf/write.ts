import {
	DxfWriter,
	HatchBoundaryPaths,
	HatchPolylineBoundary,
	HatchPredefinedPatterns,
	pattern,
	point3d,
	TextHorizontalAlignment,
	TextVerticalAlignment,
	Units
} from '@tarikjabiri/dxf';
import { layers, type LayerName, type Page } from '../../drawing/drawing';
import { inDegrees } from '../../units/scale';

/** Numbers of colours in the format's own index: 1 red, 3 green, 5 blue, 8 and 9 grey, 7 black on white, 255 white. */
const colours: Partial<Record<LayerName, number>> = {
	levels: 1,
	clouds: 1,
	heads: 3,
	dimensions: 5,
	cells: 8,
	cuts: 9,
	structure: 8,
	tags: 255
};
const BLACK = 7;
/** Between two sheets (mm). */
const APART = 20;

const alignments = {
	left: TextHorizontalAlignment.Left,
	middle: TextHorizontalAlignment.Center,
	right: TextHorizontalAlignment.Right
} as const;

/** Sheets beside one another as DXF, mm of paper: a layer for each kind of thing, dimensions as lines and text. */
export function writeDxf(pages: Iterable<Page>): string {
	const dxf = new DxfWriter();
	dxf.setUnits(Units.Millimeters);
	for (const name of Object.keys(layers) as LayerName[])
		dxf.addLayer(layers[name].name, colours[name] ?? BLACK, 'Continuous');
	let left = 0;
	for (const { width, inked } of pages) {
		for (const { layer, fills, lines, texts } of inked) {
			const layerName = layers[layer].name;
			for (const rings of fills) {
				const paths = new HatchBoundaryPaths();
				for (const ring of rings) {
					const boundary = new HatchPolylineBoundary();
					for (let k = 0; k < ring.length; k += 2) boundary.add({ x: left + ring[k]!, y: ring[k + 1]! });
					paths.addPolylineBoundary(boundary);
				}
				dxf.addHatch(paths, pattern({ name: HatchPredefinedPatterns.SOLID }), { layerName });
			}
			for (let k = 0; k < lines.length; k += 4)
				dxf.addLine(point3d(left + lines[k]!, lines[k + 1]!), point3d(left + lines[k + 2]!, lines[k + 3]!), {
					layerName
				});
			for (const { x, y, size, text, turn, from } of texts) {
				const at = point3d(left + x, y);
				dxf.addText(at, size, text, {
					layerName,
					rotation: inDegrees(turn),
					// The second point counts for all that does not begin at its place.
					...(from !== 'left' && {
						horizontalAlignment: alignments[from],
						verticalAlignment: TextVerticalAlignment.BaseLine,
						secondAlignmentPoint: at
					})
				});
			}
		}
		left += width + APART;
	}
	return dxf.stringify();
}
