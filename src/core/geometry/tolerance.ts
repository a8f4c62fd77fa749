/**
 * What counts as nothing, as the same, as on the rim: each with its unit and its reason. Values are checked against a
 * size wherever that can vary; lengths stand alone where only what is built (0.01 mm to 10 km) can be meant. Readers
 * and writers of files have tolerances of their own beside them: those of the format.
 */

/** Lengths (mm) that differ by less differ by rounding: doubles keep 1e-9 mm up to some kilometres. */
export const ROUNDED = 1e-9;

/** Points nearer than this (mm) are one: far below what can be built or measured, far above rounding. */
export const SAME_POINT = 1e-6;

/** A direction shorter than this is none: its own rounding would turn it. No unit, or mm of a normal's length. */
export const NO_DIRECTION = 1e-9;

/** A direction that leans from another by less (sine) goes along it: what is square to both is its rounding. */
export const ALONG = 1e-6;

/** Shares of a whole (no unit) that differ by less are one: parameters of curves and faces, places along a path. */
export const SAME_SHARE = 1e-9;

/** The same where both shares were found by an iteration, which leaves more behind. */
export const FOUND_SHARE = 1e-6;

/** An iteration that moves by less than this share of a parameter stands still. */
export const STILL = 1e-12;

/** A determinant below this share of the products it is made of is nothing: its equations say one thing twice. */
export const SINGULAR = 1e-12;

/** Steps of a grid that differ by less are one: patterns are drawn by hand to a thousandth at best. */
export const SAME_STEP = 1e-7;

/** Counts come out of divisions: what is nearer than this to a whole number is meant to be one. */
export const WHOLE = 1e-9;

/** Turns (rad) smaller than this are none: 1e-9 rad is a millimetre in a thousand kilometres. */
export const NO_TURN = 1e-9;

/** A course shorter than this (mm) is a pole: its nodes lie in one point. */
export const POLE = 1e-3;
