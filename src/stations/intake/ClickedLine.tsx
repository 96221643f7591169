'use client';
import { recipeOf, setRecipe } from '@/core/model/drawings';
import { roleId, showLayers } from '@/core/model/roles';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect } from 'react';
import { kindNames } from '@/core/drawing/drawing';
import type { DrawingRow } from '@/core/model/state';
import type { Step } from '@/core/underlay/recipe/steps';
import { outlineOf } from '@/core/underlay/outline';
import { useOverlay } from '@/project/overlay';
import { useSelection } from '@/project/selection';
import { useModel, useCommit } from '@/project/useSession';
import type { Underlay } from '@/project/underlays';
import { Part } from '@/ui/widgets/Heading';

/** What the line is that was clicked on the board, and what can be done with its like. */
export function ClickedLine({ drawing, underlay }: { drawing: DrawingRow; underlay: Underlay | null }) {
  const state = useModel('recipe', 'role');
  const commit = useCommit();
  const { line, select } = useSelection();
  const show = useOverlay((store) => store.show);
  const path =
    line?.drawingId === drawing.id && underlay && line.path < underlay.primitives.layer.length ? line.path : null;
  useEffect(() => {
    if (path === null || underlay === null) return;
    show({
      drawingId: drawing.id,
      origin: underlay.primitives.origin,
      parts: [{ tone: 'evidence', lines: outlineOf(underlay.primitives, [path], []) }],
    });
    return () => show(null);
  }, [path, underlay, drawing.id, show]);
  if (path === null || underlay === null)
    return (
      <Part title="On the board">
        <Box sx={{ color: 'text.secondary' }}>Click a line to see what it is.</Box>
      </Part>
    );
  const { primitives, layers, blocks } = underlay;
  const layer = layers[primitives.layer[path]].name;
  const chain: string[] = [];
  for (let at = primitives.chain[path]; at > 0; at = primitives.chains[at].parent)
    chain.unshift(blocks[primitives.chains[at].block].name);
  const named = chain.filter((name) => !name.startsWith('*'));
  const row = state.role[roleId(drawing.id, layer)];
  const leaveOut = (step: Step, words: string) => {
    select(null);
    void commit((now) =>
      setRecipe(
        drawing.id,
        [...recipeOf(now, drawing.id), { id: crypto.randomUUID(), on: true, step }],
        `Leave out ${words} of ${drawing.name}`,
      ),
    );
  };
  return (
    <Part
      title="On the board"
      aside={
        <Button variant="text" onClick={() => select(null)}>
          Clear
        </Button>
      }
    >
      <Box>
        <b>{kindNames[primitives.kind[path]]}</b> on layer <b>{layer}</b>
        {named.length > 0 && (
          <>
            , in block <b>{named.join(' in ')}</b>
          </>
        )}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mt: 0.75 }}>
        {row && (
          <Button
            variant="outlined"
            onClick={() => {
              select(null);
              void commit(() => showLayers([row], false));
            }}
          >
            Hide the layer
          </Button>
        )}
        <Button variant="outlined" onClick={() => leaveOut({ kind: 'leaveOutLayers', patterns: [layer] }, layer)}>
          Leave the layer out
        </Button>
        {named.length > 0 && (
          <Button
            variant="outlined"
            onClick={() =>
              leaveOut({ kind: 'leaveOutBlocks', patterns: [named[named.length - 1]] }, named[named.length - 1])
            }
          >
            Leave the block out
          </Button>
        )}
      </Box>
    </Part>
  );
}
