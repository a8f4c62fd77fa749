import type { Form, Mass, Zone } from '$core/project/schema';
import { freshId } from './words';

const forms: Record<Form['kind'], { name: string; form: Form }> = {
	revolved: {
		name: 'Drum',
		form: {
			kind: 'revolved',
			axis: [0, 0],
			profile: {
				points: [
					[4000, 0],
					[3500, 4000],
					[4000, 8000]
				],
				joins: 'smooth'
			},
			from: 0,
			turn: 360
		}
	},
	ruled: {
		name: 'Wall',
		form: {
			kind: 'ruled',
			foot: {
				points: [
					[0, 0, 0],
					[12000, 0, 0]
				],
				joins: 'line',
				closed: false
			},
			head: {
				points: [
					[0, 0, 4000],
					[6000, 1200, 4600],
					[12000, 0, 4000]
				],
				joins: 'smooth',
				closed: false
			}
		}
	},
	lofted: {
		name: 'Roof',
		form: {
			kind: 'lofted',
			sections: [0, 6000, 12000].map((y, k) => ({
				points: [
					[0, y, 4000],
					[8000, y, 5000 + 800 * (k % 2)],
					[16000, y, 4000]
				],
				joins: 'smooth' as const,
				closed: false
			})),
			between: 'smooth'
		}
	}
};

/** A mass of a form with sensible values to start from. */
export function newMass(kind: Form['kind'], masses: readonly Mass[]): Mass {
	const { name, form } = forms[kind];
	const id = freshId(name.toLowerCase(), masses);
	return {
		id,
		name: id === name.toLowerCase() ? name : `${name} ${id.split('-').at(-1)}`,
		form,
		outside: 'as drawn'
	};
}

/** A zone on one face: rectangles of about 1.5 m, nothing on them yet. */
export function newZone(name: string, face: Zone['faces'][number], zones: readonly Zone[]): Zone {
	const codes = new Set(zones.map((zone) => zone.code));
	const letters =
		name
			.replace(/[^A-Za-z]/g, '')
			.toUpperCase()
			.slice(0, 2) || 'Z';
	let code = letters;
	for (let n = 2; codes.has(code); n++) code = `${letters}${n}`;
	return {
		id: freshId(face.mass, zones),
		code,
		name,
		faces: [face],
		settingOut: {
			across: { by: 'at most', size: 1500 },
			up: { by: 'at most', size: 1500 },
			along: 'true length'
		},
		pattern: { kind: 'rectangles' },
		rules: [],
		runs: [],
		exceptions: []
	};
}
