import * as v from 'valibot';
import { point } from '@/core/kinds/limits';
import { elementRow } from '@/core/model/state';
import type { Clip } from '@/core/tracing/copied';

const place = 'zircon-clip';

const clipSchema: v.GenericSchema<unknown, Clip> = v.strictObject({
  elements: v.pipe(v.array(elementRow), v.maxLength(20_000)),
  base: point,
});

/** What was copied last, in this browser, from whatever project; null where nothing was. */
export function keptClip(): Clip | null {
  const text = localStorage.getItem(place);
  if (text === null) return null;
  try {
    const clip = v.safeParse(clipSchema, JSON.parse(text));
    return clip.success ? clip.output : null;
  } catch {
    return null;
  }
}

/** Keeps a clip. @returns whether there was room for it */
export function keepClip(clip: Clip): boolean {
  try {
    localStorage.setItem(place, JSON.stringify(clip));
    return true;
  } catch {
    return false;
  }
}
