'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useState } from 'react';
import { levelsUp } from '@/core/model/levels';
import { pasteClip } from '@/core/tracing/copied';
import { keptClip } from '@/project/clipboard';
import type { WayName } from '@/project/tracing';
import { useCommit, useModel } from '@/project/useSession';
import { Part } from '@/ui/widgets/Heading';
import { wayWords } from './words';

/** What was kept to be pasted: at a point of this level, or at its own place on several levels at once. */
export function PastePart({ way, turn }: { way: WayName | null; turn: (way: WayName) => void }) {
  const model = useModel('level', 'element');
  const commit = useCommit();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const levels = levelsUp(model).filter(({ repeats }) => repeats === null);
  const paste = () => {
    const clip = keptClip() ?? { elements: [], base: [0, 0] as const };
    const ids = levels.map(({ id }) => id).filter((id) => chosen.has(id));
    void commit((now) => pasteClip(now, clip, clip.base, ids, () => crypto.randomUUID()));
  };
  const name = 'change.paste';
  return (
    <Part title="Paste">
      <Box sx={{ mb: 0.75 }}>
        <Button
          size="small"
          variant={way === name ? 'contained' : 'outlined'}
          aria-pressed={way === name}
          onClick={() => turn(name)}
        >
          {wayWords[name]}
        </Button>
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr' }}>
        {levels.map(({ id, name: words }) => (
          <FormControlLabel
            key={id}
            control={
              <Checkbox
                size="small"
                checked={chosen.has(id)}
                onChange={(_, on) =>
                  setChosen((before) => new Set(on ? [...before, id] : [...before].filter((other) => other !== id)))
                }
              />
            }
            label={words}
            sx={{ '& .MuiFormControlLabel-label': { fontSize: 13 }, minHeight: 28, mr: 0 }}
          />
        ))}
      </Box>
      <Button size="small" variant="outlined" disabled={chosen.size === 0} onClick={paste} sx={{ mt: 0.5 }}>
        To these levels, at its place
      </Button>
    </Part>
  );
}
