<script lang="ts">
	import Card from '$lib/frame/Card.svelte';
	import X from '@lucide/svelte/icons/x';
	import { formatLength, formatQuantity } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { newZone } from '$lib/edits/new-things';
	import { useDesk } from '$lib/state/desk.svelte';
	import { changeFaces, choiceOf, coverToo, splitFace } from './face-choices';
	import { curvatureWords } from '$lib/state/surface-view';
	import { insertAt, pathTo } from '$core/project/typed-path';

	const desk = useDesk();
	const document = $derived(desk.project.document);
	const chosen = $derived(desk.selection.faces);
	const last = $derived(chosen.at(-1));
	const named = $derived(last ? splitFace(last) : null);
	const mass = $derived(document.masses.find((one) => one.id === named?.mass));
	const shape = $derived(
		desk.model.view.masses
			.find((one) => one.id === named?.mass)
			?.faces.find((face) => face.name === named?.face)
	);
	const choice = $derived(mass && named ? choiceOf(mass, named.face) : null);
	const zones = $derived(
		document.zones.filter((zone) => zone.faces.some(({ mass: m, face }) => `${m}/${face}` === last))
	);
	const others = $derived(
		document.zones.filter((zone) =>
			chosen.some((name) => !zone.faces.some(({ mass: m, face }) => `${m}/${face}` === name))
		)
	);
	const whose = $derived(chosen.length > 1 ? `${chosen.length} faces` : `${mass?.name} · ${named?.face}`);
	/** Area of all chosen faces (mm²). */
	const together = $derived(
		desk.model.view.masses
			.flatMap((one) => one.faces.filter((face) => chosen.includes(`${one.id}/${face.name}`)))
			.reduce((sum, face) => sum + face.area, 0)
	);
	const closed = $derived.by(() => {
		if (!shape) return '';
		const ways = [shape.closedAcross && 'across', shape.closedUp && 'up'].filter(Boolean);
		return ways.length ? `ring ${ways.join(' and ')}` : 'open';
	});
	const corners = ['the first', 'the second', 'the third', 'the fourth'].map((label, k) => ({
		value: String(k),
		label
	}));

	const turnOutside = () =>
		desk.do(
			`${whose}: outside turned`,
			...changeFaces(document, chosen, (one) => ({
				...one,
				outside: one.outside === 'turned' ? 'as drawn' : 'turned'
			}))
		);
	const setCorner = (corner: number) =>
		desk.do(
			`${whose}: corner ${corner + 1} comes first`,
			...changeFaces(document, chosen, (one) => ({ ...one, corner }))
		);
	function makeZone() {
		const zone = newZone(mass?.name ?? 'Zone', chosen.map(splitFace), document.zones);
		if (desk.do(`zone on ${whose}`, insertAt(pathTo('zones'), document.zones.length, zone)))
			desk.activeZone = zone.id;
	}
	/** The same clauses on these faces: a zone of their own with everything the other one says. */
	function copyZone(id: string) {
		const source = document.zones.find((zone) => zone.id === id);
		if (!source) return;
		const fresh = newZone(`${source.name} copy`, chosen.map(splitFace), document.zones);
		const zone = {
			...source,
			id: fresh.id,
			code: fresh.code,
			name: fresh.name,
			faces: fresh.faces,
			nodes: [],
			exceptions: []
		};
		desk.do(`${source.name} copied to ${whose}`, insertAt(pathTo('zones'), document.zones.length, zone));
	}
</script>

{#if shape && mass && choice}
	<Card label="Face" testid="face-card">
		<h3 class="flex items-start justify-between gap-2 text-[13.5px] font-semibold">
			{mass.name} · {shape.name}
			<button
				type="button"
				class="text-ink-2 hover:bg-wash rounded"
				aria-label="Clear the selection"
				onclick={() => desk.selection.clear()}><X size={14} /></button
			>
		</h3>
		{#if chosen.length > 1}<p class="text-ink-2 text-[12.5px]">and {chosen.length - 1} more</p>{/if}
		<dl
			class="[&_dd]:figures mt-1.5 grid grid-cols-[auto_1fr] gap-x-3 gap-y-[3px] text-[12.5px] [&_dd]:text-right [&_dd]:text-[12px]"
		>
			{#if chosen.length > 1}
				<dt>Area of all</dt>
				<dd>{formatQuantity(together, 'area')}</dd>
			{/if}
			<dt>Area</dt>
			<dd>{formatQuantity(shape.area, 'area')}</dd>
			<dt>Across × up</dt>
			<dd>
				{formatLength(shape.across, desk.display, 0)} × {formatLength(shape.up, desk.display, 0)}
			</dd>
			<dt>Goes round</dt>
			<dd>{closed}</dd>
			<dt>Gaussian</dt>
			<dd>
				{curvatureWords(shape.gaussian.low, 'gaussian').replace(' 1/m²', '')} to {curvatureWords(
					shape.gaussian.high,
					'gaussian'
				)}
			</dd>
			<dt>Mean</dt>
			<dd>{curvatureWords(shape.mean.low, 'mean')} to {curvatureWords(shape.mean.high, 'mean')}</dd>
			{#if shape.deviation !== null}
				<dt>Fitted within</dt>
				<dd>{formatLength(shape.deviation, desk.display, 3)}</dd>
			{/if}
		</dl>
		<p class="sentence border-hair mt-2 border-t pt-2 text-[13.5px]! leading-relaxed!">
			Outside is {choice.outside === 'turned' ? 'turned' : 'as drawn'};
			<button type="button" class="text-patina-deep underline" onclick={turnOutside}>turn it</button>. Of its
			corners,
			<ChoiceChip
				value={String(choice.corner)}
				options={corners}
				label="First corner"
				onchoose={(value) => setCorner(Number(value))}
			/> as drawn counts as corner 1.
		</p>
		<p class="sentence border-hair mt-2 border-t pt-2 text-[13.5px]! leading-relaxed!">
			{#if zones.length}In {zones.map((zone) => zone.name).join(' and ')}.{:else}In no zone yet.{/if}
			<button type="button" class="text-patina-deep underline" onclick={makeZone}>Make a zone</button>
			{#if others.length}
				<ChoiceChip
					value="-"
					options={[
						{ value: '-', label: 'add to a zone' },
						...others.map((zone) => ({ value: zone.id, label: zone.name }))
					]}
					label="Add to a zone"
					onchoose={(id) =>
						id !== '-' && desk.do(`${whose} added to a zone`, ...coverToo(document, id, chosen))}
				/>
				<ChoiceChip
					value="-"
					options={[
						{ value: '-', label: 'copy a zone here' },
						...others.map((zone) => ({ value: zone.id, label: zone.name }))
					]}
					label="Copy a zone here"
					onchoose={(id) => id !== '-' && copyZone(id)}
				/>
			{/if}
		</p>
	</Card>
{/if}
