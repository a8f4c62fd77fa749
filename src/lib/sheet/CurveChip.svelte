<script lang="ts">
	import { Popover } from 'bits-ui';
	import CurveEditor from '$lib/form/CurveEditor.svelte';
	import type { EditedCurve } from '$lib/form/curve';

	/** `short` is shown in place of the number of points. */
	let { curve, short }: { curve: EditedCurve; short?: string } = $props();
</script>

<span class="chip-run">
	<span class="inline-flex">
		<Popover.Root>
			<Popover.Trigger class="chip-choice figures" aria-label="{curve.label}: {curve.points.length} points"
				>{short ?? `${curve.points.length} points`}</Popover.Trigger
			>
			<Popover.Portal>
				<Popover.Content
					class="floating z-40 p-3"
					side="right"
					align="start"
					sideOffset={8}
					collisionPadding={10}
					aria-label={curve.label}
				>
					<CurveEditor {curve} />
				</Popover.Content>
			</Popover.Portal>
		</Popover.Root>
	</span>
</span>
