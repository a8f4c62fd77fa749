// Pictures of the main views, from the demo project of a server that runs: node scripts/screenshots.mjs [address]
import { chromium } from '@playwright/test';
import { fileURLToPath } from 'node:url';
import { CHROMIUM_ARGS } from './lib/chromium-args.mjs';
import { CHROMIUM } from './lib/system.mjs';

const address = process.argv[2] ?? 'http://127.0.0.1:4300';
const folder = fileURLToPath(new URL('../docs/screenshots/', import.meta.url));
const browser = await chromium.launch({
	executablePath: CHROMIUM,
	args: CHROMIUM_ARGS
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
// A slow machine draws the shipped project in its own time.
page.setDefaultTimeout(120_000);
/** Drawn, and as fine as it becomes. */
const settled = () => page.waitForSelector('[data-testid=model][data-settled=true][data-fine=true]');
/** The part of the sheet that a zone has. */
const open = (zone) => page.getByRole('button', { name: `Go to ${zone}` }).click();
const shoot = (name) => page.screenshot({ path: `${folder}${name}.png` });

await page.goto(address);
await shoot('projects');
// A copy of its own, since some of the pictures need changes.
const link = await page
	.getByRole('link', { name: /Tidal Lido/ })
	.filter({ hasNotText: 'copy' })
	.first()
	.getAttribute('href');
const made = await page.request.post(`${address}/api/projects/${link.split('/').at(-1)}/duplicate`, {
	data: {}
});
const { id } = await made.json();
await page.goto(`${address}/project/${id}`);
await settled();
const map = await page.getByTestId('map').locator('canvas').boundingBox();
await page.mouse.click(map.x + map.width / 2 - 100, map.y + map.height / 2 - 12);
await settled();
await shoot('model');
await page.keyboard.press('Escape');
for (const [key, name] of [
	['1', 'form'],
	['2', 'set-out'],
	['4', 'check']
]) {
	await page.keyboard.press(key);
	await settled();
	await page.waitForFunction(() => !document.querySelector('[data-behind=true]'));
	await page.waitForTimeout(800);
	await shoot(name);
}
// Hours of sun, and a rule's part chosen from pictures.
await page.getByRole('combobox', { name: /^Measure/ }).click();
await page.getByRole('option', { name: 'hours of sun' }).click();
await page.waitForFunction(() => !document.body.innerText.includes('being counted'));
await settled();
await page.waitForTimeout(1500);
await shoot('sun');
await page.keyboard.press('3');
await settled();
// Looks, and the model cut open with a length in it.
for (const look of ['Presentation', 'Lines', 'Paper']) {
	await page.getByRole('button', { name: 'Look and views' }).click();
	await page.getByRole('menuitemradio', { name: new RegExp(look) }).click();
	await page.waitForTimeout(500);
	await settled();
	if (look !== 'Paper') await shoot(look.toLowerCase());
}
await page.keyboard.press('c');
await page.waitForTimeout(500);
await settled();
await shoot('section');
await page.keyboard.press('c');
await page.waitForTimeout(500);
await settled();
await open('Stair shaft');
const glass = page.locator('[data-clause="zones/shaft/rules/all"]');
await glass.scrollIntoViewIfNeeded();
await glass.getByRole('combobox', { name: /^What rule/ }).click();
// Pictures come one after the other.
await page.waitForFunction(() => {
	const options = [...document.querySelectorAll('[role=option]')];
	return options.length > 12 && options.slice(0, 24).every((one) => one.querySelector('img'));
});
await page.waitForTimeout(500);
await shoot('picker');
await page.keyboard.press('Escape');
/** An entry of the list at the end of a zone's pattern clause. */
const more = async (zone, label) => {
	const clause = page.locator(`[data-clause="zones/${zone}/pattern"]`);
	await clause.hover();
	await clause.getByRole('button', { name: /^More for clause/ }).click();
	await page.getByRole('menuitem', { name: label }).click();
};
await page.keyboard.press('2');
await settled();
await open('Street screen');
await more('street', 'Compare settings …');
await page.locator('[data-testid=compare] dl').nth(2).waitFor();
await page.waitForFunction(() => !document.querySelector('[data-testid=compare] [role=status]'));
await shoot('compare');
await page.keyboard.press('Escape');
await open('Stair shaft');
await page.locator('[data-clause="zones/shaft/pattern"]').getByRole('button', { name: 'draw it' }).click();
await page.getByTestId('tile-faults').waitFor();
await page.waitForTimeout(400);
await shoot('tile');
await page.keyboard.press('Escape');
await page.goto(`${page.url().split('?')[0]}/schedule`);
await page.getByRole('row').nth(6).waitFor();
await page.getByRole('row').nth(6).click();
await shoot('schedule');
const project = page.url().split('/schedule')[0];
await page.goto(`${project}/drawings`);
await page.getByRole('button', { name: /^L-01/ }).click();
await page.waitForSelector('[data-drawn^="L-01"]', { timeout: 120_000 });
await shoot('drawings');
// A release at the fabricator desk: what it refuses, in colour.
await page.goto(`${project}/releases`);
await page.getByLabel('What the next release is for').fill('For the workshop');
await page.getByRole('button', { name: 'Release as it stands' }).click();
const desk = page.getByTestId('partner desk');
await desk.getByRole('button', { name: /^Send release/ }).click();
await desk.getByText(/ready in \d+ working days$/).waitFor();
await desk.getByRole('button', { name: 'Show in colour' }).click();
await settled();
await page.waitForTimeout(1500);
await shoot('releases');
await page.getByRole('button', { name: 'Close these colours' }).click();
await page.keyboard.press('3');
await page.goto(`${project}/part/deep-window`);
await page.waitForSelector('[data-testid=stage][data-settled=true]');
await page.getByTestId('strip').getByText('warped', { exact: true }).click();
await page.locator('[data-step=seat]').click({ position: { x: 60, y: 10 } });
await page.waitForTimeout(4000);
await shoot('bench');
await page.goto(`${project}/kit`);
await page.waitForSelector('[data-testid=kit][data-pictures="30"]', { timeout: 120_000 });
await page
	.getByTestId('kit')
	.getByText(/pieces/)
	.first()
	.waitFor();
await shoot('kit');
await page.goto(project);
await settled();
for (const name of [/^Bays: 32/, /^Courses: 14/]) {
	await page.getByRole('button', { name }).first().focus();
	for (let k = 0; k < 2; k++) await page.keyboard.press('ArrowUp');
}
await page.keyboard.press('Control+z');
await page.waitForFunction(() => document.querySelector('[data-testid=save-state]').textContent === 'saved');
await page.goto(`${project}/history`);
await page.getByRole('button', { name: /bays 32 → 33/ }).click();
await page.waitForSelector('[data-testid=past][data-ready=true]');
await shoot('history');
await page.request.delete(`${address}/api/projects/${id}`);
// A project of which nothing stands yet.
const empty = await page.request.post(`${address}/api/projects`, { data: { name: 'Pavilion' } });
const { id: fresh } = await empty.json();
await page.goto(`${address}/project/${fresh}`);
await page.getByRole('region', { name: 'Ways to start' }).waitFor();
await page.waitForTimeout(800);
await shoot('start');
await page.request.delete(`${address}/api/projects/${fresh}`);
await browser.close();
