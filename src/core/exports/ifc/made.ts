import type { ReadModel } from '@/core/handover/model/readModel';
import { usualMaterials } from '@/core/kinds/material';
import { sectionName, type Section } from '@/core/kinds/section';
import { globalId } from './globalId';
import type { Relations } from './relations';
import type { Shapes } from './shapes';
import { word, whole, type Ref, type StepFile } from './step';

type Construction = Extract<NonNullable<ReadModel['constructions']>[number], { kind: 'wall' | 'slab' }>;

/** The middle of a section, among the places that a profile may be held at. */
const middleOfSection = 5;

/** What products are made of: materials, profiles and layers, each once, with the types that share them. */
export class Made {
  private readonly names: ReadonlyMap<string, string>;
  private readonly constructions: ReadonlyMap<string, NonNullable<ReadModel['constructions']>[number]>;
  private readonly types = new Map<string, Ref>();

  constructor(
    private readonly file: StepFile,
    private readonly shapes: Shapes,
    private readonly relations: Relations,
    { materials = [], constructions = [] }: ReadModel,
  ) {
    const said = materials.map(({ id, name }) => [id, name ?? id] as const);
    this.names = new Map([...usualMaterials.map(({ id, name }) => [id, name] as const), ...said]);
    this.constructions = new Map(constructions.map((row) => [row.id, row]));
  }

  private material = (id: string): Ref => this.file.once('IFCMATERIAL', this.names.get(id) ?? id, null, null);

  constructionOf = (id: string | undefined) => this.constructions.get(id ?? '');

  /** A type, once for all that share it. @param rest what its kind of type asks for after its tag */
  private type(entity: string, key: string, name: string, rest: readonly Parameters<StepFile['add']>[1][]): Ref {
    const known = this.types.get(`${entity} ${key}`);
    if (known !== undefined) return known;
    const id = globalId(`${entity} ${key}`);
    const made = this.file.add(entity, id, null, name, null, null, null, null, null, null, ...rest);
    this.types.set(`${entity} ${key}`, made);
    return made;
  }

  /** A column, beam or member of a section: its type, and its material by its profile. */
  member(
    entity: 'IFCCOLUMNTYPE' | 'IFCBEAMTYPE' | 'IFCMEMBERTYPE',
    product: Ref,
    section: Section,
    material?: string,
  ): Ref {
    const { file } = this;
    const name = sectionName(section);
    const profile = this.shapes.profile(name, section);
    const key = `${JSON.stringify(section)} ${material ?? ''}`;
    const predefined = { IFCCOLUMNTYPE: 'COLUMN', IFCBEAMTYPE: 'BEAM', IFCMEMBERTYPE: 'MEMBER' }[entity];
    this.relations.relate('types', `${entity} ${key}`, this.type(entity, key, name, [word(predefined)]), product);
    const own = material === undefined ? null : this.material(material);
    const part = file.once('IFCMATERIALPROFILE', name, null, own, profile, null, null);
    const set = file.once('IFCMATERIALPROFILESET', name, null, [part], null);
    const usage = file.once('IFCMATERIALPROFILESETUSAGE', set, whole(middleOfSection), null);
    this.relations.relate('materials', `profile ${key}`, usage, product);
    return profile;
  }

  /** A wall or a slab: its type, and its layers by its construction, else the one of its material. */
  layered(
    entity: 'IFCWALLTYPE' | 'IFCSLABTYPE',
    product: Ref,
    of: { thickness: number; construction?: string; material?: string; predefined: string },
  ): void {
    const { file } = this;
    const row = this.constructionOf(of.construction);
    const built = row !== undefined && row.kind !== 'glazing' && row.layers.length > 0 ? (row as Construction) : null;
    const thickness = Number((of.thickness * 1000).toFixed(1));
    const name = built?.name ?? `${entity === 'IFCWALLTYPE' ? 'Wall' : 'Slab'} ${thickness} mm`;
    const key = `${built?.id ?? ''} ${thickness} ${of.material ?? ''} ${of.predefined}`;
    this.relations.relate('types', `${entity} ${key}`, this.type(entity, key, name, [word(of.predefined)]), product);
    if (built === null && of.material === undefined) return;
    const parts =
      built === null
        ? [file.once('IFCMATERIALLAYER', this.material(of.material!), of.thickness, null, null, null, null, null)]
        : built.layers.map((layer) =>
            file.once(
              'IFCMATERIALLAYER',
              file.once('IFCMATERIAL', layer.name, null, null),
              layer.thickness,
              null,
              layer.name,
              null,
              null,
              null,
            ),
          );
    const set = file.once('IFCMATERIALLAYERSET', parts, name, null);
    const direction = entity === 'IFCWALLTYPE' ? 'AXIS2' : 'AXIS3';
    const offset = entity === 'IFCWALLTYPE' ? -of.thickness / 2 : 0;
    const usage = file.once('IFCMATERIALLAYERSETUSAGE', set, word(direction), word('POSITIVE'), offset, null);
    this.relations.relate('materials', `layers ${key}`, usage, product);
  }

  /** A door, a window or a luminaire, by what it is. */
  plain(entity: string, key: string, name: string, rest: Parameters<Made['type']>[3], product: Ref): void {
    this.relations.relate('types', `${entity} ${key}`, this.type(entity, key, name, rest), product);
  }
}
