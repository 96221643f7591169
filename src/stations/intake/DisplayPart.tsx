'use client';
import { displayOf, recipeOf } from '@/core/model/drawings';
import { roleId, showLayers } from '@/core/model/roles';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import Slider from '@mui/material/Slider';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import { useRef, useState } from 'react';
import { put } from '@/core/model/edits';
import type { DisplayRow, DrawingRow } from '@/core/model/state';
import type { ColourMode } from '@/core/underlay/display';
import { useModel, useCommit } from '@/project/useSession';
import type { Underlay } from '@/project/underlays';
import { useView } from '@/project/view';
import { Part } from '@/ui/widgets/Heading';
import { Icon } from '@/ui/widgets/Icon';
import { useScheme } from '@/ui/widgets/useScheme';
import { ClickedLine } from './ClickedLine';

const modeWords: Record<ColourMode, string> = {
  drawn: 'as drawn, made readable',
  inverted: 'inverted for the background',
  ink: 'one ink',
  layer: 'a colour of my own for layers',
};

/** How a drawing is shown: colours, fade, above or below the model, held, levels, line types and weights, layers. */
export function DisplayPart({ drawing, underlay }: { drawing: DrawingRow; underlay: Underlay | null }) {
  const state = useModel('recipe', 'display', 'role');
  const commit = useCommit();
  const display = displayOf(state, drawing.id);
  const change = (part: Partial<DisplayRow>, words: string) =>
    void commit((now) => ({
      label: `${drawing.name}: ${words}`,
      changes: [put('display', { ...displayOf(now, drawing.id), ...part })],
    }));
  const [fade, setFade] = useFade(display.fade, (value) =>
    change({ fade: value }, `faded by ${Math.round(value * 100)} %`),
  );
  const turn = (label: string, on: boolean, part: (on: boolean) => Partial<DisplayRow>, words: [string, string]) => (
    <FormControlLabel
      control={<Switch size="small" checked={on} onChange={(_, next) => change(part(next), words[next ? 1 : 0])} />}
      label={label}
      sx={{ m: 0, minHeight: 28, gap: 0.75, '& .MuiFormControlLabel-label': { fontSize: 13 } }}
    />
  );
  return (
    <>
      <ClickedLine drawing={drawing} underlay={underlay} />
      <Part title="Colours">
        <Select
          size="small"
          fullWidth
          value={display.colours}
          inputProps={{ 'aria-label': 'Colours' }}
          onChange={(event) =>
            change(
              { colours: event.target.value as ColourMode },
              `colours ${modeWords[event.target.value as ColourMode]}`,
            )
          }
        >
          {(Object.keys(modeWords) as ColourMode[]).map((mode) => (
            <MenuItem key={mode} value={mode}>
              {modeWords[mode]}
            </MenuItem>
          ))}
        </Select>
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mt: 1 }}>
          <span>Fade</span>
          <Slider
            size="small"
            min={0}
            max={90}
            value={fade}
            onChange={(_, value) => setFade(value as number)}
            slotProps={{ input: { 'aria-label': 'Fade' } }}
          />
          <Box component="span" className="mono" sx={{ width: 44, textAlign: 'right' }}>
            {fade} %
          </Box>
        </Box>
      </Part>
      <Part title="Place on the board">
        <Box sx={{ display: 'flex', flexDirection: 'column' }}>
          {turn('Over the model', display.above, (above) => ({ above }), ['under the model', 'over the model'])}
          {turn('Held: cannot be clicked or moved, still there to snap to', display.held, (held) => ({ held }), [
            'released',
            'held',
          ])}
          {turn(
            'Seen on all levels, not only on its own',
            display.levels === 'all',
            (all) => ({ levels: all ? 'all' : 'own' }),
            ['seen on its level', 'seen on all levels'],
          )}
          {turn('Seen in space with the model', display.stacked, (stacked) => ({ stacked }), [
            'not seen in space',
            'seen in space',
          ])}
          {turn('Line types', display.lineTypes, (lineTypes) => ({ lineTypes }), [
            'without line types',
            'with line types',
          ])}
          {turn('Line weights', display.lineWeights, (lineWeights) => ({ lineWeights }), [
            'without line weights',
            'with line weights',
          ])}
        </Box>
      </Part>
      {underlay && <Layers drawing={drawing} underlay={underlay} display={display} change={change} />}
    </>
  );
}

