import { z } from 'zod';
import { plain } from './numbers';

const day = z.iso.date();

/** Where the building stands, and when the sun is looked at. Clock hours are those of the place, 0 to 24. */
export const sunSchema = z.strictObject({
	/** Degrees, positive to the north and to the east. */
	latitude: plain.default(50),
	longitude: plain.default(0),
	/** Where true north lies, in degrees clockwise from the y axis of the model. */
	north: plain.default(0),
	/** Hours that the clock of the place is ahead of universal time. */
	ahead: plain.default(0),
	/** The moment at which the sun stands still. */
	day: day.default('2026-06-21'),
	hour: plain.default(12),
	/** The days, both counted, and the hours of each in which sun is counted. */
	period: z
		.strictObject({ from: day, to: day, since: plain, until: plain })
		.default({ from: '2026-01-01', to: '2026-12-31', since: 0, until: 24 })
});
export type Sun = z.infer<typeof sunSchema>;
