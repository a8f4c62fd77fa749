<script lang="ts">
	/** What an empty project offers: a mass to start from, a file, a finished example. */
	import FileUp from '@lucide/svelte/icons/file-up';
	import { goto } from '$app/navigation';
	import { addForm, addMass } from '$lib/edits/add-mass';
	import { massOf, newFormWords } from '$lib/edits/new-things';
	import ImportItem from '$lib/form/ImportItem.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { openExample } from '$lib/projects/requests';
	import SmallPicture from '$lib/components/SmallPicture.svelte';
	import { formPicture } from './form-picture';

	const desk = useDesk();
	let importing = $state<ReturnType<typeof ImportItem>>();
	let opening = $state(false);
	async function example() {
		opening = true;
		const id = await openExample();
		opening = false;
		if (id) await goto(`/project/${id}`);
	}
	const words = (label: string) => label.split(': ') as [string, string];
	const card = 'bg-sheet border-hair hover:border-patina group rounded-md border text-left transition-colors';
</script>

<section
	class="absolute inset-0 z-10 overflow-auto bg-[radial-gradient(120%_90%_at_50%_20%,#FBF9F3_0,#EFEADD_100%)] px-8 py-6"
	aria-label="Ways to start"
>
	<div class="mx-auto max-w-[780px]">
		<h2 class="text-[22px]" style:font-family="var(--font-serif)">Start from a mass</h2>
		<p class="text-ink-2 mb-3">
			Its surface becomes the first zone, in rectangles; everything of it can be changed afterwards.
		</p>
		<ul class="grid grid-cols-[repeat(auto-fill,minmax(128px,1fr))] gap-2.5">
			{#each newFormWords as { kind, label } (kind)}
				{@const [name, about] = words(label)}
				<li>
					<button type="button" class="{card} block h-full w-full p-2" onclick={() => addForm(desk, kind)}>
						<span class="block h-[66px]"><SmallPicture of={formPicture(kind)} /></span>
						<span class="mt-1 block text-[13px] leading-tight font-semibold">{name}</span>
						<span class="text-ink-2 block text-[11.5px] leading-tight">{about}</span>
					</button>
				</li>
			{/each}
		</ul>
		<div class="mt-5 grid grid-cols-2 gap-4 max-lg:grid-cols-1">
			<div>
				<h2 class="mb-1.5 text-[22px]" style:font-family="var(--font-serif)">Bring a file</h2>
				<button
					type="button"
					class="{card} flex w-full items-center gap-3 p-3"
					onclick={() => importing?.choose()}
				>
					<FileUp size={30} strokeWidth={1.3} class="text-patina shrink-0" />
					<span class="text-[12.5px] leading-snug"
						><b class="font-semibold">STEP, IFC</b>: their faces, exactly<br /><b class="font-semibold">OBJ</b
						>: meshes, fitted with faces<br /><b class="font-semibold">DXF, CSV</b>: outlines, rows of points</span
					>
				</button>
				<ImportItem
					bind:this={importing}
					onform={(name, form) => addMass(desk, massOf(name, form, desk.project.document.masses))}
				/>
			</div>
			<div>
				<h2 class="mb-1.5 text-[22px]" style:font-family="var(--font-serif)">Look at a finished example</h2>
				<button
					type="button"
					class="{card} flex w-full items-center gap-3 p-3"
					disabled={opening}
					onclick={example}
				>
					<span class="h-[44px] w-[72px] shrink-0"><SmallPicture of={formPicture('net')} /></span>
					<span class="text-[12.5px] leading-snug"
						><b class="font-semibold">Tidal Lido</b>, a bathing hall that was made up: opened as a project of
						its own{opening ? ' …' : ''}</span
					>
				</button>
			</div>
		</div>
	</div>
</section>
