import type { Model } from '../../cladding/model';
import { transpose, type Surface } from '../../geometry/surface';
import type { Face } from '../../mass/face';
import { DERIVED, StepWriter, enumeration, exactReal, list, text, type StepValue } from './text';

/** Knots, each once, with how often it stands. */
function knotLists(knots: Float64Array): { values: number[]; times: number[] } {
	const values: number[] = [];
	const times: number[] = [];
	for (const knot of knots) {
		if (values.at(-1) === knot) times[times.length - 1]!++;
		else {
			values.push(knot);
			times.push(1);
		}
	}
	return { values, times };
}

const integers = (values: readonly number[]) => list(values.map(String));
const reals = (values: readonly number[]) => list(values.map(exactReal));
const UNSPECIFIED = enumeration('UNSPECIFIED');
const TRUE = enumeration('T');
const FALSE = enumeration('F');

/** A rim of a face: control points with weights, and its knots. */
interface Rim {
	readonly degree: number;
	readonly knots: Float64Array;
	readonly net: Float64Array;
}

function rimOf(surface: Surface, row: number): Rim {
	const { degreeU, knotsU, countU, net } = surface;
	return { degree: degreeU, knots: knotsU, net: net.subarray(4 * row * countU, 4 * (row + 1) * countU) };
}

class FaceWriter {
	constructor(private readonly step: StepWriter) {}

	private point(x: number, y: number, z: number): StepValue {
		return this.step.once('CARTESIAN_POINT', text(''), reals([x, y, z]));
	}

	private vertex(rim: Rim, last: boolean): StepValue {
		const o = last ? rim.net.length - 4 : 0;
		const [x, y, z, w] = rim.net.subarray(o, o + 4) as unknown as [number, number, number, number];
		return this.step.once('VERTEX_POINT', text(''), this.point(x / w, y / w, z / w));
	}

	private curve({ degree, knots, net }: Rim): StepValue {
		const { values, times } = knotLists(knots);
		const points: StepValue[] = [];
		const weights: number[] = [];
		for (let k = 0; k < net.length; k += 4) {
			const w = net[k + 3]!;
			points.push(this.point(net[k]! / w, net[k + 1]! / w, net[k + 2]! / w));
			weights.push(w);
		}
		return this.step.addComplex(
			'BOUNDED_CURVE()',
			`B_SPLINE_CURVE(${degree},${list(points)},${UNSPECIFIED},${FALSE},${FALSE})`,
			`B_SPLINE_CURVE_WITH_KNOTS(${integers(times)},${reals(values)},${UNSPECIFIED})`,
			'CURVE()',
			'GEOMETRIC_REPRESENTATION_ITEM()',
			`RATIONAL_B_SPLINE_CURVE(${reals(weights)})`,
			"REPRESENTATION_ITEM('')"
		);
	}

	private surface({ degreeU, degreeV, knotsU, knotsV, countU, countV, net }: Surface): StepValue {
		const [u, v] = [knotLists(knotsU), knotLists(knotsV)];
		const points: StepValue[] = [];
		const weights: StepValue[] = [];
		for (let i = 0; i < countU; i++) {
			const column: StepValue[] = [];
			const columnWeights: number[] = [];
			for (let j = 0; j < countV; j++) {
				const o = 4 * (j * countU + i);
				const w = net[o + 3]!;
				column.push(this.point(net[o]! / w, net[o + 1]! / w, net[o + 2]! / w));
				columnWeights.push(w);
			}
			points.push(list(column));
			weights.push(reals(columnWeights));
		}
		return this.step.addComplex(
			'BOUNDED_SURFACE()',
			`B_SPLINE_SURFACE(${degreeU},${degreeV},${list(points)},${UNSPECIFIED},${FALSE},${FALSE},${FALSE})`,
			`B_SPLINE_SURFACE_WITH_KNOTS(${integers(u.times)},${integers(v.times)},${reals(u.values)},${reals(v.values)},${UNSPECIFIED})`,
			'GEOMETRIC_REPRESENTATION_ITEM()',
			`RATIONAL_B_SPLINE_SURFACE(${list(weights)})`,
			"REPRESENTATION_ITEM('')",
			'SURFACE()'
		);
	}

