import { partners, type Partner, type PartnerId } from '$lib/protocol';

/**
 * The partners of this server, as its environment names them: FABRICATOR_DESK and SITE_RECEIVER. Nobody else is ever
 * asked: no address comes from a request.
 */
export function partnersFrom(env: Readonly<Record<string, string | undefined>>): Map<PartnerId, Partner> {
	const found = new Map<PartnerId, Partner>();
	for (const { id, setting } of partners) {
		const address = env[setting];
		if (address) found.set(id, { id, address: new URL(address).href.replace(/\/$/, '') });
	}
	return found;
}
