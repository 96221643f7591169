'use client';
import { useEffect, useMemo } from 'react';
import { create } from 'zustand';
import { judged, type Judged } from '@/core/proof/acceptances';
import { inOrder, type Finding } from '@/core/proof/finding';
import { useComparisons } from './comparisons';
import { useHeat } from './heat';
import { useLight } from './light';
import { findingsIn, findingsSoonIn } from './mirror';
import { useTrial } from './trial';
import { useMoment } from './useSession';

interface FindingsStore {
  /** What was found last; null before the first time. */
  findings: readonly Finding[] | null;
  /** Whether the model has changed since. */
  stale: boolean;
  /** Why nothing could be found; null where it could. */
  problem: string | null;
}

/** What the rules find in the model of this window. */
export const useFindings = create<FindingsStore>()(() => ({ findings: null, stale: false, problem: null }));

/** Away from Proof the rules are asked again when nobody has changed anything for so long, milliseconds. */
const calm = 2500;
/** At Proof those that look at the whole model are asked again after so long, milliseconds. */
const rest = 400;

/** Forgets what was found, when a project is left. */
export const closeFindings = (): void => useFindings.setState({ findings: null, stale: false, problem: null });

/** Keeps the findings up to the model. @param present whether they are looked at: then at once, else when it is calm */
export function useFindingsKept(present: boolean): void {
  const moment = useMoment('element', 'level');
  useEffect(() => {
    let here = true;
    useFindings.setState({ stale: true });
    const ask = async (wait: number) => {
      try {
        const soon = await findingsSoonIn(moment.model);
        if (here) useFindings.setState({ findings: soon, problem: null });
        // Rules that look at the whole model wait until nothing changes any more.
        await new Promise((turn) => setTimeout(turn, wait));
        if (!here) return;
        const findings = await findingsIn(moment.model);
        if (here) useFindings.setState({ findings, stale: false, problem: null });
      } catch (error) {
        const problem = error instanceof Error ? error.message : String(error);
        if (here) useFindings.setState({ stale: false, problem });
      }
    };
    const timer = setTimeout(() => void ask(present ? rest : 0), present ? 0 : calm);
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [moment, present]);
}

const none: readonly Finding[] = [];

/** What the trials found that were made of the model as it is. */
function useTried(): Finding[] {
  const structure = useTrial(({ view, stale }) => (stale ? null : view));
  const heat = useHeat(({ view, stale }) => (stale ? null : view));
  const light = useLight(({ view, stale }) => (stale ? null : view));
  return useMemo(
    () => [structure, heat, light].flatMap((view) => (view === null ? [] : view.findings)),
    [structure, heat, light],
  );
}

/** The same thing is told once, though a rule and a trial find it. */
function isFresh(before: readonly Finding[]): (finding: Finding) => boolean {
  const seen = new Set(before.map(({ elements, severity }) => `${severity} ${elements.join()}`));
  return ({ elements, severity }) => elements.length === 0 || !seen.has(`${severity} ${elements.join()}`);
}

/** What was found last, in the model, beside its drawings and in the trials, with what was said of it. */
export function useJudged(): Judged[] {
  const moment = useMoment('acceptance');
  const findings = useFindings((store) => store.findings) ?? none;
  const made = useComparisons((store) => store.made);
  const tried = useTried();
  return useMemo(() => {
    const compared = Object.values(made).flatMap((one) => one.findings);
    return judged(inOrder([...findings, ...compared, ...tried.filter(isFresh(findings))]), moment.model);
  }, [findings, made, tried, moment]);
}
