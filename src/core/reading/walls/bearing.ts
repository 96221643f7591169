import { arcOfBulge, pointOnArc } from '@/core/geometry/bulge';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { pointAlong, type Point } from '@/core/geometry/vector';
import { wallLine, type Wall } from '@/core/kinds/wall';
import { awayFromLine } from '@/core/kinds/lines';
import { spokenName } from '@/core/sorting/suggest';
import type { WallCandidate } from '../candidate';
import type { Meaning } from '../meanings';

/** Walls that others drew or that stand beneath, to hold those against that are read. */
export interface WallsAround {
  /** Those of the level below; null where there is none, or where it has no walls yet. */
  below: readonly Wall[] | null;
  /** Those of structural drawings of the same level; null where there is none, or where it is the one being read. */
  structural: readonly Wall[] | null;
}

export const noWallsAround: WallsAround = { below: null, structural: null };

/** One thing that speaks for a wall's carrying, or, with a negative weight, against it (log-odds). */
interface Sign {
  text: string;
  weight: number;
}

/** What is to be known of a wall besides its shape. */
export interface WallFacts {
  layers: readonly string[];
  meaning: Meaning | null;
  /** Whether one that may carry stands beneath, or is in the structural drawing; null where that cannot be asked. */
  below: boolean | null;
  structural: boolean | null;
}

/** Words in the names of layers and materials. What stands first wins: "non-bearing" holds "bearing". */
const words = {
  light: [
    'non bearing',
    'nonbearing',
    'non load',
    'nicht tragend',
    'nichttragend',
    'non porteu',
    'no portante',
    'partition',
    'stud',
    'drywall',
    'gypsum',
    'plasterboard',
    'trockenbau',
    'leichtbau',
    'gipskarton',
    'cloison',
    'tabique',
    'tramezz',
    'glass',
    'board',
  ],
  heavy: [
    'bearing',
    'struct',
    'tragend',
    'porteu',
    'portant',
    'concrete',
    'beton',
    'masonry',
    'mauerwerk',
    'brick',
    'ziegel',
    'kalksand',
    'hormigon',
    'calcestruzzo',
    'muratura',
    'shear',
    'rc',
  ],
};

/**
 * What each sign weighs, by judgement: a word was meant to say it; walls of 240 mm and more are hardly built to carry
 * nothing, those of 100 mm hardly carry; what stands on no wall seldom carries.
 */
const weights = {
  layer: 2.2,
  material: 1.8,
  thick: { from: 0.2, weight: 1 },
  middling: { from: 0.15, weight: 0.3 },
  thin: { to: 0.115, weight: -1.5 },
  outer: 0.5,
  below: { there: 1.2, missing: -0.8 },
  structural: { there: 2.5, missing: -2 },
};

/** Signs at least this strong that contradict one another are told. */
const strong = 1.2;
/** A sum nearer to zero says nothing. */
const decisive = 0.4;

/** What a name says of carrying: true, false, or null where it says nothing. */
export function carriesByName(name: string): boolean | null {
  const spoken = ` ${spokenName(name)
    .split(/[^a-z]+/)
    .join(' ')}`;
  const says = (list: readonly string[]) => list.some((word) => spoken.includes(` ${word}`));
  if (says(words.light)) return false;
  return says(words.heavy) ? true : null;
}

/** What speaks for a wall's carrying and against it. */
export function signsOf(wall: Wall, { layers, meaning, below, structural }: WallFacts): Sign[] {
  return [
    ...layers.flatMap((layer) => byName(layer, `its layer is called ${layer}`, weights.layer)).slice(0, 1),
    ...byMaterial(meaning),
    ...byThickness(wall.thickness),
    ...(wall.outer ? [{ text: 'it is an outer wall', weight: weights.outer }] : []),
    ...byPlace(below, 'on the level below', weights.below),
    ...byPlace(structural, 'in the structural drawing', weights.structural),
  ];
}

function byName(name: string, text: string, weight: number): Sign[] {
  const says = carriesByName(name);
  return says === null ? [] : [{ text, weight: says ? weight : -weight }];
}

