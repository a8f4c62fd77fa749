// What a page of a running server takes: when the first cells of the demo stand; and what a drag costs, where a value of
// a 2,000-cell zone is dragged in the sheet, the map of 100,000 cells is panned, and the tasks of the page's own thread
// are read from a browser trace. node scripts/trace-page.mjs [address]
import { chromium } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { CHROMIUM_ARGS } from './lib/chromium-args.mjs';
import { CHROMIUM } from './lib/system.mjs';

const address = process.argv[2] ?? 'http://127.0.0.1:4300';
const FRAME_MS = 1000 / 60;
const STEPS = 60;

const demo = JSON.parse(readFileSync(new URL('../demo/tidal-lido.json', import.meta.url), 'utf8'));
const zone = structuredClone(demo.zones.find((one) => one.id === 'plunge'));
zone.settingOut.across = { by: 'count', count: 48 };
zone.settingOut.up = { by: 'count', count: 21 };
const used = ['framed-bronze', 'mullion-slim'];
const document = {
	...demo,
	name: 'Drag trace',
	zones: [zone],
	variants: demo.variants.filter((one) => used.includes(one.id))
};

const browser = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_ARGS });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const created = await page.request.post(`${address}/api/projects`, { data: { document } });
const { id } = await created.json();
await page.goto(`${address}/project/${id}?plain`);
await page.waitForSelector('[data-testid=model][data-settled=true]');
await page.keyboard.press('3');

/** Drag a value to and fro while the browser is traced; the page's tasks in ms, and the models shown. */
async function trace(label, what) {
	await what.scrollIntoViewIfNeeded();
	const box = await what.boundingBox();
	const client = await page.context().newCDPSession(page);
	const events = [];
	client.on('Tracing.dataCollected', ({ value }) => events.push(...value));
	const shown = async () => Number(await page.getByTestId('status').getAttribute('data-runs'));
	const before = await shown();
	await client.send('Tracing.start', {
		traceConfig: { includedCategories: ['toplevel', 'devtools.timeline', '__metadata'] }
	});
	const y = box.y + box.height / 2;
	await page.mouse.move(box.x + box.width / 2, y);
	await page.mouse.down();
	for (let k = 1; k <= STEPS; k++) {
		await page.mouse.move(box.x + box.width / 2 + 20 * Math.sin((k / STEPS) * 2 * Math.PI) + 4, y);
		await page.waitForTimeout(FRAME_MS);
	}
	await page.mouse.up();
	const ended = new Promise((resolve) => client.once('Tracing.tracingComplete', resolve));
	await client.send('Tracing.end');
	await ended;

	const threads = events.filter(({ name }) => name === 'thread_name');
	const main = threads
		.filter(({ args }) => args.name === 'CrRendererMain')
		.map(({ pid, tid }) => `${pid} ${tid}`);
	const tasks = events.filter(
		({ name, pid, tid }) => name === 'ThreadControllerImpl::RunTask' && main.includes(`${pid} ${tid}`)
	);
	// Software drawing shares the processor here, so a task's own processor time is what it computes.
	const wall = tasks.map(({ dur }) => (dur ?? 0) / 1000);
	const own = tasks.map(({ tdur }) => (tdur ?? 0) / 1000);
	return {
		value: label,
		'models shown': (await shown()) - before,
		'longest task, ms': Math.max(...wall).toFixed(1),
		'longest computation, ms': Math.max(...own).toFixed(1),
		'frames missed to computation': own.reduce((sum, ms) => sum + Math.floor(ms / FRAME_MS), 0)
	};
}

const rows = [];
for (const label of ['Frame depth', 'Turn of Plunge drum', 'Bays'])
	rows.push(await trace(label, page.getByRole('button', { name: new RegExp(`^${label}: `) })));

const size = (count) => ({ by: 'count', count });
const points = (y) => [0, 1, 2, 3].map((x) => [x * 20_000, y * 12_000, 900 * ((x * y) % 3)]);
const large = {
	...document,
	name: 'Pan trace',
	masses: [{ id: 'net', name: 'Net', form: { kind: 'net', rows: [0, 1, 2, 3].map(points) } }],
	guides: [],
	variants: [],
	zones: [
		{
			id: 'large',
			code: 'L',
			name: 'Large',
			faces: [{ mass: 'net', face: 'skin' }],
			settingOut: { across: size(400), up: size(250) },
			pattern: { kind: 'rectangles' }
		}
	]
};
const answer = await page.request.post(`${address}/api/projects`, { data: { document: large } });
const { id: largeId } = await answer.json();
await page.goto(`${address}/project/${largeId}?plain`);
await page.waitForSelector('[data-testid=model][data-settled=true]');
rows.push(await trace('Map of 100,000 cells', page.getByTestId('map').locator('canvas')));
console.table(rows);

/** From the arrival of the demo's document to the first picture with cells in it (ms), the page drawn as it finds fit. */
async function firstCells(open) {
	const times = [];
	for (let round = 0; round < 5; round++) {
		const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
		await open(page);
		const marks = ['document arrived', 'first cells'];
		const stand = (names) => names.every((name) => performance.getEntriesByName(name).length);
		await page.waitForFunction(stand, marks);
		const [arrived, first] = await page.evaluate(
			(names) => names.map((name) => performance.getEntriesByName(name)[0].startTime),
			marks
		);
		times.push(first - arrived);
		await page.close();
	}
	return times.sort((a, b) => a - b).map(Math.round);
}
const shown = await page.request.post(`${address}/api/projects`, { data: { document: demo } });
const { id: demoId } = await shown.json();
console.table({
	// Whoever comes from the list has looked at it for a while.
	'first cells by a link of the list': await firstCells(async (page) => {
		await page.goto(address);
		await page.waitForTimeout(7000);
		await page.locator(`a[href="/project/${demoId}"]`).first().click();
	}),
	'first cells by address': await firstCells((page) =>
		page.goto(`${address}/project/${demoId}`, { waitUntil: 'commit' })
	)
});
for (const one of [id, largeId, demoId]) await page.request.delete(`${address}/api/projects/${one}`);
await browser.close();
