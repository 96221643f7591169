'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { ElementOf } from '@/core/kinds/element';
import { shippedPhotometries } from '@/core/kinds/luminaire';
import type { Choice, WhatIf } from '@/core/lighting/whatIf';
import { luminairesIn, relit } from '@/core/tracing/making/relit';
import { askWhatIf, useLight } from '@/project/light';
import { useCommit, useMayEdit, useModel, useSession } from '@/project/useSession';
import { Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';

/** What other numbers and heights of a luminaire would give a room, worked out for that room alone. */
export function WhatIfPart({ zone }: { zone: ElementOf<'zone'> }) {
  const { model } = useSession();
  const now = useModel('element', 'library');
  const { asked, asking } = useLight();
  const hanging = luminairesIn(now, zone);
  const own = Object.values(now.library).flatMap((row) => (row.kind === 'photometry' ? [row.name] : []));
  const names = [...new Set([...shippedPhotometries, ...own])];
  const [chosen, choose] = useState<string | null>(null);
  const photometry = chosen ?? names.find((name) => name === hanging[0]?.shape.photometry) ?? names[0];
  return (
    <Part title={`What if: ${zone.shape.name || zone.shape.number || 'this room'}`}>
      <Box sx={{ display: 'flex', gap: 1, mt: 0.75, mb: 1 }}>
        <TextField
          select
          size="small"
          label="Luminaire"
          value={photometry}
          onChange={({ target }) => choose(target.value)}
          sx={{ flex: 1 }}
        >
          {names.map((name) => (
            <MenuItem key={name} value={name}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        <Button
          variant="outlined"
          disabled={asking !== null}
          onClick={() => void askWhatIf(model, zone.id, photometry)}
        >
          {asking === null ? 'Work out' : 'Working \u2026'}
        </Button>
      </Box>
      {asked !== null && asked.zone === zone.id && <Choices asked={asked} zone={zone} photometry={photometry} />}
    </Part>
  );
}

function Choices({ asked, zone, photometry }: { asked: WhatIf; zone: ElementOf<'zone'>; photometry: string }) {
  const commit = useCommit();
  const mayEdit = useMayEdit();
  const { target, heights, choices } = asked;
  const hang = ({ places, rotation, height }: Choice) =>
    void commit((now) => relit(now, zone, { places, rotation, rise: height, photometry }, () => crypto.randomUUID()));
  return (
    <>
      <Table
        label="Illuminance by number and height"
        heads={[
          'rows',
          { text: 'W/m\u00b2', figures: true },
          ...heights.map((height) => ({ text: `at ${height.toFixed(2)} m`, figures: true as const })),
        ]}
      >
        {choices.map((row) => (
          <tr key={`${row[0].columns} ${row[0].rows}`}>
            <td className="mono">
              {row[0].rows} &times; {row[0].columns}
            </td>
            <td className="figures">{row[0].power.toFixed(1)}</td>
            {row.map((choice) => (
              <td key={choice.height} className="figures">
                <Button
                  size="small"
                  variant="text"
                  title={`Even ${choice.uniformity.toFixed(2)}. Hang them so.`}
                  disabled={!mayEdit}
                  aria-label={`Hang ${choice.rows} by ${choice.columns} at ${choice.height.toFixed(2)} m`}
                  sx={{ p: 0, minWidth: 0, minHeight: 0, fontFamily: 'inherit', fontWeight: choice.met ? 700 : 400 }}
                  onClick={() => hang(choice)}
                >
                  {choice.mean.toFixed(0)}
                </Button>
              </td>
            ))}
          </tr>
        ))}
      </Table>
      <Box sx={{ color: 'text.secondary', fontSize: 12, mt: 0.75 }}>
        Lux, mean over the room.{' '}
        {target !== null && `Bold meets ${target.lux} lx and ${target.uniformity.toFixed(2)} even. `}A click hangs them
        in the place of what hangs there.
      </Box>
    </>
  );
}
