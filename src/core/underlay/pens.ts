import type { Drawing } from '@/core/drawing/drawing';
import type { Pen } from './primitives';

/** Resolves line types and weights by layer and by block. Pen 0 is continuous, of the default weight. */
export class Pens {
  readonly list: Pen[] = [{ dashes: [], weight: -3 }];
  private known = new Map<number, number>();
  private byContent = new Map<string, number>([['/-3', 0]]);
  private dashes: Map<string, number[]>;
  /** Whether a style takes something from its block, so that what it comes to cannot be kept. */
  private open: boolean[];

  constructor(private drawing: Drawing) {
    this.dashes = new Map(drawing.lineTypes.map(({ name, dashes }) => [name.toLowerCase(), dashes]));
    this.open = drawing.styles.map((style) => /^byblock$/i.test(style.lineType) || style.lineWeight === -2);
  }

  /** The pen of a style on a layer, inside something drawn with a pen of its own. */
  of(style: number, layer: number, around: number): number {
    const key = style * 65536 + layer;
    const kept = this.open[style] ? undefined : this.known.get(key);
    if (kept !== undefined) return kept;
    const pen = this.make(style, layer, around);
    if (!this.open[style]) this.known.set(key, pen);
    return pen;
  }

  private make(style: number, layer: number, around: number): number {
    const { lineType, lineTypeScale, lineWeight } = this.drawing.styles[style];
    const own = this.drawing.layers[layer];
    const scale = this.drawing.header.lineTypeScale * lineTypeScale;
    const named = (name: string) => (this.dashes.get(name.toLowerCase()) ?? []).map((length) => length * scale);
    let dashes;
    if (/^byblock$/i.test(lineType)) dashes = this.list[around].dashes;
    else if (/^bylayer$/i.test(lineType)) dashes = named(own.lineType);
    else dashes = named(lineType);

    let weight;
    if (lineWeight === -2) weight = this.list[around].weight;
    else if (lineWeight === -1) weight = own.lineWeight;
    else weight = lineWeight;

    const content = `${dashes.join()}/${weight}`;
    let index = this.byContent.get(content);
    if (index === undefined && this.list.length < 65_535) {
      index = this.list.length;
      this.list.push({ dashes, weight });
      this.byContent.set(content, index);
    }
    return index ?? 0;
  }
}
