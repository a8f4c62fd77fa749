/** An instance of the file, by its number. */
export type StepRef = number;

/**
 * A value of a STEP physical file (ISO 10303-21): as text, as the bytes of a text, as the instance it refers to, or a list
 * of such.
 */
export type StepValue = string | StepRef | Uint8Array | readonly StepValue[];

/** A value as it stands in the file. */
export function told(value: StepValue): string {
	if (typeof value === 'string') return value;
	if (typeof value === 'number') return `#${value}`;
	return value instanceof Uint8Array ? String.fromCharCode(...value) : `(${value.map(told).join(',')})`;
}

/** A number to so many decimals, six as a rule, with its dot as the format wants it: `1.`, `0.5`, `1.E-05`. */
export function real(value: number, decimals = 6): string {
	if (!(Math.abs(value) < 1e9)) return exactReal(Number(value.toFixed(decimals)));
	const unit = 10 ** decimals;
	const whole = Math.round(Math.abs(value) * unit);
	const sign = value < 0 && whole ? '-' : '';
	const before = Math.floor(whole / unit);
	let after = whole - before * unit;
	if (!after) return `${sign}${before}.`;
	// Digits by whole numbers: several times faster than asking for the shortest text of a fraction, and the same.
	let digits = decimals;
	for (; after % 10 === 0; digits--) after /= 10;
	return `${sign}${before}.${String(after).padStart(digits, '0')}`;
}

/** A number to its last digit. */
export function exactReal(value: number): string {
	if (!Number.isFinite(value)) throw new RangeError('a STEP file holds finite numbers only');
	if (Number.isInteger(value) && Math.abs(value) < 1e21) return `${value}.`;
	const text = String(value);
	if (!text.includes('e')) return text;
	const [mantissa = '0', exponent = '0'] = text.split('e');
	return `${mantissa.includes('.') ? mantissa : `${mantissa}.`}E${exponent}`;
}

const [BLANK, APOSTROPHE, BACKSLASH, TILDE] = [0x20, 0x27, 0x5c, 0x7e];

/** Whether a text stands as it is. */
function isPlain(value: string): boolean {
	for (let k = 0; k < value.length; k++) {
		const letter = value.charCodeAt(k);
		if (letter < BLANK || letter > TILDE || letter === APOSTROPHE || letter === BACKSLASH) return false;
	}
	return true;
}

/** Text in quotes: apostrophes and backslashes doubled, everything beyond ASCII as \X2\ hex \X0\. */
export function text(value: string): string {
	if (isPlain(value)) return `'${value}'`;
	const escaped = value
		.replaceAll('\\', '\\\\')
		.replaceAll("'", "''")
		.replace(/[^\x20-\x7e]+/g, (run) => {
			const hex = Array.from({ length: run.length }, (_, k) =>
				run.charCodeAt(k).toString(16).toUpperCase().padStart(4, '0')
			);
			return `\\X2\\${hex.join('')}\\X0\\`;
		});
	return `'${escaped}'`;
}

export const enumeration = (name: string): string => `.${name}.`;
export const typed = (type: string, value: string): string => `${type}(${value})`;
export const NONE = '$';
export const DERIVED = '*';
