/** A step that cannot be: the sentence says why and what would be accepted. */
export class StepFault extends Error {}

/** A part that cannot be used: each fault names its step and what would be accepted. */
export class PartError extends Error {
	constructor(readonly faults: readonly { readonly step: string; readonly text: string }[]) {
		super(faults.map(({ step, text }) => `${step}: ${text}`).join('\n'));
	}
}
