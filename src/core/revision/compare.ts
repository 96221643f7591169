import { Kind, kindNames, stringOf, textKinds, blockKinds, type Drawing } from '@/core/drawing/drawing';

/** What became of the entities of one layer. */
export interface LayerChange {
  layer: string;
  came: number;
  went: number;
  changed: number;
  same: number;
}

/** What the next revision of a drawing changed, by layer, and the rows of the model spaces that changed. */
export interface RevisionReport {
  layers: LayerChange[];
  total: Omit<LayerChange, 'layer'>;
  came: number[];
  went: number[];
  /** Rows of the later drawing, each beside the row of the earlier one that it was. */
  changed: { from: number; to: number }[];
}

/** Digits to which coordinates are compared; writers round the last ones. */
const digits = 10;

/**
 * Compares the model spaces of two revisions. First what is the same is matched, by handle and content, then by content
 * alone,
 * so that a file written anew with other handles is not taken for a new one. Of what is left, entities of one handle,
 * kind and layer have
 * changed; the rest came or went.
 */
export function compareDrawings(earlier: Drawing, later: Drawing): RevisionReport {
  const [before, after] = [contentsOf(earlier), contentsOf(later)];
  const open = new Map<string, number[]>();
  for (const [row, content] of before) push(open, content, row);
  const left = new Map(before);
  const unmatched: number[] = [];
  const layers = new Map<string, LayerChange>();
  const layerOf = (drawing: Drawing, row: number) => {
    const layer = drawing.layers[drawing.layer[row]].name;
    return layers.get(layer) ?? layers.set(layer, { layer, came: 0, went: 0, changed: 0, same: 0 }).get(layer)!;
  };
  // Twins of one content are matched with their own handle first.
  const handled = new Map<number, number>();
  for (const row of before.keys()) if (earlier.handle[row] !== 0) handled.set(earlier.handle[row], row);
  const take = (row: number, content: string): boolean => {
    const list = open.get(content);
    if (!list || list.length === 0) return false;
    const own = handled.get(later.handle[row]);
    const at = own === undefined ? -1 : list.indexOf(own);
    const [other] = list.splice(at < 0 ? list.length - 1 : at, 1);
    left.delete(other);
    return true;
  };
  for (const [row, content] of after)
    if (take(row, content)) layerOf(later, row).same += 1;
    else unmatched.push(row);

  const report: RevisionReport = {
    layers: [],
    total: { came: 0, went: 0, changed: 0, same: 0 },
    came: [],
    went: [],
    changed: [],
  };
  for (const row of unmatched) {
    const from = handled.get(later.handle[row]);
    const same =
      from !== undefined &&
      left.has(from) &&
      earlier.kind[from] === later.kind[row] &&
      earlier.layers[earlier.layer[from]].name === later.layers[later.layer[row]].name;
    if (same) {
      left.delete(from);
      report.changed.push({ from, to: row });
      layerOf(later, row).changed += 1;
    } else {
      report.came.push(row);
      layerOf(later, row).came += 1;
    }
  }
  for (const row of left.keys()) {
    report.went.push(row);
    layerOf(earlier, row).went += 1;
  }
  report.layers = [...layers.values()].sort(
    (a, b) => b.came + b.went + b.changed - a.came - a.went - a.changed || a.layer.localeCompare(b.layer),
  );
  for (const { came, went, changed, same } of report.layers) {
    report.total.came += came;
    report.total.went += went;
    report.total.changed += changed;
    report.total.same += same;
  }
  return report;
}

function push(map: Map<string, number[]>, key: string, row: number): void {
  const list = map.get(key);
  if (list) list.push(row);
  else map.set(key, [row]);
}

/**
 * What each row of the model space is, in a form that is the same for the same thing in another file: kind, layer,
 * numbers, words, the blocks' content.
 */
function contentsOf(drawing: Drawing): Map<number, string> {
  const { blocks, model } = drawing;
  const known = new Map<number, string>();
  const content = (row: number, depth: number): string => {
    const { kind, layer, layers, flags, at, numbers } = drawing;
    const own = Array.from(numbers.subarray(at[row], at[row + 1]));
    const words: string[] = [];
    if (textKinds[kind[row]] === 1) words.push(stringOf(drawing, own.splice(7, 1)[0]));
    if (kind[row] === Kind.hatch) words.push(stringOf(drawing, own.splice(0, 1)[0]));
    if (blockKinds[kind[row]] === 1) {
      const [block] = own.splice(5, 1);
      if (kind[row] === Kind.dimension && own[12] >= 0) words.push(stringOf(drawing, own.splice(12, 1)[0]));
      // The picture of a dimension follows from its points and text.
      if (kind[row] !== Kind.dimension && block >= 0)
        words.push(blocks[block].name, depth > 8 ? '' : blockContent(block, depth + 1));
    }
    const values = own.map((value) => (Number.isNaN(value) ? '' : Number(value.toPrecision(digits)))).join();
    return `${kindNames[kind[row]]}|${layers[layer[row]].name}|${flags[row]}|${values}|${words.join('|')}`;
  };
  const blockContent = (block: number, depth: number): string => {
    let found = known.get(block);
    if (found === undefined) {
      known.set(block, '');
      const { first, count } = blocks[block];
      // A number that stands for the words is enough, and keeps deep nesting small.
      let hash = 0x811c9dc5;
      for (let row = first; row < first + count; row += 1)
        for (const c of content(row, depth)) hash = Math.imul(hash ^ c.charCodeAt(0), 0x01000193);
      found = `${count}:${(hash >>> 0).toString(36)}`;
      known.set(block, found);
    }
    return found;
  };
  const { first, count } = blocks[model];
  return new Map(Array.from({ length: count }, (_, i) => [first + i, content(first + i, 0)]));
}
