'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import dayjs from 'dayjs';
import { useEffect, useState } from 'react';
import { put } from '@/core/model/edits';
import type { DrawingRow } from '@/core/model/state';
import { api } from '@/project/api';
import { useOverlay } from '@/project/overlay';
import { keyOf, useAnswer, valueOf } from '@/project/useAnswer';
import { useCommit, useSession } from '@/project/useSession';
import { compareRevisions, useUnderlays } from '@/project/underlays';
import { useUploads } from '@/project/uploads';
import { FileChoice } from '@/ui/widgets/FileChoice';
import { Note, Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';
import { canFollow, useFollowed } from './followFile';
import { bytes, count } from './format';

interface Revision {
  number: number;
  fileId: string;
  fileName: string;
  size: number;
  at: string;
}

/** The files a drawing was and is: bringing the next one in, what it changed, and the way back. */
export function RevisionsPart({ drawing }: { drawing: DrawingRow }) {
  const commit = useCommit();
  const session = useSession();
  const project = session.id;
  const send = useUploads((store) => store.send);
  const { looked, look } = useUnderlays();
  const answer = useAnswer(keyOf(project, drawing.id, drawing.fileId), () =>
    api<{ revisions: Revision[] }>(`/api/projects/${project}/drawings/${drawing.id}/revisions`),
  );
  const lookedAt = looked[drawing.id] ?? null;
  useEffect(
    () => () => {
      useUnderlays.getState().look(drawing.id, null);
    },
    [drawing.id],
  );
  const revisions = valueOf(answer)?.revisions ?? [];
  const before = revisions.find((revision) => revision.number < drawing.revision);
  const take = (revision: Revision) => {
    look(drawing.id, null);
    void commit((now) => ({
      label: `${drawing.name}: ${revision.number < drawing.revision ? 'back to' : 'on to'} revision ${revision.number}`,
      changes: [
        put('drawing', {
          ...now.drawing[drawing.id],
          revision: revision.number,
          fileId: revision.fileId,
          fileName: revision.fileName,
        }),
      ],
    }));
  };
  return (
    <>
      <Part title="Next revision">
        <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
          <FileChoice
            variant="contained"
            label="Next revision"
            accept=".dxf,.DXF,.ifc"
            choose={([file]) => send(session, [file], null, drawing.id)}
          >
            Bring in revision {Math.max(drawing.revision, ...revisions.map(({ number }) => number)) + 1}
          </FileChoice>
        </Box>
        <Box sx={{ color: 'text.secondary', mt: 0.75 }}>Placement, roles, recipe and display stay.</Box>
        <Follow drawing={drawing} />
      </Part>
      {lookedAt !== null && (
        <Note kind="look">
          Looking at revision {revisions.find((revision) => revision.fileId === lookedAt)?.number ?? ''}.{' '}
          <Button variant="text" onClick={() => look(drawing.id, null)}>
            Back to revision {drawing.revision}
          </Button>
        </Note>
      )}
      <Part title={`Revisions: ${revisions.length}`}>
        <Box component="ul" aria-label="Revisions" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {revisions.map((revision) => {
            const here = revision.number === drawing.revision;
            return (
              <Box
                component="li"
                key={revision.number}
                sx={{
                  display: 'flex',
                  alignItems: 'center',
                  gap: 1,
                  borderBottom: '1px solid var(--mui-palette-divider)',
                  borderLeft: '3px solid',
                  borderLeftColor: here ? 'primary.main' : 'transparent',
                  pl: 1,
                  py: 0.5,
                }}
              >
                <Box sx={{ flex: 1, minWidth: 0 }}>
                  <Box>
                    <b>Revision {revision.number}</b>
                    {here && (
                      <Box component="span" sx={{ color: 'primary.main' }}>
                        {' '}
                        in use
                      </Box>
                    )}
                  </Box>
                  <Box sx={{ fontSize: 12, color: 'text.secondary', overflowWrap: 'anywhere' }}>
                    {revision.fileName}, {bytes(revision.size)}, {dayjs(revision.at).format('D MMM YYYY HH:mm')}
                  </Box>
                </Box>
                {!here && (
                  <Button
                    variant="text"
                    aria-pressed={lookedAt === revision.fileId}
                    aria-label={`Look at revision ${revision.number}`}
                    onClick={() => look(drawing.id, lookedAt === revision.fileId ? null : revision.fileId)}
                  >
                    Look
                  </Button>
                )}
                {!here && (
                  <Button variant="text" aria-label={`Use revision ${revision.number}`} onClick={() => take(revision)}>
                    Use
                  </Button>
                )}
              </Box>
            );
          })}
        </Box>
      </Part>
      {before && lookedAt === null && (
        <Changes key={`${before.fileId}/${drawing.fileId}`} project={project} drawing={drawing} before={before} />
      )}
    </>
  );
}

function Follow({ drawing }: { drawing: DrawingRow }) {
  const { files, follow, stop, take } = useFollowed();
  const session = useSession();
  const send = useUploads((store) => store.send);
  const followed = files[drawing.id];
  if (!canFollow()) return null;
  if (!followed)
    return (
      <Button variant="outlined" sx={{ mt: 1 }} onClick={() => void follow(drawing.id)}>
        Follow a file on this computer
      </Button>
    );
  const bring = () =>
    void take(drawing.id).then((file) => {
      if (file) send(session, [file], null, drawing.id);
    });
  return (
    <Box sx={{ mt: 1 }}>
      {followed.problem !== null && <Note kind="wrong">{followed.problem}</Note>}
      {followed.changed && (
        <Note kind="look">
          {followed.handle.name} has changed on this computer.{' '}
          <Button variant="contained" onClick={bring}>
            Bring the change in
          </Button>
        </Note>
      )}
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Box sx={{ flex: 1 }}>
          Following <b>{followed.handle.name}</b> while this page is open.
        </Box>
        <Button variant="text" onClick={() => stop(drawing.id)}>
          Stop
        </Button>
      </Box>
    </Box>
  );
}

/** What came, went and changed since the revision before, by layer. */
function Changes({ project, drawing, before }: { project: string; drawing: DrawingRow; before: Revision }) {
  const show = useOverlay((store) => store.show);
  const answer = useAnswer(keyOf(project, before.fileId, drawing.fileId), () =>
    compareRevisions(project, before.fileId, drawing.fileId),
  );
  const picture = valueOf(answer);
  const [shown, setShown] = useState(false);
  useEffect(() => {
    if (!shown || picture === null) return;
    show({
      drawingId: drawing.id,
      origin: picture.origin,
      parts: [
        { lines: picture.went, tone: 'wrong' },
        { lines: picture.came, tone: 'evidence' },
      ],
    });
    return () => show(null);
  }, [shown, picture, drawing.id, show]);
  if (answer && !answer.ok) return <Note kind="wrong">{answer.message}</Note>;
  if (picture === null)
    return (
      <Box role="status" sx={{ color: 'text.secondary' }}>
        comparing with revision {before.number} {'\u2026'}
      </Box>
    );
  const { total } = picture;
  const rows = picture.layers.filter((row) => row.came + row.went + row.changed > 0);
  return (
    <Part
      title={`Since revision ${before.number}`}
      aside={
        rows.length > 0 && (
          <Button variant="outlined" aria-pressed={shown} onClick={() => setShown(!shown)}>
            {shown ? 'Hide on the board' : 'Show on the board'}
          </Button>
        )
      }
    >
      <Box sx={{ mb: 0.5 }}>
        {rows.length === 0 ? (
          'Nothing has changed.'
        ) : (
          <>
            <b>{total.came.toLocaleString('en')}</b> came, <b>{total.went.toLocaleString('en')}</b> went,{' '}
            <b>{total.changed.toLocaleString('en')}</b> changed;
          </>
        )}{' '}
        {count(total.same, 'entity').replace('entitys', 'entities')} as before.
      </Box>
      {shown && (
        <Box sx={{ color: 'text.secondary', mb: 0.5 }}>
          <Box component="span" sx={{ color: 'primary.main' }}>
            Green: came or as it is now.
          </Box>{' '}
          <Box component="span" sx={{ color: 'error.main' }}>
            Red: went or as it was.
          </Box>
        </Box>
      )}
      {rows.length > 0 && (
        <Table
          label="Changes by layer"
          heads={[
            'layer',
            { text: 'came', figures: true },
            { text: 'went', figures: true },
            { text: 'changed', figures: true },
          ]}
        >
          {rows.map((row) => (
            <tr key={row.layer}>
              <td style={{ overflowWrap: 'anywhere' }}>{row.layer}</td>
              <td className="figures">{row.came || ''}</td>
              <td className="figures">{row.went || ''}</td>
              <td className="figures">{row.changed || ''}</td>
            </tr>
          ))}
        </Table>
      )}
    </Part>
  );
}
