<script lang="ts">
	import Card from '$lib/frame/Card.svelte';
	import { kindOf } from '$core/cladding/address';
	import { flagsAt } from '$core/cladding/flag-table';
	import { partsOf } from '$core/cladding/kit';
	import { hangsOn, siteSetOf } from '$core/cladding/sites';
	import { inputKind } from '$core/part/inputs';
	import { flagSentence } from '$core/units/flag';
	import { formatNumber, formatQuantity } from '$core/units/quantity';
	import X from '@lucide/svelte/icons/x';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { clauseNumbers, zonePart } from '$lib/edits/zone-clauses';
	import { exceptionEdits, swapCells } from '$lib/edits/by-hand';
	import { variantsOn } from '$lib/edits/variants-on';
	import { useDesk } from '$lib/state/desk.svelte';
	import { find } from '$lib/state/selection.svelte';
	import { toast } from 'svelte-sonner';
	import { piecesAt } from '$lib/state/pieces-at';
	import { followableIn } from '$core/field/followed';
	import { sourceOf } from '$lib/check/measures';
	import { drivenText, heldText, type AskedAt } from './why';
	import { lieText } from '$core/cladding/lie';
	import { isAdjusting } from '$core/cladding/assign';
	import { limitsOfProject } from '$core/limit/shipped';
	import BringInside from './BringInside.svelte';
	import ByHand from './ByHand.svelte';
	import ChooseMore from './ChooseMore.svelte';
	import Reckoned from './Reckoned.svelte';
	import SiteFigures from './SiteFigures.svelte';
	import { below, pathTo } from '$core/project/typed-path';

	const desk = useDesk();
	const view = $derived(desk.model.view);
	const display = $derived(desk.display);
	const found = $derived(desk.selection.last ? find(view, desk.selection.last) : null);
	const zone = $derived(found ? view.zones[found.zone] : undefined);
	const face = $derived(found ? zone?.faces[found.face] : undefined);
	/** The sites among which it is one. */
	const sites = $derived(found && face ? siteSetOf(face, found.kind) : null);
	const clauses = $derived(desk.project.document.zones.find((one) => one.id === zone?.id));
	const pieces = $derived(found ? piecesAt(view, found) : []);
	const piece = $derived(pieces.find(({ group }) => !group.beside) ?? null);
	const beside = $derived(pieces.filter(({ group }) => group.beside));
	const mark = $derived(found && zone && clauses ? desk.markOf(found) : '');
	const emptyNames = { cell: 'Open cell', line: 'Line', node: 'Node', chain: 'Chain' };
	const cellKind = $derived(found?.kind === 'cell' && face ? kindOf(face.cells, found.index) : '');

	/** The clause that put the piece here, numbered as in the sheet. */
	const clause = $derived.by(() => {
		if (!found || !clauses || !zone) return null;
		const part = zonePart(desk.project.document.zones.findIndex((one) => one.id === clauses.id));
		const numbers = clauseNumbers(clauses);
		const path = pathTo('zones', clauses.id);
		if (found.kind !== 'cell') {
			if (!piece) return null;
			const { id, kind } = piece.group.clause;
			const [list, numbered] =
				kind === 'run' ? (['runs', numbers.run] as const) : (['nodes', numbers.nodes] as const);
			const index = clauses[list].findIndex((one) => one.id === id);
			const { where, ...own } = clauses[list][index]!;
			return { number: `${part}.${numbered(index)}`, path: below(path, list, id), where, values: own.values };
		}
		const assignment = zone.assignments[found.face];
		if (exception && !isAdjusting(exception))
			return {
				number: `${part}.${numbers.exceptions}`,
				path: below(path, 'exceptions'),
				where: null,
				values: exception.put === 'open' ? {} : exception.put.values
			};
		const index = assignment?.rule[found.index] ?? -1;
		const rule = clauses.rules[index];
		return (
			rule && {
				number: `${part}.${numbers.rule(index)}`,
				path: below(path, 'rules', rule.id),
				where: rule.where,
				values: {
					...(rule.put === 'open' ? {} : rule.put.values),
					...(exception && exception.put !== 'open' ? exception.put.values : {})
				}
			}
		);
	});
	const asked = $derived.by((): AskedAt | null => {
		if (!found || !face) return null;
		const { levels, variants } = desk.project.document;
		return {
			over: found.kind,
			face: sourceOf(zone!, found.face),
			site: found.index,
			things: followableIn(desk.project.document),
			display,
			named: desk.named,
			levels: new Map(levels.map(({ id, name }) => [id, name])),
			variants: new Map(variants.map(({ id, name }) => [id, name]))
		};
	});
	const exception = $derived(
		found?.kind === 'cell'
			? clauses?.exceptions[zone?.assignments[found.face]?.exception[found.index] ?? -1]
			: undefined
	);
	/** What is put there by hand: a variant, nothing (-), or what the rules say (=). */
	const chosenByHand = $derived.by(() => {
		const put = exception?.put;
		if (put === undefined || (put !== 'open' && 'as' in put)) return '=';
		return put === 'open' ? '-' : put.variant;
	});
	const putOptions = $derived([
		...variantsOn(desk.project.document, 'cell'),
		{ value: '-', label: 'left open' },
		{ value: '=', label: 'as the rules say' }
	]);
	/** Every chosen cell, the last one named first. */
	const cellAddresses = $derived(
		desk.selection.addresses.filter((address) => find(view, address)?.kind === 'cell')
	);
	function setException(value: string) {
		const put = value === '=' ? null : value === '-' ? 'open' : { variant: value, values: {} };
		const edits = exceptionEdits(desk.project.document, cellAddresses, put, view);
		const others = cellAddresses.length - 1;
		const what = others ? `${mark} and ${others} more` : mark;
		if (edits.length) desk.do(`${what} ${put ? 'by hand' : 'as the rules say'}`, ...edits);
	}
	const own = $derived(
		piece && desk.project.document.variants.find(({ id }) => id === piece.group.variantId)?.part
	);
	/** A value that the clause set for this piece, in its kind's words. */
	function perPieceText(name: string, value: number): string {
		const input = partsOf(desk.project.document)
			.find(({ id }) => id === own)
			?.inputs.find((one) => one.name === name);
		const option = input?.options?.[Math.round(value) - 1];
		if (option) return option.label;
		return formatQuantity(value, (input && inputKind(input)) ?? 'count', display);
	}
	/** What a partner says who cannot take it. */
	const refusal = $derived(desk.selection.last ? desk.flags.refusalOf(desk.selection.last) : null);
	/** What is told of it. */
	const told = $derived(piece ? flagsAt(piece.group.flags, piece.row) : []);
	/** The limits that it goes beyond. */
	const gone = $derived(
		piece
			? limitsOfProject(desk.project.document).filter(({ id }) =>
					told.some(({ code, subject }) => code === 'limit.beyond' && subject === id)
				)
			: []
	);
	const partOptions = $derived(
		partsOf(desk.project.document)
			.filter((part) => hangsOn(part, 'cell'))
			.map(({ id, label }) => ({ value: id, label }))
	);
	/** Another part on the chosen pieces only. */
	function swapPart(id: string) {
		const to = partsOf(desk.project.document).find((part) => part.id === id);
		if (!to || id === own) return;
		const { edits, kept, dropped, passedOver } = swapCells(desk.project.document, cellAddresses, to, view);
		const count = cellAddresses.length - passedOver;
		if (count && !desk.do(`${to.label} on ${count} ${count === 1 ? 'piece' : 'pieces'}`, ...edits)) return;
		const said = [
			kept.length ? `kept ${kept.join(', ').toLowerCase()}` : 'no values in common',
			...(dropped.length ? [`dropped ${dropped.join(', ').toLowerCase()}`] : []),
			...(passedOver ? [`${passedOver} stay: their corners do not agree, or nothing is on them`] : [])
		];
		toast(`${to.label} on ${count} ${count === 1 ? 'piece' : 'pieces'}: ${said.join('; ')}`, {
			duration: 8000
		});
	}
	let choosing = $state(false);
	/** Open the list of what can be put on the chosen cells by hand. */
	export function chooseException() {
		if (found?.kind === 'cell') choosing = true;
	}
