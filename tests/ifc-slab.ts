/** A slab in metres, 0.4 m thick, 3 m up, by its outline and openings: written by hand after ISO 16739-1. */
export function slab(
	outline: readonly (readonly [number, number])[],
	openings: readonly (readonly (readonly [number, number])[])[]
): string {
	const lines: string[] = [];
	const add = (text: string) => `#${lines.push(`#${lines.length + 1}=${text};`)}`;
	const real = (value: number) => (Number.isInteger(value) ? `${value}.` : String(value));
	const ring = (points: readonly (readonly [number, number])[]) => {
		const refs = points.map(([x, y]) => add(`IFCCARTESIANPOINT((${real(x)},${real(y)}))`));
		return add(`IFCPOLYLINE((${[...refs, refs[0]!].join()}))`);
	};
	const at = (z: number) => add(`IFCAXIS2PLACEMENT3D(${add(`IFCCARTESIANPOINT((0.,0.,${real(z)}))`)},$,$)`);
	const unit = add('IFCSIUNIT(*,.LENGTHUNIT.,$,.METRE.)');
	const units = add(`IFCUNITASSIGNMENT((${unit}))`);
	const context = add(`IFCGEOMETRICREPRESENTATIONCONTEXT($,'Model',3,1.E-05,${at(0)},$)`);
	add(`IFCPROJECT('0YvctVUKr0kugbFTf53O9L',$,'P',$,$,$,$,(${context}),${units})`);
	const profile = openings.length
		? `IFCARBITRARYPROFILEDEFWITHVOIDS(.AREA.,$,${ring(outline)},(${openings.map(ring).join()}))`
		: `IFCARBITRARYCLOSEDPROFILEDEF(.AREA.,$,${ring(outline)})`;
	const up = add('IFCDIRECTION((0.,0.,1.))');
	const solid = add(`IFCEXTRUDEDAREASOLID(${add(profile)},${at(0)},${up},0.4)`);
	const shape = add(`IFCSHAPEREPRESENTATION(${context},'Body','SweptSolid',(${solid}))`);
	const product = add(`IFCPRODUCTDEFINITIONSHAPE($,$,(${shape}))`);
	const place = add(`IFCLOCALPLACEMENT($,${at(3)})`);
	add(`IFCSLAB('1YvctVUKr0kugbFTf53O9L',$,'Deck',$,$,${place},${product},$,.FLOOR.)`);
	return [
		'ISO-10303-21;',
		'HEADER;',
		"FILE_DESCRIPTION((''),'2;1');",
		"FILE_NAME('','2026-01-01T00:00:00',(''),(''),'','','');",
		"FILE_SCHEMA(('IFC4'));",
		'ENDSEC;',
		'DATA;',
		...lines,
		'ENDSEC;',
		'END-ISO-10303-21;',
		''
	].join('\n');
}
