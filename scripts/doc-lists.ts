import { shippedParts } from '../src/core/part/kit';
import { shippedMaterials } from '../src/core/part/materials';

/** Lists in the documentation that are made of what ships, by the name between their marks. */
const lists: Record<string, readonly { readonly id: string }[]> = {
	parts: shippedParts,
	materials: shippedMaterials
};

/** A page of the documentation with its lists as they are now: `<!-- parts -->…<!-- end -->`. */
export function withLists(page: string): string {
	return page.replace(/<!-- (\w+) -->[^]*?<!-- end -->/g, (_, name: string) => {
		const list = lists[name];
		if (!list) throw new Error(`there is no list "${name}"`);
		return `<!-- ${name} -->${list.map(({ id }) => `\`${id}\``).join(', ')}<!-- end -->`;
	});
}
