import { Duplex } from 'node:stream';
import { createGzip } from 'node:zlib';
import { PACKED, type Packing } from '../core/exchange/archive';

const PIECE = 1 << 16;

/** Packs in other threads, as hard as the application does. */
export const quickPacking: Packing = () =>
	Duplex.toWeb(createGzip({ level: PACKED, chunkSize: PIECE })) as ReturnType<Packing>;
