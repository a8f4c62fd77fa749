// eslint-disable-next-line no-control-regex -- what XML 1.0 has no place for
const NEVER_IN_XML = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g;
const escaped = /[&<>"]/g;
const escapes: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** Text as it stands in XML 1.0. */
export const xmlText = (text: string): string =>
	text.replace(NEVER_IN_XML, '').replace(escaped, (sign) => escapes[sign]!);

/** Whether a text stands in XML as it is. */
export const isPlainXml = (text: string): boolean =>
	text.search(NEVER_IN_XML) < 0 && text.search(escaped) < 0;
