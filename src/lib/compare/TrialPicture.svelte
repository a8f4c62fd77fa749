<script lang="ts">
	import { extentOf, mapSheets, toX, toY } from '$lib/map/map-sheets';
	import type { FaceView } from '$lib/worker/views';

	/** Cells laid flat, small. */
	let {
		faces,
		width,
		height,
		label
	}: { faces: readonly FaceView[]; width: number; height: number; label: string } = $props();
	const MARGIN = 8;
	const sheets = $derived(mapSheets(faces, { width: width - 2 * MARGIN, height: height - 2 * MARGIN }));
	const whole = $derived(extentOf(sheets));
	const scale = $derived(Math.min((width - 2 * MARGIN) / whole.width, (height - 2 * MARGIN) / whole.height));
	const path = $derived.by(() => {
		const parts: string[] = [];
		const view = { scale, originX: 0, originY: 0 };
		for (const sheet of sheets) {
			const { face, layout } = sheet;
			const { start } = face.cells;
			for (let c = 0; c < face.cells.count; c++) {
				for (let k = start[c]!; k < start[c + 1]!; k++) {
					const [x, y] = [layout.points[2 * k]!, layout.points[2 * k + 1]!];
					parts.push(
						`${k === start[c] ? 'M' : 'L'}${toX(view, sheet, x, y).toFixed(1)} ${toY(view, sheet, x, y).toFixed(1)}`
					);
				}
				parts.push('Z');
			}
		}
		return parts.join('');
	});
</script>

<svg viewBox="0 0 {width} {height}" class="size-full" role="img" aria-label={label}>
	<g transform="translate({(width - whole.width * scale) / 2} {(height + whole.height * scale) / 2})">
		<path d={path} fill="#EDEADF" stroke="#565A54" stroke-width="0.6" />
	</g>
</svg>
