import { shippedParts } from '../../src/core/part/kit';
import { type Page } from '@playwright/test';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { accessible, copyDemo, expect, saved, settled, test, visit } from './app';

const problems: string[] = [];
test.beforeEach(({ page }) => {
	problems.length = 0;
	page.on('pageerror', (error) => problems.push(error.message));
});
test.afterEach(() => expect(problems).toEqual([]));

interface Part {
	id: string;
	label: string;
	inputs: { name: string; default: unknown }[];
	steps: Record<string, unknown>[];
	limits: Record<string, unknown>[];
}
interface Document {
	parts: Part[];
	variants: { id: string; name: string; part: string; values: Record<string, unknown> }[];
}
const documentOf = async (page: Page, id: string) =>
	((await (await page.request.get(`/api/projects/${id}`)).json()) as { document: Document }).document;
const stageReady = (page: Page) => expect(page.getByTestId('stage')).toHaveAttribute('data-settled', 'true');
const sheet = (page: Page) => page.getByTestId('bench-sheet');

async function add(page: Page, menu: RegExp, item: string): Promise<void> {
	await sheet(page).getByRole('button', { name: menu }).click();
	const one = { name: item, exact: true };
	await page.getByRole('menuitem', one).or(page.getByRole('option', one)).click();
}
async function type(page: Page, text: string): Promise<void> {
	await page.keyboard.press('Control+A');
	await page.keyboard.type(text);
	await page.keyboard.press('Enter');
}

