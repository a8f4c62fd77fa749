import { toast } from 'svelte-sonner';
import type { Edit } from '$core/project/edits';
import { isWithin } from '$core/project/paths';
import type { Desk } from '$lib/state/desk.svelte';
import type { Act } from '$lib/state/sheet-state.svelte';
import type { User } from './users';

interface Removal {
	readonly label: string;
	/** What goes, by its name. */
	readonly name: string;
	readonly edit: Edit;
	/** The clauses that use it; looked for when it is to go. */
	readonly users: () => readonly User[];
	/** How they can go with it, and what that is called. */
	readonly together?: { readonly label: string; readonly edits: readonly Edit[] };
}

const MOST_NAMED = 3;

/** An act of a clause that takes something out; where it is used, what uses it is said, with the way on. */
export function removal(desk: Desk, { label, name, edit, users, together }: Removal): Act {
	const said = `remove ${name}`;
	return {
		label,
		act() {
			const found = users();
			const [first] = found;
			if (!first) {
				desk.do(said, edit);
				return;
			}
			const names = found.slice(0, MOST_NAMED).map((user) => user.name);
			const more = found.length - names.length;
			const show = { label: 'Show', onClick: () => (desk.selection.clause = first.path) };
			toast(`${name} is used by ${names.join(', ')}${more ? ` and ${more} more` : ''}`, {
				duration: 12_000,
				// Only where nothing else would be left without it.
				...(together && found.every(({ path }) => together.edits.some((one) => isWithin(path, one.path)))
					? {
							action: { label: together.label, onClick: () => desk.do(said, ...together.edits, edit) },
							cancel: show
						}
					: { action: show })
			});
		}
	};
}
