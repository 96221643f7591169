'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import TextField from '@mui/material/TextField';
import { useEffect, useMemo, useRef, useState } from 'react';
import { boundariesOf } from '@/core/model/boundaries';
import { acceptCandidates, decisionId, rejectCandidates, reopenCandidates } from '@/core/model/commands';
import { elementKinds, type ElementRow } from '@/core/model/elements';
import type { ProjectState } from '@/core/model/state';
import { sourceChanges } from '@/core/model/revise';
import { kindNames, type Candidate, type ColumnCandidate } from '@/core/reading/candidate';
import { defaultTolerance } from '@/core/tolerance';
import { outlineOf } from '@/core/underlay/outline';
import { useBoard } from '@/board/boardStore';
import { anchorOf } from '@/board/anchor';
import { useProject } from '@/project/store';
import { nameOfCandidate, useReadings, verdictOf, type Verdict } from '@/project/readings';
import { useOverlay } from '@/project/overlay';
import { useDrawing } from '@/project/useDrawing';
import { useView } from '@/project/view';
import { DrawingChoice } from '@/ui/widgets/DrawingChoice';
import { BenchHead, Note, Part } from '@/ui/widgets/Heading';
import { NoDrawing } from '@/ui/widgets/NoDrawing';
import { RoleMark } from '@/ui/widgets/RoleMark';
import { TabLine } from '@/ui/widgets/TabLine';
import { ConfidenceChart } from './ConfidenceChart';
import { ChangesPart } from './ChangesPart';
import { CorrectPart } from './CorrectPart';
import { EvidenceList } from './EvidenceList';
import { rolesOfKind, sizeOf } from './facts';

const words = Object.fromEntries(elementKinds.map((kind) => [kind, kindNames[kind][1][0].toUpperCase() + kindNames[kind][1].slice(1)])) as Record<Candidate['kind'], string>;
const markOf = (kind: Candidate['kind']) => (kind === 'opening' ? 'door' : kind);
const verdictWords: Record<Verdict, string> = { open: 'to judge', accepted: 'accepted', rejected: 'rejected' };

/** What bounds an accepted zone, in words. */
function boundsOf(state: ProjectState, decision: string): string | null {
  const element = state.element[state.decision[decision]?.elementId ?? ''];
  if (!element) return null;
  const sides = boundariesOf((Object.values(state.element) as ElementRow[]).filter(({ levelId }) => levelId === element.levelId)).get(element.id) ?? [];
  if (sides.length === 0) return null;
  const beyond = [...new Set(sides.map((side) => { const other = side.beyond === null ? undefined : state.element[side.beyond]; return other?.kind === 'zone' ? other.shape.name || other.shape.number || 'a zone without a name' : 'the outside'; }))];
  const [walls, openings] = [new Set(sides.map(({ wall }) => wall)).size, new Set(sides.flatMap((side) => side.openings)).size];
  return `Bounded by ${walls} ${walls === 1 ? 'wall' : 'walls'} with ${openings} ${openings === 1 ? 'opening' : 'openings'}; beyond lie ${beyond.join(', ')}.`;
}

/** A column that stands close to a crossing and not on it. */
const isNearMiss = ({ crossing }: ColumnCandidate): boolean => crossing !== null && crossing.distance > defaultTolerance.coincidence && crossing.distance <= defaultTolerance.crossing;

const onCrossing = (candidate: ColumnCandidate): ColumnCandidate => ({ ...candidate, asRead: candidate.element, element: { ...candidate.element, position: candidate.crossing!.point } });

/** How far near misses are off: "2 to 12 mm". */
function nearWords(near: readonly ColumnCandidate[]): string {
  const off = near.map(({ crossing }) => crossing!.distance * 1000);
  const [low, high] = [Math.min(...off).toFixed(0), Math.max(...off).toFixed(0)];
  return low === high ? `${low} mm` : `${low} to ${high} mm`;
}

