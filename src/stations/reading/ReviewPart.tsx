'use client';
import { acceptCandidates, decisionId, rejectCandidates, reopenCandidates } from '@/core/decisions/decide';
import { elementKinds } from '@/core/kinds/element';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import TextField from '@mui/material/TextField';
import { useEffect, useMemo, useRef, useState } from 'react';
import { boundariesOf } from '@/core/resolved/boundaries';
import { conflictsOf } from '@/core/decisions/conflicts';
import type { Model } from '@/core/model/model';
import type { DrawingRow } from '@/core/model/state';
import type { Candidate, ColumnCandidate, Unread } from '@/core/reading/candidate';
import { kinds } from '@/core/kinds/kinds';
import { defaultTolerance } from '@/core/tolerance';
import { roleNames, type Role } from '@/core/sorting/roles';
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
import { useView } from '@/project/view';
import { Note, Part } from '@/ui/widgets/Heading';
import { RoleMark } from '@/ui/widgets/RoleMark';
import { TabLine } from '@/ui/widgets/TabLine';
import { ConfidenceChart } from './ConfidenceChart';
import { CorrectPart } from './CorrectPart';
import { EvidenceList } from './EvidenceList';
import { idleLayers, sizeOf } from './facts';
import { filtersFor, passes, type Filter } from './filters';

const words = Object.fromEntries(
  elementKinds.map((kind) => [kind, kinds[kind].names[1][0].toUpperCase() + kinds[kind].names[1].slice(1)]),
) as Record<Candidate['kind'], string>;
/** Lines of the list at once. */
const shownAtOnce = 500;
const markOf = (kind: Candidate['kind']) => (kind === 'opening' ? 'door' : kind);
const verdictWords: Record<Verdict, string> = { open: 'to judge', accepted: 'accepted', rejected: 'rejected' };

/** What bounds an accepted zone, in words. */
function boundsOf(state: Model, decision: string): string | null {
  const element = state.element[state.decision[decision]?.elementId ?? ''];
  if (!element) return null;
  const sides = boundariesOf([...state.index.onLevel(element.levelId)]).get(element.id) ?? [];
  if (sides.length === 0) return null;
  const beyond = [
    ...new Set(
      sides.map((side) => {
        const other = side.beyond === null ? undefined : state.element[side.beyond];
        return other?.kind === 'zone'
          ? other.shape.name || other.shape.number || 'a zone without a name'
          : 'the outside';
      }),
    ),
  ];
  const [walls, openings] = [
    new Set(sides.map(({ wall }) => wall)).size,
    new Set(sides.flatMap((side) => side.openings)).size,
  ];
  return `Bounded by ${walls} ${walls === 1 ? 'wall' : 'walls'} with ${openings} ${openings === 1 ? 'opening' : 'openings'}; beyond lie ${beyond.join(', ')}.`;
}

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
      passes(candidate, present, conflicts, crossing) &&
      (wanted === '' ||
        `${nameOfCandidate(candidate)} ${sizeOf(candidate)} ${candidate.kind === 'column' ? candidate.element.mark : ''} ${candidate.kind === 'zone' ? candidate.element.name : ''} ${candidate.doubt ?? ''}`
          .toLowerCase()
          .includes(wanted)),
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
            aria-label={`${words[kind]}, ${verdictWords[verdict]}`}
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
              <Line
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
          <Acts
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

/** What bounds an accepted zone; asked again only where the model or the zone changes. */
function ZoneBounds({ decision }: { decision: string }) {
  const moment = useMoment('element', 'decision');
  const bounds = useMemo(() => boundsOf(moment.model, decision), [moment, decision]);
  return bounds === null ? null : <Box sx={{ mb: 1 }}>{bounds}</Box>;
}

