import type { Measure, Rings } from '@/core/geometry/ringParts';
import { tributaryOf, type Carrier, type Patch } from './tributary';

/** How a floor is divided among what carries it. */
interface Divided {
  patches: readonly Patch[];
  lost: readonly Measure[];
}

/** So many parts of floors are kept at most: the storeys of a tower, in some tens of megabytes. */
const mostKept = 400_000;

/** Divides floors among what carries them; floors that are alike, as in the storeys of a building, only once. */
export class Divisions {
  private readonly kept = new Map<string, Divided>();
  private parts = 0;

  /** @see tributaryOf */
  of(rings: Rings, carriers: readonly Carrier[], how: { span: number | null; overhang?: number }): Divided {
    const key = JSON.stringify([rings, carriers.map(({ a, b, cuts }) => [a, b, cuts]), how.span, how.overhang]);
    const before = this.kept.get(key);
    if (before !== undefined) return before;
    const [patches, lost]: [Patch[], Measure[]] = [[], []];
    tributaryOf(rings, carriers, how, {
      take: (patch) => {
        patches.push(patch);
      },
      lose: (part) => {
        lost.push(part);
      },
    });
    this.keep(key, { patches, lost });
    return { patches, lost };
  }

  private keep(key: string, divided: Divided): void {
    this.parts += divided.patches.length;
    if (this.parts > mostKept) {
      this.kept.clear();
      this.parts = divided.patches.length;
    }
    this.kept.set(key, divided);
  }
}
