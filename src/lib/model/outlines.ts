import { worstFlags } from '$core/cladding/flag-table';
import type { Hidden } from '$core/project/view-schema';
import type { ModelView } from '$lib/state/model.svelte';
import type { Found } from '$lib/state/selection.svelte';
import * as THREE from 'three';
import type { CellEntry, CellLayer } from './cell-layer';
import { MM } from './metres';
import {
	CLASHING,
	FLAGGED,
	nothingChosen,
	POINTED_AT,
	SELECTED,
	SelectionOverlay,
	type Chosen
} from './selection-overlay';

type Site = Omit<Found, 'address'>;

/** What is outlined and tinted over the model: what is selected, pointed at, flagged, in each other's way. */
export class Outlines {
	private readonly flagged = new SelectionOverlay(FLAGGED);
	private readonly clashing = new SelectionOverlay(CLASHING);
	private readonly pointed = new SelectionOverlay(POINTED_AT);
	private readonly selected = new SelectionOverlay(SELECTED);

	/** @param onChange called when there is something to draw */
	constructor(
		scene: THREE.Scene,
		private readonly cells: CellLayer,
		private readonly onChange: () => void
	) {
		for (const { group } of this.all) {
			group.scale.setScalar(MM);
			scene.add(group);
		}
	}

	private get all(): readonly SelectionOverlay[] {
		return [this.flagged, this.clashing, this.pointed, this.selected];
	}

	select(found: readonly Site[]): void {
		this.outline(this.selected, found);
	}

	/** Pieces that reach into each other. */
	clash(found: readonly Site[]): void {
		this.outline(this.clashing, found);
	}

	/** What something is to be said of, where pieces are looked at. */
	flag(view: ModelView, visible: boolean, hidden: Hidden): void {
		const found = !visible
			? []
			: view.zones.flatMap(({ id, groups }, zone) =>
					hidden.zones.includes(id)
						? []
						: groups
								.filter(({ role }) => !hidden.kinds.includes(role))
								.flatMap(({ face, over, flags, sites }) =>
									worstFlags(flags).rows.map((row) => ({ zone, face, kind: over, index: sites[row]! }))
								)
				);
		this.outline(this.flagged, found);
	}

	/** Flags are told while the model is worked on. */
	set areFlagsShown(are: boolean) {
		this.flagged.group.visible = are;
	}

	/** Light what a clause is about. @param cells of each face of a zone, by their numbers */
	light(zone: number, cells: readonly (readonly number[])[]): void {
		this.pointed.clear();
		cells.forEach((list, face) => {
			const entry = list.length ? this.cells.of({ zone, face }) : undefined;
			if (entry) this.pointed.add(entry, { ...nothingChosen(), cell: new Set(list) });
		});
		this.onChange();
	}

	private outline(overlay: SelectionOverlay, found: readonly Site[]): void {
		overlay.clear();
		const byFace = new Map<CellEntry, Chosen>();
		for (const one of found) {
			const entry = this.cells.of(one);
			if (!entry) continue;
			const chosen = byFace.get(entry) ?? nothingChosen();
			byFace.set(entry, chosen);
			chosen[one.kind].add(one.index);
		}
		for (const [entry, chosen] of byFace) overlay.add(entry, chosen);
		this.onChange();
	}

	resize(width: number, height: number): void {
		for (const overlay of this.all) overlay.resize(width, height);
	}

	clear(): void {
		for (const overlay of this.all) overlay.clear();
	}
}
