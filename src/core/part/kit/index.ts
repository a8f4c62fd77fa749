import type { PartDefinition } from '../../project/part-definition';
import { bladeStack } from './blade-stack';
import { boxMullion } from './box-mullion';
import { framedGlass } from './framed-glass';

/** The parts that ship, written in the same language as any other. */
export const shippedParts: readonly PartDefinition[] = [framedGlass, boxMullion, bladeStack];
