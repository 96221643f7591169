import { formatNumber, metresPer, unitNames, type LengthUnit } from '@/core/units/length';
import type { Cue, UnitVerdict } from './judge';
import { median } from './sizes';

const metres = (value: number): string => formatNumber(value, value < 10 ? 2 : value < 1000 ? 1 : 0);

/** What a cue comes to in a unit: the range of the sizes seen, in metres; what was written or said as it is. */
export function seenAs(cue: Cue, unit: LengthUnit): string {
  if (cue.range === null) return cue.seen;
  const [low, high] = cue.range.map((value) => metres(value * metresPer[unit]));
  return low === high ? `${low} m` : `${low} \u2013 ${high} m`;
}

/** The header against what was measured, in words: two sentences, or null where they agree or nothing can be said. */
export function conflict({ header, chosen, cues }: UnitVerdict): { header: string; observations: string } | null {
  if (header === null || chosen === header) return null;
  const others = cues.filter((cue) => cue.cue !== 'header unit' && cue.favours !== null);
  if (others.length === 0) return null;
  const total = others.reduce((sum, cue) => sum + cue.observations, 0);
  const best = [...new Set(others.map((cue) => cue.favours!))].map((unit): [LengthUnit, number] => [unit, others.reduce((sum, cue) => sum + (cue.favours === unit ? cue.observations : 0), 0)]).sort((a, b) => b[1] - a[1])[0];
  if (best[0] === header) return null;
  return { header: `The header says ${unitNames[header]}.`, observations: `${best[1].toLocaleString('en')} of ${total.toLocaleString('en')} observations say ${unitNames[best[0]]}.` };
}

/** What would be true of the building in a unit: building, columns, doors, walls, spacings, for nonsense to be seen at once. */
export function consequences({ cues }: UnitVerdict, unit: LengthUnit): string[] {
  const middle = (name: string): number | null => { const cue = cues.find((other) => other.cue === name); return cue && cue.places.length > 0 ? median(cue.places.map(({ value }) => value)) * metresPer[unit] : null; };
  const said: string[] = [];
  const extent = cues.find(({ cue }) => cue === 'overall extent');
  if (extent?.range) said.push(`all ${metres(extent.range[1] * metresPer[unit])} m across`);
  for (const [cue, words] of [['column sides', 'columns'], ['door leaves', 'doors'], ['wall pairs', 'walls'], ['grid spacings', 'bays']] as const) {
    const size = middle(cue);
    if (size !== null) said.push(`${words} ${metres(size)} m`);
  }
  return said;
}
