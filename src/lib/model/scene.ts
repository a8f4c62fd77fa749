import { materials as kitMaterials } from '$core/part/materials';
import type { ModelView } from '$lib/state/model.svelte';
import type { Found } from '$lib/state/selection.svelte';
import type { ElementView, FaceView, GroupView } from '$lib/worker/views';
import * as THREE from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js';
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js';
import { LineSegmentsGeometry } from 'three/examples/jsm/lines/LineSegmentsGeometry.js';
import { MeshBVH, acceleratedRaycast } from 'three-mesh-bvh';
import { cellTriangles, colourCells, lineSegments, type CellTriangles } from './cell-mesh';
import { cellColours, type Paint } from './paint';

export const viewNames = ['Around', 'North', 'East', 'South', 'West', 'Above'] as const;
export type ViewName = (typeof viewNames)[number];

/** Where each view looks from, before distance. North is +y. */
const directions: Record<ViewName, THREE.Vector3Tuple> = {
	Around: [0.36, -0.86, 0.36],
	North: [0, 1, 0.02],
	East: [1, 0, 0.02],
	South: [0, -1, 0.02],
	West: [-1, 0, 0.02],
	Above: [0, -0.001, 1]
};

const GOLD = 0xd98e1f;
const INK = 0x1d2126;
const MM = 0.001;

interface CellEntry {
	readonly zone: number;
	readonly face: number;
	readonly view: FaceView;
	readonly triangles: CellTriangles;
	readonly mesh: THREE.Mesh<THREE.BufferGeometry, THREE.MeshStandardMaterial>;
	readonly lines: THREE.LineSegments;
	readonly nodes: THREE.Points;
	readonly arrow: THREE.ArrowHelper;
}
interface PieceEntry {
	readonly zone: number;
	readonly group: GroupView;
	readonly element: ElementView;
	readonly mesh: THREE.Mesh;
}

function boundsTree(geometry: THREE.BufferGeometry): void {
	geometry.boundsTree ??= new MeshBVH(geometry, { indirect: true });
}

/** The model drawn in 3D: plain cells, pieces, lines, the selection; drawn only when something changed. */
export class ModelScene {
	private readonly renderer: THREE.WebGLRenderer;
	private readonly scene = new THREE.Scene();
	private readonly root = new THREE.Group();
	private readonly camera = new THREE.PerspectiveCamera(32, 1, 0.1, 2000);
	private readonly controls: OrbitControls;
	private readonly sun = new THREE.DirectionalLight(0xfff4df, 2.6);
	private readonly overlay = new THREE.Group();
	private readonly lineMaterial = new LineMaterial({
		color: GOLD,
		linewidth: 3,
		depthTest: false,
		transparent: true
	});
	private readonly fill = new THREE.MeshBasicMaterial({
		color: GOLD,
		transparent: true,
		opacity: 0.5,
		side: THREE.DoubleSide,
		polygonOffset: true,
		polygonOffsetFactor: -4,
		polygonOffsetUnits: -4,
		depthWrite: false
	});
	private readonly cells = new Map<number, CellEntry>();
	private readonly pieces = new Map<string, PieceEntry>();
	private readonly materials = new Map<string, THREE.MeshStandardMaterial>();
	private readonly raycaster = new THREE.Raycaster();
	private paintedBounds = new THREE.Box3();
	private frameRequested = 0;
	private framed = false;
	/** Called after a picture has been drawn. */
	onDrawn: (() => void) | null = null;
	onCamera: (() => void) | null = null;

	constructor(
		private readonly canvas: HTMLCanvasElement,
		private readonly plain: boolean
	) {
		this.renderer = new THREE.WebGLRenderer({
			canvas,
			antialias: !plain,
			alpha: true,
			preserveDrawingBuffer: false
		});
		this.renderer.toneMapping = THREE.NoToneMapping;
		this.renderer.setPixelRatio(plain ? 1 : Math.min(2, devicePixelRatio));
		this.camera.up.set(0, 0, 1);
		this.root.scale.setScalar(MM);
		this.scene.add(this.root, this.overlay);
		this.overlay.scale.setScalar(MM);
		this.controls = new OrbitControls(this.camera, canvas);
		this.controls.enableDamping = false;
		this.controls.maxPolarAngle = Math.PI * 0.52;
		this.controls.addEventListener('change', () => {
			this.onCamera?.();
			this.request();
		});
		this.light();
	}

