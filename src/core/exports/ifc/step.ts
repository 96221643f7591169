/** An entity of the file, by its number. */
export class Ref {
  constructor(readonly id: number) {}
}

/** A word of an enumeration, and a value with the type that says what it is, such as a length. */
export class Word {
  constructor(readonly word: string) {}
}
export class Typed {
  constructor(
    readonly type: string,
    readonly value: string | number | boolean,
  ) {}
}
/** An attribute that a subtype derives. */
export const derived = Symbol('derived');

/** A number that is whole in the schema: real numbers always have a point. */
export class Whole {
  constructor(readonly value: number) {}
}

export type Attribute =
  Ref | Word | Typed | Whole | typeof derived | null | string | number | boolean | readonly Attribute[];

export const word = (name: string): Word => new Word(name);
export const whole = (value: number): Whole => new Whole(value);
export const typed = (type: string, value: string | number | boolean): Typed => new Typed(type, value);

/** Coordinates are written to a hundredth of a micrometre: beyond it is rounding. */
const digits = 8;

/** A real number of ISO 10303-21: always with a point, the exponent after a capital E. */
export function realText(value: number): string {
  if (!Number.isFinite(value)) throw new Error(`${value} is no number that a STEP file can hold.`);
  const text = String(Number(value.toFixed(digits)) + 0);
  if (/e/i.test(text)) {
    const [mantissa, exponent] = text.toUpperCase().split('E');
    return `${mantissa.includes('.') ? mantissa : `${mantissa}.`}E${exponent.replace('+', '')}`;
  }
  return text.includes('.') ? text : `${text}.`;
}

/** A text of ISO 10303-21: quotes and backslashes doubled, what is not plain ASCII in UTF-16 between \X2\ and \X0\. */
export function stringText(value: string): string {
  const plain = value
    .replace(/[\u0000-\u001f\u007f]+/g, ' ')
    .replace(/\\/g, '\\\\')
    .replace(/'/g, "''");
  const coded = plain.replace(/[^\u0020-\u007e]+/g, (run) => {
    const units = Array.from({ length: run.length }, (_, i) => run.charCodeAt(i).toString(16).padStart(4, '0'));
    return `\\X2\\${units.join('').toUpperCase()}\\X0\\`;
  });
  return `'${coded}'`;
}

function attributeText(value: Attribute): string {
  if (value === null) return '$';
  if (value === derived) return '*';
  if (value instanceof Ref) return `#${value.id}`;
  if (value instanceof Word) return `.${value.word}.`;
  if (value instanceof Whole) return String(Math.round(value.value));
  if (value instanceof Typed) return `${value.type}(${attributeText(value.value)})`;
  if (typeof value === 'string') return stringText(value);
  if (typeof value === 'number') return realText(value);
  if (typeof value === 'boolean') return value ? '.T.' : '.F.';
  return `(${(value as readonly Attribute[]).map(attributeText).join(',')})`;
}

/** The data of a file of ISO 10303-21, entity by entity. */
export class StepFile {
  private readonly lines: string[] = [];
  /** Entities that are alike are one: points, directions, materials. */
  private readonly shared = new Map<string, Ref>();

  add(type: string, ...attributes: readonly Attribute[]): Ref {
    const ref = new Ref(this.lines.length + 1);
    this.lines.push(`#${ref.id}=${type}(${attributes.map(attributeText).join(',')});`);
    return ref;
  }

  /** A place for an entity that others name before it is written; it has to be filled. */
  hold(): Ref {
    return this.add('');
  }

  /** Writes an entity to its place. */
  fill(ref: Ref, type: string, ...attributes: readonly Attribute[]): void {
    this.lines[ref.id - 1] = `#${ref.id}=${type}(${attributes.map(attributeText).join(',')});`;
  }

  /** An entity without an identity of its own, once for all that are alike. */
  once(type: string, ...attributes: readonly Attribute[]): Ref {
    const key = `${type}(${attributes.map(attributeText).join(',')})`;
    const known = this.shared.get(key);
    if (known !== undefined) return known;
    const made = this.add(type, ...attributes);
    this.shared.set(key, made);
    return made;
  }

  /** The whole file. @param time ISO 8601, to the second */
  text({ name, time, schema, view }: { name: string; time: string; schema: string; view: string }): string {
    const head = [
      'ISO-10303-21;',
      'HEADER;',
      `FILE_DESCRIPTION((${stringText(`ViewDefinition [${view}]`)}),'2;1');`,
      `FILE_NAME(${stringText(name)},${stringText(time)},(''),(''),'Zircon Frame','Zircon Frame','');`,
      `FILE_SCHEMA((${stringText(schema)}));`,
      'ENDSEC;',
      'DATA;',
    ];
    return [...head, ...this.lines, 'ENDSEC;', 'END-ISO-10303-21;', ''].join('\n');
  }
}
