import { z } from 'zod';
import { hiddenSchema, NOTHING_HIDDEN, type Hidden } from '$core/project/view-schema';

/** What can be left out of the picture, and what of that there is. */
export type HiddenList = keyof Hidden;

const rememberedSchema = z.object({ hidden: hiddenSchema, locked: z.array(z.string()) });

/**
 * What of a project is left out of the picture, and what cannot be chosen or changed. Nothing of it changes what is
 * built; it is remembered in this browser.
 */
export class Visibility {
	hidden = $state.raw<Hidden>(NOTHING_HIDDEN);
	/** Paths of zones and masses that are locked. */
	locked = $state.raw<readonly string[]>([]);
	private readonly key: string;

	constructor(project: string) {
		this.key = `zygaster shown ${project}`;
		try {
			const { hidden, locked } = rememberedSchema.parse(JSON.parse(localStorage.getItem(this.key) ?? ''));
			this.hidden = hidden;
			this.locked = locked;
		} catch {
			// Nothing is remembered, or nothing that can be read.
		}
	}

	isHidden(list: HiddenList, id: string): boolean {
		return (this.hidden[list] as readonly string[]).includes(id);
	}

	/** Leave something out of the picture, or bring it back. */
	toggle(list: HiddenList, id: string): void {
		const now = this.hidden[list] as readonly string[];
		this.set({
			...this.hidden,
			[list]: this.isHidden(list, id) ? now.filter((one) => one !== id) : [...now, id]
		});
	}

	/** Leave out all others of a list; all of them again when it is alone already. */
	alone(list: HiddenList, id: string, all: readonly string[]): void {
		const others = all.filter((one) => one !== id);
		const isAlone = !this.isHidden(list, id) && others.every((one) => this.isHidden(list, one));
		this.set({ ...this.hidden, [list]: isAlone ? [] : others });
	}

	set(hidden: Hidden): void {
		this.hidden = hidden;
		this.remember();
	}

	showAll(): void {
		this.set(NOTHING_HIDDEN);
	}

	isLocked(path: string): boolean {
		return this.locked.includes(path);
	}

	lock(path: string, locked = !this.isLocked(path)): void {
		this.locked = locked ? [...this.locked, path] : this.locked.filter((one) => one !== path);
		this.remember();
	}

	private remember(): void {
		const isPlain = !this.locked.length && Object.values(this.hidden).every((list) => !list.length);
		if (isPlain) localStorage.removeItem(this.key);
		else localStorage.setItem(this.key, JSON.stringify({ hidden: this.hidden, locked: this.locked }));
	}
}
