'use client';
import { sectionName } from '@/core/kinds/section';
import type { ElementRow } from '@/core/kinds/element';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import {
  madeOf,
  nameBy,
  patternOf,
  plainNaming,
  plainPane,
  putEntry,
  removeEntries,
  renameAll,
  shelveAll,
  uValueOf,
  type MadeRow,
  type Naming,
} from '@/core/model/library';
import { bringLibrary, libraryFileOf, readLibraryFile } from '@/core/model/libraryFile';
import { put } from '@/core/model/edits';
import { formatLength } from '@/core/units/length';
import { projectRowOf, lengthsOf } from '@/project/projectRow';
import { useModel, useApply, useCommit, useSession, useLengths } from '@/project/useSession';
import { FileChoice } from '@/ui/widgets/FileChoice';
import { Part } from '@/ui/widgets/Heading';
import { RoleMark } from '@/ui/widgets/RoleMark';
import { saveJson } from '@/ui/widgets/saveFile';
import { EntryForm } from './EntryForm';

const newId = () => crypto.randomUUID();
const groups: { title: string; kinds: MadeRow['kind'][]; mark: 'column' | 'wall' | 'slab' | 'window' }[] = [
  { title: 'Sections', kinds: ['section'], mark: 'column' },
  { title: 'Wall constructions', kinds: ['wall'], mark: 'wall' },
  { title: 'Slab constructions', kinds: ['slab'], mark: 'slab' },
  { title: 'Glazing', kinds: ['glazing'], mark: 'window' },
];

type Fresh = MadeRow extends infer R ? (R extends MadeRow ? Omit<R, 'id' | 'name'> : never) : never;
const fresh: { word: string; made: Fresh }[] = [
  { word: 'Rectangle', made: { kind: 'section', section: { shape: 'rectangle', width: 0.3, depth: 0.3 } } },
  { word: 'Round', made: { kind: 'section', section: { shape: 'circle', diameter: 0.4 } } },
  {
    word: 'Polygon',
    made: {
      kind: 'section',
      section: {
        shape: 'polygon',
        outline: [
          [-0.3, -0.3],
          [0.3, -0.3],
          [0.3, -0.1],
          [-0.1, -0.1],
          [-0.1, 0.3],
          [-0.3, 0.3],
        ],
      },
    },
  },
  { word: 'Wall', made: { kind: 'wall', thickness: 0.2, layers: [] } },
  { word: 'Slab', made: { kind: 'slab', thickness: 0.2, layers: [] } },
  { word: 'Glazing', made: { kind: 'glazing', ...plainPane } },
];

/** What came in with a library's file, in words. */
function broughtIn(fresh: number, known: number): string {
  const came = `${fresh} ${fresh === 1 ? 'entry' : 'entries'} came in`;
  if (known === 0) return `${came}.`;
  const stays =
    known === 1 ? 'name is there already and stays as it is' : 'names are there already and stay as they are';
  return `${came}; ${known} ${stays}.`;
}

