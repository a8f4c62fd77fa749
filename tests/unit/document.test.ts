import { expect } from 'chai';
import fc from '../property';
import { readFileSync } from 'node:fs';
import { applyEdits } from '../../src/core/project/commands';
import type { Edit } from '../../src/core/project/edits';
import { CommandError, DocumentError } from '../../src/core/project/faults';
import { hashOf } from '../../src/core/project/hash';
import { pathSegment, pathsMeet, valueAt } from '../../src/core/project/paths';
import { below, insertAt, moveAt, pathTo, removeAt, setAt } from '../../src/core/project/typed-path';
import { DOCUMENT_VERSION } from '../../src/core/project/schema';
import { partSchema } from '../../src/core/project/part-definition';
import { readProject, readProjectText } from '../../src/core/project/read';
import { shippedParts } from '../../src/core/part/kit';
import { trialColumns } from '../../src/core/part/trials';
import { runOnce } from '../trial-run';

const demo = readProjectText(readFileSync(new URL('../lido.json', import.meta.url), 'utf8'));

describe('project document', () => {
	it('faults are sentences with their path; unknown keys are refused', () => {
		const faults = (value: unknown): string => {
			try {
				readProject(value);
			} catch (error) {
				expect(error).to.be.instanceOf(DocumentError);
				return (error as DocumentError).message;
			}
			return '';
		};
		expect(faults([])).to.match(/JSON object/);
		expect(faults({})).to.match(/format/);
		expect(faults({ ...demo, version: DOCUMENT_VERSION + 1 })).to.match(/version: 10 is not known/);
		expect(faults({ ...demo, colour: 1 })).to.match(/colour: this key is not known/);
		expect(faults({ ...demo, zones: [{ ...demo.zones[0], code: 'gr' }] })).to.match(
			/zones\/0\/code: a code is/
		);
		expect(faults({ ...demo, masses: [demo.masses[0], demo.masses[0]] })).to.match(/"gull" is used twice/);
		expect(
			faults({ ...demo, masses: [{ ...demo.masses[2], form: { kind: 'revolved', turn: 'all' } }] })
		).to.match(/masses\/0\/form/);
		expect(() => readProjectText('{')).to.throw(DocumentError, 'not JSON');
	});

	it('a part with the word that version 5 had for its role is read, in documents, in commands and in files of parts', () => {
		const { role, ...rest } = shippedParts[0]!;
		const earlier = { ...rest, id: 'old', family: role };
		const { parts, ...whole } = demo;
		expect(readProject({ ...whole, version: 5, parts: [...parts, earlier] }).parts.at(-1)!.role).to.equal(
			role
		);
		expect(partSchema.parse(earlier)).to.deep.equal({ ...rest, id: 'old', role });
		const inserted: Edit = { do: 'insert', path: 'parts', index: 0, value: earlier };
		const { project, inverse } = applyEdits(demo, [inserted]);
		expect(project.parts[0]).to.deep.equal({ ...rest, id: 'old', role });
		// What lies below it is still validated by itself.
		const renamed = applyEdits(project, [{ do: 'set', path: 'parts/old/label', value: 'New' }]).project;
		expect(renamed.parts[0]!.label).to.equal('New');
		expect(renamed.parts[0]!.steps).to.equal(project.parts[0]!.steps);
		expect(() => applyEdits(project, [{ do: 'set', path: 'parts/old/role', value: 'roof' }])).to.throw(
			DocumentError,
			/role/
		);
		expect(applyEdits(project, inverse).project).to.deep.equal(demo);
	});

	it('a path knows what stands at its place: other values or names are no programs', () => {
		const gull = pathTo('zones', 'gull');
		const site = { id: 'roof/3/2/cell', place: null };
		const sites = below(gull, 'exceptions', 'left', 'sites');
		const { project } = applyEdits(demo, [
			setAt(below(gull, 'settingOut', 'up'), { by: 'count', count: 7 }),
			insertAt(below(gull, 'exceptions'), 0, { id: 'left', put: 'open', sites: [] }),
			insertAt(sites, 0, site),
			insertAt(sites, 1, { ...site, id: 'roof/3/3/cell' }),
			moveAt(below(sites, 'roof/3/3/cell'), 0),
			removeAt(below(sites, site.id))
		]);
		const zone = project.zones.find(({ id }) => id === 'gull')!;
		expect(zone.settingOut.up).to.deep.equal({ by: 'count', count: 7 });
		expect(zone.exceptions[0]!.sites.map(({ id }) => id)).to.deep.equal(['roof/3/3/cell']);
		expect(valueAt(project, below(sites, 'roof/3/3/cell', 'id'))).to.equal('roof/3/3/cell');
		// Not to be run: whether it is refused is asked of the compiler.
		void (() => [
			// @ts-expect-error a name is no number
			setAt(below(gull, 'name'), 3),
			// @ts-expect-error zones have no such value
			removeAt(below(gull, 'nam')),
			// @ts-expect-error bays do not start at the foot
			setAt(below(gull, 'settingOut', 'across'), { by: 'exact size', size: 9, start: 'foot' })
		]);
	});
});

