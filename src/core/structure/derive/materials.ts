import type { ReadModel } from '@/core/handover/model/readModel';

/** Metres per second squared; the standard value. */
export const gravity = 9.80665;

/** What a member is made of: kg/m3, Pa. */
export interface Material {
  id: string;
  name: string;
  kind: string;
  density: number;
  e: number;
  poisson: number;
}

/** What is taken where nobody chose: normal concrete C30/37, 2500 kg/m3 with its bars (EN 1992-1-1 table 3.1). */
const plain: Material = { id: '', name: 'concrete', kind: 'concrete', density: 2500, e: 33e9, poisson: 0.2 };
/** Walls that carry nothing, where nobody said what they are made of: masonry with its render (EN 1991-1-1 annex A). */
const partition: Material = { id: '', name: 'masonry', kind: 'masonry', density: 1800, e: 5e9, poisson: 0.2 };

/** Walls of these carry where nobody has said whether they do. */
const structural = new Set(['concrete', 'steel', 'timber', 'masonry']);

export class Materials {
  private readonly known: Map<string, Material>;
  private readonly guessed = new Map<string, number>();

  constructor(model: ReadModel) {
    this.known = new Map(
      (model.materials ?? []).map((row) => {
        const poisson = row.poissonsRatio ?? plain.poisson;
        const made = {
          id: row.id,
          name: row.name ?? row.id,
          kind: row.kind ?? '',
          density: row.density ?? plain.density,
          e: row.youngsModulus ?? plain.e,
          poisson,
        };
        return [row.id, made];
      }),
    );
  }

  /** What an element is made of; what is taken for granted is counted. */
  of(kind: string, material: string | undefined, carries = true): Material {
    const known = material === undefined ? undefined : this.known.get(material);
    if (known !== undefined) return known;
    const taken = carries ? plain : partition;
    const what = material === undefined ? kind : `${kind} of a material "${material}" that is not in the model`;
    const key = `${what}: ${taken.name}, ${taken.density} kg/m3${carries ? `, E ${taken.e / 1e9} GPa` : ''}`;
    this.guessed.set(key, (this.guessed.get(key) ?? 0) + 1);
    return taken;
  }

  /** Whether a wall carries: as it says, else by its material. */
  carries({ bearing, material }: ReadModel['walls'][number]): boolean {
    if (bearing !== undefined) return bearing;
    const known = material === undefined ? undefined : this.known.get(material);
    return known !== undefined && structural.has(known.kind);
  }

  /** What was taken for granted, in sentences. */
  assumed(): string[] {
    return [...this.guessed].map(([what, count]) => `No material was chosen for ${count} ${what}.`);
  }
}

export const shearModulus = ({ e, poisson }: Material): number => e / (2 * (1 + poisson));
