<script lang="ts">
	import FilePicker from '$lib/components/FilePicker.svelte';
	import { goto } from '$app/navigation';
	import { partsOf } from '$core/cladding/kit';
	import { partOfMesh } from '$core/part/kit/of-mesh';
	import { partSchema, type Anchor, type PartDefinition } from '$core/project/part-definition';
	import MaterialCards from '$lib/bench/MaterialCards.svelte';
	import { drawKit } from '$lib/bench/kit-pictures';
	import { usesInWords } from '$lib/bench/uses';
	import TopBar from '$lib/frame/TopBar.svelte';
	import { saveFile } from '$lib/components/save-file';
	import { freshId } from '$lib/edits/fresh-id';
	import { useDesk } from '$lib/state/desk.svelte';
	import { openWords, readMesh } from '$lib/worker/read-in-thread';
	import { DropdownMenu } from 'bits-ui';
	import { onMount } from 'svelte';
	import { toast } from 'svelte-sonner';
	import { insertAt, pathTo, removeAt } from '$core/project/typed-path';

	const desk = useDesk();
	const document = $derived(desk.project.document);
	const parts = $derived(partsOf(document));
	const own = $derived(new Set(document.parts.map(({ id }) => id)));
	let pictures = $state.raw<ReadonlyMap<string, string>>(new Map());
	let file: FilePicker;
	const roles = [
		['panel', 'Panels'],
		['louver', 'Louvers'],
		['mullion', 'Mullions'],
		['structure', 'Structure']
	] as const;

	onMount(() => drawKit(document, (made) => (pictures = made)));

	function add(part: PartDefinition, label: string) {
		if (desk.do(label, insertAt(pathTo('parts'), document.parts.length, part)))
			void goto(`/project/${desk.project.id}/part/${part.id}`);
	}
	const anchors: readonly {
		readonly label: string;
		readonly anchor: Anchor;
		readonly role: PartDefinition['role'];
	}[] = [
		{ label: 'on cells of four corners', anchor: { kind: 'ring', corners: 4 }, role: 'panel' },
		{ label: 'on cells of any corners', anchor: { kind: 'ring', corners: 'any' }, role: 'panel' },
		{ label: 'on lines of the grid', anchor: { kind: 'pair' }, role: 'mullion' },
		{ label: 'on nodes', anchor: { kind: 'node', corners: 'any' }, role: 'structure' },
		{ label: 'on chains of nodes', anchor: { kind: 'chain', corners: 'any' }, role: 'structure' },
		{
			label: 'between a cell and its second layer',
			anchor: { kind: 'double ring', corners: 4 },
			role: 'structure'
		}
	];
	function fromNothing({ anchor, role }: (typeof anchors)[number]) {
		const id = freshId('part', parts);
		const label = `New part ${document.parts.length + 1}`;
		const none = { inputs: [], limits: [], steps: [], elements: [], measures: [] };
		add({ id, label, role, use: 'What it is for', anchor, ...none }, `the part ${label}`);
	}
	const copyOf = (part: PartDefinition) =>
		add({ ...part, id: freshId(part.id, parts), label: `${part.label} copy` }, `${part.label} copied`);
	const exported = (part: PartDefinition) =>
		saveFile(`${part.id}.json`, JSON.stringify(part, null, '\t'), 'application/json');
	function remove(part: PartDefinition) {
		if (document.variants.some((variant) => variant.part === part.id) && !ships(part)) {
			toast.error(`${part.label} has variants; remove or swap them first`);
			return;
		}
		desk.do(
			ships(part) ? `${part.label} as it ships` : `${part.label} removed`,
			removeAt(pathTo('parts', part.id))
		);
	}
	/** Whether a part of that name comes with the application. */
	const ships = (part: PartDefinition) =>
		partsOf({ ...document, parts: [] }).some(({ id }) => id === part.id);
	async function imported(chosen: File) {
		if (/\.(obj|stl|glb)$/i.test(chosen.name)) return importedBlock(chosen);
		let data: unknown;
		try {
			data = JSON.parse(await chosen.text());
		} catch {
			toast.error(`${chosen.name} is not JSON; a part that was exported from a kit is accepted`);
			return;
		}
		const read = partSchema.safeParse(data);
		if (!read.success) {
			const { path, message } = read.error.issues[0]!;
			toast.error(`${chosen.name} is not a part: ${path.join('/')}: ${message}`);
			return;
		}
		const part = parts.some(({ id }) => id === read.data.id)
			? { ...read.data, id: freshId(read.data.id, parts) }
			: read.data;
		add(part, `${part.label} imported`);
	}
	/** A mesh becomes a part that fits it between a cell and its second layer. */
	async function importedBlock(chosen: File) {
		try {
			const mesh = await readMesh(chosen).result;
			if (mesh.open) toast(openWords(chosen.name), { duration: 8000 });
			const label = chosen.name.replace(/\.[^.]*$/, '').slice(0, 60) || 'Block';
			add(
				partOfMesh(freshId('block', parts), label, chosen.name, mesh),
				`${label} imported as a ${mesh.open ? 'sheet' : 'block'}`
			);
		} catch (error) {
			toast.error(`${chosen.name} cannot be taken: ${(error as Error).message}`, { duration: 12000 });
		}
	}
