'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { readKinds, type ReadKind } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import { useReadings } from '@/project/readings';
import { plansBeside, useBeside } from '@/project/useBeside';
import { underlayOf, useUnderlays } from '@/project/underlays';
import { useModel } from '@/project/useSession';
import { useView } from '@/project/view';
import { Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';
import type { PlanOf } from '../DrawingsPart';

/** A plan against the other plans of its level, kind by kind; nothing where it is the only one. */
export function BesidePart({ of: { drawing } }: { of: PlanOf }) {
  const model = useModel('drawing', 'placement', 'level', 'role', 'pick');
  const others = plansBeside(model, drawing);
  const compared = useBeside(model, drawing);
  const [asked, ask] = useState(false);
  const { set } = useView();
  if (others.length === 0) return null;
  const compare = () => {
    ask(true);
    const { entries } = useUnderlays.getState();
    for (const one of [drawing, ...others]) {
      const underlay = underlayOf(entries, one.id);
      if (underlay !== null) useReadings.getState().refresh(model, one, underlay);
    }
  };
  return (
    <Part
      title="Other plans of its level"
      aside={
        <Button variant="text" onClick={compare}>
          {compared.length > 0 ? 'Compare again' : 'Read and compare'}
        </Button>
      }
    >
      {compared.length === 0 && (
        <Box role={asked ? 'status' : undefined} sx={{ color: 'text.secondary' }}>
          {asked ? 'Reading them \u2026' : others.map(({ name }) => name).join(', ')}
        </Box>
      )}
      {compared.map(({ id, name, alike, unlike, onlyThere }) => {
        const count = (kind: ReadKind) => ({
          alike: alike.get(kind) ?? 0,
          unlike: [...unlike.keys()].filter((key) => key.startsWith(`${kind}:`)).length,
          there: onlyThere.filter((one) => one === kind).length,
        });
        const rows = readKinds
          .map((kind) => ({ kind: kinds[kind], ...count(kind) }))
          .filter((row) => row.alike + row.unlike + row.there > 0);
        return (
          <Box key={id} sx={{ mb: 1 }}>
            <Table
              label={`Beside ${name}`}
              heads={[
                name,
                { text: 'alike', figures: true },
                { text: 'otherwise', figures: true },
                { text: 'only there', figures: true },
              ]}
            >
              {rows.map((row) => (
                <tr key={row.kind.kind}>
                  <td>{row.kind.names[1]}</td>
                  <td className="figures">{row.alike}</td>
                  <td className="figures">{row.unlike}</td>
                  <td className="figures">{row.there}</td>
                </tr>
              ))}
            </Table>
            {rows.length === 0 && 'They show nothing in common.'}
            {rows.some(({ unlike: otherwise, there }) => otherwise + there > 0) && (
              <Button
                variant="text"
                onClick={() => set({ station: 'reading', readingPart: 'review', drawingId: drawing.id })}
              >
                See them at Reading
              </Button>
            )}
          </Box>
        );
      })}
    </Part>
  );
}
