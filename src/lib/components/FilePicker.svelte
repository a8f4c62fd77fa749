<script lang="ts">
	/** Asks for a file. It is not seen itself: a button beside it calls `ask`. */
	interface Props {
		label: string;
		/** Of the names of files that are offered: obj for .obj and .OBJ. */
		endings: readonly string[];
		onfile: (file: File) => void;
	}
	let { label, endings, onfile }: Props = $props();
	let input: HTMLInputElement;
	const accept = (of: readonly string[]) =>
		of.flatMap((ending) => [`.${ending}`, `.${ending.toUpperCase()}`]).join(',');

	/** @param only some of the endings, where less is wanted this time */
	export function ask(only = endings): void {
		input.accept = accept(only);
		input.click();
	}
	function taken() {
		const [file] = input.files ?? [];
		// The same file may be chosen again.
		input.value = '';
		if (file) onfile(file);
	}
</script>

<input
	bind:this={input}
	type="file"
	accept={accept(endings)}
	class="hidden"
	aria-label={label}
	onchange={taken}
/>