describe('what version 6 said otherwise', () => {
	const list = 'zones/gull/exceptions';
	const cell = (n: number) => `gull.shell/C01/B0${n}/1`;
	const earlier = (n: number) => ({ id: cell(n), place: [0.1 * n, 0.05], put: 'open' });
	it('an exception for each cell is one for one cell, in documents and in commands of the log', () => {
		const { exceptions, ...gull } = demo.zones.find(({ id }) => id === 'gull')!;
		expect(exceptions).to.deep.equal([]);
		const zones = demo.zones.map((zone) =>
			zone.id === 'gull' ? { ...gull, exceptions: [earlier(1), { id: cell(2), put: 'open' }] } : zone
		);
		const read = readProject({ ...demo, version: 6, zones }).zones.find(({ id }) => id === 'gull')!;
		expect(read.exceptions).to.deep.equal([
			{ id: cell(1), put: 'open', sites: [{ id: cell(1), place: [0.1, 0.05] }] },
			{ id: cell(2), put: 'open', sites: [{ id: cell(2), place: null }] }
		]);
		// As the log has them: inserted one by one, one taken out by its address, and both taken back.
		const log: Edit[] = [
			{ do: 'insert', path: list, index: 0, value: earlier(1) },
			{ do: 'insert', path: list, index: 1, value: earlier(2) },
			{ do: 'remove', path: `${list}/${pathSegment(cell(1))}` }
		];
		const { project, inverse } = applyEdits(demo, log);
		expect(valueAt(project, list)).to.deep.equal([
			{ id: cell(2), put: 'open', sites: [{ id: cell(2), place: [0.2, 0.05] }] }
		]);
		expect(applyEdits(project, inverse).project).to.deep.equal(demo);
	});

	it('fields had other names: formulas of rules, parts and depths are read as they are written today', () => {
		const values = { angle: '10 deg + 5 deg * cell_warp / 10 mm' };
		const put = { variant: demo.variants[0]!.id, values };
		const rule = demo.zones[0]!.rules[0]!.id;
		const { project } = applyEdits(demo, [
			{ do: 'set', path: `zones/${demo.zones[0]!.id}/rules/${rule}/put`, value: put },
			{ do: 'set', path: `zones/${demo.zones[0]!.id}/layer`, value: { depth: '-1 m - from_tide_line / 4' } }
		]);
		const zone = project.zones[0]!;
		expect(zone.rules[0]!.put).to.deep.equal({
			...put,
			values: { angle: '10 deg + 5 deg * cell.warp / 10 mm' }
		});
		expect(zone.layer).to.deep.equal({ depth: '-1 m - distance.tide_line / 4', shifted: false });
		// A part that has the name of a field itself: its own name is not what the field was called.
		const part = partSchema.parse({
			id: 'old',
			label: 'Old',
			role: 'panel',
			use: '',
			anchor: { kind: 'ring', corners: 4 },
			inputs: [],
			limits: [],
			steps: [
				{ name: 'warp', do: 'number', value: '2 * cell_warp' },
				{ name: 'area', do: 'number', value: 'cell_area / 2' }
			],
			elements: [],
			measures: [{ name: 'all', label: 'All', kind: 'length', value: 'warp + 0.001 * area / 1 mm' }]
		});
		const run = runOnce(part, [
			[0, 0, 0],
			[1000, 0, 0],
			[1000, 80, 1000],
			[0, 0, 1000]
		]);
		expect(run.results.get('all')![0]).to.be.closeTo(2 * gapOf() + 0.0005 * areaOf(), 1e-9);

		/** By hand: the diagonals of the four points above, and four triangles about their middle. */
		function gapOf(): number {
			return 80_000_000 / Math.hypot(80 * 1000, 2_000_000, 80 * 1000);
		}
		function areaOf(): number {
			return trialColumns(part.anchor, [
				[0, 0, 0],
				[1000, 0, 0],
				[1000, 80, 1000],
				[0, 0, 1000]
			]).get('area')!;
		}
	});
});

