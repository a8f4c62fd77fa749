import type { Hidden } from '$core/project/view-schema';
import type { ModelView } from '$lib/state/model.svelte';
import type { Found } from '$lib/state/selection.svelte';
import * as THREE from 'three';

const PATINA = 0x1f7a6b;
const OXIDE = 0xb23b2a;
const GOLD = 0xb9741a;

/** Lines beside the cells: second grids at their depth, and arrows that show outside. */
export class LayerLines {
	private readonly layers = new THREE.Group();
	private readonly arrows = new THREE.Group();
	private readonly guides = new THREE.Group();
	private readonly calm = new THREE.LineBasicMaterial({ color: PATINA, transparent: true, opacity: 0.7 });
	private readonly crossed = new THREE.LineBasicMaterial({ color: OXIDE });
	private readonly over = new THREE.LineBasicMaterial({ color: PATINA, depthTest: false });
	private readonly pointer = new THREE.LineBasicMaterial({ color: GOLD, depthTest: false });
	private shown = '';

	constructor(root: THREE.Group) {
		root.add(this.layers, this.arrows, this.guides);
	}

	/** The layers of all faces, where they are looked at. */
	showLayers(view: ModelView, visible: boolean, hidden: Hidden): void {
		this.layers.visible = visible;
		const faces = view.zones
			.filter(({ id }) => !hidden.layers.includes(id) && !hidden.zones.includes(id))
			.flatMap((zone) => zone.faces.filter(({ layer }) => layer));
		const serials = faces.map(({ serial }) => serial).join(' ');
		if (serials === this.shown) return;
		this.shown = serials;
		empty(this.layers);
		for (const { layer, grid } of faces) {
			const { positions } = grid;
			const origin = [0, 1, 2].map((k) => Math.round(positions[k] ?? 0));
			const points = new Float32Array(3 * layer!.lines.length);
			layer!.lines.forEach((node, k) => {
				for (let a = 0; a < 3; a++) points[3 * k + a] = layer!.positions[3 * node + a]! - origin[a]!;
			});
			this.add(this.layers, points, origin, layer!.crossed.length ? this.crossed : this.calm);
		}
	}

	/** Guides, where things are set out by them. */
	showGuides({ guides }: ModelView, visible: boolean): void {
		this.guides.visible = visible;
		empty(this.guides);
		for (const points of guides) {
			const origin = [points[0]!, points[1]!, points[2]!];
			const count = points.length / 3;
			const segments: number[] = [];
			for (let k = 1; k < count; k++)
				for (const node of [k - 1, k])
					for (let a = 0; a < 3; a++) segments.push(points[3 * node + a]! - origin[a]!);
			// A single point is a small cross.
			if (count === 1)
				for (let a = 0; a < 3; a++)
					for (const side of [-200, 200]) segments.push(...[0, 1, 2].map((n) => (n === a ? side : 0)));
			this.add(this.guides, Float32Array.from(segments), origin, this.over);
		}
	}

	/** An arrow from the middle of each selected cell to its outside. */
	showArrows(view: ModelView, selected: readonly Found[]): void {
		empty(this.arrows);
		for (const one of selected.slice(-40)) {
			const face = view.zones[one.zone]?.faces[one.face];
			if (!face || one.kind !== 'cell') continue;
			const { centre, normal, shortestEdge } = face.measures;
			const c = 3 * one.index;
			const size = 0.6 * Math.max(200, shortestEdge[one.index]!);
			const at = (t: number, side = 0) => {
				const n = [normal[c]!, normal[c + 1]!, normal[c + 2]!];
				// Any direction square to the normal will do for the barbs.
				const level = Math.abs(n[2]!) > 0.9 ? [1, 0, 0] : [-n[1]!, n[0]!, 0];
				return n.map((value, a) => value * t * size + side * size * level[a]!);
			};
			const points = Float32Array.from([
				...at(0),
				...at(1),
				...at(1),
				...at(0.75, 0.12),
				...at(1),
				...at(0.75, -0.12)
			]);
			this.add(this.arrows, points, [centre[c]!, centre[c + 1]!, centre[c + 2]!], this.pointer);
		}
	}

	private add(
		group: THREE.Group,
		points: Float32Array,
		[x, y, z]: readonly number[],
		material: THREE.LineBasicMaterial
	): void {
		const geometry = new THREE.BufferGeometry();
		geometry.setAttribute('position', new THREE.BufferAttribute(points, 3));
		const lines = new THREE.LineSegments(geometry, material);
		lines.position.set(x!, y!, z!);
		lines.frustumCulled = false;
		lines.renderOrder = 11;
		group.add(lines);
	}
}

function empty(group: THREE.Group): void {
	for (const child of [...group.children]) {
		group.remove(child);
		(child as THREE.LineSegments).geometry.dispose();
	}
}
