'use client';
import Box from '@mui/material/Box';
import { useEffect, useMemo, useState } from 'react';
import { groupBy } from '@/core/groupBy';
import { counted } from '@/core/model/counted';
import type { Model } from '@/core/model/model';
import { severities, type Finding, type Severity } from '@/core/proof/finding';
import { rules } from '@/core/proof/prove';
import { useBoard } from '@/board/boardStore';
import { useFindings } from '@/project/findings';
import { useSelected } from '@/project/selected';
import { useModel, useSession } from '@/project/useSession';
import { useView } from '@/project/view';
import { Note } from '@/ui/widgets/Heading';
import { TabLine } from '@/ui/widgets/TabLine';

/** So far about a finding the board looks, metres. */
const around = 4;
const words: Record<Severity, string> = { error: 'Errors', warning: 'Warnings', note: 'Notes' };
const colours: Record<Severity, string> = { error: 'clay', warning: 'amber', note: 'ink2' };

/** Elements on levels that repeat another are the other's. */
const elementOf = (id: string): string => id.split('@')[0];

/** Selects what a finding is about and looks at its place, on the level of the first. */
function goTo(model: Model, { elements, position: [x, y] }: Finding): void {
  const own = elements.map(elementOf).filter((id) => model.element[id] !== undefined);
  useSelected.getState().select(own);
  const levelId = own.map((id) => model.element[id].levelId).find((id) => id !== null) ?? null;
  const level = levelId ?? elements.find((id) => model.level[id] !== undefined) ?? null;
  useView.getState().set({ faceOn: null, ...(level === null ? {} : { levelId: level }) });
  if (own.length > 0) useBoard.getState().lookAt([x - around, y - around, x + around, y + around]);
}

/** What the rules find in the model: by how grave it is and by rule, each with its place and its remedy. */
export function FindingsPart() {
  const { model } = useSession();
  const elements = useModel('element').count('element');
  const { findings, problem } = useFindings();
  const [asked, setShown] = useState<Severity | null>(null);
  const [at, setAt] = useState<number | null>(null);
  // Until somebody chooses, the gravest of what there is.
  const gravest = severities.find((severity) => findings?.some((finding) => finding.severity === severity));
  const shown = asked ?? gravest ?? 'error';
  const own = useMemo(() => (findings ?? []).filter(({ severity }) => severity === shown), [findings, shown]);
  const counts = (severity: Severity) => (findings ?? []).filter((finding) => finding.severity === severity).length;
  const go = (i: number) => {
    if (own[i] === undefined) return;
    setAt(i);
    goTo(model, own[i]);
  };
  useSteps(own.length, at, go);
  return (
    <>
      {problem !== null && <Note kind="wrong">The rules could not be asked: {problem}</Note>}
      {elements === 0 && <Note kind="plain">Nothing has been accepted yet, so that there is nothing to prove.</Note>}
      {elements > 0 && findings?.length === 0 && (
        <Note kind="plain">
          Nothing was found: {rules.length} rules looked at {counted(elements, 'element')}.
        </Note>
      )}
      {findings !== null && findings.length > 0 && (
        <>
          <TabLine
            label="How grave"
            tabs={severities.map((name) => ({ name, word: words[name], count: counts(name) }))}
            present={shown}
            turn={(name) => {
              setShown(name);
              setAt(null);
            }}
          />
          {own.length === 0 && <Box sx={{ color: 'text.secondary' }}>None of these.</Box>}
          <FindingList findings={own} at={at} go={go} />
        </>
      )}
    </>
  );
}

/** J goes to the next finding, K to the one before, where nothing is typed. */
function useSteps(count: number, at: number | null, go: (i: number) => void): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const { target, key } = event;
      const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
      if (!plain || count === 0 || target instanceof HTMLInputElement) return;
      if (key === 'j') go(at === null ? 0 : Math.min(count - 1, at + 1));
      else if (key === 'k') {
        // On the board K pins the loupe.
        if (target instanceof Element && target.closest('[role=application]') !== null) return;
        go(at === null ? count - 1 : Math.max(0, at - 1));
      }
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  });
}

interface ListProps {
  findings: readonly Finding[];
  at: number | null;
  go: (i: number) => void;
}

function FindingList({ findings, at, go }: ListProps) {
  const numbered = findings.map((finding, i) => ({ finding, i }));
  return (
    <>
      {[...groupBy(numbered, ({ finding }) => finding.rule)].map(([rule, own]) => (
        <Box key={rule} component="section" aria-label={rule} sx={{ mb: 1.5 }}>
          <Box component="h2" sx={{ m: 0, mb: 0.25, fontSize: 13, color: 'text.secondary', fontWeight: 600 }}>
            {rule} <span className="mono">{own.length}</span>
          </Box>
          <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {own.map(({ finding, i }) => (
              <li key={i}>
                <FindingLine finding={finding} here={i === at} press={() => go(i)} />
              </li>
            ))}
          </Box>
        </Box>
      ))}
    </>
  );
}

function FindingLine({ finding, here, press }: { finding: Finding; here: boolean; press: () => void }) {
  const { severity, message, remedy } = finding;
  return (
    <Box
      component="button"
      type="button"
      aria-current={here || undefined}
      onClick={press}
      sx={{
        display: 'block',
        width: '100%',
        textAlign: 'left',
        font: 'inherit',
        color: 'inherit',
        cursor: 'pointer',
        border: 0,
        borderLeft: `3px solid var(--mui-palette-zf-${colours[severity]})`,
        borderBottom: '1px solid var(--mui-palette-divider)',
        background: here ? 'var(--mui-palette-zf-zirconSoft)' : 'none',
        px: 1,
        py: 0.75,
      }}
    >
      <Box>{message}</Box>
      <Box sx={{ color: here ? 'text.primary' : 'text.secondary', fontSize: 12 }}>{remedy}</Box>
    </Box>
  );
}
