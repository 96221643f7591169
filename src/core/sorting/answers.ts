import * as v from 'valibot';

/**
 * What a drawing alone does not decide, and the ways to read it, the usual one first: faces between those of a wall are
 * its leaves or walls of their own; an even ring about a column is its finish or part of it; a shape of a column's size
 * away from the grid is a column or an opening of the slab.
 */
export const questions = {
  leaves: ['one wall', 'walls of their own'],
  finish: ['the finish about it', 'part of the column'],
  void: ['a column', 'an opening'],
} as const;
export type Question = keyof typeof questions;
export type Way = (typeof questions)[Question][number];

/** Sizes asked about are the same within this, metres. */
const sameSize = 0.005;

const size = v.pipe(v.number(), v.finite(), v.gtValue(0), v.maxValue(100));

/**
 * How everything alike is to be read: walls of one thickness over all, rings of one thickness, shapes whose longer side
 * has one length; metres.
 */
export const answerSchema = v.variant('asks', [
  v.strictObject({ asks: v.literal('leaves'), size, take: v.picklist(questions.leaves) }),
  v.strictObject({ asks: v.literal('finish'), size, take: v.picklist(questions.finish) }),
  v.strictObject({ asks: v.literal('void'), size, take: v.picklist(questions.void) }),
]);
export type Answer = v.InferOutput<typeof answerSchema>;

/** What a candidate leaves open: which way it was read, though another is possible. */
export type Asked = Answer;

/** Whether two answers, or what two candidates ask, are about the same. */
export const asksAlike = (a: Asked, b: Asked): boolean => a.asks === b.asks && Math.abs(a.size - b.size) <= sameSize;

/** The way that was told for something of a size, metres; null where nothing was. */
export const told = (answers: readonly Answer[], asks: Question, wanted: number): Way | null =>
  answers.find((answer) => answer.asks === asks && Math.abs(answer.size - wanted) <= sameSize)?.take ?? null;

/** The answer that says the other way. */
export function otherWay(asked: Asked): Answer {
  const { asks, size: of, take } = asked;
  switch (asks) {
    case 'leaves':
      return { asks, size: of, take: take === questions.leaves[0] ? questions.leaves[1] : questions.leaves[0] };
    case 'finish':
      return { asks, size: of, take: take === questions.finish[0] ? questions.finish[1] : questions.finish[0] };
    case 'void':
      return { asks, size: of, take: take === questions.void[0] ? questions.void[1] : questions.void[0] };
  }
}

/** What an answer says, in words: "Walls 350 mm thick over all: walls of their own". */
export function answerWords({ asks, size: of, take }: Answer): string {
  const mm = `${(of * 1000).toFixed(0)} mm`;
  const about: Record<Question, string> = {
    leaves: `Faces within ${mm} of one another`,
    finish: `A ring of ${mm} about columns`,
    void: `Shapes of ${mm} away from the grid`,
  };
  return `${about[asks]}: ${take}`;
}
