import { groupBy } from '@/core/groupBy';
import { counted } from './counted';
import { put, type Edit } from './edits';
import type { Model } from './model';
import type { Profile } from './siteSettings';

/**
 * Uses of rooms that ship: temperatures of EN 12831-1, table B.14 (bathrooms 24, dwellings, offices and classrooms 20,
 * corridors and stores 15), air changes of its table B.7, gains of ISO 52016-1, annex B, and of offices in use.
 */
export const usualProfiles: readonly Profile[] = [
  { name: 'Living, sleeping', temperature: 20, airChange: 0.5, gains: 3 },
  { name: 'Office, study', temperature: 20, airChange: 1, gains: 6 },
  { name: 'Meeting, teaching', temperature: 20, airChange: 2, gains: 8 },
  { name: 'Kitchen', temperature: 20, airChange: 1.5, gains: 8 },
  { name: 'Bath, changing', temperature: 24, airChange: 1.5, gains: 2 },
  { name: 'Workshop, laboratory', temperature: 18, airChange: 2, gains: 10 },
  { name: 'Corridor, stair', temperature: 15, airChange: 0.5, gains: 1 },
  { name: 'Store, plant', temperature: 15, airChange: 0.3, gains: 1 },
  { name: 'Unheated', temperature: null, airChange: 0.5, gains: 0 },
];

/** Which names of rooms mean which profile; a star stands for anything, the first that fits counts. */
export interface ProfileRule {
  pattern: string;
  profile: string;
}

/** Rules for names that rooms often have. */
export const usualProfileRules: readonly ProfileRule[] = [
  { pattern: '*corridor*', profile: 'Corridor, stair' },
  { pattern: '*hall*', profile: 'Corridor, stair' },
  { pattern: '*stair*', profile: 'Corridor, stair' },
  { pattern: '*wash*', profile: 'Bath, changing' },
  { pattern: '*bath*', profile: 'Bath, changing' },
  { pattern: '*shower*', profile: 'Bath, changing' },
  { pattern: '*galley*', profile: 'Kitchen' },
  { pattern: '*kitchen*', profile: 'Kitchen' },
  { pattern: '*bunk*', profile: 'Living, sleeping' },
  { pattern: '*mess*', profile: 'Living, sleeping' },
  { pattern: '*store*', profile: 'Store, plant' },
  { pattern: '*plant*', profile: 'Store, plant' },
  { pattern: '*lab*', profile: 'Workshop, laboratory' },
  { pattern: '*workshop*', profile: 'Workshop, laboratory' },
  { pattern: '*office*', profile: 'Office, study' },
  { pattern: '*library*', profile: 'Office, study' },
  { pattern: '*meeting*', profile: 'Meeting, teaching' },
];

/** Whether a name fits a pattern: its letters in any case, a star for anything. */
export function fitsPattern(pattern: string, name: string): boolean {
  const parts = pattern
    .trim()
    .toLowerCase()
    .split('*')
    .map((part) => part.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'));
  return new RegExp(`^${parts.join('.*')}$`, 's').test(name.trim().toLowerCase());
}

/** The profile of a room by its name; null where no rule fits. */
export const profileOf = (
  name: string,
  rules: readonly ProfileRule[],
  profiles: readonly Profile[],
): Profile | null => {
  const rule = rules.find(({ pattern }) => fitsPattern(pattern, name));
  return profiles.find((one) => one.name === rule?.profile) ?? null;
};

/** Gives all zones whose names fit a rule the values of its profile. */
export function withProfiles(model: Model, rules: readonly ProfileRule[], profiles: readonly Profile[]): Edit {
  const changes = [...model.ofKind('zone')].flatMap((row) => {
    const found = profileOf(row.shape.name, rules, profiles);
    if (found === null) return [];
    const { temperature, airChange, gains } = found;
    const now = row.shape;
    if (now.temperature === temperature && now.airChange === airChange && now.gains === gains) return [];
    return [put('element', { ...row, shape: { ...now, temperature, airChange, gains } })];
  });
  return { label: `Use of ${counted(changes.length, 'room')} by name`, changes };
}

/** How many rooms each rule gives its profile. */
export function roomsByRule(model: Model, rules: readonly ProfileRule[]): Map<number, number> {
  const found = [...model.ofKind('zone')].map(({ shape }) =>
    rules.findIndex(({ pattern }) => fitsPattern(pattern, shape.name)),
  );
  return new Map([...groupBy(found, (i) => i)].map(([i, own]) => [i, own.length]));
}
