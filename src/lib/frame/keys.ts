import { tinykeys } from 'tinykeys';

interface Key {
	/** As tinykeys writes them; what is done is told which of them was pressed. */
	readonly keys: readonly string[];
	readonly shown: string;
	readonly does: string;
	/**
	 * On the *page*: not while something is typed or a list or dialog is open. In all but *fields*: there it means what
	 * was typed. *Always*.
	 */
	readonly reach: 'page' | 'fields' | 'always';
	/** What each of its keys does, where one is looked for by itself. */
	readonly each?: readonly string[];
}

const ways = ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'];

/** Every key of the pages of a project, once; pages say what each does there, and the list of keys is read off it. */
export const keyMap = {
	lens: {
		keys: ['1', '2', '3', '4', '5'],
		shown: '1 – 5',
		does: 'Lenses: Form, Set out, Clad, Check, Issue',
		each: ['Form', 'Set out', 'Clad', 'Check', 'Issue'].map((lens) => `Lens: ${lens}`),
		reach: 'page'
	},
	frame: { keys: ['f'], shown: 'F', does: 'Frame the selection', reach: 'page' },
	pin: {
		keys: ['p'],
		shown: 'P',
		does: 'Stay in this lens whatever is changed; again, follow',
		reach: 'page'
	},
	whole: { keys: ['Home'], shown: 'Home', does: 'The whole model', reach: 'page' },
	look: {
		keys: ['o', 'n', 'e', 's', 'w', 'a'],
		shown: 'O N E S W A',
		does: 'Look from around, north, east, south, west, above',
		each: ['around', 'the north', 'the east', 'the south', 'the west', 'above'].map(
			(from) => `Look from ${from}`
		),
		reach: 'page'
	},
	turn: {
		keys: ways.map((way) => `Alt+${way}`),
		shown: 'Alt arrows',
		does: 'Turn the model',
		reach: 'page'
	},
	nearer: { keys: ['+', '-'], shown: '+ −', does: 'Come nearer, go farther', reach: 'page' },
	walk: {
		keys: [...ways, ...ways.map((way) => `Shift+${way}`)],
		shown: 'Arrows',
		does: 'Walk from cell to cell; with Shift, extend',
		reach: 'page'
	},
	byHand: { keys: ['x'], shown: 'X', does: 'Put something on the chosen cells by hand', reach: 'page' },
	alone: {
		keys: ['i'],
		shown: 'I',
		does: 'Show the chosen pieces alone; again, everything',
		reach: 'page'
	},
	hide: {
		keys: ['h', 'Shift+h'],
		shown: 'H',
		does: 'Leave the zone on the map out of the picture; with Shift, everything is shown again',
		each: ['Leave the zone on the map out of the picture', 'Show everything'],
		reach: 'page'
	},
	lock: { keys: ['k'], shown: 'K', does: 'Lock the zone on the map; again, unlock it', reach: 'page' },
	flags: {
		keys: [']', '['],
		shown: '] [',
		does: 'To the next flag, the worst first; to the one before',
		each: ['To the next flag', 'To the flag before'],
		reach: 'page'
	},
	hold: {
		keys: ['q', 'Shift+q'],
		shown: 'Q',
		does: 'Hold the model while edits are collected, or go on; with Shift, run what was collected',
		each: ['Hold the model, or go on', 'Run the edits that were collected'],
		reach: 'page'
	},
	labels: { keys: ['l'], shown: 'L', does: 'Labels of the selection', reach: 'page' },
	section: { keys: ['c'], shown: 'C', does: 'Cut the model open; again, whole', reach: 'page' },
	measure: { keys: ['d'], shown: 'D', does: 'Measure distances in the model', reach: 'page' },
	map: { keys: ['m'], shown: 'M', does: 'Flat map', reach: 'page' },
	mapAlone: {
		keys: ['Shift+m'],
		shown: 'Shift M',
		does: 'Flat map in all of the room; again, with the model',
		reach: 'page'
	},
	leave: { keys: ['Escape'], shown: 'Esc', does: 'Clear the selection', reach: 'page' },
	find: {
		keys: ['$mod+k'],
		shown: 'Ctrl K',
		does: 'Find a clause, a piece by its mark, an action',
		reach: 'always'
	},
	undo: {
		keys: ['$mod+z', '$mod+Shift+z'],
		shown: 'Ctrl Z',
		does: 'Undo; with Shift, redo',
		each: ['Undo', 'Redo'],
		reach: 'fields'
	},
	next: { keys: ['g'], shown: 'G', does: 'To what is offered next', reach: 'page' },
	clause: {
		keys: ['b'],
		shown: 'B',
		does: 'To the clause on the build sheet that is worked on',
		reach: 'page'
	},
	schedule: { keys: ['t'], shown: 'T', does: 'The schedule', reach: 'page' },
	list: { keys: ['Shift+?'], shown: '?', does: 'This list', reach: 'page' }
} as const satisfies Record<string, Key>;

/** What the mouse does over the model and the map; each has a key or a control beside it. */
export const mouseMoves = [
	['Drag', 'Turn the model about what is under the pointer; pan the map'],
	['Right drag', 'Move the model with the pointer'],
	['Wheel', 'Come nearer to what is under the pointer'],
	['Double click', 'Bring it to the middle'],
	['Shift drag', 'Choose what is in a box; what is all chosen already is let go'],
	['Alt drag', 'Choose within a line; let go with Ctrl to take what is behind too'],
	['Shift click', 'Add one, or take it away']
] as const;

export type KeyName = keyof typeof keyMap;

/** What keys do on the pages that are open now. */
const heard = new Map<KeyName, (which: number) => void>();

/** What can be done by a key at this moment, to be found by its words. */
export function keysHeard(): { readonly does: string; readonly shown: string; readonly act: () => void }[] {
	return [...heard].flatMap(([name, act]) => {
		const { keys, shown, does, each }: Key = keyMap[name];
		if (!each) return keys.length > 1 ? [] : [{ does, shown, act: () => act(0) }];
		return each.map((one, which) => ({
			does: one,
			shown: keys[which]!.replace('$mod', 'Ctrl').replaceAll('+', ' ').toUpperCase(),
			act: () => act(which)
		}));
	});
}

const elsewhere: Record<Key['reach'], string | null> = {
	page: 'input, textarea, [role="listbox"], [role="menu"], [role="dialog"], [aria-haspopup="listbox"][aria-expanded="true"]',
	fields: 'input:not([type=range]), textarea',
	always: null
};

/**
 * Let keys do something for as long as a page is there.
 * @param acts what each does, told which of its keys was pressed
 * @returns how to let go of them
 */
export function listenToKeys(acts: Partial<Record<KeyName, (which: number) => void>>): () => void {
	const listeners: Record<string, (event: KeyboardEvent) => void> = {};
	for (const [name, act] of Object.entries(acts)) {
		heard.set(name as KeyName, act);
		const { keys, reach }: Key = keyMap[name as KeyName];
		const apart = elsewhere[reach];
		for (const [which, key] of keys.entries())
			listeners[key] = (event) => {
				if (apart && (event.target as HTMLElement).closest(apart)) return;
				event.preventDefault();
				act(which);
			};
	}
	const stop = tinykeys(window, listeners);
	return () => {
		stop();
		for (const [name, act] of Object.entries(acts))
			if (heard.get(name as KeyName) === act) heard.delete(name as KeyName);
	};
}
