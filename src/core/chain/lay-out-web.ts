import type { JoinedFaces } from '../cladding/join-rims';
import { lineNet } from '../cladding/line-net';
import type { FaceModel, SetOutFace } from '../cladding/model';
import { addressBehind } from '../mass/face';
import { webBetween } from '../pattern/web';
import type { Zone } from '../project/schema';
import type { StandingOf } from '../project/standing-schema';
import { pathTo } from '../project/typed-path';
import { refuse } from '../units/problem';
import { formatNumber } from '../units/quantity';
import type { Kept } from './memo';
import { rootOf, zoneNamed } from './other-zones';
import type { Run } from './stage';

const isShifted = ({ on }: Zone) => on.is === 'layer' && on.shifted;

/** Values of two lists, one behind the other. */
function both(a: Float64Array, b: Float64Array): Float64Array {
	const all = new Float64Array(a.length + b.length);
	all.set(a);
	all.set(b, a.length);
	return all;
}

/**
 * The lines between two zones that lie behind one another, face by face.
 *
 * @param layOut the faces of a zone as they are laid out @throws ProblemError
 */
export async function layOutWeb(
	run: Run,
	zone: Zone,
	{ from, to, bars }: StandingOf<'web'>,
	layOut: (side: Zone) => Promise<Kept<JoinedFaces>>
): Promise<Kept<SetOutFace>[]> {
	const at = pathTo('zones', zone.id) + '/on';
	const [one, other] = [zoneNamed(run, from, `${at}/from`), zoneNamed(run, to, `${at}/to`)];
	const root = rootOf(run.project, one);
	if (one === other || !root || rootOf(run.project, other) !== root)
		refuse(
			`${at}/to`,
			`lines join two grids of which one lies behind the other; ${one.name} and ${other.name} do not`
		);
	if (!bars.length) refuse(`${at}/bars`, 'no bars are asked for; uprights, diagonals or both are accepted');
	const across = isShifted(one) !== isShifted(other);
	if (across && !bars.includes('diagonal'))
		refuse(
			`${at}/bars`,
			`no node lies behind another where one of two grids is shifted: only diagonals join ${one.name} and ${other.name}`,
			[{ label: 'diagonals', path: `${at}/bars`, value: ['diagonal'] }]
		);
	const [first, second] = [await layOut(one), await layOut(other)];
	return first.value.faces.map((face, k) =>
		run.memo.use(['web', zone.id, k], [first, second, bars, across], () =>
			run.timed('cells', () => {
				const behind = second.value.faces[k]!;
				const side = (model: FaceModel, of: Zone) => ({
					grid: model.grid,
					cells: model.cells,
					edges: model.edges,
					shifted: isShifted(of)
				});
				// Where both are shifted alike, nodes lie behind nodes again.
				const { lines, leftOut } = webBetween(side(face, one), side(behind, other), bars);
				const said = leftOut
					? [
							`${formatNumber(leftOut)} ${leftOut === 1 ? 'bar is' : 'bars are'} left out where one of its ends has no node: at a trim, or where one pattern has nodes that the other has not`
						]
					: [];
				return lineNet(
					{
						address: addressBehind(face.address, zone.id),
						positions: both(face.grid.positions, behind.grid.positions),
						normals: both(face.grid.normals, behind.grid.normals),
						lines,
						spread: null,
						chains: [],
						said
					},
					run.memo.nextSerial()
				);
			})
		)
	);
}
