import type { Tokens } from './tokens';

/** The strokes and gaps that others' outlines have, pixels: they are told apart without their colours too. */
const patterns = [
  [12, 4],
  [2, 3],
  [12, 3, 2, 3],
  [6, 5],
] as const;
const colours = ['other1', 'other2', 'other3', 'other4'] as const satisfies (keyof Tokens)[];

/** How the outlines of somebody else look: four who are here differ in both, sixteen in one or both. */
export function lookOf(place: number): { colour: keyof Tokens; pattern: readonly number[] } {
  const round = Math.floor(place / colours.length);
  return {
    colour: colours[place % colours.length],
    pattern: patterns[(place + round) % patterns.length],
  };
}