/** The project's sections and constructions: what elements are made of, how they are named, out and in as a file. */
export function LibraryPart() {
  const state = useModel('library', 'element', 'role', 'project');
  const apply = useApply();
  const commit = useCommit();
  const { tell } = useSession();
  const lengths = useLengths();
  const [open, setOpen] = useState<string | null>(null);
  // Photometric files are luminaires': they stand at Proof, Light.
  const rows = Object.values(state.library)
    .filter((row): row is MadeRow => row.kind !== 'photometry')
    .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
  const elements = Object.values(state.element) as ElementRow[];
  const used = new Map<string, number>();
  for (const { libraryId } of elements) if (libraryId) used.set(libraryId, (used.get(libraryId) ?? 0) + 1);
  const meant = new Set(Object.values(state.role).map(({ libraryId }) => libraryId));
  const unused = rows.filter(({ id }) => !used.has(id) && !meant.has(id));
  const loose = elements.filter((element) => !element.libraryId && madeOf(element) !== null).length;
  const naming = projectRowOf(state).naming ?? plainNaming;
  const imperial = ['in', 'ft', 'ft-in'].includes(lengths.unit);
  const add = (made: Fresh) => {
    const row = {
      id: newId(),
      name: nameBy(patternOf(naming, made), made, new Set(rows.map(({ name }) => name.toLowerCase())), imperial),
      ...made,
    } as MadeRow;
    if (apply((now) => putEntry(now, row))) setOpen(row.id);
  };
  const save = () => saveJson(`${projectRowOf(state).name} library.json`, libraryFileOf(state));
  const bring = async (file: File) => {
    if (file.size > 8e6) {
      tell({
        kind: 'problem',
        text: `${file.name} has ${(file.size / 1e6).toFixed(1)} MB; a library is smaller than 8 MB.`,
      });
      return;
    }
    const read = readLibraryFile(await file.text());
    if (!read.ok) {
      tell({ kind: 'problem', text: `${file.name}: ${read.message}` });
      return;
    }
    await commit((now) => {
      const { edit, known } = bringLibrary(now, read.value, newId);
      tell({ kind: 'info', text: broughtIn(edit.changes.length, known.length) });
      return edit;
    });
  };
  return (
    <>
      {loose > 0 && (
        <Box sx={{ mb: 1.5 }}>
          {loose} {loose === 1 ? 'element has a size' : 'elements have sizes'} of {loose === 1 ? 'its' : 'their'} own.{' '}
          <Button variant="text" onClick={() => void commit((now) => shelveAll(now, newId))}>
            Collect them
          </Button>
        </Box>
      )}
      {rows.length === 0 && (
        <Box sx={{ color: 'text.secondary', mb: 1.5 }}>
          Empty. Sections and constructions come here with the candidates you accept, or are added below.
        </Box>
      )}
      {groups.map(({ title, kinds, mark }) => {
        const own = rows.filter(({ kind }) => kinds.includes(kind));
        return own.length === 0 ? null : (
          <Part key={title} title={title} aside={<RoleMark role={mark} />}>
            <Box component="ul" aria-label={title} sx={{ listStyle: 'none', m: 0, p: 0 }}>
              {own.map((row) => (
                <Box component="li" key={row.id} sx={{ borderBottom: '1px solid var(--mui-palette-divider)' }}>
                  <Box
                    component="button"
                    type="button"
                    aria-expanded={open === row.id}
                    onClick={() => setOpen(open === row.id ? null : row.id)}
                    sx={{
                      all: 'unset',
                      display: 'grid',
                      gridTemplateColumns: '1fr 136px 58px',
                      whiteSpace: 'nowrap',
                      gap: 1,
                      width: '100%',
                      py: 0.5,
                      cursor: 'pointer',
                      background: open === row.id ? 'var(--mui-palette-zf-zirconSoft)' : 'none',
                      '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)' },
                    }}
                  >
                    <Box component="b" sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
                      {row.name}
                    </Box>
                    <span className="mono">{sizeWords(row, lengths)}</span>
                    <Box
                      component="span"
                      sx={{ color: used.has(row.id) ? 'text.primary' : 'text.secondary', textAlign: 'right' }}
                    >
                      {wordsOfUse(used.get(row.id), meant.has(row.id))}
                    </Box>
                  </Box>
                  {open === row.id && (
                    <EntryForm
                      key={JSON.stringify(row)}
                      row={row}
                      users={used.get(row.id) ?? 0}
                      taken={rows.filter(({ id }) => id !== row.id).map(({ name }) => name)}
                      change={(next) => void commit((now) => putEntry(now, next))}
                      drop={() => {
                        setOpen(null);
                        void commit((now) => removeEntries(now, [row]));
                      }}
                    />
                  )}
                </Box>
              ))}
            </Box>
          </Part>
        );
      })}
      <Part title="Add">
        <Box sx={{ display: 'flex', gap: 0.75, flexWrap: 'wrap' }}>
          {fresh.map(({ word, made }) => (
            <Button key={word} variant="outlined" onClick={() => add(made)}>
              {word}
            </Button>
          ))}
        </Box>
        <Box sx={{ display: 'flex', gap: 0.75, flexWrap: 'wrap', mt: 1 }}>
          <FileChoice
            variant="text"
            label="Library file"
            accept=".json,application/json"
            choose={([file]) => void bring(file)}
          >
            Bring a library in
          </FileChoice>
          <Button variant="text" disabled={rows.length === 0} onClick={save}>
            Save as a file
          </Button>
          {unused.length > 0 && (
            <Button variant="text" onClick={() => void commit((now) => removeEntries(now, unused))}>
              Delete {unused.length} unused
            </Button>
          )}
        </Box>
      </Part>
      <NamesPart naming={naming} />
    </>
  );
}

