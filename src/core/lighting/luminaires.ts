import type { Place } from '@/core/bodies/shell';
import type { ReadModel } from '@/core/handover/model/readModel';
import type { Report } from '@/core/proof/report';
import { radians } from '@/core/geometry/vector';
import { fluxOf, intensityAt, ownDirection, type Direction } from './photometry/intensity';
import { usualIes, usualNames } from './photometry/usual';
import { readIes, type Photometry } from './photometry/readIes';

/** A luminaire with its light. */
export interface Lamp {
  id: string;
  position: Place;
  rotation: number;
  tilt: number;
  photometry: Photometry;
  /** What its file's light is multiplied by: its output, and what is left with dirt and age. */
  factor: number;
  /** Lumens, with the factor. */
  flux: number;
  power: number;
}

/** A large luminaire counts as one point from five times its size on (EN 13032-2); nearer it is parted. */
const farEnough = 5;
/** It is parted into at most so many by so many. */
const mostParts = 12;
/** The lamps' lumens and the sum over the sphere differ by less than this share. */
const lumensAgree = 1.05;

/** The luminaires of a model; those without a photometric file that can be read are told and left out. */
export function lampsOf(model: ReadModel, maintenance: number, report: Report): Lamp[] {
  const files = new Map<string, Read | null>();
  for (const { id, name, ies } of model.photometries ?? []) {
    const read = readIes(ies, name ?? id);
    if (!read.ok) {
      report.find(
        'photometry',
        'error',
        [id],
        [0, 0, 0],
        [`The photometric file ${name ?? id}: ${read.message}`, 'Put another file in its place.'],
      );
      files.set(id, null);
      continue;
    }
    const flux = fluxOf(read.value);
    for (const warning of read.value.warnings) report.assume(`${name ?? id}: ${warning.replace(/\.$/, '')}`);
    tellFlux(id, name ?? id, read.value, flux, report);
    files.set(id, { photometry: read.value, flux });
  }
  return (model.luminaires ?? []).flatMap((luminaire): Lamp[] => {
    const { id, position, rotation = 0, tilt = 0, output = 1 } = luminaire;
    const file = fileOf(luminaire.photometry, files, report);
    if (file === undefined)
      report.find('photometry', 'error', [id], position, [
        `Its photometric file "${luminaire.photometry}" is not in the model.`,
        'Choose a file that is there.',
      ]);
    if (file === undefined || file === null) return [];
    const factor = output * maintenance;
    const { photometry, flux } = file;
    return [{ id, position, rotation, tilt, photometry, factor, flux: flux * factor, power: photometry.power }];
  });
}

type Read = { photometry: Photometry; flux: number };

/** The file of a name: the model's own, else one that ships; undefined where there is none. */
function fileOf(name: string, files: Map<string, Read | null>, report: Report): Read | null | undefined {
  const known = files.get(name);
  if (known !== undefined) return known;
  const usual = usualNames.find((one) => one === name);
  const read = usual === undefined ? null : readIes(usualIes(usual));
  if (read === null || !read.ok) return undefined;
  report.assume(`${read.value.name} is a luminaire that ships, invented, its light by a formula`);
  const made = { photometry: read.value, flux: fluxOf(read.value) };
  files.set(name, made);
  return made;
}

/** A luminaire gives off less than its lamps; more is wrong. */
function tellFlux(id: string, name: string, { lampLumens }: Photometry, flux: number, report: Report): void {
  if (lampLumens === null || lampLumens === 0 || flux <= lumensAgree * lampLumens) return;
  report.find(
    'flux',
    'warning',
    [id],
    [0, 0, 0],
    [
      `The intensities of ${name} add up to ${flux.toFixed(0)} lm, its lamps give ${lampLumens.toFixed(0)} lm.`,
      'Look at the multiplier and the number of lamps in the file.',
    ],
  );
}

const minus = (a: Place, b: Place): [number, number, number] => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const dot = (a: Direction, b: Direction): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/** The points that a luminaire counts as, seen from so far. */
function partsOf({ position, rotation, photometry: { length, width } }: Lamp, away: number): Place[] {
  const parts = (size: number): number =>
    Math.min(mostParts, Math.max(1, Math.ceil((farEnough * size) / Math.max(away, 0.05))));
  const [along, across] = [parts(length), parts(width)];
  if (along * across === 1) return [position];
  const [c, s] = [Math.cos(radians(rotation)), Math.sin(radians(rotation))];
  return Array.from({ length: along * across }, (_, k): Place => {
    const u = (((k % along) + 0.5) / along - 0.5) * length;
    const v = ((Math.floor(k / along) + 0.5) / across - 0.5) * width;
    return [position[0] + c * u - s * v, position[1] + s * u + c * v, position[2]];
  });
}

/** The direct illuminance of a luminaire at a place with a normal, lux: inverse square and cosine, part by part. */
export function directAt(lamp: Lamp, p: Place, normal: Place, sees: (a: Place, b: Place) => boolean): number {
  const d = minus(p, lamp.position);
  const parts = partsOf(lamp, Math.hypot(...d));
  let sum = 0;
  for (const from of parts) {
    const way = minus(p, from);
    const away = Math.hypot(...way);
    if (away === 0) continue;
    const towards: Direction = [way[0] / away, way[1] / away, way[2] / away];
    const cosine = -dot(towards, normal);
    if (cosine <= 0 || !sees(from, p)) continue;
    const intensity = intensityAt(lamp.photometry, ownDirection(lamp.rotation, lamp.tilt, towards));
    sum += (intensity * cosine) / away ** 2;
  }
  return (lamp.factor * sum) / parts.length;
}
