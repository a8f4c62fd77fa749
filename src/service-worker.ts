/// <reference lib="webworker" />
import { build, files, version } from '$service-worker';

/**
 * Keeps the application's own files in the browser, so that a page that is open works on while the server is away,
 * and one that is loaded meanwhile is ours and says so. Projects are never taken from here.
 */
const worker = self as unknown as ServiceWorkerGlobalScope;
const CACHE = `zygaster ${version}`;
const AWAY = '/away.html';
const own = new Set([...build, ...files]);

worker.addEventListener('install', (event) => {
	event.waitUntil(
		caches
			.open(CACHE)
			.then((cache) => cache.addAll([...own]))
			.then(() => worker.skipWaiting())
	);
});

worker.addEventListener('activate', (event) => {
	event.waitUntil(
		caches
			.keys()
			.then((names) => Promise.all(names.filter((name) => name !== CACHE).map((name) => caches.delete(name))))
			.then(() => worker.clients.claim())
	);
});

async function fromCache(path: string): Promise<Response | undefined> {
	return (await caches.open(CACHE)).match(path);
}

worker.addEventListener('fetch', (event) => {
	const { request } = event;
	const { origin, pathname } = new URL(request.url);
	if (request.method !== 'GET' || origin !== worker.location.origin) return;
	if (own.has(pathname)) event.respondWith(fromCache(pathname).then((kept) => kept ?? fetch(request)));
	else if (request.mode === 'navigate')
		event.respondWith(fetch(request).catch(async () => (await fromCache(AWAY)) ?? Response.error()));
});
