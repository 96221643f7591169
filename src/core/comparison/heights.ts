import type { HeightMark } from '@/core/datum/sectionHeights';
import { leastBy } from '@/core/lists';
import type { LevelRow } from '@/core/model/state';

/** An elevation written in a section beside the level it belongs to. Metres. */
export interface WrittenLevel {
  name: string;
  written: number;
  /** The level nearest to it; null where none is near. */
  level: { id: string; name: string; elevation: number } | null;
}

export interface LevelsBeside {
  agree: number;
  differ: WrittenLevel[];
  /** Marks with no level near, and levels that no mark names. */
  without: WrittenLevel[];
  unmarked: { id: string; name: string; elevation: number }[];
}

/** A mark and a level agree within this, metres: levels are written in centimetres at least. */
const agreement = 0.005;
/** A mark further from every level than this is of something else: a parapet, a ridge, a sill. */
const near = 0.4;

/** Sets the elevations written in a section against the ladder. */
export function levelsBeside(marks: readonly HeightMark[], levels: readonly LevelRow[]): LevelsBeside {
  const told: LevelsBeside = { agree: 0, differ: [], without: [], unmarked: [] };
  const named = new Set<string>();
  for (const { name, elevation } of marks) {
    const level = leastBy(levels, (one) => awayFrom(one, elevation));
    if (level === null || awayFrom(level, elevation) > near) {
      told.without.push({ name, written: elevation, level: null });
      continue;
    }
    named.add(level.id);
    if (awayFrom(level, elevation) <= agreement) told.agree += 1;
    else told.differ.push({ name, written: elevation, level });
  }
  told.unmarked = levels.filter(({ id }) => !named.has(id));
  return told;
}

/** How far an elevation is from a level: its finished floor, or its structure's top below. */
const awayFrom = ({ elevation, buildUp }: LevelRow, at: number): number =>
  Math.min(Math.abs(at - elevation), Math.abs(at - (elevation - buildUp)));
