export type Random = () => number;

export const between = (random: Random, low: number, high: number): number => low + random() * (high - low);

export const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)];

/** A value as a multiple of a module. */
export const step = (value: number, module: number): number => Number((Math.round(value / module) * module).toFixed(6));
