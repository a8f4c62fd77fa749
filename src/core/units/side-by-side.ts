/**
 * Do something with each of many things, some of them at a time. When it fails with one, none is begun any more, and it
 * fails, when those that were begun have ended, with what went wrong with the first of them in their order.
 *
 * ```ts
 * const sizes = await sideBySide(4, ['a', 'b'], async (name) => name.length);
 * ```
 * @param abreast how many at a time @returns what came of each, in their order
 */
export async function sideBySide<Thing, Made>(
	abreast: number,
	things: readonly Thing[],
	act: (thing: Thing, k: number) => Promise<Made>
): Promise<Made[]> {
	const made = new Array<Made>(things.length);
	const failed = new Map<number, unknown>();
	let next = 0;
	const lane = async () => {
		while (next < things.length && !failed.size) {
			const k = next++;
			try {
				made[k] = await act(things[k]!, k);
			} catch (error) {
				failed.set(k, error);
			}
		}
	};
	await Promise.all(Array.from({ length: Math.min(abreast, things.length) }, lane));
	if (failed.size) throw failed.get(Math.min(...failed.keys()));
	return made;
}