/** The fade in hundredths while it is moved; it is kept a moment after it came to rest. */
function useFade(kept: number, keep: (value: number) => void): [number, (percent: number) => void] {
  const [moved, setMoved] = useState<{ from: number; percent: number } | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const percent = moved !== null && moved.from === kept ? moved.percent : Math.round(kept * 100);
  return [
    percent,
    (next) => {
      setMoved({ from: kept, percent: next });
      clearTimeout(timer.current);
      timer.current = setTimeout(() => keep(next / 100), 350);
    },
  ];
}

function Layers({
  drawing,
  underlay,
  display,
  change,
}: {
  drawing: DrawingRow;
  underlay: Underlay;
  display: DisplayRow;
  change: (part: Partial<DisplayRow>, words: string) => void;
}) {
  const state = useModel('recipe', 'display', 'role');
  const commit = useCommit();
  const { isolated, set } = useView();
  const { tokens } = useScheme();
  const [search, setSearch] = useState('');
  const alone = isolated[drawing.id] ?? null;
  const isolate = (names: string[] | null) => {
    const { [drawing.id]: _, ...rest } = isolated;
    set({ isolated: names === null ? rest : { ...rest, [drawing.id]: names } });
  };
  const onlyUsed = recipeOf(state, drawing.id).some(({ on, step }) => on && step.kind === 'listUsed');
  const layers = underlay.layers.filter(
    ({ name, empty }) => !(onlyUsed && empty) && name.toLowerCase().includes(search.trim().toLowerCase()),
  );
  return (
    <Part
      title={
        alone ? `Shown alone: ${alone.length === 1 ? alone[0] : `${alone.length} layers`}` : `Layers: ${layers.length}`
      }
      aside={
        alone && (
          <Button variant="text" onClick={() => isolate(null)}>
            Show the others again
          </Button>
        )
      }
    >
      <TextField
        size="small"
        fullWidth
        placeholder="Find a layer"
        value={search}
        onChange={(event) => setSearch(event.target.value)}
        slotProps={{ htmlInput: { 'aria-label': 'Find a layer' } }}
        sx={{ mb: 0.5 }}
      />
      <Box component="ul" aria-label="Layers of the drawing" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {layers.slice(0, 200).map(({ name, empty }) => {
          const row = state.role[roleId(drawing.id, name)];
          const only = alone?.includes(name) ?? false;
          return (
            <Box
              component="li"
              key={name}
              sx={{
                display: 'flex',
                alignItems: 'center',
                borderBottom: '1px solid var(--mui-palette-divider)',
                minHeight: 30,
              }}
            >
              <IconButton
                size="small"
                disabled={!row}
                aria-label={`${row?.shown === false ? 'Show' : 'Hide'} ${name}`}
                onClick={() => row && void commit(() => showLayers([row], !row.shown))}
                sx={{ width: 28, height: 28 }}
              >
                <Icon name={row?.shown === false ? 'hidden' : 'shown'} size={16} />
              </IconButton>
              <Box
                sx={{
                  flex: 1,
                  minWidth: 0,
                  overflow: 'hidden',
                  textOverflow: 'ellipsis',
                  whiteSpace: 'nowrap',
                  opacity: row?.shown === false || (alone && !only) ? 0.55 : 1,
                }}
              >
                {name}
                {empty && (
                  <Box component="span" sx={{ color: 'text.secondary' }}>
                    {' '}
                    empty
                  </Box>
                )}
              </Box>
              {display.colours === 'layer' && (
                <input
                  type="color"
                  aria-label={`Colour of ${name}`}
                  value={display.layerColours[name] ?? tokens.underlay}
                  onChange={(event) =>
                    change(
                      { layerColours: { ...display.layerColours, [name]: event.target.value } },
                      `colour of ${name}`,
                    )
                  }
                  style={{ width: 26, height: 20, border: 0, padding: 0, background: 'none' }}
                />
              )}
              <IconButton
                size="small"
                aria-pressed={only}
                aria-label={only ? `Show the others beside ${name} again` : `Show ${name} alone`}
                onClick={() => isolate(only ? without(alone!, name) : [...(alone ?? []), name])}
                sx={{ width: 28, height: 28, color: only ? 'primary.main' : 'text.secondary' }}
              >
                <Icon name="alone" size={15} />
              </IconButton>
            </Box>
          );
        })}
      </Box>
      {layers.length > 200 && (
        <Box sx={{ color: 'text.secondary' }}>and {layers.length - 200} more; search narrows them down</Box>
      )}
    </Part>
  );
}

/** The layers that are still shown alone without one; null, which is all layers, where none is left. */
const without = (alone: string[], name: string): string[] | null =>
  alone.length > 1 ? alone.filter((other) => other !== name) : null;