test('a panel is made from nothing, stands in the model, follows its variant, breaks harmlessly, is swapped', async ({
	page
}) => {
	test.slow();
	const id = await copyDemo(page);
	await visit(page, `/project/${id}/kit?plain`);
	await page.getByRole('button', { name: 'New part' }).click();
	await page.getByRole('menuitem', { name: 'on cells of four corners' }).click();
	await stageReady(page);
	await expect(sheet(page)).toContainText('No steps yet');

	// An inset, a lifted pane, reveals between them.
	await add(page, /^Step/, 'inset');
	await add(page, /^Step/, 'lift');
	await add(page, /^Step/, 'plate');
	await add(page, /^Step/, 'band sheet');
	await add(page, /^Step/, 'thicken');
	await expect(page.locator('[data-step="band_sheet"]')).toContainText('sheet of 4');
	await expect(page.locator('[data-step="thicken"]')).toContainText('4 solids');

	// What a step stands on is picked on the stage too.
	const plate = page.locator('[data-step="plate"]');
	await plate.getByRole('button', { name: 'Pick ring of plate on the stage' }).click();
	await page.getByTestId('stage').getByRole('button', { name: 'inset', exact: true }).click();
	await expect(plate.getByRole('combobox', { name: 'ring of plate: inset' })).toBeVisible();
	await page.keyboard.press('Control+z');
	await expect(plate.getByRole('combobox', { name: 'ring of plate: lift' })).toBeVisible();

	// A formula of an input; units that do not fit are refused in words, and nothing changes.
	await add(page, /^Input/, 'a length');
	const by = page.locator('[data-step="lift"]').getByRole('button', { name: /^by of lift/ });
	await by.click();
	await type(page, 'size * size');
	await expect(page.locator('[data-step="lift"]')).toContainText('a length is wanted');
	await type(page, '-size / 2');
	await expect(by).toHaveText('-size / 2');

	// A limit on it, and what is ordered.
	await sheet(page).getByRole('button', { name: '+ Limit' }).click();
	await sheet(page)
		.getByRole('button', { name: /^at least of limit 1/ })
		.click();
	await type(page, '50 mm');
	await sheet(page).getByRole('combobox', { name: 'What limit 1 does' }).click();
	await page.getByRole('option', { name: 'Hold' }).click();
	await sheet(page).getByRole('button', { name: '+ Element' }).click();
	await sheet(page).getByRole('combobox', { name: 'Step 1 of element' }).click();
	await page.getByRole('option', { name: 'plate', exact: false }).first().click();
	await saved(page);
	const [made] = (await documentOf(page, id)).parts;
	expect(made!.steps.map((step) => step['do'])).toEqual(['inset', 'lift', 'plate', 'band sheet', 'thicken']);
	expect(made!.steps[1]).toMatchObject({ of: 'inset', by: '-size / 2', along: 'normal' });
	expect(made!.limits[0]).toMatchObject({ of: 'size', at_least: '50 mm', then: 'hold' });

	// The name of a step changes wherever it is used.
	await page
		.locator('[data-step="inset"]')
		.getByRole('button', { name: /^Name of step/ })
		.click();
	await type(page, 'opening');
	await saved(page);
	expect((await documentOf(page, id)).parts[0]!.steps[1]).toMatchObject({ of: 'opening' });

	// A variant of it, put on the cells of a rule.
	await page.getByRole('tab', { name: 'Variants' }).click();
	await page.getByRole('button', { name: 'New variant' }).click();
	const cell = page.getByRole('textbox', { name: /^Size of/ });
	await cell.click();
	await type(page, '240');
	await saved(page);
	const variant = (await documentOf(page, id)).variants.find((one) => one.part === made!.id)!;
	expect(variant.values).toEqual({ size: 240 });
	await visit(page, `/project/${id}?plain`);
	await settled(page);
	const rule = page.locator('[data-clause^="zones/street/rules/"]').first();
	await rule.getByRole('combobox', { name: /^What rule/ }).click();
	await page.getByRole('option', { name: made!.label, exact: true }).click();
	await settled(page);
	await expect(page.getByTestId('sheet').getByRole('alert')).toHaveCount(0);
	const pieces = page.locator(`[data-clause="variants/${variant.id}"] [data-effect]`);
	await expect(pieces).toHaveText(/^[1-9]\d* pieces/);
	const count = await pieces.innerText();

	// A change of the variant goes into every piece.
	await page
		.locator(`[data-clause="variants/${variant.id}"]`)
		.getByRole('button', { name: /^Size: / })
		.click();
	await type(page, '300');
	await settled(page);

	// Broken on the bench: told at the step; the model stays as it was.
	await visit(page, `/project/${id}/part/${made!.id}?plain`);
	await stageReady(page);
	await expect(page.getByTestId('uses')).toContainText(/Used in 1 clause · [1-9]\d* pieces/);
	const opening = page.locator('[data-step="opening"]');
	await opening.hover();
	await opening.getByRole('button', { name: /^More for clause/ }).click();
	await page.getByRole('menuitem', { name: 'Mute' }).click();
	await expect(page.locator('[data-step="lift"]').getByRole('alert')).toContainText(/"opening" is muted/);
	await expect(sheet(page)).toContainText('as it last worked');
	await saved(page);
	await page.keyboard.press('Control+z');
	await expect(page.locator('[data-step="lift"]').getByRole('alert')).toHaveCount(0);
	await saved(page);

	// Swapped for a part that ships: pieces stay, what both have is kept, the rest is told.
	await visit(page, `/project/${id}?plain`);
	await settled(page);
	const clause = page.locator(`[data-clause="variants/${variant.id}"]`);
	await clause.getByRole('combobox', { name: /^Part of the variant/ }).click();
	await page.getByRole('option', { name: 'Deep window' }).click();
	await expect(page.getByText(/Deep window in place of .*dropped size/)).toBeVisible();
	await settled(page);
	await expect(pieces).toHaveText(count);
	await expect(page.getByTestId('sheet').getByRole('alert')).toHaveCount(0);
});

