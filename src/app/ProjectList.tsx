'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { valibotResolver } from '@hookform/resolvers/valibot';
import dayjs from 'dayjs';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import * as v from 'valibot';
import { put } from '@/core/model/edits';
import { projectRow, type ProjectState } from '@/core/model/state';
import { api } from '@/project/api';
import { TopBar } from '@/ui/shell/TopBar';
import { FileChoice } from '@/ui/widgets/FileChoice';
import { Note } from '@/ui/widgets/Heading';
import { LinePicture } from '@/ui/widgets/LinePicture';
import { Icon } from '@/ui/widgets/Icon';
import type { ProjectCard } from '@/server/projects';

const plural = (n: number, noun: string) => `${n} ${noun}${n === 1 ? '' : 's'}`;

/** What a name is asked for. */
type Naming = { what: 'new' } | { what: 'rename' | 'start'; project: ProjectCard };

function titleOf(naming: Naming): string {
  if (naming.what === 'new') return 'New project';
  return naming.what === 'rename'
    ? `Rename ${naming.project.name}`
    : `New project with the levels, library, roles and settings of ${naming.project.name}`;
}

/**
 * All projects: open, create, rename, duplicate, delete with a way back.
 * @param self who is signed in; null where nobody signs in
 */
export function ProjectList({
  projects,
  problem,
  self,
}: {
  projects: ProjectCard[];
  problem: string | null;
  self: string | null;
}) {
  const router = useRouter();
  const { enqueueSnackbar, closeSnackbar } = useSnackbar();
  const [naming, setNaming] = useState<Naming | null>(null);
  const [removing, setRemoving] = useState<ProjectCard | null>(null);
  const here = projects.filter((project) => project.deletedAt === null);
  const deleted = projects.filter((project) => project.deletedAt !== null);

  const act = async (work: () => Promise<unknown>) => {
    try {
      await work();
    } catch (error) {
      enqueueSnackbar((error as Error).message, { variant: 'error' });
    }
    router.refresh();
  };
  const openFile = async (file: File) => {
    const what = /\.json$/i.test(file.name) ? 'model' : 'archive';
    const address = `/api/projects/${what}?name=${encodeURIComponent(file.name)}`;
    const { id, told = [] } = await api<{ id: string; told?: string[] }>(address, { method: 'POST', body: file });
    for (const words of told)
      enqueueSnackbar(words, {
        variant: 'warning',
        persist: true,
        action: (key) => (
          <Button variant="text" onClick={() => closeSnackbar(key)}>
            Close
          </Button>
        ),
      });
    router.push(`/projects/${id}`);
  };
  const restore = (project: ProjectCard) => act(() => api(`/api/projects/${project.id}/restore`, { method: 'POST' }));
  const remove = (project: ProjectCard) =>
    act(async () => {
      await api(`/api/projects/${project.id}`, { method: 'DELETE' });
      enqueueSnackbar(`${project.name} was deleted`, {
        action: (key) => (
          <Button
            variant="text"
            onClick={() => {
              closeSnackbar(key);
              void restore(project);
            }}
          >
            Undo
          </Button>
        ),
      });
    });
  const name = async (text: string) => {
    const asked = naming;
    setNaming(null);
    if (asked?.what === 'new') {
      await act(async () =>
        router.push(`/projects/${(await api<{ id: string }>('/api/projects', { json: { name: text } })).id}`),
      );
    } else if (asked?.what === 'start') {
      await act(async () => {
        const address = `/api/projects/${asked.project.id}/start`;
        const { id, kept } = await api<{ id: string; kept: string[] }>(address, { json: { name: text } });
        if (kept.length > 0) enqueueSnackbar(`On the shelves at Sorting and Intake: ${kept.join(', ')}`);
        router.push(`/projects/${id}`);
      });
    } else if (asked) {
      const { project } = asked;
      await act(async () => {
        const { state, history } = await api<{ state: ProjectState; history: { version: number } }>(
          `/api/projects/${project.id}/state`,
        );
        const edit = {
          label: `Rename to ${text}`,
          changes: [put('project', { ...state.project[project.id], name: text })],
        };
        await api(`/api/projects/${project.id}/edits`, {
          json: { seen: history.version, clientId: crypto.randomUUID(), edit },
        });
      });
    }
  };

  return (
    <Box sx={{ minHeight: '100vh', background: 'var(--mui-palette-zf-paper)' }}>
      <TopBar />
      <Box component="main" sx={{ maxWidth: 860, mx: 'auto', px: 3, py: 5 }}>
        <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', mb: 2 }}>
          <Box component="h1" sx={{ m: 0, fontSize: 19, fontWeight: 700 }}>
            Projects
          </Box>
          <Box sx={{ display: 'flex', gap: 1 }}>
            {self !== null && (
              <Button variant="text" component={Link} href="/people">
                {self}
              </Button>
            )}
            <FileChoice
              label="Archive or model"
              accept=".zircon,.json,application/json"
              choose={([file]) => void act(() => openFile(file))}
            >
              Open a file
            </FileChoice>
            <Button variant="contained" onClick={() => setNaming({ what: 'new' })}>
              New project
            </Button>
          </Box>
        </Box>
        {problem !== null && <Note kind="wrong">{problem}</Note>}
        {problem === null && here.length === 0 && (
          <Note kind="plain">No project yet. Make one, then bring in a DXF plan.</Note>
        )}
        <Box
          component="ul"
          sx={{
            listStyle: 'none',
            m: 0,
            p: 0,
            background: 'var(--mui-palette-zf-panel)',
            border: here.length > 0 ? '1px solid var(--mui-palette-divider)' : 0,
            borderRadius: '5px',
          }}
        >
          {here.map((project, i) => (
            <Box
              component="li"
              key={project.id}
              sx={{
                display: 'flex',
                alignItems: 'center',
                borderTop: i > 0 ? '1px solid var(--mui-palette-divider)' : 0,
                pr: 1,
              }}
            >
              <Box sx={{ pl: 1.5, py: 1, display: 'flex' }}>
                <LinePicture
                  lines={project.picture}
                  width={96}
                  height={60}
                  colour={`var(--mui-palette-zf-${project.elements > 0 ? 'wall' : 'ink2'})`}
                />
              </Box>
              <Box
                component={Link}
                href={`/projects/${project.id}`}
                sx={{
                  flex: 1,
                  minWidth: 0,
                  display: 'block',
                  px: 2,
                  py: 1.5,
                  color: 'text.primary',
                  textDecoration: 'none',
                  '&:hover b': { color: 'primary.main' },
                }}
              >
                <Box
                  component="b"
                  sx={{ fontSize: 15, display: 'block', overflow: 'hidden', textOverflow: 'ellipsis' }}
                >
                  {project.name}
                </Box>
                <Box component="span" sx={{ color: 'text.secondary' }}>
                  {plural(project.drawings, 'drawing')}, {plural(project.elements, 'element')},{' '}
                  {plural(project.levels, 'level')},{' '}
                  <time dateTime={project.updatedAt} suppressHydrationWarning>
                    changed {dayjs(project.updatedAt).format('D MMM YYYY, HH:mm')}
                  </time>
                </Box>
              </Box>
              <CardMenu
                project={project}
                rename={() => setNaming({ what: 'rename', project })}
                start={() => setNaming({ what: 'start', project })}
                duplicate={() => void act(() => api(`/api/projects/${project.id}/duplicate`, { method: 'POST' }))}
                remove={() => void remove(project)}
                shared={self !== null}
              />
            </Box>
          ))}
        </Box>
        {deleted.length > 0 && (
          <Box component="details" sx={{ mt: 3 }}>
            <Box component="summary" sx={{ cursor: 'pointer', color: 'text.secondary' }}>
              Deleted: {deleted.length}
            </Box>
            {deleted.map((project) => (
              <Box
                key={project.id}
                sx={{
                  display: 'flex',
                  alignItems: 'center',
                  gap: 1,
                  py: 0.5,
                  borderBottom: '1px solid var(--mui-palette-divider)',
                }}
              >
                <Box sx={{ flex: 1 }}>{project.name}</Box>
                <Button variant="outlined" onClick={() => void restore(project)}>
                  Restore
                </Button>
                <Button variant="text" color="error" onClick={() => setRemoving(project)}>
                  Delete for good
                </Button>
              </Box>
            ))}
          </Box>
        )}
      </Box>
      {naming !== null && (
        <NameDialog
          start={naming.what === 'rename' ? naming.project.name : ''}
          title={titleOf(naming)}
          done={(text) => void name(text)}
          leave={() => setNaming(null)}
        />
      )}
      <Dialog open={removing !== null} onClose={() => setRemoving(null)} aria-label="Delete for good">
        <DialogContent>{removing?.name} and its drawings are removed for good. This cannot be undone.</DialogContent>
        <DialogActions>
          <Button variant="text" autoFocus onClick={() => setRemoving(null)}>
            Cancel
          </Button>
          <Button
            variant="contained"
            color="error"
            onClick={() => {
              // The dialog can still be clicked while it goes away.
              if (removing === null) return;
              setRemoving(null);
              void act(() => api(`/api/projects/${removing.id}?forever`, { method: 'DELETE' }));
            }}
          >
            Delete for good
          </Button>
        </DialogActions>
      </Dialog>
    </Box>
  );
}

