import { mapNumbers } from '../block/recipe';
import type { DomainBuilder, PointRegisters } from '../builder';
import { StepFault } from './fault';
import type { Value } from '../values';

/** Registers of a value of the enclosing domain, taken over into a group's own. */
function imported(value: Value, builder: DomainBuilder): Value {
	const point = (p: PointRegisters): PointRegisters => ({
		x: builder.import(p.x),
		y: builder.import(p.y),
		z: builder.import(p.z)
	});
	switch (value.is) {
		case 'number':
			return { ...value, register: builder.import(value.register) };
		case 'point':
		case 'direction':
			return { ...value, at: point(value.at) };
		case 'ring':
		case 'path':
		case 'directions':
			return { ...value, points: value.points.map(point) };
		case 'rings':
			return { ...value, rings: value.rings.map((ring) => ring.map(point)) };
		case 'lengths':
			return { is: 'lengths', lengths: value.lengths.map((one) => builder.import(one)) };
		case 'ways':
			return {
				is: 'ways',
				ways: value.ways.map(({ direction, far, ...sizes }) => ({
					direction: point(direction),
					far: point(far),
					across: builder.import(sizes.across),
					deep: builder.import(sizes.deep),
					middle: builder.import(sizes.middle)
				}))
			};
		case 'plane': {
			const { origin, right, up, normal } = value.frame;
			return {
				is: 'plane',
				frame: { origin: point(origin), right: point(right), up: point(up), normal: point(normal) }
			};
		}
		case 'sheet':
			return { is: 'sheet', sheet: { ...value.sheet, vertices: value.sheet.vertices.map(point) } };
		case 'block':
			return { is: 'block', recipe: mapNumbers(value.recipe, (register) => builder.import(register)) };
		case 'solid':
		case 'fitted block':
		case 'pierced sheet':
		case 'joined tubes':
			throw new StepFault('a solid made outside a group cannot be used inside it');
	}
}

/** Names that are visible: those of a domain, then those of the domain around it. */
export class Scope {
	private readonly own = new Map<string, Value>();

	constructor(
		readonly builder: DomainBuilder,
		private readonly outer: Scope | null,
		/** Its rows are the turns of a repeat. */
		readonly repeats: boolean = outer?.repeats ?? false
	) {}

	/** The value of a name, usable in this scope's domain. */
	get(name: string): Value | undefined {
		const known = this.own.get(name);
		if (known || !this.outer) return known;
		const found = this.outer.get(name);
		if (!found) return undefined;
		const value = this.outer.builder === this.builder ? found : imported(found, this.builder);
		this.own.set(name, value);
		return value;
	}

	/** The value as it stands where it was made: for its type only. */
	peek(name: string): Value | undefined {
		return this.own.get(name) ?? this.outer?.peek(name);
	}

	set(name: string, value: Value): void {
		this.own.set(name, value);
	}

	/** Take a name out, so that another can have it. */
	hide(name: string): void {
		this.own.delete(name);
	}

	names(): string[] {
		return [...new Set([...this.own.keys(), ...(this.outer?.names() ?? [])])];
	}
}
