import type { Look } from '$core/project/view-schema';
import * as THREE from 'three';
import { GTAOPass } from 'three/examples/jsm/postprocessing/GTAOPass.js';
import { FullScreenQuad } from 'three/examples/jsm/postprocessing/Pass.js';
import type { Daylight } from './daylight';
import type { Eye } from './eye';
import { adder, shower } from './picture-shaders';
import { drawn, pixelRatio, type Manner } from './renderer';

interface Fineness {
	/** Points of a moving picture to a point of the screen. */
	readonly moving: number;
	/** Of each point of a moving picture. */
	readonly samples: number;
	/** Pictures that a resting one is made of, each a part of a point aside; as many as there is time for. */
	readonly resting: number;
}
const fineness: Readonly<Record<Exclude<Manner, 'plain'>, Fineness>> = {
	light: { moving: 0.5, samples: 0, resting: 4 },
	full: { moving: 1, samples: 4, resting: 16 }
};
/** How far around it a place is darkened by what stands there (m), and by how much. */
const [REACH, DARKENING] = [1.6, 0.85];
/** Rest before a picture is made finer (ms). */
const PAUSE = 140;
/**
 * No further part of a resting picture is begun that would be done after this (ms): with the moving picture and the
 * rest before it, a resting one is fine within two seconds.
 */
const ENOUGH = 1250;
/** A machine that takes longer than this over each of some moving pictures (ms) draws lightly from then on. */
const [LONG, SOME] = [90, 5];

/** The k-th of a row of places in a unit square that fills it evenly (R2 sequence). */
const place = (k: number): [number, number] => [(0.5 + 0.7548776662 * k) % 1, (0.5 + 0.569840291 * k) % 1];

/** How strong outlines are, and how far everything goes to white. */
const inks: Readonly<Record<Look, { readonly ink: number; readonly white: number }>> = {
	paper: { ink: 0.32, white: 0 },
	measures: { ink: 0.32, white: 0 },
	presentation: { ink: 0.16, white: 0 },
	lines: { ink: 0.92, white: 0.93 }
};

/** A part of a whole picture: where it begins in it, and how large it is (pixels). */
interface Part {
	readonly whole: { readonly width: number; readonly height: number };
	readonly x: number;
	readonly y: number;
	readonly width: number;
	readonly height: number;
}
/** Large pictures are drawn in parts of at most so many pixels each way, with a border beside that corners are reckoned with. */
const [MOST_AT_ONCE, BORDER] = [1024, 32];
/** How each of them is drawn. */
interface Drawn {
	/** Of how many pictures it is made. */
	readonly of: number;
	/** Whether corners are darkened. */
	readonly darkened: boolean;
}
const large: Readonly<Record<Manner, Drawn>> = {
	plain: { of: 1, darkened: false },
	light: { of: 6, darkened: true },
	full: { of: 6, darkened: true }
};
/** Those of a clip are seen for a moment only; where each takes long there are fewer. */
const inClips: Readonly<Record<Manner, Drawn & { readonly perSecond: number }>> = {
	plain: { of: 1, darkened: false, perSecond: 3 },
	light: { of: 1, darkened: false, perSecond: 12 },
	full: { of: 3, darkened: true, perSecond: 24 }
};

/**
 * The picture of a scene on a canvas: quick while something moves; when it rests, made finer step by step, with smooth
 * edges, soft shadows and corners that are darker. Each step is short, and the next waits for it, so nothing else does.
 */
export class Picture {
	private readonly quick: THREE.WebGLRenderTarget;
	private readonly one: THREE.WebGLRenderTarget;
	private readonly sum: THREE.WebGLRenderTarget;
	private readonly quad = new FullScreenQuad();
	private readonly show = shower();
	private readonly add = adder();
	private readonly corners = new Map<string, GTAOPass>();
	private readonly fine: Fineness | null;
	private size = { width: 1, height: 1 };
	private asked = 0;
	private pausing: ReturnType<typeof setTimeout> | undefined;
	/** Counts pictures that move, so that a resting one knows that it is over. */
	private turn = 0;
	private busy = false;
	private again = false;
	private long = 0;
	private isFirst = true;
	private ended = false;
	look: Look = 'paper';
	/** Called after a moving picture has been drawn. */
	onDrawn: (() => void) | null = null;
	/** Called when a resting picture is as fine as it becomes. */
	onFine: (() => void) | null = null;
	/** Called once, when moving pictures take long. */
	onSlow: (() => void) | null = null;

