import type { BuildingReport } from '@/core/handover/intake/buildingReport';

/** Counts what a file holds, what is on plans, and what is on none. */
export class Counts {
  private readonly read = new Map<string, { count: number; drawn: number }>();
  private readonly left = new Map<string, BuildingReport['leftOut'][number]>();

  /** One of a kind that has a shape. @param plans on how many plans it is */
  add(kind: string, plans: number): void {
    if (plans > 0) this.count(kind, 1);
    else this.leave(kind, beyondCuts, 'Look at the sections, or draw it by hand.');
  }

  /** One of a kind that is on no plan. */
  leave(kind: string, reason: string, remedy: string): void {
    this.count(kind, 0);
    const key = `${kind} ${reason}`;
    this.left.set(key, { kind, count: (this.left.get(key)?.count ?? 0) + 1, reason, remedy });
  }

  private count(kind: string, drawn: 0 | 1): void {
    const known = this.read.get(kind) ?? { count: 0, drawn: 0 };
    this.read.set(kind, { count: known.count + 1, drawn: known.drawn + drawn });
  }

  told(): Pick<BuildingReport, 'read' | 'leftOut'> {
    const byKind = <T extends { kind: string }>(list: T[]): T[] => list.sort((a, b) => a.kind.localeCompare(b.kind));
    return {
      read: byKind([...this.read].map(([kind, counts]) => ({ kind, ...counts }))),
      leftOut: byKind([...this.left.values()]),
    };
  }
}

const beyondCuts = 'is on no plan: it lies above the cut of its storey, or below its floor';