describe('commands', () => {
	const path = 'zones/gull/settingOut/across/count';

	it('a command and its inverse give the same document back', () => {
		const edits: fc.Arbitrary<Edit> = fc.oneof(
			fc.integer({ min: 1, max: 90 }).map((value): Edit => ({ do: 'set', path, value })),
			fc.integer({ min: 0, max: 2 }).map((index): Edit => ({ do: 'move', path: 'zones/street', index })),
			fc.integer({ min: 0, max: 3 }).map((index): Edit => ({
				do: 'insert',
				path: 'variants',
				index,
				value: { id: 'extra', name: 'x', part: 'framed-glass', values: {} }
			})),
			fc
				.constantFrom('zones/plunge/runs/lines', 'masses/drum', 'masses/drum/form/profile/points/1')
				.map((at): Edit => ({ do: 'remove', path: at }))
		);
		fc.assert(
			fc.property(edits, (edit) => {
				const { project, inverse } = applyEdits(demo, [edit]);
				expect(applyEdits(project, inverse).project).to.deep.equal(demo);
			})
		);
	});

	it('several edits are taken back in the opposite order', () => {
		const { project, inverse } = applyEdits(demo, [
			{ do: 'set', path, value: 40 },
			{ do: 'remove', path: 'zones/gull/rules/whole' },
			{ do: 'move', path: 'zones/gull', index: 2 }
		]);
		expect(valueAt(project, path)).to.equal(40);
		expect(project.zones.map((zone) => zone.id)).to.deep.equal(['street', 'plunge', 'gull', 'shaft']);
		expect(applyEdits(project, inverse).project).to.deep.equal(demo);
	});

	it('what is not there (any more), or would break the document, is refused', () => {
		const refuse = (edit: Edit, error: typeof CommandError | typeof DocumentError, sentence: RegExp) =>
			expect(() => applyEdits(demo, [edit])).to.throw(error, sentence);
		refuse({ do: 'set', path: 'zones/gone/name', value: 'x' }, CommandError, /"gone" is not there/);
		refuse({ do: 'remove', path: 'name' }, CommandError, /members of a list/);
		refuse({ do: 'set', path, value: 'many' }, DocumentError, /count/);
		refuse({ do: 'insert', path: 'zones', index: 9, value: {} }, CommandError, /past the end/);
	});
});

