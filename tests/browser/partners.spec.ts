import { accessible, expect, openDemo, saved, settled, test, visit } from './app';

test('a release goes to a desk that fails, then answers; what it refuses is seen, walked to and told', async ({
	page,
	context
}) => {
	const problems: string[] = [];
	page.on('pageerror', (error) => problems.push(error.message));
	const id = await openDemo(page);
	await saved(page);
	await visit(page, `/project/${id}/releases`);
	await page.getByLabel('What the next release is for').fill('For the workshop');
	await page.getByRole('button', { name: 'Release as it stands' }).click();
	const desk = page.getByTestId('partner desk');
	await desk.getByRole('button', { name: 'Send release 1 to it' }).click();

	// It answers 500 to everything: nothing is lost, and it is said.
	await expect(desk.getByRole('status')).toHaveText(
		/messages have to go again: it answered 500: something went wrong here.*Next at \d\d:\d\d:\d\d\./
	);
	await expect(desk).toContainText('0 accepted');
	await accessible(page);
	await desk.getByRole('button', { name: 'Stop' }).click();
	await expect(desk).toContainText('Stopped; what is not answered stays in the queue.');

	// Somebody mends it, on its own page.
	const address = await desk.getByRole('link', { name: /its page/ }).getAttribute('href');
	const works = await context.newPage();
	await works.goto(address!);
	await expect(works.getByRole('heading', { name: 'Fabricator desk' })).toBeVisible();
	await expect(works.getByText('Nothing yet.')).toBeVisible();
	await works.getByRole('link', { name: 'What goes wrong here' }).click();
	await accessible(works);
	await works.getByRole('checkbox', { name: 'it answers 500 and does not take it' }).uncheck();
	await works.getByRole('checkbox', { name: 'it says everything twice' }).check();
	await works.getByRole('button', { name: 'Keep' }).click();
	await accessible(works);
	await desk.getByRole('button', { name: 'Go on' }).click();
	const all = (await page.getByRole('button', { name: /^Release 1/ }).textContent())!;
	const pieces = Number(/([\d\s]+) pieces/.exec(all)![1]!.replace(/\s/g, ''));
	await expect(desk).toContainText(/accepted.*refused · ready in \d+ working days/);
	await expect(desk).not.toContainText('to come');
	const said = (await desk.textContent())!;
	const [accepted, refused] = ['accepted', 'refused'].map((word) =>
		Number(new RegExp(`(\\d[\\d\\s]*) ${word}`).exec(said)![1]!.replace(/\s/g, ''))
	);
	expect(refused).toBeGreaterThan(0);
	expect(accepted! + refused!).toBe(pieces);
	await works.reload();
	await expect(works.getByRole('row', { name: /Tidal Lido.* · release 1/ }).first()).toBeVisible();
	await works.close();

	// In colour: a word chooses its pieces, and the card says why.
	await desk.getByRole('button', { name: 'Show in colour' }).click();
	const told = page.getByTestId('told');
	await expect(told).toContainText('Release 1 at the fabricator desk');
	await settled(page);
	await told.getByRole('button', { name: /^refused/ }).click();
	await expect(page.getByTestId('card')).toContainText(
		/Refused by the fabricator desk \(release 1\): .*at most/
	);
	await accessible(page);
	await told.getByRole('button', { name: 'Close these colours' }).click();
	await expect(told).toBeHidden();
	expect(problems).toEqual([]);
});
