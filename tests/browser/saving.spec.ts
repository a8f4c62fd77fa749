import { expect, test as ofItsOwn, type BrowserContext, type Page } from '@playwright/test';
import { launch } from '../server/running';
import { accessible, newContext, openRoof, sailObj, saved, settled } from './app';

/** Pages of one browser, as somebody has it: what it has compiled once it has for the next test too. */
const test = ofItsOwn.extend<object, { oneBrowser: BrowserContext }>({
	oneBrowser: [
		async ({ browser }, use, worker) => {
			const context = await newContext(browser, worker);
			await use(context);
			await context.close();
		},
		{ scope: 'worker' }
	],
	context: async ({ oneBrowser }, use) => {
		await use(oneBrowser);
		await oneBrowser.unrouteAll();
		for (const page of oneBrowser.pages()) await page.close();
	}
});

const bays = (page: Page) => page.locator('[data-part="zone gull"]').getByRole('button', { name: /^Bays: / });
const courses = (page: Page) =>
	page.locator('[data-part="zone gull"]').getByRole('button', { name: /^Courses: / });
const EDITS = '**/api/projects/*/edits';
const cutLine = (page: Page) => page.context().route(EDITS, (route) => route.abort());
const mendLine = (page: Page) => page.context().unroute(EDITS);

async function more(page: Page, chip: ReturnType<typeof bays>, times = 1) {
	await chip.focus();
	for (let k = 0; k < times; k++) await page.keyboard.press('ArrowUp');
}

test('what the browser has not kept is not said to be kept', async ({ page }) => {
	await openRoof(page);
	await cutLine(page);
	await page.evaluate(() => {
		IDBObjectStore.prototype.put = () => {
			throw new Error('the disk is full');
		};
	});
	await more(page, bays(page));
	await expect(page.getByTestId('save-state')).toHaveText('1 not saved yet …');
	await mendLine(page);
	await page.evaluate(() => dispatchEvent(new Event('online')));
	await saved(page);
});

test('what was changed while the line was down is there after a reload, and is saved when it is back', async ({
	page
}) => {
	await openRoof(page);
	await cutLine(page);
	await more(page, bays(page), 2);
	await expect(page.getByTestId('save-state')).toHaveText('2 not saved yet, kept here');
	await page.reload();
	await settled(page);
	await expect(bays(page)).toHaveText('34');
	await expect(page.getByTestId('save-state')).toHaveText('2 not saved yet, kept here');
	await mendLine(page);
	await page.evaluate(() => dispatchEvent(new Event('online')));
	await saved(page);
	await page.reload();
	await settled(page);
	await expect(bays(page)).toHaveText('34');
	await page.keyboard.press('Control+z');
	await expect(bays(page)).toHaveText('33');
});

test('a large mass brought in without a line is kept whole over a reload, then lives in a file of its own', async ({
	page,
	browser
}) => {
	const id = await openRoof(page);
	await page.context().route('**/api/files/*', (route) => route.abort());
	await page.getByLabel('File of a mass').setInputFiles(sailObj(40, 30));
	const clause = page.locator('[data-clause="masses/sail"]');
	await expect(clause).toContainText(/1\s+face fitted to within \d/);
	await expect(page.getByTestId('save-state')).toHaveText('1 not saved yet, kept here');
	await page.reload();
	await settled(page);
	await expect(clause).toContainText(/1\s+face fitted to within \d/);
	await expect(clause.getByRole('alert')).toHaveCount(0);
	await page.context().unroute('**/api/files/*');
	await page.evaluate(() => dispatchEvent(new Event('online')));
	await saved(page);
	const { document } = (await (await page.request.get(`/api/projects/${id}`)).json()) as {
		document: { masses: { form: { faces: unknown } }[] };
	};
	expect(document.masses.at(-1)!.form.faces).toEqual({ file: expect.stringMatching(/^[0-9a-f]{64}$/) });
	// In a browser that has never seen it.
	const elsewhere = await (await browser.newContext()).newPage();
	await elsewhere.goto(page.url());
	await settled(elsewhere);
	const there = elsewhere.locator('[data-clause="masses/sail"]');
	await expect(there).toContainText(/1\s+face fitted to within \d/);
	await expect(there.getByRole('alert')).toHaveCount(0);
	await elsewhere.context().close();
});

test('two windows that were closed without a line lose nothing; the next one sends for both', async ({
	page,
	context
}) => {
	const id = await openRoof(page);
	const other = await context.newPage();
	await other.goto(`/project/${id}?plain`);
	await settled(other);
	await cutLine(page);
	await more(page, bays(page), 3);
	await more(other, courses(other), 2);
	await expect(page.getByTestId('save-state')).toHaveText('3 not saved yet, kept here');
	await expect(other.getByTestId('save-state')).toHaveText('2 not saved yet, kept here');
	const third = await context.newPage();
	await page.close();
	await other.close();
	await mendLine(third);
	await third.goto(`/project/${id}?plain`);
	await settled(third);
	await saved(third);
	await expect(bays(third)).toHaveText('35');
	await expect(courses(third)).toHaveText('16');
	const opened = (await (await third.request.get(`/api/projects/${id}`)).json()) as { revision: number };
	expect(opened.revision).toBe(5);
});

