'use client';
import { acceptCandidates, decisionId, rejectCandidates, reopenCandidates } from '@/core/decisions/decide';
import { elementKinds } from '@/core/kinds/element';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useMemo, useRef, useState } from 'react';
import { conflictsOf } from '@/core/decisions/conflicts';
import type { DrawingRow } from '@/core/model/state';
import type { Candidate, ColumnCandidate } from '@/core/reading/candidate';
import { kinds } from '@/core/kinds/kinds';
import { defaultTolerance } from '@/core/tolerance';
import { outlineOf } from '@/core/underlay/outline';
import { useBoard } from '@/board/boardStore';
import { candidateAnchor } from '@/board/layers/marks';
import { useMoment, useCommit } from '@/project/useSession';
import {
  nameOfCandidate,
  settingsOf,
  useReadings,
  verdictOf,
  type DrawingReading,
  type Verdict,
} from '@/project/readings';
import { useOverlay } from '@/project/overlay';
import type { Underlay } from '@/project/underlays';
import { Note, Part } from '@/ui/widgets/Heading';
import { TabLine } from '@/ui/widgets/TabLine';
import { CandidateLine } from './CandidateLine';
import { ConfidenceChart } from './ConfidenceChart';
import { CorrectPart } from './CorrectPart';
import { EvidenceList } from './EvidenceList';
import { idleLayers, sizeOf } from './facts';
import { filtersFor, passes, type Filter } from './filters';
import { FindRow } from './FindRow';
import { KindTabs } from './KindTabs';
import { kindWords } from './kindWords';
import { IdleLayers, NothingRead } from './NothingRead';
import { ReviewActs } from './ReviewActs';
import { UnreadPart } from './UnreadPart';
import { ZoneBounds } from './ZoneBounds';

/** Lines of the list at once. */
const shownAtOnce = 500;
const verdictWords: Record<Verdict, string> = { open: 'to judge', accepted: 'accepted', rejected: 'rejected' };

/** A column that stands close to a crossing and not on it. */
const isNearMiss = ({ crossing }: ColumnCandidate, within: number): boolean =>
  crossing !== null && crossing.distance > defaultTolerance.coincidence && crossing.distance <= within;

const onCrossing = (candidate: ColumnCandidate): ColumnCandidate => ({
  ...candidate,
  asRead: candidate.element,
  element: { ...candidate.element, position: candidate.crossing!.point },
});

/** How far near misses are off: "2 to 12 mm". */
function nearWords(near: readonly ColumnCandidate[]): string {
  const off = near.map(({ crossing }) => crossing!.distance * 1000);
  const [low, high] = [Math.min(...off).toFixed(0), Math.max(...off).toFixed(0)];
  return low === high ? `${low} mm` : `${low} to ${high} mm`;
}

/** What a candidate is found by. */
function wordsToFind(candidate: Candidate): string {
  let own = '';
  if (candidate.kind === 'column') own = candidate.element.mark;
  else if (candidate.kind === 'zone') own = candidate.element.name;
  return [nameOfCandidate(candidate), sizeOf(candidate), own, candidate.doubt ?? ''].join(' ').toLowerCase();
}

