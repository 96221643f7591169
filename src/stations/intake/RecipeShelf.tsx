'use client';
import { copyRecipe } from '@/core/model/drawings';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { DrawingRow } from '@/core/model/state';
import { portable, type Recipe } from '@/core/underlay/recipe/steps';
import { api } from '@/project/api';
import { activeDrawings } from '@/project/projectRow';
import { useModel, useCommit } from '@/project/useSession';
import { useShelf } from '@/project/useShelf';
import { Part } from '@/ui/widgets/Heading';
import { Icon } from '@/ui/widgets/Icon';
import { count } from './format';

interface Kept {
  id: string;
  name: string;
  steps: Recipe;
}

/** Recipes kept by name for the next job, and copying to the other drawings of this one. */
export function RecipeShelf({
  drawing,
  recipe,
  use,
}: {
  drawing: DrawingRow;
  recipe: Recipe;
  use: (name: string, steps: Recipe) => void;
}) {
  const state = useModel('drawing');
  const commit = useCommit();
  const [name, setName] = useState('');
  const others = activeDrawings(state).filter((other) => other.id !== drawing.id);
  const goes = portable(recipe).length;
  const { kept, act } = useShelf<Kept, 'recipes'>('/api/recipes', 'recipes');
  const keep = () => {
    act(
      api('/api/recipes', { json: { name, steps: recipe } }),
      `Recipe ${name.trim()} is kept, with ${count(goes, 'step')}.`,
    );
    setName('');
  };
  return (
    <Part title="Other drawings and jobs">
      {others.length > 0 && goes > 0 && (
        <Button
          variant="outlined"
          sx={{ mb: 1 }}
          onClick={() => void commit((now) => copyRecipe(now, drawing, others, () => crypto.randomUUID()))}
        >
          Copy to {others.length === 1 ? others[0].name : `the other ${others.length} drawings`}
        </Button>
      )}
      {goes > 0 && (
        <Box
          component="form"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim()) keep();
          }}
          sx={{ display: 'flex', gap: 1, mb: 1 }}
        >
          <TextField
            size="small"
            placeholder="Name of the recipe"
            value={name}
            onChange={(event) => setName(event.target.value)}
            slotProps={{ htmlInput: { 'aria-label': 'Name of the recipe', maxLength: 120 } }}
            sx={{ flex: 1 }}
          />
          <Button type="submit" variant="outlined" disabled={name.trim() === ''}>
            {kept.some((other) => other.name === name.trim()) ? 'Replace' : 'Save'}
          </Button>
        </Box>
      )}
      {kept.length === 0 && goes === 0 && (
        <Box sx={{ color: 'text.secondary' }}>A recipe with steps can be kept here for the next job.</Box>
      )}
      <Box component="ul" aria-label="Kept recipes" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {kept.map((entry) => (
          <Box
            component="li"
            key={entry.id}
            sx={{ display: 'flex', alignItems: 'center', gap: 1, borderBottom: '1px solid var(--mui-palette-divider)' }}
          >
            <Box sx={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis' }}>
              {entry.name}{' '}
              <Box component="span" sx={{ color: 'text.secondary' }}>
                {count(entry.steps.length, 'step')}
              </Box>
            </Box>
            <Button variant="text" aria-label={`Use recipe ${entry.name}`} onClick={() => use(entry.name, entry.steps)}>
              Use
            </Button>
            <IconButton
              size="small"
              aria-label={`Forget recipe ${entry.name}`}
              onClick={() => {
                if (window.confirm(`Forget the recipe ${entry.name}? Drawings that use its steps keep them.`))
                  act(api(`/api/recipes/${entry.id}`, { method: 'DELETE' }), `Recipe ${entry.name} is forgotten.`);
              }}
            >
              <Icon name="close" size={14} />
            </IconButton>
          </Box>
        ))}
      </Box>
    </Part>
  );
}
