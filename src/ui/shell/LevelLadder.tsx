'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Popover from '@mui/material/Popover';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { valibotResolver } from '@hookform/resolvers/valibot';
import { useForm } from 'react-hook-form';
import * as v from 'valibot';
import { levelRow, type LevelRow } from '@/core/model/state';
import { formatLength, parseLength, type DisplayUnit } from '@/core/units/length';

export interface LadderLevel extends LevelRow { drawings: string[]; used: boolean }

interface Ladder {
  levels: LadderLevel[];
  present: string | null;
  unit: DisplayUnit;
  go: (id: string) => void;
  change: (level: LevelRow) => void;
  remove: (level: LevelRow) => void;
  add: () => void;
}

const signed = (metres: number, unit: DisplayUnit) => (Math.abs(metres) < 5e-7 ? '\u00b1' : metres > 0 ? '+' : '') + formatLength(metres, unit);

/** A small section through the building, to scale: levels at their elevations, drawings hung on them. */
export function LevelLadder({ levels, present, unit, go, change, remove, add }: Ladder) {
  const [editing, setEditing] = useState<{ id: string; anchor: Element } | null>(null);
  const [low, high] = [Math.min(0, ...levels.map((level) => level.elevation)), Math.max(...levels.map((level) => level.elevation + level.height), 1)];
  const [top, bottom, x, width] = [28, 400, 60, 26];
  const at = (elevation: number) => bottom - ((elevation - low) / (high - low)) * (bottom - top);
  const edited = levels.find((level) => level.id === editing?.id);
  return (
    <Box component="aside" aria-label="Levels" sx={{ width: 112, flex: 'none', display: 'flex', flexDirection: 'column', background: 'var(--mui-palette-zf-panel)', borderLeft: '1px solid var(--mui-palette-divider)', overflowY: 'auto' }}>
      <Box sx={{ px: 1.25, pt: 1.25, fontWeight: 600, color: 'text.secondary' }}>Levels</Box>
      <svg viewBox="0 0 111 430" width="100%" role="list" aria-label="Levels, from the section" style={{ fontFamily: "'Overpass', sans-serif" }}>
        {levels.map((level) => {
          const here = level.id === present;
          const [y, roof] = [at(level.elevation), at(level.elevation + level.height)];
          return (
            <g key={level.id} role="listitem">
              <g role="button" tabIndex={0} aria-pressed={here} aria-label={`${level.name}, ${signed(level.elevation, unit)}`} style={{ cursor: 'pointer' }} onClick={() => go(level.id)}
                onDoubleClick={(event) => setEditing({ id: level.id, anchor: event.currentTarget })}
                onKeyDown={(event) => { if (event.key === 'Enter' || event.key === ' ') { event.preventDefault(); go(level.id); } if (event.key === 'F2') setEditing({ id: level.id, anchor: event.currentTarget }); }}>
                <rect x={0} y={roof} width={111} height={Math.max(2, y - roof)} fill="transparent" />
                <rect x={x} y={roof} width={width} height={Math.max(2, y - roof)} fill={here ? 'var(--mui-palette-zf-zirconSoft)' : level.elevation < 0 ? 'var(--mui-palette-zf-paper)' : 'none'} stroke="var(--mui-palette-zf-line)" />
                <path d={`M${x - 3} ${y}h${width + 6}`} stroke={here ? 'var(--mui-palette-zf-zircon)' : 'var(--mui-palette-zf-ink)'} strokeWidth={2.2} />
                <text x={6} y={y - 17} fontSize={11.5} fontWeight={600} fill={here ? 'var(--mui-palette-zf-zircon)' : 'var(--mui-palette-zf-ink)'} textLength={level.name.length > 8 ? 46 : undefined} lengthAdjust="spacingAndGlyphs">{level.name.length > 11 ? `${level.name.slice(0, 10)}\u2026` : level.name}</text>
                <text x={6} y={y - 5} fontSize={9} fontFamily="'Overpass Mono', monospace" fill="var(--mui-palette-zf-ink2)">{signed(level.elevation, unit)}</text>
              </g>
              {level.drawings.slice(0, 4).map((name, i) => (
                <g key={name + String(i)}>
                  <title>{name}</title>
                  <path d={`M${x + width} ${(y + roof) / 2 + i * 7}h5`} stroke="var(--mui-palette-zf-ink2)" />
                  <rect x={x + width + 5} y={(y + roof) / 2 - 8 + i * 7} width={9} height={16} fill="var(--mui-palette-zf-panel)" stroke="var(--mui-palette-zf-ink2)" />
                </g>
              ))}
            </g>
          );
        })}
        <path d={`M${x - 8} ${at(0) + 3}h${width + 18}`} stroke="var(--mui-palette-zf-slab)" strokeDasharray="4 3" />
      </svg>
      <Box sx={{ display: 'flex', flexDirection: 'column', gap: 0.5, px: 1, pb: 1.5 }}>
        <Button variant="text" disabled={present === null} onClick={(event) => present && setEditing({ id: present, anchor: event.currentTarget })}>Edit level</Button>
        <Button variant="text" onClick={add}>Add level</Button>
      </Box>
      <Popover open={edited !== undefined} anchorEl={editing?.anchor ?? null} onClose={() => setEditing(null)} anchorOrigin={{ vertical: 'center', horizontal: 'left' }} transformOrigin={{ vertical: 'center', horizontal: 'right' }}>
        {edited && <LevelForm key={edited.id} level={edited} unit={unit} levels={levels} done={() => setEditing(null)} change={change} remove={remove} />}
      </Popover>
    </Box>
  );
}

