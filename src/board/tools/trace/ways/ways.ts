import type { WayName } from '@/project/tracing';
import type { Way } from '../way';
import { areaWays } from './areas';
import { calculationWays } from './calculation';
import { changeWays } from './changes';
import { lineWays } from './lines';
import { placeWays } from './places';
import { uprightWays } from './upright';

/** Every way of making and changing; one that has a name and no way does not compile. */
export const ways: Record<WayName, Way> = {
  ...lineWays,
  ...placeWays,
  ...areaWays,
  ...calculationWays,
  ...uprightWays,
  ...changeWays,
};
