'use client';
import { decisionId, rejectCandidates, reopenCandidates } from '@/core/decisions/decide';
import Box from '@mui/material/Box';
import { useEffect, useMemo, useState, type KeyboardEvent } from 'react';
import { conflictsOf, joinCandidates } from '@/core/decisions/conflicts';
import { kinds } from '@/core/kinds/kinds';
import type { DrawingRow } from '@/core/model/state';
import type { Placement } from '@/core/datum/placement';
import type { Candidate } from '@/core/reading/candidate';
import { outlineOf } from '@/core/underlay/outline';
import { useBoard } from '@/board/boardStore';
import { candidateAnchor } from '@/board/layers/marks';
import { accept as acceptInTurns } from '@/project/accept';
import { useOverlay } from '@/project/overlay';
import { settingsOf, useReadings, verdictOf, type DrawingReading, type Verdict } from '@/project/readings';
import type { Underlay } from '@/project/underlays';
import { answer } from '@/core/model/picks';
import type { Answer } from '@/core/sorting/answers';
import { useMoment, useApply, useCommit, useSession } from '@/project/useSession';
import { Part } from '@/ui/widgets/Heading';
import { TabLine } from '@/ui/widgets/TabLine';
import { CandidateList } from './CandidateList';
import { ConfidenceChart } from './ConfidenceChart';
import { CorrectPart } from './CorrectPart';
import { EvidenceList } from './EvidenceList';
import { idleLayers } from './facts';
import type { Filter } from './filters';
import { FindRow } from './FindRow';
import { KindTabs } from './KindTabs';
import { kindWords } from './kindWords';
import { IdleLayers, NothingRead } from './NothingRead';
import { alikeAsked, drawnOf, kindsShown, leaksOf, lookThrough, unreadOf } from './review';
import { ReviewActs } from './ReviewActs';
import { BesideNote, ConflictNote, NearNote, SameNote } from './ReviewNotes';
import { UnreadPart } from './UnreadPart';
import { unlikeIn, useBeside } from '@/project/useBeside';
import { ZoneBounds } from './ZoneBounds';

