import { siteSetOf } from '$core/cladding/sites';
import type { Hidden, Look, Section } from '$core/project/view-schema';
import type { Zone } from '$core/project/schema';
import { pointAt } from '$core/geometry/vector';
import type { Handle, Handles, Vector } from '$lib/form/handles';
import type { SurfaceView } from '$lib/state/surface-view';
import type { ModelView } from '$lib/state/model.svelte';
import type { ShapeView } from '$lib/worker/views';
import { shownAlone } from '$lib/state/isolation';
import type { Found } from '$lib/state/selection.svelte';
import * as THREE from 'three';
import { CellLayer } from './cell-layer';
import { Daylight } from './daylight';
import { Eye, type ViewName } from './eye';
import type { Gestures } from './gestures';
import { turned, type Frame, type Pose } from './pose';
import { FormLayer } from './form-layer';
import { HandleLayer, draggedTo } from './handle-layer';
import { cellColours, standingCells, type Paint } from './paint';
import { LayerLines } from './layer-lines';
import { AXES, planeOf, ringOf } from './section';
import { PieceLayer } from './piece-layer';
import { Picker } from './picker';
import { Picture } from './picture';
import { closeRenderer, disposeAll, makeRenderer, type Manner } from './renderer';
import { MM } from './metres';
import { Outlines } from './outlines';

const NONE: ReadonlySet<number> = new Set();
/** How long a clip of a full turn is. */
const TURN_SECONDS = 8;
/** The model drawn in 3D: plain cells, pieces, lines, the selection; drawn only when something changed. */
export class ModelScene {
	readonly canvas = document.createElement('canvas');
	private readonly renderer: THREE.WebGLRenderer;
	private readonly scene = new THREE.Scene();
	private readonly root = new THREE.Group();
	private readonly cells: CellLayer;
	private readonly pieces: PieceLayer;
	private readonly forms: FormLayer;
	private readonly handles: HandleLayer;
	private readonly beside = new LayerLines(this.root);
	private readonly daylight: Daylight;
	private readonly eye: Eye;
	private readonly raycaster = new THREE.Raycaster();
	private bounds = new THREE.Box3();
	/** Whether the model has been brought into view; in part while more of it is to come. */
	private framed: 'no' | 'in part' | 'yes' = 'no';
	private wall: HTMLElement | null = null;
	/** Something has come that could be drawn. */
	private stocked = false;
	private massesSeen = new Set<string>();
	private readonly picture: Picture;
	/** What lies under places of the canvas. */
	readonly picker: Picker;
	/** What is outlined over the model. */
	readonly outlines: Outlines;
	/** Called after a picture has been drawn. */
	onDrawn: (() => void) | null = null;
	/** Called when a resting picture is as fine as it becomes. */
	onFine: (() => void) | null = null;
	/** Called when this machine takes long over pictures. */
	onSlow: (() => void) | null = null;
	onCamera: (() => void) | null = null;
	/** What cards leave of the picture. */
	free: (() => Frame['free']) | undefined;
	/** Told whether pieces that are far are drawn plainly. */
	onSparing: ((is: boolean) => void) | null = null;
	/** Called when a hand turns or moves the model. */
	onHand: (() => void) | null = null;

	/** @throws Error where nothing can be drawn */
	constructor(readonly manner: Manner) {
		const plain = manner === 'plain';
		this.renderer = makeRenderer(this.canvas, false);
		this.cells = new CellLayer(this.root, plain);
		this.pieces = new PieceLayer(this.root, manner);
		this.forms = new FormLayer(this.root, plain);
		this.eye = new Eye(() => {
			this.cells.nodesAt(this.eye.pixel);
			this.spare();
			this.daylight.seenFrom(this.eye.heading(), this.eye.far);
			this.onCamera?.();
			this.request();
		});
		this.picker = new Picker(this.eye, this.cells, this.pieces, this.forms);
		this.eye.onhand = () => this.onHand?.();
		this.eye.under = (x, y) => this.picker.pointAt(x, y);
		this.root.scale.setScalar(MM);
		this.scene.add(this.root);
		this.outlines = new Outlines(this.scene, this.cells, () => this.request());
		this.handles = new HandleLayer(this.root);
		this.daylight = new Daylight(this.scene, this.renderer, manner, true);
		this.picture = new Picture(this.renderer, this.scene, manner, this.eye, this.daylight);
		this.picture.onDrawn = () => this.onDrawn?.();
		this.picture.onFine = () => this.onFine?.();
		this.picture.onSlow = () => this.onSlow?.();
		void this.picture.prepare();
	}

