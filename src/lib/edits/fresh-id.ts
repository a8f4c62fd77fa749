/** An id that is not taken yet: `rule`, `rule-2`, `rule-3` … */
export function freshId(base: string, taken: readonly { readonly id: string }[]): string {
	const used = new Set(taken.map((one) => one.id));
	let id = base;
	for (let n = 2; used.has(id); n++) id = `${base}-${n}`;
	return id;
}