	private light(): void {
		this.scene.add(new THREE.HemisphereLight(0xf4f7fa, 0xcdbf9f, 1.55));
		this.sun.position.set(-22, -34, 48);
		this.scene.add(this.sun, this.sun.target);
		if (this.plain) return;
		this.renderer.shadowMap.enabled = true;
		this.renderer.shadowMap.type = THREE.PCFShadowMap;
		this.renderer.shadowMap.autoUpdate = false;
		this.sun.castShadow = true;
		this.sun.shadow.mapSize.set(2048, 2048);
		this.sun.shadow.bias = -0.0006;
		this.sun.shadow.normalBias = 0.03;
		this.scene.environment = this.sky();
		this.scene.environmentIntensity = 0.55;
		const ground = new THREE.Mesh(
			new THREE.CircleGeometry(400, 48),
			new THREE.ShadowMaterial({ opacity: 0.16 })
		);
		ground.receiveShadow = true;
		this.scene.add(ground);
	}

	/** What glass and metal mirror: a bright sky over warm ground. */
	private sky(): THREE.Texture {
		const scene = new THREE.Scene();
		const geometry = new THREE.SphereGeometry(10, 24, 12);
		const colours = new Float32Array(geometry.getAttribute('position').count * 3);
		const [zenith, horizon, ground] = ['#8FB3CC', '#FBF6E9', '#B8AC90'].map((css) => new THREE.Color(css));
		for (let k = 0; k < colours.length / 3; k++) {
			const y = geometry.getAttribute('position').getY(k) / 10;
			const colour =
				y >= 0
					? horizon!.clone().lerp(zenith!, Math.sqrt(y))
					: horizon!.clone().lerp(ground!, Math.min(1, -4 * y));
			colours.set(colour.toArray(), 3 * k);
		}
		geometry.setAttribute('color', new THREE.BufferAttribute(colours, 3));
		scene.add(
			new THREE.Mesh(geometry, new THREE.MeshBasicMaterial({ vertexColors: true, side: THREE.BackSide }))
		);
		const generator = new THREE.PMREMGenerator(this.renderer);
		const { texture } = generator.fromScene(scene);
		generator.dispose();
		return texture;
	}

	private material(id: string): THREE.MeshStandardMaterial {
		let made = this.materials.get(id);
		if (!made) {
			const of = kitMaterials.find((one) => one.id === id);
			made = new THREE.MeshStandardMaterial({
				color: of?.colour ?? '#999',
				metalness: of?.metalness ?? 0,
				roughness: of?.roughness ?? 0.8,
				transparent: (of?.opacity ?? 1) < 1,
				opacity: of?.opacity ?? 1,
				side: THREE.DoubleSide,
				flatShading: true
			});
			this.materials.set(id, made);
		}
		return made;
	}

	/** Show a model. Only what has a new serial is made again. */
	update(view: ModelView, paint: Paint): void {
		const withPieces = paint.lens === 'clad' || paint.lens === 'issue';
		const seenCells = new Set<number>();
		const seenPieces = new Set<string>();
		view.zones.forEach((zone, z) => {
			zone.faces.forEach((face, f) => {
				seenCells.add(face.serial);
				const entry = this.cellEntry(face, z, f);
				const { palette, of } = cellColours(zone, f, paint);
				colourCells(entry.triangles, palette, of);
				entry.mesh.visible = !withPieces;
				(entry.lines.material as THREE.LineBasicMaterial).opacity = withPieces
					? 0.22
					: paint.lens === 'form'
						? 0.14
						: 0.5;
				entry.nodes.visible = paint.lens === 'set-out';
				entry.arrow.visible = paint.lens === 'form';
			});
			for (const group of zone.groups)
				group.elements.forEach((element, k) => {
					const key = `${group.serial} ${k}`;
					seenPieces.add(key);
					this.pieceEntry(key, group, element, z).mesh.visible = withPieces;
				});
		});
		for (const [serial, entry] of this.cells) if (!seenCells.has(serial)) this.dropCells(serial, entry);
		for (const [key, entry] of this.pieces) if (!seenPieces.has(key)) this.dropPiece(key, entry);
		const bounds = new THREE.Box3();
		for (const entry of this.cells.values()) bounds.expandByObject(entry.mesh);
		if (!bounds.equals(this.paintedBounds)) this.fitSun(bounds);
		this.paintedBounds = bounds;
		if (!this.framed && this.cells.size) this.home();
		this.renderer.shadowMap.needsUpdate = true;
		this.request();
	}