	/**
	 * Hang it on a wall, where hands reach it; it is seen once it appears.
	 * @returns what takes it down for good
	 */
	hang(wall: HTMLElement): () => void {
		this.eye.hear(this.canvas);
		const resize = new ResizeObserver(([entry]) => {
			if (entry) this.resize(entry.contentRect.width, entry.contentRect.height);
		});
		resize.observe(wall);
		this.wall = wall;
		return () => {
			resize.disconnect();
			this.dispose();
			this.canvas.remove();
		};
	}

	/**
	 * Let it be seen. Whatever it was given to draw before, the page then waits for: a first picture of nothing is not
	 * worth that while cells are on their way.
	 */
	appear(): void {
		if (!this.canvas.isConnected) this.wall?.append(this.canvas);
	}

	/** The browser has let go of what it draws with. */
	get isLost(): boolean {
		return this.renderer.getContext().isContextLost();
	}

	/**
	 * Show a model. Only what has a new serial is made again.
	 * @param said the zones of the document @param isolated addresses that are shown alone @param hidden what is left out
	 */
	update(
		view: ModelView,
		said: readonly Zone[],
		paint: Paint,
		isolated: readonly string[] | null,
		hidden: Hidden
	): void {
		this.stocked ||= view.zones.length + view.masses.length + view.guides.length > 0;
		const alone = isolated && shownAlone(view, isolated);
		const { lens } = paint;
		const serials = new Set<number>();
		view.zones.forEach((zone, z) => {
			const isHidden = hidden.zones.includes(zone.id);
			zone.faces.forEach((face, f) => {
				serials.add(face.serial);
				const colours = cellColours(zone, z, f, paint);
				this.cells.show(
					face,
					z,
					f,
					colours,
					lens,
					isHidden ? NONE : alone && alone(z, f).cell,
					standingCells(
						zone,
						f,
						said.find(({ id }) => id === zone.id)
					),
					hidden
				);
			});
			for (const group of zone.groups) {
				const visible =
					(lens === 'clad' || lens === 'issue') && !isHidden && !hidden.kinds.includes(group.role);
				this.pieces.show(group, z, visible, alone && alone(z, group.face)[group.over]);
			}
		});
		this.outlines.flag(view, (lens === 'clad' || lens === 'check') && !isolated, hidden);
		this.beside.showLayers(view, lens === 'set-out' || lens === 'clad', hidden);
		this.beside.showGuides(view, lens === 'form' || lens === 'set-out');
		const before = this.bounds;
		this.bounds = this.boundsOf(view);
		this.cells.keepOnly(serials);
		this.pieces.forgetUnseen();
		this.spare();
		const masses = new Set(view.masses.map(({ id }) => id));
		// A mass that is new may stand outside what was looked at.
		const isNew = this.massesSeen.size > 0 && [...masses].some((id) => !this.massesSeen.has(id));
		if (masses.size) this.massesSeen = masses;
		if (this.framed !== 'yes' && !this.bounds.isEmpty()) {
			// What comes later is brought into view too, unless the person has turned the model meanwhile.
			if (this.framed === 'no' || !this.eye.byHand) this.home();
			this.framed = view.partial ? 'in part' : 'yes';
		} else if (isNew || (this.framed === 'yes' && this.eye.sees(before) && !this.eye.sees(this.bounds)))
			// What has grown out of the picture, or come beside it, is brought into it.
			this.frame([]);
		this.renderer.shadowMap.needsUpdate = true;
		this.request();
	}

	/** Draw plainly what is far, where there is much. */
	private readonly spare = (): void =>
		this.onSparing?.(this.pieces.seenFrom(this.eye.at, this.eye.view, this.eye.pixel, this.cells));

	private boundsOf(view: ModelView): THREE.Box3 {
		const bounds = new THREE.Box3();
		// Cells may stand before it is known what their masses look like.
		const faces = view.masses.length ? [] : view.zones.flatMap((zone) => zone.faces);
		for (const { grid } of faces) bounds.union(new THREE.Box3().setFromArray(grid.positions));
		for (const { origin, positions } of view.masses.flatMap((mass) => mass.faces))
			bounds.union(new THREE.Box3().setFromArray(positions).translate(new THREE.Vector3(...origin)));
		bounds.min.multiplyScalar(MM);
		bounds.max.multiplyScalar(MM);
		if (!bounds.equals(this.bounds) && !bounds.isEmpty()) {
			this.daylight.fit(bounds);
			this.eye.holds(bounds);
		}
		return bounds;
	}

	/** The zone that is worked on, by its place in the view. */
	workOn(zone: number | null): void {
		this.cells.workOn(zone);
		this.request();
	}

