<script lang="ts">
	import type { Vector } from '$core/geometry/vector';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { Found } from '$lib/state/selection.svelte';
	import { apart, modelLabels } from './labels';

	/** Written over the picture: marks of what is selected or near, and more of the last cell; never over one another. */
	interface Props {
		projected: (point: Vector) => { x: number; y: number } | null;
		selected: readonly Found[];
		frame: HTMLElement;
	}
	let { projected, selected, frame }: Props = $props();
	const desk = useDesk();
	const labels = $derived(
		apart(
			modelLabels(
				desk.model.view,
				(zone, face, index) => desk.markOf({ zone, face, kind: 'cell', index }),
				selected,
				([x, y, z]) => projected([x, y, z]),
				{ width: frame.clientWidth, height: frame.clientHeight }
			)
		)
	);
	const looks = {
		corner: 'bg-ink text-white',
		node: 'text-ink-2 bg-sheet/80 text-[10px]',
		mark: 'bg-sheet/90 text-patina-deep'
	};
</script>

{#each labels as { text, at, kind }, k (k)}
	<span
		class="figures pointer-events-none absolute -translate-x-1/2 -translate-y-1/2 rounded px-1 text-[11px] {looks[
			kind
		]}"
		style:left="{at.x}px"
		style:top="{at.y}px"
		data-testid="label">{text}</span
	>
{/each}
