'use client';
import type { IntakeView } from '@/project/told';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import LinearProgress from '@mui/material/LinearProgress';
import Tooltip from '@mui/material/Tooltip';
import { useState } from 'react';
import { put } from '@/core/model/edits';
import type { DrawingRow } from '@/core/model/state';
import { activeDrawings } from '@/project/projectRow';
import { useMayEdit, useModel, useCommit, useSession, useFacts } from '@/project/useSession';
import { drawingInHand } from '@/project/useDrawing';
import { api } from '@/project/api';
import { useUploads } from '@/project/uploads';
import { useUnderlays } from '@/project/underlays';
import { useView, type IntakePart } from '@/project/view';
import { FileChoice } from '@/ui/widgets/FileChoice';
import { BenchHead, Note, Part } from '@/ui/widgets/Heading';
import { Icon } from '@/ui/widgets/Icon';
import { TabLine } from '@/ui/widgets/TabLine';
import { bytes, count } from './format';
import { DisplayPart } from './DisplayPart';
import { IntakeReport } from './IntakeReport';
import { PlansPart } from './PlansPart';
import { RecipePart } from './RecipePart';
import { RevisionsPart } from './RevisionsPart';

/** Bringing drawings in, and the account of what came. */
export function IntakeBench() {
  const state = useModel('level', 'drawing', 'placement');
  const drawings = activeDrawings(state);
  const { drawingId, levelId, set } = useView();
  const shown = drawingInHand(drawings, drawingId, levelId);
  const mayEdit = useMayEdit();
  return (
    <>
      <BenchHead title="Intake" about={drawings.length === 0 ? 'No drawing yet' : count(drawings.length, 'drawing')} />
      {mayEdit && <Receiver />}
      {mayEdit && <UnderWay />}
      {drawings.length > 0 && (
        <Part title="Drawings">
          <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {drawings.map((drawing) => (
              <DrawingItem
                key={drawing.id}
                drawing={drawing}
                here={drawing.id === shown?.id}
                choose={() => set({ drawingId: drawing.id })}
              />
            ))}
          </Box>
        </Part>
      )}
      {shown && <DrawingParts key={shown.id} drawing={shown} />}
    </>
  );
}

const parts: { name: IntakePart; word: string }[] = [
  { name: 'report', word: 'Report' },
  { name: 'recipe', word: 'Recipe' },
  { name: 'plans', word: 'Plans' },
  { name: 'display', word: 'Display' },
  { name: 'revisions', word: 'Revisions' },
];

/** What there is to see and do about one drawing. */
function DrawingParts({ drawing }: { drawing: DrawingRow }) {
  const { intakePart, set } = useView();
  const placement = useModel('placement').placement[drawing.id];
  const entry = useUnderlays((store) => store.entries[drawing.id]);
  const underlay = entry?.underlay ?? null;
  const tabs = useMayEdit() ? parts : parts.slice(0, 1);
  if (!placement) return null;
  const present = tabs.some(({ name }) => name === intakePart) ? intakePart : 'report';
  return (
    <>
      <TabLine label="About the drawing" tabs={tabs} present={present} turn={(name) => set({ intakePart: name })} />
      {entry?.problem && (
        <Note kind="wrong">
          {entry.problem}{' '}
          <Button variant="text" onClick={() => useUnderlays.getState().retry(drawing.id)}>
            Try again
          </Button>
        </Note>
      )}
      {present === 'report' && <IntakeReport key={drawing.fileId} drawing={drawing} unit={placement.unit} />}
      {present === 'recipe' && <RecipePart drawing={drawing} placement={placement} underlay={underlay} />}
      {present === 'plans' && <PlansPart drawing={drawing} placement={placement} underlay={underlay} />}
      {present === 'display' && <DisplayPart drawing={drawing} underlay={underlay} />}
      {present === 'revisions' && <RevisionsPart drawing={drawing} />}
    </>
  );
}

function Receiver() {
  const session = useSession();
  const send = useUploads((store) => store.send);
  const levelId = useView((view) => view.levelId);
  const [over, setOver] = useState(false);
  const take = (files: File[]) => send(session, files, levelId);
  return (
    <Box
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        const files = [...event.dataTransfer.files];
        if (files.length > 0) take(files);
      }}
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 1.5,
        border: '1px dashed',
        borderColor: over ? 'primary.main' : 'var(--mui-palette-zf-ink2)',
        background: over ? 'var(--mui-palette-zf-zirconSoft)' : 'none',
        borderRadius: '5px',
        px: 1.5,
        py: 0.75,
        mb: 1.5,
      }}
    >
      <Icon name="bring" size={22} />
      <Box sx={{ flex: 1 }}>Drop DXF, IFC or a zip of them</Box>
      <FileChoice variant="contained" label="Files to bring in" accept=".dxf,.DXF,.ifc,.zip" multiple choose={take}>
        Choose files
      </FileChoice>
    </Box>
  );
}

