import { test as base, expect, type BrowserContext, type Page } from '@playwright/test';

export { expect };

/**
 * Tests whose pages share one browser context for as long as a worker lives: the application is fetched and compiled
 * once. Every test has a page and a project of its own; one that changes the context itself uses Playwright's own.
 */
export const test = base.extend<object, { shared: BrowserContext }>({
	shared: [
		async ({ browser }, use, worker) => {
			const { baseURL, viewport } = worker.project.use;
			const context = await browser.newContext({
				...(baseURL && { baseURL }),
				...(viewport && { viewport }),
				serviceWorkers: 'block'
			});
			await use(context);
			await context.close();
		},
		{ scope: 'worker' }
	],
	context: async ({ shared }, use) => {
		await use(shared);
		for (const page of shared.pages()) await page.close();
	},
	page: async ({ context }, use) => use(await context.newPage())
});

/** The demo project in a copy of its own, so that tests do not meet. @returns its id */
export async function copyDemo(page: Page): Promise<string> {
	const list = (await (await page.request.get('/api/projects')).json()) as { id: string; name: string }[];
	const demo = list.find((project) => project.name === 'Tidal Lido')!;
	const copy = await page.request.post(`/api/projects/${demo.id}/duplicate`, { data: {} });
	return ((await copy.json()) as { id: string }).id;
}

/** Open the demo project in a copy of its own; wait until it stands. */
export async function openDemo(page: Page): Promise<string> {
	const id = await copyDemo(page);
	await page.goto(`/project/${id}?plain`);
	await settled(page);
	return id;
}

/** The model has caught up with the document, and the picture is drawn. */
export async function settled(page: Page): Promise<void> {
	await expect(page.getByTestId('status')).toHaveAttribute('data-behind', 'false');
	if (await page.getByTestId('model').count())
		await expect(page.getByTestId('model')).toHaveAttribute('data-settled', 'true');
}

export const saved = (page: Page) => expect(page.getByTestId('save-state')).toHaveText('saved');

export async function cellCount(page: Page): Promise<number> {
	const text = (await page.getByTestId('cell-count').textContent()) ?? '';
	return Number(text.replace(/[^0-9]/g, ''));
}

/** A mesh of so many by so many quads as an OBJ file. */
export function sailObj(across: number, up: number) {
	const lines = ['o sail'];
	for (let j = 0; j <= up; j++)
		for (let i = 0; i <= across; i++)
			lines.push(`v ${i * 1500} ${Math.sin(i + j * (across + 1)) * 90} ${j * 1200}`);
	for (let j = 0; j < up; j++)
		for (let i = 0; i < across; i++) {
			const a = j * (across + 1) + i + 1;
			lines.push(`f ${a} ${a + 1} ${a + across + 2} ${a + across + 1}`);
		}
	return { name: 'sail.obj', mimeType: 'model/obj', buffer: Buffer.from(`${lines.join('\n')}\n`) };
}