test('trials and the ends of inputs show what fails; anchors are dragged and typed; dragging compiles nothing', async ({
	page
}) => {
	const id = await copyDemo(page);
	await visit(page, `/project/${id}/part/framed-glass?plain`);
	await stageReady(page);
	const strip = page.getByTestId('strip');
	await expect(strip.getByRole('button', { name: /worst real/ })).toBeVisible();
	await strip.getByRole('button', { name: /triangle/ }).click();
	await expect(page.getByRole('button', { name: /^Anchor 3/ })).toBeVisible();
	await expect(page.getByRole('button', { name: /^Anchor 4/ })).toHaveCount(0);
	const card = page.getByRole('region', { name: 'On this trial' });
	const before = await card.innerText();
	const anchor = page.getByRole('button', { name: /^Anchor 2/ });
	const box = (await anchor.boundingBox())!;
	await page.mouse.move(box.x + 6, box.y + 6);
	await page.mouse.down();
	await page.mouse.move(box.x + 60, box.y - 30, { steps: 4 });
	await page.mouse.up();
	await expect(card).toContainText('moved');
	expect(await card.innerText()).not.toBe(before);
	await card.getByRole('button', { name: 'Type anchors' }).click();
	await card.getByRole('button', { name: /^Anchor 2 x:/ }).click();
	await type(page, '2400');
	await expect(page.getByRole('button', { name: /^Anchor 2: x 2400 / })).toBeVisible();
	await card.getByRole('button', { name: 'Put them back' }).click();
	await expect(card).not.toContainText('moved');

	await page.getByRole('button', { name: 'Inputs at their ends' }).click();
	await expect(strip.getByRole('button', { name: /Frame width: 400 mm.*flag/s })).toBeVisible();
	const slider = page.getByRole('slider', { name: 'Try Frame width' });
	await slider.focus();
	const mass = async () => /Mass\s+([\d.]+)/.exec(await card.innerText())?.[1];
	const was = await mass();
	for (let k = 0; k < 12; k++) await page.keyboard.press('ArrowRight');
	await expect.poll(mass).not.toBe(was);
	// The definition is as it ships: nothing was written.
	expect((await documentOf(page, id)).parts).toEqual([]);
});

test('the kit shows every part with a picture; a part goes out as JSON and comes in again', async ({
	page
}) => {
	const id = await copyDemo(page);
	await visit(page, `/project/${id}/kit?plain`);
	const kit = page.getByTestId('kit');
	const cards = kit.getByRole('listitem').filter({ has: page.getByRole('link') });
	await expect(cards).toHaveCount(shippedParts.length);
	await expect(kit).toHaveAttribute('data-pictures', String(shippedParts.length), { timeout: 90_000 });
	const card = kit.getByRole('listitem').filter({ hasText: 'Deep window' });
	await card.hover();
	const waiting = page.waitForEvent('download');
	await card.getByRole('button', { name: 'Export Deep window' }).click();
	const file = await (await waiting).path();
	await page.getByLabel('File of a part').setInputFiles(file);
	await stageReady(page);
	await saved(page);
	const [part] = (await documentOf(page, id)).parts;
	expect(part).toMatchObject({ label: 'Deep window' });
	expect(part!.id).not.toBe('deep-window');
	await visit(page, `/project/${id}/kit?plain`);
	await page
		.getByLabel('File of a part')
		.setInputFiles({ name: 'no.json', mimeType: 'application/json', buffer: Buffer.from('{"id":"x"}') });
	await expect(page.getByText(/no.json is not a part: label/)).toBeVisible();
});

test('a block from a spreadsheet is pasted over variants, all or nothing', async ({ page }) => {
	const id = await copyDemo(page);
	await visit(page, `/project/${id}/part/framed-glass?plain`);
	await page.getByRole('tab', { name: 'Variants' }).click();
	const cell = page.getByRole('textbox', { name: 'Frame width of roof light' });
	const paste = (text: string) =>
		cell.evaluate((field, data) => {
			const clipboardData = new DataTransfer();
			clipboardData.setData('text/plain', data);
			field.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
		}, text);
	await paste('61\t91\n62\t9000');
	await expect(page.getByText(/Nothing was pasted: Frame depth: 1 mm to 600 mm is accepted/)).toBeVisible();
	await paste('61\t91\n62\t92');
	await saved(page);
	const values = (await documentOf(page, id)).variants.map((one) => one.values);
	expect(values[0]).toMatchObject({ frame_width: 61, frame_depth: 91 });
	expect(values[1]).toMatchObject({ frame_width: 62, frame_depth: 92 });
});

