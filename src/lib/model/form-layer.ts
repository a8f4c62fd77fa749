import type { Section } from '$core/project/view-schema';
import { AXES } from './section';
import { cssOf, isMeasured, reachOf, valuesOf, type SurfaceView } from '$lib/state/surface-view';
import type { MassView } from '$lib/state/model.svelte';
import type { ShapeView } from '$lib/worker/views';
import * as THREE from 'three';
import { BEHIND_LINES, litMaterial, type Lit } from './matter';
import { raycastSorted } from './raycast';
import { cutSegments, shapeGeometry, shapeLines, shapeRims } from './shape-mesh';

const INK = 0x1d2126;
const PATINA = 0x1f7a6b;
const GOLD = 0xd98e1f;
const PAPER = '#EFEBE1';

interface ShapeEntry {
	readonly mass: string;
	readonly shape: ShapeView;
	readonly group: THREE.Group;
	readonly mesh: THREE.Mesh;
	readonly lines: THREE.LineSegments;
	readonly rims: THREE.LineSegments;
	readonly arrow: THREE.ArrowHelper;
	cut: THREE.LineSegments | null;
}

/** Stripes of light as a long room of lamps would throw them: they kink where the surface does. */
const stripes = () =>
	new THREE.ShaderMaterial({
		side: THREE.DoubleSide,
		clipping: true,
		vertexShader: `
			#include <clipping_planes_pars_vertex>
			varying vec3 vNormal; varying vec3 vView;
			void main() {
				vec4 mvPosition = modelViewMatrix * vec4(position, 1.0);
				vNormal = normalMatrix * normal;
				vView = -mvPosition.xyz;
				gl_Position = projectionMatrix * mvPosition;
				#include <clipping_planes_vertex>
			}`,
		fragmentShader: `
			#include <clipping_planes_pars_fragment>
			varying vec3 vNormal; varying vec3 vView;
			void main() {
				#include <clipping_planes_fragment>
				vec3 n = normalize(vNormal);
				vec3 v = normalize(vView);
				if (dot(n, v) < 0.0) n = -n;
				vec3 r = reflect(-v, n);
				float s = sin(30.0 * asin(clamp(r.y, -1.0, 1.0)));
				float edge = fwidth(s);
				float stripe = smoothstep(-edge, edge, s);
				gl_FragColor = vec4(mix(vec3(0.12, 0.13, 0.15), vec3(0.97, 0.96, 0.92), stripe), 1.0);
			}`
	});

/** The faces of all masses as they are shaped, for the Form lens; elsewhere only those that no zone covers. */
export class FormLayer {
	private readonly entries = new Map<string, ShapeEntry>();
	private readonly matter: Lit;
	/** Curvature is read off a legend, so no light falls on it. */
	private readonly plain = new THREE.MeshBasicMaterial({
		vertexColors: true,
		side: THREE.DoubleSide,
		...BEHIND_LINES
	});
	private readonly stripes = stripes();
	private readonly thin = new THREE.LineBasicMaterial({ color: INK, transparent: true, opacity: 0.2 });
	private readonly rim = new THREE.LineBasicMaterial({ color: INK, transparent: true, opacity: 0.75 });
	private readonly chosen = new THREE.LineBasicMaterial({ color: GOLD, depthTest: false });
	private readonly section = new THREE.LineBasicMaterial({ color: PATINA, depthTest: false });

	constructor(
		private readonly root: THREE.Group,
		plain: boolean
	) {
		this.matter = litMaterial(plain, {
			vertexColors: true,
			roughness: 0.85,
			side: THREE.DoubleSide,
			...BEHIND_LINES
		});
	}

	all(): IterableIterator<ShapeEntry> {
		return this.entries.values();
	}

