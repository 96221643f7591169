'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { boardKeyNames, boardKeys, keyOf, keyRefusal, useKeys, type BoardKey } from '@/project/keys';
import { Note, Part } from '@/ui/widgets/Heading';

/** Keys that stay as they are. */
const fixed: [keys: string, words: string][] = [
  ['0 to 9', 'Type the next point'],
  ['Enter', 'Take what is typed; end a chain'],
  ['Escape', 'One step back'],
  ['Shift', 'Lock the direction; with a drag, select by a box'],
  ['Alt', 'Tear off what is joined; a box takes what it touches'],
  ['Delete', 'Delete what is selected'],
  ['Arrows, + and \u2212, Home', 'Move the view, come nearer or go further, show all'],
];

/** The keys of the board; letters can be given to other acts. */
export function KeysPart() {
  const { choose, reset, chosen } = useKeys();
  const [asking, setAsking] = useState<BoardKey | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const take = (name: BoardKey, key: string) => {
    const refusal = keyRefusal(name, key);
    setProblem(refusal);
    if (refusal !== null) return;
    choose(name, key);
    setAsking(null);
  };
  return (
    <Part
      title="Keys of the board"
      aside={
        Object.keys(chosen).length > 0 && (
          <Button size="small" variant="text" onClick={reset}>
            As they were
          </Button>
        )
      }
    >
      {problem !== null && <Note kind="wrong">{problem}</Note>}
      {boardKeyNames.map((name) => (
        <Line key={name} words={boardKeys[name].words}>
          <Button
            size="small"
            variant={asking === name ? 'contained' : 'outlined'}
            aria-label={`${boardKeys[name].words}: ${asking === name ? 'press a letter' : `key ${keyOf(name)}`}`}
            onClick={() => setAsking(asking === name ? null : name)}
            onKeyDown={(event) => {
              if (asking !== name || event.key === 'Enter' || event.key === ' ' || event.key === 'Tab') return;
              event.preventDefault();
              event.stopPropagation();
              if (event.key === 'Escape') setAsking(null);
              else take(name, event.key);
            }}
          >
            <span className="mono">{asking === name ? 'press a letter' : keyOf(name).toUpperCase()}</span>
          </Button>
        </Line>
      ))}
      {fixed.map(([keys, words]) => (
        <Line key={keys} words={words}>
          <Box component="span" className="mono" sx={{ fontSize: 12, textAlign: 'right' }}>
            {keys}
          </Box>
        </Line>
      ))}
    </Part>
  );
}

function Line({ words, children }: { words: string; children: React.ReactNode }) {
  return (
    <Box
      sx={{
        display: 'flex',
        justifyContent: 'space-between',
        alignItems: 'center',
        gap: 2,
        minHeight: 34,
        borderBottom: '1px solid var(--mui-palette-divider)',
      }}
    >
      <span>{words}</span>
      {children}
    </Box>
  );
}
