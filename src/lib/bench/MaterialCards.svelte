<script lang="ts">
	import { materialsOf } from '$core/cladding/kit';
	import { materialSchema, type Material } from '$core/project/material-schema';
	import MaterialLimits from './MaterialLimits.svelte';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { freshId } from '$lib/edits/fresh-id';
	import { useDesk } from '$lib/state/desk.svelte';
	import { toast } from 'svelte-sonner';
	import { insertAt, pathTo, removeAt, setAt } from '$core/project/typed-path';

	/** What elements are made of: density and appearance, changed in place. */
	const desk = useDesk();
	const document = $derived(desk.project.document);
	const materials = $derived(materialsOf(document));
	const own = $derived(new Set(document.materials.map(({ id }) => id)));
	const ships = $derived(new Set(materialsOf({ ...document, materials: [] }).map(({ id }) => id)));

	function put(material: Material, what: string) {
		const read = materialSchema.safeParse(material);
		if (!read.success) {
			toast.error(`${material.label}: ${read.error.issues[0]!.message}`);
			return;
		}
		if (own.has(material.id)) desk.do(what, setAt(pathTo('materials', material.id), read.data));
		else desk.do(what, insertAt(pathTo('materials'), document.materials.length, read.data));
	}
	const change = (material: Material, next: Partial<Material>, what: string) =>
		put({ ...material, ...next }, `${material.label}: ${what}`);
	function add() {
		const id = freshId('material', materials);
		const label = `Material ${document.materials.length + 1}`;
		put({ ...materials.find((one) => one.id === 'aluminium')!, id, label }, `the material ${label}`);
	}
	/** Whether a variant's value or a part's element names it. */
	const isUsed = (id: string) => JSON.stringify([document.variants, document.parts]).includes(`"${id}"`);
	function remove(material: Material) {
		if (!ships.has(material.id) && isUsed(material.id)) {
			toast.error(`${material.label} is used by a variant or a part; choose another material there first`);
			return;
		}
		desk.do(
			`${material.label} ${ships.has(material.id) ? 'as it ships' : 'removed'}`,
			removeAt(pathTo('materials', material.id))
		);
	}
	const looks = [
		['opacity', 'opaque', 0.05],
		['metalness', 'metallic', 0],
		['roughness', 'rough', 0]
	] as const;
	/** A ball of it, lit from the upper left. */
	const swatch = ({ colour, metalness, roughness, opacity }: Material) =>
		`opacity:${0.35 + 0.65 * opacity};background:radial-gradient(circle at 34% 28%, color-mix(in srgb, white ${Math.round(85 - 60 * roughness)}%, ${colour}) 0 ${Math.round(4 + 14 * roughness)}%, ${colour} ${Math.round(38 + 20 * roughness)}%, color-mix(in srgb, black ${Math.round(35 + 25 * metalness)}%, ${colour}) 100%)`;
</script>

<h2 class="mb-2 flex items-baseline gap-3 text-[13.5px] font-semibold">
	Materials
	<button type="button" class="text-patina-deep text-[12px] font-normal underline" onclick={add}
		>New material</button
	>
</h2>
<ul class="mb-6 grid grid-cols-[repeat(auto-fill,minmax(290px,1fr))] gap-3" data-testid="materials">
	{#each materials as material (material.id)}
		<li class="border-hair bg-sheet group flex gap-3 rounded border p-3" data-material={material.id}>
			<label class="relative h-11 w-11 shrink-0 cursor-pointer rounded-full" style={swatch(material)}>
				<input
					type="color"
					class="absolute inset-0 h-full w-full cursor-pointer opacity-0"
					aria-label="Colour of {material.label}"
					value={material.colour}
					onchange={(event) =>
						change(material, { colour: event.currentTarget.value }, `colour ${event.currentTarget.value}`)}
				/>
			</label>
			<div class="min-w-0 grow">
				<p class="flex items-baseline justify-between gap-2 text-[13px] font-semibold">
					<TextChip
						value={material.label}
						look="name"
						label="Name of the material {material.id}"
						oncommit={(label) => change(material, { label }, `is called ${label}`)}
					/>
					{#if own.has(material.id)}<button
							type="button"
							class="text-patina-deep shrink-0 text-[11.5px] font-normal underline opacity-0 group-focus-within:opacity-100 group-hover:opacity-100"
							onclick={() => remove(material)}>{ships.has(material.id) ? 'as it ships' : 'Remove'}</button
						>{/if}
				</p>
				<p class="sentence text-[13.5px]! leading-relaxed!">
					<NumberChip
						value={material.density}
						kind="count"
						label="Density of {material.label} in kg/m³"
						min={1}
						max={25000}
						oncommit={(density) => change(material, { density }, `${density} kg/m³`)}
					/> kg/m³{#each looks as [key, name, least] (key)}, <span class="whitespace-nowrap"
							>{name}
							<NumberChip
								value={material[key]}
								kind="ratio"
								label="How {name} {material.label} is"
								min={least}
								max={1}
								step={0.05}
								oncommit={(next) => change(material, { [key]: next }, `${name} ${next}`)}
							/></span
						>{/each}{', '}<button
						type="button"
						class="text-patina-deep text-[12px] underline"
						aria-pressed={material.glass}
						onclick={() =>
							change(material, { glass: !material.glass }, material.glass ? 'no glass' : 'glass')}
						>{material.glass ? 'counts as glass' : 'no glass'}</button
					>
				</p>
				<MaterialLimits {material} />
			</div>
		</li>
	{/each}
</ul>