	/** @param eye whose picture it is @param daylight what its sun shines with, a little aside for each part of a resting picture */
	constructor(
		private readonly renderer: THREE.WebGLRenderer,
		private readonly scene: THREE.Scene,
		private readonly manner: Manner,
		private readonly eye: Eye,
		private readonly daylight: Daylight
	) {
		this.fine = manner === 'plain' ? null : fineness[manner];
		const type = THREE.HalfFloatType;
		this.quick = new THREE.WebGLRenderTarget(1, 1, { type, samples: this.fine?.samples ?? 0 });
		this.one = new THREE.WebGLRenderTarget(1, 1, { type, depthTexture: new THREE.DepthTexture(1, 1) });
		this.sum = new THREE.WebGLRenderTarget(1, 1, { type, depthBuffer: false });
		renderer.setPixelRatio(pixelRatio(manner === 'plain'));
	}

	/** Have another size (pixels of the screen); whoever says so asks for a picture too. */
	resize(width: number, height: number): void {
		if (!width || !height) return;
		this.renderer.setSize(width, height, false);
		const { x, y } = this.renderer.getDrawingBufferSize(new THREE.Vector2());
		this.size = { width: x, height: y };
		const part = this.fine?.moving ?? 1;
		this.quick.setSize(Math.ceil(part * x), Math.ceil(part * y));
	}

	/**
	 * Have the graphics card make the programs of moving pictures; it goes about it meanwhile. Once it has, one is drawn of
	 * nothing, unless there is more to draw by then, so that whatever else a first picture waits for is there too.
	 */
	async prepare(): Promise<void> {
		const { renderer, scene, fine, eye } = this;
		if (fine) renderer.setRenderTarget(this.quick);
		const made = renderer.compileAsync(scene, eye.camera);
		renderer.setRenderTarget(null);
		await made;
		if (!this.isFirst || this.ended) return;
		renderer.shadowMap.needsUpdate = true;
		this.draw();
	}

	/** Something has changed: draw it, quickly first. */
	request(): void {
		this.turn++;
		clearTimeout(this.pausing);
		if (this.busy) this.again = true;
		else if (this.isFirst) {
			// The first waits for what else is done at this moment, not for the screen: that has a whole page to draw.
			this.isFirst = false;
			this.busy = true;
			queueMicrotask(() => void this.move());
		} else this.asked ||= requestAnimationFrame(() => void this.move());
	}

	private async move(): Promise<void> {
		if (this.ended) return;
		this.asked = 0;
		this.busy = true;
		this.again = false;
		this.daylight.within(null);
		this.draw();
		this.onDrawn?.();
		const { renderer, fine } = this;
		if (!fine) {
			this.busy = false;
			if (this.again) this.request();
			return;
		}
		const took = await drawn(renderer);
		this.busy = false;
		if (this.ended) return;
		this.mind(took);
		if (this.again) this.request();
		else this.pausing = setTimeout(() => void this.rest(), PAUSE);
	}

	/** Draw a moving picture. */
	private draw(): void {
		const { renderer, scene, fine, eye } = this;
		if (fine) {
			renderer.setRenderTarget(this.quick);
			renderer.render(scene, eye.camera);
			this.present(this.quick.texture, null);
		} else renderer.render(scene, eye.camera);
	}

	/** Mind how long pictures take: a first one brings programs and buffers with it, a row of them tells. */
	private mind(took: number): void {
		this.long = took > LONG ? this.long + 1 : 0;
		if (this.manner === 'full' && this.long === SOME) this.onSlow?.();
	}

