import { encodingOf, StringDecoder } from './codePage';
import type { DrawingHeader } from './drawing';

/** The variables of a drawing's header, as they come. Source: DXF reference, HEADER section. */
export class HeaderReader {
  readonly header: DrawingHeader = {
    version: 'AC1009',
    codePage: '',
    insUnits: null,
    measurement: null,
    lengthFormat: null,
    dimensionFactor: null,
    lineTypeScale: 1,
    insertionBase: null,
    extMin: null,
    extMax: null,
  };
  private variable = '';

  /** A variable begins; without a name the header ends. */
  begin(variable = ''): void {
    this.variable = variable;
  }

  /** Whether the text that comes says in what encoding the texts of the file are. */
  get tellsEncoding(): boolean {
    return this.variable === '$ACADVER' || this.variable === '$DWGCODEPAGE';
  }

  /** @returns what reads the texts from here on */
  encoding(text: string): StringDecoder {
    if (this.variable === '$ACADVER') this.header.version = text;
    else this.header.codePage = text;
    return new StringDecoder(encodingOf(this.header.version, this.header.codePage));
  }

  number(code: number, value: number): void {
    const header = this.header;
    if (!Number.isFinite(value)) return;
    const corner = (before: [number, number] | null): [number, number] | null => {
      if (code === 10) return [value, before?.[1] ?? 0];
      if (code === 20) return [before?.[0] ?? 0, value];
      return before;
    };
    switch (this.variable) {
      case '$INSUNITS':
        header.insUnits = Math.trunc(value);
        break;
      case '$MEASUREMENT':
        header.measurement = Math.trunc(value);
        break;
      case '$LUNITS':
        header.lengthFormat = Math.trunc(value);
        break;
      case '$DIMLFAC':
        header.dimensionFactor = value;
        break;
      case '$LTSCALE':
        if (value > 0) header.lineTypeScale = value;
        break;
      case '$INSBASE':
        header.insertionBase = corner(header.insertionBase);
        break;
      case '$EXTMIN':
        header.extMin = corner(header.extMin);
        break;
      case '$EXTMAX':
        header.extMax = corner(header.extMax);
        break;
    }
  }
}
