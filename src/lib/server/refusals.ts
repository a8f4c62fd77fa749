import { CodedError } from '$core/units/coded-error';

/** What is asked for is not there. */
export class NotFound extends CodedError {
	readonly code = 'not-found';
}

/** The window's idea of the project is not this database's; it has to open the project again. */
export class OutOfStep extends CodedError {
	readonly code = 'out-of-step';
}

/** What was asked cannot be read or done as it is. @param status of HTTP */
export class Refused extends CodedError {
	readonly code: string = 'request';

	constructor(
		readonly status: number,
		message: string
	) {
		super(message);
	}
}
