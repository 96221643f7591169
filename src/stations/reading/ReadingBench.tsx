'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useDeferredValue, useMemo } from 'react';
import { hangsOn } from '@/core/model/levels';
import { sourceChanges } from '@/core/decisions/revise';
import { kinds } from '@/core/kinds/kinds';
import { activeDrawings } from '@/project/projectRow';
import { useMoment } from '@/project/useSession';
import { useReadings, verdictOf, type DrawingReading } from '@/project/readings';
import { stopReading } from '@/project/underlays';
import { useDrawing } from '@/project/useDrawing';
import { useView, type ReadingPart } from '@/project/view';
import { DrawingChoice } from '@/ui/widgets/DrawingChoice';
import { BenchHead, Note } from '@/ui/widgets/Heading';
import { NoDrawing } from '@/ui/widgets/NoDrawing';
import { TabLine } from '@/ui/widgets/TabLine';
import { ChangesPart } from './ChangesPart';
import { LibraryPart } from './LibraryPart';
import { NumberingPart } from './NumberingPart';
import { ReviewPart } from './ReviewPart';
import { SettingsPart } from './SettingsPart';

const parts: { name: ReadingPart; word: string }[] = [
  { name: 'review', word: 'Review' },
  { name: 'library', word: 'Library' },
  { name: 'numbering', word: 'Numbering' },
  { name: 'settings', word: 'Taken for granted' },
];

/** What was read, to be judged; the library of sizes, the numbers of grid lines, and what reading takes for granted. */
export function ReadingBench() {
  const subject = useDrawing();
  const moment = useMoment('level', 'drawing', 'placement', 'decision', 'element');
  const state = moment.model;
  const { readings, again } = useReadings();
  const { readingPart, levelId, set } = useView();
  const reading = subject ? readings[subject.drawing.id] : undefined;
  // What is decided is shown first: all decisions are compared with what is read now in a rendering after it.
  const later = useDeferredValue(moment);
  const changes = useMemo(
    () =>
      subject && reading?.result && reading.result.left.length === 0 && !reading.running
        ? sourceChanges(later.model, subject.drawing, reading.result.candidates)
        : [],
    [later, subject, reading],
  );
  if (!subject) return <NoDrawing title="Reading" />;
  const { drawing, placement, underlay } = subject;
  const level = levelId === null ? undefined : state.level[levelId];
  const elsewhere =
    level !== undefined &&
    placement.upright === null &&
    drawing.levelId !== level.id &&
    !drawing.alsoOn.includes(level.id) &&
    level.repeats !== drawing.levelId;
  const there = elsewhere
    ? activeDrawings(state).find(
        (other) => hangsOn(state, other, level.id) && state.placement[other.id]?.upright === null,
      )
    : undefined;
  const fresh =
    drawing.revision > 1
      ? (reading?.result?.candidates ?? []).filter(({ key }) => verdictOf(state, drawing.id, key) === 'open').length
      : 0;
  return (
    <>
      <BenchHead title="Reading" about={<DrawingChoice drawingId={drawing.id} />} />
      <TabLine
        label="Parts of Reading"
        tabs={parts}
        present={readingPart}
        turn={(name) => set({ readingPart: name })}
      />
      {readingPart === 'review' && (
        <>
          {placement.upright !== null && (
            <Note kind="plain">
              {drawing.name} stands upright; elements are read from plans. Storey heights are read from it at Datum.{' '}
              <Button variant="text" onClick={() => set({ station: 'datum', datumPart: 'place' })}>
                Go to Datum
              </Button>
            </Note>
          )}
          {drawing.levelId === null && placement.upright === null && (
            <Note kind="look">
              {drawing.name} hangs on no level; what is accepted from it would belong to none.{' '}
              <Button variant="text" onClick={() => set({ station: 'datum', datumPart: 'place' })}>
                Give it a level
              </Button>
            </Note>
          )}
          {elsewhere && (
            <Note kind="plain">
              {there
                ? `${drawing.name} does not hang on ${level.name}; ${there.name} does.`
                : `No plan hangs on ${level.name}; what you see is ${drawing.name} on ` +
                  `${state.level[drawing.levelId ?? '']?.name ?? 'no level'}.`}{' '}
              <Button variant="text" onClick={() => set(there ? { drawingId: there.id } : { station: 'intake' })}>
                {there ? `Take ${there.name}` : 'Bring one in'}
              </Button>
            </Note>
          )}
          {!placement.confirmed && (
            <Note kind="look">
              The unit is not confirmed yet; sizes follow from it.{' '}
              <Button variant="text" onClick={() => set({ station: 'datum', datumPart: 'unit' })}>
                Go to Datum
              </Button>
            </Note>
          )}
          {reading?.problem && <Note kind="wrong">{reading.problem}</Note>}
          {reading && (
            <Progress reading={reading} stop={() => void stopReading(drawing.id)} again={() => again(drawing.id)} />
          )}
          {changes.length > 0 && (
            <ChangesPart
              drawing={drawing}
              changes={changes}
              candidates={reading?.result?.candidates ?? []}
              fresh={fresh}
            />
          )}
          {placement.upright === null && (
            <ReviewPart key={drawing.id} drawing={drawing} underlay={underlay} reading={reading} />
          )}
        </>
      )}
      {readingPart === 'library' && <LibraryPart />}
      {readingPart === 'numbering' && <NumberingPart />}
      {readingPart === 'settings' && <SettingsPart unit={placement.unit} />}
    </>
  );
}

/** Where a reading under way is, with a way to stop it; or what a stopped one had not come to. */
function Progress({
  reading: { running, result },
  stop,
  again,
}: {
  reading: DrawingReading;
  stop: () => void;
  again: () => void;
}) {
  if (running !== null) {
    return (
      <Box
        role="status"
        sx={{ display: 'grid', gridTemplateColumns: '1fr auto', alignItems: 'center', columnGap: 1, mb: 1.5 }}
      >
        <span>
          Reading: {running.doing || 'the last'}, <span className="mono">{running.done}</span> of{' '}
          <span className="mono">{running.of}</span>
        </span>
        <Button variant="text" onClick={stop}>
          Stop with what it has
        </Button>
        <LinearProgress
          variant="determinate"
          value={(100 * running.done) / running.of}
          sx={{ gridColumn: '1 / -1' }}
          aria-label="How far the reading is"
        />
      </Box>
    );
  }
  if (!result || result.left.length === 0) return null;
  return (
    <Note kind="look">
      Reading was stopped: {result.left.map((kind) => kinds[kind].names[1]).join(', ')} are not read.{' '}
      <Button variant="text" onClick={again}>
        Read all
      </Button>
    </Note>
  );
}
