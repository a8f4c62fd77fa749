import { joinRims, type JoinedFaces } from '../cladding/join-rims';
import type { SetOutFace } from '../cladding/model';
import { offsetsOn } from '../grid/displaced';
import { meetingRims } from '../grid/meeting-rims';
import { faceAddress } from '../mass/face';
import type { NodeGrid } from '../grid/node-grid';
import { followsLevels, guidesOf, setOut, type Following } from '../grid/set-out';
import { guidesOfPattern } from '../pattern/lay-cells';
import type { Project, Zone } from '../project/schema';
import { pathTo } from '../project/typed-path';
import { refuse } from '../units/problem';
import { layOutChains } from './lay-out-chains';
import { layOutFace, type FaceOfZone, type SetOutFaces } from './lay-out-face';
import { layOutLayer } from './lay-out-layer';
import { layOutPath } from './lay-out-path';
import { layOutWeb } from './lay-out-web';
import { facesOfMass, guidesNamed } from './masses';
import type { Kept } from './memo';
import type { Run } from './stage';

/** A code like another that no zone has. */
function freeCode(code: string, { zones }: Project): string {
	const base = code.replace(/\d+$/, '').slice(0, 4);
	const taken = new Set(zones.map((zone) => zone.code));
	for (let n = 2; ; n++) if (!taken.has(`${base}${n}`)) return `${base}${n}`;
}

function checkCode(zone: Zone, project: Project): void {
	const at = pathTo('zones', zone.id, 'code');
	const namesake = project.zones.find(({ code }) => code === zone.code)!;
	if (namesake !== zone)
		refuse(
			at,
			`${zone.code} is the code of ${namesake.name} already; every zone has its own, since marks begin with it`,
			[freeCode(zone.code, project)].map((value) => ({ label: value, path: at, value }))
		);
}

function facesOfZone(run: Run, zone: Zone): FaceOfZone[] {
	const at = pathTo('zones', zone.id, 'faces');
	if (zone.faces.length === 0) refuse(at, `${zone.name} has no faces yet; choose at least one`);
	const named = zone.faces.map(({ mass, face }) => `${mass} ${face}`);
	const twice = zone.faces.find((_, k) => named.indexOf(named[k]!) < k);
	if (twice) refuse(at, `the face "${twice.face}" of "${twice.mass}" is in the zone twice; take one out`);
	return zone.faces.map((wanted): FaceOfZone => {
		const faces = facesOfMass(run, wanted.mass, at);
		const face = faces.value.find((one) => one.name === wanted.face);
		if (!face)
			return refuse(
				at,
				`the mass "${wanted.mass}" has no face "${wanted.face}"; it has ${faces.value.map((one) => one.name).join(', ')}`
			);
		return { face, faces, mass: wanted.mass, slot: [zone.id, wanted.mass, face.name] };
	});
}

/** What a zone is set out on is divided and joined to cells, or to lines; its faces as they stand beside each other. @throws ProblemError */
export async function layOut(run: Run, zone: Zone): Promise<Kept<JoinedFaces>> {
	checkCode(zone, run.project);
	const laid = await layOutAll(run, zone);
	return run.memo.use(['rims', zone.id], laid, () =>
		run.timed('cells', () =>
			joinRims(
				laid.map(({ value }) => value),
				() => run.memo.nextSerial()
			)
		)
	);
}

async function layOutAll(run: Run, zone: Zone): Promise<Kept<SetOutFace>[]> {
	const { on } = zone;
	switch (on.is) {
		case 'faces':
			return layOutFaces(run, zone);
		case 'layer':
			return layOutLayer(run, zone, on, (parent) => setOutFaces(run, parent));
		case 'web':
			return layOutWeb(run, zone, on, (side) => layOut(run, side));
		case 'chains':
			return layOutChains(run, zone, on, (other) => layOut(run, other));
		case 'path':
			return layOutPath(run, zone, on, {
				facesOf: (other) => facesOfZone(run, other),
				laidOf: (other) => layOut(run, other)
			});
	}
}

/** @throws ProblemError */
function setOutFaces(run: Run, zone: Zone): SetOutFaces & { readonly follow: Following } {
	const found = facesOfZone(run, zone);
	const follow = {
		levels: followsLevels(zone.settingOut) ? run.project.levels : [],
		guides: guidesNamed(run, [...guidesOf(zone.settingOut), ...guidesOfPattern(zone.pattern)])
	};
	const grids = gridsOf(run, zone, found, follow);
	return { found, grids, offsets: movesOf(run, zone, found, grids), follow };
}

async function layOutFaces(run: Run, zone: Zone): Promise<Kept<SetOutFace>[]> {
	const { found, grids, offsets, follow } = setOutFaces(run, zone);
	const laid: Kept<SetOutFace>[] = [];
	for (const [k, one] of found.entries()) {
		await run.pause();
		laid.push(layOutFace(run, zone, one, grids[k]!, offsets[k]!, follow));
	}
	return laid;
}

/** How far the nodes of each face are moved by the clauses of its zone. */
const movesOf = (
	{ memo, timed }: Run,
	{ moves }: Zone,
	faces: readonly FaceOfZone[],
	grids: readonly Kept<NodeGrid>[]
): (Float64Array | null)[] =>
	faces.map(({ face, mass, slot }, k) => {
		const address = faceAddress(mass, face.name);
		const { value } = grids[k]!;
		return memo.use(['moves', ...slot], [moves, value.across.steps, value.up.steps], () =>
			timed('grid', () => offsetsOn(address, value, moves))
		).value;
	});

/** The faces of a zone set out, each by itself, then anew where they have to meet others. */
function gridsOf(run: Run, zone: Zone, faces: readonly FaceOfZone[], follow: Following): Kept<NodeGrid>[] {
	const { memo, timed } = run;
	const at = pathTo('zones', zone.id, 'settingOut');
	const { settingOut } = zone;
	const alone = faces.map(({ face, faces: kept, slot }) =>
		memo.use(['grid', ...slot], [kept, settingOut, follow.levels, [...follow.guides]], () =>
			timed('grid', () => setOut(face, settingOut, at, follow))
		)
	);
	if (faces.length < 2) return alone;
	const rims = memo.use(['meeting rims', zone.id], alone, () =>
		timed('grid', () =>
			meetingRims(
				faces.map(({ face }, k) => ({ face, grid: alone[k]!.value })),
				settingOut
			)
		)
	);
	return alone.map((grid, k) => {
		const [{ face, slot }, wanted] = [faces[k]!, rims.value[k]];
		if (!wanted) return grid;
		return memo.use(['meeting grid', ...slot], [grid, rims], () =>
			timed('grid', () => setOut(face, settingOut, at, follow, wanted))
		);
	});
}
