'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { few } from '@/core/few';
import { put, type Change } from '@/core/model/edits';
import { counted } from '@/core/model/counted';
import { answer, picksOf, setBlockRoles, teach } from '@/core/model/picks';
import type { Model } from '@/core/model/model';
import type { DrawingRow, RoleRow } from '@/core/model/state';
import { applyRoleMap, readRoleMap, roleMapOf, type RoleMap } from '@/core/sorting/roleMap';
import { api } from '@/project/api';
import { projectRowOf } from '@/project/projectRow';
import { settingsOf } from '@/project/readings';
import { useModel, useCommit, useSession } from '@/project/useSession';
import { useShelf } from '@/project/useShelf';
import { FileChoice } from '@/ui/widgets/FileChoice';
import { Note, Part } from '@/ui/widgets/Heading';
import { Icon } from '@/ui/widgets/Icon';
import { saveJson } from '@/ui/widgets/saveFile';

interface Kept extends Omit<RoleMap, 'format' | 'version'> {
  id: string;
}
/** How many lessons a map holds. */
const taught = ({ lessons, answers }: Pick<RoleMap, 'lessons' | 'answers'>): number => lessons.length + answers.length;

/** What applying a map came to. */
interface Applied {
  name: string;
  matched: number;
  blocks: number;
  lessons: number;
  unmatched: string[];
  unused: number;
}