	/** An edge along a rim, or nothing where the rim is a point (a pole). */
	private edge(rim: Rim): StepValue | null {
		const at = (k: number, axis: number) => rim.net[4 * k + axis]! / rim.net[4 * k + 3]!;
		let size = 0;
		for (let k = 1; k < rim.net.length / 4; k++)
			size += Math.hypot(at(k, 0) - at(k - 1, 0), at(k, 1) - at(k - 1, 1), at(k, 2) - at(k - 1, 2));
		if (size < 1e-6) return null;
		return this.step.add(
			'EDGE_CURVE',
			text(''),
			this.vertex(rim, false),
			this.vertex(rim, true),
			this.curve(rim),
			TRUE
		);
	}

	face(face: Face, name: string): StepValue {
		const { surface } = face;
		const turned = transpose(surface);
		const foot = this.edge(rimOf(surface, 0));
		const left = this.edge(rimOf(turned, 0));
		// On a ring both sides are one edge, run up and down.
		const head = face.closedUp ? foot : this.edge(rimOf(surface, surface.countV - 1));
		const right = face.closedAcross ? left : this.edge(rimOf(turned, surface.countU - 1));
		const oriented = (edge: StepValue | null, forward: boolean) =>
			edge ? [this.step.add('ORIENTED_EDGE', text(''), DERIVED, DERIVED, edge, forward ? TRUE : FALSE)] : [];
		const loop = this.step.add(
			'EDGE_LOOP',
			text(''),
			list([
				...oriented(foot, true),
				...oriented(right, true),
				...oriented(head, false),
				...oriented(left, false)
			])
		);
		const bound = this.step.add('FACE_OUTER_BOUND', text(''), loop, TRUE);
		return this.step.add('ADVANCED_FACE', text(name), list([bound]), this.surface(surface), TRUE);
	}
}

/**
 * The faces of all masses as STEP (ISO 10303-21, AP242 managed model based 3D engineering): one open shell
 * for each mass, exact to the last digit, in millimetres.
 * @param written the file's time stamp, ISO 8601
 */
export function writeStep(model: Model, written: string): string {
	const step = new StepWriter();
	const name = text(model.project.name);
	const application = step.add('APPLICATION_CONTEXT', text('managed model based 3d engineering'));
	step.add(
		'APPLICATION_PROTOCOL_DEFINITION',
		text('international standard'),
		text('ap242_managed_model_based_3d_engineering'),
		'2014',
		application
	);
	const product = step.add(
		'PRODUCT',
		name,
		name,
		text(''),
		list([step.add('PRODUCT_CONTEXT', text(''), application, text('mechanical'))])
	);
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
		`GLOBAL_UNCERTAINTY_ASSIGNED_CONTEXT((${uncertainty}))`,
		`GLOBAL_UNIT_ASSIGNED_CONTEXT((${length},${angle},${solid}))`,
		"REPRESENTATION_CONTEXT('','')"
	);
	const faces = new FaceWriter(step);
	const models = model.masses.flatMap((mass) => {
		const called = model.project.masses.find((one) => one.id === mass.id)?.name ?? mass.id;
		if (!mass.faces.length) return [];
		const made = mass.faces.map((face) => faces.face(face, `${called} · ${face.name}`));
		const shell = step.add('OPEN_SHELL', text(called), list(made));
		return [step.add('SHELL_BASED_SURFACE_MODEL', text(called), list([shell]))];
	});
	const origin = step.once('CARTESIAN_POINT', text(''), reals([0, 0, 0]));
	const axes = step.add('AXIS2_PLACEMENT_3D', text(''), origin, '$', '$');
	const representation = step.add(
		'MANIFOLD_SURFACE_SHAPE_REPRESENTATION',
		text(''),
		list([axes, ...models]),
		context
	);
	step.add('SHAPE_DEFINITION_REPRESENTATION', shape, representation);
	return step.file([
		"FILE_DESCRIPTION(('Faces of masses'),'2;1');",
		`FILE_NAME(${text(`${model.project.name}.stp`)},${text(written)},(''),(''),'Zygaster','Zygaster','');`,
		"FILE_SCHEMA(('AP242_MANAGED_MODEL_BASED_3D_ENGINEERING_MIM_LF'));"
	]);
}
