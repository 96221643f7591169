import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';

/** A station on the rail: its number in the course, its word and how far it is. */
export interface RailStation {
  name: string;
  number: number;
  word: string;
  state: string;
  begun: boolean;
}

/** The course as a traverse: stations are numbered triangles on a line. */
export function CourseRail({
  stations,
  present,
  go,
}: {
  stations: RailStation[];
  present: string;
  go: (name: string) => void;
}) {
  return (
    <Box
      component="nav"
      aria-label="Course"
      sx={{
        width: 86,
        flex: 'none',
        background: 'var(--mui-palette-zf-panel)',
        borderRight: '1px solid var(--mui-palette-divider)',
        pt: 1.5,
        overflowY: 'auto',
      }}
    >
      {stations.map(({ name, number, word, state, begun }, i) => {
        const here = name === present;
        return (
          <Box key={name}>
            {i > 0 && (
              <Box sx={{ width: '1px', height: 26, mx: 'auto', my: 0.5, background: 'var(--mui-palette-divider)' }} />
            )}
            <ButtonBase
              onClick={() => go(name)}
              aria-current={here ? 'step' : undefined}
              sx={{ display: 'flex', flexDirection: 'column', width: '100%', py: 0.5, px: 0.5, textAlign: 'center' }}
            >
              <svg width={28} height={25} viewBox="0 0 28 25" aria-hidden>
                <path
                  d="M14 2 26 23H2z"
                  strokeLinejoin="round"
                  strokeWidth={1.5}
                  stroke={here || begun ? 'var(--mui-palette-zf-zircon)' : 'var(--mui-palette-zf-ink2)'}
                  fill={triangleFill(here, begun)}
                />
                <text
                  x={14}
                  y={19}
                  textAnchor="middle"
                  fontSize={10}
                  fontFamily="'Overpass Mono', monospace"
                  fontWeight={600}
                  fill={here ? 'var(--mui-palette-zf-onZircon)' : 'var(--mui-palette-zf-ink)'}
                >
                  {number}
                </text>
              </svg>
              <Box
                component="span"
                sx={{ fontWeight: 600, color: here ? 'primary.main' : 'text.primary', lineHeight: 1.4 }}
              >
                {word}
              </Box>
              <Box component="span" sx={{ fontSize: 11, color: 'text.secondary', lineHeight: 1.3, minHeight: 15 }}>
                {state}
              </Box>
            </ButtonBase>
          </Box>
        );
      })}
    </Box>
  );
}

/** The present station is solid, one that was begun tinted. */
function triangleFill(here: boolean, begun: boolean): string {
  if (here) return 'var(--mui-palette-zf-zircon)';
  return begun ? 'var(--mui-palette-zf-zirconSoft)' : 'none';
}
