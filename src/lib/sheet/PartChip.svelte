<script lang="ts">
	/** What a clause puts: chosen from the kit as pictures, seen in the model before it is chosen. */
	import type { GridSite } from '$core/cladding/sites';
	import type { Edit } from '$core/project/edits';
	import { formatNumber } from '$core/units/quantity';
	import { drawKit } from '$lib/bench/kit-pictures';
	import PictureChip, { type PictureOption } from '$lib/components/PictureChip.svelte';
	import { choiceLabel, chosenVariant, partChoices, type PartChoice } from '$lib/edits/part-choices';
	import { useDesk } from '$lib/state/desk.svelte';
	import { onDestroy } from 'svelte';

	interface Props {
		/** The variant; null when nothing is put. */
		variant: string | null;
		over: GridSite;
		/** The zone's name: a new variant is called after it. */
		zone: string;
		label: string;
		/** What is offered for nothing; left out where something must stand. */
		nothing?: string;
		/** What the chip says in place of what is put: an offer. */
		say?: string;
		/** The edits that put a variant there, null for nothing. */
		edits: (variant: string | null) => Edit[];
		/** Put it there. */
		onchoose: (variant: string | null, making: readonly Edit[]) => void;
	}
	let { variant, over, zone, label, nothing, say, edits, onchoose }: Props = $props();
	const desk = useDesk();
	const NOTHING = '-';
	let isOpen = $state(false);
	let pictures = $state.raw<ReadonlyMap<string, string>>(new Map());
	let stop: (() => void) | undefined;
	let looked = false;

	const optionOf = ({ value, part, label, about, pieces }: PartChoice): PictureOption => ({
		value,
		label,
		about,
		...(pieces && { note: formatNumber(pieces) }),
		picture: pictures.get(part)
	});
	/** Put together while the list is shown: it looks at the whole model. */
	const groups = $derived.by(() => {
		if (!isOpen) return [];
		const { here, kit } = partChoices(kept, over, desk.model.view);
		const open: PictureOption[] = nothing
			? [{ value: NOTHING, label: nothing, about: 'Cells stay open.' }]
			: [];
		return [
			{ title: 'In this project', options: here.map(optionOf) },
			{ title: 'From the kit', options: kit.map(optionOf) },
			{ title: 'Or', options: open }
		];
	});
	/** The document as it was when the list was opened: what is looked at must not change it. */
	let kept = $state.raw(desk.project.document);
	function opened(open: boolean) {
		if (open) {
			kept = desk.project.document;
			stop = drawKit(kept, (made) => (pictures = made));
		} else stop?.();
		isOpen = open;
	}
	function look(value: string | null) {
		if (value === null) {
			if (looked) desk.project.dropPreview();
			looked = false;
			return;
		}
		const { id, edits: making } =
			value === NOTHING ? { id: null, edits: [] } : chosenVariant(kept, value, zone);
		try {
			desk.project.preview(...making, ...edits(id));
			looked = true;
		} catch {
			// What cannot stand there is said when it is chosen.
		}
	}
	function choose(value: string) {
		look(null);
		if (value === NOTHING) return onchoose(null, []);
		const { id, edits: making } = chosenVariant(kept, value, zone);
		onchoose(id, making);
	}
	onDestroy(() => {
		stop?.();
		look(null);
	});
</script>

<PictureChip
	value={variant ?? NOTHING}
	isOffer={say !== undefined}
	shown={say ??
		(variant === null ? (nothing ?? '') : choiceLabel(isOpen ? kept : desk.project.document, variant))}
	{groups}
	{label}
	onchoose={choose}
	onlook={look}
	onopen={opened}
/>
