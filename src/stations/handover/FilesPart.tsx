'use client';
import { elementKinds } from '@/core/kinds/element';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { ReactNode } from 'react';
import { kinds } from '@/core/kinds/kinds';
import { unitNames } from '@/core/units/length';
import { elementsAt, levelsUp } from '@/core/model/levels';
import { activeDrawings } from '@/project/projectRow';
import { useModel, useSession } from '@/project/useSession';
import { useView } from '@/project/view';
import { Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';
import { FormatsPart } from './FormatsPart';
import { PlansPart } from './PlansPart';

/** One file after another, of the whole model or of a level. */
export function FilesPart() {
  const state = useModel('project', 'level', 'drawing', 'placement', 'element');
  const { id } = useSession();
  const setView = useView((view) => view.set);
  const elements = Object.values(state.element);
  const plans = activeDrawings(state).filter((drawing) => state.placement[drawing.id]?.upright === null);
  const survey = Object.values(state.project)[0]?.survey ?? null;
  const count = (kind: string, level: string | null) =>
    (level === null ? elements : elementsAt(state, level)).filter(
      (element) => element.kind === kind && (level === null || element.levelId !== null),
    ).length;
  return (
    <>
      <Part title="In the model">
        <Table
          label="In the model"
          heads={[
            'kind',
            ...levelsUp(state)
              .reverse()
              .map(({ name }) => ({ text: name, figures: true as const })),
            { text: 'all', figures: true },
          ]}
        >
          {elementKinds
            .filter((kind) => count(kind, null) > 0)
            .map((kind) => (
              <tr key={kind}>
                <td>{kinds[kind].names[1]}</td>
                {levelsUp(state)
                  .reverse()
                  .map((level) => (
                    <td key={level.id} className="figures">
                      {kind === 'grid' ? '' : count(kind, level.id)}
                    </td>
                  ))}
                <td className="figures">{count(kind, null)}</td>
              </tr>
            ))}
        </Table>
      </Part>
      <Part title="Model, as JSON">
        <Box sx={{ color: 'text.secondary', mb: 1 }}>
          Metres and degrees, in the project{'\u2019'}s coordinates, each element with its source. The schema is in the
          program{'\u2019'}s documents.
        </Box>
        <Button variant="contained" href={`/api/projects/${id}/handover/model.json`} download>
          Save model.json
        </Button>
      </Part>
      <FormatsPart project={id} has={(kind) => count(kind, null) > 0} />
      <PlansPart project={id} levels={levelsUp(state)} cut={count('zone', null) + count('slab', null) > 0} />
      <Part title="Model, as DXF over a drawing">
        <Box sx={{ color: 'text.secondary', mb: 1 }}>
          On layers of its own, in the drawing{'\u2019'}s unit and on its origin: it lies exactly over the original.
        </Box>
        {plans.map((drawing) => (
          <FileRow
            key={drawing.id}
            name={
              <>
                {drawing.name}{' '}
                <Box component="span" sx={{ color: 'text.secondary' }}>
                  in {unitNames[state.placement[drawing.id].unit]}
                </Box>
              </>
            }
          >
            {elementsAt(state, drawing.levelId).length > 0 ? (
              <Button variant="outlined" href={`/api/projects/${id}/handover/model.dxf?drawing=${drawing.id}`} download>
                Save DXF
              </Button>
            ) : (
              <Box component="span" sx={{ color: 'text.secondary' }}>
                nothing on its level
              </Box>
            )}
          </FileRow>
        ))}
      </Part>
      <Part title="Model, as DXF in the survey">
        {survey === null ? (
          <Box sx={{ color: 'text.secondary' }}>
            Where the survey has the project is not known yet.{' '}
            <Button variant="text" onClick={() => setView({ station: 'datum', datumPart: 'project' })}>
              Give it at Datum
            </Button>
          </Box>
        ) : (
          <>
            <Box sx={{ color: 'text.secondary', mb: 1 }}>In metres at easting and northing, a file for each level.</Box>
            {levelsUp(state)
              .filter((level) => elementsAt(state, level.id).length > 0)
              .map((level) => (
                <FileRow key={level.id} name={level.name}>
                  <Button
                    variant="outlined"
                    href={`/api/projects/${id}/handover/survey.dxf?level=${level.id}`}
                    download
                    aria-label={`Save ${level.name} in the survey`}
                  >
                    Save DXF
                  </Button>
                </FileRow>
              ))}
          </>
        )}
      </Part>
    </>
  );
}

/** A file by what it is of, with the way to save it. */
const FileRow = ({ name, children }: { name: ReactNode; children: ReactNode }) => (
  <Box
    sx={{
      display: 'flex',
      alignItems: 'center',
      gap: 1,
      borderBottom: '1px solid var(--mui-palette-divider)',
      py: 0.5,
    }}
  >
    <Box sx={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis' }}>{name}</Box>
    {children}
  </Box>
);
