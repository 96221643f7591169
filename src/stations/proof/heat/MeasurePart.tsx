'use client';
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import {
  areaMeasures,
  bridgeKinds,
  plainSite,
  type AreaMeasure,
  type BridgeKind,
  type SiteSettings,
} from '@/core/model/siteSettings';
import { useSite } from '@/project/useSite';
import { Part } from '@/ui/widgets/Heading';
import { NumberField } from '@/ui/widgets/NumberField';

const measureWords: Record<AreaMeasure, string> = {
  inner: 'inner faces',
  centre: 'middles of walls and floors',
  outer: 'outer faces',
};
const bridgeWords: Record<BridgeKind, string> = {
  roof: 'Roof edge',
  between: 'Floor between storeys',
  ground: 'Edge of the ground floor',
  corner: 'Corner that sticks out',
  opening: 'About openings',
};

/**
 * What thermal bridges lose where insulation runs on, W/(m K), for the dimensions chosen: the usual order of the values
 * of ISO 14683, to be put right by the details.
 */
const usualPsi: Record<AreaMeasure, NonNullable<SiteSettings['bridges']>> = {
  inner: { roof: 0.15, between: 0.1, ground: 0.2, corner: 0.15, opening: 0.1 },
  centre: { roof: 0.15, between: 0.05, ground: 0.15, corner: 0.05, opening: 0.1 },
  outer: { roof: -0.05, between: 0, ground: 0.05, corner: -0.05, opening: 0.1 },
};

/** What areas are measured to, and how thermal bridges are counted: by their length, or as a flat addition. */
export function MeasurePart() {
  const [site, set] = useSite();
  const measure = site.areas ?? 'inner';
  const { bridges } = site;
  return (
    <Part title="How surfaces are measured">
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 1, rowGap: 1.25, pt: 0.5 }}>
        <TextField
          select
          size="small"
          label="Areas by"
          value={measure}
          onChange={({ target }) => {
            const areas = areaMeasures.find((one) => one === target.value) ?? 'inner';
            set(`Areas by ${measureWords[areas]}`, {
              areas,
              ...(bridges === undefined ? {} : { bridges: usualPsi[areas] }),
            });
          }}
        >
          {areaMeasures.map((one) => (
            <MenuItem key={one} value={one}>
              {measureWords[one]}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          size="small"
          label="Thermal bridges"
          value={bridges === undefined ? 'flat' : 'length'}
          onChange={({ target }) =>
            set('Thermal bridges', { bridges: target.value === 'length' ? usualPsi[measure] : undefined })
          }
        >
          <MenuItem value="flat">a flat addition</MenuItem>
          <MenuItem value="length">by their length</MenuItem>
        </TextField>
        {bridges === undefined ? (
          <NumberField
            label={'Addition, W/(m\u00b2 K)'}
            value={site.thermalBridge}
            least={0}
            most={1}
            change={(value) => set('Thermal bridges', { thermalBridge: value ?? plainSite.thermalBridge })}
          />
        ) : (
          bridgeKinds.map((kind) => (
            <NumberField
              key={kind}
              label={`${bridgeWords[kind]}, W/(m K)`}
              value={bridges[kind]}
              least={-1}
              most={3}
              change={(value) => set(bridgeWords[kind], { bridges: { ...bridges, [kind]: value ?? 0 } })}
            />
          ))
        )}
      </Box>
    </Part>
  );
}
