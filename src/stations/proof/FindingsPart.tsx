'use client';
import { elementOf } from '@/core/resolved/elementOf';
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useEffect, useMemo, useState } from 'react';
import { groupBy } from '@/core/groupBy';
import { kinds } from '@/core/kinds/kinds';
import { counted } from '@/core/model/counted';
import type { Model } from '@/core/model/model';
import type { Judged } from '@/core/proof/acceptances';
import { severities, type Finding } from '@/core/proof/finding';
import { rules } from '@/core/proof/prove';
import { useBoard } from '@/board/boardStore';
import { useFindings, useJudged } from '@/project/findings';
import { useSelected } from '@/project/selected';
import { useModel, useSession } from '@/project/useSession';
import { useView } from '@/project/view';
import { Note } from '@/ui/widgets/Heading';
import { TabLine } from '@/ui/widgets/TabLine';
import { FindingLine } from './FindingLine';

/** So far about a finding the board looks, metres. */
const around = 4;

/** Findings by how grave they are, and those that somebody accepted. */
const shelves = [...severities, 'accepted'] as const;
type Shelf = (typeof shelves)[number];
const words: Record<Shelf, string> = { error: 'Errors', warning: 'Warnings', note: 'Notes', accepted: 'Accepted' };

/** What findings are put together by. */
const groupings = { rule: 'rule', level: 'level', kind: 'kind of element' } as const;
type Grouping = keyof typeof groupings;

const rowsOf = (model: Model, { elements }: Finding) => elements.flatMap((id) => model.element[elementOf(id)] ?? []);

const shelfOf = ({ finding, accepted }: Judged): Shelf => (accepted === null ? finding.severity : 'accepted');

/** The level that a finding is about: that of its first element, or itself. */
function levelOf(model: Model, finding: Finding): string | null {
  const level = rowsOf(model, finding).find(({ levelId }) => levelId !== null)?.levelId ?? null;
  return level ?? finding.elements.find((id) => model.level[id] !== undefined) ?? null;
}

function groupOf(model: Model, finding: Finding, by: Grouping): string {
  if (by === 'rule') return finding.rule;
  if (by === 'level') return model.level[levelOf(model, finding) ?? '']?.name ?? 'no level';
  const [row] = rowsOf(model, finding);
  return row === undefined ? 'the model' : kinds[row.kind].names[1];
}

/** Selects what a finding is about and looks at its place, on the level of the first. */
function goTo(model: Model, finding: Finding): void {
  const own = rowsOf(model, finding);
  useSelected.getState().select(own.map(({ id }) => id));
  const level = levelOf(model, finding);
  useView.getState().set({ faceOn: null, ...(level === null ? {} : { levelId: level }) });
  const [x, y] = finding.position;
  if (own.length > 0) useBoard.getState().lookAt([x - around, y - around, x + around, y + around]);
}

/** What the rules find in the model: filtered and put together, each with its place, its remedy, and what was said. */
export function FindingsPart() {
  const { model } = useSession();
  const elements = useModel('element').count('element');
  const { findings, problem } = useFindings();
  const all = useJudged();
  const [asked, setShown] = useState<Shelf | null>(null);
  const [by, setBy] = useState<Grouping>('rule');
  const [filter, setFilter] = useState('');
  const [at, setAt] = useState<number | null>(null);
  // Until somebody chooses, the gravest of what there is.
  const shown = asked ?? shelves.find((shelf) => all.some((one) => shelfOf(one) === shelf)) ?? 'error';
  const groups = useMemo(() => {
    const wanted = filter.trim().toLowerCase();
    const own = all.filter((one) => shelfOf(one) === shown && textOf(model, one).includes(wanted));
    return [...groupBy(own, ({ finding }) => groupOf(model, finding, by))];
  }, [all, shown, filter, by, model]);
  const listed = groups.flatMap(([, own]) => own);
  const go = (i: number) => {
    if (listed[i] === undefined) return;
    setAt(i);
    goTo(model, listed[i].finding);
  };
  useSteps(listed.length, at, go);
  const turn = (name: Shelf) => {
    setShown(name);
    setAt(null);
  };
  return (
    <>
      {problem !== null && <Note kind="wrong">The rules could not be asked: {problem}</Note>}
      {elements === 0 && <Note kind="plain">Nothing has been accepted yet, so that there is nothing to prove.</Note>}
      {elements > 0 && findings !== null && all.length === 0 && (
        <Note kind="plain">
          Nothing was found: {rules.length} rules looked at {counted(elements, 'element')}.
        </Note>
      )}
      {all.length > 0 && (
        <>
          <TabLine
            label="How grave"
            tabs={shelves.map((name) => ({
              name,
              word: words[name],
              count: all.filter((one) => shelfOf(one) === name).length,
            }))}
            present={shown}
            turn={turn}
          />
          <Sieve by={by} setBy={setBy} filter={filter} setFilter={setFilter} />
          {listed.length === 0 && <Box sx={{ color: 'text.secondary' }}>None of these.</Box>}
          <Groups groups={groups} at={at} go={go} />
        </>
      )}
    </>
  );
}

/** All that a filter looks at. */
const textOf = (model: Model, { finding, accepted }: Judged): string => {
  const marks = rowsOf(model, finding).map((row) => ('mark' in row.shape ? row.shape.mark : ''));
  return [finding.rule, finding.message, accepted?.reason ?? '', ...marks].join(' ').toLowerCase();
};

interface SieveProps {
  by: Grouping;
  setBy: (by: Grouping) => void;
  filter: string;
  setFilter: (filter: string) => void;
}

function Sieve({ by, setBy, filter, setFilter }: SieveProps) {
  return (
    <Box sx={{ display: 'flex', gap: 1, mb: 1.25 }}>
      <TextField
        size="small"
        placeholder="Filter"
        value={filter}
        onChange={(event) => setFilter(event.target.value)}
        slotProps={{ htmlInput: { 'aria-label': 'Filter findings' } }}
        sx={{ flex: 1 }}
      />
      <TextField
        select
        size="small"
        label="By"
        value={by}
        onChange={(event) => setBy(event.target.value as Grouping)}
        sx={{ width: 140 }}
      >
        {Object.entries(groupings).map(([name, word]) => (
          <MenuItem key={name} value={name}>
            {word}
          </MenuItem>
        ))}
      </TextField>
    </Box>
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

interface GroupsProps {
  groups: readonly (readonly [name: string, own: readonly Judged[]])[];
  at: number | null;
  go: (i: number) => void;
}

function Groups({ groups, at, go }: GroupsProps) {
  let first = 0;
  return groups.map(([name, own]) => {
    const from = first;
    first += own.length;
    return (
      <Box key={name} component="section" aria-label={name} sx={{ mb: 1.5 }}>
        <Box component="h2" sx={{ m: 0, mb: 0.25, fontSize: 13, color: 'text.secondary', fontWeight: 600 }}>
          {name} <span className="mono">{own.length}</span>
        </Box>
        <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {own.map((one, i) => (
            <li key={from + i}>
              <FindingLine judged={one} here={from + i === at} press={() => go(from + i)} />
            </li>
          ))}
        </Box>
      </Box>
    );
  });
}
