import { arcOfBulge, chordCount, pointOnArc } from '@/core/geometry/bulge';
import { radians } from '@/core/geometry/vector';
import { Paths } from '../paths';
import { PathFlag, pathCount, type Primitives } from '../primitives';
import { copyPath, ownerOf, untouched, type StepResult } from './edit';

/**
 * Makes straight pieces of all arcs.
 * @param value degrees a piece, or how far a piece may leave its arc in drawing units
 */
export function chopArcs(p: Primitives, by: 'angle' | 'sagitta', value: number): StepResult {
  const out = new Paths();
  const paths: number[] = [];
  for (let path = 0; path < pathCount(p); path += 1) {
    const [first, end] = [p.start[path], p.start[path + 1]];
    const closed = (p.flags[path] & PathFlag.closed) !== 0;
    if (!p.bulge.subarray(first, closed ? end : end - 1).some((bulge) => bulge !== 0)) {
      copyPath(out, p, path);
      continue;
    }
    paths.push(path);
    out.begin(ownerOf(p, path), p.flags[path] & ~PathFlag.circle);
    for (let v = first; v < end; v += 1) {
      out.vertex(p.xy[2 * v], p.xy[2 * v + 1], 0);
      const next = v + 1 < end ? v + 1 : first;
      if (p.bulge[v] === 0 || (next === first && !closed)) continue;
      const arc = arcOfBulge([p.xy[2 * v], p.xy[2 * v + 1]], [p.xy[2 * next], p.xy[2 * next + 1]], p.bulge[v]);
      const count =
        by === 'angle'
          ? Math.max(1, Math.ceil(Math.abs(arc.sweep) / radians(value) - 1e-9))
          : chordCount(arc.radius, arc.sweep, value);
      for (let k = 1; k < count; k += 1) out.vertex(...pointOnArc(arc, k / count), 0);
    }
  }
  return paths.length === 0 ? untouched(p) : { primitives: { ...p, ...out.finish() }, paths, texts: [] };
}
