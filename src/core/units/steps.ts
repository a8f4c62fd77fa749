/** Work that can be given up between its steps: each yields how far it is, the last returns what was made. */
export type Steps<Made> = Generator<number, Made>;

/**
 * Do it all now.
 *
 * ```ts
 * const { kinds } = atOnce(kindsOf(model, project.like));
 * ```
 */
export function atOnce<Made>(steps: Steps<Made>): Made {
	for (;;) {
		const { done, value } = steps.next();
		if (done) return value;
	}
}

/**
 * Do it with pauses.
 *
 * ```ts
 * const sets = await withPauses(likeSets(rings, 2, false), () => new Promise((resolve) => setTimeout(resolve)));
 * ```
 * @param pause lets others in after every step; what it throws gives the work up
 */
export async function withPauses<Made>(
	steps: Steps<Made>,
	pause: (at: number) => Promise<void>
): Promise<Made> {
	for (;;) {
		const { done, value } = steps.next();
		if (done) return value;
		await pause(value);
	}
}
