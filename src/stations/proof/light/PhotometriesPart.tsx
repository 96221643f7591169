'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useMemo, useState } from 'react';
import { mostIes } from '@/core/kinds/libraryEntry';
import { shippedPhotometries } from '@/core/kinds/luminaire';
import { beamAngle } from '@/core/lighting/photometry/beam';
import { fluxOf } from '@/core/lighting/photometry/intensity';
import { readIes, type Photometry } from '@/core/lighting/photometry/readIes';
import { usualIes } from '@/core/lighting/photometry/usual';
import { counted } from '@/core/model/counted';
import { put, remove } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { useApply, useCommit, useMayEdit, useMoment, useSession } from '@/project/useSession';
import { FileChoice } from '@/ui/widgets/FileChoice';
import { Note, Part } from '@/ui/widgets/Heading';
import { PolarCurve } from './PolarCurve';

/** Names of photometric files that a project knows: those that ship, and its own. */
function filesOf(model: Model): Map<string, string> {
  const own = Object.values(model.library).flatMap((row) =>
    row.kind === 'photometry' ? [[row.name, row.ies] as const] : [],
  );
  return new Map([...shippedPhotometries.map((name) => [name, usualIes(name)] as const), ...own]);
}

/** A name that no other file has. */
function freeName(wanted: string, taken: ReadonlyMap<string, string>): string {
  const base = wanted.trim().slice(0, 100) || 'Luminaire';
  for (let n = 1; ; n += 1) {
    const name = n === 1 ? base : `${base} (${n})`;
    if (!taken.has(name)) return name;
  }
}

/** The photometric files of the project: one looked at with its light, its figures; others come in. */
export function PhotometriesPart() {
  const moment = useMoment('library', 'element');
  const { model } = moment;
  const { tell } = useSession();
  const apply = useApply();
  const commit = useCommit();
  const mayEdit = useMayEdit();
  const files = useMemo(() => filesOf(moment.model), [moment]);
  const [chosen, choose] = useState<string>(shippedPhotometries[0]);
  const name = files.has(chosen) ? chosen : shippedPhotometries[0];
  const own = Object.values(model.library).find((row) => row.kind === 'photometry' && row.name === name);
  const users = [...model.ofKind('luminaire')].filter(({ shape }) => shape.photometry === name).length;
  const bring = async (file: File) => {
    const problem = (text: string) => tell({ kind: 'problem', text: `${file.name}: ${text}` });
    if (file.size > mostIes) {
      problem(`It has ${(file.size / 1e6).toFixed(1)} MB; a photometric file is smaller than ${mostIes / 1e6} MB.`);
      return;
    }
    const ies = await file.text();
    const read = readIes(ies);
    if (!read.ok) {
      problem(read.message);
      return;
    }
    const free = freeName(read.value.name || file.name.replace(/\.ies$/i, ''), files);
    const row = { id: crypto.randomUUID(), name: free, kind: 'photometry' as const, ies };
    if (apply(() => ({ label: `Add the light of ${free}`, changes: [put('library', row)] }))) choose(free);
  };
  return (
    <Part title="Luminaires">
      <Box sx={{ display: 'flex', gap: 1, mt: 0.75, mb: 1 }}>
        <TextField
          select
          size="small"
          label="Light of"
          value={name}
          onChange={({ target }) => choose(target.value)}
          sx={{ flex: 1 }}
        >
          {[...files.keys()].map((one) => (
            <MenuItem key={one} value={one}>
              {one}
            </MenuItem>
          ))}
        </TextField>
        {mayEdit && (
          <FileChoice label="Photometric file" accept=".ies,text/plain" choose={([file]) => void bring(file)}>
            Add a file &hellip;
          </FileChoice>
        )}
      </Box>
      <Told name={name} ies={files.get(name) ?? ''} shipped={own === undefined} />
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mt: 0.5 }}>
        <Box sx={{ color: 'text.secondary', flex: 1 }}>
          {users === 0 ? 'No luminaire has it.' : `${counted(users, 'luminaire')} of the project.`}
        </Box>
        {own !== undefined && mayEdit && (
          <Button
            size="small"
            variant="text"
            disabled={users > 0}
            title={users > 0 ? 'Luminaires have it: give them another first.' : undefined}
            onClick={() =>
              void commit(() => ({ label: `Delete the light of ${name}`, changes: [remove('library', own.id)] }))
            }
          >
            Delete
          </Button>
        )}
      </Box>
    </Part>
  );
}

function Told({ name, ies, shipped }: { name: string; ies: string; shipped: boolean }) {
  const read = useMemo(() => readIes(ies, name), [ies, name]);
  const lines = useMemo(() => (read.ok ? figuresOf(read.value) : []), [read]);
  if (!read.ok) return <Note kind="wrong">{read.message}</Note>;
  return (
    <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center' }}>
      <PolarCurve photometry={read.value} name={name} />
      <Box component="dl" aria-label={`Figures of ${name}`} sx={{ m: 0, flex: 1, minWidth: 0 }}>
        {lines.map(([word, figure]) => (
          <Box key={word} sx={{ display: 'flex', justifyContent: 'space-between', gap: 1, py: 0.25 }}>
            <Box component="dt" sx={{ color: 'text.secondary' }}>
              {word}
            </Box>
            <Box component="dd" className="mono" sx={{ m: 0, whiteSpace: 'nowrap' }}>
              {figure}
            </Box>
          </Box>
        ))}
        {shipped && <Box sx={{ color: 'text.secondary', fontSize: 12 }}>Invented, by a formula.</Box>}
        {read.value.warnings.map((warning) => (
          <Box key={warning} sx={{ color: 'text.secondary', fontSize: 12 }}>
            {warning}
          </Box>
        ))}
      </Box>
    </Box>
  );
}

const degreesOf = (angle: number | null): string => (angle === null ? 'none' : `${angle.toFixed(0)}\u00b0`);

/** What is told of a luminaire's light. */
function figuresOf(photometry: Photometry): [word: string, figure: string][] {
  const flux = fluxOf(photometry);
  const { power, length, width } = photometry;
  return [
    ['flux', `${flux.toFixed(0)} lm`],
    ['power', `${power.toFixed(1)} W`],
    ...(power > 0 ? [['for each watt', `${(flux / power).toFixed(0)} lm/W`] as [string, string]] : []),
    ['beam, along', degreesOf(beamAngle(photometry, 0))],
    ['across', degreesOf(beamAngle(photometry, 90))],
    ['opening', `${(length * 1000).toFixed(0)} \u00d7 ${(width * 1000).toFixed(0)} mm`],
  ];
}
