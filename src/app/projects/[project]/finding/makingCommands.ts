import { elementKinds } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import type { Model } from '@/core/model/model';
import { useBoard } from '@/board/boardStore';
import { activeDrawings } from '@/project/projectRow';
import { useTracing, type WayName } from '@/project/tracing';
import { useView } from '@/project/view';
import { changeWays, uprightWays, waysOf, wayWords } from '@/stations/tracing/words';
import type { Command } from './commands';

/** Asks for the points of a way. A bench that is left ends what it asked for; this is asked after it. */
const begin = (way: WayName): void => void setTimeout(() => useBoard.getState().setTool({ kind: 'trace', way }));

/** Where what belongs to a plan is done. */
const inPlan = { faceOn: null, inSpace: false };

/** Ways of making, by what they make. */
export const makingActions = (): Command[] =>
  elementKinds.flatMap((kind) =>
    waysOf[kind].map((way): Command => ({
      group: 'Make',
      words: `Make ${kinds[kind].names[1]}: ${wayWords[way]}`,
      about: 'By points that are clicked, held on to or typed.',
      run: () => {
        useView.getState().set({ station: 'tracing', tracingPart: 'make', benchFolded: false, ...inPlan });
        useTracing.getState().set({ kind, ways: { ...useTracing.getState().ways, [kind]: way } });
        begin(way);
      },
    })),
  );

/** Ways of changing what is selected or clicked. */
export const changingActions = (): Command[] =>
  changeWays.map((way) => ({
    group: 'Change',
    words: `Change elements: ${wayWords[way]}`,
    about: 'What is selected, or what is clicked; one step, that can be undone.',
    run: () => {
      useView.getState().set({ station: 'tracing', tracingPart: 'change', benchFolded: false, ...inPlan });
      begin(way);
    },
  }));

/** Ways of making in the plane of a section: of the one that is seen, else of the first. */
export function uprightActions(model: Model): Command[] {
  const standing = activeDrawings(model).filter(({ id }) => model.placement[id]?.upright != null);
  if (standing.length === 0) return [];
  return uprightWays.map((way) => ({
    group: 'On a section',
    words: `On a section: ${wayWords[way]}`,
    about: 'At true height, in the plane of a section or an elevation that is seen face on.',
    run: () => {
      const { faceOn, set } = useView.getState();
      set({
        station: 'tracing',
        tracingPart: 'make',
        benchFolded: false,
        faceOn: faceOn ?? standing[0].id,
        inSpace: false,
      });
      begin(way);
    },
  }));
}
