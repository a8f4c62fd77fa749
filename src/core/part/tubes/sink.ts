import { joinedTubes } from '../../geometry/solid/joined-tubes';
import type { Vector } from '../../geometry/vector';
import { volumeWithin } from '../../geometry/volume';
import { OwnMeshSink, type OwnMesh } from '../own-mesh-sink';
import type { PointSlots, TubesOutput } from '../program';

/** Makes smooth bodies of round arms; `loadSolids` has been awaited. */
export class TubesSink extends OwnMeshSink {
	constructor(private readonly output: TubesOutput) {
		super(output, null);
	}

	protected make(
		value: (slot: number) => number,
		_row: number,
		origin: readonly [number, number, number]
	): OwnMesh {
		const { centre, ways, reach, fillet } = this.output.joint;
		const at = ({ x, y, z }: PointSlots): Vector => [value(x), value(y), value(z)];
		const { vertices, triangles } = joinedTubes({
			ways: ways.map(({ direction }) => at(direction)),
			radii: ways.map(({ diameter }) => value(diameter) / 2),
			reach: value(reach),
			fillet: value(fillet)
		});
		const volume = volumeWithin(vertices, triangles);
		const from = at(centre);
		const places = Float32Array.from(vertices, (one, k) => one + from[k % 3]! - origin[k % 3]!);
		return { vertices: places, triangles, volume, area: 0, thickness: 0 };
	}

	// What cannot be made has been told of by the step's own flags.
	look(): void {}
}