test('a refused change is set aside in words, the others go on, and it is taken up again', async ({
	page
}) => {
	await openRoof(page);
	await page.context().route(EDITS, async (route) => {
		const { commands } = route.request().postDataJSON() as { commands: { label: string }[] };
		if (commands.some(({ label }) => label.includes('→ 34')))
			await route.fulfill({ status: 422, json: { message: 'thirty-four is not to our liking' } });
		else await route.continue();
	});
	await more(page, bays(page), 2);
	await more(page, courses(page));
	await page.getByRole('button', { name: '1 set aside' }).click();
	const dialog = page.getByTestId('aside');
	await expect(dialog).toContainText('Gull roof bays 33 → 34');
	await expect(dialog).toContainText('thirty-four is not to our liking');
	const download = page.waitForEvent('download');
	await dialog.getByRole('button', { name: 'Download them' }).click();
	expect((await download).suggestedFilename()).toBe('roof-alone-set-aside.json');
	await page.keyboard.press('Escape');
	await saved(page);
	await expect(bays(page)).toHaveText('33');
	await expect(courses(page)).toHaveText('15');

	// It is still there after a reload, and can be done once more.
	await mendLine(page);
	await page.reload();
	await settled(page);
	await page.getByRole('button', { name: '1 set aside' }).click();
	await page.getByTestId('aside').getByRole('button', { name: 'Try again' }).click();
	await expect(page.getByRole('button', { name: 'set aside' })).toHaveCount(0);
	await expect(bays(page)).toHaveText('34');
	await saved(page);
});

test('a window that did not outlive its computing opens paused, and computes when asked', async ({
	page
}) => {
	const id = await openRoof(page);
	await page.evaluate((project) => {
		const own = sessionStorage.getItem(`zygaster window ${project}`);
		// As a crash leaves it: the window never came to take its mark along.
		addEventListener('pagehide', () => localStorage.setItem(`zygaster computing ${project} ${own}`, 'then'));
	}, id);
	await page.reload();
	await expect(page.getByTestId('status')).toContainText('Computing is paused');
	await more(page, bays(page));
	await expect(bays(page)).toHaveText('33');
	await saved(page);
	expect(await page.getByTestId('cell-count').textContent()).toBe('0 cells');
	await page.getByRole('button', { name: 'Compute' }).click();
	await settled(page);
	await expect(page.getByTestId('status')).toContainText('up to date');
	await page.reload();
	await settled(page);
});

test('a project left for the list and opened again in the same page goes on with its undo', async ({
	page
}) => {
	const id = await openRoof(page);
	await more(page, bays(page), 2);
	await saved(page);
	await page.getByRole('link', { name: 'Zygaster' }).click();
	await page.locator(`a[href="/project/${id}"]`).click();
	await settled(page);
	await expect(bays(page)).toHaveText('34');
	await page.keyboard.press('Control+z');
	await expect(bays(page)).toHaveText('33');
	await saved(page);
});

test('the history tells every change; a state of the past is looked at, brought back and copied', async ({
	page
}) => {
	const id = await openRoof(page);
	await more(page, bays(page), 3);
	await saved(page);
	await page.getByTestId('save-state').click();
	const changes = page.getByRole('region', { name: 'Changes' });
	await expect(changes.getByRole('listitem')).toHaveCount(3);
	await changes.getByRole('button', { name: /bays 32 → 33/ }).click();
	await expect(page.getByTestId('past')).toHaveAttribute('data-ready', 'true');
	await accessible(page);
	await page.getByRole('button', { name: 'Make a copy of it' }).click();
	await expect(page.getByText('A copy of that state is among the projects.')).toBeVisible();
	await page.getByRole('button', { name: 'Bring this state back' }).click();
	await expect(page.getByRole('button', { name: 'This is how it is now' })).toBeDisabled();
	await saved(page);
	await expect(changes.getByRole('listitem')).toHaveCount(4);
	await page.goto(`/project/${id}?plain`);
	await settled(page);
	await expect(bays(page)).toHaveText('33');
	await page.keyboard.press('Control+z');
	await expect(bays(page)).toHaveText('35');
});

ofItsOwn.describe('with the server gone', () => {
	ofItsOwn.use({ serviceWorkers: 'allow' });

	ofItsOwn(
		'the page works on and says so; loaded anew it is ours, and comes back by itself',
		async ({ page }) => {
			const url = process.env['DATABASE_URL'] ?? '';
			let own = await launch(url);
			const { port } = new URL(own.address);
			try {
				const list = (await (await page.request.get(`${own.address}/api/projects`)).json()) as {
					id: string;
					name: string;
				}[];
				const demo = list.find(({ name }) => name === 'Tidal Lido')!;
				const copy = await page.request.post(`${own.address}/api/projects/${demo.id}/duplicate`, {
					data: {}
				});
				const { id } = (await copy.json()) as { id: string };
				await page.goto(`${own.address}/project/${id}?plain`);
				await settled(page);
				// It has taken the page over, with all its files.
				await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
				await own.stop();
				await more(page, bays(page));
				await expect(page.getByTestId('save-state')).toHaveText('1 not saved yet, kept here');
				await expect(bays(page)).toHaveText('33');
				// Pages that were never opened are there too.
				await page.getByRole('button', { name: 'Find' }).click();
				await expect(page.getByRole('dialog').getByRole('combobox')).toBeFocused();
				await page.keyboard.type('Schedule');
				await page.keyboard.press('Enter');
				await expect(page.getByRole('row').nth(3)).toBeVisible();
				await page.reload();
				await expect(page.getByRole('heading', { name: 'The server is away' })).toBeVisible();
				own = await launch(url, { PORT: port });
				await expect(page.getByRole('row').nth(3)).toBeVisible();
				await saved(page);
				await page.goto(`${own.address}/project/${id}?plain`);
				await settled(page);
				await expect(bays(page)).toHaveText('33');
			} finally {
				await own.stop();
			}
		}
	);
});
