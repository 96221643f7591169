import { fail, ok, type Result } from '@/core/result';

/** An attribute as a file has it: nothing, a reference, a word, a number, a text, a typed value or a list. */
export type StepValue =
  | null
  | { ref: number }
  | { word: string }
  | { type: string; value: StepValue }
  | number
  | string
  | readonly StepValue[];

/** An entity of a STEP file. */
export interface StepEntity {
  id: number;
  type: string;
  attributes: readonly StepValue[];
}

/** The entities of a file of ISO 10303-21, by their numbers. */
export function readStep(text: string): Result<Map<number, StepEntity>> {
  if (!text.startsWith('ISO-10303-21;')) return fail('It does not begin with ISO-10303-21: it is no STEP file.');
  const from = text.indexOf('DATA;');
  const to = text.lastIndexOf('ENDSEC;');
  if (from < 0 || to <= from || !text.trimEnd().endsWith('END-ISO-10303-21;'))
    return fail('Its data does not end: it is cut.');
  return new Reader(text, from + 'DATA;'.length, to).entities();
}

const blank = /\s/;
const isDigit = (sign: string): boolean => sign >= '0' && sign <= '9';

/** A place in the file where something else was expected. */
class Unread extends Error {}

class Reader {
  constructor(
    private readonly text: string,
    private at: number,
    private readonly end: number,
  ) {}

  entities(): Result<Map<number, StepEntity>> {
    const found = new Map<number, StepEntity>();
    try {
      for (this.skip(); this.at < this.end; this.skip()) {
        const entity = this.entity();
        if (found.has(entity.id)) throw new Unread(`#${entity.id} is there twice`);
        found.set(entity.id, entity);
      }
    } catch (error) {
      if (!(error instanceof Unread)) throw error;
      return fail(`${error.message}, at sign ${this.at}.`);
    }
    return ok(found);
  }

  private skip(): void {
    while (this.at < this.end && blank.test(this.text[this.at])) this.at += 1;
  }

  private take(sign: string): void {
    this.skip();
    if (this.text[this.at] !== sign) throw new Unread(`"${sign}" was expected, "${this.text[this.at]}" stands there`);
    this.at += 1;
  }

  private entity(): StepEntity {
    this.take('#');
    const id = this.digits();
    this.take('=');
    this.skip();
    const type = this.name();
    const attributes = this.list();
    this.take(';');
    return { id, type, attributes };
  }

  private digits(): number {
    const from = this.at;
    while (isDigit(this.text[this.at])) this.at += 1;
    if (this.at === from) throw new Unread('A number was expected');
    return Number(this.text.slice(from, this.at));
  }

  private name(): string {
    const from = this.at;
    while (/[A-Z0-9_]/.test(this.text[this.at])) this.at += 1;
    if (this.at === from) throw new Unread('The name of an entity was expected');
    return this.text.slice(from, this.at);
  }

  private list(): StepValue[] {
    this.take('(');
    const values: StepValue[] = [];
    this.skip();
    if (this.text[this.at] === ')') {
      this.at += 1;
      return values;
    }
    for (;;) {
      values.push(this.value());
      this.skip();
      const sign = this.text[this.at];
      this.at += 1;
      if (sign === ')') return values;
      if (sign !== ',') throw new Unread('A comma or the end of a list was expected');
    }
  }

  private value(): StepValue {
    this.skip();
    const sign = this.text[this.at];
    if (sign === '$' || sign === '*') {
      this.at += 1;
      return null;
    }
    if (sign === '#') {
      this.at += 1;
      return { ref: this.digits() };
    }
    if (sign === '(') return this.list();
    if (sign === "'") return this.string();
    if (sign === '.') {
      const to = this.text.indexOf('.', this.at + 1);
      const word = this.text.slice(this.at + 1, to);
      this.at = to + 1;
      return { word };
    }
    if (isDigit(sign) || sign === '-' || sign === '+') return this.number();
    const type = this.name();
    const [value = null] = this.list();
    return { type, value };
  }

  private number(): number {
    const from = this.at;
    while (/[-+0-9.E]/.test(this.text[this.at])) this.at += 1;
    const value = Number(this.text.slice(from, this.at));
    if (!Number.isFinite(value)) throw new Unread('A number was expected');
    return value;
  }

  private string(): string {
    const from = this.at + 1;
    let to = from;
    for (;;) {
      to = this.text.indexOf("'", to);
      if (to < 0 || to >= this.end) throw new Unread('A text does not end');
      if (this.text[to + 1] !== "'") break;
      to += 2;
    }
    this.at = to + 1;
    return decoded(this.text.slice(from, to));
  }
}

/** A text as it was: quotes and backslashes single, what stands between \X2\ and \X0\ in UTF-16. */
const decoded = (text: string): string =>
  text
    .replace(/''/g, "'")
    .replace(/\\X2\\((?:[0-9A-F]{4})+)\\X0\\/g, (_, coded: string) =>
      coded.replace(/[0-9A-F]{4}/g, (unit) => String.fromCharCode(parseInt(unit, 16))),
    )
    .replace(/\\\\/g, '\\');
