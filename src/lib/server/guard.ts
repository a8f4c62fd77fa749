/** Who may ask: known hosts, pages of our own, and not too often. Answered before any route sees the request. */

export interface Allowed {
	/** Host names with port, as in `Host`. */
	readonly hosts: ReadonlySet<string>;
	/** Where pages of ours come from, as in `Origin`. */
	readonly origins: ReadonlySet<string>;
}

const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]'];

/**
 * @param origin where the application is served, as in `http://127.0.0.1:4300`; the other names of loopback go with it
 * @param more further host names with port, set apart by commas
 */
export function allowedFrom(origin: string, more = ''): Allowed {
	const hosts = new Set<string>();
	const origins = new Set<string>();
	const add = (protocol: string, host: string) => {
		hosts.add(host.toLowerCase());
		origins.add(`${protocol}//${host}`.toLowerCase());
	};
	const { protocol, hostname, host, port } = new URL(origin);
	add(protocol, host);
	if (LOOPBACK.includes(hostname))
		for (const name of LOOPBACK) add(protocol, port ? `${name}:${port}` : name);
	for (const one of more.split(',').map((text) => text.trim()))
		if (one) {
			add('https:', one);
			add('http:', one);
		}
	return { hosts, origins };
}

const READS = ['GET', 'HEAD'];

export interface Refusal {
	readonly status: number;
	readonly message: string;
}

/** Why a request is not answered, or null. */
export function refusalOf(request: Request, allowed: Allowed): Refusal | null {
	const host = request.headers.get('host')?.toLowerCase();
	if (!host || !allowed.hosts.has(host))
		return {
			status: 421,
			message: `this server is not ${host ?? 'named so'}; it answers to ${[...allowed.hosts].join(', ')} (ALLOWED_HOSTS adds more)`
		};
	const origin = request.headers.get('origin');
	if (origin && !allowed.origins.has(origin.toLowerCase()))
		return { status: 403, message: `pages of ${origin} may not ask this server` };
	if (READS.includes(request.method)) return null;
	if (request.headers.get('sec-fetch-site') === 'cross-site')
		return { status: 403, message: 'pages of another site may not write to this server' };
	// A page of another site cannot send either of these without the browser asking us first.
	const isJson = request.headers.get('content-type')?.split(';')[0]?.trim() === 'application/json';
	if (!isJson && !request.headers.has('x-zygaster'))
		return { status: 403, message: 'a write is sent as application/json, or with the header x-zygaster' };
	return null;
}

const MOST_CLIENTS = 10_000;

/** Lets every client ask so often a second, and a burst beyond. */
export class RateLimit {
	private readonly clients = new Map<string, { left: number; at: number }>();

	/** @param perSecond requests a second in the long run @param burst requests at once */
	constructor(
		private readonly perSecond: number,
		private readonly burst: number
	) {}

	/** Whether a client may ask at this time (ms), which counts as having asked. */
	admits(client: string, now: number): boolean {
		const known = this.clients.get(client) ?? { left: this.burst, at: now };
		known.left = Math.min(this.burst, known.left + ((now - known.at) / 1000) * this.perSecond);
		known.at = now;
		// The one that has asked last stands last, so the first is the one that has rested longest.
		this.clients.delete(client);
		this.clients.set(client, known);
		if (this.clients.size > MOST_CLIENTS) this.clients.delete(this.clients.keys().next().value!);
		if (known.left < 1) return false;
		known.left--;
		return true;
	}
}
