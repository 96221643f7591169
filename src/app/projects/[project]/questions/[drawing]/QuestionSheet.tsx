'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import { questionKinds, type Question, type QuestionKind, type Questions } from '@/core/comparison/questions';
import type { Placement } from '@/core/datum/placement';
import type { IntakeFile } from '@/core/handover/intake/writeIntake';
import { counted } from '@/core/model/counted';
import type { DrawingRow } from '@/core/model/state';
import { api } from '@/project/api';
import { openProject } from '@/project/openProject';
import { activeDrawings, projectRowOf } from '@/project/projectRow';
import { readingOrder } from '@/project/readings';
import type { Session } from '@/project/session';
import { closeUnderlays, markedUpIn, openedUnderlay, questionsIn, type ReadingOrder } from '@/project/underlays';
import { saveText } from '@/ui/widgets/saveFile';
import { Table } from '@/ui/widgets/Table';
import { Gone } from '../../Gone';
import { Chapter } from '../../report/Chapter';
import { Sheet } from '../../report/Sheet';

/** A drawing with what there is to ask about it. */
interface Asked {
  session: Session;
  drawing: DrawingRow;
  order: ReadingOrder;
  questions: Questions;
  intake: IntakeFile;
}

const titles: Record<QuestionKind, string> = {
  gap: 'Ends that do not meet',
  double: 'Lines on lines',
  askew: 'Lines askew',
  dimension: 'Dimensions that say something else',
};
const none: Record<QuestionKind, string> = {
  gap: 'All ends of lines meet, or lie further apart than 50 mm.',
  double: 'No line lies on another of its layer.',
  askew: 'No line lies near a main direction without lying in it.',
  dimension: 'Every dimension says what is drawn.',
};

async function askAbout(projectId: string, drawingId: string): Promise<Asked> {
  const session = await openProject(projectId);
  const { model } = session;
  const drawing = activeDrawings(model).find(({ id }) => id === drawingId);
  if (drawing === undefined) throw new Error('There is no such drawing in this project.');
  const [underlay, intake] = await Promise.all([
    openedUnderlay(projectId, model, drawing),
    api<IntakeFile>(`/api/projects/${projectId}/files/${drawing.fileId}/intake.json`),
  ]);
  const order = readingOrder(model, drawingId, underlay, model.placement[drawingId] as Placement);
  return { session, drawing, order, questions: await questionsIn(drawingId, order), intake };
}

/** What there is to ask the author of a drawing before anything is built on it: a page, and a marked-up DXF. */
export function QuestionSheet({ projectId, drawingId }: { projectId: string; drawingId: string }) {
  const [asked, setAsked] = useState<Asked | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let here = true;
    askAbout(projectId, drawingId).then(
      (found) => {
        if (here) setAsked(found);
      },
      (error: unknown) => {
        if (here) setProblem(error instanceof Error ? error.message : String(error));
      },
    );
    return () => {
      here = false;
      closeUnderlays();
    };
  }, [projectId, drawingId]);
  if (problem !== null) return <Gone message={problem} />;
  if (asked === null)
    return (
      <Box role="status" sx={{ p: 4 }}>
        Looking at the drawing &hellip;
      </Box>
    );
  return <Questionnaire asked={asked} tellProblem={setProblem} />;
}

function Questionnaire({ asked, tellProblem }: { asked: Asked; tellProblem: (problem: string) => void }) {
  const { session, drawing, order, questions, intake } = asked;
  const total = questionKinds.reduce((sum, kind) => sum + questions.counts[kind], 0) + intake.references.length;
  const save = () => {
    const name = `${drawing.name.replace(/\.[^.]*$/, '')}-questions.dxf`;
    markedUpIn(drawing.id, order).then(
      (text) => saveText(name, text, 'image/vnd.dxf'),
      (error: Error) => tellProblem(error.message),
    );
  };
  return (
    <Sheet
      project={session.id}
      title={`${drawing.name}: questions to its author`}
      about={
        <>
          {projectRowOf(session.model).name}. {drawing.fileName}, revision {drawing.revision}:{' '}
          {total === 0 ? 'nothing to ask' : counted(total, 'question')}. Places are in the drawing&rsquo;s own
          coordinates, in {order.placement.unit}; numbers are those in the marked-up drawing.
        </>
      }
      acts={
        <Button variant="outlined" onClick={save}>
          Marked-up DXF
        </Button>
      }
    >
      <Chapter title={`Files that are missing: ${intake.references.length}`}>
        {intake.references.length === 0 && 'It points at no other file.'}
        {intake.references.length > 0 && (
          <Table label="Missing files" heads={['what', 'name', 'path']}>
            {intake.references.map(({ kind, name, path }, i) => (
              <tr key={i}>
                <td>{kind}</td>
                <td>{name}</td>
                <td style={{ overflowWrap: 'anywhere' }}>{path}</td>
              </tr>
            ))}
          </Table>
        )}
      </Chapter>
      {questionKinds.map((kind) => (
        <Kind key={kind} kind={kind} questions={questions} />
      ))}
    </Sheet>
  );
}

function Kind({ kind, questions: { asked, counts } }: { kind: QuestionKind; questions: Questions }) {
  const own = asked.flatMap((question, i) => (question.kind === kind ? [{ question, number: i + 1 }] : []));
  return (
    <Chapter title={`${titles[kind]}: ${counts[kind]}`}>
      {own.length === 0 && none[kind]}
      {own.length > 0 && (
        <Table label={titles[kind]} heads={[{ text: 'no.', figures: true }, 'place', 'layer', 'handle', 'question']}>
          {own.map(({ question, number }) => (
            <tr key={number}>
              <td className="figures">{number}</td>
              <td className="mono" style={{ whiteSpace: 'nowrap' }}>
                {placeOf(question)}
              </td>
              <td>{question.layer}</td>
              <td className="mono">{question.handle}</td>
              <td>{question.words}</td>
            </tr>
          ))}
        </Table>
      )}
      {counts[kind] > own.length && <Box>and {counts[kind] - own.length} more of this kind</Box>}
    </Chapter>
  );
}

const placeOf = ({ at: [x, y] }: Question): string =>
  [x, y].map((value) => String(Number(value.toFixed(2)))).join(', ');