/** Candidates with their evidence, to be accepted or rejected one, many or all at once. */
export function ReviewPart({
  drawing,
  underlay,
  reading,
}: {
  drawing: DrawingRow;
  underlay: Underlay | null;
  reading: DrawingReading | undefined;
}) {
  const moment = useMoment('project', 'role', 'decision', 'element');
  const state = moment.model;
  const commit = useCommit();
  const { pointed, point, chosen, choose, kind, list: turnTo } = useReadings();
  const lookAt = useBoard((store) => store.lookAt);
  const [verdict, setVerdict] = useState<Verdict>('open');
  const [threshold, setThreshold] = useState(0.5);
  const [find, setFind] = useState('');
  const [filter, setFilter] = useState<Filter>('all');
  const list = useRef<HTMLUListElement>(null);
  const show = useOverlay((store) => store.show);
  useEffect(() => () => show(null), [show, kind, drawing.id]);
  const all = useMemo(() => reading?.result?.candidates ?? [], [reading]);
  const withVerdict = useMemo(
    () => all.map((candidate) => ({ candidate, verdict: verdictOf(moment.model, drawing.id, candidate.key) })),
    [all, moment, drawing.id],
  );
  const conflicts = useMemo(() => conflictsOf(moment.model, drawing, all), [moment, drawing, all]);
  const pointedAt = all.find((candidate) => candidate.key === pointed);

  // What is clicked on the board comes into view in the list.
  useEffect(() => {
    if (pointed)
      list.current?.querySelector(`[data-key="${CSS.escape(pointed)}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [pointed]);

  const ofKind = withVerdict.filter((entry) => entry.candidate.kind === kind);
  const wanted = find.trim().toLowerCase();
  const crossing = settingsOf(state).exact.crossing;
  const judged = ofKind.filter((entry) => entry.verdict === verdict).map((entry) => entry.candidate);
  const filters = filtersFor(judged, conflicts, crossing);
  const present = filters.some((each) => each.name === filter) ? filter : 'all';
  const listed = judged.filter(
    (candidate) =>
      passes(candidate, present, conflicts, crossing) && (wanted === '' || wordsToFind(candidate).includes(wanted)),
  );
  const open = ofKind.filter((entry) => entry.verdict === 'open').map((entry) => entry.candidate);
  const picked = listed.filter((candidate) => chosen.has(candidate.key));
  // What the model has already is not doubled in passing: it is accepted only where it was chosen.
  const clear = (candidate: Candidate) => candidate.confidence >= threshold && !conflicts.has(candidate.key);
  const sure = open.filter(clear);
  const doubtful = listed.filter((candidate) => candidate.doubt !== null);
  const unread = (reading?.result?.unread ?? []).filter((entry) => kinds[kind].roles.own.includes(entry.role));
  const shownKinds = elementKinds.filter(
    (name) =>
      name === 'grid' ||
      name === 'column' ||
      name === kind ||
      withVerdict.some((entry) => entry.candidate.kind === name) ||
      (reading?.result?.unread ?? []).some((entry) => kinds[name].roles.own.includes(entry.role)),
  );
  const near = open.filter(
    (candidate): candidate is ColumnCandidate => candidate.kind === 'column' && isNearMiss(candidate, crossing),
  );
  const drawn = kinds[kind].roles.own.reduce(
    (sum, role) => sum + Object.values(reading?.result?.drawn[role] ?? {}).reduce((all, count) => all + count, 0),
    0,
  );
  const idle =
    underlay === null
      ? []
      : idleLayers(kind, reading?.result ?? null).map(({ layer, count, role }) => ({
          name: underlay.layers[layer].name,
          count,
          role,
        }));
  const everything = withVerdict
    .filter((entry) => entry.verdict === 'open' && clear(entry.candidate))
    .map((entry) => entry.candidate);

  const accept = (candidates: Candidate[]) => {
    void commit((now) => acceptCandidates(now, drawing, candidates, () => crypto.randomUUID())).then(() => choose([]));
  };
  const reject = (candidates: Candidate[]) => {
    void commit((now) => rejectCandidates(now, drawing, candidates)).then(() => choose([]));
  };
  const reopen = (candidates: Candidate[]) => {
    void commit((now) => reopenCandidates(now, drawing, candidates)).then(() => choose([]));
  };
  const go = (candidate: Candidate | undefined) => {
    if (!candidate) return;
    point(candidate.key);
    const [x, y] = candidateAnchor(candidate);
    const half = candidate.kind === 'column' || candidate.kind === 'opening' ? 4 : 12;
    lookAt([x - half, y - half, x + half, y + half]);
  };
  const step = (among: Candidate[], by: number) =>
    go(
      among[
        (among.findIndex((candidate) => candidate.key === pointed) + by + among.length) % Math.max(1, among.length)
      ],
    );
  const showUnread = (entries: typeof unread) => {
    if (!underlay) return;
    const missed = new Set(entries.map(({ entity }) => entity));
    const { primitives } = underlay;
    const paths = [...primitives.entity.keys()].filter((path) => missed.has(primitives.entity[path]));
    show({
      drawingId: drawing.id,
      origin: primitives.origin,
      parts: [{ tone: 'look', lines: outlineOf(primitives, paths, []) }],
    });
  };
  const toggle = (key: string) =>
    choose(chosen.has(key) ? [...chosen].filter((other) => other !== key) : [...chosen, key]);
  const narrowed = present !== 'all' || wanted !== '';
  let acted: Candidate[];
  if (picked.length > 0) acted = picked;
  else if (verdict === 'open') {
    if (narrowed)
      acted = listed.filter(
        (candidate) => candidate.confidence >= threshold && (present === 'conflict' || !conflicts.has(candidate.key)),
      );
    else acted = sure;
  } else acted = listed;

  return (
    <Box
      onKeyDown={(event) => {
        if (event.target instanceof HTMLInputElement) return;
        if (event.key === 'j' || event.key === 'k') {
          step(listed, event.key === 'j' ? 1 : -1);
          event.preventDefault();
        }
        if (event.key === 'a' && pointedAt && verdict === 'open') {
          const next = listed[listed.indexOf(pointedAt) + 1];
          accept([pointedAt]);
          if (next) go(next);
          event.preventDefault();
        }
        if (event.key === 'r' && pointedAt && verdict === 'open') {
          const next = listed[listed.indexOf(pointedAt) + 1];
          reject([pointedAt]);
          if (next) go(next);
          event.preventDefault();
        }
      }}
    >
      <KindTabs
        shown={shownKinds}
        present={kind}
        turn={turnTo}
        countOf={(name) => withVerdict.filter((entry) => entry.candidate.kind === name).length}
      />
      {ofKind.length === 0 && reading && !reading.running && (
        <NothingRead
          kind={kind}
          sorted={Object.values(state.role).some(
            (row) => row.drawingId === drawing.id && row.role !== null && kinds[kind].roles.from.includes(row.role),
          )}
        />
      )}
      {ofKind.length > 0 && (
        <>
          {open.length > 0 && (
            <Part title="How sure">
              <ConfidenceChart
                candidates={open}
                threshold={threshold}
                move={setThreshold}
                colour={`var(--mui-palette-zf-${kind})`}
              />
            </Part>
          )}
          <TabLine
            label="Decision"
            tabs={(['open', 'accepted', 'rejected'] as const).map((name) => ({
              name,
              word: verdictWords[name],
              count: ofKind.filter((entry) => entry.verdict === name).length,
            }))}
            present={verdict}
            turn={(name) => {
              setVerdict(name);
              choose([]);
            }}
          />
          <FindRow find={find} setFind={setFind} filters={filters} present={present} setFilter={setFilter} />
          <Box
            component="ul"
            ref={list}
            aria-label={`${kindWords[kind]}, ${verdictWords[verdict]}`}
            sx={{
              listStyle: 'none',
              m: 0,
              mb: 1.5,
              p: 0,
              maxHeight: pointedAt?.kind === kind ? 118 : 232,
              overflowY: 'auto',
            }}
          >
            {listed.slice(0, shownAtOnce).map((candidate) => (
              <CandidateLine
                key={candidate.key}
                candidate={candidate}
                conflict={conflicts.get(candidate.key) ?? null}
                here={candidate.key === pointed}
                chosen={chosen.has(candidate.key)}
                go={() => go(candidate)}
                toggle={() => toggle(candidate.key)}
              />
            ))}
            {listed.length > shownAtOnce && (
              <Box component="li" sx={{ color: 'text.secondary', py: 0.5 }}>
                and {(listed.length - shownAtOnce).toLocaleString('en')} more; narrow them down to see them
              </Box>
            )}
            {listed.length === 0 && (
              <Box component="li" sx={{ color: 'text.secondary', py: 1 }}>
                None.
              </Box>
            )}
          </Box>
          <ReviewActs
            verdict={verdict}
            acted={acted}
            picked={picked}
            everything={everything}
            doubtful={doubtful.length}
            accept={accept}
            reject={reject}
            reopen={reopen}
            nextDoubtful={() => step(doubtful, 1)}
          />
          {pointedAt && pointedAt.kind === kind && (
            <EvidenceList
              candidate={pointedAt}
              verdict={verdictOf(state, drawing.id, pointedAt.key)}
              accept={() => accept([pointedAt])}
              reject={() => reject([pointedAt])}
            />
          )}
          {pointedAt?.kind === 'zone' && kind === 'zone' && (
            <ZoneBounds decision={decisionId(drawing.id, pointedAt.key)} />
          )}
          {conflicts.size > 0 &&
            verdict === 'open' &&
            present !== 'conflict' &&
            filters.some(({ name }) => name === 'conflict') && (
              <Note kind="look">
                {filters.find(({ name }) => name === 'conflict')!.count} of these the model has already, or call another
                line alike; they are left out unless you choose them.{' '}
                <Button variant="text" onClick={() => setFilter('conflict')}>
                  Show them
                </Button>
              </Note>
            )}
          {kind === 'column' && near.length > 0 && verdict === 'open' && (
            <Note kind="look">
              {near.length === 1 ? '1 column lies' : `${near.length} columns lie`} {nearWords(near)} off{' '}
              {near.length === 1 ? 'its' : 'their'} crossing.{' '}
              <Button variant="text" onClick={() => accept(near.map(onCrossing))}>
                {near.length === 1 ? 'Align it' : 'Align all'}
              </Button>
            </Note>
          )}
          {verdict === 'open' && picked.length > 1 && (
            <CorrectPart key={picked.map(({ key }) => key).join()} candidates={picked} accept={accept} />
          )}
          {picked.length < 2 &&
            pointedAt &&
            pointedAt.kind === kind &&
            verdictOf(state, drawing.id, pointedAt.key) === 'open' && (
              <CorrectPart key={pointedAt.key} candidates={[pointedAt]} accept={accept} />
            )}
        </>
      )}
      <IdleLayers idle={idle} kind={kind} />
      {unread.length > 0 && <UnreadPart unread={unread} drawn={drawn} show={underlay && (() => showUnread(unread))} />}
    </Box>
  );
}
