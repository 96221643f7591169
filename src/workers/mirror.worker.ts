import { expose, transfer } from 'comlink';
import { bodiesOf, type Bodies } from '@/core/bodies/bodies';
import { seenFaceOn } from '@/core/bodies/faceOn';
import type { ElementRow } from '@/core/kinds/element';
import { contentOf, countsOf, type Counts } from '@/core/exports/deliveries/contentOf';
import type { DeliveryWish } from '@/core/exports/deliveries/wish';
import { writeModel } from '@/core/handover/model/writeModel';
import type { ModelFile } from '@/core/handover/model/schema';
import { Model } from '@/core/model/model';
import type { Rows } from '@/core/model/state';
import type { Finding } from '@/core/proof/finding';
import { KeptFindings } from '@/core/proof/keptFindings';
import { resolveBuilding } from '@/core/resolved/resolve';
import type { UprightPlane } from '@/core/tracing/upright/plane';

/** The tables that a copy of the model has. */
type Mirrored = 'level' | 'element' | 'library' | 'project';

/** A row that came, changed or, with null, went. */
export type MirrorChange = { [T in Mirrored]: { table: T; id: string; row: Rows[T] | null } }[Mirrored];

const model = new Model();
const kept = new KeptFindings(model);

/** Keeps a copy of what the building is made of, and works on the whole building off the main thread. */
const api = {
  /** Brings the copy up to date. */
  follow(changes: readonly MirrorChange[]): void {
    model.apply(changes);
  },

  /** The model in space. */
  bodies(): Bodies {
    const bodies = bodiesOf(building());
    const buffers = bodies.parts.flatMap(({ triangles, edges, axes, triangleEnds, edgeEnds, axisEnds }) =>
      [triangles, edges, axes, triangleEnds, edgeEnds, axisEnds].map(({ buffer }) => buffer),
    );
    return transfer(bodies, buffers as ArrayBuffer[]);
  },

  /** What the rules that need no drawing find in the model; those that look at all of it may be of the one before. */
  findingsSoon: (): Finding[] => kept.soon(),

  /** The same, all of the model as it is. */
  findings: (): Finding[] => kept.all(),

  /** The model as model.json has it. */
  text: (): string => JSON.stringify(written()),

  /** How much of the model a delivery would hold. */
  counts: (wish: Pick<DeliveryWish, 'content' | 'levels'>): Counts => countsOf(contentOf(written(), wish)),

  /** What of the model is seen in the plane of a section, as shapes in that plane. */
  faceOn: (plane: UprightPlane): ElementRow[] => seenFaceOn(building(), plane),
};

const building = () =>
  resolveBuilding({ levels: Object.values(model.level), elements: Object.values(model.element), unbounded: true });

const written = (): ModelFile =>
  writeModel({
    building: building(),
    library: Object.values(model.library),
    structure: Object.values(model.project)[0]?.structure ?? null,
    site: Object.values(model.project)[0]?.site ?? null,
    drawingName: (id) => id,
  });

export type MirrorWorker = typeof api;
expose(api);