const verdictWords: Record<Verdict, string> = { open: 'to judge', accepted: 'accepted', rejected: 'rejected' };
/** How high the list may become: with evidence below it, and without, where it takes what the window leaves it. */
const listHeight = { beside: '118px', alone: 'max(232px, 100vh - 620px)' };

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
  const moment = useMoment('project', 'role', 'level', 'drawing', 'placement', 'decision', 'element');
  const state = moment.model;
  const apply = useApply();
  const commit = useCommit();
  const session = useSession();
  const { pointed, point, chosen, choose, kind, list: turnTo } = useReadings();
  const lookAt = useBoard((store) => store.lookAt);
  const [verdict, setVerdict] = useState<Verdict>('open');
  const [threshold, setThreshold] = useState(0.5);
  const [find, setFind] = useState('');
  const [filter, setFilter] = useState<Filter>('all');
  const show = useOverlay((store) => store.show);
  useEffect(() => () => show(null), [show, kind, drawing.id]);
  const all = useMemo(() => reading?.result?.candidates ?? [], [reading]);
  const withVerdict = useMemo(
    () => all.map((candidate) => ({ candidate, verdict: verdictOf(moment.model, drawing.id, candidate.key) })),
    [all, moment, drawing.id],
  );
  const conflicts = useMemo(() => conflictsOf(moment.model, drawing, all), [moment, drawing, all]);
  const others = useBeside(state, drawing);
  const told = useMemo(() => ({ conflicts, unlike: unlikeIn(others) }), [conflicts, others]);
  const pointedAt = all.find((candidate) => candidate.key === pointed);

  const result = reading?.result ?? null;
  const crossing = settingsOf(state).exact.crossing;
  const look = useMemo(
    () => lookThrough(withVerdict, { kind, verdict, find, filter, threshold, chosen, told, crossing }),
    [withVerdict, kind, verdict, find, filter, threshold, chosen, told, crossing],
  );
  const { ofKind, listed, open, picked, near } = look;
  const unread = unreadOf(result, kind);
  const alike = look.filters.find(({ name }) => name === 'conflict');
  const idle =
    underlay === null
      ? []
      : idleLayers(kind, result).map(({ layer, count, role }) => ({ name: underlay.layers[layer].name, count, role }));

  const accept = (candidates: Candidate[]) => {
    choose([]);
    void acceptInTurns(session, drawing, candidates);
  };
  const settle = (given: Answer) => void commit((now) => answer(now, drawing, [given], () => crypto.randomUUID()));
  const same = () => {
    const candidates = look.picked.length > 0 ? look.picked : look.listed;
    if (apply((now) => joinCandidates(now, drawing, candidates))) choose([]);
  };
  const reject = (candidates: Candidate[]) => {
    if (apply((now) => rejectCandidates(now, drawing, candidates))) choose([]);
  };
  const reopen = (candidates: Candidate[]) => {
    if (apply((now) => reopenCandidates(now, drawing, candidates))) choose([]);
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
    const texts = [...primitives.texts.keys()].filter((i) => missed.has(primitives.texts[i].entity));
    show({
      drawingId: drawing.id,
      origin: primitives.origin,
      parts: [
        { tone: 'look', lines: outlineOf(primitives, paths, texts) },
        { tone: 'wrong', lines: leaksOf(entries, state.placement[drawing.id] as Placement, primitives.origin) },
      ],
    });
  };
  const toggle = (key: string) =>
    choose(chosen.has(key) ? [...chosen].filter((other) => other !== key) : [...chosen, key]);
  /** Decides on the one that is pointed at and goes on to the next. */
  const decide = (by: typeof accept) => {
    if (!pointedAt || verdict !== 'open') return;
    const next = listed[listed.indexOf(pointedAt) + 1];
    by([pointedAt]);
    go(next);
  };
  const keys: Record<string, () => void> = {
    j: () => step(listed, 1),
    k: () => step(listed, -1),
    a: () => decide(accept),
    r: () => decide(reject),
  };
  const press = (event: KeyboardEvent) => {
    const act = event.target instanceof HTMLInputElement ? undefined : keys[event.key];
    if (act === undefined) return;
    event.preventDefault();
    act();
  };

  return (
    <Box onKeyDown={press}>
      <KindTabs
        shown={kindsShown(withVerdict, result, kind)}
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
          <FindRow find={find} setFind={setFind} filters={look.filters} present={look.filter} setFilter={setFilter} />
          <CandidateList
            label={`${kindWords[kind]}, ${verdictWords[verdict]}`}
            listed={listed}
            told={told}
            pointed={pointed}
            chosen={chosen}
            height={pointedAt?.kind === kind ? listHeight.beside : listHeight.alone}
            go={go}
            toggle={toggle}
          />
          <ReviewActs
            verdict={verdict}
            acted={look.acted}
            picked={picked}
            everything={look.everything}
            doubtful={look.doubtful.length}
            accept={accept}
            reject={reject}
            reopen={reopen}
            nextDoubtful={() => step(look.doubtful, 1)}
          />
          {pointedAt && pointedAt.kind === kind && (
            <EvidenceList
              candidate={pointedAt}
              verdict={verdictOf(state, drawing.id, pointedAt.key)}
              alike={alikeAsked(all, pointedAt)}
              settle={settle}
              accept={() => accept([pointedAt])}
              reject={() => reject([pointedAt])}
            />
          )}
          {pointedAt?.kind === 'zone' && kind === 'zone' && (
            <ZoneBounds decision={decisionId(drawing.id, pointedAt.key)} />
          )}
          {verdict === 'open' && look.filter !== 'conflict' && alike !== undefined && (
            <ConflictNote count={alike.count} show={() => setFilter('conflict')} />
          )}
          {verdict === 'open' && look.filter === 'conflict' && <SameNote same={same} />}
          {others.map((other) => (
            <BesideNote key={other.id} kind={kind} other={other} show={() => setFilter('unlike')} />
          ))}
          {near.length > 0 && verdict === 'open' && <NearNote near={near} accept={accept} />}
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
      {unread.length > 0 && (
        <UnreadPart unread={unread} drawn={drawnOf(result, kind)} show={underlay && (() => showUnread(unread))} />
      )}
    </Box>
  );
}
