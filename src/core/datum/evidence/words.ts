import { formatNumber, metresPer, unitNames, type LengthUnit } from '@/core/units/length';
import type { Cue, UnitVerdict } from './judge';

/** Metres with as many places as their size is worth. */
export function metresRounded(value: number): string {
  if (value < 10) return formatNumber(value, 2);
  return formatNumber(value, value < 1000 ? 1 : 0);
}

/** What a cue comes to in a unit: the range of the sizes seen, in metres; what was written or said as it is. */
export function seenAs(cue: Cue, unit: LengthUnit, scale = 1): string {
  if (cue.range === null) return cue.seen;
  if (cue.cue === 'overall extent')
    return `${metresRounded(cue.range[1] * metresPer[unit] * scale)} \u00d7 ${metresRounded(cue.range[0] * metresPer[unit] * scale)} m`;
  const [low, high] = cue.range.map((value) => metresRounded(value * metresPer[unit] * scale));
  return low === high ? `${low} m` : `${low} \u2013 ${high} m`;
}

/** The header against what was measured, in words: two sentences, or null where they agree or nothing can be said. */
export function conflict({ header, chosen, cues }: UnitVerdict): { header: string; observations: string } | null {
  if (header === null || chosen === header) return null;
  const others = cues.filter((cue) => cue.cue !== 'header unit' && cue.favours !== null);
  if (others.length === 0) return null;
  const total = others.reduce((sum, cue) => sum + cue.observations, 0);
  const best = [...new Set(others.map((cue) => cue.favours!))]
    .map((unit): [LengthUnit, number] => [
      unit,
      others.reduce((sum, cue) => sum + (cue.favours === unit ? cue.observations : 0), 0),
    ])
    .sort((a, b) => b[1] - a[1])[0];
  if (best[0] === header) return null;
  return {
    header: `The header says ${unitNames[header]}.`,
    observations: `${best[1].toLocaleString('en')} of ${total.toLocaleString('en')} observations say ${unitNames[best[0]]}.`,
  };
}