function Line({
  candidate,
  conflict,
  here,
  chosen,
  go,
  toggle,
}: {
  candidate: Candidate;
  conflict: string | null;
  here: boolean;
  chosen: boolean;
  go: () => void;
  toggle: () => void;
}) {
  const name = nameOfCandidate(candidate);
  const size = sizeOf(candidate);
  return (
    <Box
      component="li"
      data-key={candidate.key}
      sx={{
        display: 'grid',
        gridTemplateColumns: '24px 1fr',
        alignItems: 'center',
        borderBottom: '1px solid var(--mui-palette-divider)',
        borderLeft: '3px solid',
        borderLeftColor: here ? 'primary.main' : 'transparent',
        background: here ? 'var(--mui-palette-zf-zirconSoft)' : 'none',
      }}
    >
      <input
        type="checkbox"
        checked={chosen}
        onChange={toggle}
        aria-label={`Choose ${name}`}
        style={{ accentColor: 'var(--mui-palette-zf-zircon)', margin: '0 0 0 4px' }}
      />
      <Box
        component="button"
        type="button"
        onClick={go}
        aria-current={here || undefined}
        sx={{
          all: 'unset',
          cursor: 'pointer',
          display: 'grid',
          gridTemplateColumns:
            candidate.kind === 'zone' || candidate.kind === 'outdoor' ? '140px 92px 1fr' : '62px 138px 1fr',
          gap: 1,
          py: 0.5,
          whiteSpace: 'nowrap',
          '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)' },
        }}
      >
        <Box component="b" sx={{ overflow: 'hidden', textOverflow: 'ellipsis' }}>
          {candidate.kind === 'zone'
            ? [candidate.element.number, candidate.element.name].filter(Boolean).join(' ') || name
            : name}
        </Box>
        <span className="mono">{size}</span>
        <Box
          component="span"
          sx={{
            color: (conflict ?? candidate.doubt) ? 'var(--mui-palette-zf-amber)' : 'text.secondary',
            overflow: 'hidden',
            textOverflow: 'ellipsis',
            whiteSpace: 'nowrap',
          }}
          title={conflict ?? candidate.doubt ?? undefined}
        >
          {conflict ?? candidate.doubt ?? 'clear'}
        </Box>
      </Box>
    </Box>
  );
}

interface UnreadProps {
  unread: readonly Unread[];
  /** How many lines have the role. */
  drawn: number;
  show: (() => void) | null;
}

/** Unread lines told one by one; of the others their number. */
const unreadTold = 12;

/** What lies on the role and was not understood. */
function UnreadPart({ unread, drawn, show }: UnreadProps) {
  return (
    <Part
      title={`Drawn on this role but not read: ${unread.length}`}
      aside={
        show && (
          <Button variant="text" onClick={show}>
            Show them
          </Button>
        )
      }
    >
      {drawn > 0 && (
        <Box sx={{ mb: 0.5 }}>
          {Math.round((100 * (drawn - unread.length)) / drawn)} % of {drawn} lines are accounted for.
        </Box>
      )}
      <Box component="ul" sx={{ m: 0, pl: 2 }}>
        {unread.slice(0, unreadTold).map((entry, i) => (
          <li key={i}>
            {entry.why} (handle <span className="mono">{entry.handle}</span>)
          </li>
        ))}
      </Box>
      {unread.length > unreadTold && <Box sx={{ color: 'text.secondary' }}>and {unread.length - unreadTold} more</Box>}
    </Part>
  );
}

interface KindTabsProps {
  shown: readonly Candidate['kind'][];
  present: Candidate['kind'];
  turn: (kind: Candidate['kind']) => void;
  countOf: (kind: Candidate['kind']) => number;
}

function KindTabs({ shown, present, turn, countOf }: KindTabsProps) {
  return (
    <Box role="tablist" aria-label="Kinds" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, mb: 1.5 }}>
      {shown.map((name) => (
        <ButtonBase
          key={name}
          role="tab"
          aria-selected={present === name}
          onClick={() => turn(name)}
          sx={{
            display: 'flex',
            gap: 0.75,
            px: 0.75,
            py: 0.25,
            border: '1px solid',
            borderColor: present === name ? 'text.primary' : 'divider',
            borderRadius: '4px',
            fontSize: 13,
          }}
        >
          <RoleMark role={markOf(name)} />
          {words[name]} <b className="mono">{countOf(name)}</b>
        </ButtonBase>
      ))}
    </Box>
  );
}

