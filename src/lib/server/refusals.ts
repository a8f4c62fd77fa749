/** What is asked for is not there. */
export class NotFound extends Error {}

/** The window's idea of the project is not this database's; it has to open the project again. */
export class OutOfStep extends Error {}

/** What was asked cannot be read or done as it is. @param status of HTTP */
export class Refused extends Error {
	constructor(
		readonly status: number,
		message: string
	) {
		super(message);
	}
}
