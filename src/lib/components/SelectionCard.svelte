<script lang="ts">
	import { cellAddress, kindOf } from '$core/cladding/address';
	import { lineKindOf } from '$core/cladding/line-run';
	import { cellMark, edgeMark } from '$core/schedule/marks';
	import { formatLength, formatNumber, formatQuantity } from '$core/units/quantity';
	import X from '@lucide/svelte/icons/x';
	import { find } from '$lib/state/selection.svelte';
	import { useWorkbench } from '$lib/state/workbench.svelte';
	import ChoiceChip from './ChoiceChip.svelte';
	import { partsOf } from '$core/cladding/kit';
	import { inputKind } from '$core/part/inputs';
	import { clauseNumbers, zonePart } from '$lib/sheet/clause-numbers';
	import type { PartDefinition } from '$core/project/part-definition';
	import { exceptionEdits, swapCells } from '$lib/sheet/exceptions';
	import { toast } from 'svelte-sonner';

	const workbench = useWorkbench();
	const view = $derived(workbench.model.view);
	const display = $derived(workbench.display);
	const found = $derived(workbench.selection.last ? find(view, workbench.selection.last) : null);
	const zone = $derived(found ? view.zones[found.zone] : undefined);
	const face = $derived(found ? zone?.faces[found.face] : undefined);
	/** Where it stands: courses and bays of its face. */
	const at = $derived(found?.kind === 'cell' ? face?.cells : face?.edges);
	const clauses = $derived(workbench.project.document.zones.find((one) => one.id === zone?.id));
	const piece = $derived.by(() => {
		if (!found || !zone) return null;
		for (const group of zone.groups) {
			const isLine = group.clause.kind === 'run';
			if (group.face !== found.face || isLine !== (found.kind === 'edge')) continue;
			const row = group.anchors.indexOf(found.index);
			if (row >= 0) return { group, row };
		}
		return null;
	});
	const mark = $derived.by(() => {
		if (!found || !face || !clauses) return '';
		const make = found.kind === 'cell' ? cellMark : edgeMark;
		return make(clauses.code, zone!.faces.length, found.face, face, found.index);
	});
	/** So far apart are corners that are numbered, so long edges that their length is written at (px). */
	const NUMBER_ROOM = 11;
	const LENGTH_ROOM = 24;

	const shape = $derived.by(() => {
		if (!found || !face || found.kind !== 'cell') return null;
		const c = found.index;
		const { cells, positions, measures } = face;
		const nodes = Array.from(cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!));
		const p = nodes.map((node) => [0, 1, 2].map((k) => positions[3 * node + k]!) as [number, number, number]);
		const n = [0, 1, 2].map((k) => measures.normal[3 * c + k]!) as [number, number, number];
		// Seen from outside, with the way from the foot to the head up on the page.
		const column = cells.bay[c]! - 1;
		const row = cells.course[c]! - 1;
		const at = (r: number) => 3 * (Math.min(face.rows - 1, Math.max(0, r)) * face.columns + column);
		const rise = [0, 1, 2].map((k) => positions[at(row + 1) + k]! - positions[at(row - 1) + k]!);
		const off = rise[0]! * n[0] + rise[1]! * n[1] + rise[2]! * n[2];
		const steep = rise.map((value, k) => value - off * n[k]!);
		const size = Math.hypot(...steep) || 1;
		const up = steep.map((value) => value / size);
		const right = [
			up[1]! * n[2] - up[2]! * n[1],
			up[2]! * n[0] - up[0]! * n[2],
			up[0]! * n[1] - up[1]! * n[0]
		] as [number, number, number];
		const flat = p.map(
			(q) =>
				[
					q[0] * right[0] + q[1] * right[1] + q[2] * right[2],
					-(q[0] * up[0]! + q[1] * up[1]! + q[2] * up[2]!)
				] as [number, number]
		);
		const xs = flat.map((q) => q[0]);
		const ys = flat.map((q) => q[1]);
		const scale = Math.min(
			130 / (Math.max(...xs) - Math.min(...xs) || 1),
			74 / (Math.max(...ys) - Math.min(...ys) || 1)
		);
		const cx = (Math.max(...xs) + Math.min(...xs)) / 2;
		const cy = (Math.max(...ys) + Math.min(...ys)) / 2;
		const drawn = flat.map((q) => ({ x: 112 + (q[0] - cx) * scale, y: 56 + (q[1] - cy) * scale }));
		const lengths = p.map((q, k) => {
			const next = p[(k + 1) % p.length]!;
			return Math.hypot(next[0] - q[0], next[1] - q[1], next[2] - q[2]);
		});
		const angles = p.map((q, k) => {
			const a = p[(k + p.length - 1) % p.length]!;
			const b = p[(k + 1) % p.length]!;
			const dot =
				(a[0] - q[0]) * (b[0] - q[0]) + (a[1] - q[1]) * (b[1] - q[1]) + (a[2] - q[2]) * (b[2] - q[2]);
			const angle = Math.acos(
				Math.min(1, Math.max(-1, dot / (lengths[(k + p.length - 1) % p.length]! * lengths[k]! || 1)))
			);
			const [before, here, after] = [
				drawn[(k + p.length - 1) % p.length]!,
				drawn[k]!,
				drawn[(k + 1) % p.length]!
			];
			// The page's y runs down: a turn to the right is a re-entrant corner.
			const turn = (here.x - before.x) * (after.y - here.y) - (here.y - before.y) * (after.x - here.x);
			return turn > 0 ? 2 * Math.PI - angle : angle;
		});
		const numbered = new Set<number>();
		for (const [k, one] of drawn.entries())
			if (
				[...numbered].every(
					(other) => Math.hypot(one.x - drawn[other]!.x, one.y - drawn[other]!.y) > NUMBER_ROOM
				)
			)
				numbered.add(k);
		return { at: drawn, lengths, angles, numbered, kind: kindOf(cells, c) };
	});
	type Drawn = { readonly x: number; readonly y: number };
	const hasRoom = (p: Drawn, q: Drawn) => Math.hypot(q.x - p.x, q.y - p.y) > LENGTH_ROOM;
	const plainLength = (mm: number) => formatLength(mm, display, 0).replace(' mm', '');
	const edgeLength = $derived.by(() => {
		if (!found || !face || found.kind !== 'edge') return 0;
		const [a, b] = [3 * face.edges.from[found.index]!, 3 * face.edges.to[found.index]!];
		return Math.hypot(...[0, 1, 2].map((k) => face.positions[b + k]! - face.positions[a + k]!));
	});

	/** The clause that put the piece here, numbered as in the sheet. */
	const clause = $derived.by(() => {
		if (!found || !clauses || !zone) return null;
		const part = zonePart(workbench.project.document.zones.findIndex((one) => one.id === clauses.id));
		const numbers = clauseNumbers(clauses);
		const path = `zones/${clauses.id}`;
		if (found.kind === 'edge') {
			if (!piece) return null;
			const { id } = piece.group.clause;
			const index = clauses.runs.findIndex((one) => one.id === id);
			return { number: `${part}.${numbers.run(index)}`, path: `${path}/runs/${id}` };
		}
		const assignment = zone.assignments[found.face];
		if ((assignment?.exception[found.index] ?? -1) >= 0)
			return { number: `${part}.${numbers.exceptions}`, path: `${path}/exceptions` };
		const index = assignment?.rule[found.index] ?? -1;
		const rule = clauses.rules[index];
		return rule ? { number: `${part}.${numbers.rule(index)}`, path: `${path}/rules/${rule.id}` } : null;
	});
	const exception = $derived(
		found?.kind === 'cell' && face && clauses
			? clauses.exceptions.find((one) => one.id === cellAddress(face.address, face.cells, found.index))
			: undefined
	);
	const hangsOnCells = ({ anchor }: PartDefinition) =>
		anchor.kind === 'ring' || anchor.kind === 'double ring';
	const putOptions = $derived([
		...workbench.project.document.variants.flatMap((variant) => {
			const part = partsOf(workbench.project.document).find((one) => one.id === variant.part);
			return part && hangsOnCells(part)
				? [{ value: variant.id, label: `${part.label} · ${variant.name}` }]
				: [];
		}),
		{ value: '-', label: 'left open' },
		{ value: '=', label: 'as the rules say' }
	]);
	/** Every chosen cell, the last one named first. */
	const cellAddresses = $derived(
		workbench.selection.addresses.filter((address) => find(view, address)?.kind === 'cell')
	);
	function setException(value: string) {
		const put = value === '=' ? null : value === '-' ? 'open' : { variant: value, values: {} };
		const edits = exceptionEdits(workbench.project.document, cellAddresses, put, view);
		const others = cellAddresses.length - 1;
		const what = others ? `${mark} and ${others} more` : mark;
		if (edits.length) workbench.do(`${what} ${put ? 'by hand' : 'as the rules say'}`, ...edits);
	}
	const own = $derived(
		piece && workbench.project.document.variants.find(({ id }) => id === piece.group.variantId)?.part
	);
	/** A value that the clause set for this piece, in its kind's words. */
	function perPieceText(name: string, value: number): string {
		const input = partsOf(workbench.project.document)
			.find(({ id }) => id === own)
			?.inputs.find((one) => one.name === name);
		const option = input?.options?.[Math.round(value) - 1];
		if (option) return option.label;
		return formatQuantity(value, (input && inputKind(input)) ?? 'count', display);
	}
	const partOptions = $derived(
		partsOf(workbench.project.document)
			.filter(hangsOnCells)
			.map(({ id, label }) => ({ value: id, label }))
	);
	/** Another part on the chosen pieces only. */
	function swapPart(id: string) {
		const to = partsOf(workbench.project.document).find((part) => part.id === id);
		if (!to || id === own) return;
		const { edits, kept, dropped, passedOver } = swapCells(
			workbench.project.document,
			cellAddresses,
			to,
			view
		);
		const count = cellAddresses.length - passedOver;
		if (count && !workbench.do(`${to.label} on ${count} ${count === 1 ? 'piece' : 'pieces'}`, ...edits))
			return;
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

{#if found && face && zone && at}
	<aside
		class="floating absolute top-3.5 right-3.5 z-10 max-h-[calc(100%-28px)] w-[256px] overflow-auto px-3.5 py-3"
		aria-label="Selection"
		data-testid="card"
	>
		<h3 class="flex items-start justify-between gap-2 text-[13.5px] font-semibold">
			{piece ? piece.group.part : found.kind === 'cell' ? 'Open cell' : 'Line'}
			<span class="flex items-center gap-1.5"
				><span class="figures text-patina-deep text-[12px]" data-testid="card-mark">{mark}</span>
				<button
					type="button"
					class="text-ink-2 hover:bg-wash rounded"
					aria-label="Clear the selection"
					onclick={() => workbench.selection.clear()}><X size={14} /></button
				></span
			>
		</h3>
		<p class="text-ink-2 text-[13px] leading-snug" style:font-family="var(--font-serif)">
			Course {at.course[found.index]}, bay {at.bay[found.index]}{workbench.selection.addresses.length > 1
				? `, and ${formatNumber(workbench.selection.addresses.length - 1)} more`
				: ''}
			<span class="figures text-ink-2 block text-[11px] break-all">{found.address}</span>
		</p>
		{#if shape}
			<svg
				viewBox="0 0 224 112"
				class="my-1 w-full"
				role="img"
				aria-label="Cell with corners numbered and edge lengths"
			>
				<path
					d="M{shape.at.map((p) => `${p.x} ${p.y}`).join('L')}Z"
					fill="#FAEBCB"
					stroke="#D98E1F"
					stroke-width="1.6"
					stroke-linejoin="round"
				/>
				{#each shape.at as p, k (k)}
					{@const next = shape.at[(k + 1) % shape.at.length]!}
					{@const mx = (p.x + next.x) / 2}
					{@const my = (p.y + next.y) / 2}
					{@const out = Math.hypot(mx - 112, my - 56) || 1}
					{#if hasRoom(p, next)}
						<text
							x={mx + ((mx - 112) / out) * 20}
							y={my + ((my - 56) / out) * 9 + 3}
							text-anchor="middle"
							font-size="9.5"
							font-family="var(--font-mono)"
							fill="#565a54">{plainLength(shape.lengths[k]!)}</text
						>
					{/if}
					{#if shape.numbered.has(k)}
						{@const far = Math.hypot(p.x - 112, p.y - 56) || 1}
						<text
							x={p.x + ((p.x - 112) / far) * 8}
							y={p.y + ((p.y - 56) / far) * 8 + 3}
							text-anchor="middle"
							font-size="9.5"
							font-weight="700"
							font-family="var(--font-mono)"
							fill="#1D2126">{k + 1}</text
						>
					{/if}
				{/each}
			</svg>
		{/if}
		<dl
			class="[&_dd]:figures grid grid-cols-[1fr_auto] gap-y-[3px] text-[12.5px] [&_dd]:text-right [&_dd]:text-[12px]"
		>
			{#if shape}
				{@const c = found.index}
				<dt>Cell</dt>
				<dd>{shape.kind}, {shape.at.length} corners</dd>
				<dt>Area</dt>
				<dd>{formatQuantity(face.measures.area[c]!, 'area')}</dd>
				<dt>Warp</dt>
				<dd>{formatLength(face.measures.warp[c]!, display, 1)}</dd>
				{#if shape.at.some((p, k) => !hasRoom(p, shape.at[(k + 1) % shape.at.length]!))}
					<dt>Edges</dt>
					<dd>{shape.lengths.map(plainLength).join(' · ')}</dd>
				{/if}
				<dt>Angles</dt>
				<dd>{shape.angles.map((a) => formatQuantity(a, 'angle').replace('°', '')).join(' · ')}°</dd>
			{:else}
				<dt>Line</dt>
				<dd>{lineKindOf(face.edges, found.index)}</dd>
				<dt>Length</dt>
				<dd>{formatLength(edgeLength, display, 1)}</dd>
				<dt>Fold</dt>
				<dd>{formatQuantity(face.folds[found.index]!, 'angle')}</dd>
			{/if}
			{#if piece}<dt>Mass</dt>
				<dd>{formatQuantity(piece.group.mass[piece.row]!, 'mass')}</dd>{/if}
		</dl>
		<div class="sentence border-hair mt-2 border-t pt-2 text-[13.5px]! leading-snug!" data-testid="card-why">
			{#if clause}
				Clause <button
					type="button"
					class="figures text-patina-deep text-[12px] underline"
					onclick={() => (workbench.selection.clause = clause.path)}>{clause.number}</button
				>
				{#if exception}sets it by hand{:else if found.kind === 'cell'}took it as {shape?.kind === 'edge'
						? 'an'
						: 'a'}
					{shape?.kind} cell{:else}runs here{/if}{#if piece}: {piece.group.part} · {piece.group
						.variant}{:else}: left open{/if}.
				{#if piece}
					{#each [...piece.group.perPiece] as [name, values] (name)}
						<em>{name.replaceAll('_', ' ')}</em> is
						<span class="figures text-[12px]">{perPieceText(name, values[piece.row]!)}</span>, from the same
						clause.
					{/each}
					{#each piece.group.flags.get(piece.row) ?? [] as flag (flag)}<span class="text-oxide block"
							>{flag}.</span
						>{/each}
				{/if}
			{:else if found.kind === 'cell'}No rule took it.{:else}No line run goes along it.{/if}
		</div>
		{#if found.kind === 'cell'}
			<p class="mt-2 text-[12px]">
				By hand{cellAddresses.length > 1 ? ` on ${formatNumber(cellAddresses.length)} cells` : ''}: <ChoiceChip
					value={exception ? (exception.put === 'open' ? '-' : exception.put.variant) : '='}
					options={putOptions}
					label="Exception for {mark}"
					bind:open={choosing}
					onchoose={setException}
				/>
			</p>
			{#if own}
				<p class="mt-1 text-[12px]">
					{cellAddresses.length > 1 ? 'Their' : 'Its'} part:
					<ChoiceChip value={own} options={partOptions} label="Part of {mark}" onchoose={swapPart} />
				</p>
			{/if}
		{/if}
	</aside>
{/if}
