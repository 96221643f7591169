'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { WorkingAxes } from '@/core/datum/survey';
import { put } from '@/core/model/edits';
import type { DrawingRow, PlacementRow, ProjectRow } from '@/core/model/state';
import {
  angleConventions,
  conventionWords,
  formatDirection,
  parseDirection,
  type AngleConvention,
} from '@/core/units/angle';
import { displayUnits, formatLength, unitNames, usualPlaces, type DisplayUnit } from '@/core/units/length';
import { useBoard } from '@/board/boardStore';
import { projectRowOf } from '@/project/projectRow';
import { useCommit, useLengths, useProjectRow } from '@/project/useSession';
import { useView } from '@/project/view';
import { Part } from '@/ui/widgets/Heading';
import { Icon } from '@/ui/widgets/Icon';
import { LengthField } from '@/ui/widgets/LengthField';
import { SurveyOfProject, type Change } from './SurveyPart';

/** How the project shows lengths and angles, where the survey has it, and its working axes. */
export function ProjectPart({ drawing, placement }: { drawing: DrawingRow; placement: PlacementRow }) {
  const commit = useCommit();
  const project = useProjectRow();
  const change = (part: Partial<ProjectRow>, label: string) =>
    void commit((now) => ({
      label,
      changes: [put('project', { ...projectRowOf(now), ...part })],
    }));
  return (
    <>
      <UnitsOfProject project={project} change={change} />
      <SurveyOfProject project={project} change={change} drawing={drawing} placement={placement} />
      <AxesOfProject project={project} change={change} />
    </>
  );
}

function UnitsOfProject({ project, change }: Change) {
  const unit = project.displayUnit;
  const places = project.places ?? usualPlaces[unit];
  const step = (n: number) => {
    if (unit === 'ft-in') {
      if (n === 0) return 'whole inches';
      return `1/${2 ** n} inch`;
    }
    if (n === 0) return `whole ${unitNames[unit]}`;
    return `${n} ${n === 1 ? 'decimal' : 'decimals'}`;
  };
  return (
    <Part title="Lengths and angles">
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        <Select
          size="small"
          value={unit}
          inputProps={{ 'aria-label': 'Project unit' }}
          onChange={(event) =>
            change(
              { displayUnit: event.target.value as DisplayUnit, places: null },
              `Lengths in ${unitNames[event.target.value as DisplayUnit]}`,
            )
          }
        >
          {displayUnits.map((each) => (
            <MenuItem key={each} value={each}>
              {unitNames[each]}
            </MenuItem>
          ))}
        </Select>
        <Select
          size="small"
          value={places}
          inputProps={{ 'aria-label': 'Precision' }}
          onChange={(event) =>
            change({ places: Number(event.target.value) }, `Lengths to ${step(Number(event.target.value))}`)
          }
        >
          {[0, 1, 2, 3, 4, 5, 6].map((n) => (
            <MenuItem key={n} value={n}>
              {step(n)}
            </MenuItem>
          ))}
        </Select>
      </Box>
      <Select
        size="small"
        fullWidth
        value={project.angles}
        inputProps={{ 'aria-label': 'Angles' }}
        sx={{ mt: 1 }}
        onChange={(event) =>
          change(
            { angles: event.target.value as AngleConvention },
            `Angles ${conventionWords[event.target.value as AngleConvention]}`,
          )
        }
      >
        {angleConventions.map((each) => (
          <MenuItem key={each} value={each}>
            {conventionWords[each]}
          </MenuItem>
        ))}
      </Select>
      <Box sx={{ color: 'text.secondary', mt: 0.75 }}>
        For example <span className="mono">{formatLength(3.8227, { unit, places: project.places })}</span> at{' '}
        <span className="mono">{formatDirection((17 * Math.PI) / 180, project.angles)}</span>. A typed length may be in
        any unit.
      </Box>
    </Part>
  );
}

