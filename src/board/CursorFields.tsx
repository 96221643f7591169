'use client';
import Box from '@mui/material/Box';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { flushSync } from 'react-dom';
import type { Result } from '@/core/result';
import { formatAngle, parseAngle } from '@/core/units/angle';
import { formatLength, type LengthStyle } from '@/core/units/length';
import { parseTyped } from '@/core/units/typed';
import { keyOf } from '@/project/keys';
import type { TypedField } from './tools/trace/typedPoint';
import { hearTyping } from './typing';

/** What the fields do to the tool of the moment. */
interface TypingTool {
  type(name: string, value: number | null): void;
  takeTyped(): void;
  turnForm(): void;
}

interface Props {
  board: () => TypingTool | null;
  lengths: LengthStyle;
  /** Gives the keyboard back to the board. */
  back: () => void;
}

/** How far from the cursor the fields lie, pixels: below the words that are written there. */
const away = { right: 16, below: 46 };

const shown = ({ kind, value }: TypedField, lengths: LengthStyle): string => {
  if (value === null) return '';
  if (kind === 'length') return formatLength(value, lengths);
  return kind === 'angle' ? formatAngle(value) : String(value);
};

function parsed(kind: TypedField['kind'], text: string, lengths: LengthStyle): Result<number> {
  if (kind === 'length') return parseTyped(text, lengths);
  return parseAngle(text);
}

/**
 * The small fields at the cursor: what the next point is, and what it is to be. They follow the pointer without React;
 * digits typed on the board go into the first of them.
 */
export function CursorFields({ board, lengths, back }: Props) {
  const [fields, setFields] = useState<readonly Pick<TypedField, 'name' | 'label' | 'kind'>[]>([]);
  const [turns, setTurns] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const box = useRef<HTMLDivElement>(null);
  const inputs = useRef<(HTMLInputElement | null)[]>([]);
  const names = useRef('');
  const latest = useRef<readonly TypedField[]>([]);

  const take = (i: number, text: string): boolean => {
    const { name, kind } = fields[i];
    const value = text.trim() === '' ? null : parsed(kind, text, lengths);
    setProblem(value === null || value.ok ? null : value.message);
    if (value !== null && !value.ok) return false;
    board()?.type(name, value === null ? null : value.value);
    return true;
  };

  useEffect(() =>
    hearTyping(
      (typing) => {
        // What is being typed stays while the pointer is elsewhere.
        if (typing === null && box.current?.contains(document.activeElement)) return;
        const now = typing?.fields ?? [];
        latest.current = now;
        setTurns(typing?.turns ?? false);
        const key = now.map(({ name, label }) => `${name} ${label}`).join('/');
        if (key !== names.current) {
          names.current = key;
          setFields(now.map(({ name, label, kind }) => ({ name, label, kind })));
        }
        if (typing === null || box.current === null) return;
        place(box.current, typing.at);
        for (const [i, field] of now.entries()) {
          const input = inputs.current[i];
          if (input && document.activeElement !== input) input.value = shown(field, lengths);
        }
      },
      (begun) => {
        // The fields may only just have been told of, and come with the next rendering.
        flushSync(() => undefined);
        const [first] = inputs.current;
        if (!first) return;
        first.focus();
        first.value = begun;
        const [field] = latest.current;
        const value = field && parsed(field.kind, begun, lengths);
        if (value?.ok) board()?.type(field.name, value.value);
      },
    ),
  );

  const press = (i: number, event: KeyboardEvent<HTMLInputElement>): void => {
    if (event.key === 'Enter' && take(i, event.currentTarget.value)) {
      board()?.takeTyped();
      back();
    } else if (event.key === 'Escape') {
      for (const { name } of fields) board()?.type(name, null);
      setProblem(null);
      back();
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };

  return (
    <Box ref={box} hidden={fields.length === 0} role="group" aria-label="At the cursor" sx={boxStyle}>
      <Box sx={{ display: 'flex', gap: 0.75 }}>
        {fields.map(({ name, label }, i) => (
          <Box component="label" key={name} sx={{ fontSize: 11, color: 'text.secondary' }}>
            {label}
            <Box
              component="input"
              ref={(input: HTMLInputElement | null) => {
                inputs.current[i] = input;
                if (input?.value === '' && latest.current[i]) input.value = shown(latest.current[i], lengths);
              }}
              className="mono"
              autoComplete="off"
              onFocus={(event) => event.currentTarget.select()}
              onChange={(event) => take(i, event.currentTarget.value)}
              onKeyDown={(event: KeyboardEvent<HTMLInputElement>) => press(i, event)}
              sx={inputStyle}
            />
          </Box>
        ))}
      </Box>
      {turns && problem === null && (
        <Box sx={{ fontSize: 11, color: 'text.secondary', mt: 0.25 }}>
          {keyOf('form').toUpperCase()}: typed otherwise
        </Box>
      )}
      {problem !== null && (
        <Box role="alert" sx={{ fontSize: 11, color: 'error.main', maxWidth: 220, mt: 0.25 }}>
          {problem}
        </Box>
      )}
    </Box>
  );
}

/** Puts the fields beside the cursor, inside the board. */
function place(box: HTMLElement, [x, y]: readonly [number, number]): void {
  const board = box.offsetParent ?? box.parentElement;
  const [width, height] = [board?.clientWidth ?? 0, board?.clientHeight ?? 0];
  const left = Math.max(4, Math.min(x + away.right, width - box.offsetWidth - 4));
  const below = y + away.below + box.offsetHeight < height ? y + away.below : y - box.offsetHeight - away.right;
  box.style.transform = `translate(${left}px, ${Math.max(4, below)}px)`;
}

const boxStyle = {
  position: 'absolute',
  left: 0,
  top: 0,
  px: 0.75,
  py: 0.5,
  background: 'var(--mui-palette-zf-panel)',
  border: '1px solid var(--mui-palette-divider)',
  borderRadius: '5px',
  boxShadow: '0 2px 8px rgb(0 0 0 / 0.18)',
  pointerEvents: 'none',
} as const;

const inputStyle = {
  display: 'block',
  width: 92,
  px: 0.75,
  py: 0.25,
  fontSize: 13,
  color: 'text.primary',
  background: 'var(--mui-palette-zf-paper)',
  border: '1px solid var(--mui-palette-divider)',
  borderRadius: '3px',
  '&:focus': { outline: '2px solid var(--mui-palette-zf-zircon)' },
} as const;
