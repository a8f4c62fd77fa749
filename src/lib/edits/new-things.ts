import type { Form, FormKind, Mass } from '$core/project/form-schema';
import type { Zone } from '$core/project/schema';
import { freshId } from './fresh-id';

/** Forms that start from values; an imported one starts from a file. */
export type NewFormKind = Exclude<FormKind, 'imported'>;

/** What the list of new masses says of each form. */
export const newFormWords: readonly { kind: NewFormKind; label: string }[] = [
	{ kind: 'prism', label: 'Prism: a plan with upright sides' },
	{ kind: 'twisted', label: 'Twisted: a plan turned on its way up' },
	{ kind: 'lofted', label: 'Lofted: through sections' },
	{ kind: 'revolved', label: 'Revolved: a profile about an axis' },
	{ kind: 'ruled', label: 'Ruled: between a foot and a head' },
	{ kind: 'vaulted', label: 'Vaulted: a profile run along a line' },
	{ kind: 'dome', label: 'Dome: a sphere or ellipsoid, cut' },
	{ kind: 'net', label: 'Net: drawn to points or through them' },
	{ kind: 'waves', label: 'Waves: heights by a formula' }
];

const forms: Record<NewFormKind, { name: string; form: Form }> = {
	revolved: {
		name: 'Drum',
		form: {
			kind: 'revolved',
			axis: [0, 0],
			foot: 0,
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
		name: 'Skin',
		form: {
			kind: 'lofted',
			sections: [
				[0, 7000, 5000, 0],
				[9000, 5200, 5200, 20],
				[20000, 6000, 3600, 45]
			].map(([height, width, depth, turn]) => ({
				outline: { shape: 'ellipse' as const, width: 2 * width!, depth: 2 * depth! },
				at: [0, 0] as [number, number],
				height: height!,
				scale: [1, 1] as [number, number],
				turn: turn!
			})),
			between: 'smooth'
		}
	},
	vaulted: {
		name: 'Vault',
		form: {
			kind: 'vaulted',
			profile: {
				points: [
					[-6000, 0],
					[6000, 0]
				],
				joins: [{ arc: 3000 }],
				mirrored: false
			},
			at: [0, 0],
			foot: 4000,
			direction: 0,
			length: 24000
		}
	},
	twisted: {
		name: 'Shaft',
		form: {
			kind: 'twisted',
			outline: { shape: 'polygon', sides: 4, radius: 6000, rounding: 0 },
			at: [0, 0],
			foot: 0,
			head: 30000,
			twist: 45,
			taper: 0.8
		}
	},
	dome: {
		name: 'Dome',
		form: { kind: 'dome', at: [0, 0], foot: 0, radii: [8000, 8000, 6000], cut: 0 }
	},
	net: {
		name: 'Canopy',
		form: {
			kind: 'net',
			rows: [0, 5000, 10000, 15000].map((y, j) =>
				[0, 5000, 10000, 15000].map((x, i): [number, number, number] => [
					x,
					y,
					4000 + (i > 0 && i < 3 && j > 0 && j < 3 ? 2500 : 0)
				])
			),
			degrees: [3, 3],
			points: 'control'
		}
	},
	waves: {
		name: 'Waves',
		form: {
			kind: 'waves',
			from: [0, 0],
			size: [24000, 14000],
			foot: 5000,
			height: 'rise * sin(360 deg * x / length) * cos(180 deg * y / length)',
			values: [
				{ id: 'rise', value: '900 mm' },
				{ id: 'length', value: '12 m' }
			]
		}
	},
	prism: {
		name: 'Hall',
		form: {
			kind: 'prism',
			outline: { shape: 'rectangle', width: 24000, depth: 12000, rounding: 0 },
			at: [0, 0],
			foot: 0,
			head: 7000,
			curved: []
		}
	}
};

/** A mass of a form with sensible values to start from. */
export const newMass = (kind: NewFormKind, masses: readonly Mass[]): Mass =>
	massOf(forms[kind].name, forms[kind].form, masses);

/** A mass of a form under a name that is not taken yet. */
export function massOf(name: string, form: Form, masses: readonly Mass[]): Mass {
	const base =
		name
			.toLowerCase()
			.replace(/[^a-z0-9]+/g, '-')
			.replace(/^[^a-z]+|-$/g, '') || 'mass';
	const id = freshId(base, masses);
	return {
		id,
		name: id === base ? name : `${name} ${id.slice(base.length + 1)}`,
		form,
		faces: [],
		evened: null,
		trims: []
	};
}

export function duplicateMass(mass: Mass, masses: readonly Mass[]): Mass {
	return { ...mass, id: freshId(mass.id, masses), name: `${mass.name} copy`.slice(0, 120) };
}

/** A zone on faces: rectangles of about 1.5 m, nothing on them yet. */
export function newZone(name: string, faces: Zone['faces'], zones: readonly Zone[]): Zone {
	const codes = new Set(zones.map((zone) => zone.code));
	const letters =
		name
			.replace(/[^A-Za-z]/g, '')
			.toUpperCase()
			.slice(0, 2) || 'Z';
	let code = letters;
	for (let n = 2; codes.has(code); n++) code = `${letters}${n}`;
	return {
		id: freshId(faces[0]?.mass ?? 'zone', zones),
		code,
		name,
		on: { is: 'faces' },
		faces,
		setOutAs: null,
		settingOut: {
			across: { by: 'at most', size: 1500 },
			up: { by: 'at most', size: 1500 },
			along: 'true length',
			planes: [0, 0, 1],
			shift: [0, 0],
			joint: 0,
			poleHole: 0,
			mostCells: 1_000_000
		},
		moves: [],
		pattern: { kind: 'rectangles' },
		slivers: null,
		layer: null,
		rules: [],
		runs: [],
		nodes: [],
		meetsWebs: false,
		exceptions: []
	};
}
