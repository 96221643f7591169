import { middle, type Point } from '@/core/geometry/vector';
import { leastBy } from '@/core/lists';
import type { Line } from './looks';

/** A face drawn twice lies so far apart at most, metres. */
export const oneFace = 0.02;

export const middleOf = ({ a, b }: Line): Point => middle(a, b);

export const unit = ({ a, b, length }: Line): Point => [(b[0] - a[0]) / length, (b[1] - a[1]) / length];

/** Where the lines of a bundle lie across it, metres from the outer one that they are nearer to; doubles are one. */
export type Form = readonly number[];

export function formOf(lines: readonly Line[]): Form {
  const [first] = lines;
  const [ux, uy] = unit(first);
  const [x, y] = middleOf(first);
  const offsets = lines
    .map(middleOf)
    .map((at) => (at[1] - y) * ux - (at[0] - x) * uy)
    .sort((p, q) => p - q);
  const apart = offsets.filter((offset, i) => i === 0 || offset - offsets[i - 1] > oneFace);
  const [low, high] = [apart[0], apart[apart.length - 1]];
  const [forth, back] = [apart.map((offset) => offset - low), apart.map((offset) => high - offset).reverse()];
  return forth.reduce((sum, offset) => sum + offset, 0) <= back.reduce((sum, offset) => sum + offset, 0) ? forth : back;
}

/** Lines of two bundles of one form lie at the same places within this, metres: a hand draws them off by half. */
const formTolerance = 0.015;

export const isOneForm = (form: Form, other: Form): boolean =>
  form.length === other.length && form.every((offset, i) => Math.abs(offset - other[i]) < formTolerance);

/** Of windows drawn by one form at least this share has wall beyond; of the leaves of a wall few seem to. */
const mostInWall = 0.75;

/** Of windows no more than this share has nothing beyond one of its ends. */
const mostLast = 0.1;

/** A bundle as it is seen: its form, whether a wall goes on beyond it, and whether nothing does on one side. */
interface Seen {
  form: Form;
  isInWall: boolean;
  isLast: boolean;
}

/** The forms that windows are drawn by. */
export function windowForms(found: readonly Seen[]): (form: Form) => boolean {
  const forms: { form: Form; all: number; inWall: number; last: number }[] = [];
  const like = (form: Form) => forms.find((other) => isOneForm(other.form, form));
  for (const { form, isInWall, isLast } of found) {
    const known = like(form) ?? forms[forms.push({ form, all: 0, inWall: 0, last: 0 }) - 1];
    known.all += 1;
    known.inWall += Number(isInWall);
    known.last += Number(isLast);
  }
  const drawn = forms.filter(({ all, inWall, last }) => inWall >= mostInWall * all && last <= mostLast * all);
  const usual = mostOften(drawn);
  return (form) => form.length <= usual && drawn.some((known) => isOneForm(known.form, form));
}

/** How many lines most windows have: a hand leaves one out, or draws them further apart, but draws no more. */
function mostOften(drawn: readonly { form: Form; all: number }[]): number {
  const counts = new Map<number, number>();
  for (const { form, all } of drawn) counts.set(form.length, (counts.get(form.length) ?? 0) + all);
  return leastBy(counts, ([, all]) => -all)?.[0] ?? 0;
}

/** The share of bundles whose form is that of windows. */
export function shareOfWindows(found: readonly Seen[]): number {
  const areWindows = windowForms(found);
  return found.length === 0 ? 0 : found.filter(({ form }) => areWindows(form)).length / found.length;
}