test('one value is typed for several variants at once, and taken back by one key', async ({ page }) => {
	const id = await copyDemo(page);
	await visit(page, `/project/${id}/part/framed-glass?plain`);
	await page.getByRole('tab', { name: 'Variants' }).click();
	const rows = page.getByRole('checkbox', { name: /^Change .* together with others$/ });
	expect(await rows.count()).toBeGreaterThan(2);
	await rows.nth(0).check();
	await rows.nth(1).check();
	await expect(page.getByText('goes into all of them')).toBeVisible();
	await accessible(page);
	const widths = async () =>
		(await documentOf(page, id)).variants
			.filter(({ part }) => part === 'framed-glass')
			.map(({ values }) => values['frame_width']);
	const before = await widths();
	const cells = page.getByRole('textbox', { name: /^Frame width of / });
	await cells.nth(1).fill('73');
	await page.keyboard.press('Enter');
	await saved(page);
	await expect.poll(widths).toEqual([73, 73, ...before.slice(2)]);
	await page.keyboard.press('Escape');
	await page.getByRole('heading', { name: /^Variants of/ }).click();
	await page.keyboard.press('Control+z');
	await expect.poll(widths).toEqual(before);
});

test('a plate takes rings of all turns as its openings; steps run along a path, as many as fit', async ({
	page
}) => {
	const id = await copyDemo(page);
	await visit(page, `/project/${id}/kit?plain`);
	await page.getByRole('button', { name: 'New part', exact: true }).click();
	await page.getByRole('menuitem', { name: 'on cells of four corners' }).click();
	await stageReady(page);
	const choose = async (step: string, chip: RegExp, option: RegExp) => {
		await page.locator(`[data-step="${step}"]`).getByRole('combobox', { name: chip }).click();
		await page.getByRole('option', { name: option }).click();
	};
	await add(page, /^Step/, 'each');
	await choose('each', /^over of each/, /^small rings/);
	await add(page, /^Add a step within each/, 'middle');
	await add(page, /^Add a step within each/, 'shrink');
	await choose('shrink', /^to of shrink/, /^middle/);
	await sheet(page).getByRole('button', { name: 'Gather what each makes' }).click();
	await page.locator('[data-step="each"]').click({ position: { x: 3, y: 3 } });
	await add(page, /^Step/, 'plate');
	await choose('plate', /^ring of plate/, /^cell/);
	await sheet(page).getByRole('button', { name: '+ Element', exact: true }).click();
	const card = page.getByRole('region', { name: 'On this trial' });
	const mass = async () => Number(/Mass\s*([\d.]+)/.exec(await card.innerText())![1]);
	const whole = await mass();
	await sheet(page).getByRole('button', { name: 'Give opening of plate' }).click();
	// Four rings, each 0.2 of the way to its middle: 0.64 of the whole is left open.
	await expect.poll(async () => (await mass()) / whole).toBeCloseTo(0.36, 2);

	await add(page, /^Step/, 'along');
	await add(page, /^Add a step within along/, 'sphere');
	await sheet(page).getByRole('button', { name: 'Add an element within along' }).click();
	const made = page.getByRole('group', { name: 'Within along' });
	await expect(made).toContainText(/[2-9]\d? made/);
	const few = Number(/(\d+) made/.exec(await made.innerText())![1]);
	await page
		.locator('[data-step="along"]')
		.getByRole('button', { name: /^spacing of along/ })
		.click();
	await type(page, '150 mm');
	await expect
		.poll(async () => Number(/(\d+) made/.exec(await made.innerText())![1]))
		.toBeGreaterThan(1.5 * few);
	await saved(page);
	const [part] = (await documentOf(page, id)).parts;
	expect(part!.steps[1]).toMatchObject({ do: 'plate', ring: 'cell', opening: ['each_rings'] });
	expect(part!.steps[2]).toMatchObject({ do: 'along', spaced: 'at most', spacing: '150 mm' });
});

