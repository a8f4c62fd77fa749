<script lang="ts">
	import { goto } from '$app/navigation';
	import { Command, Dialog } from 'bits-ui';
	import { partsOf } from '$core/cladding/kit';
	import { cellMark, markPrefix } from '$core/cladding/marks';
	import { addressOf } from '$lib/state/selection.svelte';
	import { lenses, useDesk } from '$lib/state/desk.svelte';
	import { pathTo } from '$core/project/typed-path';

	let { open = $bindable() }: { open: boolean } = $props();
	const desk = useDesk();
	let text = $state('');
	let input = $state<HTMLElement | null>(null);
	/** At once: what is typed right after the key that opens it is not lost. */
	$effect(() => input?.focus());
	const MOST = 12;

	interface Entry {
		readonly label: string;
		readonly kind: string;
		readonly act: () => void;
	}
	const { project } = desk;
	const entries = $derived.by((): Entry[] => [
		...lenses.map((lens) => ({
			label: lens.label,
			kind: 'lens',
			act: () => void (desk.lens = lens.id)
		})),
		{ label: 'Schedule', kind: 'page', act: () => void goto(`/project/${project.id}/schedule`) },
		{ label: 'History', kind: 'page', act: () => void goto(`/project/${project.id}/history`) },
		{ label: 'Kit', kind: 'page', act: () => void goto(`/project/${project.id}/kit`) },
		...partsOf(project.document).map((part) => ({
			label: part.label,
			kind: 'part',
			act: () => void goto(`/project/${project.id}/part/${part.id}`)
		})),
		{ label: 'Keys', kind: 'list', act: () => void (desk.keysShown = true) },
		...(project.undoLabel
			? [{ label: `Undo: ${project.undoLabel}`, kind: 'action', act: () => project.undo() }]
			: []),
		...project.document.masses.map((mass) => ({
			label: mass.name,
			kind: 'mass',
			act: () => void (desk.selection.clause = pathTo('masses', mass.id))
		})),
		...project.document.zones.map((zone) => ({
			label: zone.name,
			kind: 'zone',
			act: () => {
				desk.activeZone = zone.id;
				desk.selection.clause = pathTo('zones', zone.id, 'faces');
			}
		})),
		...project.document.variants.map((variant) => ({
			label: variant.name,
			kind: 'variant',
			act: () => void (desk.selection.clause = pathTo('variants', variant.id))
		}))
	]);
	/** Pieces by their mark, looked for only when something like a mark is typed. */
	const pieces = $derived.by((): Entry[] => {
		const wanted = text.trim().toUpperCase();
		if (!/^[A-Z][A-Z0-9]*(\.\d+)?-/.test(wanted)) return [];
		const list: Entry[] = [];
		desk.model.view.zones.forEach((zone, z) => {
			const code = project.document.zones.find((one) => one.id === zone.id)?.code ?? '';
			if (!wanted.startsWith(code)) return;
			zone.faces.forEach((face, f) => {
				for (let c = 0; c < face.cells.count && list.length < MOST; c++) {
					const mark = cellMark(markPrefix(code, zone.faces.length, f), face.cells, c);
					if (mark.startsWith(wanted))
						list.push({
							label: mark,
							kind: zone.id,
							act: () => {
								desk.activeZone = zone.id;
								desk.selection.choose([
									addressOf(desk.model.view, { zone: z, face: f, kind: 'cell', index: c })
								]);
							}
						});
				}
			});
		});
		return list;
	});
	const shown = $derived(
		[
			...entries.filter((entry) => entry.label.toLowerCase().includes(text.trim().toLowerCase())),
			...pieces
		].slice(0, MOST)
	);
	function take(entry: Entry) {
		open = false;
		text = '';
		entry.act();
	}
</script>

<Dialog.Root bind:open>
	<Dialog.Portal>
		<Dialog.Overlay class="bg-ink/25 fixed inset-0 z-40" />
		<Dialog.Content
			class="floating fixed top-24 left-1/2 z-50 w-[520px] -translate-x-1/2 overflow-hidden"
			aria-label="Find"
		>
			<Dialog.Title class="sr-only">Find anything</Dialog.Title>
			<Command.Root shouldFilter={false}>
				<Command.Input
					class="border-hair w-full border-b bg-white px-4 py-3 text-[15px] outline-none"
					placeholder="A clause, a mark such as GR-C06, an action"
					bind:value={text}
					bind:ref={input}
				/>
				<Command.List class="max-h-96 overflow-auto p-1.5">
					{#each shown as entry (entry.kind + entry.label)}
						<Command.Item
							class="data-selected:bg-wash flex cursor-pointer justify-between rounded px-2.5 py-1.5"
							value={entry.kind + entry.label}
							onSelect={() => take(entry)}
							><span>{entry.label}</span><span class="text-ink-2 text-[12px]">{entry.kind}</span
							></Command.Item
						>
					{:else}<p class="text-ink-2 px-2.5 py-3">Nothing is called that here.</p>{/each}
				</Command.List>
			</Command.Root>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
