'use client';
import Autocomplete from '@mui/material/Autocomplete';
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import { useEffect, useRef, useState } from 'react';
import { keyOf, shownKey, useKeys } from '@/project/keys';

/** Something that was found or can be done, by its words. */
export interface Found {
  group: string;
  words: string;
  /** What it is or does, in a sentence. */
  about?: string;
  /** The key that does it, as it is pressed. */
  key?: string;
  /** A letter that does it on the board. */
  letter?: string;
  run: () => void;
}

/** The box says that it is to have the keyboard. */
export const findEvent = 'zircon-find';

/**
 * One box that finds and does everything by keyboard.
 * @param begin makes what there is to do ready, when it is opened
 * @param find what is offered for what is typed, the best first
 */
export function FindOrDo({ begin, find }: { begin: () => void; find: (typed: string) => Found[] }) {
  const input = useRef<HTMLInputElement>(null);
  const [typed, setTyped] = useState('');
  const [found, setFound] = useState<Found[]>([]);
  // Another key may have been chosen.
  useKeys();
  useEffect(() => {
    const focus = () => input.current?.focus();
    window.addEventListener(findEvent, focus);
    return () => window.removeEventListener(findEvent, focus);
  }, []);
  return (
    <Autocomplete
      options={found}
      onOpen={() => {
        begin();
        setFound(find(typed));
      }}
      groupBy={({ group }) => group}
      getOptionLabel={({ words }) => words}
      value={null}
      blurOnSelect
      clearOnBlur
      autoHighlight
      openOnFocus
      forcePopupIcon={false}
      inputValue={typed}
      onInputChange={(_, value, reason) => {
        const next = reason === 'reset' ? '' : value;
        setTyped(next);
        if (reason === 'input') setFound(find(next));
      }}
      filterOptions={(options) => options}
      isOptionEqualToValue={() => false}
      onChange={(_, action) => {
        action?.run();
        setTyped('');
      }}
      noOptionsText="Nothing of that name"
      renderOption={({ key: _, ...props }, option, { index }) => (
        <Option key={`${option.group} ${option.words} ${index}`} props={props} found={option} />
      )}
      slotProps={{ popper: { style: { width: 460 }, placement: 'bottom' }, listbox: { style: { maxHeight: '60vh' } } }}
      renderInput={(params) => (
        <TextField
          {...params}
          inputRef={input}
          size="small"
          placeholder={`Find or do  (${shownKey(keyOf('find'))})`}
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

function Option({ props, found }: { props: React.HTMLAttributes<HTMLLIElement>; found: Found }) {
  const { words, about, key, letter } = found;
  const shown = key ?? letter;
  return (
    <Box component="li" {...props} sx={{ display: 'flex', gap: 1.5, alignItems: 'baseline', py: '3px !important' }}>
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Box sx={{ overflowWrap: 'anywhere' }}>{words}</Box>
        {about !== undefined && <Box sx={{ color: 'text.secondary', fontSize: 12 }}>{about}</Box>}
      </Box>
      {shown !== undefined && shown !== '' && (
        <Box component="kbd" className="mono" sx={{ fontSize: 12, color: 'text.secondary', whiteSpace: 'nowrap' }}>
          {shownKey(shown)}
        </Box>
      )}
    </Box>
  );
}
