'use client';
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import type { Counts } from '@/core/exports/deliveries/contentOf';
import {
  contentNames,
  disciplines,
  formatNames,
  plainWish,
  type ContentName,
  type DeliveryWish,
} from '@/core/exports/deliveries/wish';
import { gridCrossings } from '@/core/kinds/gridCrossings';
import { levelsUp } from '@/core/model/levels';
import { lengthUnits, unitNames } from '@/core/units/length';
import { countsIn } from '@/project/mirror';
import { activeDrawings, projectRowOf } from '@/project/projectRow';
import { useModel, useMoment } from '@/project/useSession';
import { Part } from '@/ui/widgets/Heading';
import { Choices } from '@/ui/widgets/Choices';
import { Toggles } from '@/ui/widgets/Toggles';
import { contentWords, formatWords } from './deliveryWords';

interface WishProps {
  wish: DeliveryWish;
  change: (part: Partial<DeliveryWish>) => void;
}

/** What is to be handed over: for whom, in which formats, what of it, on which levels, in which unit and from where. */
export function WishPart({ wish, change }: WishProps) {
  return (
    <>
      <Choices
        label="For whom"
        choices={disciplines.map(({ name }) => ({ name, words: name }))}
        chosen={wish.name}
        choose={(name) => {
          const discipline = disciplines.find((one) => one.name === name);
          if (discipline !== undefined) change({ ...plainWish(discipline, wish.unit), origin: wish.origin });
        }}
      />
      <TextField
        size="small"
        fullWidth
        label="Name"
        value={wish.name}
        onChange={({ target }) => change({ name: target.value })}
        sx={{ mb: 1.5 }}
      />
      <Part title="Formats">
        <Toggles
          label="Formats"
          of={formatNames}
          words={(name) => formatWords[name]}
          chosen={wish.formats}
          choose={(formats) => change({ formats })}
        />
      </Part>
      <ContentPart wish={wish} change={change} />
      <LevelsPart wish={wish} change={change} />
      <OriginPart wish={wish} change={change} />
    </>
  );
}

/** What of the model, with how much of it there is on the levels that are chosen. */
function ContentPart({ wish, change }: WishProps) {
  const moment = useMoment('element', 'level');
  const [counts, setCounts] = useState<Counts | null>(null);
  const { levels } = wish;
  useEffect(() => {
    let here = true;
    void countsIn(moment.model, { content: [...contentNames], levels }).then((found) => {
      if (here) setCounts(found);
    });
    return () => {
      here = false;
    };
  }, [moment, levels]);
  const there = contentNames.filter((name) => counts === null || counts[name] > 0);
  const words = (name: ContentName): string =>
    counts === null ? contentWords[name] : `${contentWords[name]} ${counts[name]}`;
  return (
    <Part title="Content">
      <Toggles
        label="Content"
        of={there}
        words={words}
        chosen={wish.content}
        choose={(content) => change({ content })}
      />
    </Part>
  );
}

function LevelsPart({ wish, change }: WishProps) {
  const model = useModel('level');
  const levels = levelsUp(model);
  if (levels.length < 2) return null;
  const names = new Map(levels.map(({ id, name }) => [id, name]));
  return (
    <Part title="Levels">
      <Toggles
        label="Levels"
        of={levels.map(({ id }) => id)}
        words={(id) => names.get(id) ?? ''}
        chosen={wish.levels ?? levels.map(({ id }) => id)}
        choose={(chosen) => change({ levels: chosen.length === levels.length ? null : chosen })}
      />
    </Part>
  );
}

/** The values of the choice of an origin; a crossing has its name behind it. */
const crossingMark = 'crossing ';

/** The unit and the zero of DXF files. */
/** An origin among the choices. @param crossing the name of its crossing of grid lines */
function valueOf(origin: DeliveryWish['origin'], crossing = ''): string {
  if (origin.at === 'point') return `${crossingMark}${crossing}`;
  return origin.at === 'drawing' ? origin.drawing : origin.at;
}

function OriginPart({ wish, change }: WishProps) {
  const model = useModel('element', 'project');
  const grids = [...model.ofKind('grid')].map(({ shape }) => shape);
  const crossings = gridCrossings(grids);
  const { survey } = projectRowOf(model);
  const { origin } = wish;
  const at =
    origin.at === 'point'
      ? crossings.find(({ point }) => point[0] === origin.point[0] && point[1] === origin.point[1])
      : undefined;
  const plans = activeDrawings(model).filter(({ id }) => model.placement[id]?.upright === null);
  const value = valueOf(origin, at?.name);
  const choose = (chosen: string) => {
    const plan = plans.find(({ id }) => id === chosen);
    if (plan !== undefined) {
      change({ origin: { at: 'drawing', drawing: plan.id }, unit: model.placement[plan.id].unit });
      return;
    }
    const crossing = crossings.find(({ name }) => `${crossingMark}${name}` === chosen);
    if (crossing !== undefined) change({ origin: { at: 'point', point: [...crossing.point], turn: 0 } });
    else change({ origin: { at: chosen === 'survey' ? 'survey' : 'project' } });
  };
  if (!wish.formats.includes('dxf')) return null;
  return (
    <Part title="DXF">
      <Box sx={{ display: 'flex', gap: 1 }}>
        <TextField
          select
          size="small"
          label="Unit"
          value={wish.unit}
          disabled={origin.at === 'drawing'}
          onChange={({ target }) => {
            const unit = lengthUnits.find((one) => one === target.value);
            if (unit !== undefined) change({ unit });
          }}
          sx={{ flex: 1 }}
        >
          {lengthUnits.map((unit) => (
            <MenuItem key={unit} value={unit}>
              {unitNames[unit]}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          size="small"
          label="Origin"
          value={value}
          onChange={({ target }) => choose(target.value)}
          sx={{ flex: 1 }}
        >
          <MenuItem value="project">the project&rsquo;s zero</MenuItem>
          <MenuItem value="survey" disabled={survey === null}>
            {survey === null ? 'the survey (not known yet)' : 'the survey'}
          </MenuItem>
          {plans.map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              as {name} lies
            </MenuItem>
          ))}
          {crossings.map(({ name }) => (
            <MenuItem key={name} value={`${crossingMark}${name}`}>
              grid crossing {name}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      <Box sx={{ color: 'text.secondary', fontSize: 12, mt: 0.75 }}>
        Other formats have metres from the project&rsquo;s zero; IFC says where the survey has it.
      </Box>
    </Part>
  );
}