/** Candidates with their evidence, to be accepted or rejected one, many or all at once. */
export function ReadingBench() {
  const subject = useDrawing();
  const { state, commit } = useProject();
  const { readings, pointed, point, chosen, choose, kind, list: turnTo } = useReadings();
  const lookAt = useBoard((store) => store.lookAt);
  const setView = useView((view) => view.set);
  const drawingOf = subject?.drawing.id;
  const [verdict, setVerdict] = useState<Verdict>('open');
  const [threshold, setThreshold] = useState(0.5);
  const [find, setFind] = useState('');
  const [onlyDoubtful, setOnlyDoubtful] = useState(false);
  const list = useRef<HTMLUListElement>(null);
  const show = useOverlay((store) => store.show);
  useEffect(() => () => show(null), [show, kind, drawingOf]);
  const reading = subject ? readings[subject.drawing.id] : undefined;
  const all = useMemo(() => reading?.result?.candidates ?? [], [reading]);
  const drawingId = subject?.drawing.id ?? '';
  const withVerdict = useMemo(() => all.map((candidate) => ({ candidate, verdict: verdictOf(state, drawingId, candidate.key) })), [all, state, drawingId]);
  const changes = useMemo(() => (subject && reading?.result && !reading.running ? sourceChanges(state, subject.drawing, reading.result.candidates) : []), [state, subject, reading]);
  const pointedAt = all.find((candidate) => candidate.key === pointed);

  // What is clicked on the board comes into view in the list.
  useEffect(() => {
    if (pointed) list.current?.querySelector(`[data-key="${CSS.escape(pointed)}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [pointed]);

  if (!subject) return <NoDrawing title="Reading" />;
  const { drawing, placement } = subject;
  const ofKind = withVerdict.filter((entry) => entry.candidate.kind === kind);
  const wanted = find.trim().toLowerCase();
  const listed = ofKind.filter((entry) => entry.verdict === verdict && (!onlyDoubtful || entry.candidate.doubt !== null) && (wanted === '' || `${nameOfCandidate(entry.candidate)} ${sizeOf(entry.candidate)} ${entry.candidate.doubt ?? ''}`.toLowerCase().includes(wanted))).map((entry) => entry.candidate);
  const open = ofKind.filter((entry) => entry.verdict === 'open').map((entry) => entry.candidate);
  const picked = listed.filter((candidate) => chosen.has(candidate.key));
  const sure = open.filter((candidate) => candidate.confidence >= threshold);
  const doubtful = listed.filter((candidate) => candidate.doubt !== null);
  const unread = (reading?.result?.unread ?? []).filter((entry) => entry.role === kind || (kind === 'opening' && (entry.role === 'door' || entry.role === 'window')) || (kind === 'slab' && entry.role === 'slabOpening'));
  const present = elementKinds.filter((name) => name === 'grid' || name === 'column' || name === kind || withVerdict.some((entry) => entry.candidate.kind === name) || (reading?.result?.unread ?? []).some((entry) => entry.role === name));
  const bounds = pointedAt?.kind === 'zone' && verdictOf(state, drawing.id, pointedAt.key) === 'accepted' ? boundsOf(state, decisionId(drawing.id, pointedAt.key)) : null;
  const near = open.filter((candidate): candidate is ColumnCandidate => candidate.kind === 'column' && isNearMiss(candidate));
  const drawn = rolesOfKind[kind].reduce((sum, role) => sum + (reading?.result?.drawn[role] ?? 0), 0);
  const everything = withVerdict.filter((entry) => entry.verdict === 'open' && entry.candidate.confidence >= threshold).map((entry) => entry.candidate);

  const accept = (candidates: Candidate[]) => { void commit((now) => acceptCandidates(now, drawing, candidates, () => crypto.randomUUID())).then(() => choose([])); };
  const reject = (candidates: Candidate[]) => { void commit((now) => rejectCandidates(now, drawing, candidates)).then(() => choose([])); };
  const reopen = (candidates: Candidate[]) => { void commit((now) => reopenCandidates(now, drawing, candidates)).then(() => choose([])); };
  const go = (candidate: Candidate | undefined) => {
    if (!candidate) return;
    point(candidate.key);
    const [x, y] = anchorOf(candidate);
    const half = candidate.kind === 'column' || candidate.kind === 'opening' ? 4 : 12;
    lookAt([x - half, y - half, x + half, y + half]);
  };
  const step = (among: Candidate[], by: number) => go(among[(among.findIndex((candidate) => candidate.key === pointed) + by + among.length) % Math.max(1, among.length)]);
  const showUnread = (entries: typeof unread) => {
    const { underlay } = subject;
    if (!underlay) return;
    const wanted = new Set(entries.map(({ entity }) => entity));
    const { primitives } = underlay;
    const paths = [...primitives.entity.keys()].filter((path) => wanted.has(primitives.entity[path]));
    show({ drawingId: drawing.id, origin: primitives.origin, parts: [{ tone: 'look', lines: outlineOf(primitives, paths, []) }] });
  };
  const toggle = (key: string) => choose(chosen.has(key) ? [...chosen].filter((other) => other !== key) : [...chosen, key]);
  const narrowed = onlyDoubtful || wanted !== '';
  const acted = picked.length > 0 ? picked : verdict === 'open' ? (narrowed ? sure.filter((candidate) => listed.includes(candidate)) : sure) : listed;

  return (
    <Box onKeyDown={(event) => {
      if (event.target instanceof HTMLInputElement) return;
      if (event.key === 'j' || event.key === 'k') { step(listed, event.key === 'j' ? 1 : -1); event.preventDefault(); }
      if (event.key === 'a' && pointedAt && verdict === 'open') { const next = listed[listed.indexOf(pointedAt) + 1]; accept([pointedAt]); if (next) go(next); event.preventDefault(); }
      if (event.key === 'r' && pointedAt && verdict === 'open') { const next = listed[listed.indexOf(pointedAt) + 1]; reject([pointedAt]); if (next) go(next); event.preventDefault(); }
    }}>
      <BenchHead title="Reading" about={<DrawingChoice drawingId={drawing.id} />} />
      {!placement.confirmed && <Note kind="look">The unit is not confirmed yet; sizes follow from it. <Button variant="text" onClick={() => setView({ station: 'datum' })}>Go to Datum</Button></Note>}
      {reading?.problem && <Note kind="wrong">{reading.problem}</Note>}
      {changes.length > 0 && <ChangesPart drawing={drawing} changes={changes} candidates={all} />}
      <Box role="tablist" aria-label="Kinds" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, mb: 1.5 }}>
        {present.map((name) => (
          <ButtonBase key={name} role="tab" aria-selected={kind === name} onClick={() => turnTo(name)} sx={{ display: 'flex', gap: 0.75, px: 0.75, py: 0.25, border: '1px solid', borderColor: kind === name ? 'text.primary' : 'divider', borderRadius: '4px', fontSize: 13 }}>
            <RoleMark role={markOf(name)} />{words[name]} <b className="mono">{withVerdict.filter((entry) => entry.candidate.kind === name).length}</b>
          </ButtonBase>
        ))}
        {reading?.running && <Box role="status" sx={{ color: 'text.secondary', alignSelf: 'center' }}>reading {'\u2026'}</Box>}
      </Box>
      {ofKind.length === 0 && reading && !reading.running && (
        <Note kind="plain">Nothing was read as {words[kind].toLowerCase()}. {Object.values(state.role).some((row) => row.drawingId === drawing.id && row.role !== null && rolesOfKind[kind].includes(row.role)) ? 'The layers with this role hold nothing that looks like it.' : `No layer has a role that ${words[kind].toLowerCase()} are read from.`} <Button variant="text" onClick={() => setView({ station: 'sorting' })}>Go to Sorting</Button></Note>
      )}
      {ofKind.length > 0 && (
        <>
          {open.length > 0 && <Part title="How sure"><ConfidenceChart candidates={open} threshold={threshold} move={setThreshold} colour={`var(--mui-palette-zf-${kind})`} /></Part>}
          <TabLine label="Decision" tabs={(['open', 'accepted', 'rejected'] as const).map((name) => ({ name, word: verdictWords[name], count: ofKind.filter((entry) => entry.verdict === name).length }))} present={verdict} turn={(name) => { setVerdict(name); choose([]); }} />
          <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', mb: 0.5 }}>
            <TextField size="small" placeholder="Find by name, mark or size" value={find} onChange={(event) => setFind(event.target.value)} slotProps={{ htmlInput: { 'aria-label': 'Find a candidate' } }} sx={{ flex: 1 }} />
            <Button variant={onlyDoubtful ? 'contained' : 'text'} aria-pressed={onlyDoubtful} onClick={() => setOnlyDoubtful(!onlyDoubtful)}>Doubtful only</Button>
          </Box>
          <Box component="ul" ref={list} aria-label={`${words[kind]}, ${verdictWords[verdict]}`} sx={{ listStyle: 'none', m: 0, mb: 1.5, p: 0, maxHeight: 232, overflowY: 'auto' }}>
            {listed.map((candidate) => <Line key={candidate.key} candidate={candidate} here={candidate.key === pointed} chosen={chosen.has(candidate.key)} go={() => go(candidate)} toggle={() => toggle(candidate.key)} />)}
            {listed.length === 0 && <Box component="li" sx={{ color: 'text.secondary', py: 1 }}>None.</Box>}
          </Box>
          <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mb: 2 }}>
            {verdict === 'open' && <Button variant="contained" disabled={acted.length === 0} onClick={() => accept(acted)}>Accept {acted.length}{picked.length > 0 ? ' chosen' : ''}</Button>}
            {verdict === 'open' && everything.length > acted.length && picked.length === 0 && <Button variant="outlined" onClick={() => accept(everything)}>Accept {everything.length} of all kinds</Button>}
            {verdict === 'open' && <Button variant="outlined" disabled={doubtful.length === 0} onClick={() => step(doubtful, 1)}>Next doubtful</Button>}
            {verdict === 'open' && <Button variant="text" disabled={picked.length === 0} onClick={() => reject(picked)}>Reject {picked.length || ''}</Button>}
            {verdict !== 'open' && <Button variant="outlined" disabled={acted.length === 0} onClick={() => reopen(acted)}>Judge {acted.length} again</Button>}
          </Box>
          {kind === 'column' && near.length > 0 && verdict === 'open' && (
            <Note kind="look">{near.length === 1 ? '1 column lies' : `${near.length} columns lie`} {nearWords(near)} off {near.length === 1 ? 'its' : 'their'} crossing. <Button variant="text" onClick={() => accept(near.map(onCrossing))}>{near.length === 1 ? 'Align it' : 'Align all'}</Button></Note>
          )}
          {pointedAt && pointedAt.kind === kind && (
            <EvidenceList candidate={pointedAt} verdict={verdictOf(state, drawing.id, pointedAt.key)} accept={() => accept([pointedAt])} reject={() => reject([pointedAt])} />
          )}
          {bounds && <Box sx={{ mb: 1 }}>{bounds}</Box>}
          {pointedAt && pointedAt.kind === kind && verdictOf(state, drawing.id, pointedAt.key) === 'open' && <CorrectPart key={pointedAt.key} candidate={pointedAt} accept={(corrected) => accept([corrected])} />}
        </>
      )}
      {unread.length > 0 && (
        <Part title={`Drawn on this role but not read: ${unread.length}`} aside={subject.underlay && <Button variant="text" onClick={() => showUnread(unread)}>Show them</Button>}>
          {drawn > 0 && <Box sx={{ mb: 0.5 }}>{Math.round((100 * (drawn - unread.length)) / drawn)} % of {drawn} lines are accounted for.</Box>}
          <Box component="ul" sx={{ m: 0, pl: 2 }}>{unread.slice(0, 12).map((entry, i) => <li key={i}>{entry.why} (handle <span className="mono">{entry.handle}</span>)</li>)}</Box>
          {unread.length > 12 && <Box sx={{ color: 'text.secondary' }}>and {unread.length - 12} more</Box>}
        </Part>
      )}
    </Box>
  );
}

function Line({ candidate, here, chosen, go, toggle }: { candidate: Candidate; here: boolean; chosen: boolean; go: () => void; toggle: () => void }) {
  const name = nameOfCandidate(candidate);
  const size = sizeOf(candidate);
  return (
    <Box component="li" data-key={candidate.key} sx={{ display: 'grid', gridTemplateColumns: '24px 1fr', alignItems: 'center', borderBottom: '1px solid var(--mui-palette-divider)', borderLeft: '3px solid', borderLeftColor: here ? 'primary.main' : 'transparent', background: here ? 'var(--mui-palette-zf-zirconSoft)' : 'none' }}>
      <input type="checkbox" checked={chosen} onChange={toggle} aria-label={`Choose ${name}`} style={{ accentColor: 'var(--mui-palette-zf-zircon)', margin: '0 0 0 4px' }} />
      <Box component="button" type="button" onClick={go} aria-current={here || undefined} sx={{ all: 'unset', cursor: 'pointer', display: 'grid', gridTemplateColumns: candidate.kind === 'zone' || candidate.kind === 'outdoor' ? '140px 92px 1fr' : '62px 138px 1fr', gap: 1, py: 0.5, whiteSpace: 'nowrap', '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)' } }}>
        <Box component="b" sx={{ overflow: 'hidden', textOverflow: 'ellipsis' }}>{candidate.kind === 'zone' ? [candidate.element.number, candidate.element.name].filter(Boolean).join(' ') || name : name}</Box>
        <span className="mono">{size}</span>
        <Box component="span" sx={{ color: candidate.doubt ? 'var(--mui-palette-zf-amber)' : 'text.secondary', overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }} title={candidate.doubt ?? undefined}>{candidate.doubt ?? 'clear'}</Box>
      </Box>
    </Box>
  );
}
