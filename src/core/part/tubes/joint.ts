/** Round arms that leave one point as one smooth body: registers of a part that is made, slots of its program. mm. */
export interface TubeJoint<Place, Amount> {
	readonly centre: Place;
	readonly ways: readonly { readonly direction: Place; readonly diameter: Amount }[];
	readonly reach: Amount;
	readonly fillet: Amount;
}

/** The same joint of other places and numbers. */
export const mapJoint = <P, A, Q, B>(
	{ centre, ways, reach, fillet }: TubeJoint<P, A>,
	place: (place: P) => Q,
	amount: (amount: A) => B
): TubeJoint<Q, B> => ({
	centre: place(centre),
	ways: ways.map(({ direction, diameter }) => ({ direction: place(direction), diameter: amount(diameter) })),
	reach: amount(reach),
	fillet: amount(fillet)
});

/** The numbers of a joint, in no order. */
export const numbersOfJoint = <A>(
	joint: TubeJoint<{ readonly x: A; readonly y: A; readonly z: A }, A>
): A[] => {
	const { centre, ways, reach, fillet } = joint;
	return [
		...[centre, ...ways.map(({ direction }) => direction)].flatMap(({ x, y, z }) => [x, y, z]),
		...ways.map(({ diameter }) => diameter),
		reach,
		fillet
	];
};
