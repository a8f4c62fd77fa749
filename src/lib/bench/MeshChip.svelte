<script lang="ts">
	import FilePicker from '$lib/components/FilePicker.svelte';
	import { meshStep } from '$core/part/kit/of-mesh';
	import type { AnyStep } from '$core/project/part-definition';
	import { isInFile } from '$core/project/stored';
	import { openWords, readMesh } from '$lib/worker/read-in-thread';
	import { toast } from 'svelte-sonner';

	/** The mesh that a step has from a file, which a newer file may take the place of. */
	interface Props {
		step: Extract<AnyStep, { do: 'block mesh' | 'block sheet' }>;
		replace: (step: AnyStep) => void;
	}
	let { step, replace }: Props = $props();
	let input: FilePicker;
	let reading = $state(false);

	async function read(file: File) {
		reading = true;
		try {
			const mesh = await readMesh(file).result;
			if (mesh.open) toast(openWords(file.name), { duration: 8000 });
			const thickness = step.do === 'block sheet' ? step.thickness : '0.02';
			replace({ ...meshStep(step.name, file.name, mesh, thickness), ...(step.note && { note: step.note }) });
		} catch (error) {
			toast.error(`${file.name} cannot be taken: ${(error as Error).message}`, { duration: 12000 });
		} finally {
			reading = false;
		}
	}
</script>

<span class="text-ink-2"
	>{step.source ? `of ${step.source}, ` : ''}{isInFile(step.triangles) ? '…' : step.triangles.length / 3} triangles</span
>
<FilePicker
	bind:this={input}
	label="Newer file of {step.name}"
	endings={['obj', 'stl', 'glb']}
	onfile={(one) => void read(one)}
/>
<button
	type="button"
	class="text-patina-deep text-[12px] underline"
	disabled={reading}
	aria-label="A newer file for {step.name}"
	onclick={() => input.ask()}>{reading ? 'reading …' : 'a newer file'}</button
>
