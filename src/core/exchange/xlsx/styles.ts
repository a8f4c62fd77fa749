import type { NumberKind } from '../../units/dimension';

/** How numbers of each kind are shown; what lies in the cell has all its digits. */
const formats: Record<NumberKind, string> = {
	length: '#,##0.0',
	angle: '0.00',
	area: '#,##0.000',
	volume: '#,##0.000000',
	mass: '#,##0.00',
	hours: '0.00',
	stress: '0.00',
	pressure: '0.00',
	force: '0.000',
	inertia: '#,##0.00',
	transmittance: '0.000',
	ratio: '0.0000',
	count: '0',
	switch: '0'
};
const kinds = Object.keys(formats) as NumberKind[];

/** Places of the styles among the cell formats of the workbook. */
const FIRST_NUMBER = 3;
export const styles = {
	head: 1,
	totalText: 2,
	number: (kind: NumberKind): number => FIRST_NUMBER + kinds.indexOf(kind),
	total: (kind: NumberKind): number => FIRST_NUMBER + kinds.length + kinds.indexOf(kind)
} as const;

/** Numbers of own formats begin here; those below are the standard's (ECMA-376 part 1, 18.8.30). */
const FIRST_FORMAT = 164;

/** The styles of a workbook: ECMA-376 part 1, 18.8. */
export function stylesXml(): string {
	const shown = kinds.map(
		(kind, k) => `<numFmt numFmtId="${FIRST_FORMAT + k}" formatCode="${formats[kind]}"/>`
	);
	const numbers = (font: number, border: number) =>
		kinds.map(
			(_, k) =>
				`<xf numFmtId="${FIRST_FORMAT + k}" fontId="${font}" fillId="0" borderId="${border}" xfId="0" applyNumberFormat="1" applyFont="1" applyBorder="1"/>`
		);
	const xfs = [
		'<xf numFmtId="0" fontId="0" fillId="0" borderId="0" xfId="0"/>',
		'<xf numFmtId="0" fontId="1" fillId="2" borderId="1" xfId="0" applyFont="1" applyFill="1" applyBorder="1" applyAlignment="1"><alignment vertical="center" wrapText="1"/></xf>',
		'<xf numFmtId="0" fontId="1" fillId="0" borderId="2" xfId="0" applyFont="1" applyBorder="1"/>',
		...numbers(0, 0),
		...numbers(1, 2)
	];
	const line = (side: 'top' | 'bottom') =>
		`<border><left/><right/>${side === 'top' ? '<top style="thin"/><bottom/>' : '<top/><bottom style="thin"/>'}<diagonal/></border>`;
	return (
		`<styleSheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">` +
		`<numFmts count="${shown.length}">${shown.join('')}</numFmts>` +
		`<fonts count="2"><font><sz val="10"/><name val="Arial"/></font><font><b/><sz val="10"/><name val="Arial"/></font></fonts>` +
		`<fills count="3"><fill><patternFill patternType="none"/></fill><fill><patternFill patternType="gray125"/></fill><fill><patternFill patternType="solid"><fgColor rgb="FFE7ECE8"/></patternFill></fill></fills>` +
		`<borders count="3"><border><left/><right/><top/><bottom/><diagonal/></border>${line('bottom')}${line('top')}</borders>` +
		`<cellStyleXfs count="1"><xf numFmtId="0" fontId="0" fillId="0" borderId="0"/></cellStyleXfs>` +
		`<cellXfs count="${xfs.length}">${xfs.join('')}</cellXfs>` +
		`<cellStyles count="1"><cellStyle name="Normal" xfId="0" builtinId="0"/></cellStyles>` +
		`</styleSheet>`
	);
}
