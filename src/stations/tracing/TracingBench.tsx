'use client';
import { useMemo } from 'react';
import { counted } from '@/core/model/counted';
import { elementsAt } from '@/core/model/levels';
import { useMoment } from '@/project/useSession';
import { useView, type TracingPart } from '@/project/view';
import { BenchHead } from '@/ui/widgets/Heading';
import { TabLine } from '@/ui/widgets/TabLine';
import { ChangePart } from './ChangePart';
import { HistoryPart } from './HistoryPart';
import { MakePart } from './MakePart';
import { TidyPart } from './TidyPart';

const parts: { name: TracingPart; word: string }[] = [
  { name: 'make', word: 'Make' },
  { name: 'change', word: 'Change' },
  { name: 'tidy', word: 'Tidy' },
  { name: 'history', word: 'History' },
];

/** Elements drawn, taken and changed by hand. */
export function TracingBench() {
  const moment = useMoment('element', 'level');
  const { tracingPart, levelId, set } = useView();
  const about = useMemo(() => {
    const here = elementsAt(moment.model, levelId);
    const byHand = here.filter(({ source }) => source === null).length;
    const level = levelId === null ? null : moment.model.level[levelId]?.name;
    return `${level ?? 'No level'}: ${counted(here.length, 'element')}, ${byHand} by hand`;
  }, [moment, levelId]);
  return (
    <>
      <BenchHead title="Tracing" about={about} />
      <TabLine
        label="Parts of Tracing"
        tabs={parts}
        present={tracingPart}
        turn={(name) => set({ tracingPart: name })}
      />
      {tracingPart === 'make' && <MakePart />}
      {tracingPart === 'change' && <ChangePart />}
      {tracingPart === 'tidy' && <TidyPart />}
      {tracingPart === 'history' && <HistoryPart />}
    </>
  );
}