function CardMenu({
  project,
  rename,
  start,
  duplicate,
  remove,
  shared,
}: {
  project: ProjectCard;
  /** Whether people sign in. */
  shared: boolean;
  rename: () => void;
  start: () => void;
  duplicate: () => void;
  remove: () => void;
}) {
  const [anchor, setAnchor] = useState<Element | null>(null);
  const item = (words: string, run: () => void) => (
    <MenuItem
      onClick={() => {
        setAnchor(null);
        run();
      }}
    >
      {words}
    </MenuItem>
  );
  const file = (path: string, words: string) => (
    <MenuItem component="a" href={`/api/projects/${project.id}/${path}`} download onClick={() => setAnchor(null)}>
      {words}
    </MenuItem>
  );
  return (
    <>
      <IconButton
        aria-label={`What to do with ${project.name}`}
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        <Icon name="more" />
      </IconButton>
      <Menu open={anchor !== null} anchorEl={anchor} onClose={() => setAnchor(null)}>
        {item('Rename', rename)}
        {item('Duplicate', duplicate)}
        {item('Start the next as this one', start)}
        {file('archive', 'Save its archive')}
        {file('settings.json', 'Save its settings for ./run convert')}
        {shared && (
          <MenuItem component={Link} href={`/projects/${project.id}/people`}>
            Who takes part
          </MenuItem>
        )}
        {item('Delete', remove)}
      </Menu>
    </>
  );
}

function NameDialog({
  title,
  start,
  done,
  leave,
}: {
  title: string;
  start: string;
  done: (name: string) => void;
  leave: () => void;
}) {
  const {
    register,
    handleSubmit,
    formState: { errors },
  } = useForm({
    resolver: valibotResolver(v.object({ name: projectRow.entries.name })),
    defaultValues: { name: start },
  });
  return (
    <Dialog open onClose={leave} aria-label={title} fullWidth maxWidth="xs">
      <form noValidate onSubmit={(event) => void handleSubmit(({ name }) => done(name))(event)}>
        <DialogContent>
          <Box sx={{ fontWeight: 700, fontSize: 15, mb: 1.5 }}>{title}</Box>
          <TextField
            autoFocus
            fullWidth
            size="small"
            label="Name"
            error={errors.name !== undefined}
            helperText={errors.name?.message}
            {...register('name')}
          />
        </DialogContent>
        <DialogActions>
          <Button variant="text" onClick={leave}>
            Cancel
          </Button>
          <Button type="submit" variant="contained">
            {start === '' ? 'Create' : 'Rename'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
