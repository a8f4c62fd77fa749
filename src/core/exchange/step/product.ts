import { text, told, type StepRef } from './text';
import type { StepWriter } from './writer';

/** Lines of the header of a file of this schema. @param written ISO 8601 */
export const headerOf = (holds: string, name: string, written: string): string[] => [
	`FILE_DESCRIPTION((${text(holds)}),'2;1');`,
	`FILE_NAME(${text(name)},${text(written)},(''),(''),'Zygaster','Zygaster','');`,
	"FILE_SCHEMA(('AP242_MANAGED_MODEL_BASED_3D_ENGINEERING_MIM_LF'));"
];

/**
 * One product, in millimetres, whose shape is what follows.
 * @returns how its items are said to be its shape, by the kind of their representation
 */
export function productOf(
	step: StepWriter,
	called: string
): (kind: string, items: readonly StepRef[]) => void {
	const name = text(called);
	const application = step.add('APPLICATION_CONTEXT', text('managed model based 3d engineering'));
	step.add(
		'APPLICATION_PROTOCOL_DEFINITION',
		text('international standard'),
		text('ap242_managed_model_based_3d_engineering'),
		'2014',
		application
	);
	const product = step.add('PRODUCT', name, name, text(''), [
		step.add('PRODUCT_CONTEXT', text(''), application, text('mechanical'))
	]);
	const formation = step.add('PRODUCT_DEFINITION_FORMATION', text(''), text(''), product);
	const definition = step.add(
		'PRODUCT_DEFINITION',
		text('design'),
		text(''),
		formation,
		step.add('PRODUCT_DEFINITION_CONTEXT', text('part definition'), application, text('design'))
	);
	const shape = step.add('PRODUCT_DEFINITION_SHAPE', text(''), text(''), definition);
	const length = step.addComplex('LENGTH_UNIT()', 'NAMED_UNIT(*)', 'SI_UNIT(.MILLI.,.METRE.)');
	const angle = step.addComplex('NAMED_UNIT(*)', 'PLANE_ANGLE_UNIT()', 'SI_UNIT($,.RADIAN.)');
	const solid = step.addComplex('NAMED_UNIT(*)', 'SI_UNIT($,.STERADIAN.)', 'SOLID_ANGLE_UNIT()');
	const uncertainty = step.add(
		'UNCERTAINTY_MEASURE_WITH_UNIT',
		'LENGTH_MEASURE(1.E-06)',
		length,
		text('distance_accuracy_value'),
		text('')
	);
	const context = step.addComplex(
		'GEOMETRIC_REPRESENTATION_CONTEXT(3)',
		`GLOBAL_UNCERTAINTY_ASSIGNED_CONTEXT(${told([uncertainty])})`,
		`GLOBAL_UNIT_ASSIGNED_CONTEXT(${told([length, angle, solid])})`,
		"REPRESENTATION_CONTEXT('','')"
	);
	return (kind, items) => {
		const origin = step.addTuple('CARTESIAN_POINT', [0, 0, 0], 1, "''");
		const axes = step.add('AXIS2_PLACEMENT_3D', text(''), origin, '$', '$');
		const representation = step.add(kind, text(''), [axes, ...items], context);
		step.add('SHAPE_DEFINITION_REPRESENTATION', shape, representation);
	};
}
