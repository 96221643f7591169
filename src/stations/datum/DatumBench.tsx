'use client';
import { useModel } from '@/project/useSession';
import { useDrawing } from '@/project/useDrawing';
import { useView, type DatumPart } from '@/project/view';
import { DrawingChoice } from '@/ui/widgets/DrawingChoice';
import { BenchHead } from '@/ui/widgets/Heading';
import { NoDrawing } from '@/ui/widgets/NoDrawing';
import { TabLine } from '@/ui/widgets/TabLine';
import { DimensionsPart } from './DimensionsPart';
import { HeightsPart } from './HeightsPart';
import { KnownLengthPart } from './KnownLengthPart';
import { LevelsPart } from './LevelsPart';
import { MeasurePart } from './MeasurePart';
import { OriginPart } from './OriginPart';
import { PlanePart } from './PlanePart';
import { ProjectPart } from './ProjectPart';
import { RegistrationPart } from './RegistrationPart';
import { TurningPart } from './TurningPart';
import { UnitPart } from './UnitPart';
import { useReplace } from './useReplace';

const parts: { name: DatumPart; word: string }[] = [
  { name: 'unit', word: 'Unit' },
  { name: 'place', word: 'Place' },
  { name: 'fit', word: 'Fit' },
  { name: 'levels', word: 'Levels' },
  { name: 'measure', word: 'Measure' },
  { name: 'project', word: 'Project' },
];

/** Unit, place and level of each drawing; levels, measuring, and how the project is shown. */
export function DatumBench() {
  const subject = useDrawing();
  const { datumPart, set } = useView();
  const levels = useModel('level').count('level');
  const { replace, question } = useReplace();
  if (!subject) return <NoDrawing title="Datum" />;
  const { drawing, placement, underlay } = subject;
  const about = { drawing, placement, underlay, replace };
  const upright = placement.upright !== null;
  return (
    <>
      <BenchHead
        title="Datum"
        about={
          datumPart === 'levels' ? (
            `${levels} ${levels === 1 ? 'level' : 'levels'}`
          ) : (
            <DrawingChoice drawingId={drawing.id} />
          )
        }
      />
      <TabLine label="Parts of Datum" tabs={parts} present={datumPart} turn={(name) => set({ datumPart: name })} />
      {datumPart === 'unit' && (
        <>
          <UnitPart key={`unit ${drawing.id}`} {...about} />
          <KnownLengthPart key={`known ${drawing.id}`} {...about} />
        </>
      )}
      {datumPart === 'place' && (
        <>
          <PlanePart key={`plane ${drawing.id}`} {...about} />
          {upright && underlay && (
            <HeightsPart key={`heights ${drawing.id}`} drawing={drawing} placement={placement} underlay={underlay} />
          )}
          {!upright && (
            <>
              <OriginPart key={`origin ${drawing.id}`} {...about} />
              <TurningPart key={`turning ${drawing.id}`} {...about} />
            </>
          )}
        </>
      )}
      {datumPart === 'fit' && <RegistrationPart key={drawing.id} {...about} />}
      {datumPart === 'levels' && <LevelsPart />}
      {datumPart === 'measure' && (
        <>
          <MeasurePart placement={placement} />
          {underlay && <DimensionsPart key={drawing.id} drawing={drawing} placement={placement} underlay={underlay} />}
        </>
      )}
      {datumPart === 'project' && <ProjectPart drawing={drawing} placement={placement} />}
      {question}
    </>
  );
}
