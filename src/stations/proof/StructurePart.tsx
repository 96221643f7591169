'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Slider from '@mui/material/Slider';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { envelopeName } from '@/core/structure/envelope';
import { saySupports } from '@/core/structure/rules/supportsUnderFeet';
import type { ShownResult, StructureView } from '@/core/structure/view';
import {
  askCarried,
  envelopeIn,
  cancelTrial,
  missingSupportsIn,
  resumeTrial,
  runTrial,
  useTrial,
} from '@/project/trial';
import { useCommit, useModel, useSession } from '@/project/useSession';
import { Note, Part } from '@/ui/widgets/Heading';
import { Running } from '@/ui/widgets/Running';
import { SetByEditors } from '@/ui/widgets/SetByEditors';
import { TabLine } from '@/ui/widgets/TabLine';
import { CasesPart, CombinationsPart } from './structure/CasesPart';
import { MaterialsPart } from './structure/MaterialsPart';
import { ColumnPart, DriftPart, MemberPart, SupportPart } from './resultParts';
import { AssumedPart, FoundPart, StaleNote } from './trialParts';
import { kilonewtons, pictureNames, pictureWords } from './trialWords';

/** What the part shows of the trial: a motion that swings changes none of it. */
const stateOf = ({ view, running, stale, problem }: ReturnType<typeof useTrial.getState>) => ({
  view,
  running,
  stale,
  problem,
});

/** What comes of the trial, and what it starts from. */
type Side = 'results' | 'given';
const sides: { name: Side; word: string }[] = [
  { name: 'results', word: 'Results' },
  { name: 'given', word: 'Materials and cases' },
];

function Given() {
  return (
    <SetByEditors>
      <MaterialsPart />
      <CasesPart />
      <CombinationsPart />
    </SetByEditors>
  );
}

/** The structural trial: the sum that must be zero, pictures that can be checked by hand, and what was assumed. */
export function StructurePart() {
  const elements = useModel('element').count('element');
  const { view, running, stale, problem } = useTrial(useShallow(stateOf));
  const [side, turn] = useState<Side>('results');
  const session = useSession();
  useEffect(() => resumeTrial(session), [session]);
  if (elements === 0)
    return <Note kind="plain">Nothing has been accepted yet, so that there is nothing to calculate.</Note>;
  return (
    <>
      <TabLine label="Parts of the structural trial" tabs={sides} present={side} turn={turn} />
      {side === 'given' && <Given />}
      {side === 'results' && (
        <>
          {problem !== null && <Note kind="wrong">It could not be calculated: {problem}</Note>}
          {running !== null && <Running share={running} of="the equations" cancel={cancelTrial} />}
          {stale && view !== null && running === null && <StaleNote />}
          {view === null && running === null && (
            <Box sx={{ mb: 1.5 }}>
              Columns, beams, walls that carry and slabs become a frame in space with its loads; it is solved for every
              case. What is not said is taken for granted, and told.
            </Box>
          )}
          <Actions />
          {view !== null && <Results view={view} />}
        </>
      )}
    </>
  );
}

function Actions() {
  const session = useSession();
  const { model, tell } = session;
  const commit = useCommit();
  const running = useTrial((trial) => trial.running);
  const begun = useTrial((trial) => trial.view !== null);
  const support = async () => {
    const missing = await missingSupportsIn(model);
    if (missing.length === 0)
      tell({ kind: 'problem', text: 'Every column and every wall that carries stands on something already.' });
    else void commit((now) => saySupports(now, missing, () => crypto.randomUUID()));
  };
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mb: 1.75 }}>
      <Button variant="contained" disabled={running !== null} onClick={() => void runTrial(session)}>
        {begun ? 'Calculate again' : 'Calculate'}
      </Button>
      {session.mayEdit && (
        <Button variant="outlined" onClick={() => void support()}>
          Add missing supports
        </Button>
      )}
    </Box>
  );
}

function Results({ view }: { view: StructureView }) {
  const id = useTrial((trial) => trial.result);
  const { set } = useTrial.getState();
  const envelope = envelopeIn(view);
  const governing = id === envelopeName ? envelope?.governing : undefined;
  const result = governing ?? view.results.find((one) => one.id === id) ?? view.results[0];
  if (result === undefined) return null;
  return (
    <>
      <TextField
        select
        size="small"
        label="Case or combination"
        value={result.id}
        onChange={(event) => set({ result: event.target.value, motion: null })}
        sx={{ width: '100%', mb: 1.25 }}
      >
        {view.results.map((one) => (
          <MenuItem key={one.id} value={one.id}>
            {one.id}
          </MenuItem>
        ))}
        {envelope !== null && <MenuItem value={envelopeName}>{envelopeName} of the combinations</MenuItem>}
      </TextField>
      {governing === undefined && <Sum result={result} />}
      {governing !== undefined && (
        <Box sx={{ mb: 1.5, color: 'text.secondary' }}>
          The greatest and the least of {view.combinations.join(', ')}; tables tell what is further from zero.
        </Box>
      )}
      <Mechanisms view={view} />
      <PictureChoice />
      <ColumnPart view={view} result={result} />
      <SupportPart view={view} result={result} />
      <MemberPart view={view} result={result} />
      <DriftPart result={result} />
      <FoundPart findings={view.findings.filter(({ rule }) => rule !== 'mechanism')} />
      <AssumedPart assumed={view.assumed} />
    </>
  );
}

