'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import {
  belowGround,
  changeLevel,
  insertLevel,
  levelsUp,
  removeLevel,
  repeatStorey,
  structuralTop,
  usesOf,
  type Fate,
} from '@/core/model/levels';
import { follow, makeOwn } from '@/core/model/repeatLevels';
import type { Model } from '@/core/model/model';
import { levelKinds, type LevelKind, type LevelRow } from '@/core/model/state';
import { formatLength, type LengthStyle } from '@/core/units/length';
import { useApply, useModel, useCommit, useLengths } from '@/project/useSession';
import { useView } from '@/project/view';
import { Note, Part } from '@/ui/widgets/Heading';
import { LengthField } from '@/ui/widgets/LengthField';
import { Table } from '@/ui/widgets/Table';
import { TitlesPart } from './TitlesPart';

const kindWords: Record<LevelKind, string> = {
  foundation: 'foundation',
  ground: 'ground',
  floor: 'floor',
  roof: 'roof',
};
const newId = () => crypto.randomUUID();

/** The levels as a table, from the top down, and what can be done to the one in hand. */
export function LevelsPart() {
  const state = useModel('level', 'drawing', 'element');
  const lengths = useLengths();
  const { levelId, set } = useView();
  const [shift, setShift] = useState(true);
  const levels = levelsUp(state).reverse();
  const present = state.level[levelId ?? ''] ?? levels[levels.length - 1];
  return (
    <>
      <Part title="Levels">
        <Table
          label="Levels"
          heads={['level', { text: 'elevation', figures: true }, { text: 'to next', figures: true }, 'kind']}
        >
          {levels.map((level) => (
            <Box
              component="tr"
              key={level.id}
              sx={{ background: level.id === present.id ? 'var(--mui-palette-zf-zirconSoft)' : 'none' }}
            >
              <td>
                <Box
                  component="button"
                  type="button"
                  aria-pressed={level.id === present.id}
                  onClick={() => set({ levelId: level.id })}
                  sx={{
                    all: 'unset',
                    cursor: 'pointer',
                    fontWeight: level.id === present.id ? 600 : 400,
                    '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)' },
                  }}
                >
                  {level.name}
                </Box>
                {(level.repeats !== null || belowGround(level)) && (
                  <Box sx={{ color: 'text.secondary', fontSize: 12 }}>
                    {[
                      ...(level.repeats !== null ? [`repeats ${state.level[level.repeats]?.name}`] : []),
                      ...(belowGround(level) ? ['below ground'] : []),
                    ].join(', ')}
                  </Box>
                )}
              </td>
              <td className="figures">{formatLength(level.elevation, lengths)}</td>
              <td className="figures">{formatLength(level.height, lengths)}</td>
              <td>{kindWords[level.kind]}</td>
            </Box>
          ))}
        </Table>
      </Part>
      <TitlesPart />
      <LevelInHand key={present.id} level={present} state={state} lengths={lengths} shift={shift} setShift={setShift} />
    </>
  );
}

interface InHand {
  level: LevelRow;
  state: Model;
  lengths: LengthStyle;
  shift: boolean;
  setShift: (shift: boolean) => void;
}

