/** How Chromium is started for tests and pictures: software drawing, nothing fetched on its own. */
export const CHROMIUM_ARGS = [
	'--no-sandbox',
	'--use-gl=angle',
	'--use-angle=swiftshader',
	'--enable-unsafe-swiftshader',
	'--ignore-gpu-blocklist',
	'--disable-gpu-compositing',
	'--disable-quic',
	'--no-first-run',
	'--disable-background-networking',
	'--disable-component-update',
	'--disable-sync'
];