	private cellEntry(face: FaceView, zone: number, f: number): CellEntry {
		const known = this.cells.get(face.serial);
		if (known && known.zone === zone && known.face === f) return known;
		if (known) this.dropCells(face.serial, known);
		const triangles = cellTriangles(face);
		const mesh = new THREE.Mesh(
			triangles.geometry,
			new THREE.MeshStandardMaterial({
				vertexColors: true,
				roughness: 0.9,
				side: THREE.DoubleSide,
				flatShading: true,
				polygonOffset: true,
				polygonOffsetFactor: 1,
				polygonOffsetUnits: 1
			})
		);
		mesh.raycast = acceleratedRaycast;
		mesh.castShadow = mesh.receiveShadow = true;
		mesh.position.set(...triangles.origin);
		const lineGeometry = new THREE.BufferGeometry();
		lineGeometry.setAttribute('position', new THREE.BufferAttribute(lineSegments(face, triangles.origin), 3));
		const lines = new THREE.LineSegments(
			lineGeometry,
			new THREE.LineBasicMaterial({ color: INK, transparent: true })
		);
		lines.position.copy(mesh.position);
		const nodes = new THREE.Points(
			lineGeometry,
			new THREE.PointsMaterial({ color: 0x1f7a6b, size: 5, sizeAttenuation: false })
		);
		nodes.position.copy(mesh.position);
		const arrow = this.outsideArrow(face);
		this.root.add(mesh, lines, nodes, arrow);
		const entry = { zone, face: f, view: face, triangles, mesh, lines, nodes, arrow };
		this.cells.set(face.serial, entry);
		return entry;
	}

	/** An arrow out of the middle cell of a face. */
	private outsideArrow({ cells, measures, edges, positions }: FaceView): THREE.ArrowHelper {
		const c = Math.floor(cells.count / 2);
		const at = new THREE.Vector3().fromArray(measures.centre, 3 * c);
		const out = new THREE.Vector3().fromArray(measures.normal, 3 * c);
		const size = edges.count ? Math.max(800, 1.2 * (measures.longestEdge[c] ?? 0)) : 1000;
		const arrow = new THREE.ArrowHelper(
			out,
			at,
			positions.length ? size : 1,
			0x1f7a6b,
			size * 0.35,
			size * 0.2
		);
		return arrow;
	}

	private pieceEntry(key: string, group: GroupView, element: ElementView, zone: number): PieceEntry {
		const known = this.pieces.get(key);
		if (known) return known;
		const geometry = new THREE.BufferGeometry();
		geometry.setAttribute('position', new THREE.BufferAttribute(element.positions, 3));
		geometry.setIndex(new THREE.BufferAttribute(element.index, 1));
		const mesh = new THREE.Mesh(geometry, this.material(element.material));
		mesh.raycast = acceleratedRaycast;
		mesh.position.set(...group.origin);
		mesh.castShadow = true;
		mesh.receiveShadow = element.material !== 'glass';
		this.root.add(mesh);
		const entry = { zone, group, element, mesh };
		this.pieces.set(key, entry);
		return entry;
	}

	private dropCells(serial: number, entry: CellEntry): void {
		this.root.remove(entry.mesh, entry.lines, entry.nodes, entry.arrow);
		entry.mesh.geometry.dispose();
		entry.mesh.material.dispose();
		entry.lines.geometry.dispose();
		(entry.lines.material as THREE.Material).dispose();
		(entry.nodes.material as THREE.Material).dispose();
		entry.arrow.dispose();
		this.cells.delete(serial);
	}

	private dropPiece(key: string, entry: PieceEntry): void {
		this.root.remove(entry.mesh);
		entry.mesh.geometry.dispose();
		this.pieces.delete(key);
	}

