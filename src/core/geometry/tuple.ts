/** Points of any dimension, weighted points included, for the friendly code around the hot loops. */
export type Tuple = readonly number[];

export const addTuple = (a: Tuple, b: Tuple): number[] => a.map((value, k) => value + b[k]!);
export const subtractTuple = (a: Tuple, b: Tuple): number[] => a.map((value, k) => value - b[k]!);
export const scaleTuple = (a: Tuple, s: number): number[] => a.map((value) => value * s);
export const mixTuple = (a: Tuple, b: Tuple, t: number): number[] =>
	a.map((value, k) => value + (b[k]! - value) * t);
