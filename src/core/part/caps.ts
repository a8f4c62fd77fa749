import { doubledArea, fillLoops, turnedOver, turnedOverAt } from '../geometry/triangulate';

/** A flat end of a mesh: how its triangles lie hangs on its shape. */
export interface Cap {
	/** Its corners by vertex: those of its ring, counter-clockwise seen from its side, then of every opening. */
	readonly corners: readonly number[];
	/** Where each opening begins among them. */
	readonly openings: readonly number[];
	/** Where its triangles stand in the mesh's list, and how many values they have there: none with openings. */
	readonly at: number;
	readonly plain: number;
	/** Those of the far end follow, turned over: its vertices are numbered by so much more. Null where there is none. */
	readonly far: number | null;
}

/**
 * A cap seen from its side. Hot: once for every instance.
 * @param positions x y z of every vertex of the instance @param places filled with x y of the cap's corners
 */
function look({ corners, openings }: Cap, positions: Float32Array, places: Float64Array): void {
	const ring = openings[0] ?? corners.length;
	const first = 3 * corners[0]!;
	const x0 = positions[first]!;
	const y0 = positions[first + 1]!;
	const z0 = positions[first + 2]!;
	let nx = 0;
	let ny = 0;
	let nz = 0;
	for (let k = 1; k + 1 < ring; k++) {
		const a = 3 * corners[k]!;
		const b = 3 * corners[k + 1]!;
		const ax = positions[a]! - x0;
		const ay = positions[a + 1]! - y0;
		const az = positions[a + 2]! - z0;
		const bx = positions[b]! - x0;
		const by = positions[b + 1]! - y0;
		const bz = positions[b + 2]! - z0;
		nx += ay * bz - az * by;
		ny += az * bx - ax * bz;
		nz += ax * by - ay * bx;
	}
	const size = Math.sqrt(nx * nx + ny * ny + nz * nz) || 1;
	nx /= size;
	ny /= size;
	nz /= size;
	// Two directions square to the normal: the cross product with the axis that is least along it, and with that one.
	const flat = Math.abs(nz) < 0.9;
	let rx = flat ? -ny : 0;
	let ry = flat ? nx : -nz;
	let rz = flat ? 0 : ny;
	const across = Math.sqrt(rx * rx + ry * ry + rz * rz) || 1;
	rx /= across;
	ry /= across;
	rz /= across;
	const ux = ny * rz - nz * ry;
	const uy = nz * rx - nx * rz;
	const uz = nx * ry - ny * rx;
	for (let k = 0; k < corners.length; k++) {
		const o = 3 * corners[k]!;
		const x = positions[o]! - x0;
		const y = positions[o + 1]! - y0;
		const z = positions[o + 2]! - z0;
		places[2 * k] = x * rx + y * ry + z * rz;
		places[2 * k + 1] = x * ux + y * uy + z * uz;
	}
}

/** The fillings of a cap that did before: most instances are like others. */
class Fillings {
	readonly all: number[][] = [];
	private readonly used: number[] = [];
	/** The triangle of each that was turned over last: where it does not fit, it is that one again as a rule. */
	private readonly turned: number[] = [];
	/** Their numbers, those that did most often first. */
	private readonly order: number[] = [];

	/** @returns the number of one that fills twice an area between the corners; -1 where none of them does */
	find(places: Float64Array, area: number): number {
		if (!(area > 0)) return -1;
		const place = this.order.findIndex((number) => {
			const at = turnedOverAt(places, this.all[number]!, area, this.turned[number]);
			if (at >= 0) this.turned[number] = at;
			return at < 0;
		});
		return place < 0 ? -1 : this.use(place);
	}

	add(filling: number[]): number {
		this.used.push(0);
		this.turned.push(0);
		return this.use(this.order.push(this.all.push(filling) - 1) - 1);
	}

	private use(place: number): number {
		const { order, used } = this;
		const number = order[place]!;
		used[number]!++;
		let to = place;
		while (to > 0 && used[order[to - 1]!]! < used[number]!) to--;
		[order[to], order[place]] = [number, order[to]!];
		return number;
	}
}

/** Fills the caps of one mesh, for one instance after the other. */
export class CapFiller {
	private readonly known: Fillings[];
	private readonly places: Float64Array[];
	/** The fillings of caps that instances have, of one cap after the other: of no cap at first. */
	private readonly choices: (readonly number[])[] = [[]];
	/** What a choice is with each filling of the next cap. */
	private readonly further: number[][] = [[]];

	constructor(
		private readonly triangles: readonly number[],
		private readonly caps: readonly Cap[]
	) {
		this.known = caps.map(() => new Fillings());
		this.places = caps.map(({ corners }) => new Float64Array(2 * corners.length));
	}

	/**
	 * Which fillings an instance has, as one number for `trianglesOf`; -1 where a cap cannot be filled, since
	 * its loops meet each other or themselves. Hot: once for every instance.
	 * @param positions x y z of every vertex
	 */
	fill(positions: Float32Array): number {
		let choice = 0;
		for (let c = 0; c < this.caps.length; c++) {
			const cap = this.caps[c]!;
			const places = this.places[c]!;
			const known = this.known[c]!;
			look(cap, positions, places);
			let at = known.find(places, doubledArea(places, cap.openings));
			if (at < 0) {
				const found = fillLoops(places, cap.openings);
				if (!found) return -1;
				at = known.add(found);
			}
			choice = this.further[choice]![at] ??= this.addChoice(choice, at);
		}
		return choice;
	}

	private addChoice(before: number, filling: number): number {
		this.further.push([]);
		return this.choices.push([...this.choices[before]!, filling]) - 1;
	}

	/** All triangles of the mesh with its caps filled so. */
	trianglesOf(choice: number): number[] {
		const fillings = this.choices[choice]!;
		const made = [...this.triangles];
		// From the last one, so that places before it stay.
		for (const [c, cap] of [...this.caps.entries()].reverse()) {
			const near = this.known[c]!.all[fillings[c]!]!.map((k) => cap.corners[k]!);
			const far = cap.far === null ? [] : turnedOver(near).map((vertex) => vertex + cap.far!);
			made.splice(cap.at, cap.plain, ...near, ...far);
		}
		return made;
	}
}
