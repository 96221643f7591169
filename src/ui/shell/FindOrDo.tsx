'use client';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import { useEffect, useRef, useState } from 'react';

/** Something that can be done, by its words. */
export interface Action {
  words: string;
  group: string;
  run: () => void;
}

/**
 * One box that finds and does everything by keyboard.
 * @param actions what there is to do, asked for when it is opened
 */
export function FindOrDo({ actions }: { actions: () => Action[] }) {
  const input = useRef<HTMLInputElement>(null);
  const [typed, setTyped] = useState('');
  const [found, setFound] = useState<Action[]>([]);
  useEffect(() => {
    const focus = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key === ';') {
        event.preventDefault();
        input.current?.focus();
      }
    };
    window.addEventListener('keydown', focus);
    return () => window.removeEventListener('keydown', focus);
  }, []);
  return (
    <Autocomplete
      options={found}
      onOpen={() => setFound(actions())}
      groupBy={(action) => action.group}
      getOptionLabel={(action) => action.words}
      value={null}
      blurOnSelect
      clearOnBlur
      autoHighlight
      openOnFocus
      forcePopupIcon={false}
      getOptionKey={(action) => `${action.group}/${action.words}`}
      inputValue={typed}
      onInputChange={(_, value, reason) => setTyped(reason === 'reset' ? '' : value)}
      filterOptions={(options, { inputValue }) => {
        const words = inputValue.toLowerCase().split(/\s+/).filter(Boolean);
        return options
          .filter((option) => words.every((word) => `${option.group} ${option.words}`.toLowerCase().includes(word)))
          .slice(0, 60);
      }}
      onChange={(_, action) => {
        action?.run();
        setTyped('');
      }}
      noOptionsText="Nothing of that name"
      renderInput={(params) => (
        <TextField
          {...params}
          inputRef={input}
          size="small"
          placeholder="Find or do  (Ctrl ;)"
          slotProps={{ ...params.slotProps, htmlInput: { ...params.slotProps.htmlInput, 'aria-label': 'Find or do' } }}
          sx={{
            '& .MuiOutlinedInput-root': {
              borderRadius: 99,
              background: 'var(--mui-palette-zf-paper)',
              py: '0 !important',
              height: 30,
            },
          }}
        />
      )}
    />
  );
}
