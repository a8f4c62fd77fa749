import { massAtLevels, massFaces } from '$core/mass/faces';
import { movedForm } from '$core/mass/move';
import type { Mass } from '$core/project/form-schema';
import { insertAt, pathTo } from '$core/project/typed-path';
import type { Desk } from '$lib/state/desk.svelte';
import { newMass, newZone, type NewFormKind } from './new-things';

const BETWEEN_MASSES = 4000;

/** How far a new mass has to go to stand to the east of what is there (mm). */
function beside({ model, project }: Desk, mass: Mass): [number, number] {
	let east = -Infinity;
	for (const { positions, origin } of model.view.masses.flatMap((one) => one.faces))
		for (let k = 0; k < positions.length; k += 3) east = Math.max(east, positions[k]! + origin[0]);
	if (east === -Infinity) return [0, 0];
	let west = Infinity;
	for (const { surface } of massFaces(massAtLevels(mass, project.document.levels)))
		for (let k = 0; k < surface.net.length; k += 4)
			west = Math.min(west, surface.net[k]! / surface.net[k + 3]!);
	return [Math.ceil((east - west + BETWEEN_MASSES) / 1000) * 1000, 0];
}

/** Put up a mass of a form beside what stands, with a zone on it. */
export function addForm(desk: Desk, kind: NewFormKind): void {
	const fresh = newMass(kind, desk.project.document.masses);
	addMass(desk, { ...fresh, form: movedForm(fresh.form, beside(desk, fresh)) });
}

/** Put up a mass, with a zone on it: it is what is worked on then. */
export function addMass(desk: Desk, mass: Mass): void {
	const { masses, zones, levels } = desk.project.document;
	// A cap is a roof: it is set out by itself.
	const faces = massFaces(massAtLevels(mass, levels))
		.filter((face) => face.name !== 'cap')
		.map((face) => ({ mass: mass.id, face: face.name }));
	const zone = newZone(mass.name, faces, zones);
	const added = desk.do(
		`add ${mass.name}`,
		insertAt(pathTo('masses'), masses.length, mass),
		insertAt(pathTo('zones'), zones.length, zone)
	);
	if (!added) return;
	desk.activeZone = zone.id;
	desk.selection.clause = pathTo('zones', zone.id, 'faces');
}