test('a group is made on the bench: steps for every edge, their points gathered, an element of them, by cases too', async ({
	page
}) => {
	const id = await copyDemo(page);
	await visit(page, `/project/${id}/kit?plain`);
	await page.getByRole('button', { name: 'New part' }).click();
	await page.getByRole('menuitem', { name: 'on cells of any corners' }).click();
	await stageReady(page);
	await add(page, /^Step/, 'each');
	await expect(page.getByRole('group', { name: 'Within each' })).toContainText('No steps in it yet');
	await add(page, /^Add a step within each/, 'point on path');
	const point = page.locator('[data-step="point_on_path"]');
	await expect(point.getByRole('combobox', { name: /^path of point_on_path: edge/ })).toBeVisible();
	await sheet(page).getByRole('button', { name: 'Gather what each makes' }).click();
	await sheet(page)
		.getByRole('button', { name: /^Name of what is gathered 1/ })
		.click();
	await type(page, 'middles');
	// The ring that was gathered is known below.
	await page.locator('[data-step="each"]').click({ position: { x: 3, y: 3 } });
	await add(page, /^Step/, 'plate');
	const plate = page.locator('[data-step="plate"]');
	await plate.getByRole('combobox', { name: /^ring of plate/ }).click();
	await page.getByRole('option', { name: 'middles' }).click();
	await expect(plate).toContainText('1 solid');
	await sheet(page).getByRole('button', { name: '+ Element', exact: true }).click();
	const card = page.getByRole('region', { name: 'On this trial' });
	await expect(card).toContainText(/Mass/);

	// Cases: one at its bound is split, and takes steps of its own.
	await add(page, /^Step/, 'cases');
	const cases = page.locator('[data-step="cases"]');
	await cases.getByRole('button', { name: /^of of cases/ }).click();
	await type(page, 'area / 1 m2');
	await expect(cases).toContainText(/area|not known/);
	await type(page, 'course');
	await sheet(page)
		.getByRole('button', { name: /^below of case 1/ })
		.click();
	await type(page, '3');
	// The bound is that of both cases; a third one parts the upper.
	await expect(sheet(page).getByRole('button', { name: /^from of case 2/ })).toHaveText('3');
	await sheet(page).getByRole('button', { name: 'Split case 2 of cases' }).click();
	await expect(sheet(page).getByRole('button', { name: /^from of case 3/ })).toHaveText('2 * 3');
	await page.keyboard.press('Control+z');
	await expect(sheet(page).getByRole('alert')).toHaveCount(0);
	await saved(page);
	const [made] = (await documentOf(page, id)).parts;
	expect(made!.steps[0]).toMatchObject({
		do: 'each',
		over: 'edges',
		of: 'cell',
		gathers: [{ name: 'middles', of: 'point_on_path', as: 'ring' }],
		steps: [{ do: 'point on path', path: 'edge', ratio: '0.5' }]
	});
	expect(made!.steps[2]).toMatchObject({ do: 'cases', of: 'course', cases: [{ below: '3' }, { from: '3' }] });
});

