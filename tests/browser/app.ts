import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import type { Project } from '../../src/core/project/schema';
import {
	test as base,
	expect,
	type Browser,
	type Locator,
	type Page,
	type WorkerInfo
} from '@playwright/test';

export { expect };

/** A browser that has seen nothing yet, for as long as a worker lives. */
export function newContext(browser: Browser, { project: { use } }: WorkerInfo) {
	const { baseURL, viewport } = use;
	return browser.newContext({
		...(baseURL && { baseURL }),
		...(viewport && { viewport }),
		serviceWorkers: 'block'
	});
}

/**
 * Tests whose pages are one page for as long as a worker lives, as somebody has it open all day: the application is
 * fetched and compiled once, and what one project leaves behind would show in the next. Every test has a project of
 * its own; one that changes the browser itself uses Playwright's own page.
 */
export const test = base.extend<object, { window: Page }>({
	window: [
		async ({ browser }, use, worker) => {
			const context = await newContext(browser, worker);
			await use(await context.newPage());
			await context.close();
		},
		{ scope: 'worker' }
	],
	context: async ({ window }, use) => use(window.context()),
	page: async ({ window }, use, { title }) => {
		// A page that broke stands still, and the test that waits for it says only that: what it threw is told beside.
		window.on('pageerror', ({ stack, message }) =>
			console.log(`${title}: the page threw ${stack ?? message}`)
		);
		await use(window);
		window.removeAllListeners();
		for (const other of window.context().pages()) if (other !== window) await other.close();
	}
});

/** Go to a page as a link of the application does; the first time it is loaded. */
export async function visit(page: Page, path: string): Promise<void> {
	if (page.url() === 'about:blank') {
		await page.goto(path);
		return;
	}
	await page.evaluate((href) => {
		const link = document.createElement('a');
		link.href = href;
		document.body.append(link);
		link.click();
		link.remove();
	}, path);
	await page.waitForURL(path);
}

/** A project like the one that is shipped, kept as it is so that what is shipped can grow. */
const lido = JSON.parse(readFileSync('tests/lido.json', 'utf8')) as Record<
	'masses' | 'zones',
	{ id: string }[]
>;

/** A document kept as a project of its own. @returns its id */
async function post(page: Page, document: object): Promise<string> {
	const made = await page.request.post('/api/projects', {
		data: { document: { ...document, id: randomUUID() } }
	});
	expect(made.status(), await made.text()).toBe(201);
	return ((await made.json()) as { id: string }).id;
}

/** That project in a copy of its own, so that tests do not meet. @returns its id */
export const copyDemo = (page: Page): Promise<string> => post(page, { ...lido, name: 'Tidal Lido copy' });

/** Open it in a copy of its own; wait until it stands. */
export async function openDemo(page: Page): Promise<string> {
	const id = await copyDemo(page);
	await visit(page, `/project/${id}?plain`);
	await settled(page);
	return id;
}

/** A project of so much, not open yet. @returns its id */
export const postDocument = (page: Page, document: object): Promise<string> =>
	post(page, { format: 'zygaster project', version: 9, ...document });

/** The same, open. */
export async function openDocument(page: Page, document: object): Promise<string> {
	const id = await postDocument(page, document);
	await visit(page, `/project/${id}?plain`);
	await settled(page);
	return id;
}

/**
 * Its roof alone, its cells with a plain panel each, as a project of its own: for tests that want something
 * to change and to save, whatever it looks like. @returns its id
 */
export async function openRoof(page: Page): Promise<string> {
	const roof = ({ id }: { id: string }) => id === 'gull';
	const rules = [{ id: 'all', put: { variant: 'panel' } }];
	const [zone] = lido.zones.filter(roof);
	const id = await post(page, {
		...lido,
		name: 'Roof alone',
		masses: lido.masses.filter(roof).map((mass) => ({ ...mass, trims: [] })),
		zones: [{ ...zone, rules, runs: [], layer: null }],
		variants: [{ id: 'panel', name: 'Panel', part: 'flat-panel', values: {} }]
	});
	await visit(page, `/project/${id}?plain`);
	await settled(page);
	return id;
}

/** The model has caught up with the document, and the picture is drawn. */
export async function settled(page: Page): Promise<void> {
	await expect(page.getByTestId('status')).toHaveAttribute('data-behind', 'false');
	if (await page.getByTestId('model').count())
		await expect(page.getByTestId('model')).toHaveAttribute('data-settled', 'true');
}

const isScrolledMenu = (rule: string, html: string) =>
	rule === 'scrollable-region-focusable' && html.slice(0, html.indexOf('>')).includes('role="menu"');

/**
 * axe-core finds nothing serious on the page as it stands. Nothing of it lies in frames, so it is run as for one.
 * @param part of the page alone: what has opened over the rest
 */
export async function accessible(page: Page, part?: string): Promise<void> {
	// What is fading out has little contrast, and nobody is to read it any more.
	await page.emulateMedia({ reducedMotion: 'reduce' });
	const looking = new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ['violations'] });
	const { violations } = await (part ? looking.include(part) : looking).analyze();
	await page.emulateMedia({ reducedMotion: null });
	const serious = violations
		.filter(({ impact }) => impact === 'serious' || impact === 'critical')
		// Arrow keys go through a menu and bring each item into view; nothing of it is reached by Tab.
		.map((one) => ({ ...one, nodes: one.nodes.filter(({ html }) => !isScrolledMenu(one.id, html)) }))
		.filter(({ nodes }) => nodes.length > 0);
	const places = (nodes: (typeof serious)[number]['nodes']) =>
		nodes.slice(0, 3).map((node) => node.html.slice(0, 120));
	expect(serious.map(({ id, nodes }) => `${id}: ${places(nodes).join(' | ')}`)).toEqual([]);
}

/** The document as the server has it. */
export async function documentOf(page: Page, id: string): Promise<Project> {
	const answer = await page.request.get(`/api/projects/${id}`);
	return ((await answer.json()) as { document: Project }).document;
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

/** A list with all columns that it opens on: before, others may come to stand between those that are there. */
export async function listed(page: Page, name: string): Promise<Locator> {
	const table = page.getByRole('table', { name });
	await expect(table).toHaveAttribute('aria-busy', 'false');
	return table;
}

/** One of the lists that are asked for now and then. */
export async function openList(page: Page, name: string): Promise<void> {
	await page.getByRole('button', { name: 'More lists' }).click();
	await page.getByRole('menuitem', { name }).click();
	await expect(page.getByRole('tab', { name })).toHaveAttribute('aria-selected', 'true');
}
