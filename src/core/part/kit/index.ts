import type { PartDefinition } from '../../project/part-definition';
import { bladeStack } from './blade-stack';
import { bowedPanel } from './bowed-panel';
import { boxMullion } from './box-mullion';
import { capStrip } from './cap-strip';
import { castNode } from './cast-node';
import { curvedTrussCell } from './curved-truss-cell';
import { deepWindow } from './deep-window';
import { flatPanel } from './flat-panel';
import { foldedHood } from './folded-hood';
import { framedGlass } from './framed-glass';
import { hollowBlock } from './hollow-block';
import { nodeBall } from './node-ball';
import { nodePlate } from './node-plate';
import { nodeStar } from './node-star';
import { perforatedSheet } from './perforated-sheet';
import { piercedSheet } from './pierced-sheet';
import { pinwheel } from './pinwheel';
import { pyramid } from './pyramid';
import { ringOpening } from './ring-opening';
import { solidSpandrel } from './solid-spandrel';
import { spacedSleeve } from './spaced-sleeve';
import { splitPanel } from './split-panel';
import { standingPost } from './standing-post';
import { sunHood } from './sun-hood';
import { teeMullion } from './tee-mullion';
import { trussCell } from './truss-cell';
import { tubeEdge } from './tube-edge';
import { twinPinwheel } from './twin-pinwheel';
import { uprightFins } from './upright-fins';
import { wovenTube } from './woven-tube';

/** The parts that ship, written in the same language as any other. */
export const shippedParts: readonly PartDefinition[] = [
	flatPanel,
	framedGlass,
	deepWindow,
	ringOpening,
	pinwheel,
	twinPinwheel,
	pyramid,
	foldedHood,
	bowedPanel,
	splitPanel,
	perforatedSheet,
	piercedSheet,
	solidSpandrel,
	bladeStack,
	uprightFins,
	sunHood,
	boxMullion,
	teeMullion,
	tubeEdge,
	capStrip,
	trussCell,
	curvedTrussCell,
	nodeBall,
	nodePlate,
	nodeStar,
	castNode,
	standingPost,
	wovenTube,
	spacedSleeve,
	hollowBlock
];
