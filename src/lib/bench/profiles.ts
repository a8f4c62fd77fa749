/** Sections that a bar may have, with what a new one starts from. */
export const profiles: Readonly<
	Record<string, { readonly label: string; readonly values: Record<string, unknown> }>
> = {
	box: { label: 'box', values: { width: '50 mm', depth: '80 mm' } },
	tube: { label: 'hollow box', values: { width: '50 mm', depth: '80 mm', wall: '4 mm' } },
	round: { label: 'round', values: { diameter: '60 mm' } },
	angle: { label: 'angle', values: { width: '60 mm', depth: '60 mm', wall: '6 mm' } },
	tee: { label: 'tee', values: { width: '60 mm', depth: '80 mm', wall: '8 mm' } },
	blade: { label: 'blade', values: { thickness: '12 mm', depth: '180 mm' } },
	own: {
		label: 'own outline',
		values: {
			outline: [
				[-25, 0],
				[25, 0],
				[10, 60],
				[-10, 60]
			]
		}
	}
};