/** A typed length in metres. */
const typedLength = (unit: DisplayUnit) => v.pipe(v.string(), v.rawTransform<string, number>(({ dataset, addIssue, NEVER }) => {
  const parsed = parseLength(dataset.value, unit);
  if (parsed.ok) return parsed.value;
  addIssue({ message: parsed.message });
  return NEVER;
}));

function LevelForm({ level, unit, levels, done, change, remove }: { level: LadderLevel; unit: DisplayUnit; levels: LadderLevel[]; done: () => void; change: (level: LevelRow) => void; remove: (level: LevelRow) => void }) {
  const others = levels.filter((other) => other.id !== level.id);
  const schema = v.object({
    name: v.pipe(levelRow.entries.name, v.check((name) => !others.some((other) => other.name.toLowerCase() === name.toLowerCase()), 'Another level has this name.')),
    elevation: v.pipe(typedLength(unit), v.check((elevation) => !others.some((other) => Math.abs(other.elevation - elevation) < 0.0005), 'Another level stands at this elevation.')),
    height: v.pipe(typedLength(unit), v.gtValue(0, 'A height is more than zero.')),
  });
  const { register, handleSubmit, formState: { errors } } = useForm({ resolver: valibotResolver(schema), defaultValues: { name: level.name, elevation: formatLength(level.elevation, unit), height: formatLength(level.height, unit) } });
  const field = (name: 'name' | 'elevation' | 'height', label: string) => <TextField size="small" label={label} error={errors[name] !== undefined} helperText={errors[name]?.message} {...register(name)} />;
  return (
    <Box component="form" noValidate onSubmit={(event) => void handleSubmit((values) => { change({ id: level.id, ...values }); done(); })(event)} sx={{ display: 'flex', flexDirection: 'column', gap: 1.5, p: 2, width: 260 }}>
      {field('name', 'Name')}
      {field('elevation', 'Elevation')}
      {field('height', 'Height to next')}
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button type="submit" variant="contained">Keep</Button>
        <Button variant="text" onClick={done}>Leave as it is</Button>
        <Button variant="text" color="error" sx={{ ml: 'auto' }} disabled={level.used || levels.length === 1} title={level.used ? 'Drawings or elements hang on it' : undefined} onClick={() => { remove(level); done(); }}>Remove</Button>
      </Box>
    </Box>
  );
}
