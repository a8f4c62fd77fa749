<script lang="ts">
	/** What presses on the facade: bars and panes are reckoned by it. */
	import { below, pathTo } from '$core/project/typed-path';
	import Clause from '$lib/frame/Clause.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';

	let { number }: { number: string } = $props();
	const desk = useDesk();
	const path = pathTo('loads');
	const loads = $derived(desk.project.document.loads);
	/** A wind to begin with (kN/m²). */
	const SOME_WIND = 1;
</script>

<Clause
	{number}
	{path}
	effect={loads.wind === null ? 'not reckoned' : ''}
	actions={loads.wind === null
		? []
		: [{ label: 'Reckon without wind', act: () => desk.set(below(path, 'wind'), null, 'no wind') }]}
>
	Bars and panes stand against {#if loads.wind === null}<button
			type="button"
			class="chip-offer"
			onclick={() => desk.set(below(path, 'wind'), SOME_WIND, `wind of ${SOME_WIND} kN/m²`)}>a wind</button
		> that nobody has said yet{:else}a wind of <ValueChip
			path={below(path, 'wind')}
			value={loads.wind}
			kind="pressure"
			label="Wind"
			of="Loads"
			step={0.1}
			min={0.01}
		/>; panes may be stressed by <ValueChip
			path={below(path, 'glass')}
			value={loads.glass}
			kind="stress"
			label="Stress of panes"
			of="Loads"
			step={1}
			min={1}
		/>{/if}<span class="full-stop">.</span>
</Clause>