</script>

<svelte:head><title>Kit · {document.name} · Zygaster</title></svelte:head>

<div class="grid h-screen grid-rows-[46px_1fr]">
	<TopBar page="Kit">
		{#snippet middle()}
			<div class="flex h-full items-center gap-4">
				<DropdownMenu.Root>
					<DropdownMenu.Trigger class="text-patina-deep font-medium underline">New part</DropdownMenu.Trigger>
					<DropdownMenu.Portal>
						<DropdownMenu.Content class="floating z-50 p-1">
							{#each anchors as one (one.label)}
								<DropdownMenu.Item
									class="data-highlighted:bg-wash cursor-pointer rounded px-2 py-1.5 outline-none"
									onSelect={() => fromNothing(one)}>{one.label}</DropdownMenu.Item
								>
							{/each}
						</DropdownMenu.Content>
					</DropdownMenu.Portal>
				</DropdownMenu.Root>
				<button
					type="button"
					class="text-patina-deep underline"
					title="A part exported from a kit, or a closed mesh (OBJ, STL, GLB) as a block"
					onclick={() => file.ask()}>Import a part</button
				>
				<FilePicker
					bind:this={file}
					label="File of a part"
					endings={['json', 'obj', 'stl', 'glb']}
					onfile={(one) => void imported(one)}
				/>
				<a class="text-patina-deep underline" href="/project/{desk.project.id}">Back to the model</a>
			</div>
		{/snippet}
	</TopBar>
	<main class="overflow-y-auto px-6 py-5" data-testid="kit" data-pictures={pictures.size}>
		{#each roles as [role, title] (role)}
			{@const of = parts.filter((part) => part.role === role)}
			{#if of.length}
				<h2 class="mb-2 text-[13.5px] font-semibold">{title}</h2>
				<ul class="mb-6 grid grid-cols-[repeat(auto-fill,minmax(232px,1fr))] gap-3">
					{#each of as part (part.id)}
						<li class="border-hair bg-sheet group relative flex flex-col rounded border p-3">
							<a
								class="contents"
								href="/project/{desk.project.id}/part/{part.id}"
								aria-label="{part.label}: to the bench"
							>
								{#if pictures.get(part.id)}<img
										src={pictures.get(part.id)}
										alt=""
										class="mb-1 h-[108px] w-full object-contain"
									/>
								{:else}<span class="mb-1 block h-[108px]"></span>{/if}
								<b class="text-[13px] font-semibold">{part.label}</b>
							</a>
							<p class="sentence text-ink-2 mt-0.5 grow text-[13.5px]! leading-snug!">{part.use}</p>
							<p class="mt-1.5 flex gap-3 text-[11.5px]">
								<span class="figures text-ink-2 whitespace-nowrap"
									>{usesInWords(document, desk.model.view, part.id) ?? 'not used'}</span
								>
								{#if own.has(part.id)}<span class="text-patina-deep">the project's own</span>{/if}
								<span
									class="bg-sheet absolute top-2 right-2 flex gap-2 rounded px-1 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100"
								>
									<button
										type="button"
										class="text-patina-deep underline"
										aria-label="Copy {part.label}"
										onclick={() => copyOf(part)}>copy</button
									>
									<button
										type="button"
										class="text-patina-deep underline"
										aria-label="Export {part.label}"
										onclick={() => exported(part)}>export</button
									>
									{#if own.has(part.id)}<button
											type="button"
											class="text-patina-deep underline"
											aria-label="{ships(part) ? 'Take as it ships' : 'Remove'} {part.label}"
											onclick={() => remove(part)}>{ships(part) ? 'as it ships' : 'remove'}</button
										>{/if}
								</span>
							</p>
						</li>
					{/each}
				</ul>
			{/if}
		{/each}
		<MaterialCards />
	</main>
</div>
