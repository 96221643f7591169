'use client';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { uValueOf, type MadeRow } from '@/core/model/library';
import type { Point } from '@/core/geometry/vector';
import { parseLength, formatLength, type LengthStyle } from '@/core/units/length';
import { useLengths } from '@/project/useSession';
import { Icon } from '@/ui/widgets/Icon';
import { LengthField } from '@/ui/widgets/LengthField';
import { NumberField } from '@/ui/widgets/NumberField';

interface Form {
  row: MadeRow;
  /** How many elements are made of it. */ users: number;
  /** Names of the other entries. */ taken: readonly string[];
  change: (row: MadeRow) => void;
  drop: () => void;
}

/** One section or construction, to be changed; what is made of it changes with it. */
export function EntryForm({ row, users, taken, change, drop }: Form) {
  const lengths = useLengths();
  const [name, setName] = useState(row.name);
  const known = taken.some((other) => other.toLowerCase() === name.trim().toLowerCase());
  const rename = () => {
    if (name.trim() !== '' && name.trim() !== row.name && !known) change({ ...row, name: name.trim() });
  };
  return (
    <Box sx={{ p: 1, pb: 1.5, background: 'var(--mui-palette-zf-paper)' }}>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 1, rowGap: 1.75, pt: 0.75 }}>
        <TextField
          size="small"
          label="Name"
          value={name}
          error={known || name.trim() === ''}
          helperText={nameProblem(name, known)}
          onChange={(event) => setName(event.target.value)}
          onBlur={rename}
          onKeyDown={(event) => {
            if (event.key === 'Enter') rename();
          }}
          sx={{ gridColumn: '1 / -1' }}
          slotProps={{ htmlInput: { maxLength: 120 } }}
        />
        <Sizes row={row} lengths={lengths} change={change} />
      </Box>
      {(row.kind === 'wall' || row.kind === 'slab') && <Layers row={row} lengths={lengths} change={change} />}
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', mt: 1 }}>
        <Box component="span" sx={{ color: 'text.secondary' }}>
          {users === 0
            ? 'Nothing is made of it.'
            : `${users} ${users === 1 ? 'element changes' : 'elements change'} with it.`}
        </Box>
        <Button variant="text" onClick={drop}>
          Delete
        </Button>
      </Box>
    </Box>
  );
}

function Sizes({ row, lengths, change }: { row: MadeRow; lengths: LengthStyle; change: (row: MadeRow) => void }) {
  const length = (label: string, value: number, set: (metres: number) => void, disabled = false) =>
    disabled ? null : (
      <LengthField
        key={label}
        label={label}
        value={value}
        lengths={lengths}
        least={0.001}
        leastWords="That is too small."
        width="100%"
        change={set}
      />
    );
  if (row.kind === 'glazing') {
    return (
      <>
        <NumberField
          label={'U-value, W/(m\u00b2 K)'}
          value={row.uValue}
          least={0.1}
          most={20}
          change={(uValue) => change({ ...row, uValue: uValue! })}
        />
        <NumberField
          label="g-value"
          value={row.gValue}
          least={0}
          most={1}
          change={(gValue) => change({ ...row, gValue: gValue! })}
        />
        <NumberField
          label="Light transmittance"
          value={row.transmittance}
          least={0}
          most={1}
          change={(transmittance) => change({ ...row, transmittance: transmittance! })}
        />
      </>
    );
  }
  if (row.kind !== 'section')
    return length('Thickness', row.thickness, (thickness) => change({ ...row, thickness }), row.layers.length > 0);
  const { section } = row;
  if (section.shape === 'rectangle')
    return (
      <>
        {length('Width', section.width, (width) => change({ ...row, section: { ...section, width } }))}
        {length('Depth', section.depth, (depth) => change({ ...row, section: { ...section, depth } }))}
        <Walls
          wall={section.wall}
          most={Math.min(section.width, section.depth) / 2}
          lengths={lengths}
          change={(wall) => change({ ...row, section: { ...section, wall } })}
        />
      </>
    );
  if (section.shape === 'circle')
    return (
      <>
        {length('Diameter', section.diameter, (diameter) => change({ ...row, section: { ...section, diameter } }))}
        <Walls
          wall={section.wall}
          most={section.diameter / 2}
          lengths={lengths}
          change={(wall) => change({ ...row, section: { ...section, wall } })}
        />
      </>
    );
  return (
    <Corners
      outline={section.outline}
      lengths={lengths}
      change={(outline) => change({ ...row, section: { ...section, outline } })}
    />
  );
}

interface WallsProps {
  /** Undefined where the section is solid. */
  wall: number | undefined;
  /** Walls are thinner than this, metres. */
  most: number;
  lengths: LengthStyle;
  change: (wall: number | undefined) => void;
}

/** Walls of a section that becomes hollow, as a share of half of it. */
const plainWall = 0.1;

