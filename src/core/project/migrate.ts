import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

/** Bringing documents of earlier versions up to date; unknown or broken parts are left for the reader to name. */

export interface OldDocument {
	readonly version: number;
	readonly [key: string]: unknown;
}

type Loose = Record<string, unknown>;
const isRecord = (value: unknown): value is Loose =>
	typeof value === 'object' && value !== null && !Array.isArray(value);
const records = (value: unknown): Loose[] => (Array.isArray(value) ? value.filter(isRecord) : []);

/** In version 1 every form had one face. */
const faceOfForm: Record<string, string> = { revolved: 'shell', ruled: 'wall', lofted: 'skin' };

/** Outside moves from the mass to its faces; addresses start with the mass as well as the face. */
function fromVersion1(document: OldDocument): OldDocument {
	const masses = records(document['masses']).map(({ outside, ...mass }): Loose => {
		if (outside !== 'turned') return mass;
		const kind = isRecord(mass['form']) ? String(mass['form']['kind']) : '';
		return { ...mass, faces: [{ id: faceOfForm[kind] ?? 'shell', outside: 'turned' }] };
	});
	const zones = records(document['zones']).map((zone): Loose => {
		const massOf = new Map(
			records(zone['faces']).map((face) => [String(face['face']), String(face['mass'])])
		);
		const exceptions = records(zone['exceptions']).map((one): Loose => {
			const [face = '', ...rest] = String(one['id']).split('/');
			const mass = massOf.get(face);
			return mass ? { ...one, id: [`${mass}.${face}`, ...rest].join('/') } : one;
		});
		return zone['exceptions'] === undefined ? zone : { ...zone, exceptions };
	});
	return {
		...document,
		version: 2,
		...(Array.isArray(document['masses']) && { masses }),
		...(Array.isArray(document['zones']) && { zones })
	};
}

/** In version 2 every trim was an outline projected along a direction. */
function fromVersion2(document: OldDocument): OldDocument {
	const masses = records(document['masses']).map((mass): Loose => {
		const trims = records(mass['trims']).map((trim): Loose => ({ by: 'outline', ...trim }));
		return Array.isArray(mass['trims']) ? { ...mass, trims } : mass;
	});
	return { ...document, version: 3, ...(Array.isArray(document['masses']) && { masses }) };
}

/** In version 3 every bar was a box, hollow when it had a wall. */
function fromVersion3(document: OldDocument): OldDocument {
	const step = (one: Loose): Loose => {
		if (Array.isArray(one['steps'])) return { ...one, steps: records(one['steps']).map(step) };
		if (one['do'] !== 'bar' || 'profile' in one) return one;
		const { width, depth, wall, ...rest } = one;
		const profile =
			wall === undefined ? { shape: 'box', width, depth } : { shape: 'tube', width, depth, wall };
		return { ...rest, profile };
	};
	const parts = records(document['parts']).map((part): Loose => ({
		...part,
		steps: records(part['steps']).map(step)
	}));
	return { ...document, version: 4, ...(Array.isArray(document['parts']) && { parts }) };
}

/** Up to version 4 a project was known by its name alone; its id is one that the same name always gives. */
function fromVersion4(document: OldDocument): OldDocument {
	const { id = idFromName(String(document['name'])), ...rest } = document;
	return { ...rest, version: 5, id };
}

/** Parts say their role by another name since version 6; the schema takes the earlier one too. */
const fromVersion5 = (document: OldDocument): OldDocument => ({ ...document, version: 6 });

/** Exceptions for many cells, and fields by their names of today, since version 7; the schema takes the earlier ones too. */
const fromVersion6 = (document: OldDocument): OldDocument => ({ ...document, version: 7 });

/** What rules ask for is a condition since version 8; the schema takes the earlier keys too. */
const fromVersion7 = (document: OldDocument): OldDocument => ({ ...document, version: 8 });

/** The place under the sun came with version 9; without one a project has that of the schema. */
const fromVersion8 = (document: OldDocument): OldDocument => ({ ...document, version: 9 });

/** A UUID of version 8 (RFC 9562, 5.8) from the SHA-256 of a name. */
function idFromName(name: string): string {
	const bytes = sha256(utf8ToBytes(`project ${name}`)).slice(0, 16);
	bytes[6] = (bytes[6]! & 0x0f) | 0x80;
	bytes[8] = (bytes[8]! & 0x3f) | 0x80;
	return bytesToHex(bytes).replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');
}

const steps: readonly ((document: OldDocument) => OldDocument)[] = [
	fromVersion1,
	fromVersion2,
	fromVersion3,
	fromVersion4,
	fromVersion5,
	fromVersion6,
	fromVersion7,
	fromVersion8
];

/** The document in the newest version. */
export function upToDate(document: OldDocument): OldDocument {
	return steps.slice(document.version - 1).reduce((older, step) => step(older), document);
}
