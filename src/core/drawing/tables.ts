import type { StringDecoder } from './codePage';
import { byLayer, trueColour, type Drawing, type Layer, type Style } from './drawing';
import { Interner } from './interner';
import type { Record } from './record';
import { plainText } from './strings';

/** Layers and styles are told by numbers of 16 bits. */
const mostNumbered = 65_535;
const noStyle = { colour: NaN, lineType: NaN, lineTypeScale: NaN, lineWeight: NaN, index: 0 };

/** The layers, line types and styles of a drawing: what its tables say of them, and what entities ask for. */
export class Tables {
  private readonly layerNames = new Interner(undefined, plainText);
  private readonly lineTypes = new Interner();
  private readonly layers = new Map<number, Layer>();
  private readonly dashes = new Map<string, number[]>();
  private readonly styles: Style[] = [];
  private readonly styleIndex = new Map<string, number>();
  private lastStyle = noStyle;

  constructor() {
    this.layerNames.named('0');
    this.lineTypes.named('BYLAYER');
  }

  /** Names that were too long, or held characters which are none. */
  get mended(): number {
    return this.layerNames.mended + this.lineTypes.mended;
  }

  /** An entry of the table of layers. */
  addLayer(record: Record, decoder: StringDecoder): void {
    const name = record.bytes(2);
    if (name === null) return;
    const index = this.layerNames.intern(name, 0, name.length, decoder);
    const flags = record.number(70, 0);
    const colour = record.number(62, 7);
    this.layers.set(index, {
      name: this.layerNames.names[index],
      colour: record.has(420) ? trueColour + (record.number(420, 0) & 0xffffff) : Math.abs(colour),
      off: colour < 0,
      frozen: (flags & 1) === 1,
      locked: (flags & 4) === 4,
      plot: record.number(290, 1) !== 0,
      lineType: record.string(6, decoder) || 'CONTINUOUS',
      lineWeight: record.number(370, -3),
    });
  }

  /** An entry of the table of line types. */
  addLineType(record: Record, decoder: StringDecoder): void {
    const name = record.string(2, decoder);
    const dashes: number[] = [];
    for (let i = 0; i < record.length; i += 1) if (record.codes[i] === 49) dashes.push(record.values[i]);
    if (dashes.length > 0 && !record.broken) this.dashes.set(name.toLowerCase(), dashes);
  }

  /** The number of an entity's layer; null where there are more than can be told apart. */
  layerOf(record: Record, decoder: StringDecoder): number | null {
    const index = record.internIn(this.layerNames, 8, decoder);
    if (index < 0) return 0;
    return index < mostNumbered ? index : null;
  }

  /** The number of an entity's style. */
  styleOf(record: Record, decoder: StringDecoder): number {
    const lineType = Math.max(0, record.internIn(this.lineTypes, 6, decoder));
    const colour = record.has(420)
      ? trueColour + (record.number(420, 0) & 0xffffff)
      : Math.abs(record.number(62, byLayer));
    const lineWeight = record.number(370, -1);
    const lineTypeScale = record.number(48, 1);
    const last = this.lastStyle;
    if (
      last.colour === colour &&
      last.lineType === lineType &&
      last.lineWeight === lineWeight &&
      last.lineTypeScale === lineTypeScale
    )
      return last.index;
    const key = `${colour}/${lineType}/${lineWeight}/${lineTypeScale}`;
    let index = this.styleIndex.get(key);
    if (index === undefined) {
      index = this.styles.length;
      if (index > mostNumbered) return 0;
      this.styles.push({ colour, lineType: this.lineTypes.names[lineType], lineTypeScale, lineWeight });
      this.styleIndex.set(key, index);
    }
    this.lastStyle = { colour, lineType, lineTypeScale, lineWeight, index };
    return index;
  }

  /** What a drawing keeps of its tables; a layer that only entities name has what layers usually have. */
  finish(): Pick<Drawing, 'layers' | 'styles' | 'lineTypes'> {
    const layers = this.layerNames.names.map((name, i) => this.layers.get(i) ?? { name, ...usualLayer });
    const lineTypes = this.lineTypes.names.flatMap((name) => {
      const dashes = this.dashes.get(name.toLowerCase());
      return dashes ? [{ name, dashes }] : [];
    });
    for (const layer of layers) {
      const dashes = this.dashes.get(layer.lineType.toLowerCase());
      if (dashes && !lineTypes.some(({ name }) => name.toLowerCase() === layer.lineType.toLowerCase()))
        lineTypes.push({ name: layer.lineType, dashes });
    }
    return { layers, styles: this.styles.length > 0 ? this.styles : [usualStyle], lineTypes };
  }
}

const usualLayer: Omit<Layer, 'name'> = {
  colour: 7,
  off: false,
  frozen: false,
  locked: false,
  plot: true,
  lineType: 'CONTINUOUS',
  lineWeight: -3,
};
const usualStyle: Style = { colour: byLayer, lineType: 'BYLAYER', lineTypeScale: 1, lineWeight: -1 };
