'use client';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { lacksLevel, levelOfTitle, repeatsOf, storeyTitle, takeTitle } from '@/core/model/storeyTitle';
import { formatLength } from '@/core/units/length';
import { activeDrawings } from '@/project/projectRow';
import { useUnderlays } from '@/project/underlays';
import { useCommit, useLengths, useModel } from '@/project/useSession';
import { Note, Part } from '@/ui/widgets/Heading';

const newId = () => crypto.randomUUID();

/** What the titles of drawings say of several storeys, where the levels do not say so yet. */
export function TitlesPart() {
  const state = useModel('level', 'drawing');
  const entries = useUnderlays((store) => store.entries);
  const commit = useCommit();
  const lengths = useLengths();
  const titles = useMemo(
    () =>
      new Map(
        Object.entries(entries).map(([id, { underlay }]) => [id, underlay && storeyTitle(underlay.primitives.texts)]),
      ),
    [entries],
  );
  const said = activeDrawings(state).flatMap((drawing) => {
    const title = titles.get(drawing.id) ?? null;
    if (title === null) return [];
    const [repeats, lacks] = [repeatsOf(state, drawing, title), lacksLevel(state, title)];
    return repeats !== null || lacks ? [{ drawing, title, repeats }] : [];
  });
  if (said.length === 0) return null;
  return (
    <Part title="Titles of drawings">
      {said.map(({ drawing, title, repeats }) => (
        <Note key={drawing.id} kind="look">
          <b>{drawing.name}</b> says {'\u201c'}
          {title.text}
          {'\u201d'}.{' '}
          {repeats === null ? (
            <Button variant="text" onClick={() => void commit((now) => levelOfTitle(now, title, newId))}>
              Add a level at {formatLength(title.from, lengths)}
            </Button>
          ) : (
            <Button variant="text" onClick={() => void commit((now) => takeTitle(now, drawing, title, newId))}>
              Repeat {repeats.level.name} {repeats.count === 1 ? 'once' : `${repeats.count} times`}, each{' '}
              {formatLength(repeats.height, lengths)} high
            </Button>
          )}
        </Note>
      ))}
    </Part>
  );
}
