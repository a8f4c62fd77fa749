import type { Model } from '../src/core/cladding/model';

/** What a model comes to, without what only tells of its making. */
export function contentOf({ zones, masses, guides, problems }: Model): unknown {
	const said = new Map(problems.map((one) => [JSON.stringify(one), true]));
	return {
		said: [...said.keys()].sort(),
		masses: masses.map(({ id, faces, behind }) => ({
			id,
			behind,
			faces: behind ? null : faces.map(({ surface }) => surface)
		})),
		guides: [...guides],
		zones: zones.map(({ id, behind, model }) => ({
			id,
			behind,
			// What stays of a zone that cannot be made hangs on what went before.
			model: behind
				? null
				: {
						faces: model!.faces.map(
							({
								grid,
								cells,
								edges,
								measures,
								folds,
								edgeNormals,
								layer,
								sharedEdges,
								bare,
								slivers,
								slots,
								address,
								chains,
								nodes
							}) => ({
								grid,
								cells,
								edges,
								measures,
								folds,
								edgeNormals,
								layer,
								sharedEdges,
								bare,
								slivers,
								slots,
								address,
								chains,
								nodes: nodes()
							})
						),
						assignments: model!.assignments.map(({ moved, ...rest }) => ({ ...rest, moved: [...moved] })),
						groups: model!.groups.map(({ clause, face, group }) => ({
							clause,
							face,
							over: group.over,
							corners: group.corners,
							sites: group.sites,
							variant: group.ready.variant,
							elements: group.run.elements,
							flags: group.run.flags,
							results: [...group.run.results],
							perPiece: [...group.perPiece],
							told: group.flags.all()
						}))
					}
		}))
	};
}

/** The first place where two values are not the same bits. */
export function difference(a: unknown, b: unknown, at = ''): string | null {
	if (Object.is(a, b)) return null;
	if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null)
		return `${at}: ${String(a)} and ${String(b)}`;
	if (ArrayBuffer.isView(a) && ArrayBuffer.isView(b)) {
		const [p, q] = [a as Float64Array, b as Float64Array];
		if (p.length !== q.length) return `${at}: ${p.length} and ${q.length} values`;
		const k = p.findIndex((value, n) => !Object.is(value, q[n]));
		return k < 0 ? null : `${at}[${k}]: ${p[k]} and ${q[k]}`;
	}
	const [keys, others] = [Object.keys(a), Object.keys(b)];
	if (keys.length !== others.length) return `${at}: ${keys.join()} and ${others.join()}`;
	for (const key of keys) {
		const found = difference(
			(a as Record<string, unknown>)[key],
			(b as Record<string, unknown>)[key],
			`${at}/${key}`
		);
		if (found) return found;
	}
	return null;
}
