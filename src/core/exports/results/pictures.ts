import { cross, distance, dot, subtract, type Point } from '@/core/geometry/vector';
import { heatView, type ShownZone } from '@/core/energy/file';
import { heatPicture } from '@/core/energy/picture';
import type { ReadModel } from '@/core/handover/model/readModel';
import { bandsOf } from '@/core/lighting/contours';
import type { LitArea } from '@/core/lighting/light';
import { lightPicture } from '@/core/lighting/picture';
import { envelopeOf } from '@/core/structure/envelope';
import { envelopePicture, pictureOf, type Picture, type Pictured, type Seen } from '@/core/structure/picture';
import { viewOf, type ShownResult, type StructureView } from '@/core/structure/view';
import type { Cut } from '../sheets/upright';
import type { Results } from './results';

type Level = ReadModel['levels'][number];

/** A result as lines and words over a plan or an upright plane. */
export interface ResultPicture {
  /** What its layer is called: letters, figures and hyphens. */
  layer: string;
  title: string;
  picture: Picture;
  /** Height of its words, metres. */
  letters: number;
}

/** What is shown of a structure, by the words for it. */
const shownOf: readonly { what: Pictured; layer: string; word: string }[] = [
  { what: 'my', layer: 'MY', word: 'bending moments My, kNm' },
  { what: 'vz', layer: 'VZ', word: 'shear forces Vz, kN' },
  { what: 'n', layer: 'N', word: 'axial forces N, kN' },
  { what: 'supports', layer: 'SUPPORT', word: 'what supports carry, kN' },
];
/** Seen from above axial forces of columns are points: they belong to upright planes. */
const inPlan = shownOf.filter(({ what }) => what !== 'n');
const upright = shownOf.filter(({ what }) => what === 'my' || what === 'n');

/** Words of diagrams, metres: those of plans at 1:100 are as high. */
const usual = 0.18;
/** Values over a grid of light are at most so high, and so much of the way to the next point. */
const [highest, share] = [0.2, 0.3];
/** Nodes belong to the floor of a level within this, metres. */
const onFloor = 0.6;
/** What lies this far from an upright plane belongs to it, metres. */
const nearPlane = 0.3;

const isEmpty = ({ areas, lines, labels, tints = [] }: Picture): boolean =>
  areas.length + lines.length + labels.length + tints.length === 0;

/** Results that are drawn, of what is shown of the model: put together once, asked for by level and upright plane. */
export class ResultPictures {
  private readonly view: StructureView | null;
  private readonly envelope: ReturnType<typeof envelopeOf>;
  private readonly levels: ReadonlyMap<string, string>;
  private readonly zones: readonly ShownZone[];
  private readonly known = new Map<string, ResultPicture[]>();

  constructor(
    private readonly results: Results,
    private readonly shown: ReadModel,
  ) {
    this.view = results.structure === null ? null : viewOf(results.structure, results.model);
    this.envelope = this.view === null ? null : envelopeOf(this.view);
    this.zones = results.heat === null ? [] : heatView(results.heat).zones;
    this.levels = new Map(
      [...shown.columns, ...shown.beams, ...shown.walls, ...shown.slabs, ...shown.zones, ...shown.outdoor].map(
        ({ id, level }) => [id, level],
      ),
    );
  }

  /** What lies over the plan of a level; sheets and DXF ask for the same. */
  over(level: Level): ResultPicture[] {
    const known = this.known.get(level.id) ?? this.madeOver(level);
    this.known.set(level.id, known);
    return known;
  }

  private madeOver(level: Level): ResultPicture[] {
    const seen: Seen = {
      at: ([x, y]) => [x, y],
      shows: ({ element }) => this.levels.get(element) === level.id,
      showsNode: ([, , z]) => Math.abs(z - level.elevation) <= onFloor,
      plan: true,
    };
    return [...this.ofStructure(inPlan, seen), ...this.heat(level), ...this.light(level)].filter(
      ({ picture }) => !isEmpty(picture),
    );
  }

  /** What lies in an upright plane, by metres along it and up. */
  within({ from, along }: Cut): ResultPicture[] {
    const near = ([x, y]: readonly number[]): boolean => Math.abs(cross(along, subtract([x, y], from))) <= nearPlane;
    const seen: Seen = {
      at: ([x, y, z]) => [dot(subtract([x, y], from), along), z],
      shows: ({ element, start, end }) =>
        this.levels.has(element) && start !== undefined && end !== undefined && near(start) && near(end),
      showsNode: near,
      plan: false,
    };
    return this.ofStructure(upright, seen).filter(({ picture }) => !isEmpty(picture));
  }

  /** The envelope where there are combinations, else what is left: the last case. */
  private ofStructure(wanted: typeof shownOf, seen: Seen): ResultPicture[] {
    const { view, envelope } = this;
    if (view === null || view.results.length === 0) return [];
    const last: ShownResult = view.results[view.results.length - 1];
    const of = envelope === null ? `case ${last.id}` : 'envelope';
    return wanted.map(({ what, layer, word }) => ({
      layer,
      title: `${word}: ${of}`,
      picture: envelope === null ? pictureOf(view, last, what, seen) : envelopePicture(view, envelope, what, seen),
      letters: usual,
    }));
  }

  private heat({ id }: Level): ResultPicture[] {
    const outlines = new Map(this.shown.zones.map((zone) => [zone.id, zone]));
    const drawn = this.zones.flatMap((zone) => {
      const row = outlines.get(zone.id);
      return row?.level === id ? [{ zone, outline: row.outline, holes: row.holes, chosen: false }] : [];
    });
    return [{ layer: 'HEAT', title: 'design heat load of rooms', picture: heatPicture(drawn), letters: usual }];
  }

  private light({ id }: Level): ResultPicture[] {
    const own = (this.results.light?.areas ?? []).filter(
      ({ id: area, zone, greatest }) => greatest > 0 && this.levels.get(zone ?? area) === id,
    );
    const between = Math.min(...own.map(({ lattice: { across } }) => distance([0, 0], across)));
    const letters = Math.min(highest, share * between);
    const values = lightPicture(own, { values: true, lines: false, tint: false });
    const lines = { ...lightPicture(own, { values: false, lines: true, tint: false }), tints: own.flatMap(bandTints) };
    return [
      { layer: 'LIGHT-VALUES', title: 'light, lx', picture: values, letters },
      { layer: 'LIGHT-LINES', title: 'lines of as much light, lx', picture: lines, letters },
    ];
  }
}

/** The bands of an area from the darkest up: on paper each covers what it lies on, so that each has its own tint. */
function bandTints(area: LitArea): NonNullable<Picture['tints']> {
  const bands = bandsOf(area);
  return bands.flatMap(({ region }, k) => region.map((part) => ({ ...part, share: (k + 1) / bands.length })));
}

/** The upright planes through the straight grid lines of a model that members lie in, each with its label. */
export function framesOf(model: ReadModel): { label: string; cut: Cut }[] {
  return model.grids.flatMap((line) => {
    if (line.kind !== 'line') return [];
    const size = distance(line.start, line.end);
    if (size === 0) return [];
    const d = subtract(line.end, line.start);
    const along: Point = [d[0] / size, d[1] / size];
    const off = (x: number, y: number): number => Math.abs(cross(along, subtract([x, y], line.start)));
    const holds = model.beams.some(
      ({ start, end }) => off(start[0], start[1]) <= nearPlane && off(end[0], end[1]) <= nearPlane,
    );
    return holds ? [{ label: line.label, cut: { from: line.start, along } }] : [];
  });
}
