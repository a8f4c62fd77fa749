import { accessible, documentOf, expect, openDocument, saved, settled, test } from './app';

const ZONES = 40;
const SIDES = ['south', 'east', 'north', 'west'];

/** Ten towers with a zone on each of their sides, as one document. */
const towers = {
	name: 'Ten towers',
	masses: Array.from({ length: ZONES / 4 }, (_, k) => ({
		id: `tower-${k}`,
		name: `Tower ${k + 1}`,
		form: {
			kind: 'prism',
			outline: { shape: 'rectangle', width: 9000, depth: 6000, rounding: 0 },
			at: [14000 * (k % 5), 14000 * Math.floor(k / 5)],
			foot: 0,
			head: 9000 + 3000 * k
		}
	})),
	zones: Array.from({ length: ZONES }, (_, n) => ({
		id: `zone-${n}`,
		code: `T${Math.floor(n / 4) + 1}${SIDES[n % 4]![0]!.toUpperCase()}`,
		name: `Tower ${Math.floor(n / 4) + 1} ${SIDES[n % 4]!}`,
		faces: [{ mass: `tower-${Math.floor(n / 4)}`, face: SIDES[n % 4]! }],
		settingOut: { across: { by: 'count', count: n === 5 ? 8 : 6 }, up: { by: 'at most', size: 3000 } },
		pattern: { kind: 'rectangles' },
		rules: [{ id: 'all', put: { variant: n === 37 ? 'blades' : 'panel' } }]
	})),
	variants: [
		{ id: 'panel', name: 'plain', part: 'flat-panel', values: {} },
		{ id: 'blades', name: 'larch', part: 'blade-stack', values: {} }
	]
};

test('forty zones stay easy: folded, in the outline, found by words, a clause copied to all of them', async ({
	page
}) => {
	const problems: string[] = [];
	page.on('pageerror', (error) => problems.push(error.message));
	const id = await openDocument(page, towers);
	const outline = page.getByRole('navigation', { name: 'Outline of the sheet' });
	// Masses, the kit, limits and costs beside them.
	await expect(outline.getByRole('button')).toHaveCount(ZONES + 4);
	// Of so many only what is worked on is unfolded.
	expect(await page.locator('[data-clause*="/rules/"]').count()).toBeLessThan(4);
	await accessible(page);

	await page.keyboard.press('Control+k');
	await page.keyboard.type('put blade stack');
	await expect(page.getByRole('option').first()).toContainText(/Put Blade stack/);
	await page.keyboard.press('Enter');
	await settled(page);
	const clause = page.locator('[data-clause="zones/zone-37/rules/all"]');
	await expect(clause).toBeInViewport();
	await expect(outline.locator('[aria-current=location]')).toHaveText('T10E');

	await outline.getByRole('button', { name: 'Go to Tower 3 west' }).click();
	await expect(page.locator('[data-clause="zones/zone-11/rules/all"]')).toBeInViewport();

	await outline.getByRole('button', { name: 'Go to Tower 10 east' }).click();
	await clause.hover();
	await clause.getByRole('button', { name: /^More for clause/ }).click();
	await page.getByRole('menuitem', { name: 'Copy to' }).click();
	await page.getByRole('menuitem', { name: `all ${ZONES - 1} of these` }).click();
	await saved(page);
	const rules = async () => (await documentOf(page, id)).zones.map((zone) => zone.rules.length);
	expect(await rules()).toEqual(Array.from({ length: ZONES }, (_, n) => (n === 37 ? 1 : 2)));
	await page.keyboard.press('Control+z');
	await saved(page);
	expect(await rules()).toEqual(Array.from({ length: ZONES }, () => 1));

	// Set out as another, it says so in one clause and follows that one.
	await outline.getByRole('button', { name: 'Go to Tower 2 east' }).click();
	const across = page.locator('[data-clause="zones/zone-5/settingOut/across"]');
	await across.hover();
	await across.getByRole('button', { name: /^More for clause/ }).click();
	await page.getByRole('menuitem', { name: 'Set it out as' }).press('ArrowRight');
	await page.getByRole('menuitem', { name: 'Tower 1 south' }).click();
	await settled(page);
	const tied = page.locator('[data-clause="zones/zone-5/setOutAs"]');
	await expect(tied).toContainText('Set out as');
	await expect(tied.locator('[data-effect]')).toHaveText('6 by 4');
	await accessible(page);
	await tied.getByRole('button', { name: 'its own again' }).click();
	await expect(across).toContainText('exactly');
	expect(problems).toEqual([]);
});

