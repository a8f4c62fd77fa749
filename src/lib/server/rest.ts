/** A pause between two looks at a queue, which whoever puts something into it ends. */
export class Rest {
	/** Nobody rests: nothing is to be ended. */
	end: () => void = () => {};

	/** @param ms at most */
	take(ms: number): Promise<void> {
		return new Promise((resolve) => {
			const timer = setTimeout(resolve, ms);
			this.end = () => {
				clearTimeout(timer);
				resolve();
			};
		});
	}
}
