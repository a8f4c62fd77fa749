<script lang="ts">
	import { isWithin } from '$core/project/paths';
	import { pathTo, type Path } from '$core/project/typed-path';
	import { momentOf, sunAt } from '$core/sun/position';
	import { clockText, dayText, readClock, readDay } from '$core/units/calendar';
	import { formatQuantity } from '$core/units/quantity';
	import TextChip from '$lib/components/TextChip.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { onDestroy } from 'svelte';
	import Clause from '$lib/frame/Clause.svelte';

	/** Where the building stands under the sun, and over which hours sun is counted. */
	let { number }: { number: string } = $props();
	const desk = useDesk();
	const sun = $derived(desk.project.document.sun);
	const problems = $derived(desk.model.view.problems.filter(({ at }) => isWithin(at, 'sun')));
	const standsAt = (hour: number) => sunAt(sun, momentOf(sun.day, hour, sun.ahead));
	const now = $derived(problems.length ? null : standsAt(desk.lightAt ?? sun.hour));
	const effect = $derived(
		!now ? '' : now.altitude > 0 ? `${formatQuantity(now.altitude, 'angle')} high` : 'it is down'
	);
	const aDay = (text: string) =>
		readDay(text, Number(sun.day.slice(0, 4))) ? null : 'A day is wanted, as in 21 June 2026';
	const anHour = (text: string) =>
		readClock(text) === null ? 'An hour of the day is wanted, as in 12:30' : null;
	const setDay = (path: Path<string>, text: string, what: string) =>
		desk.set(path, readDay(text, Number(sun.day.slice(0, 4)))!, `${what} ${text}`);
	const setHour = (path: Path<number>, text: string, what: string) =>
		desk.set(path, readClock(text)!, `${what} ${text}`);

	/** Hours of the day that pass in a second while it is played. */
	const HOURS_A_SECOND = 2;
	let playing = $state(0);
	function stop() {
		cancelAnimationFrame(playing);
		playing = 0;
	}
	/** From sunrise to sunset, then back to the hour of the clause. */
	function play() {
		if (playing) {
			stop();
			desk.lightAt = sun.hour;
			return;
		}
		const hours = Array.from({ length: 24 * 12 }, (_, k) => k / 12).filter(
			(hour) => standsAt(hour).altitude > 0
		);
		const [rise, set] = [hours[0], hours.at(-1)];
		if (rise === undefined || set === undefined) return;
		const started = performance.now();
		const step = () => {
			const hour = rise + ((performance.now() - started) / 1000) * HOURS_A_SECOND;
			desk.lightAt = Math.min(set, hour);
			if (hour < set) playing = requestAnimationFrame(step);
			else {
				stop();
				desk.lightAt = sun.hour;
			}
		};
		playing = requestAnimationFrame(step);
	}
	onDestroy(stop);
</script>

{#snippet day(path: Path<string>, value: string, label: string)}
	<TextChip
		value={dayText(value)}
		{label}
		look="formula"
		check={aDay}
		oncommit={(text) => setDay(path, text, label.toLowerCase())}
	/>
{/snippet}
{#snippet hour(path: Path<number>, value: number, label: string)}
	<TextChip
		value={clockText(value)}
		{label}
		look="formula"
		check={anHour}
		oncommit={(text) => setHour(path, text, label.toLowerCase())}
	/>
{/snippet}
{#snippet degrees(path: Path<number>, value: number, label: string, most: number)}
	<ValueChip {path} {value} kind="angle" {label} of="sun" step={1} min={-most} max={most} />
{/snippet}

<Clause {number} path={pathTo('sun')} {problems} {effect}>
	The sun of latitude <span class="whitespace-nowrap"
		>{@render degrees(pathTo('sun', 'latitude'), sun.latitude, 'Latitude', 90)},</span
	>
	longitude
	<span class="whitespace-nowrap"
		>{@render degrees(pathTo('sun', 'longitude'), sun.longitude, 'Longitude', 180)},</span
	>
	true north {@render degrees(pathTo('sun', 'north'), sun.north, 'True north', 360)} from y, on {@render day(
		pathTo('sun', 'day'),
		sun.day,
		'Day'
	)} at
	<span class="whitespace-nowrap">{@render hour(pathTo('sun', 'hour'), sun.hour, 'Hour')},</span>
	the clock
	<ValueChip
		path={pathTo('sun', 'ahead')}
		value={sun.ahead}
		kind="hours"
		label="Clock ahead"
		of="sun"
		step={0.5}
		min={-14}
		max={14}
	/>
	ahead of universal time. Hours of sun are counted from {@render day(
		pathTo('sun', 'period', 'from'),
		sun.period.from,
		'Counted from'
	)} to
	<span class="whitespace-nowrap"
		>{@render day(pathTo('sun', 'period', 'to'), sun.period.to, 'Counted to')},</span
	>
	between {@render hour(pathTo('sun', 'period', 'since'), sun.period.since, 'Counted since')} and
	<span class="whitespace-nowrap"
		>{@render hour(pathTo('sun', 'period', 'until'), sun.period.until, 'Counted until')}.</span
	>
	<span class="font-sans text-[12px]"
		><button
			type="button"
			class="text-patina-deep underline"
			aria-pressed={desk.lightAt !== null}
			onclick={() => {
				stop();
				desk.lightAt = desk.lightAt === null ? sun.hour : null;
			}}>{desk.lightAt === null ? 'light the model so' : 'light as before'}</button
		>{' '}<button type="button" class="text-patina-deep underline" onclick={play}
			>{playing ? 'stop the day' : 'play the day'}</button
		></span
	>
</Clause>