function LevelInHand({ level, state, lengths, shift, setShift }: InHand) {
  const commit = useCommit();
  const apply = useApply();
  const setView = useView((view) => view.set);
  const change = (part: Partial<LevelRow>) =>
    commit((now) => changeLevel(now, { ...now.level[level.id], ...part }, shift));
  const insert = (where: 'above' | 'below') => {
    const id = newId();
    if (apply((now) => insertLevel(now, level.id, where, id))) setView({ levelId: id });
  };
  const others = levelsUp(state).filter(({ id, repeats }) => id !== level.id && repeats === null);
  return (
    <>
      <Part title={level.name}>
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: '1fr 1fr',
            columnGap: 1,
            rowGap: 1.75,
            alignItems: 'start',
            pt: 0.75,
          }}
        >
          <NameField level={level} change={(name) => void change({ name })} />
          <Select
            size="small"
            value={level.kind}
            inputProps={{ 'aria-label': 'Kind of level' }}
            onChange={(event) => void change({ kind: event.target.value as LevelKind })}
          >
            {levelKinds.map((kind) => (
              <MenuItem key={kind} value={kind}>
                {kindWords[kind]}
              </MenuItem>
            ))}
          </Select>
          <LengthField
            label="Elevation"
            value={level.elevation}
            lengths={lengths}
            change={(elevation) => void change({ elevation })}
            width="100%"
          />
          <LengthField
            label="Height to next"
            value={level.height}
            lengths={lengths}
            least={0.001}
            leastWords="A height is more than zero."
            change={(height) => void change({ height })}
            width="100%"
          />
          <LengthField
            label="Floor build-up"
            value={level.buildUp}
            lengths={lengths}
            least={0}
            leastWords="A build-up is zero or more."
            change={(buildUp) => void change({ buildUp })}
            width="100%"
          />
          <LengthField
            label="Slab thickness"
            value={level.slab}
            lengths={lengths}
            least={0}
            leastWords="A thickness is zero or more."
            change={(slab) => void change({ slab })}
            width="100%"
          />
        </Box>
        <FormControlLabel
          control={<Switch size="small" checked={shift} onChange={(_, on) => setShift(on)} />}
          label={belowGround(level) ? 'Shift the levels below along' : 'Shift the levels above along'}
          sx={{ m: 0, mt: 1, gap: 0.75, '& .MuiFormControlLabel-label': { fontSize: 13 } }}
        />
        <Box sx={{ color: 'text.secondary', mt: 0.5 }}>
          Finished floor at <span className="mono">{formatLength(level.elevation, lengths)}</span>, the structure
          {'\u2019'}s top at <span className="mono">{formatLength(structuralTop(level), lengths)}</span>
          {level.slab > 0 && (
            <>
              , its underside at{' '}
              <span className="mono">{formatLength(structuralTop(level) - level.slab, lengths)}</span>
            </>
          )}
          .
        </Box>
      </Part>
      <Part title="Add and repeat">
        <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mb: 1.75 }}>
          <Button variant="outlined" onClick={() => insert('above')}>
            Add above
          </Button>
          <Button variant="outlined" onClick={() => insert('below')}>
            Add below
          </Button>
        </Box>
        <Repeat
          level={level}
          lengths={lengths}
          repeat={(count, height) => void commit((now) => repeatStorey(now, level.id, count, height, newId))}
        />
      </Part>
      <Part title="Typical level">
        {level.repeats !== null ? (
          <>
            <Box sx={{ mb: 1 }}>
              It repeats {state.level[level.repeats]?.name}: what is read, drawn and changed there is here too.
            </Box>
            <Button variant="outlined" onClick={() => void commit((now) => makeOwn(now, level.id, newId))}>
              Make it its own
            </Button>
          </>
        ) : (
          <Select
            size="small"
            fullWidth
            displayEmpty
            disabled={others.length === 0}
            value=""
            inputProps={{ 'aria-label': 'Level that it repeats' }}
            renderValue={() => 'its own; let it repeat another'}
            onChange={(event) => void commit((now) => follow(now, level.id, event.target.value))}
          >
            {others.map(({ id, name }) => (
              <MenuItem key={id} value={id}>
                {name}
              </MenuItem>
            ))}
          </Select>
        )}
      </Part>
      <Remove
        level={level}
        state={state}
        remove={(fate) => {
          if (apply((now) => removeLevel(now, level.id, fate, newId))) setView({ levelId: null });
        }}
      />
    </>
  );
}

