<script lang="ts">
	import Plus from '@lucide/svelte/icons/plus';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import { Popover } from 'bits-ui';
	import type { Edit } from '$core/project/commands';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import { useWorkbench } from '$lib/state/workbench.svelte';

	type Join = 'line' | 'smooth';
	interface Props {
		points: readonly (readonly number[])[];
		axes: readonly string[];
		path: string;
		joins: Join | readonly Join[];
		joinsPath: string;
		label: string;
		/** Shown in place of the number of points. */
		short?: string;
	}
	let { points, axes, path, joins, joinsPath, label, short }: Props = $props();
	const workbench = useWorkbench();

	const list = $derived(typeof joins === 'string' ? points.slice(1).map(() => joins) : joins);
	/** The two coordinates that say most: the last one, and the one that spreads most of the others. */
	const plane = $derived.by(() => {
		const last = axes.length - 1;
		const spread = (axis: number) => {
			const values = points.map((p) => p[axis] ?? 0);
			return Math.max(...values) - Math.min(...values);
		};
		const first = axes.length === 2 || spread(0) >= spread(1) ? 0 : 1;
		return { first, second: spread(last) < 1 && axes.length === 3 ? (first === 0 ? 1 : 0) : last };
	});
	const drawing = $derived.by(() => {
		const xs = points.map((p) => p[plane.first] ?? 0);
		const ys = points.map((p) => p[plane.second] ?? 0);
		const [left, right, low, high] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
		const scale = Math.min(280 / Math.max(right - left, 1), 96 / Math.max(high - low, 1));
		return points.map((_, k) => ({
			x: 150 + ((xs[k] ?? 0) - (left + right) / 2) * scale,
			y: 58 - ((ys[k] ?? 0) - (low + high) / 2) * scale
		}));
	});

	function setCoordinate(k: number, axis: number, value: number, was: number) {
		workbench.set(`${path}/${k}/${axis}`, value, `${label} point ${k + 1} ${axes[axis]} ${was} → ${value}`);
	}
	function insertAfter(k: number) {
		const a = points[k]!;
		const b = points[k + 1] ?? a.map((value, axis) => 2 * value - (points[k - 1]?.[axis] ?? 0));
		const middle = points[k + 1]
			? a.map((value, axis) => Math.round((value + (b[axis] ?? value)) / 2))
			: [...b];
		const edits: Edit[] = [{ do: 'insert', path, index: k + 1, value: middle }];
		if (typeof joins !== 'string')
			edits.push({
				do: 'insert',
				path: joinsPath,
				index: Math.min(k, joins.length),
				value: joins[Math.min(k, joins.length - 1)] ?? 'smooth'
			});
		workbench.do(`${label}: a point after ${k + 1}`, ...edits);
	}
	function remove(k: number) {
		const edits: Edit[] = [{ do: 'remove', path: `${path}/${k}` }];
		if (typeof joins !== 'string')
			edits.push({ do: 'remove', path: `${joinsPath}/${Math.min(k, joins.length - 1)}` });
		workbench.do(`${label}: point ${k + 1} removed`, ...edits);
	}
	function setJoin(k: number) {
		const next = list.map((join, n) => (n === k ? (join === 'line' ? 'smooth' : 'line') : join));
		const all = next.every((join) => join === next[0]);
		workbench.set(
			joinsPath,
			all ? next[0] : next,
			`${label}: points ${k + 1} to ${k + 2} joined ${next[k] === 'line' ? 'straight' : 'smoothly'}`
		);
	}
</script>

<span class="inline-flex">
	<Popover.Root>
		<Popover.Trigger class="chip-choice figures" aria-label="{label}: {points.length} points"
			>{short ?? `${points.length} points`}</Popover.Trigger
		>
		<Popover.Portal>
			<Popover.Content
				class="floating z-40 w-[340px] p-3"
				side="right"
				align="start"
				sideOffset={8}
				collisionPadding={10}
			>
				<h3 class="mb-1 font-semibold">{label}</h3>
				<svg viewBox="0 0 300 116" class="border-hair mb-2 w-full rounded border bg-white" aria-hidden="true">
					<path
						d="M{drawing.map((p) => `${p.x} ${p.y}`).join('L')}"
						fill="none"
						stroke="#9CC9BC"
						stroke-width="1.5"
					/>
					{#each drawing as p, k (k)}<circle cx={p.x} cy={p.y} r="3.4" fill="#1F7A6B" /><text
							x={p.x + 6}
							y={p.y - 4}
							font-size="9"
							fill="#565a54">{k + 1}</text
						>{/each}
				</svg>
				<div class="max-h-72 overflow-auto pr-1">
					<table class="w-full text-[12px]">
						<thead>
							<tr class="text-ink-2 text-left"
								><th class="w-6 font-medium"></th>{#each axes as axis (axis)}<th class="pb-1 font-medium"
										>{axis}</th
									>{/each}<th></th></tr
							>
						</thead>
						<tbody>
							{#each points as point, k (k)}
								<tr>
									<td class="figures text-ink-2 py-0.5">{k + 1}</td>
									{#each axes as axis, n (axis)}
										<td class="py-0.5">
											<NumberChip
												value={point[n] ?? 0}
												kind="length"
												display={workbench.display}
												step={50}
												label="{label} point {k + 1} {axis}"
												onpreview={(value) =>
													workbench.project.preview({ do: 'set', path: `${path}/${k}/${n}`, value })}
												onpreviewend={() => workbench.project.dropPreview()}
												oncommit={(value, was) => setCoordinate(k, n, value, was)}
											/>
										</td>
									{/each}
									<td class="py-0.5 text-right whitespace-nowrap">
										{#if k + 1 < points.length}
											<button
												type="button"
												class="text-ink-2 hover:bg-wash rounded px-1 text-[11px]"
												onclick={() => setJoin(k)}
												aria-label="Join from point {k + 1}: {list[k] === 'line' ? 'straight' : 'smooth'}"
												>{list[k] === 'line' ? '—' : '∿'}</button
											>
										{/if}
										<button
											type="button"
											class="text-ink-2 hover:bg-wash rounded p-0.5 align-middle"
											aria-label="Insert a point after {k + 1}"
											onclick={() => insertAfter(k)}><Plus size={13} /></button
										>
										<button
											type="button"
											class="text-ink-2 hover:bg-oxide-wash rounded p-0.5 align-middle disabled:opacity-30"
											aria-label="Remove point {k + 1}"
											disabled={points.length <= 2}
											onclick={() => remove(k)}><Trash2 size={13} /></button
										>
									</td>
								</tr>
							{/each}
						</tbody>
					</table>
				</div>
			</Popover.Content>
		</Popover.Portal>
	</Popover.Root>
</span>
