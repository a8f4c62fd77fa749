<script lang="ts">
	import { fieldNames } from '$core/field/fields';
	import { namedIn, namedValues } from '$core/named/named-values';
	import { isWithin } from '$core/project/paths';
	import { insertAt, pathTo, removeAt } from '$core/project/typed-path';
	import type { Dimension } from '$core/units/dimension';
	import { formatNumber, formatQuantity } from '$core/units/quantity';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import Clause from '$lib/frame/Clause.svelte';

	/** Values that have a name and are used in many places. */
	let { number }: { number: string } = $props();
	const desk = useDesk();
	const list = $derived(desk.project.document.named);
	const problems = $derived(desk.model.view.problems.filter(({ at }) => isWithin(at, 'named')));

	/** Formulas of the project, the values themselves included: what names one of them uses it. */
	const texts = $derived.by(() => {
		const found: string[] = [];
		const walk = (value: unknown) => {
			if (typeof value === 'string') found.push(value);
			else if (typeof value === 'object' && value !== null) Object.values(value).forEach(walk);
		};
		const { zones, named, bound } = desk.project.document;
		for (const { rules, runs, nodes, exceptions, layer } of zones)
			walk([rules, runs, nodes, layer, exceptions.map(({ put }) => put)]);
		for (const { value } of [...named, ...bound]) found.push(value);
		return found;
	});
	const used = $derived(new Set(namedIn(texts, desk.named).keys()));

	const kinds = { length: [1, 0], area: [2, 0], volume: [3, 0], angle: [0, 1] } as const;
	/** What one comes to, where its formula does not say so itself. */
	function worth(id: string, formula: string): string {
		const known = desk.named.get(id);
		if (!known || known.type.is !== 'number' || /^[\d.\s]+[a-z²^\d°]*$/i.test(formula)) return '';
		const { length, angle } = known.type.dimension as Dimension;
		const kind = Object.entries(kinds).find(([, [l, a]]) => l === length && a === angle)?.[0] as
			keyof typeof kinds | undefined;
		return kind ? formatQuantity(known.value, kind, desk.display) : formatNumber(known.value, 3);
	}
	/** Why a list of values cannot be, in words. */
	function fault(next: typeof list): string | null {
		try {
			namedValues(next, fieldNames);
			return null;
		} catch (error) {
			return (error as Error).message.replace(/^named[^:]*: /, '');
		}
	}
	const withValue = (id: string, value: string) =>
		list.map((one) => (one.id === id ? { ...one, value } : one));
	const withName = (id: string, name: string) =>
		list.map((one) => (one.id === id ? { ...one, id: name } : one));
	function checkName(id: string, text: string): string | null {
		if (used.has(id)) return `Formulas name ${id}; let them name something else first`;
		if (!/^[a-z][a-z0-9_]*$/.test(text))
			return 'A name is lower-case letters, digits and _, starting with a letter';
		if (list.some((one) => one.id === text && one.id !== id))
			return `There is a value called ${text} already`;
		return fault(withName(id, text));
	}
	function add() {
		const names = ['storey', 'joint', 'module'];
		const id = names.find((name) => !list.some((one) => one.id === name)) ?? `value_${list.length + 1}`;
		const value = { storey: '3600 mm', joint: '12 mm', module: '1500 mm' }[id] ?? '1000 mm';
		desk.do(`named value ${id}`, insertAt(pathTo('named'), list.length, { id, value }));
	}
</script>

<Clause
	{number}
	path={pathTo('named')}
	{problems}
	effect="{list.length} named"
	actions={[
		{ label: 'Add a named value', act: add },
		...list.map(({ id }) => ({
			label: `Remove ${id}`,
			act: () => desk.do(`named value ${id} removed`, removeAt(pathTo('named', id))),
			disabled: used.has(id) && 'Formulas name it; let them name something else first'
		}))
	]}
>
	{#if list.length}Named values:
		{#each list as { id, value }, k (id)}<span
				><TextChip
					value={id}
					label="Name of the value"
					look="name"
					check={(text) => checkName(id, text)}
					oncommit={(text) => desk.set(pathTo('named', id, 'id'), text, `value ${id} called ${text}`)}
				/> is <TextChip
					{value}
					label="Value of {id}"
					look="formula"
					check={(text) => fault(withValue(id, text))}
					oncommit={(text) => desk.set(pathTo('named', id, 'value'), text, `${id} ${text}`)}
				/>{#if worth(id, value)}<span class="figures text-ink-2 text-[12px]">{' '}= {worth(id, value)}</span
					>{/if}{#if !used.has(id)}<span class="text-ink-2 font-sans text-[12px]">{' '}(not used)</span
					>{/if}{k + 1 < list.length ? ',' : '.'}</span
			>{' '}{/each}{:else}No named values yet: a storey, a joint, to be used in formulas.{/if}
	<button type="button" class="text-patina-deep text-[12px] underline" onclick={add}>value</button>
</Clause>
