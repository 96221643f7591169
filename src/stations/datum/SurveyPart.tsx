'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { surveyOfDrawing, type Survey } from '@/core/datum/survey';
import { degrees } from '@/core/geometry/vector';
import type { DrawingRow, PlacementRow, ProjectRow } from '@/core/model/state';
import { parseAngle } from '@/core/units/angle';
import { formatNumber } from '@/core/units/length';
import { Part } from '@/ui/widgets/Heading';
import { LengthField } from '@/ui/widgets/LengthField';

/** The project, and a way to change a part of it. */
export interface Change {
  project: ProjectRow;
  change: (part: Partial<ProjectRow>, label: string) => void;
}

const metres = { unit: 'm', places: 3 } as const;

/** Where the survey has the project's zero, and what its system of coordinates is called. */
export function SurveyOfProject({
  project,
  change,
  drawing,
  placement,
}: Change & { drawing: DrawingRow; placement: PlacementRow }) {
  const survey: Survey = project.survey ?? { easting: 0, northing: 0, elevation: 0, north: 0 };
  const set = (part: Partial<typeof survey>, words: string) => change({ survey: { ...survey, ...part } }, words);
  const far = placement.upright === null && Math.hypot(...placement.origin) > 0;
  return (
    <Part title="Survey">
      <Box sx={{ mb: 1 }}>
        {project.survey === null
          ? 'Not known yet. Give what the survey has for the project\u2019s zero; handover can then go back to its coordinates.'
          : 'The survey has the project\u2019s zero at'}
      </Box>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: '1fr 1fr',
          columnGap: 1,
          rowGap: 1.75,
          alignItems: 'start',
          pt: 0.5,
        }}
      >
        <LengthField
          label="Easting"
          value={project.survey && survey.easting}
          lengths={metres}
          change={(easting) => set({ easting }, 'Easting of the zero')}
          width="100%"
        />
        <LengthField
          label="Northing"
          value={project.survey && survey.northing}
          lengths={metres}
          change={(northing) => set({ northing }, 'Northing of the zero')}
          width="100%"
        />
        <LengthField
          label="Elevation"
          value={project.survey && survey.elevation}
          lengths={metres}
          change={(elevation) => set({ elevation }, 'Elevation of the zero')}
          width="100%"
        />
        <AngleField
          label="North, clockwise from ours"
          value={project.survey && degrees(survey.north)}
          change={(north) => set({ north }, 'North of the survey')}
        />
      </Box>
      <SystemField
        key={survey.system}
        system={survey.system ?? ''}
        change={(system) => set({ system }, 'System of the survey')}
      />
      <Box sx={{ display: 'flex', gap: 1, mt: 1, flexWrap: 'wrap' }}>
        {far && (
          <Button
            variant="outlined"
            onClick={() => set(surveyOfDrawing(placement, survey.elevation), `Survey as ${drawing.name} has it`)}
          >
            As {drawing.name} has it
          </Button>
        )}
        {project.survey !== null && (
          <Button variant="text" onClick={() => change({ survey: null }, 'Survey not known')}>
            Delete
          </Button>
        )}
      </Box>
    </Part>
  );
}

/** A name of a system of coordinates has at most so many letters. */
const longestSystem = 120;

/** What the system of coordinates is called, as its authority has it: it goes out with IFC. */
function SystemField({ system, change }: { system: string; change: (system: string) => void }) {
  const [text, setText] = useState(system);
  const take = () => {
    if (text.trim() !== system) change(text.trim());
  };
  return (
    <TextField
      size="small"
      fullWidth
      label="System of coordinates"
      placeholder="as its authority calls it"
      value={text}
      onChange={({ target }) => setText(target.value.slice(0, longestSystem))}
      onBlur={take}
      onKeyDown={({ key }) => {
        if (key === 'Enter') take();
      }}
      sx={{ mt: 1.75 }}
    />
  );
}

/** An angle to be typed in degrees. @param change gets radians */
function AngleField({
  label,
  value,
  change,
}: {
  label: string;
  value: number | null;
  change: (radians: number) => void;
}) {
  const shown = value === null ? '' : `${formatNumber(value, 5)}\u00b0`;
  return <TypedAngle key={shown} label={label} shown={shown} change={change} />;
}

function TypedAngle({ label, shown, change }: { label: string; shown: string; change: (radians: number) => void }) {
  const [text, setText] = useState(shown);
  const parsed = text.trim() === '' ? null : parseAngle(text);
  const take = () => {
    if (text !== shown && parsed?.ok) change(parsed.value);
  };
  return (
    <TextField
      size="small"
      label={label}
      value={text}
      error={parsed !== null && !parsed.ok}
      helperText={parsed !== null && !parsed.ok ? parsed.message : null}
      onChange={(event) => setText(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') take();
      }}
      slotProps={{ htmlInput: { className: 'mono' } }}
    />
  );
}
