import { partsOf } from '$core/cladding/kit';
import { hangsOn, type GridSite } from '$core/cladding/sites';
import type { PartDefinition } from '$core/project/part-definition';
import type { Project } from '$core/project/schema';

export const partOfVariant = (project: Project, id: string): PartDefinition | undefined => {
	const variant = project.variants.find((one) => one.id === id);
	return partsOf(project).find((part) => part.id === variant?.part);
};

/** How a variant is named where one is chosen: its part and itself. */
export function variantLabel(project: Project, id: string): string {
	const variant = project.variants.find((one) => one.id === id);
	const part = partOfVariant(project, id);
	return variant ? `${part?.label ?? variant.part} · ${variant.name}` : id;
}

/** The variants whose part hangs on sites of a kind, to choose from. */
export const variantsOn = (project: Project, kind: GridSite): { value: string; label: string }[] =>
	project.variants
		.filter(({ id }) => {
			const part = partOfVariant(project, id);
			return part && hangsOn(part, kind);
		})
		.map(({ id }) => ({ value: id, label: variantLabel(project, id) }));