</script>

{#if found && face && zone && sites}
	<Card label="Selection" testid="card">
		<h3 class="flex items-start justify-between gap-2 text-[13.5px] font-semibold">
			{piece ? piece.group.part : emptyNames[found.kind]}
			<span class="flex items-center gap-1.5"
				><span class="figures text-patina-deep text-[12px]" data-testid="card-mark">{mark}</span>
				<button
					type="button"
					class="text-ink-2 hover:bg-wash rounded"
					aria-label="Clear the selection"
					onclick={() => desk.selection.clear()}><X size={14} /></button
				></span
			>
		</h3>
		<p class="text-ink-2 text-[13px] leading-snug" style:font-family="var(--font-serif)">
			{found.kind === 'node' ? 'Course line' : 'Course'}
			{sites.course(found.index)}, {found.kind === 'node' ? 'bay line' : 'bay'}
			{sites.bay(found.index)}{desk.selection.addresses.length > 1
				? `, and ${formatNumber(desk.selection.addresses.length - 1)} more`
				: ''}
			{#if desk.selection.addresses.length > 1}<span class="ml-1 whitespace-nowrap"
					><button
						type="button"
						class="text-patina-deep hover:bg-wash rounded px-1"
						aria-label="The one before of what is chosen"
						onclick={() => desk.selection.step(-1)}>‹</button
					><button
						type="button"
						class="text-patina-deep hover:bg-wash rounded px-1"
						aria-label="The next of what is chosen"
						onclick={() => desk.selection.step(1)}>›</button
					></span
				>{/if}
			<span class="figures text-ink-2 block text-[11px] break-all">{found.address}</span>
		</p>
		{#if piece && (refusal || told.length)}
			<div class="border-oxide mt-1.5 border-l-2 pl-2" data-testid="card-told">
				<p class="sentence text-oxide text-[13.5px]! leading-snug!">
					{#if refusal}<span class="block first-letter:uppercase">{refusal}.</span>{/if}
					{#each told.map(flagSentence) as flag (flag)}<span class="block first-letter:uppercase"
							>{flag}.</span
						>{/each}
				</p>
				{#each gone as limit (`${limit.id} ${zone.id}`)}<BringInside zone={zone.id} {limit} />{/each}
			</div>
		{/if}
		<SiteFigures {found} {face} {piece} />
		{#if piece}<Reckoned {piece} />{/if}
		{#if found.kind === 'cell'}<ChooseMore {found} />{/if}
		<div class="sentence border-hair mt-2 border-t pt-2 text-[13.5px]! leading-snug!" data-testid="card-why">
			{#if clause}
				Clause <button
					type="button"
					class="figures text-patina-deep text-[12px] underline"
					onclick={() => (desk.selection.clause = clause.path)}>{clause.number}</button
				>
				{#if exception && !isAdjusting(exception)}sets it by hand{:else if found.kind === 'cell'}took this {cellKind}
					cell{:else if found.kind === 'line'}runs here{:else}put it where {piece?.group.corners} lines meet{/if}{#if piece}:
					{piece.group.part} · {piece.group.variant}{:else}: left open{/if}.
				{#if asked}
					{#each clause.where?.of ?? [] as condition, k (k)}<span class="text-ink-2 block text-[12.5px]"
							>{k === 0 ? 'Since' : clause.where?.is === 'all' ? 'and' : 'or'}
							{clause.where?.is === 'none' ? 'not ' : ''}{heldText(condition, asked)}</span
						>{/each}
				{/if}
				{#if piece}
					{#if lieText(piece.group.lie)}<span class="block">It lies {lieText(piece.group.lie)}.</span>{/if}
					{#if exception && isAdjusting(exception)}<span class="block"
							>Some of it is set <button
								type="button"
								class="text-patina-deep underline"
								onclick={() => (desk.selection.clause = pathTo('zones', clauses!.id, 'exceptions'))}
								>by hand</button
							>.</span
						>{/if}
					{#each [...piece.group.perPiece] as [name, values] (name)}
						{@const driver = clause.values[name]}
						<span class="block"
							><em>{name.replaceAll('_', ' ')}</em>
							{driver !== undefined && asked ? drivenText(driver, asked) : 'is from the same clause'}:
							<span class="figures text-[12px]">{perPieceText(name, values[piece.row]!)}</span>.</span
						>
					{/each}
				{/if}
			{:else if found.kind === 'cell'}No rule took it.{:else if found.kind === 'line'}No line run goes along
				it.{:else}Nothing stands on it.{/if}
		</div>
		{#each beside as { group, row } (group.serial)}
			{@const k = clauses?.rules.findIndex(({ id }) => id === group.clause.id) ?? -1}
			<p
				class="sentence border-hair mt-2 border-t pt-2 text-[13.5px]! leading-snug!"
				data-testid="card-beside"
			>
				Beside it {#if clauses && k >= 0}clause <button
						type="button"
						class="figures text-patina-deep text-[12px] underline"
						onclick={() => (desk.selection.clause = pathTo('zones', clauses.id, 'rules', group.clause.id))}
						>{zonePart(desk.project.document.zones.findIndex(({ id }) => id === clauses.id))}.{clauseNumbers(
							clauses
						).rule(k)}</button
					>{/if} puts {group.part} · {group.variant}, marked
				<span class="figures text-[12px]">{mark}+{group.clause.id}</span>.
				{#each flagsAt(group.flags, row).map(flagSentence) as flag (flag)}<span class="text-oxide block"
						>{flag}.</span
					>{/each}
			</p>
		{/each}
		{#if found.kind === 'cell'}
			<p class="mt-2 text-[12px]">
				By hand{cellAddresses.length > 1 ? ` on ${formatNumber(cellAddresses.length)} cells` : ''}: <ChoiceChip
					value={chosenByHand}
					options={putOptions}
					label="Exception for {mark}"
					bind:open={choosing}
					onchoose={setException}
				/>
			</p>
			{#if piece}<ByHand
					addresses={cellAddresses}
					{piece}
					what={cellAddresses.length > 1 ? `${mark} and ${cellAddresses.length - 1} more` : mark}
				/>{/if}
			{#if own}
				<p class="mt-1 text-[12px]">
					{cellAddresses.length > 1 ? 'Their' : 'Its'} part:
					<ChoiceChip value={own} options={partOptions} label="Part of {mark}" onchoose={swapPart} />
				</p>
			{/if}
		{/if}
	</Card>
{/if}
