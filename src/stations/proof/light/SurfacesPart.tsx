'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { plainReflectances } from '@/core/lighting/room';
import { plain } from '@/core/lighting/light';
import { counted } from '@/core/model/counted';
import { put } from '@/core/model/edits';
import { useSelected } from '@/project/selected';
import { useCommit, useModel } from '@/project/useSession';
import { useSite } from '@/project/useSite';
import { Part } from '@/ui/widgets/Heading';
import { NumberField } from '@/ui/widgets/NumberField';

const surfaces = [
  ['ceiling', 'Ceilings, %'],
  ['wall', 'Walls, %'],
  ['floor', 'Floors, %'],
] as const;
type Shares = Record<(typeof surfaces)[number][0], number>;

/** What surfaces throw back, room by room or in all at once, and what is left of the first light. */
export function SurfacesPart() {
  const model = useModel('element');
  const [site, say] = useSite();
  const selected = useSelected(({ ids }) => ids);
  const commit = useCommit();
  const [shares, setShares] = useState<Shares>({ ...plainReflectances });
  const zones = [...model.ofKind('zone')];
  const chosen = zones.filter(({ id }) => selected.has(id));
  const wanted = chosen.length > 0 ? chosen : zones;
  const set = () =>
    void commit((now) => ({
      label: `Reflectances of ${counted(wanted.length, 'room')}`,
      changes: wanted.flatMap(({ id }) => {
        const row = now.element[id];
        return row?.kind === 'zone' ? [put('element', { ...row, shape: { ...row.shape, reflectances: shares } })] : [];
      }),
    }));
  return (
    <Part title="Surfaces">
      <Box sx={{ color: 'text.secondary', mb: 1.25 }}>
        What rooms throw back of their light. Each zone holds its own; here they are set for{' '}
        {chosen.length > 0 ? 'those selected' : 'all of them'} at once.
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1, mb: 1 }}>
        {surfaces.map(([key, label]) => (
          <NumberField
            key={key}
            label={label}
            value={Number((shares[key] * 100).toFixed(4))}
            least={0}
            most={95}
            change={(value) => setShares({ ...shares, [key]: (value ?? 0) / 100 })}
          />
        ))}
      </Box>
      <Button variant="outlined" disabled={wanted.length === 0} onClick={set} sx={{ mb: 2 }}>
        Set for {counted(wanted.length, 'room')}
      </Button>
      <Box>
        <NumberField
          label="Left with dirt and age"
          value={site.maintenanceFactor ?? plain.maintenance}
          least={0.1}
          most={1}
          width="48%"
          change={(value) => say('Maintenance factor', { maintenanceFactor: value ?? plain.maintenance })}
        />
      </Box>
    </Part>
  );
}
