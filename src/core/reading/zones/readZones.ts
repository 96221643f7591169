import type { PlacedText } from '@/core/placed/placed';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { area, centroid, contains, counterClockwise, simplify } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { confidenceOf, keyAt, type Evidence, type Unread, type ZoneCandidate } from '../candidate';
import { findOutlines } from '@/core/patterns/outlines';
import type { Scene } from '../scene';
import type { ReadingSettings } from '@/core/patterns/settings';
import type { Segment } from '../walls/network';
import { facesOfNetwork, shifted, type NetworkFace } from '../walls/rooms';
import type { Bounded, Leak } from './bounded';
import { drawnZones } from './drawn';
import { leakingZones } from './leaking';
import { tellApart, type ZoneTexts } from './texts';

/** A face of this size without a name or a number is a shaft, square metres: a closet that is a room is called so. */
const leastUnnamed = 2;

/**
 * Reads zones: bounded faces of the walls' network, with openings bridged because a wall goes on over them; or outlines
 * drawn on the zone layers, which
 * come first. Name, number and written area come from the texts inside; faces without area to speak of are shafts.
 * @param marks handles of texts that mark something else
 */
export function readZones(
  scene: Scene,
  segments: readonly Segment[],
  settings: ReadingSettings,
  gap: number,
  marks: ReadonlySet<string>,
): { candidates: ZoneCandidate[]; outlines: Point[][]; unread: Unread[] } {
  const texts = scene.texts('zone', 'label').filter(({ handle }) => !marks.has(handle));
  const drawn = drawnZones(
    findOutlines(scene.paths('zone'), gap).outlines.filter(
      ({ points }) => Math.abs(area(points)) >= settings.zone.least,
    ),
    texts,
  );
  const faces = facesOfNetwork(segments);
  const outside = faces.filter(({ outer }) => outer);
  const islands = new BoxIndex(outside, ({ sides }) => boxOf([sides[0].from]));
  const inner = new BoxIndex(
    faces.filter(({ outer }) => !outer),
    ({ sides }) => boxOf(sides.map(({ from }) => from)),
  );
  const rooms = faces
    .filter(({ outer }) => !outer)
    .map((face) => roomOf(face, islands))
    .filter(
      ({ outline, areas }) =>
        outline.length >= 3 &&
        areas.inner >= settings.zone.least &&
        !drawn.some((other) => contains(other.outline, centroid(outline))),
    );
  const bounded = [...drawn, ...rooms];
  const taken = new Map<Bounded, PlacedText[]>();
  const outdoors: PlacedText[] = [];
  const byPlace = new BoxIndex(bounded, ({ outline }) => boxOf(outline));
  for (const text of texts) {
    const inside = byPlace
      .around(text.at)
      .filter(({ outline, holes }) => contains(outline, text.at) && !holes.some((hole) => contains(hole, text.at)))
      .sort((a, b) => a.areas.inner - b.areas.inner)[0];
    if (inside) {
      const list = taken.get(inside);
      if (list) list.push(text);
      else taken.set(inside, [text]);
    } else outdoors.push(text);
  }
  const outlines = outside
    .filter(
      (face) =>
        !inner.around(face.sides[0].from).some(
          (other) =>
            contains(
              other.sides.map(({ from }) => from),
              face.sides[0].from,
            ) && !shares(face, other),
        ),
    )
    .map((face) => counterClockwise(simplify(shifted(face, 1), 1e-4)));
  const names = namesAmong(scene, outdoors);
  const leaking = leakingZones(names, segments, bounded, gap);
  for (const zone of leaking.rooms)
    taken.set(
      zone,
      outdoors.filter(({ at }) => contains(zone.outline, at)),
    );
  const housed = new Set(leaking.rooms.flatMap((zone) => taken.get(zone) ?? []));
  const candidates = [...bounded, ...leaking.rooms]
    .map((zone) => candidateOf(zone, tellApart(taken.get(zone) ?? [])))
    .filter(({ areas, element }) => areas.inner >= leastUnnamed || element.name !== '' || element.number !== '');
  return {
    candidates,
    outlines,
    unread: names.filter((text) => !housed.has(text)).map((text) => withoutRoom(text, leaking.open.get(text))),
  };
}