function byMaterial(meaning: Meaning | null): Sign[] {
  if (meaning?.kind !== 'wall') return [];
  const names = [meaning.name, ...meaning.layers.map(({ name }) => name)];
  // One layer that carries is enough, whatever covers it.
  const carrying = names.find((name) => carriesByName(name) === true);
  const light = names.find((name) => carriesByName(name) === false);
  const name = carrying ?? light;
  return name === undefined ? [] : byName(name, `its construction holds ${name}`, weights.material);
}

function byThickness(thickness: number): Sign[] {
  const text = `${(thickness * 1000).toFixed(0)} mm thick`;
  const { thick, middling, thin } = weights;
  if (thickness >= thick.from) return [{ text, weight: thick.weight }];
  if (thickness >= middling.from) return [{ text, weight: middling.weight }];
  return thickness <= thin.to ? [{ text, weight: thin.weight }] : [];
}

function byPlace(found: boolean | null, where: string, { there, missing }: { there: number; missing: number }): Sign[] {
  if (found === null) return [];
  return [
    found ? { text: `there is one ${where}`, weight: there } : { text: `there is none ${where}`, weight: missing },
  ];
}

/** Points beside another wall's faces by less than this are in it, metres. */
const beside = 0.02;

/** Tells of walls whether one of others that may carry runs along them for a good part; null where there are none. */
export function alongWhich(others: readonly Wall[] | null): (wall: Wall) => boolean | null {
  if (others === null) return () => null;
  const index = new BoxIndex(
    others.filter(({ bearing }) => bearing !== false),
    (other) => boxOf(wallLine(other), other.thickness / 2 + beside),
  );
  const holds = (other: Wall, p: Point): boolean => awayFromLine(wallLine(other), p) <= other.thickness / 2 + beside;
  return (wall) => {
    const points = [0.25, 0.5, 0.75].map((share) => pointOfWall(wall, share));
    return points.filter((p) => index.around(p).some((other) => holds(other, p))).length >= 2;
  };
}

/** The point at a share of a wall's length. */
const pointOfWall = ({ start, end, bulge }: Wall, share: number): Point =>
  bulge === 0 ? pointAlong(start, end, share) : pointOnArc(arcOfBulge(start, end, bulge), share);

/**
 * Says of each wall whether it carries, as evidence that does not change how sure the wall itself is; where strong
 * signs contradict one another it deserves a look.
 */
export function withBearing(
  walls: readonly WallCandidate[],
  factsOf: (wall: WallCandidate, index: number) => WallFacts,
): WallCandidate[] {
  return walls.map((wall, i) => {
    const signs = signsOf(wall.element, factsOf(wall, i));
    const sum = signs.reduce((total, { weight }) => total + weight, 0);
    const bearing = Math.abs(sum) < decisive ? undefined : sum > 0;
    const contrary =
      signs.some(({ weight }) => weight >= strong) && signs.some(({ weight }) => weight <= -strong)
        ? 'bearing or not'
        : null;
    return {
      ...wall,
      element: bearing === undefined ? wall.element : { ...wall.element, bearing },
      evidence: [...wall.evidence, ...(signs.length > 0 ? [{ text: sentence(bearing, signs), weight: 0 }] : [])],
      doubt: [wall.doubt, contrary].filter((word) => word !== null).join(', ') || null,
    };
  });
}

/** The verdict with its reasons; what speaks against it comes last. */
function sentence(bearing: boolean | undefined, signs: readonly Sign[]): string {
  const [first, word] =
    bearing === undefined
      ? ['it is not clear whether it carries', null]
      : [bearing ? 'it carries' : 'it carries nothing', bearing];
  const agrees = ({ weight }: Sign) => word === null || weight > 0 === word;
  const [reasons, against] = [signs.filter(agrees), signs.filter((sign) => !agrees(sign))];
  const list = (some: readonly Sign[]) => some.map(({ text }) => text).join(', ');
  return `${first}: ${list(reasons)}${against.length > 0 ? `; but ${list(against)}` : ''}`;
}
