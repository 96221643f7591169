import { dxf, readText } from '@/core/drawing/testing/dxf';
import { flatten } from '@/core/underlay/flatten';
import { classify } from '../classify';

/** What each path of a drawing in metres looks like, all on one layer. */
export function looksOf(entities: string, blocks = ''): (string | null)[] {
  const { drawing } = readText(dxf({ entities, blocks }));
  return classify(drawing, flatten(drawing), 1).map((look) => look?.role ?? null);
}