	/** Outline and tint what is selected. */
	select(found: readonly Found[]): void {
		for (const child of [...this.overlay.children]) {
			this.overlay.remove(child);
			(child as THREE.Mesh).geometry.dispose();
		}
		const byFace = new Map<CellEntry, { cells: Set<number>; edges: number[] }>();
		for (const one of found) {
			const entry = [...this.cells.values()].find((cell) => cell.zone === one.zone && cell.face === one.face);
			if (!entry) continue;
			const lists = byFace.get(entry) ?? { cells: new Set<number>(), edges: [] };
			byFace.set(entry, lists);
			if (one.kind === 'cell') lists.cells.add(one.index);
			else lists.edges.push(one.index);
		}
		for (const [entry, { cells, edges }] of byFace) this.addOverlay(entry, cells, edges);
		this.request();
	}

	private addOverlay(entry: CellEntry, cells: ReadonlySet<number>, edges: number[]): void {
		const { view, triangles } = entry;
		const outline = new Set(edges);
		for (let e = 0; e < view.edges.count; e++)
			if (cells.has(view.edges.left[e]!) !== cells.has(view.edges.right[e]!)) outline.add(e);
		const segments = lineSegments(view, triangles.origin, [...outline]);
		if (segments.length) {
			const lines = new LineSegments2(new LineSegmentsGeometry().setPositions(segments), this.lineMaterial);
			lines.position.set(...triangles.origin);
			lines.renderOrder = 10;
			this.overlay.add(lines);
		}
		if (!cells.size) return;
		const source = triangles.geometry.getAttribute('position').array as Float32Array;
		const picked: number[] = [];
		for (let t = 0; t < triangles.cell.length; t++)
			if (cells.has(triangles.cell[t]!)) picked.push(...source.subarray(9 * t, 9 * t + 9));
		const geometry = new THREE.BufferGeometry();
		geometry.setAttribute('position', new THREE.BufferAttribute(Float32Array.from(picked), 3));
		const mesh = new THREE.Mesh(geometry, this.fill);
		// After the glass, which would otherwise be drawn over it.
		mesh.renderOrder = 9;
		mesh.position.set(...triangles.origin);
		this.overlay.add(mesh);
	}

	/** What lies under a point of the canvas (CSS pixels). */
	pick(x: number, y: number): Omit<Found, 'address'> | null {
		const { clientWidth, clientHeight } = this.canvas;
		const at = new THREE.Vector2((x / clientWidth) * 2 - 1, 1 - (y / clientHeight) * 2);
		this.raycaster.setFromCamera(at, this.camera);
		const hits: { distance: number; found: Omit<Found, 'address'> }[] = [];
		for (const { zone, face, mesh, triangles } of this.cells.values()) {
			boundsTree(triangles.geometry);
			// Hidden cells are picked too: a piece belongs to the cell it hangs on.
			const hit = this.first(mesh);
			if (hit)
				hits.push({
					distance: hit.distance,
					found: { zone, face, kind: 'cell', index: triangles.cell[hit.faceIndex!]! }
				});
		}
		for (const { zone, group, element, mesh } of this.pieces.values()) {
			if (!mesh.visible) continue;
			boundsTree(mesh.geometry);
			const hit = this.first(mesh);
			if (!hit) continue;
			const row = element.row[Math.floor(hit.faceIndex! / element.trianglesEach)]!;
			const kind = group.clause.kind === 'run' ? 'edge' : 'cell';
			hits.push({
				distance: hit.distance - 1e-4,
				found: { zone, face: group.face, kind, index: group.anchors[row]! }
			});
		}
		hits.sort((a, b) => a.distance - b.distance);
		return hits[0]?.found ?? null;
	}

	private first(mesh: THREE.Mesh): THREE.Intersection | undefined {
		return this.raycaster.intersectObject(mesh, false)[0];
	}

	private fitSun(bounds: THREE.Box3): void {
		if (bounds.isEmpty()) return;
		const sphere = bounds.getBoundingSphere(new THREE.Sphere());
		this.sun.target.position.copy(sphere.center);
		this.sun.position
			.copy(sphere.center)
			.add(new THREE.Vector3(-0.42, -0.58, 0.78).multiplyScalar(sphere.radius * 2.4));
		const { camera } = this.sun.shadow;
		camera.left = camera.bottom = -sphere.radius * 1.05;
		camera.right = camera.top = sphere.radius * 1.05;
		camera.near = sphere.radius * 0.2;
		camera.far = sphere.radius * 5;
		camera.updateProjectionMatrix();
	}