	/** Let the sun stand in a direction (x to the east, z up); null where the model shows well. */
	sunFrom(direction: readonly [number, number, number] | null): void {
		this.daylight.from(direction);
		this.renderer.shadowMap.needsUpdate = true;
		this.request();
	}

	/** Show the faces as they are shaped. */
	shape(
		view: ModelView,
		surface: SurfaceView,
		inLens: boolean,
		covered: ReadonlySet<string>,
		chosen: ReadonlySet<string>,
		section: Section | null,
		hidden: Hidden
	): void {
		this.forms.update(view.masses, surface, inLens, covered, chosen, section, hidden.masses);
		this.cut(section);
		this.renderer.shadowMap.needsUpdate = true;
		this.request();
	}

	/** Arrows that show the outside of cells. */
	showArrows(view: ModelView, found: readonly Found[]): void {
		this.beside.showArrows(view, found);
		this.request();
	}

	showHandles(handles: Handles): void {
		this.handles.show(handles);
		this.request();
	}

	/** Take the handle near a point of the canvas; turning rests until it is let go. */
	takeHandle(x: number, y: number): Handle | null {
		const handle = this.handles.at(this.eye, x, y);
		this.eye.resting = handle !== null;
		this.handles.hold(handle?.path ?? null);
		this.request();
		return handle;
	}

	letGo(): void {
		this.eye.resting = false;
		this.handles.hold(null);
		this.request();
	}

	/** Where a handle goes when the pointer is at a point of the canvas. */
	dragHandle(handle: Handle, x: number, y: number, upright: boolean): Vector {
		this.eye.aim(this.raycaster, x, y);
		return draggedTo(handle, this.raycaster.ray, upright);
	}

	/** Where the corners of a site lie on the canvas; null where one is behind the camera. */
	cornersOf(one: Omit<Found, 'address'>): { x: number; y: number }[] | null {
		const view = this.cells.of(one)?.view;
		if (!view) return null;
		const corners = Array.from(siteSetOf(view, one.kind).nodes(one.index), (node) =>
			this.project(pointAt(view.grid.positions, node))
		);
		return corners.every((corner) => corner !== null) ? corners : null;
	}

	/** A double click does not move the eye: it means something else. */
	set still(still: boolean) {
		this.eye.still = still;
	}

	/** Turning and moving rest while something is drawn over the picture. */
	set resting(rest: boolean) {
		this.eye.resting = rest;
	}

	/** The cell in the middle of the picture. */
	inMiddle(): Omit<Found, 'address'> | null {
		const { width, height } = this.eye.size;
		return this.picker.at(width / 2, height / 2);
	}

	/** How the model is drawn; what is flagged is told while it is worked on. */
	show(look: Look): void {
		this.outlines.areFlagsShown = look === 'paper' || look === 'measures';
		this.daylight.show(look);
		this.picture.look = look;
		this.request();
	}

	/** The picture as it stands, larger, as a PNG. @param width pixels */
	pictureOf(width: number): Promise<Blob> {
		return this.pieces.inFull(
			() => this.picture.large(width),
			() => this.spare()
		);
	}

	/**
	 * A full turn about the model, or about what is looked at where not all of it is seen, as a clip that can be shown
	 * again and again.
	 * @param width pixels, an even number @param told what share of it there is @param signal gives it up
	 * @throws Error where this browser cannot write clips
	 */
	async turnClip(width: number, told: (share: number) => void, signal: AbortSignal): Promise<Blob> {
		const from = this.eye.stance;
		const about = this.eye.sees(this.bounds) ? this.bounds.getCenter(new THREE.Vector3()) : from.target;
		const turnTo = (share: number) => {
			this.eye.stand(turned(from, about, [2 * Math.PI * share, 0]));
			told(share);
		};
		this.eye.resting = true;
		try {
			return await this.pieces.inFull(
				() => this.picture.clip(width, TURN_SECONDS, turnTo, signal),
				() => this.spare()
			);
		} finally {
			this.eye.resting = false;
			this.eye.stand(from);
		}
	}

	/** Cut the model open. */
	cut(section: Section | null): void {
		this.picker.cut = section && planeOf(section);
		this.renderer.clippingPlanes = this.picker.cut ? [this.picker.cut] : [];
		this.request();
	}

	/** The corners of a section through the whole model, mm. */
	sectionRing(section: Section): Vector[] {
		return ringOf(section, this.bounds);
	}

	/** The middle of the model along an axis, mm. */
	middle(axis: Section['axis']): number {
		return this.bounds.isEmpty() ? 0 : this.bounds.getCenter(new THREE.Vector3())[axis] / MM;
	}