/** Whether a section is hollow, and how thick its walls are. */
function Walls({ wall, most, lengths, change }: WallsProps) {
  return (
    <>
      <FormControlLabel
        control={
          <Checkbox
            size="small"
            checked={wall !== undefined}
            onChange={(event) => change(event.target.checked ? most * plainWall : undefined)}
          />
        }
        label="Hollow"
      />
      {wall !== undefined && (
        <LengthField
          label="Thickness of its walls"
          value={wall}
          lengths={lengths}
          least={0.0005}
          leastWords="That is too thin."
          width="100%"
          change={(thickness) => change(Math.min(thickness, most * 0.99))}
        />
      )}
    </>
  );
}

/** The corners of a section about its position, one a line. */
function Corners({
  outline,
  lengths,
  change,
}: {
  outline: readonly Point[];
  lengths: LengthStyle;
  change: (outline: [number, number][]) => void;
}) {
  const shown = outline.map((corner) => corner.map((value) => formatLength(value, lengths)).join('; ')).join('\n');
  const [text, setText] = useState(shown);
  const lines = text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);
  const corners = lines.map((line) => line.split(/[;\t]/).map((value) => parseLength(value, lengths)));
  const bad = corners.findIndex((corner) => corner.length !== 2 || corner.some((value) => !value.ok));
  let problem;
  if (lines.length < 3) problem = 'A section needs three corners or more.';
  else if (bad >= 0) problem = `Corner ${bad + 1}: expected two lengths with a semicolon between them.`;
  else problem = null;

  const take = () => {
    if (text !== shown && problem === null)
      change(corners.map(([x, y]): [number, number] => [x.ok ? x.value : 0, y.ok ? y.value : 0]));
  };
  return (
    <TextField
      multiline
      size="small"
      label="Corners about its position: across; along"
      value={text}
      error={problem !== null}
      helperText={problem}
      onChange={(event) => setText(event.target.value)}
      onBlur={take}
      sx={{ gridColumn: '1 / -1' }}
      slotProps={{ htmlInput: { className: 'mono' } }}
    />
  );
}

type Layered = MadeRow & { kind: 'wall' | 'slab' };

/** The layers of a construction, from outside or from above; the thickness is their sum. */
function Layers({ row, lengths, change }: { row: Layered; lengths: LengthStyle; change: (row: MadeRow) => void }) {
  const set = (layers: Layered['layers']) =>
    change({
      ...row,
      layers,
      thickness:
        layers.length === 0
          ? row.thickness
          : Number(layers.reduce((sum, { thickness }) => sum + thickness, 0).toFixed(6)),
    });
  const at = (i: number, part: Partial<Layered['layers'][number]>) =>
    set(row.layers.map((layer, k) => (k === i ? { ...layer, ...part } : layer)));
  const uValue = uValueOf(row);
  return (
    <Box sx={{ mt: 1.5 }}>
      {row.layers.map((layer, i) => (
        <Box
          key={i}
          sx={{ display: 'grid', gridTemplateColumns: '1.9fr 1fr 0.85fr 24px', gap: 0.75, alignItems: 'start', pt: 1 }}
        >
          <LayerName name={layer.name} place={i + 1} change={(name) => at(i, { name })} />
          <LengthField
            label="Thick"
            value={layer.thickness}
            lengths={lengths}
            least={0.0001}
            leastWords="Too thin."
            width="100%"
            change={(thickness) => at(i, { thickness })}
          />
          <NumberField
            label="W/(m K)"
            value={layer.conductivity}
            least={0.001}
            most={1000}
            empty
            change={(conductivity) => at(i, { conductivity })}
          />
          <IconButton
            size="small"
            aria-label={`Remove layer ${i + 1}`}
            onClick={() => set(row.layers.filter((_, k) => k !== i))}
            sx={{ mt: 0.5 }}
          >
            <Icon name="close" size={14} />
          </IconButton>
        </Box>
      ))}
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mt: 0.75, flexWrap: 'wrap' }}>
        <Button
          variant="text"
          onClick={() =>
            set([
              ...row.layers,
              { name: '', thickness: row.layers.length === 0 ? row.thickness : 0.1, conductivity: null },
            ])
          }
        >
          Add a layer
        </Button>
        {row.layers.length > 0 && (
          <span className="mono">
            {formatLength(row.thickness, lengths)}
            {uValue !== null && (
              <>
                , U {uValue.toFixed(3)} W/(m{'\u00b2'} K)
              </>
            )}
          </span>
        )}
        {row.layers.length > 0 && uValue === null && (
          <Box component="span" sx={{ color: 'text.secondary' }}>
            U-value: give every conductivity
          </Box>
        )}
      </Box>
    </Box>
  );
}

function LayerName({ name, place, change }: { name: string; place: number; change: (name: string) => void }) {
  const [text, setText] = useState(name);
  const take = () => {
    if (text.trim() !== name) change(text.trim());
  };
  return (
    <TextField
      size="small"
      label={`Layer ${place}`}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') take();
      }}
      slotProps={{ htmlInput: { maxLength: 120 } }}
    />
  );
}

function nameProblem(name: string, known: boolean): string | null {
  if (known) return 'Another entry has this name.';
  return name.trim() === '' ? 'A name is missing.' : null;
}
