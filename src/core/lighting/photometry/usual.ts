import { shippedPhotometries } from '@/core/kinds/luminaire';
import { radians } from '@/core/geometry/vector';

/** An invented luminaire: its light by a formula, so much of it, and its luminous opening, metres. */
interface Usual {
  name: string;
  lumens: number;
  watts: number;
  length: number;
  width: number;
  /** The shape of its light: by the angle from below and the plane, radians; of any scale. */
  shape: (gamma: number, plane: number) => number;
}

/** The cosine to a power, downwards. */
const beam =
  (power: number) =>
  (gamma: number): number =>
    Math.max(0, Math.cos(gamma)) ** power;
/** A beam about a direction that leaves straight down by an angle, towards the plane of 0 degrees. */
const leaning =
  (angle: number, power: number) =>
  (gamma: number, plane: number): number => {
    const towards =
      Math.sin(gamma) * Math.cos(plane) * Math.sin(radians(angle)) + Math.cos(gamma) * Math.cos(radians(angle));
    return Math.max(0, towards) ** power;
  };

/**
 * Luminaires that ship, invented, each by a formula of the angle g from straight down and the plane c:
 * panel cos g (a diffuse plate); downlight cos^6 g; linear cos g along and cos^0.6 g across; wall washer cos^4 of the
 * angle to a direction 40 degrees aside; post top sin^2 of g with a bell about 70 degrees; floodlight cos^20 of the
 * angle to a direction 55 degrees aside.
 */
export const usualPhotometries = {
  panel: { name: 'Panel', lumens: 3600, watts: 30, length: 0.6, width: 0.6, shape: beam(1) },
  downlight: { name: 'Downlight', lumens: 1500, watts: 14, length: 0.12, width: 0.12, shape: beam(6) },
  linear: {
    name: 'Linear',
    lumens: 4200,
    watts: 34,
    length: 1.2,
    width: 0.08,
    shape: (gamma: number, plane: number) => Math.max(0, Math.cos(gamma)) ** (1 - 0.4 * Math.sin(plane) ** 2),
  },
  'wall washer': { name: 'Wall washer', lumens: 2200, watts: 20, length: 0.3, width: 0.1, shape: leaning(40, 4) },
  'post top': {
    name: 'Post top',
    lumens: 4000,
    watts: 36,
    length: 0.3,
    width: 0.3,
    shape: (gamma: number) => Math.sin(gamma) ** 2 * Math.exp(-(((gamma - radians(70)) / radians(30)) ** 2)),
  },
  floodlight: { name: 'Floodlight', lumens: 12_000, watts: 95, length: 0.4, width: 0.3, shape: leaning(55, 20) },
} as const satisfies Record<(typeof shippedPhotometries)[number], Usual>;
export type UsualPhotometry = keyof typeof usualPhotometries;

export const usualNames: readonly UsualPhotometry[] = shippedPhotometries;

/** Angles of the files, degrees. */
const [verticalStep, planeStep] = [5, 15];

/** A shipped luminaire as a photometric file of IES LM-63-2002, its intensities scaled to its lumens. */
export function usualIes(key: UsualPhotometry): string {
  const { name, lumens, watts, length, width, shape }: Usual = usualPhotometries[key];
  const vertical = Array.from({ length: 180 / verticalStep + 1 }, (_, i) => i * verticalStep);
  const planes = Array.from({ length: 360 / planeStep + 1 }, (_, i) => i * planeStep);
  const scale = lumens / fluxOfShape(shape);
  const rows = planes.map((plane) =>
    vertical.map((gamma) => (scale * shape(radians(gamma), radians(plane))).toFixed(2)).join(' '),
  );
  return [
    'IESNA:LM-63-2002',
    '[TEST] by formula',
    '[MANUFAC] Marram, invented',
    `[LUMINAIRE] ${name}`,
    'TILT=NONE',
    `1 ${lumens} 1 ${vertical.length} ${planes.length} 1 2 ${width} ${length} 0`,
    `1 1 ${watts}`,
    vertical.join(' '),
    planes.join(' '),
    ...rows,
    '',
  ].join('\n');
}

/** The shape over the sphere, in steps of a degree and of the planes. */
function fluxOfShape(shape: Usual['shape']): number {
  let sum = 0;
  for (let gamma = 0.5; gamma < 180; gamma += 1) {
    const ring = Math.cos(radians(gamma - 0.5)) - Math.cos(radians(gamma + 0.5));
    for (let plane = 1; plane < 360; plane += 2) sum += shape(radians(gamma), radians(plane)) * ring * radians(2);
  }
  return sum;
}
