import type { Draft, Register } from './products';
import type { Operation } from './program';

interface Allotted {
	readonly slotOf: ReadonlyMap<Register, number>;
	/** How many there are. */
	readonly slots: number;
	/** The same operations, from slots to slots. */
	readonly operations: readonly Operation[];
}

/**
 * Give every register a slot; the slot of a value that is no longer needed is used again (linear scan, as compilers
 * allot registers: Poletto and Sarkar 1999).
 * @param live operations in their order, from registers to registers
 * @param fixed registers that are filled before the first of them
 * @param kept registers that are wanted after the last of them
 */
export function allotSlots(
	live: readonly Draft[],
	fixed: readonly Register[],
	kept: ReadonlySet<Register>
): Allotted {
	const lastUse = new Map<Register, number>();
	live.forEach(({ a, b, c }, k) => [a, b, c].forEach((register) => lastUse.set(register, k)));
	const slotOf = new Map<Register, number>();
	let slots = 0;
	for (const register of fixed) slotOf.set(register, slots++);
	const stays = new Set([...fixed, ...kept]);
	const free: number[] = [];
	const operations = live.map(({ op, a, b, c, out }, k): Operation => {
		const into = free.pop() ?? slots++;
		slotOf.set(out, into);
		for (const register of new Set([a, b, c]))
			if (lastUse.get(register) === k && !stays.has(register)) free.push(slotOf.get(register)!);
		return { op, out: into, a: slotOf.get(a)!, b: slotOf.get(b)!, c: slotOf.get(c)! };
	});
	return { slotOf, slots, operations };
}
