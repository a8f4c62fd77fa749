import type { Model } from '../cladding/model';
import { pointAt, type Vector } from '../geometry/vector';
import type { Place } from '../geometry/polygon';
import type { Shown } from '../project/own-sheet-schema';
import type { GroupSource } from '../schedule/sources';
import type { Revised } from './clouds';
import type { View } from './drawing';
import { seenOf } from './elevation';
import { wayOfLooking } from './elevation-sheets';
import { lookingAlong, seenAt, type Frame } from './frame';
import { sheetNumber } from './planned';
import { unrolledFace, type Unrolled } from './unrolled';
import type { DrawnView } from './view-sheet';

/** A face of a zone by its places in the model. */
export interface FacePlace {
	readonly z: number;
	readonly f: number;
}

/** A view as it is placed on a sheet. */
export interface ShownView {
	/** Left, foot, right, head (mm of the model). */
	readonly bounds: View['bounds'];
	/** With its marks, where they have room: mm of paper to a mm of the model. */
	readonly drawnAt: (scale: number) => DrawnView;
	readonly title: string;
	/** Heights are upright in it, and levels are drawn past it. */
	readonly isUpright: boolean;
	/** Its bays and courses have heads. */
	readonly heads: Pick<Unrolled, 'bays' | 'courses'> | null;
	/** The faces whose nodes are seen in it. */
	readonly faces: readonly FacePlace[];
	/** Where a node lies in it (mm of the view), and how far from the eye (mm). */
	readonly nodeAt: (face: FacePlace, node: number) => { readonly at: Place; readonly depth: number };
}

const wayFromSide: Record<(Shown & { shows: 'elevation' })['from'], Vector> = {
	south: [0, 1, 0],
	east: [-1, 0, 0],
	north: [0, -1, 0],
	west: [1, 0, 0],
	above: [0, 0, -1]
};
const wayFromCorner: Record<(Shown & { shows: 'picture' })['from'], Vector> = {
	'south-west': [1, 1, -1],
	'south-east': [-1, 1, -1],
	'north-east': [-1, -1, -1],
	'north-west': [1, -1, -1]
};

/** A view that cannot be shown, and why. */
export class NotShown extends Error {}

function zoneOf({ zones, project }: Model, id: string): number {
	const z = zones.findIndex((zone) => zone.id === id);
	if (z < 0) throw new NotShown(`there is no zone ${id} any more`);
	if (!zones[z]!.model)
		throw new NotShown(`${project.zones[z]?.name ?? id} has no model: its own fault is told in Shape`);
	return z;
}

const facesOf = ({ zones }: Model, of: readonly number[] | null): FacePlace[] =>
	(of ?? [...zones.keys()]).flatMap((z) => [...(zones[z]!.model?.faces.keys() ?? [])].map((f) => ({ z, f })));

/** Where nodes lie as they are seen. */
const seenNodes =
	({ zones }: Model, frame: Frame): ShownView['nodeAt'] =>
	({ z, f }, node) => {
		const [x, y, depth] = seenAt(frame, pointAt(zones[z]!.model!.faces[f]!.grid.positions, node));
		return { at: [x, y], depth };
	};

/** The model as it is seen from a corner, without marks. */
function pictureOf(
	model: Model,
	frame: Frame,
	zones: readonly number[] | null
): Pick<ShownView, 'bounds' | 'drawnAt'> {
	const { inked, bounds } = seenOf(model, frame, zones);
	return { bounds, drawnAt: () => ({ inked, bounds, left: 0, revised: [] }) };
}

/**
 * What a view shows, drawn.
 * @throws NotShown where what it shows is gone
 */
export function shownView(
	model: Model,
	sources: readonly GroupSource[],
	shown: Shown,
	revised: Revised | null
): ShownView {
	switch (shown.shows) {
		case 'elevation':
		case 'picture': {
			const zones = shown.zone === null ? null : [zoneOf(model, shown.zone)];
			const of = zones ? model.zones[zones[0]!]!.model!.zone.name : model.project.name;
			const common = { heads: null, faces: facesOf(model, zones) };
			if (shown.shows === 'picture') {
				const frame = lookingAlong(wayFromCorner[shown.from]);
				const title = `${of} from the ${shown.from}`;
				const drawn = pictureOf(model, frame, zones);
				return { ...drawn, ...common, title, isUpright: false, nodeAt: seenNodes(model, frame) };
			}
			const isUpright = shown.from !== 'above';
			const title = `${of} from ${isUpright ? `the ${shown.from}` : 'above'}`;
			const frame = lookingAlong(wayFromSide[shown.from]);
			const { bounds, marked } = seenOf(model, frame, zones, -Infinity, revised);
			return { bounds, drawnAt: marked, ...common, title, isUpright, nodeAt: seenNodes(model, frame) };
		}
		case 'section': {
			const { sections } = model.project.drawings;
			const k = sections.findIndex(({ id }) => id === shown.section);
			if (k < 0) throw new NotShown('the section is there no more');
			const { looking, at } = sections[k]!;
			const way = wayOfLooking[looking];
			const frame = lookingAlong(way);
			const { bounds, marked } = seenOf(model, frame, null, (way[0] + way[1]) * at, revised);
			return {
				bounds,
				drawnAt: marked,
				title: `Section ${sheetNumber('S', k + 1)}, looking ${looking}`,
				isUpright: true,
				heads: null,
				faces: facesOf(model, null),
				nodeAt: seenNodes(model, frame)
			};
		}
		case 'unrolled': {
			const z = zoneOf(model, shown.zone);
			const zone = model.zones[z]!.model!;
			const f = shown.face - 1;
			const face = zone.faces[f];
			if (!face?.cells.count) throw new NotShown(`${zone.zone.name} has no face ${shown.face} with cells`);
			const drawnAt = (scale: number) => unrolledFace(zone, f, sources, () => scale, revised);
			const { bounds, bays, courses } = drawnAt(0);
			const { flat } = face.grid;
			return {
				bounds,
				drawnAt,
				title: `${zone.zone.name}${zone.faces.length > 1 ? `, face ${shown.face}` : ''}, unrolled`,
				isUpright: false,
				heads: { bays, courses },
				faces: [{ z, f }],
				nodeAt: (_face, node) => ({ at: [flat[2 * node]!, flat[2 * node + 1]!], depth: 0 })
			};
		}
	}
}
