import { troubles, type Mood, type Trouble } from './troubles';

const letters: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
/** A text as it may stand in a page. */
export const plain = (text: string | number): string =>
	String(text).replace(/[&<>"]/g, (one) => letters[one]!);

const number = new Intl.NumberFormat('en-GB');
export const counted = (count: number): string => number.format(count).replaceAll(',', '\u202F');

/** A table of texts, the first row its head. */
export function table(rows: readonly (readonly (string | number)[])[]): string {
	const [head = [], ...body] = rows;
	const row = (cells: readonly (string | number)[], tag: string) =>
		`<tr>${cells.map((cell) => `<${tag}>${plain(cell)}</${tag}>`).join('')}</tr>`;
	return `<table><thead>${row(head, 'th')}</thead><tbody>${body.map((one) => row(one, 'td')).join('')}</tbody></table>`;
}

const style = `
body { margin: 0; background: #f3efe4; color: #1f2b2a; font: 15px/1.5 system-ui, sans-serif }
header { background: #2f4a47; color: #fff; padding: 14px 28px; display: flex; gap: 18px; align-items: baseline; flex-wrap: wrap }
header h1 { font-size: 19px; margin: 0 } header nav { margin-left: auto; display: flex; gap: 18px } header a { color: #fff }
main { max-width: 960px; padding: 20px 28px }
h2 { font-size: 16px; margin: 22px 0 6px } p { margin: 6px 0 }
table { border-collapse: collapse; width: 100%; background: #fff; font-variant-numeric: tabular-nums }
th, td { text-align: left; padding: 5px 10px; border: 1px solid #d9d2c0; font-size: 14px; vertical-align: top }
th { background: #e9e3d3 } label { display: block; padding: 3px 0 }
button { font: inherit; padding: 5px 14px; margin-top: 10px; border: 1px solid #2f4a47; border-radius: 5px; background: #2f4a47; color: #fff }
:focus-visible { outline: 3px solid #d98e1f; outline-offset: 2px }
input[type=number] { font: inherit; width: 5em }
`;

/** A page of a partner. @param link to another one of its pages, as HTML */
export const page = (name: string, body: string, link: string): string => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>${plain(name)}</title>
<meta name="viewport" content="width=device-width">
<style>${style}</style></head><body>
<header><h1>${plain(name)}</h1><span>a simulated partner that ships with Zygaster: nothing leaves this machine</span>
<nav>${link}</nav></header>
<main>${body}</main></body></html>`;

/** The form by which its troubles are chosen. */
export function troublePage({ share, kinds }: Mood): string {
	const boxes = (Object.keys(troubles) as Trouble[]).map(
		(one) =>
			`<label><input type="checkbox" name="${one}"${kinds.includes(one) ? ' checked' : ''}> it ${plain(troubles[one])}</label>`
	);
	return `<form method="post" action="/troubles"><h2>What goes wrong here</h2>
<p>A partner that always answers at once shows nothing of what happens when it does not.</p>
<label>With <input type="number" name="share" min="0" max="100" value="${Math.round(share * 100)}"> % of all messages:</label>
${boxes.join('\n')}<button>Keep</button></form>`;
}