function sizeWords(row: MadeRow, lengths: ReturnType<typeof lengthsOf>): string {
  if (row.kind === 'section') return sectionName(row.section);
  const uValue = uValueOf(row);
  const heat = uValue === null ? '' : `U ${uValue.toFixed(2)}`;
  return row.kind === 'glazing' ? heat : [formatLength(row.thickness, lengths), heat].filter(Boolean).join(', ');
}

const patternWords: Record<keyof Naming, string> = {
  rectangle: 'Rectangular sections',
  circle: 'Round sections',
  polygon: 'Other sections',
  wall: 'Walls',
  slab: 'Slabs',
  glazing: 'Glazing',
};

/** The patterns that names are made by. */
function NamesPart({ naming }: { naming: Naming }) {
  const commit = useCommit();
  const entries = useModel('library').count('library');
  const set = (key: keyof Naming, pattern: string) =>
    void commit((now) => ({
      label: `Names of ${patternWords[key].toLowerCase()}`,
      changes: [put('project', { ...projectRowOf(now), naming: { ...naming, [key]: pattern } })],
    }));
  return (
    <Part
      title="Names"
      aside={
        <Button variant="text" disabled={entries === 0} onClick={() => void commit((now) => renameAll(now, naming))}>
          Name all anew
        </Button>
      }
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 1, rowGap: 1.75, pt: 0.75 }}>
        {(Object.keys(patternWords) as (keyof Naming)[]).map((key) => (
          <Pattern
            key={`${key} ${naming[key]}`}
            label={patternWords[key]}
            pattern={naming[key]}
            change={(pattern) => set(key, pattern)}
          />
        ))}
      </Box>
      <Box sx={{ color: 'text.secondary', mt: 1 }}>
        <span className="mono">{'{w}'}</span> width or diameter, <span className="mono">{'{d}'}</span> depth,{' '}
        <span className="mono">{'{t}'}</span> thickness, <span className="mono">{'{n}'}</span> a number
      </Box>
    </Part>
  );
}

function Pattern({ label, pattern, change }: { label: string; pattern: string; change: (pattern: string) => void }) {
  const [text, setText] = useState(pattern);
  const take = () => {
    if (text.trim() !== '' && text.trim() !== pattern) change(text.trim());
  };
  return (
    <TextField
      size="small"
      label={label}
      value={text}
      error={text.trim() === ''}
      helperText={text.trim() === '' ? 'A pattern is missing.' : null}
      onChange={(event) => setText(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') take();
        if (event.key === 'Escape') setText(pattern);
      }}
      slotProps={{ htmlInput: { className: 'mono', maxLength: 80 } }}
    />
  );
}

/** How many elements are made of an entry, or whether layers mean it. */
function wordsOfUse(made: number | undefined, meant: boolean): string {
  if (made !== undefined) return `${made} made`;
  return meant ? 'meant' : 'unused';
}