/** Role maps for the next job: kept by name, saved and brought in as JSON, applied to this drawing's layers. */
export function RoleMapShelf({
  drawing,
  rows,
  blocks,
}: {
  drawing: DrawingRow;
  rows: readonly RoleRow[];
  blocks: readonly string[];
}) {
  const state = useModel('pick', 'project');
  const commit = useCommit();
  const { tell } = useSession();
  const { blocks: own, alike, answers } = picksOf(state, drawing.id);
  const [name, setName] = useState('');
  const [applied, setApplied] = useState<Applied | null>(null);
  const { kept, act } = useShelf<Kept, 'maps'>('/api/rolemaps', 'maps');
  const sorted = rows.filter(({ role }) => role !== null).length + own.length + alike.length + answers.length;
  const keep = () => {
    const map = roleMapOf(name.trim(), rows, own, {
      lessons: alike.map(({ role, like }) => ({ role, like })),
      answers: answers.map((pick) => pick.answer),
      firstNumber: settingsOf(state).beam.first,
    });
    act(api('/api/rolemaps', { json: map }), `Role map ${map.name} is kept, with ${map.rules.length} rules.`);
    setName('');
  };
  const apply = ({ name: of, rules, lessons, answers: given, firstNumber }: Omit<RoleMap, 'format' | 'version'>) => {
    const found = applyRoleMap(
      { rules },
      rows.map(({ layer }) => layer),
      blocks,
    );
    setApplied({
      name: of,
      matched: found.roles.size,
      blocks: found.blocks.size,
      lessons: lessons.length + given.length,
      unmatched: found.unmatched,
      unused: found.unused.length,
    });
    if (found.roles.size + found.blocks.size + lessons.length + given.length === 0) return;
    void commit((now) => ({
      label: `Role map ${of} on ${drawing.name}`,
      changes: [
        ...rows.flatMap((row) => {
          const rule = found.roles.get(row.layer);
          return rule ? [put('role', { ...now.role[row.id], role: rule.role, suggested: false })] : [];
        }),
        ...(found.blocks.size > 0
          ? setBlockRoles(now, drawing, new Map([...found.blocks].map(([block, rule]) => [block, rule.role])), () =>
              crypto.randomUUID(),
            ).changes
          : []),
        ...(lessons.length > 0 ? teach(now, drawing, lessons, () => crypto.randomUUID()).changes : []),
        ...(given.length > 0 ? answer(now, drawing, given, () => crypto.randomUUID()).changes : []),
        ...firstNumberChanges(now, firstNumber),
      ],
    }));
  };
  const bring = async (file: File) => {
    if (file.size > 4e6) {
      tell({
        kind: 'problem',
        text: `${file.name} has ${(file.size / 1e6).toFixed(1)} MB; a role map is smaller than 4 MB.`,
      });
      return;
    }
    const result = readRoleMap(await file.text());
    if (!result.ok) {
      tell({ kind: 'problem', text: `${file.name}: ${result.message}` });
      return;
    }
    act(api('/api/rolemaps', { json: result.value }), `Role map ${result.value.name} is kept.`);
    apply(result.value);
  };
  const save = ({ id: _, ...map }: Kept) =>
    saveJson(`${map.name} roles.json`, { format: 'zircon-frame-roles', version: 1, ...map });
  return (
    <Part title="Role maps">
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) keep();
        }}
        sx={{ display: 'flex', gap: 1, mb: 1 }}
      >
        <TextField
          size="small"
          placeholder="Name of the map"
          value={name}
          onChange={(event) => setName(event.target.value)}
          slotProps={{ htmlInput: { 'aria-label': 'Name of the role map', maxLength: 120 } }}
          sx={{ flex: 1 }}
        />
        <Button type="submit" variant="outlined" disabled={name.trim() === '' || sorted === 0}>
          {kept.some((other) => other.name === name.trim()) ? 'Replace' : 'Save'}
        </Button>
        <FileChoice
          variant="text"
          label="Role map file"
          accept=".json,application/json"
          choose={([file]) => void bring(file)}
        >
          Bring in
        </FileChoice>
      </Box>
      {applied && (
        <Note kind={applied.unmatched.length > 0 ? 'look' : 'plain'}>
          {applied.name}: {applied.matched} {applied.matched === 1 ? 'layer' : 'layers'}
          {applied.blocks > 0 && ` and ${applied.blocks} ${applied.blocks === 1 ? 'block' : 'blocks'}`} matched
          {applied.lessons > 0 && `, ${counted(applied.lessons, 'lesson')} taken over`}
          {applied.unmatched.length > 0 && `, not ${few(applied.unmatched)}`}
          {applied.unused > 0
            ? `; ${applied.unused} ${applied.unused === 1 ? 'rule was' : 'rules were'} not needed`
            : ''}
          .
        </Note>
      )}
      {kept.length === 0 && (
        <Box sx={{ color: 'text.secondary' }}>
          None is kept yet. A role map keeps what the layers and blocks of this drawing mean under a name, for the next
          drawing from the same office.
        </Box>
      )}
      <Box component="ul" aria-label="Kept role maps" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {kept.map((entry) => (
          <Box
            component="li"
            key={entry.id}
            sx={{
              display: 'flex',
              alignItems: 'center',
              gap: 0.5,
              borderBottom: '1px solid var(--mui-palette-divider)',
            }}
          >
            <Box sx={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis' }}>
              {entry.name}{' '}
              <Box component="span" sx={{ color: 'text.secondary' }}>
                {entry.rules.length} rules{taught(entry) > 0 && `, ${counted(taught(entry), 'lesson')}`}
              </Box>
            </Box>
            <Button variant="text" aria-label={`Apply role map ${entry.name}`} onClick={() => apply(entry)}>
              Apply
            </Button>
            <Button variant="text" aria-label={`Save role map ${entry.name}`} onClick={() => save(entry)}>
              Save
            </Button>
            <IconButton
              size="small"
              aria-label={`Forget role map ${entry.name}`}
              onClick={() => {
                if (window.confirm(`Forget the role map ${entry.name}? Layers keep the roles they have.`))
                  act(api(`/api/rolemaps/${entry.id}`, { method: 'DELETE' }), `Role map ${entry.name} is forgotten.`);
              }}
            >
              <Icon name="close" size={14} />
            </IconButton>
          </Box>
        ))}
      </Box>
    </Part>
  );
}

/** Which written number is the width, where the map says another than the project. */
function firstNumberChanges(now: Model, first: RoleMap['firstNumber']): Change[] {
  const settings = settingsOf(now);
  if (first === null || settings.beam.first === first) return [];
  return [put('project', { ...projectRowOf(now), reading: { ...settings, beam: { ...settings.beam, first } } })];
}