interface FindRowProps {
  find: string;
  setFind: (text: string) => void;
  filters: readonly { name: Filter; word: string; count: number }[];
  present: Filter;
  setFilter: (filter: Filter) => void;
}

function FindRow({ find, setFind, filters, present, setFilter }: FindRowProps) {
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', mb: 0.5 }}>
      <TextField
        size="small"
        placeholder="Find by name, mark or size"
        value={find}
        onChange={(event) => setFind(event.target.value)}
        slotProps={{ htmlInput: { 'aria-label': 'Find a candidate' } }}
        sx={{ flex: 1 }}
      />
      <Select
        size="small"
        value={present}
        inputProps={{ 'aria-label': 'Show of these' }}
        onChange={(event) => setFilter(event.target.value as Filter)}
        sx={{ maxWidth: 170 }}
      >
        {filters.map(({ name, word, count }) => (
          <MenuItem key={name} value={name}>
            {word}
            {'\u00a0'}
            <span className="mono">{count}</span>
          </MenuItem>
        ))}
      </Select>
    </Box>
  );
}

interface ActsProps {
  verdict: Verdict;
  /** What the first button is about. */
  acted: Candidate[];
  picked: Candidate[];
  /** Of all kinds. */
  everything: Candidate[];
  doubtful: number;
  accept: (candidates: Candidate[]) => void;
  reject: (candidates: Candidate[]) => void;
  reopen: (candidates: Candidate[]) => void;
  nextDoubtful: () => void;
}

/** What can be done with the candidates listed. */
function Acts({ verdict, acted, picked, everything, doubtful, accept, reject, reopen, nextDoubtful }: ActsProps) {
  if (verdict !== 'open')
    return (
      <Box sx={actsStyle}>
        <Button variant="outlined" disabled={acted.length === 0} onClick={() => reopen(acted)}>
          Judge {acted.length} again
        </Button>
      </Box>
    );
  return (
    <Box sx={actsStyle}>
      <Button variant="contained" disabled={acted.length === 0} onClick={() => accept(acted)}>
        Accept {acted.length}
        {picked.length > 0 ? ' chosen' : ''}
      </Button>
      {everything.length > acted.length && picked.length === 0 && (
        <Button variant="outlined" onClick={() => accept(everything)}>
          Accept {everything.length} of all kinds
        </Button>
      )}
      <Button variant="outlined" disabled={doubtful === 0} onClick={nextDoubtful}>
        Next doubtful
      </Button>
      {picked.length > 0 && (
        <Button variant="text" onClick={() => reject(picked)}>
          Reject {picked.length}
        </Button>
      )}
    </Box>
  );
}

const actsStyle = { display: 'flex', gap: 0.75, flexWrap: 'wrap', mb: 2, '& .MuiButton-root': { px: 1.1 } } as const;

/** Why nothing was read of a kind. @param sorted whether a layer has a role that the kind is read from */
function NothingRead({ kind, sorted }: { kind: Candidate['kind']; sorted: boolean }) {
  const setView = useView((view) => view.set);
  const many = words[kind].toLowerCase();
  return (
    <Note kind="plain">
      Nothing was read as {many}.{' '}
      {sorted
        ? 'The layers with this role hold nothing that looks like it.'
        : `No layer has a role that ${many} are read from.`}{' '}
      <Button variant="text" onClick={() => setView({ station: 'sorting' })}>
        Go to Sorting
      </Button>
    </Note>
  );
}

interface IdleProps {
  idle: readonly { name: string; count: number; role: Role }[];
  kind: Candidate['kind'];
}

/** Layers whose content contradicts their role. */
function IdleLayers({ idle, kind }: IdleProps) {
  const setView = useView((view) => view.set);
  return idle.map(({ name, count, role }) => (
    <Note key={`${name} ${role}`} kind="look">
      {name} is sorted as {roleNames[role].toLowerCase()}, and none of its {count} lines reads as {kinds[kind].names[0]}
      .{' '}
      <Button variant="text" onClick={() => setView({ station: 'sorting', sortingPart: 'layers' })}>
        Go to Sorting
      </Button>
    </Note>
  ));
}
