<script lang="ts">
	/** The views that were kept: shown when they are chosen or asked for in the address, and written as pictures. */
	import { untrack } from 'svelte';
	import { toast } from 'svelte-sonner';
	import { Vector3 } from 'three';
	import { replaceState } from '$app/navigation';
	import { page } from '$app/state';
	import type { KeptView } from '$core/project/view-schema';
	import { inRadians } from '$core/units/scale';
	import { fileStem, saveFile } from '$lib/components/save-file';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { ModelScene } from './scene';
	import ViewMenu from './ViewMenu.svelte';

	interface Props {
		scene: ModelScene;
		/** What is shown is drawn. */
		settled: boolean;
		/** Called when the eye goes to a kept view. */
		onshow: () => void;
	}
	let { scene, settled, onshow }: Props = $props();
	const desk = useDesk();

	function show(kept: KeptView) {
		desk.lens = kept.lens;
		desk.look = kept.look;
		desk.section = kept.section;
		desk.visibility.set(kept.hidden);
		onshow();
		const [turn, rise] = [inRadians(kept.turn), inRadians(kept.rise)];
		const target = new Vector3(...kept.target).divideScalar(1000);
		scene.stand({ target, turn, rise, distance: kept.distance / 1000, flat: kept.flat });
		desk.keptView = kept.id;
	}
	/** The view that was asked for in the address, until it is shown. */
	let wanted = page.url.searchParams.get('view');
	$effect(() => {
		if (!wanted || !settled || desk.model.behind) return;
		const kept = desk.project.document.views.find(({ id }) => id === wanted);
		wanted = null;
		if (kept) untrack(() => show(kept));
	});
	$effect(() => {
		const { keptView } = desk;
		const url = new URL(location.href);
		if (!settled || wanted || url.searchParams.get('view') === keptView) return;
		if (keptView) url.searchParams.set('view', keptView);
		else url.searchParams.delete('view');
		replaceState(url, {});
	});
	function writePicture(width: number) {
		const name = `${fileStem(desk.project.document.name)}.png`;
		toast.promise(
			scene.pictureOf(width).then((blob) => saveFile(name, blob, blob.type)),
			{
				loading: `Drawing ${width} pixels …`,
				success: `${name} written, ${width} pixels wide`,
				error: (error) => `The picture could not be drawn: ${(error as Error).message}`
			}
		);
	}
	/** The clip that is being drawn. */
	let drawing: AbortController | null = null;
	async function writeClip(width: number) {
		if (drawing) return;
		const own = (drawing = new AbortController());
		const name = `${fileStem(desk.project.document.name)}.mp4`;
		let percent = -1;
		const id = toast.loading('Drawing a full turn …', { duration: Infinity });
		const told = (share: number) => {
			if (Math.floor(100 * share) === percent) return;
			percent = Math.floor(100 * share);
			toast.loading(`Drawing a full turn: ${percent} %`, {
				id,
				duration: Infinity,
				action: { label: 'Stop', onClick: () => own.abort() }
			});
		};
		try {
			const blob = await scene.turnClip(width, told, own.signal);
			saveFile(name, blob, blob.type);
			toast.success(`${name} written, ${width} pixels wide`);
		} catch (error) {
			if (own.signal.aborted) toast('The clip was stopped; nothing was written');
			else toast.error(`The clip could not be drawn: ${(error as Error).message}`);
		} finally {
			toast.dismiss(id);
			drawing = null;
		}
	}
</script>

<ViewMenu pose={() => scene.pose} onchoose={show} onpicture={writePicture} onclip={writeClip} />
