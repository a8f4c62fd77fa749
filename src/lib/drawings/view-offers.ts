import { corners, sides, type Shown } from '$core/project/own-sheet-schema';
import type { Project } from '$core/project/schema';

/** A view that can be put on a sheet. */
export interface ViewOffer {
	readonly label: string;
	readonly of: Shown;
}

/** Zones of more faces are offered by their first one; its number is then said in the sentence. */
const FACES = 6;

/** What can be shown of a project, the whole of it first. */
export function viewOffers(
	{ drawings }: Pick<Project, 'drawings'>,
	zones: readonly { readonly id: string; readonly name: string; readonly faces: number }[]
): ViewOffer[] {
	return [
		...sides.map((from) => ({
			label: from === 'above' ? 'The whole from above' : `The whole from the ${from}`,
			of: { shows: 'elevation' as const, from, zone: null }
		})),
		...corners.map((from) => ({
			label: `Picture from the ${from}`,
			of: { shows: 'picture' as const, from, zone: null }
		})),
		...drawings.sections.map(({ id, looking }, k) => ({
			label: `Section S-${String(k + 1).padStart(2, '0')}, looking ${looking}`,
			of: { shows: 'section' as const, section: id }
		})),
		...zones.flatMap(({ id, name, faces }) =>
			Array.from({ length: faces > FACES ? 1 : faces }, (_, k) => ({
				label: `${name}${faces > 1 ? `, face ${k + 1}` : ''}, laid flat`,
				of: { shows: 'unrolled' as const, zone: id, face: k + 1 }
			}))
		)
	];
}
