'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState, type KeyboardEvent, type ReactNode } from 'react';
import { actNames, acts, keyOf, keyRefusal, pressed, shownKey, useKeys, type ActName } from '@/project/keys';
import { Note, Part } from '@/ui/widgets/Heading';

/** Keys that stay as they are. */
const fixed: [keys: string, words: string][] = [
  ['0 to 9', 'Type the next point'],
  ['Enter', 'Take what is typed; end a chain'],
  ['Escape', 'One step back'],
  ['Shift', 'Lock the direction; with a drag, select by a box'],
  ['Alt', 'Tear off what is joined; a box takes what it touches'],
  ['Delete', 'Delete what is selected'],
  ['Arrows, + and \u2212, Home', 'Move the view or turn the model, come nearer or go further, show all'],
];

const groups = [
  { where: 'board', title: 'On the board', asks: 'press a letter' },
  { where: 'anywhere', title: 'Anywhere', asks: 'press keys' },
] as const;

/** All keys; those of the program can be given to other acts. */
export function KeysPage() {
  const { choose, reset, chosen } = useKeys();
  const [asking, setAsking] = useState<ActName | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const take = (name: ActName, event: KeyboardEvent) => {
    // Keys that only hold others down are waited with.
    if (['Control', 'Shift', 'Alt', 'Meta', 'Tab'].includes(event.key)) return;
    if (event.key === 'Enter' || event.key === ' ') return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === 'Escape') {
      setAsking(null);
      return;
    }
    const key = pressed(event.nativeEvent);
    const refusal = keyRefusal(name, key);
    setProblem(refusal);
    if (refusal !== null) return;
    choose(name, key);
    setAsking(null);
  };
  return (
    <>
      {problem !== null && <Note kind="wrong">{problem}</Note>}
      {groups.map(({ where, title, asks }, i) => (
        <Part
          key={where}
          title={title}
          aside={
            i === 0 &&
            Object.keys(chosen).length > 0 && (
              <Button size="small" variant="text" onClick={reset}>
                As they were
              </Button>
            )
          }
        >
          {actNames
            .filter((name) => acts[name].where === where)
            .map((name) => (
              <Line key={name} words={acts[name].words}>
                <Button
                  size="small"
                  variant={asking === name ? 'contained' : 'outlined'}
                  aria-label={`${acts[name].words}: ${asking === name ? asks : `key ${shownKey(keyOf(name))}`}`}
                  onClick={() => setAsking(asking === name ? null : name)}
                  onKeyDown={(event) => {
                    if (asking === name) take(name, event);
                  }}
                >
                  <span className="mono">{asking === name ? asks : shownKey(keyOf(name))}</span>
                </Button>
              </Line>
            ))}
        </Part>
      ))}
      <Part title="Always so">
        {fixed.map(([keys, words]) => (
          <Line key={keys} words={words}>
            <Box component="span" className="mono" sx={{ fontSize: 12, textAlign: 'right' }}>
              {keys}
            </Box>
          </Line>
        ))}
      </Part>
    </>
  );
}

function Line({ words, children }: { words: string; children: ReactNode }) {
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
