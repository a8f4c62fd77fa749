import { columnValues } from '$core/field/column';
import type { FieldSource } from '$core/field/field';
import { fieldsOver } from '$core/field/fields';
import type { Followable } from '$core/field/followed';
import type { GridSite } from '$core/cladding/sites';
import type { Named } from '$core/named/named-values';
import { amountOf } from '$core/condition/amount';
import type { Condition } from '$core/project/condition-schema';
import type { Driver } from '$core/project/driver-schema';
import { formatQuantity, type LengthDisplay } from '$core/units/quantity';
import { inRadians } from '$core/units/scale';
import type { NumberKind } from '$core/units/dimension';
import { onPages } from '$lib/check/measures';
import { rimLabels } from '$lib/sheet/words';

/** Where somebody asks why, and how lengths are shown. */
export interface AskedAt {
	readonly over: GridSite;
	/** What fields are read from. */
	readonly face: Partial<FieldSource>;
	readonly site: number;
	readonly things: Followable;
	readonly display: LengthDisplay;
	readonly named: Named;
	/** Names of levels by their id. */
	readonly levels: ReadonlyMap<string, string>;
	/** Names of variants by their id. */
	readonly variants: ReadonlyMap<string, string>;
}

/** A field as a page knows it at the site: its label, its kind, and its value where the page can read it. */
function fieldAt(name: string, { over, face, site, things }: AskedAt) {
	const field = fieldsOver(over, things).find((one) => one.name === name);
	if (!field) return null;
	const isHere = field.needs.every((need) => onPages.includes(need));
	const value = isHere ? columnValues(field.column(face, Uint32Array.of(site)), 1)[0]! : null;
	return { label: field.label, kind: field.kind, value };
}

const shown = (value: number, kind: NumberKind, { display }: AskedAt) => formatQuantity(value, kind, display);

/** An amount of the document as it is read. */
function amountText(amount: number | string, kind: NumberKind, at: AskedAt): string {
	if (typeof amount === 'string') return amount;
	return shown(kind === 'angle' ? inRadians(amount) : amount, kind, at);
}

function bounds(condition: Extract<Condition, { is: 'range' }>, kind: NumberKind, at: AskedAt): string {
	const { at_least, at_most } = condition;
	const text = (amount: number | string) => amountText(amount, kind, at);
	if (at_least === null) return at_most === null ? '' : `at most ${text(at_most)}`;
	return at_most === null ? `at least ${text(at_least)}` : `${text(at_least)} to ${text(at_most)}`;
}

/**
 * A condition as something that is so at a place: "area is 1.8 m² (at least 1 m²)".
 * Conditions in brackets are said as they are asked.
 */
export function heldText(condition: Condition, at: AskedAt): string {
	switch (condition.is) {
		case 'all':
		case 'any':
			return condition.of.map((one) => heldText(one, at)).join(condition.is === 'all' ? ' and ' : ' or ');
		case 'none':
			return `not ${condition.of.map((one) => heldText(one, at)).join(' or ')}`;
		case 'kind':
			return `it is ${condition.of.join(' or ')}`;
		case 'corners':
			return `it has ${condition.of.join(' or ')} ${at.over === 'node' ? 'lines' : 'corners'}`;
		case 'slot':
			return `its slot is ${condition.of.join(' or ')}`;
		case 'rim':
			return `it lies on the rim: ${condition.of.map((side) => rimLabels[side]).join(' or ')}`;
		case 'beside':
			return `it has ${at.variants.get(condition.variant) ?? condition.variant} on ${condition.on}`;
		case 'face':
			return `it is on ${condition.of.map((face) => face.replace('.', ' · ')).join(' or ')}`;
		case 'looks':
			return `it looks ${condition.towards} within ${condition.within}°`;
		case 'levels': {
			const name = (id: string) => at.levels.get(id) ?? id;
			const above = condition.above && `above ${name(condition.above)}`;
			const below = condition.below && `below ${name(condition.below)}`;
			return `it is ${[above, below].filter(Boolean).join(' and ') || 'at any height'}`;
		}
		case 'every':
			return `it is one of every ${condition.step} ${condition.by}`;
		case 'chance':
			return `it was drawn by chance (seed ${condition.seed})`;
		case 'range': {
			const field = fieldAt(condition.field, at);
			if (!field) return condition.field;
			const asked = bounds(condition, field.kind, at);
			return field.value === null
				? `${field.label} is ${asked}`
				: `${field.label} is ${shown(field.value, field.kind, at)} (${asked})`;
		}
		case 'inside':
			return `it is inside ${condition.guide}`;
		case 'formula':
			return condition.formula;
	}
}

/** Where a value comes from, before the value itself: "follows height: 3 240 mm, held". */
export function drivenText(driver: Driver, at: AskedAt): string {
	if (typeof driver === 'string') return `by ${driver}`;
	if (driver.is === 'alternates') return `alternates by ${driver.by}`;
	if (driver.is === 'keeps out') {
		const seen = fieldAt(driver.blades === 'lying' ? 'profile_angle' : 'plan_angle', at);
		return `keeps out the sun${seen?.value == null ? '' : `, which this face sees at ${shown(seen.value, 'angle', at)}`}`;
	}
	if (driver.is === 'chance') return `is by chance (seed ${driver.seed})`;
	const field = fieldAt(driver.field, at);
	if (!field) return `follows ${driver.field}`;
	if (field.value === null) return `follows ${field.label}`;
	const [a, b] = driver.from.map((amount) => amountOf(amount, field.kind, at.named)) as [number, number];
	const isOut = field.value < Math.min(a, b) || field.value > Math.max(a, b);
	return `follows ${field.label}, ${shown(field.value, field.kind, at)}${isOut ? ' and held at the end of its range' : ''}`;
}
