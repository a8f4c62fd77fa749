import type { Kernel } from './program';

/** A scalar while a domain is being built; it gets its slot when the domain is finished. */
export type Register = number;

/** An operation on registers, before they have slots. */
export interface Draft {
	readonly op: Kernel;
	readonly a: Register;
	readonly b: Register;
	readonly c: Register;
	readonly out: Register;
}

const joins = { add: 'add product', subtract: 'subtract product' } as const;

/**
 * Products that go nowhere but into one sum or difference are made there, so that they need no column of their
 * own: geometry is full of them. The numbers stay the same bits, since the product is still rounded.
 * @param operations in single-assignment form @param kept registers whose values are asked for
 */
export function joinProducts(operations: readonly Draft[], kept: ReadonlySet<number>): Draft[] {
	const uses = new Map<number, number>();
	for (const { a, b, c } of operations)
		for (const register of new Set([a, b, c])) uses.set(register, (uses.get(register) ?? 0) + 1);
	const products = new Map(
		operations
			.filter(({ op, out }) => op === 'multiply' && uses.get(out) === 1 && !kept.has(out))
			.map((product) => [product.out, product])
	);
	const joined = new Set<number>();
	const made = operations.map((operation): Draft => {
		const { op, a, b, out } = operation;
		if (op !== 'add' && op !== 'subtract') return operation;
		const [to, product] = products.has(b) ? [a, products.get(b)!] : [b, products.get(a)];
		if (a === b || !product || (op === 'subtract' && product.out === a)) return operation;
		joined.add(product.out);
		return { op: joins[op], a: product.a, b: product.b, c: to, out };
	});
	return made.filter(({ out }) => !joined.has(out));
}
