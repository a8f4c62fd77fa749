import { connect, createServer, type Socket } from 'node:net';
import type { Random } from '../saving/wardrobe';

/** A line between windows and server that drops connections before, while and after they carry something. */
export function lossyProxy(target: () => number, random: Random): Promise<{ port: number; close(): void }> {
	const sockets = new Set<Socket>();
	const server = createServer((near) => {
		const far = connect(target(), '127.0.0.1');
		for (const socket of [near, far]) {
			sockets.add(socket);
			socket.once('close', () => sockets.delete(socket));
			socket.on('error', () => {
				near.destroy();
				far.destroy();
			});
		}
		const fate = random();
		const cut = () => {
			near.destroy();
			far.destroy();
		};
		if (fate < 0.05) cut();
		// The request arrives, the answer does not.
		else if (fate < 0.12) far.once('data', cut);
		else if (fate < 0.16) setTimeout(cut, random() * 40);
		near.pipe(far);
		far.pipe(near);
	});
	return new Promise((resolve) =>
		server.listen(0, '127.0.0.1', () =>
			resolve({
				port: (server.address() as { port: number }).port,
				close: () => {
					server.close();
					for (const socket of sockets) socket.destroy();
				}
			})
		)
	);
}
