/** A file that was written in pieces, as one text. */
export const textOf = (pieces: readonly Uint8Array[]): string => Buffer.concat(pieces).toString('latin1');
