import { globalId } from './globalId';
import { typed, type Attribute, type Ref, type StepFile } from './step';

/** A property or a quantity by its name. */
export type Value = readonly [name: string, value: Attribute];

/** How products hang together: in a storey, as parts of something, of a type, made of a material. */
const gathered = ['contained', 'parts', 'types', 'materials'] as const;
type Gathered = (typeof gathered)[number];
const entities: Record<Gathered, string> = {
  contained: 'IFCRELCONTAINEDINSPATIALSTRUCTURE',
  parts: 'IFCRELAGGREGATES',
  types: 'IFCRELDEFINESBYTYPE',
  materials: 'IFCRELASSOCIATESMATERIAL',
};

/** What products have in common is told once: types, materials, properties, and the storey that they are in. */
export class Relations {
  private readonly gathered: Record<Gathered, Map<string, { relating: Ref; products: Ref[] }>> = {
    contained: new Map(),
    parts: new Map(),
    types: new Map(),
    materials: new Map(),
  };

  constructor(private readonly file: StepFile) {}

  /**
   * Puts a product to what it is in, of, or made of.
   * @param key of what relates, the same at every export
   */
  relate(what: Gathered, key: string, relating: Ref, product: Ref): void {
    const known = this.gathered[what].get(key);
    if (known === undefined) this.gathered[what].set(key, { relating, products: [product] });
    else known.products.push(product);
  }

  /** A set of properties of a product. @param id of the product */
  properties(id: string, product: Ref, name: string, values: readonly Value[]): void {
    if (values.length === 0) return;
    const { file } = this;
    const single = values.map(([own, value]) => file.once('IFCPROPERTYSINGLEVALUE', own, null, value, null));
    const set = file.add('IFCPROPERTYSET', globalId(`${id} ${name}`), null, name, null, single);
    file.add('IFCRELDEFINESBYPROPERTIES', globalId(`${id} ${name} of`), null, null, null, [product], set);
  }

  /** Base quantities of a product: lengths, areas and volumes. */
  quantities(
    id: string,
    product: Ref,
    name: string,
    values: readonly [string, 'LENGTH' | 'AREA' | 'VOLUME', number][],
  ): void {
    const { file } = this;
    const own = values
      .filter(([, , value]) => Number.isFinite(value) && value > 0)
      .map(([of, kind, value]) => file.once(`IFCQUANTITY${kind}`, of, null, null, value, null));
    if (own.length === 0) return;
    const set = file.add('IFCELEMENTQUANTITY', globalId(`${id} ${name}`), null, name, null, null, own);
    file.add('IFCRELDEFINESBYPROPERTIES', globalId(`${id} ${name} of`), null, null, null, [product], set);
  }

  /** Writes what was gathered. */
  finish(): void {
    for (const what of gathered)
      for (const [key, { relating, products }] of this.gathered[what]) {
        const order: Attribute[] = what === 'parts' ? [relating, products] : [products, relating];
        this.file.add(entities[what], globalId(`${what} ${key}`), null, null, null, ...order);
      }
  }
}

/** Values of properties, as their sets ask for them. */
export const flag = (value: boolean) => typed('IFCBOOLEAN', value);
export const text = (value: string) => typed('IFCLABEL', value);
export const mark = (value: string) => typed('IFCIDENTIFIER', value);
export const transmittance = (value: number) => typed('IFCTHERMALTRANSMITTANCEMEASURE', value);
