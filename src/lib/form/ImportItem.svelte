<script lang="ts">
	import FilePicker from '$lib/components/FilePicker.svelte';
	import { toast } from 'svelte-sonner';
	import type { Form } from '$core/project/form-schema';
	import { importFaces } from './import-file';
	import { formsFrom } from './import-lines';

	/** A way to bring a file in; what is under way is shown until it ends or is given up. */
	let { onform }: { onform: (name: string, form: Form) => void } = $props();
	let input: FilePicker;
	let running = $state.raw<{ name: string; reading: ReturnType<typeof importFaces> } | null>(null);
	let share = $state(0);

	export function choose() {
		input.ask();
	}
	async function read(file: File) {
		if (/\.(dxf|csv|xlsx)$/i.test(file.name)) return readForms(file);
		share = 0;
		const reading = importFaces(file, (now) => (share = now));
		running = { name: file.name, reading };
		try {
			const form = await reading.result;
			onform(file.name.replace(/\.[^.]*$/, '').slice(0, 60), form);
			const taken = `${form.faces.length} ${form.faces.length === 1 ? 'face' : 'faces'} taken from ${file.name}`;
			toast(form.refused.length ? `${taken}; ${form.refused.length} not, each told at the clause` : taken);
		} catch (error) {
			const { message } = error as Error;
			if (message !== 'given up')
				toast.error(`${file.name} cannot be taken: ${message}`, { duration: 12000 });
		} finally {
			running = null;
		}
	}
	/** Outlines of a drawing, or points of a table. */
	async function readForms(file: File) {
		try {
			const forms = await formsFrom(file);
			for (const { name, form } of forms) onform(name.slice(0, 60), form);
			toast(`${forms.length === 1 ? 'One mass' : `${forms.length} masses`} taken from ${file.name}`);
		} catch (error) {
			toast.error(`${file.name} cannot be taken: ${(error as Error).message}`, { duration: 12000 });
		}
	}
</script>

<FilePicker
	bind:this={input}
	label="File of a mass"
	endings={['stp', 'step', 'ifc', 'obj', 'dxf', 'csv', 'xlsx']}
	onfile={(one) => void read(one)}
/>
{#if running}
	<p class="ml-11 flex items-center gap-2 py-1 text-[12px]" role="status">
		<progress class="h-1 w-24" max="1" value={share} aria-label="Reading {running.name}"></progress>
		Reading {running.name} …
		<button type="button" class="underline" onclick={() => running?.reading.cancel()}>Cancel</button>
	</p>
{/if}