/** Files being sent, waited for and read; and what failed, until it is taken note of. */
function UnderWay() {
  const uploads = useUploads((store) => store.uploads);
  const dismiss = useUploads((store) => store.dismiss);
  const { id, refreshIntakes, tell } = useSession();
  const intakes = useFacts((facts) => facts.intakes);
  const ask = async (intake: string, method: 'DELETE' | 'POST') => {
    await api(`/api/projects/${id}/intakes/${intake}`, { method }).catch((error: Error) =>
      tell({ kind: 'problem', text: error.message }),
    );
    await refreshIntakes();
  };
  const own = new Set(uploads.map((upload) => upload.name));
  const others = intakes.filter(
    (intake) => intake.state !== 'done' && !(intake.state === 'receiving' && own.has(intake.fileName)),
  );
  if (uploads.length === 0 && others.length === 0) return null;
  return (
    <Part title="Under way">
      {uploads.map((upload) =>
        upload.message !== null ? (
          <Failure key={upload.key} text={upload.message} close={() => dismiss(upload.key)} again={null} />
        ) : (
          <Progress
            key={upload.key}
            name={upload.name}
            words={`sending, ${bytes(upload.sent)} of ${bytes(upload.size)}`}
            share={upload.size === 0 ? null : upload.sent / upload.size}
            cancel={upload.abort}
          />
        ),
      )}
      {others.map((intake) =>
        intake.state === 'failed' ? (
          <Failure
            key={intake.id}
            text={intake.message ?? `${intake.fileName} could not be read.`}
            close={() => void ask(intake.id, 'DELETE')}
            again={intake.again ? () => void ask(intake.id, 'POST') : null}
          />
        ) : (
          <Progress
            key={intake.id}
            name={intake.fileName}
            words={progressWords(intake)}
            share={intake.state === 'reading' && intake.size > 0 ? intake.done / intake.size : null}
            cancel={() => void ask(intake.id, 'DELETE')}
          />
        ),
      )}
    </Part>
  );
}

function Progress({
  name,
  words,
  share,
  cancel,
}: {
  name: string;
  words: string;
  share: number | null;
  cancel: () => void;
}) {
  return (
    <Box sx={{ mb: 1.25 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Box sx={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          <b>{name}</b>{' '}
          <Box component="span" sx={{ color: 'text.secondary' }}>
            {words}
          </Box>
        </Box>
        <Button variant="text" onClick={cancel}>
          Cancel
        </Button>
      </Box>
      <LinearProgress
        aria-label={`${name}: ${words}`}
        variant={share === null ? 'indeterminate' : 'determinate'}
        value={(share ?? 0) * 100}
      />
    </Box>
  );
}

function Failure({ text, close, again }: { text: string; close: () => void; again: (() => void) | null }) {
  return (
    <Note kind="wrong">
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'flex-start' }}>
        <Box sx={{ flex: 1 }}>
          {text}{' '}
          {again !== null && (
            <Button variant="text" onClick={again}>
              Try again
            </Button>
          )}
        </Box>
        <IconButton aria-label="Take note" size="small" sx={{ mt: -0.5, mr: -0.5 }} onClick={close}>
          <Icon name="close" size={14} />
        </IconButton>
      </Box>
    </Note>
  );
}

function DrawingItem({ drawing, here, choose }: { drawing: DrawingRow; here: boolean; choose: () => void }) {
  const commit = useCommit();
  const level = useModel('level').level[drawing.levelId ?? '']?.name;
  const mayEdit = useMayEdit();
  const change = (part: Partial<DrawingRow>, label: string) =>
    void commit((now) => ({ label, changes: [put('drawing', { ...now.drawing[drawing.id], ...part })] }));
  return (
    <Box
      component="li"
      sx={{
        display: 'flex',
        alignItems: 'center',
        borderBottom: '1px solid var(--mui-palette-divider)',
        borderLeft: '3px solid',
        borderLeftColor: here ? 'primary.main' : 'transparent',
        background: here ? 'var(--mui-palette-zf-zirconSoft)' : 'none',
        pl: 1,
      }}
    >
      <Box
        component="button"
        type="button"
        aria-pressed={here}
        onClick={choose}
        sx={{
          all: 'unset',
          flex: 1,
          minWidth: 0,
          cursor: 'pointer',
          display: 'flex',
          gap: 1,
          alignItems: 'baseline',
          whiteSpace: 'nowrap',
          overflow: 'hidden',
          '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)' },
        }}
      >
        <Box
          component="span"
          sx={{
            fontWeight: 600,
            overflow: 'hidden',
            textOverflow: 'ellipsis',
            flex: '0 1 auto',
            opacity: drawing.setAside ? 0.6 : 1,
          }}
        >
          {drawing.name}
        </Box>{' '}
        <Box component="span" sx={{ fontSize: 12, color: 'text.secondary', flex: 'none' }}>
          {[level ?? 'no level', `rev. ${drawing.revision}`, ...(drawing.setAside ? ['set aside'] : [])].join(', ')}
        </Box>
      </Box>
      {mayEdit && (
        <>
          <Tooltip title={drawing.setAside ? 'Bring back' : 'Set aside: not shown, its place kept'}>
            <IconButton
              aria-label={drawing.setAside ? `Bring back ${drawing.name}` : `Set aside ${drawing.name}`}
              onClick={() =>
                change(
                  { setAside: !drawing.setAside },
                  `${drawing.setAside ? 'Bring back' : 'Set aside'} ${drawing.name}`,
                )
              }
            >
              <Icon name={drawing.setAside ? 'hidden' : 'shown'} />
            </IconButton>
          </Tooltip>
          <Tooltip title="Discard (undo brings it back)">
            <IconButton
              aria-label={`Discard ${drawing.name}`}
              onClick={() => change({ discarded: true }, `Discard ${drawing.name}`)}
            >
              <Icon name="close" size={16} />
            </IconButton>
          </Tooltip>
        </>
      )}
    </Box>
  );
}

/** Where a file is on its way, in words. */
function progressWords({ state, done, size }: IntakeView): string {
  if (state === 'reading') return `reading, ${bytes(done)} of ${bytes(size)}`;
  return state === 'waiting' ? 'waiting to be read' : 'being sent from another window';
}