test('masses and zones are worked on in groups: folded, left out of the picture, named, moved, dissolved', async ({
	page
}) => {
	const zonesOf = (tower: number) => [0, 1, 2, 3].map((side) => `zone-${4 * tower + side}`);
	const id = await openDocument(page, {
		...towers,
		groups: [{ id: 'east', name: 'East row', masses: ['tower-0'], zones: zonesOf(0) }]
	});
	const outline = page.getByRole('navigation', { name: 'Outline of the sheet' });
	const groups = async () => (await documentOf(page, id)).groups;
	const sheet = page.getByTestId('sheet');

	// A mass with its zones, in one step, and by one undo.
	const mass = page.locator('[data-clause="masses/tower-1"]');
	await outline.getByRole('button', { name: 'Go to Masses' }).click();
	await mass.hover();
	await mass.getByRole('button', { name: /^More for clause/ }).click();
	await page.getByRole('menuitem', { name: 'Group' }).press('ArrowRight');
	await page.getByRole('menuitem', { name: 'a new one, with its zones' }).click();
	await saved(page);
	expect((await groups())[1]).toMatchObject({ name: 'Tower 2', masses: ['tower-1'], zones: zonesOf(1) });
	const heading = sheet.locator('[data-group="zones group"]');
	await expect(heading).toContainText('4 zones, 1 mass');

	// Folded, its zones take no room, neither on the sheet nor in the outline; whoever goes there finds them.
	const zone = page.locator('[data-part="zone zone-5"]');
	await outline.getByRole('button', { name: 'Go to Tower 5 south' }).click();
	await outline.getByRole('button', { name: 'Tower 2', exact: true }).click();
	await expect(zone).toHaveCount(0);
	await expect(outline.getByRole('button', { name: 'Go to Tower 2 east' })).toHaveCount(0);
	await page.keyboard.press('Control+k');
	await page.keyboard.type('Tower 2 east');
	await page.keyboard.press('Enter');
	await expect(zone).toBeInViewport();

	// All of it at once.
	await heading.hover();
	await heading.getByRole('button', { name: 'More for group Tower 2' }).click();
	await page.getByRole('menuitem', { name: 'Leave them out of the picture' }).click();
	await expect(page.getByTestId('status')).toContainText('5');
	await expect(heading).toContainText('hidden');
	await heading.getByRole('button', { name: 'More for group Tower 2' }).click();
	await page.getByRole('menuitem', { name: 'Show them', exact: true }).click();
	await expect(heading).not.toContainText('hidden');
	await accessible(page);

	// A zone goes to another group and stands behind its members.
	const clause = page.locator('[data-clause="zones/zone-5/faces"]');
	await clause.hover();
	await clause.getByRole('button', { name: /^More for clause/ }).click();
	await page.getByRole('menuitem', { name: 'Group' }).press('ArrowRight');
	await page.getByRole('menuitem', { name: 'East row' }).click();
	await saved(page);
	expect((await groups()).map(({ zones }) => zones)).toEqual([
		[...zonesOf(0), 'zone-5'],
		['zone-4', 'zone-6', 'zone-7']
	]);
	const order = (await documentOf(page, id)).zones.map((one) => one.id);
	expect(order.slice(0, 8)).toEqual([...zonesOf(0), 'zone-5', 'zone-4', 'zone-6', 'zone-7']);

	await heading.hover();
	await heading.getByRole('button', { name: 'More for group Tower 2' }).click();
	await page.getByRole('menuitem', { name: 'Dissolve the group' }).click();
	await expect(heading).toHaveCount(0);
	await page.keyboard.press('Control+z');
	await expect(heading).toHaveCount(1);
});