/** Downwards and upwards, and what is between them: it has to be nothing. */
function Sum({ result: { applied, reactions } }: { result: ShownResult }) {
  const off = applied[2] + reactions[2];
  const balanced = Math.abs(off) <= 1e-6 * Math.abs(applied[2]) + 1;
  const lines: [string, number, boolean][] = [
    ['Applied', -applied[2], false],
    ['Reactions', reactions[2], false],
    ['Difference', balanced ? 0 : -off, true],
  ];
  return (
    <Box
      component="dl"
      aria-label="Sum of forces"
      sx={{ m: 0, mb: 1.75, px: 1.5, py: 0.5, background: 'var(--mui-palette-zf-paper)', borderRadius: '5px' }}
    >
      {lines.map(([word, newtons, bold]) => (
        <Box
          key={word}
          sx={{
            display: 'flex',
            justifyContent: 'space-between',
            py: 0.5,
            borderTop: word === 'Applied' ? 0 : '1px solid var(--mui-palette-divider)',
            fontWeight: bold ? 600 : 400,
            color: bold && !balanced ? 'var(--mui-palette-zf-clay)' : 'inherit',
          }}
        >
          <dt>{word}</dt>
          <Box component="dd" className="mono" sx={{ m: 0 }}>
            {kilonewtons(newtons)} kN
          </Box>
        </Box>
      ))}
    </Box>
  );
}

/** How fast a motion swings: a turn in so many milliseconds. */
const swing = 2400;

/** What can move freely, each shown moving on the board. */
function Mechanisms({ view }: { view: StructureView }) {
  const motion = useTrial((trial) => trial.motion);
  const { set } = useTrial.getState();
  useEffect(() => {
    if (motion === null) return;
    // Where motion is not wanted, it is shown at its end.
    if (window.matchMedia('(prefers-reduced-motion: reduce)').matches) {
      set({ scale: 1 });
      return;
    }
    let frame = 0;
    const step = (now: number) => {
      set({ scale: Math.sin((now / swing) * 2 * Math.PI) });
      frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => {
      cancelAnimationFrame(frame);
      set({ scale: 1 });
    };
  }, [motion, set]);
  const found = view.findings.filter(({ rule }) => rule === 'mechanism');
  if (found.length === 0) return null;
  return (
    <Part title="What can move freely">
      {found.map(({ message }, i) => (
        <Note key={message} kind="wrong">
          {message}{' '}
          <Button
            size="small"
            variant="text"
            aria-pressed={motion === i}
            onClick={() => set({ motion: motion === i ? null : i })}
          >
            {motion === i ? 'Stop' : 'Show it move'}
          </Button>
        </Note>
      ))}
    </Part>
  );
}

/** What lies over the board, and how much of the displacement. */
function PictureChoice() {
  const what = useTrial((trial) => trial.what);
  const motion = useTrial((trial) => trial.motion);
  const carried = useTrial((trial) => trial.carried);
  const { model } = useSession();
  const { set } = useTrial.getState();
  return (
    <Part title="On the board">
      <TextField
        select
        size="small"
        label="What is drawn"
        value={what}
        onChange={({ target }) => {
          const next = pictureNames.find((name) => name === target.value) ?? 'none';
          set({ what: next, motion: null, scale: 1 });
          if (next === 'tributary' && carried === null) void askCarried(model);
        }}
        sx={{ width: '100%' }}
      >
        {pictureNames.map((name) => (
          <MenuItem key={name} value={name}>
            {pictureWords[name]}
          </MenuItem>
        ))}
      </TextField>
      {what === 'moved' && motion === null && <DisplacementSlider />}
      {what === 'tributary' && carried === null && <Box role="status">Working them out &hellip;</Box>}
    </Part>
  );
}

/** How much of the displacement is drawn; at its end to the left the still picture. */
function DisplacementSlider() {
  const { scale, set } = useTrial();
  return (
    <Slider
      size="small"
      aria-label="How much of the displacement"
      min={0}
      max={3}
      step={0.1}
      value={Math.max(0, scale)}
      onChange={(_, value) => set({ scale: value as number })}
      sx={{ mt: 1 }}
    />
  );
}
