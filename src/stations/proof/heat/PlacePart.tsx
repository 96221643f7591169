'use client';
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { uValueOfLayers } from '@/core/energy/uValue';
import { put } from '@/core/model/edits';
import { uValueOf, type LibraryRow } from '@/core/model/library';
import { plainSite, surfaceRoles, type SiteSettings, type SurfaceRole } from '@/core/model/siteSettings';
import { usualConstructions } from '@/core/model/usualConstructions';
import { projectRowOf } from '@/project/projectRow';
import { useCommit, useModel } from '@/project/useSession';
import { useSite } from '@/project/useSite';
import { Part } from '@/ui/widgets/Heading';
import { NumberField } from '@/ui/widgets/NumberField';
import { Table } from '@/ui/widgets/Table';
import { ClimatePart } from './ClimatePart';
import { MeasurePart } from './MeasurePart';
import { ProfilesPart } from './ProfilesPart';

const words: Record<SurfaceRole, string> = {
  outerWall: 'Outer walls',
  innerWall: 'Inner walls',
  floor: 'Floors',
  roof: 'Roofs',
  window: 'Windows',
  door: 'Doors',
};
/** The kinds of entries that a surface may be. */
const kindOf: Record<SurfaceRole, LibraryRow['kind']> = {
  outerWall: 'wall',
  innerWall: 'wall',
  floor: 'slab',
  roof: 'slab',
  window: 'glazing',
  door: 'glazing',
};
/** Neighbours are as warm as this where nobody says it, degrees. */
const plainNeighbour = 10;
/** The word for what nobody has chosen. */
const none = '-';

type Figure = 'winterTemperature' | 'annualTemperature' | 'groundConductivity' | 'heatingUp';
const figures: { key: Figure; label: string; least: number; most: number }[] = [
  { key: 'winterTemperature', label: 'Winter outside, \u00b0C', least: -60, most: 30 },
  { key: 'annualTemperature', label: 'Yearly mean, \u00b0C', least: -30, most: 40 },
  { key: 'groundConductivity', label: 'Ground, W/(m K)', least: 0.1, most: 10 },
  { key: 'heatingUp', label: 'Heating up, W/m\u00b2', least: 0, most: 100 },
];

/** The place, how surfaces are measured, and what they are made of where an element does not say it. */
export function PlacePart() {
  const [site, set] = useSite();
  return (
    <>
      <Part title="The place">
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 1, rowGap: 1.25, pt: 0.5 }}>
          {figures.map(({ key, label, least, most }) => (
            <NumberField
              key={key}
              label={label}
              value={site[key]}
              least={least}
              most={most}
              change={(value) => set(label, { [key]: value ?? plainSite[key] })}
            />
          ))}
          <NumberField
            label={'Neighbours, \u00b0C'}
            value={site.neighbourTemperature ?? plainNeighbour}
            least={-30}
            most={40}
            change={(value) => set('Temperature of neighbours', { neighbourTemperature: value ?? plainNeighbour })}
          />
        </Box>
      </Part>
      <ClimatePart />
      <MeasurePart />
      <ProfilesPart />
      <ConstructionsPart site={site} />
    </>
  );
}

function ConstructionsPart({ site }: { site: SiteSettings }) {
  const library = Object.values(useModel('library').library);
  const commit = useCommit();
  const choose = (role: SurfaceRole, value: string) =>
    void commit((now) => {
      const row = projectRowOf(now);
      const usual = usualConstructions[role].find(({ name }) => name === value);
      const made = usual === undefined ? null : ({ ...usual, id: crypto.randomUUID() } as LibraryRow);
      const id = made?.id ?? (value === none ? null : value);
      const before = row.site ?? plainSite;
      const changed = put('project', { ...row, site: { ...before, made: { ...before.made, [role]: id } } });
      return {
        label: `Construction of ${words[role].toLowerCase()}`,
        changes: made === null ? [changed] : [put('library', made), changed],
      };
    });
  return (
    <Part title="What surfaces are">
      <Box sx={{ color: 'text.secondary', mb: 1.25 }}>
        Where an element has no construction of its own. A usual one comes into the library and can be changed there.
      </Box>
      <Box sx={{ display: 'grid', gap: 1.25 }}>
        {surfaceRoles.map((role) => {
          const own = library.filter(({ kind }) => kind === kindOf[role]);
          const taken = new Set(own.map(({ name }) => name));
          return (
            <TextField
              key={role}
              select
              size="small"
              label={words[role]}
              value={own.some(({ id }) => id === site.made[role]) ? site.made[role] : none}
              onChange={({ target }) => choose(role, target.value)}
            >
              <MenuItem value={none}>not chosen</MenuItem>
              {own.map((row) => (
                <MenuItem key={row.id} value={row.id}>
                  {row.name}
                </MenuItem>
              ))}
              {usualConstructions[role]
                .filter(({ name }) => !taken.has(name))
                .map(({ name }) => (
                  <MenuItem key={name} value={name}>
                    {name} (usual)
                  </MenuItem>
                ))}
            </TextField>
          );
        })}
      </Box>
      <Steps rows={surfaceRoles.flatMap((role) => library.find(({ id }) => id === site.made[role]) ?? [])} />
    </Part>
  );
}

/** How the U-values of what is chosen come about, layer by layer. */
function Steps({ rows }: { rows: readonly LibraryRow[] }) {
  return rows.map((row) => {
    const value = uValueOf(row);
    const steps =
      row.kind === 'wall' || row.kind === 'slab'
        ? (uValueOfLayers(row.layers, row.kind === 'wall' ? 'across' : 'up', 'outside')?.steps ?? [])
        : [];
    return (
      <Box key={row.id} sx={{ mt: 2 }}>
        <Box sx={{ display: 'flex', flexWrap: 'wrap', justifyContent: 'space-between', columnGap: 1.5 }}>
          <b>{row.name}</b>
          <span className="mono">{value === null ? 'no U-value' : `U ${value.toFixed(3)} W/(m\u00b2 K)`}</span>
        </Box>
        {steps.length > 0 && (
          <Table
            label={`Steps of ${row.name}`}
            heads={['from outside to inside', { text: 'm\u00b2 K/W', figures: true }]}
          >
            {steps.map(({ name, resistance }, i) => (
              <tr key={i}>
                <td>{name}</td>
                <td className="figures">{resistance.toFixed(3)}</td>
              </tr>
            ))}
          </Table>
        )}
      </Box>
    );
  });
}