	private async rest(): Promise<void> {
		const { turn } = this;
		const { width, height } = this.size;
		const part = { whole: this.size, x: 0, y: 0, width, height };
		if (this.one.width !== width || this.one.height !== height) this.makeRoom(width, height);
		const began = performance.now();
		let took = 0;
		this.busy = true;
		for (let k = 0; k < this.fine!.resting && performance.now() - began + took < ENOUGH; k++) {
			this.addOne(part, k);
			took = await drawn(this.renderer);
			if (this.ended) return;
			if (turn !== this.turn) break;
			if (!k) this.darken(part);
			this.present(this.sum.texture, this.cornersOf(this.eye.camera).gtaoMap);
			await drawn(this.renderer);
			if (this.ended) return;
			if (turn !== this.turn) break;
		}
		this.busy = false;
		if (this.again) this.request();
		else this.onFine?.();
	}

	/** Draw the k-th picture of those a resting one is made of, and add it to them. */
	private addOne({ whole, x, y, width, height }: Part, k: number): void {
		const { renderer, scene } = this;
		const camera = this.eye.camera as THREE.PerspectiveCamera | THREE.OrthographicCamera;
		const [dx, dy] = k ? place(k) : [0.5, 0.5];
		camera.setViewOffset(whole.width, whole.height, x + dx - 0.5, y + dy - 0.5, width, height);
		this.daylight.within(place(k + 1));
		renderer.setRenderTarget(this.one);
		renderer.render(scene, camera);
		camera.clearViewOffset();
		const { ink, white } = inks[this.look];
		const flat = camera instanceof THREE.OrthographicCamera;
		const set = {
			picture: this.one.texture,
			depth: this.one.depthTexture,
			weight: 1 / (k + 1),
			ink,
			white,
			level: flat ? (camera.far - camera.near) / (camera.top - camera.bottom) : 0
		};
		for (const [name, value] of Object.entries(set)) this.add.uniforms[name]!.value = value;
		(this.add.uniforms['pixel']!.value as THREE.Vector2).set(1 / width, 1 / height);
		renderer.setRenderTarget(this.sum);
		this.fill(this.add);
	}

	/** Reckon how corners are darkened, from the depth of the first of the pictures a resting one is made of. */
	private darken({ whole, x, y, width, height }: Part): void {
		const camera = this.eye.camera as THREE.PerspectiveCamera | THREE.OrthographicCamera;
		camera.setViewOffset(whole.width, whole.height, x, y, width, height);
		this.cornersOf(camera).render(this.renderer, this.sum, this.one, 0, false);
		camera.clearViewOffset();
	}

	/** The picture as it stands, larger. @param width of it, in pixels @returns a PNG */
	async large(width: number): Promise<Blob> {
		const height = Math.round((width * this.size.height) / this.size.width);
		let made: Promise<Blob> | null = null;
		await this.inParts(width, height, large[this.manner], async (draw) => {
			made = (await draw()).convertToBlob({ type: 'image/png' });
		});
		return made!;
	}

	/**
	 * A clip of pictures that are drawn one after the other, in the shape of the one that is seen.
	 * @param width of it, an even number of pixels @param before called before each is drawn, by how far it is
	 * @param signal gives it up: its reason is thrown @throws Error where this browser cannot write clips
	 */
	async clip(
		width: number,
		seconds: number,
		before: (share: number) => void,
		signal: AbortSignal
	): Promise<Blob> {
		const { Clip } = await import('./clip');
		const height = 2 * Math.round((width * this.size.height) / this.size.width / 2);
		const how = inClips[this.manner];
		const clip = await Clip.of(width, height, how.perSecond);
		const count = seconds * how.perSecond;
		try {
			await this.inParts(width, height, how, async (draw) => {
				for (let k = 0; k < count; k++) {
					signal.throwIfAborted();
					before(k / count);
					await clip.add(await draw(), k);
				}
			});
			return await clip.end();
		} finally {
			clip.close();
		}
	}

