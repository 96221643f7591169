import { metresRounded } from './words';
import type { UnitVerdict } from './judge';
import { median } from './sizes';

/** What things of a building measure, metres: below and above it is not that thing or not that unit. */
const plausible: Record<string, { words: string; low: number; high: number }> = {
  'column sides': { words: 'columns', low: 0.1, high: 2.5 },
  'door leaves': { words: 'doors', low: 0.5, high: 1.6 },
  'wall pairs': { words: 'walls', low: 0.03, high: 1.2 },
  'grid spacings': { words: 'bays', low: 1.2, high: 30 },
  'stair goings': { words: 'goings', low: 0.18, high: 0.45 },
  'overall extent': { words: 'all', low: 2, high: 20_000 },
};

/** A size that follows from a unit, and whether a building has such. */
export interface Consequence {
  words: string;
  sound: boolean;
}

/** What would be true of the building if one drawing unit were so many metres, for nonsense to be seen at once. */
export function consequences({ cues }: UnitVerdict, metresPerUnit: number): Consequence[] {
  return ['overall extent', 'column sides', 'door leaves', 'wall pairs', 'grid spacings', 'stair goings'].flatMap(
    (name): Consequence[] => {
      const cue = cues.find((other) => other.cue === name);
      let drawn;
      if (cue === undefined) drawn = NaN;
      else if (name === 'overall extent') drawn = cue.range![1];
      else drawn = median(cue.places.map(({ value }) => value));

      if (!Number.isFinite(drawn)) return [];
      const { words, low, high } = plausible[name];
      const size = drawn * metresPerUnit;
      let other;
      if (name === 'overall extent') other = cue!.range![0];
      else if (name === 'column sides') other = median(cue!.places.map((place) => place.other ?? place.value));
      else other = null;

      return [
        {
          words: `${words} ${metresRounded(size)}${other === null ? '' : ` \u00d7 ${metresRounded(other * metresPerUnit)}`} m`,
          sound: size >= low && size <= high,
        },
      ];
    },
  );
}
