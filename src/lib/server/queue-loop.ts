/**
 * Looks at a queue again and again: at once while there is something in it, else after a pause, which whoever puts
 * something into it ends.
 */
export class QueueLoop {
	private going = false;
	private woken = false;
	private turn: Promise<void> = Promise.resolve();
	private readonly ending = new AbortController();
	private endPause: () => void = () => {};

	/** @param step does what there is to do, and tells whether there was anything @param pause ms */
	constructor(
		private readonly step: () => Promise<boolean>,
		private readonly pause: number
	) {}

	get isGoing(): boolean {
		return this.going;
	}

	/** Breaks off what is under way when the loop is stopped. */
	get ended(): AbortSignal {
		return this.ending.signal;
	}

	start(): void {
		if (this.going) return;
		this.going = true;
		this.turn = this.run();
	}

	/** Something is to be done; what was put in while a step looked is looked for once more. */
	wake(): void {
		this.woken = true;
		this.endPause();
	}

	/** Nothing more is begun; what is under way is broken off. */
	async stop(): Promise<void> {
		this.going = false;
		this.ending.abort();
		this.endPause();
		await this.turn;
	}

	private async run(): Promise<void> {
		while (this.going) {
			this.woken = false;
			const did = await this.step();
			if (!did && !this.woken && this.going) await this.rest();
		}
	}

	private rest(): Promise<void> {
		return new Promise((resolve) => {
			const timer = setTimeout(resolve, this.pause);
			this.endPause = () => {
				clearTimeout(timer);
				resolve();
			};
		});
	}
}