test('a mesh is brought in as a block, turned, and stands in the model between two grids; what cannot be is told', async ({
	page
}) => {
	test.slow();
	const id = await copyDemo(page);
	await visit(page, `/project/${id}/kit?plain`);
	const input = page.getByLabel('File of a part');
	const corners = ['0 0 0', '4 0 0', '4 6 0', '0 6 0', '0 6 2', '4 6 2'];
	const faces = ['1 4 3 2', '1 2 6 5', '1 5 4', '2 3 6', '3 4 5 6'];
	const obj = (list: string[]) =>
		Buffer.from([...corners.map((p) => `v ${p}`), ...list.map((f) => `f ${f}`), ''].join('\n'));
	await input.setInputFiles({
		name: 'folded.obj',
		mimeType: 'model/obj',
		buffer: obj([...faces, '1 2 3 4'])
	});
	await expect(page.getByText(/folded.obj cannot be taken: more than two of its faces meet/)).toBeVisible();
	const huge = Buffer.alloc(84 + 50 * 1_900_000);
	huge.writeUInt32LE(1_900_000, 80);
	const path = join(mkdtempSync(join(tmpdir(), 'zygaster-')), 'huge.stl');
	writeFileSync(path, huge);
	await input.setInputFiles(path);
	await expect(page.getByText(/huge.stl cannot be taken: it has 1\s900\s000 triangles/)).toBeVisible({
		timeout: 60_000
	});
	await input.setInputFiles({ name: 'wedge.obj', mimeType: 'model/obj', buffer: obj(faces) });
	await stageReady(page);
	await expect(page.locator('[data-step="shape"]')).toContainText('of wedge.obj, 8 triangles');
	const newer = page.getByLabel('Newer file of shape');
	await newer.setInputFiles({ name: 'open.obj', mimeType: 'model/obj', buffer: obj(faces.slice(1)) });
	const sheet = page.locator('[data-step="shape"]');
	await expect(sheet).toContainText('the sheet of open.obj, 6 triangles');
	await expect(sheet.getByRole('alert')).toHaveCount(0);
	await newer.setInputFiles({ name: 'wedge2.obj', mimeType: 'model/obj', buffer: obj(faces) });
	await expect(sheet).toContainText('the mesh of wedge2.obj, 8 triangles');
	const body = page.locator('[data-step="body"]');
	await expect(body.getByRole('img', { name: 'The block lies as it was made' })).toBeVisible();
	await page.getByRole('slider', { name: 'Try Quarter turns' }).focus();
	await page.keyboard.press('ArrowRight');
	await expect(body.getByRole('img', { name: 'The block lies 1 quarter turn' })).toBeVisible();
	await page.getByRole('tab', { name: 'Variants' }).click();
	await page.getByRole('button', { name: 'New variant' }).click();
	await saved(page);
	const { variants } = await documentOf(page, id);
	const variant = variants.at(-1)!;

	// Without a second grid the clause says what is missing; with one the blocks fill it.
	await visit(page, `/project/${id}?plain`);
	await settled(page);
	const rule = page.locator('[data-clause^="zones/street/rules/"]').first();
	await rule.getByRole('combobox', { name: /^What rule/ }).click();
	await page.getByRole('option', { name: /wedge/ }).first().click();
	await expect(page.getByTestId('sheet').getByRole('alert')).toContainText(/give the zone a layer/);
	const pattern = page.locator('[data-clause="zones/street/pattern"]');
	await pattern.hover();
	await pattern.getByRole('button', { name: /^More for clause/ }).click();
	await page.getByRole('menuitem', { name: 'Add a second grid that blocks fill up to' }).click();
	await settled(page);
	await expect(page.getByTestId('sheet').getByRole('alert')).toHaveCount(0);
	await expect(page.locator(`[data-clause="variants/${variant.id}"] [data-effect]`)).toHaveText(
		/^[1-9]\d* pieces/
	);
});

