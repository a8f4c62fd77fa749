import { fieldsOver } from '../src/core/field/fields';
import type { SiteKind } from '../src/core/field/site-kind';
import { shippedParts } from '../src/core/part/kit';
import { shippedMaterials } from '../src/core/part/materials';

/** Lists in the documentation that are made of what ships, by the name between their marks. */
const namesOver = (over: SiteKind) => fieldsOver(over).map(({ name }) => ({ id: name }));
const lists: Record<string, readonly { readonly id: string }[]> = {
	parts: shippedParts,
	materials: shippedMaterials,
	cells: namesOver('cell'),
	lines: namesOver('line'),
	nodes: namesOver('node')
};

/** A page of the documentation with its lists as they are now: `<!-- parts -->…<!-- end -->`. */
export function withLists(page: string): string {
	return page.replace(/<!-- (\w+) -->[^]*?<!-- end -->/g, (_, name: string) => {
		const list = lists[name];
		if (!list) throw new Error(`there is no list "${name}"`);
		return `<!-- ${name} -->${list.map(({ id }) => `\`${id}\``).join(', ')}<!-- end -->`;
	});
}