	/**
	 * Draw of another size than what is seen: in parts, one after the other, while nothing else is drawn.
	 * @param act is given what draws it as it stands
	 */
	private async inParts(
		width: number,
		height: number,
		{ of, darkened }: Drawn,
		act: (draw: () => Promise<OffscreenCanvas>) => Promise<void>
	): Promise<void> {
		const whole = { width, height };
		const canvas = new OffscreenCanvas(width, height);
		const pen = canvas.getContext('2d')!;
		const [across, down] = [width, height].map((size) =>
			Math.ceil(size / Math.ceil(size / MOST_AT_ONCE))
		) as [number, number];
		const [wide, high] = [across + 2 * BORDER, down + 2 * BORDER];
		while (this.busy) await new Promise((go) => setTimeout(go, 20));
		this.busy = true;
		const target = new THREE.WebGLRenderTarget(wide, high, { depthBuffer: false });
		const pixels = new Uint8Array(4 * wide * high);
		const image = new ImageData(wide, high);
		const draw = async () => {
			for (let y = 0; y < height; y += down)
				for (let x = 0; x < width; x += across) {
					const part = { whole, x: x - BORDER, y: y - BORDER, width: wide, height: high };
					for (let k = 0; k < of; k++) {
						this.addOne(part, k);
						if (!k && darkened) this.darken(part);
						await drawn(this.renderer);
					}
					if (this.ended) throw new Error('the page was left');
					this.present(this.sum.texture, darkened ? this.cornersOf(this.eye.camera).gtaoMap : null, target);
					await this.renderer.readRenderTargetPixelsAsync(target, 0, 0, wide, high, pixels);
					for (let row = 0; row < high; row++)
						image.data.set(
							pixels.subarray(4 * wide * row, 4 * wide * (row + 1)),
							4 * wide * (high - 1 - row)
						);
					pen.putImageData(image, x - BORDER, y - BORDER, BORDER, BORDER, across, down);
				}
			return canvas;
		};
		try {
			this.makeRoom(wide, high);
			await act(draw);
		} finally {
			target.dispose();
			this.busy = false;
			if (!this.ended) {
				this.makeRoom(this.size.width, this.size.height);
				this.request();
			}
		}
	}

	/** Let a resting picture have a size (pixels). */
	private makeRoom(width: number, height: number): void {
		for (const target of [this.one, this.sum]) target.setSize(width, height);
		for (const pass of this.corners.values()) pass.setSize(...this.coarser(width, height));
	}

	/** Darkening is soft: lightly drawn it is reckoned half as fine, in a quarter of the time. */
	private coarser(width: number, height: number): [number, number] {
		const part = this.manner === 'light' ? 0.5 : 1;
		return [Math.ceil(part * width), Math.ceil(part * height)];
	}

	/** What reckons how corners are darkened. */
	private cornersOf(camera: THREE.Camera): GTAOPass {
		const known = this.corners.get(camera.type);
		if (known) return known;
		const { width, height } = this.one;
		const light = this.manner === 'light';
		const pass = new GTAOPass(this.scene, camera, ...this.coarser(width, height), {
			depthTexture: this.one.depthTexture!
		});
		pass.updateGtaoMaterial({
			radius: REACH,
			distanceExponent: 1.4,
			thickness: 1,
			scale: 1,
			samples: light ? 8 : 16
		});
		pass.updatePdMaterial({ radius: 8, samples: 16 });
		pass.output = GTAOPass.OUTPUT.Off;
		this.corners.set(camera.type, pass);
		return pass;
	}

	private present(
		picture: THREE.Texture,
		dark: THREE.Texture | null,
		target: THREE.WebGLRenderTarget | null = null
	): void {
		const set = { picture, dark, darkening: dark ? DARKENING : 0, encoded: target !== null };
		for (const [name, value] of Object.entries(set)) this.show.uniforms[name]!.value = value;
		this.renderer.setRenderTarget(target);
		this.fill(this.show);
	}

	/** Draw a material all over the target. */
	private fill(material: THREE.Material): void {
		const { autoClear } = this.renderer;
		this.renderer.autoClear = false;
		this.quad.material = material;
		this.quad.render(this.renderer);
		this.renderer.autoClear = autoClear;
	}

	dispose(): void {
		this.ended = true;
		cancelAnimationFrame(this.asked);
		clearTimeout(this.pausing);
		for (const one of [this.quick, this.one, this.sum, this.show, this.add]) one.dispose();
		this.one.depthTexture?.dispose();
		for (const pass of this.corners.values()) pass.dispose();
		this.quad.dispose();
	}
}
