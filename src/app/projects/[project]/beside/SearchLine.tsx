'use client';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import InputBase from '@mui/material/InputBase';
import { useEffect, useMemo, useRef, useState } from 'react';
import { findTexts, wordsOf } from '@/core/underlay/findTexts';
import { textBox } from '@/core/underlay/textBox';
import type { BoardDrawing } from '@/board/scene';
import { Icon } from '@/ui/widgets/Icon';
import { headStyle } from './styles';
import type { Target } from './target';

/** Texts found beyond this many are not counted one by one. */
const mostFound = 500;

interface SearchProps {
  shown: BoardDrawing | null;
  go: (target: Target) => void;
  /** What the view was opened for. */
  begun: string;
}

/** Finds texts of the drawing; Enter goes to the next one. */
export function SearchLine({ shown, go, begun }: SearchProps) {
  const [typed, setTyped] = useState(begun);
  const [at, setAt] = useState(-1);
  const found = useMemo(
    () => (shown === null ? [] : findTexts(shown.underlay.primitives, wordsOf(typed), mostFound)),
    [shown, typed],
  );
  const step = (by: number) => {
    if (shown === null || found.length === 0) return;
    const next = at === -1 && by < 0 ? found.length - 1 : (at + by + found.length) % found.length;
    setAt(next);
    const text = shown.underlay.primitives.texts[found[next]];
    go({ drawingId: shown.id, corners: [...textBox(text)], height: text.height });
  };
  // What the view was opened for is looked at once its drawing is there.
  const opened = useRef(begun === '');
  useEffect(() => {
    if (opened.current || found.length === 0) return;
    opened.current = true;
    step(1);
  });
  const count = `${at + 1} of ${found.length === mostFound ? `${mostFound} or more` : found.length}`;
  return (
    <Box sx={{ ...headStyle, minHeight: 30 }}>
      <InputBase
        value={typed}
        placeholder="Find a text in this drawing"
        inputProps={{ 'aria-label': 'Find a text in this drawing' }}
        onChange={(event) => {
          setTyped(event.target.value);
          setAt(-1);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') step(event.shiftKey ? -1 : 1);
        }}
        sx={{ flex: 1, fontSize: 13 }}
      />
      {typed.trim() !== '' && (
        <Box role="status" className="mono" sx={{ color: 'text.secondary', fontSize: 12 }}>
          {found.length === 0 ? 'none' : count}
        </Box>
      )}
      <IconButton aria-label="The text before" disabled={found.length === 0} onClick={() => step(-1)}>
        <Icon name="before" />
      </IconButton>
      <IconButton aria-label="The next text" disabled={found.length === 0} onClick={() => step(1)}>
        <Icon name="next" />
      </IconButton>
    </Box>
  );
}
