'use client';
import Box from '@mui/material/Box';
import { scaleLinear } from 'd3';
import { logOdds, type UnitVerdict } from '@/core/datum/evidence/judge';
import { formatNumber, lengthUnits, unitNames, type LengthUnit } from '@/core/units/length';

/** Log-odds beyond this are drawn as this. */
const most = 7;
const across = scaleLinear().domain([-most, most]).range([0, 100]).clamp(true);

/**
 * The units with the log-odds of each as a bar to either side of even odds, and the probability; one of them is chosen.
 */
export function UnitChart({
  verdict,
  chosen,
  choose,
}: {
  verdict: UnitVerdict;
  chosen: LengthUnit;
  choose: (unit: LengthUnit) => void;
}) {
  return (
    <Box role="radiogroup" aria-label="Unit of the drawing" sx={{ mb: 1 }}>
      {lengthUnits.map((unit) => {
        const here = unit === chosen;
        const probability = verdict.probabilities[unit];
        const odds = logOdds(probability);
        const [from, to] = [across(Math.min(0, odds)), across(Math.max(0, odds))];
        let colour;
        if (odds <= 0) colour = 'ink2';
        else if (unit === verdict.header && unit !== verdict.chosen) colour = 'amber';
        else colour = 'zircon';

        return (
          <Box
            key={unit}
            component="label"
            sx={{
              display: 'grid',
              gridTemplateColumns: '18px 84px 1fr 40px 48px',
              alignItems: 'center',
              gap: 1,
              py: 0.25,
              px: 0.75,
              cursor: 'pointer',
              borderBottom: '1px solid var(--mui-palette-divider)',
              background: here ? 'var(--mui-palette-zf-zirconSoft)' : 'none',
            }}
          >
            <input
              type="radio"
              name="unit"
              aria-label={unitNames[unit]}
              checked={here}
              onChange={() => choose(unit)}
              style={{ accentColor: 'var(--mui-palette-zf-zircon)', margin: 0 }}
            />
            <span>{unitNames[unit]}</span>
            <svg width="100%" height={14} role="img" aria-label={`log-odds ${formatNumber(odds, 1)}`}>
              <rect
                x={`${from}%`}
                y={2}
                width={`${Math.max(0.8, to - from)}%`}
                height={10}
                fill={`var(--mui-palette-zf-${colour})`}
                fillOpacity={odds <= 0 ? 0.45 : 1}
              />
              <line x1="50%" x2="50%" y2={14} stroke="var(--mui-palette-zf-ink)" strokeWidth={1} />
            </svg>
            <Box component="span" className="mono" sx={{ fontSize: 12, textAlign: 'right', color: 'text.secondary' }}>
              {odds > 0 ? '+' : ''}
              {formatNumber(odds, 1)}
            </Box>
            <Box
              component="span"
              className="mono"
              sx={{ fontSize: 12, textAlign: 'right' }}
              aria-label={`probability ${probability.toFixed(3)}`}
            >
              {probability.toFixed(3)}
            </Box>
          </Box>
        );
      })}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: '18px 84px 1fr 40px 48px',
          gap: 1,
          px: 0.75,
          fontSize: 11,
          color: 'text.secondary',
        }}
        aria-hidden
      >
        <span />
        <span />
        <Box sx={{ textAlign: 'center' }}>against | for, log-odds</Box>
        <span />
        <Box sx={{ textAlign: 'right' }}>prob.</Box>
      </Box>
    </Box>
  );
}