test('a material is changed and made anew; the part of chosen pieces is swapped and the rest stay', async ({
	page
}) => {
	const id = await copyDemo(page);
	await visit(page, `/project/${id}/kit?plain`);
	const materials = page.getByTestId('materials');
	await materials.getByRole('button', { name: 'Density of Glass in kg/m³: 2 500' }).click();
	await type(page, '2600');
	await page.getByRole('button', { name: 'New material' }).click();
	await materials.getByRole('button', { name: 'Name of the material material: Material 2' }).click();
	await type(page, 'Cork');
	await materials.getByLabel('Colour of Cork').fill('#a07850');
	await saved(page);
	const owned = (await documentOf(page, id)) as unknown as {
		materials: { id: string; label: string; density: number; colour: string }[];
	};
	expect(owned.materials).toMatchObject([
		{ id: 'glass', density: 2600 },
		{ label: 'Cork', colour: '#a07850' }
	]);
	await materials.locator('[data-material="glass"]').hover();
	await materials.getByRole('button', { name: 'as it ships' }).click();
	await saved(page);
	expect(((await documentOf(page, id)) as unknown as typeof owned).materials).toHaveLength(1);

	await visit(page, `/project/${id}?plain`);
	await settled(page);
	await page.getByRole('button', { name: 'Zone · Street screen' }).click();
	await settled(page);
	const map = (await page.getByTestId('map').boundingBox())!;
	await page.mouse.click(map.x + map.width * 0.5, map.y + map.height * 0.6);
	const card = page.getByTestId('card');
	await expect(card).toBeVisible();
	await page.keyboard.press('Shift+ArrowRight');
	await expect(card).toContainText('and 1 more');
	await card.getByRole('combobox', { name: /^Part of/ }).click();
	await page.getByRole('option', { name: 'Deep window' }).click();
	await expect(page.getByText(/Deep window on 2 pieces: kept .*; dropped/)).toBeVisible();
	await settled(page);
	await saved(page);
	const after = (await documentOf(page, id)) as unknown as Document & {
		zones: { id: string; exceptions: { put: { variant: string }; sites: unknown[] }[] }[];
	};
	const { exceptions } = after.zones.find((zone) => zone.id === 'street')!;
	// One choice, for both cells.
	expect(exceptions).toHaveLength(1);
	expect(exceptions[0]!.sites).toHaveLength(2);
	const put = after.variants.find((one) => one.id === exceptions[0]!.put.variant)!;
	expect(put.part).toBe('deep-window');
	await page.keyboard.press('Control+z');
	await saved(page);
	expect((await documentOf(page, id)).variants.some((one) => one.part === 'deep-window')).toBe(false);
});

test('the table of variants is copied as a spreadsheet takes it', async ({ page, context }) => {
	await context.grantPermissions(['clipboard-read', 'clipboard-write']);
	const id = await copyDemo(page);
	await visit(page, `/project/${id}/part/framed-glass?plain`);
	await page.getByRole('tab', { name: 'Variants' }).click();
	await page.getByRole('button', { name: 'Copy the table' }).click();
	const text = await page.evaluate(() => navigator.clipboard.readText());
	const rows = text
		.trimEnd()
		.split('\n')
		.map((row) => row.split('\t'));
	const variants = (await documentOf(page, id)).variants.filter((one) => one.part === 'framed-glass');
	expect(rows).toHaveLength(1 + variants.length);
	const column = rows[0]!.findIndex((head) => head.startsWith('Frame width'));
	variants.forEach((variant, k) => expect(Number(rows[k + 1]![column])).toBe(variant.values['frame_width']));
});

test('steps are found by words; a new solid offers its element; what is ordered twice is told', async ({
	page
}) => {
	const id = await copyDemo(page);
	await visit(page, `/project/${id}/part/pyramid?plain`);
	await stageReady(page);
	await sheet(page).getByRole('button', { name: /^Step/ }).click();
	await accessible(page);
	await page.getByLabel('Search kinds of steps').fill('ball at a point');
	await expect(page.getByRole('option')).toHaveCount(1);
	await page.keyboard.press('Enter');
	const step = sheet(page).locator('[data-step="sphere"]');
	await expect(step).toContainText('1 solid');
	await step.getByRole('button', { name: 'order it as an element' }).click();
	await expect(sheet(page)).toContainText('Sphere');
	await expect(step.getByRole('button', { name: 'order it as an element' })).toHaveCount(0);
	// What is not ordered yet comes first: the sheet that is thickened. After that only the same again is left.
	const more = sheet(page).getByRole('button', { name: '+ Element', exact: true });
	await more.click();
	await expect(sheet(page)).toContainText('Folds');
	await expect(sheet(page).getByRole('note')).toHaveCount(0);
	await more.click();
	await expect(sheet(page).getByRole('note').first()).toContainText('counted and paid for twice');
	// A trial that cannot be made says why.
	await visit(page, `/project/${id}/part/truss-cell?plain`);
	await stageReady(page);
	await expect(page.getByTestId('strip').getByRole('button', { name: /tiny/ })).toContainText(
		'not made: its cuts leave nothing of a bar'
	);
});