function AxesOfProject({ project, change }: Change) {
  const { axesId, set } = useView();
  const { setTool } = useBoard();
  const picking = useBoard((board) => board.tool.kind === 'pickLine');
  const lengths = useLengths();
  const [draft, setDraft] = useState<{ origin: [number, number]; angle: number } | null>(null);
  const [name, setName] = useState('');
  const [angle, setAngle] = useState('');
  const typed = angle.trim() === '' ? null : parseDirection(angle, project.angles);
  const taken = project.axes.some((axes) => axes.name.toLowerCase() === name.trim().toLowerCase());
  const begin = (origin: [number, number], direction: number) => {
    setDraft({ origin, angle: direction });
    setAngle(formatDirection(direction, project.angles, 4));
  };
  const pick = () =>
    setTool({
      kind: 'pickLine',
      prompt: 'line along the wing',
      take: ({ from, to }) => begin([from[0], from[1]], Math.atan2(to[1] - from[1], to[0] - from[0])),
    });
  const keep = () => {
    if (!draft || !typed?.ok || name.trim() === '' || taken) return;
    const axes: WorkingAxes = { id: crypto.randomUUID(), name: name.trim(), origin: draft.origin, angle: typed.value };
    change(
      { axes: [...project.axes, { ...axes, origin: [axes.origin[0], axes.origin[1]] }] },
      `Working axes ${axes.name}`,
    );
    set({ axesId: axes.id });
    setDraft(null);
    setName('');
  };
  return (
    <Part title="Working axes">
      <Box component="ul" aria-label="Working axes" sx={{ listStyle: 'none', m: 0, mb: 1, p: 0 }}>
        {[{ id: null, name: 'The project\u2019s own', angle: 0 }, ...project.axes].map((axes) => (
          <Box
            component="li"
            key={axes.id ?? 'own'}
            sx={{
              display: 'flex',
              alignItems: 'center',
              gap: 1,
              borderBottom: '1px solid var(--mui-palette-divider)',
              background: (axesId ?? null) === axes.id ? 'var(--mui-palette-zf-zirconSoft)' : 'none',
            }}
          >
            <Box
              component="button"
              type="button"
              aria-pressed={(axesId ?? null) === axes.id}
              onClick={() => set({ axesId: axes.id })}
              sx={{
                all: 'unset',
                flex: 1,
                cursor: 'pointer',
                py: 0.5,
                px: 0.75,
                '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)' },
              }}
            >
              {axes.name}
            </Box>
            <span className="mono">{formatDirection(axes.angle, project.angles)}</span>
            {axes.id === null ? (
              <Box sx={{ width: 30 }} />
            ) : (
              <IconButton
                size="small"
                aria-label={`Remove the axes ${axes.name}`}
                onClick={() => {
                  if (axesId === axes.id) set({ axesId: null });
                  change({ axes: project.axes.filter(({ id }) => id !== axes.id) }, `Remove the axes ${axes.name}`);
                }}
              >
                <Icon name="close" size={14} />
              </IconButton>
            )}
          </Box>
        ))}
      </Box>
      {!draft && (
        <Box sx={{ display: 'flex', gap: 1 }}>
          {picking ? (
            <Button variant="outlined" onClick={() => setTool({ kind: 'look' })}>
              Stop picking
            </Button>
          ) : (
            <Button variant="outlined" onClick={pick}>
              Pick a line
            </Button>
          )}
          <Button variant="text" onClick={() => begin([0, 0], 0)}>
            or give an angle
          </Button>
        </Box>
      )}
      {draft && (
        <Box
          component="form"
          sx={{
            display: 'grid',
            gridTemplateColumns: '1fr 1fr',
            columnGap: 1,
            rowGap: 1.75,
            alignItems: 'start',
            pt: 0.75,
          }}
          onSubmit={(event) => {
            event.preventDefault();
            keep();
          }}
        >
          <TextField
            size="small"
            label="Name"
            autoFocus
            value={name}
            error={taken}
            helperText={taken ? 'Other axes have this name.' : null}
            onChange={(event) => setName(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 120 } }}
          />
          <TextField
            size="small"
            label="East runs at"
            value={angle}
            error={typed !== null && !typed.ok}
            helperText={typed !== null && !typed.ok ? typed.message : null}
            onChange={(event) => setAngle(event.target.value)}
            slotProps={{ htmlInput: { className: 'mono' } }}
          />
          <LengthField
            label="Zero, east"
            value={draft.origin[0]}
            lengths={lengths}
            change={(east) => setDraft({ ...draft, origin: [east, draft.origin[1]] })}
            width="100%"
          />
          <LengthField
            label="Zero, north"
            value={draft.origin[1]}
            lengths={lengths}
            change={(north) => setDraft({ ...draft, origin: [draft.origin[0], north] })}
            width="100%"
          />
          <Box sx={{ display: 'flex', gap: 1, gridColumn: '1 / -1' }}>
            <Button type="submit" variant="contained" disabled={!typed?.ok || name.trim() === '' || taken}>
              Create
            </Button>
            <Button variant="text" onClick={() => setDraft(null)}>
              Cancel
            </Button>
          </Box>
        </Box>
      )}
    </Part>
  );
}