function NameField({ level, change }: { level: LevelRow; change: (name: string) => void }) {
  const [text, setText] = useState(level.name);
  const take = () => {
    const name = text.trim();
    if (name !== '' && name !== level.name) change(name);
    else setText(level.name);
  };
  return (
    <TextField
      size="small"
      label="Name"
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

/** n further storeys of a height, which follow this one. */
function Repeat({
  level,
  lengths,
  repeat,
}: {
  level: LevelRow;
  lengths: LengthStyle;
  repeat: (count: number, height: number) => void;
}) {
  const [text, setText] = useState('1');
  const [height, setHeight] = useState(level.height);
  const count = /^\d{1,3}$/.test(text.trim()) ? Number(text) : NaN;
  return (
    <Box
      component="form"
      sx={{ display: 'flex', gap: 1, alignItems: 'flex-start', flexWrap: 'wrap' }}
      onSubmit={(event) => {
        event.preventDefault();
        repeat(count, height);
      }}
    >
      <TextField
        size="small"
        label="Storeys"
        value={text}
        error={Number.isNaN(count)}
        helperText={Number.isNaN(count) ? 'A whole number.' : null}
        onChange={(event) => setText(event.target.value)}
        sx={{ width: 84 }}
      />
      <LengthField
        label="Height of each"
        value={height}
        lengths={lengths}
        least={0.001}
        leastWords="A height is more than zero."
        change={setHeight}
      />
      <Button type="submit" variant="outlined" disabled={Number.isNaN(count)}>
        Repeat {level.name}
      </Button>
    </Box>
  );
}

/** Takes a level away; where something hangs on it, the person says what becomes of that. */
function Remove({ level, state, remove }: { level: LevelRow; state: Model; remove: (fate: Fate) => void }) {
  const [asked, setAsked] = useState(false);
  const others = levelsUp(state).filter(({ id }) => id !== level.id);
  const [to, setTo] = useState<string | null>(null);
  const target = others.find(({ id }) => id === to) ?? others[0];
  const uses = usesOf(state, level.id);
  const used = [
    ...(uses.drawings.length > 0
      ? [`${uses.drawings.length} ${uses.drawings.length === 1 ? 'drawing' : 'drawings'}`]
      : []),
    ...(uses.elements > 0 ? [`${uses.elements} ${uses.elements === 1 ? 'element' : 'elements'}`] : []),
  ];
  if (!target) return null;
  return (
    <Part title="Remove">
      {!asked ? (
        <Button
          variant="text"
          color="error"
          onClick={() => (used.length === 0 ? remove({ kind: 'drop' }) : setAsked(true))}
        >
          Delete {level.name}
        </Button>
      ) : (
        <Box role="group" aria-label="What becomes of what hangs on it">
          <Note kind="look">
            On {level.name} hang {used.join(' and ')}.
            {uses.followers.length > 0 && (
              <>
                {' '}
                {uses.followers.map(({ name }) => name).join(', ')} {uses.followers.length === 1 ? 'repeats' : 'repeat'}{' '}
                it and will keep copies.
              </>
            )}
          </Note>
          <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', mb: 1 }}>
            <Button variant="contained" onClick={() => remove({ kind: 'move', to: target.id })}>
              Move them to
            </Button>
            <Select
              size="small"
              value={target.id}
              inputProps={{ 'aria-label': 'Level to move them to' }}
              onChange={(event) => setTo(event.target.value)}
            >
              {others.map(({ id, name }) => (
                <MenuItem key={id} value={id}>
                  {name}
                </MenuItem>
              ))}
            </Select>
          </Box>
          <Box sx={{ display: 'flex', gap: 1 }}>
            <Button variant="outlined" onClick={() => remove({ kind: 'drop' })}>
              {uses.elements > 0 ? 'Its elements go too' : 'They hang on no level'}
            </Button>
            <Button variant="text" onClick={() => setAsked(false)}>
              Cancel
            </Button>
          </Box>
        </Box>
      )}
    </Part>
  );
}
