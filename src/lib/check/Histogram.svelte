<script lang="ts">
	import { counted } from '$core/units/counted';
	import {
		BarController,
		BarElement,
		CategoryScale,
		Chart,
		LinearScale,
		Tooltip,
		type Plugin
	} from 'chart.js';
	import type { Bin } from './measures';

	interface Props {
		bins: readonly Bin[];
		colours: readonly string[];
		/** A value as text, without its unit. */
		format: (value: number) => string;
		label: string;
		/** Where limits are, in the values' own unit. */
		bounds?: readonly number[];
		onchoose: (bin: Bin) => void;
	}
	let { bins, colours, format, label, bounds = [], onchoose }: Props = $props();
	Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);

	/** A line where each limit is that lies among the values. */
	const limitLines: Plugin<'bar'> = {
		id: 'limits',
		afterDatasetsDraw({ ctx, chartArea: { left, right, top, bottom } }) {
			const [low, high] = [bins[0]!.from, bins.at(-1)!.to];
			ctx.save();
			ctx.strokeStyle = '#a33b2a';
			ctx.lineWidth = 1.5;
			ctx.setLineDash([3, 2]);
			for (const bound of bounds) {
				if (!(bound >= low && bound <= high && high > low)) continue;
				const x = left + ((bound - low) / (high - low)) * (right - left);
				ctx.beginPath();
				ctx.moveTo(x, top);
				ctx.lineTo(x, bottom);
				ctx.stroke();
			}
			ctx.restore();
		}
	};

	function draw(canvas: HTMLCanvasElement) {
		const chart = new Chart(canvas, {
			type: 'bar',
			plugins: [limitLines],
			data: {
				labels: bins.map((bin) => format(bin.from)),
				datasets: [
					{
						// Roots, so that what is rare is seen beside what is common.
						data: bins.map((bin) => Math.sqrt(bin.count)),
						backgroundColor: [...colours],
						borderColor: 'rgb(29 33 38 / 0.35)',
						borderWidth: 1,
						barPercentage: 1,
						// What is rare is seen, and can be chosen.
						minBarLength: 4,
						categoryPercentage: 0.94
					}
				]
			},
			options: {
				animation: false,
				maintainAspectRatio: false,
				onClick: (_, [hit]) => hit && onchoose(bins[hit.index]!),
				plugins: {
					tooltip: {
						callbacks: {
							title: ([item]) =>
								item ? `${format(bins[item.dataIndex]!.from)} – ${format(bins[item.dataIndex]!.to)}` : '',
							label: (item) => counted(bins[item.dataIndex]!.count, 'cell')
						}
					}
				},
				scales: {
					x: {
						grid: { display: false },
						ticks: {
							maxTicksLimit: 5,
							maxRotation: 0,
							color: '#565a54',
							font: { family: 'Spline Sans Mono Variable', size: 10 }
						}
					},
					y: {
						display: false
					}
				}
			}
		});
		return () => chart.destroy();
	}
</script>

<div class="h-full"><canvas {@attach draw} aria-label={label}></canvas></div>
<ul class="sr-only">
	{#each bins as bin, k (k)}
		<li>
			<button type="button" onclick={() => onchoose(bin)}
				>{counted(bin.count, 'cell')} from {format(bin.from)} to {format(bin.to)}</button
			>
		</li>
	{/each}
</ul>