/** Names of rooms among texts: those on the layers of zones. */
function namesAmong(scene: Scene, texts: readonly PlacedText[]): PlacedText[] {
  // On a layer of everything a text may belong to anything: a name is one there that has a number beside it.
  const anything = new Set(scene.texts().map(({ entity }) => entity));
  const names = new Set(scene.texts('zone').map(({ entity }) => entity));
  const told = texts.filter(({ entity }) => names.has(entity)).map((text) => ({ text, ...tellApart([text]) }));
  const numbers = new BoxIndex(
    told.filter(({ number }) => number !== ''),
    ({ text }) => boxOf([text.at]),
  );
  return told
    .filter(({ text, name }) => {
      if (name === '') return false;
      return !anything.has(text.entity) || numbers.around(text.at, besideName * text.height).length > 0;
    })
    .map(({ text }) => text);
}

/** The number of a room stands within so many heights of its name. */
const besideName = 2.5;

/** A name that stands in no closed room. @param leak where its room is open, if anything is about it */
function withoutRoom(text: PlacedText, leak: Leak | undefined): Unread {
  const { entity, handle, layer } = text;
  const where = leak === undefined ? '' : `: it is open over ${leak.width.toFixed(2)} m`;
  return {
    role: 'zone',
    entity,
    handle,
    layer,
    words: tellApart([text]).name,
    why: `a name that stands in no closed room${where}`,
    ...(leak === undefined ? {} : { leak: [leak.from, leak.to] }),
  };
}

function shares(a: NetworkFace, b: NetworkFace): boolean {
  const own = new Set(a.sides.map(({ segment }) => segment));
  return b.sides.some(({ segment }) => own.has(segment));
}

/** A face as a room, with what stands free inside it as holes. */
function roomOf(face: NetworkFace, outside: BoxIndex<NetworkFace>): Bounded {
  const centre = face.sides.map(({ from }) => from);
  const islands = outside
    .touching(boxOf(centre))
    .filter((other) => contains(centre, other.sides[0].from) && !shares(face, other));
  const outline = simplify(shifted(face, 1), 1e-4);
  const holes = islands.map((island) => counterClockwise(simplify(shifted(island, 1), 1e-4)));
  const less = (sizes: number[]) => sizes.reduce((sum, size) => sum + Math.abs(size), 0);
  return {
    outline,
    holes,
    drawn: false,
    leak: null,
    areas: {
      inner: area(outline) - less(holes.map(area)),
      centre: area(centre) - less(islands.map((island) => area(island.sides.map(({ from }) => from)))),
      outer: Math.abs(area(shifted(face, -1))) - less(islands.map((island) => area(shifted(island, -1)))),
    },
    handles: [...new Set(face.sides.flatMap(({ segment }) => segment.run.sources.map(({ handle }) => handle)))],
  };
}

/** A written area this share off the drawn one is another room's. */
const areaAgreement = 0.05;

function candidateOf({ outline, holes, areas, handles, drawn, leak }: Bounded, texts: ZoneTexts): ZoneCandidate {
  const evidence: Evidence[] = [
    { text: drawn ? 'an outline drawn as a zone' : 'bounded by walls on all sides', weight: 2 },
  ];
  const doubts: string[] = [];
  if (leak !== null) {
    const words = `open over ${leak.width.toFixed(2)} m`;
    evidence.push({ text: `${words}, closed to read it`, weight: -2 });
    doubts.push(words);
  }
  if (texts.name !== '' || texts.number !== '')
    evidence.push({ text: `${[texts.number, texts.name].filter(Boolean).join(' ')} written in it`, weight: 2 });
  else {
    evidence.push({ text: 'no name or number in it', weight: -1.5 });
    doubts.push('no name');
  }
  if (texts.names > 1) doubts.push(`${texts.names} names in it`);
  if (texts.area !== null) {
    const off = Math.abs(texts.area / areas.inner - 1);
    evidence.push({
      text: `${texts.area.toFixed(1)} m\u00b2 written, ${areas.inner.toFixed(1)} m\u00b2 drawn`,
      weight: off < areaAgreement ? 1 : -1.5,
    });
    if (off >= areaAgreement) doubts.push('written area differs');
  }
  const at = centroid(outline);
  return {
    kind: 'zone',
    key: keyAt('zone', handles.slice(0, 6), at),
    element: { name: texts.name, number: texts.number, outline, holes, height: null },
    areas,
    evidence,
    confidence: confidenceOf('zone', evidence),
    handles: [...handles, ...texts.handles],
    doubt: doubts.join(', ') || null,
    leak: leak === null ? null : [leak.from, leak.to],
  };
}
