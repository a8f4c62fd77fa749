import type { Edit } from '../../src/core/project/edits';
import type { SentCommand } from '../../src/core/project/log';
import { readProject } from '../../src/core/project/read';
import type { Project } from '../../src/core/project/schema';

/**
 * A small project for tests of saving, the random commands that are done to it, and a model of what they mean that
 * shares no code with the application: a list of names, and for each the window that decided it last.
 */
export const FIRST = ['oak', 'elm', 'ash', 'fir'];
export const START: Project = readProject({
	format: 'zygaster project',
	version: 4,
	name: 'Wardrobe',
	variants: FIRST.map((id) => ({ id, name: `${id} 0`, part: 'framed-glass' }))
});

export type Random = () => number;
/** A generator that gives the same numbers for the same seed (mulberry32). */
export function randomFrom(seed: number): Random {
	let state = seed >>> 0;
	return () => {
		state = (state + 0x6d2b79f5) >>> 0;
		let t = Math.imul(state ^ (state >>> 15), state | 1);
		t = (t + Math.imul(t ^ (t >>> 7), t | 61)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
	};
}

export function idsFrom(random: Random): () => string {
	const hex = (n: number) =>
		Math.floor(random() * 16 ** n)
			.toString(16)
			.padStart(n, '0');
	return () => `${hex(8)}-${hex(4)}-4${hex(3)}-a${hex(3)}-${hex(6)}${hex(6)}`;
}

const MOST_VARIANTS = 60;

/** A random change of a project's variants: rename one, add one, take one out, or move one. */
export function randomEdit(project: Project, random: Random, turn: number): Edit {
	const { variants } = project;
	const one = variants[Math.floor(random() * variants.length)];
	const kind = random();
	if (!one || (kind < 0.3 && variants.length < MOST_VARIANTS))
		return {
			do: 'insert',
			path: 'variants',
			index: Math.floor(random() * (variants.length + 1)),
			value: { id: `v${turn}`, name: `new ${turn}`, part: 'framed-glass', values: {} }
		};
	if (kind < 0.5 && variants.length > 2) return { do: 'remove', path: `variants/${one.id}` };
	return { do: 'set', path: `variants/${one.id}/name`, value: `${one.id} ${turn}` };
}

interface Item {
	id: string;
	name: string;
	/** Who decided the name last, in order: the first is who was there before. */
	by: { command: string; window: string; name: string }[];
}

/** What the accepted commands come to, in the order they were accepted. */
export class Model {
	private items: Item[] = FIRST.map((id) => ({ id, name: `${id} 0`, by: [] }));
	private readonly undone = new Map<string, () => void>();
	/** Undos that took back what another window had decided. */
	readonly robbed: string[] = [];

	take(command: SentCommand): void {
		if (command.kind !== 'do') {
			const back = this.undone.get(command.of);
			if (!back) throw new Error(`the model has no ${command.of}`);
			this.robbing = command;
			back();
			this.undone.set(command.id, this.forward.get(command.of)!);
			this.forward.set(command.id, back);
			return;
		}
		const [edit] = command.edits as [Edit];
		const [, id = ''] = edit.path.split('/');
		if (edit.do === 'set') {
			const act = () => this.rename(id, edit.value as string, command);
			const before = this.items.find((item) => item.id === id)!.name;
			act();
			this.remember(command.id, act, () => {
				this.watch(id, command.window);
				this.rename(id, before, command);
			});
		} else if (edit.do === 'insert') {
			const { id: added, name } = edit.value as { id: string; name: string };
			const act = () => this.items.splice(edit.index, 0, { id: added, name, by: [] });
			act();
			this.remember(command.id, act, () => {
				this.watch(added, command.window);
				this.items = this.items.filter((item) => item.id !== added);
			});
		} else if (edit.do === 'remove') {
			const at = this.items.findIndex((item) => item.id === id);
			const item = this.items[at]!;
			this.items.splice(at, 1);
			this.remember(
				command.id,
				() => (this.items = this.items.filter((one) => one.id !== id)),
				() => this.items.splice(at, 0, item)
			);
		}
	}

	private robbing: SentCommand | null = null;
	private readonly forward = new Map<string, () => void>();
	private remember(id: string, act: () => unknown, back: () => unknown): void {
		this.forward.set(id, () => void act());
		this.undone.set(id, () => void back());
	}

	private watch(id: string, window: string): void {
		const last = this.items.find((item) => item.id === id)?.by.at(-1);
		if (last && last.window !== window) this.robbed.push(`${this.robbing?.label}: ${last.name}`);
	}

	private rename(id: string, name: string, { id: command, window }: SentCommand): void {
		const item = this.items.find((one) => one.id === id)!;
		item.name = name;
		item.by.push({ command, window, name });
	}

	names(): string[] {
		return this.items.map(({ id, name }) => `${id}: ${name}`);
	}
}

export const namesOf = (project: Project): string[] =>
	project.variants.map(({ id, name }) => `${id}: ${name}`);