	/** How far along its axis a section goes when the pointer drags it by a place (mm). */
	slide({ axis }: Section, at: Vector, x: number, y: number): number {
		this.eye.aim(this.raycaster, x, y);
		const way = new THREE.Vector3();
		way[axis] = 1;
		return draggedTo({ at, axes: [way.toArray()] }, this.raycaster.ray, false)[AXES.indexOf(axis)]!;
	}

	/** Turn about what is in the middle of the picture, as a drag by so many pixels does. */
	turn(dx: number, dy: number): void {
		this.inMiddleOf((hand) => hand.turn(dx, dy));
	}

	/** Come nearer to what is in the middle of the picture. @param factor of the distance to it */
	nearer(factor: number): void {
		this.inMiddleOf((hand) => hand.nearer(factor));
	}

	private inMiddleOf(act: (hand: Gestures) => void): void {
		const { width, height } = this.eye.size;
		this.eye.gestures.begin(width / 2, height / 2);
		act(this.eye.gestures);
	}

	home(): void {
		this.look('Around');
	}

	look(name: ViewName): void {
		this.framed = 'yes';
		this.eye.look(name, this.bounds, this.free?.());
		this.request();
	}

	/** Bring the selection, or everything, into view from where the camera stands. */
	frame(found: readonly Found[]): void {
		const box = new THREE.Box3();
		const facing = new THREE.Vector3();
		for (const one of found) {
			const view = this.cells.of(one)?.view;
			if (!view) continue;
			for (const node of Array.from(siteSetOf(view, one.kind).nodes(one.index)))
				box.expandByPoint(new THREE.Vector3().fromArray(view.grid.positions, 3 * node).multiplyScalar(MM));
			if (one.kind === 'cell') facing.add(new THREE.Vector3().fromArray(view.measures.normal, 3 * one.index));
		}
		const normal = facing.length() > 0.2 * found.length ? facing.normalize() : null;
		this.eye.frame(box.isEmpty() ? this.bounds : box.expandByScalar(1), normal, this.free?.());
		this.request();
	}

	/** Where a point of the model (mm) lies on the canvas, or null behind the camera. */
	project(point: readonly [number, number, number]): { x: number; y: number } | null {
		return this.eye.project(new THREE.Vector3(...point).multiplyScalar(MM));
	}

	/** Shapes and pictures that the graphics card holds for it. */
	get held(): { geometries: number; textures: number } {
		const { geometries, textures } = this.renderer.info.memory;
		return { geometries, textures };
	}

	/** Where the middle of a face lies on the canvas. */
	middleOf({ origin, positions }: ShapeView): { x: number; y: number } | null {
		const box = new THREE.Box3().setFromArray(positions);
		const at = box.getCenter(new THREE.Vector3()).add(new THREE.Vector3(...origin));
		return this.project(at.toArray());
	}

	/** How the eye stands, to be kept. */
	get pose(): Pose {
		return this.eye.stance;
	}

	stand(pose: Pose): void {
		this.framed = 'yes';
		this.eye.goTo(pose);
	}

	/** A length of the model by a pixel of the picture (mm), where it is drawn without perspective. */
	scale(): number | null {
		return this.eye.isFlat ? this.eye.pixel / MM : null;
	}

	/** Turn of the camera about the vertical (rad), for the north mark. */
	heading(): number {
		return this.eye.heading();
	}

	private resize(width: number, height: number): void {
		if (!width || !height) return;
		const before = this.eye.size;
		this.picture.resize(width, height);
		this.eye.resize(width, height);
		// A page that is still being put together has no room yet: what was framed in it was framed for none.
		const hadRoom = before.width > width / 2 && before.height > height / 2;
		if (!hadRoom && this.framed !== 'no' && !this.eye.byHand && !this.bounds.isEmpty()) this.home();
		this.outlines.resize(width, height);
		this.request();
	}

	request(): void {
		// The first picture of all takes long, and of nothing there need be none.
		if (!this.stocked) this.onDrawn?.();
		else if (this.eye.hasRoom) this.picture.request();
	}

	/** Let go of all that it holds. */
	dispose(): void {
		this.picture.dispose();
		this.eye.dispose();
		this.outlines.clear();
		this.cells.keepOnly(new Set());
		this.pieces.forgetUnseen();
		this.forms.dispose();
		disposeAll(this.scene);
		// What is still held when nothing is shown any more would be lost for good.
		performance.mark('model left', { detail: this.held });
		closeRenderer(this.renderer);
	}
}
