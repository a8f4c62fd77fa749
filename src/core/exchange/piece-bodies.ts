import type { ClauseGroup, Model, ZoneModel } from '../cladding/model';
import type { Vector } from '../geometry/vector';
import { pieceMarks } from '../mark/marks-of';
import { instancesOf } from '../part/element-table';
import { placesOf, trianglesOf } from '../part/places';

/** The body of one element of a piece. */
export interface PartBody {
	/** Of the part. */
	readonly element: number;
	/** x y z of its vertices (mm). */
	readonly places: Float32Array | Float64Array;
	/** By vertex, outward; bodies with the same ones have the very same list, unless each has its own. */
	readonly triangles: ArrayLike<number>;
}

/** The bodies of a piece as they stand, from the origin of its face. */
export function bodiesOf({ group }: ClauseGroup, row: number): PartBody[] {
	return group.run.elements.flatMap((table) =>
		Array.from(instancesOf(table).of(row), (k) => ({
			element: table.element,
			// What is placed is reckoned anew each time, in one and the same place.
			places: table.shape.is === 'placed' ? placesOf(table.shape, k).slice() : placesOf(table.shape, k),
			triangles: trianglesOf(table.shape, k)
		}))
	);
}

/** A piece that was made. */
export interface MadePiece {
	readonly zone: ZoneModel;
	readonly clause: ClauseGroup;
	readonly row: number;
	readonly mark: string;
	/** Where its bodies are seen from (mm). */
	readonly origin: Vector;
}

/** All pieces of a model that were made, one after the other. */
export function* madePieces(model: Model): Generator<MadePiece> {
	const markOf = pieceMarks(model);
	for (const { model: zone } of model.zones)
		for (const clause of zone?.groups ?? []) {
			const { origin } = zone!.faces[clause.face]!;
			const { elements } = clause.group.run;
			for (let row = 0; row < clause.group.sites.length; row++)
				if (elements.some((table) => instancesOf(table).has(row)))
					yield { zone: zone!, clause, row, mark: markOf(zone!, clause, row), origin };
		}
}