describe('what an edit touches', () => {
	const anything = fc.oneof(
		fc.constantFrom<unknown>(null, true, 'x', '', {}, [], -1, 0, 2.5, 1e12, [[0, 0]], {
			by: 'count',
			count: 4
		}),
		fc.integer({ min: -3, max: 60 })
	);
	/** All paths of the demo that lead to something that can be set. */
	const paths: string[] = [];
	const walk = (value: unknown, at: string) => {
		if (at) paths.push(at);
		if (typeof value !== 'object' || value === null) return;
		for (const [key, below] of Object.entries(value)) {
			const id = Array.isArray(value) ? (below as { id?: unknown } | null)?.id : undefined;
			walk(below, `${at}${at && '/'}${typeof id === 'string' ? pathSegment(id) : key}`);
		}
	};
	walk(demo, '');

	/** The document with a value at a path and nothing validated: what a whole reading is then given. */
	function raw(path: string, value: unknown): unknown {
		const copy = structuredClone(demo) as unknown;
		const segments = path.split('/');
		const holder = segments.length > 1 ? valueAt(copy, segments.slice(0, -1).join('/')) : copy;
		const last = segments.at(-1)!.replaceAll('~', '/');
		const list = Array.isArray(holder) ? holder : null;
		const byId = list?.findIndex((member) => (member as { id?: unknown } | null)?.id === last) ?? -1;
		(holder as Record<string | number, unknown>)[byId >= 0 ? byId : last] = value;
		return copy;
	}

	it('is validated as the whole would be: the same documents, the same refusals', () => {
		fc.assert(
			// A document of an earlier version is brought up to date when it is read; no edit makes it one.
			fc.property(fc.constantFrom(...paths.filter((one) => one !== 'version')), anything, (path, value) => {
				let whole: unknown;
				try {
					whole = readProject(raw(path, value));
				} catch (error) {
					expect(error).to.be.instanceOf(DocumentError);
					expect(() => applyEdits(demo, [{ do: 'set', path, value }]), path).to.throw(DocumentError);
					return;
				}
				const { project } = applyEdits(demo, [{ do: 'set', path, value }]);
				expect(project).to.deep.equal(whole);
				expect(hashOf(project)).to.equal(hashOf(JSON.parse(JSON.stringify(whole))));
			}),
			{ numRuns: 600 }
		);
	});

	it('is all that is new: everything beside it is shared', () => {
		const { project } = applyEdits(demo, [
			{ do: 'set', path: 'zones/gull/settingOut/across/count', value: 40 }
		]);
		expect(project.masses).to.equal(demo.masses);
		expect(project.zones[1]).to.equal(demo.zones[1]);
		expect(project.zones[0]!.rules).to.equal(demo.zones[0]!.rules);
		expect(project.zones[0]!.settingOut.up).to.equal(demo.zones[0]!.settingOut.up);
		expect(project.zones[0]!.settingOut).not.to.equal(demo.zones[0]!.settingOut);
	});

	it('ids are used once after any way of putting them there', () => {
		const twice = /is used twice/;
		const variant = demo.variants[0]!;
		expect(() => applyEdits(demo, [{ do: 'insert', path: 'variants', index: 2, value: variant }])).to.throw(
			DocumentError,
			twice
		);
		expect(() =>
			applyEdits(demo, [{ do: 'set', path: `variants/${variant.id}/id`, value: demo.variants[1]!.id }])
		).to.throw(DocumentError, twice);
		const rule = demo.zones[0]!.rules[0]!;
		expect(() => applyEdits(demo, [{ do: 'set', path: 'zones/gull/rules', value: [rule, rule] }])).to.throw(
			DocumentError,
			/zones\/gull\/rules: the id/
		);
		// On the way of several edits an id may be there twice, as long as it is not in the end.
		const { project } = applyEdits(demo, [
			{ do: 'insert', path: 'variants', index: 1, value: { ...variant, name: 'Other' } },
			{ do: 'remove', path: 'variants/0' }
		]);
		expect(project.variants[0]!.name).to.equal('Other');
	});

	it('names the places that it decides, so that others can tell whether they are in each other’s way', () => {
		const touched = (...edits: Edit[]) => applyEdits(demo, edits).touched;
		expect(touched({ do: 'set', path: 'zones/gull/name', value: 'x' })).to.deep.equal(['zones/gull/name']);
		expect(touched({ do: 'remove', path: 'variants/mullion-slim' })).to.deep.equal(['variants/mullion-slim']);
		expect(touched({ do: 'move', path: 'zones/gull', index: 2 })).to.deep.equal(['zones/ order of gull']);
		// One more point moves all behind it.
		expect(touched({ do: 'remove', path: 'masses/drum/form/profile/points/1' })).to.deep.equal([
			'masses/drum/form/profile/points'
		]);
		expect(pathsMeet('zones/gull', 'zones/gull/name')).to.equal(true);
		expect(pathsMeet('zones/gull', 'zones/gulls')).to.equal(false);
		expect(pathsMeet('zones/ order of gull', 'zones/gull/name')).to.equal(false);
	});

	it('a list that would be too long or too short is refused with the number', () => {
		const points = (many: number) => Array.from({ length: many }, (_, k): [number, number] => [3000, k]);
		const path = 'masses/drum/form/profile/points';
		const { project } = applyEdits(demo, [{ do: 'set', path, value: points(20_000) }]);
		expect(() => applyEdits(project, [{ do: 'insert', path, index: 0, value: [1, 1] }])).to.throw(
			DocumentError,
			/20001 are too many; at most 20000/
		);
	});
});

describe('the number of a document', () => {
	const json = fc.jsonValue({ maxDepth: 4 });

	it('is the same for equal values, in whatever order their keys stand', () => {
		const turned = (value: unknown): unknown => {
			if (Array.isArray(value)) return value.map(turned);
			if (typeof value !== 'object' || value === null) return value;
			return Object.fromEntries(
				Object.entries(value)
					.reverse()
					.map(([key, below]) => [key, turned(below)])
			);
		};
		fc.assert(fc.property(json, (value) => hashOf(turned(value)) === hashOf(structuredClone(value))));
		expect(hashOf([-0])).to.equal(hashOf([0]));
		expect(hashOf({ a: 1, b: undefined })).to.equal(hashOf({ a: 1 }));
	});

	it('is another one for other values', () => {
		fc.assert(
			fc.property(json, json, (a, b) => {
				const same = JSON.stringify(a) === JSON.stringify(b);
				if (!same && hashOf([a]) === hashOf([b])) expect(a).to.deep.equal(b);
			}),
			{ numRuns: 2000 }
		);
		const seen = new Set(Array.from({ length: 200_000 }, (_, k) => hashOf({ at: [k, k / 3] })));
		expect(seen.size).to.equal(200_000);
		for (const [a, b] of [
			[
				[1, 2],
				[2, 1]
			],
			[[[1], 2], [[1, 2]]],
			[
				{ a: 1, b: 2 },
				{ a: 2, b: 1 }
			],
			['1', 1],
			[{}, []],
			[null, 'null']
		])
			expect(hashOf(a)).not.to.equal(hashOf(b));
	});
});
