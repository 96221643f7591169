import type { FaceFamily, FaceSpan } from './faces';

/** What dashes are like, metres. */
const dashes = {
  /** A longer piece is a line of its own. */
  longest: 1.5,
  gap: 0.8,
  /** A gap is at most this many times the dash beside it. */
  gapShare: 1.25,
};
/** Fewer pieces are no dashes. */
export const fewestDashes = 3;

/**
 * Faces whose dashes are one span each, so that a line dashed by hand is the line.
 * @param stops whether something stands between two dashes on which the line ends
 */
export const healed = (
  family: FaceFamily,
  stops: (offset: number, from: number, to: number) => boolean,
): FaceFamily => ({
  ...family,
  faces: family.faces.map((face) => ({
    ...face,
    spans: healedSpans(face.spans, (from, to) => stops(face.offset, from, to)),
  })),
});

function healedSpans(spans: readonly FaceSpan[], stops: (from: number, to: number) => boolean): FaceSpan[] {
  const whole: FaceSpan[] = [];
  let run: FaceSpan[] = [];
  const end = () => {
    if (run.length < fewestDashes) whole.push(...run);
    else whole.push({ from: run[0].from, to: run[run.length - 1].to, sources: run.flatMap(({ sources }) => sources) });
    run = [];
  };
  for (const span of [...spans].sort((p, q) => p.from - q.from)) {
    const last = run.at(-1);
    if (last !== undefined && !goesOn(last, span, stops)) end();
    if (span.to - span.from <= dashes.longest) run.push(span);
    else {
      end();
      whole.push(span);
    }
  }
  end();
  return whole;
}

/** Whether a dash follows on another. */
function goesOn(last: FaceSpan, next: FaceSpan, stops: (from: number, to: number) => boolean): boolean {
  const gap = next.from - last.to;
  const dash = Math.max(last.to - last.from, next.to - next.from);
  return gap <= Math.min(dashes.gap, dashes.gapShare * dash) && !stops(last.to, next.from);
}