	/**
	 * @param inLens whether the Form lens is on
	 * @param covered mass/face of the faces that zones draw
	 * @param chosen mass/face of the faces that are selected
	 * @param hidden masses that are left out
	 */
	update(
		masses: readonly MassView[],
		view: SurfaceView,
		inLens: boolean,
		covered: ReadonlySet<string>,
		chosen: ReadonlySet<string>,
		section: Section | null,
		hidden: readonly string[]
	): void {
		const seen = new Set<string>();
		const reach = isMeasured(view.colour) ? reachOf(masses, view.colour, [...chosen]) : 1;
		for (const mass of masses)
			for (const shape of mass.faces) {
				const key = `${mass.serial} ${shape.name}`;
				seen.add(key);
				const entry = this.entries.get(key) ?? this.add(key, mass.id, shape);
				const name = `${mass.id}/${shape.name}`;
				entry.group.visible = (inLens || !covered.has(name)) && !hidden.includes(mass.id);
				entry.mesh.material = inLens ? this.materialFor(view) : this.matter;
				colour(entry, inLens ? view : null, reach);
				entry.lines.visible = inLens && view.isolines;
				const isChosen = inLens && chosen.has(name);
				entry.rims.material = isChosen ? this.chosen : this.rim;
				entry.rims.renderOrder = isChosen ? 8 : 0;
				entry.arrow.visible = inLens;
				this.showCut(entry, hidden.includes(mass.id) ? null : section);
			}
		for (const [key, entry] of this.entries) if (!seen.has(key)) this.drop(key, entry);
	}

	private materialFor({ colour: wanted }: SurfaceView): THREE.Material {
		if (wanted === 'stripes') return this.stripes;
		return isMeasured(wanted) ? this.plain : this.matter;
	}

	/** The line along which a face is cut, whether or not the face itself is drawn. */
	private showCut(entry: ShapeEntry, section: Section | null): void {
		if (entry.cut) {
			this.root.remove(entry.cut);
			entry.cut.geometry.dispose();
			entry.cut = null;
		}
		if (!section) return;
		const segments = cutSegments(entry.shape, AXES.indexOf(section.axis) as 0 | 1 | 2, section.at);
		if (!segments.length) return;
		entry.cut = new THREE.LineSegments(lineGeometry(segments), this.section);
		entry.cut.position.copy(entry.group.position);
		entry.cut.renderOrder = 7;
		this.root.add(entry.cut);
	}

	private add(key: string, mass: string, shape: ShapeView): ShapeEntry {
		const group = new THREE.Group();
		group.position.set(...shape.origin);
		const mesh = new THREE.Mesh(shapeGeometry(shape), this.matter);
		mesh.raycast = raycastSorted;
		mesh.castShadow = mesh.receiveShadow = true;
		const lines = new THREE.LineSegments(lineGeometry(shapeLines(shape)), this.thin);
		const rims = new THREE.LineSegments(lineGeometry(shapeRims(shape)), this.rim);
		const arrow = outsideArrow(shape);
		group.add(mesh, lines, rims, arrow);
		this.root.add(group);
		const entry: ShapeEntry = { mass, shape, group, mesh, lines, rims, arrow, cut: null };
		this.entries.set(key, entry);
		return entry;
	}

	private drop(key: string, { group, mesh, lines, rims, arrow, cut }: ShapeEntry): void {
		this.root.remove(group);
		if (cut) this.root.remove(cut);
		for (const one of [mesh, lines, rims, cut]) one?.geometry.dispose();
		arrow.dispose();
		this.entries.delete(key);
	}

	dispose(): void {
		for (const [key, entry] of this.entries) this.drop(key, entry);
	}
}

function lineGeometry(segments: Float32Array): THREE.BufferGeometry {
	return new THREE.BufferGeometry().setAttribute('position', new THREE.BufferAttribute(segments, 3));
}

function colour({ mesh, shape }: ShapeEntry, view: SurfaceView | null, reach: number): void {
	const attribute = mesh.geometry.getAttribute('color') as THREE.BufferAttribute;
	const colours = attribute.array as Float32Array;
	const plain = new THREE.Color(PAPER);
	const measured = view && isMeasured(view.colour) ? view.colour : null;
	const wanted = measured && valuesOf(shape, measured);
	const one = new THREE.Color();
	for (let k = 0; k < colours.length / 3; k++)
		(wanted ? one.set(cssOf(wanted[k]!, measured!, reach)) : plain).toArray(colours, 3 * k);
	attribute.needsUpdate = true;
}

/** An arrow out of the middle of a face. */
function outsideArrow({ columns, rows, positions, normals, across, up }: ShapeView): THREE.ArrowHelper {
	const node = Math.floor(rows / 2) * columns + Math.floor(columns / 2);
	const size = Math.max(300, 0.12 * Math.min(across, up, 20000));
	return new THREE.ArrowHelper(
		new THREE.Vector3().fromArray(normals, 3 * node),
		new THREE.Vector3().fromArray(positions, 3 * node),
		size,
		PATINA,
		size * 0.35,
		size * 0.2
	);
}