	home(): void {
		this.look('Around');
	}

	look(name: ViewName): void {
		this.framed = true;
		this.frameBox(this.paintedBounds, new THREE.Vector3(...directions[name]).normalize());
	}

	/** Bring the selection, or everything, into view from where the camera stands. */
	frame(found: readonly Found[]): void {
		const box = new THREE.Box3();
		for (const one of found) {
			const entry = [...this.cells.values()].find((cell) => cell.zone === one.zone && cell.face === one.face);
			if (!entry) continue;
			const { view } = entry;
			const nodes =
				one.kind === 'cell'
					? view.cells.corners.subarray(view.cells.start[one.index]!, view.cells.start[one.index + 1]!)
					: [view.edges.from[one.index]!, view.edges.to[one.index]!];
			for (const node of nodes)
				box.expandByPoint(new THREE.Vector3().fromArray(view.positions, 3 * node).multiplyScalar(MM));
		}
		const direction = this.camera.position.clone().sub(this.controls.target).normalize();
		this.frameBox(box.isEmpty() ? this.paintedBounds : box.expandByScalar(1.5), direction);
	}

	private frameBox(box: THREE.Box3, direction: THREE.Vector3): void {
		if (box.isEmpty()) return;
		const centre = box.getCenter(new THREE.Vector3());
		// The least distance from which all eight corners are inside the view.
		const view = new THREE.Matrix4().lookAt(direction, new THREE.Vector3(), this.camera.up);
		const [right, up] = [
			new THREE.Vector3().setFromMatrixColumn(view, 0),
			new THREE.Vector3().setFromMatrixColumn(view, 1)
		];
		const tangent = Math.tan((this.camera.fov * Math.PI) / 360);
		let distance = 1;
		for (let k = 0; k < 8; k++) {
			const corner = new THREE.Vector3(
				k & 1 ? box.max.x : box.min.x,
				k & 2 ? box.max.y : box.min.y,
				k & 4 ? box.max.z : box.min.z
			).sub(centre);
			const needed =
				Math.max(Math.abs(corner.dot(right)) / this.camera.aspect, Math.abs(corner.dot(up))) / tangent;
			distance = Math.max(distance, needed + corner.dot(direction));
		}
		this.controls.target.copy(centre);
		this.camera.position.copy(centre).addScaledVector(direction, distance * 1.06);
		this.camera.near = distance / 100;
		this.camera.far = distance * 20;
		this.camera.updateProjectionMatrix();
		this.controls.update();
		this.request();
	}

	/** Where a point of the model (mm) lies on the canvas, or null behind the camera. */
	project(point: readonly [number, number, number]): { x: number; y: number } | null {
		const at = new THREE.Vector3(...point).multiplyScalar(MM).project(this.camera);
		if (at.z > 1) return null;
		return { x: ((at.x + 1) / 2) * this.canvas.clientWidth, y: ((1 - at.y) / 2) * this.canvas.clientHeight };
	}

	/** Turn of the camera about the vertical (rad), for the north mark. */
	heading(): number {
		return this.controls.getAzimuthalAngle();
	}

	resize(width: number, height: number): void {
		if (!width || !height) return;
		this.renderer.setSize(width, height, false);
		this.camera.aspect = width / height;
		this.camera.updateProjectionMatrix();
		this.lineMaterial.resolution.set(width, height);
		this.request();
	}

	request(): void {
		if (this.frameRequested) return;
		this.frameRequested = requestAnimationFrame(() => {
			this.frameRequested = 0;
			this.renderer.render(this.scene, this.camera);
			this.onDrawn?.();
		});
	}

	dispose(): void {
		cancelAnimationFrame(this.frameRequested);
		this.controls.dispose();
		for (const [serial, entry] of this.cells) this.dropCells(serial, entry);
		for (const [key, entry] of this.pieces) this.dropPiece(key, entry);
		this.renderer.dispose();
	}
}
