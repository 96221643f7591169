'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useMemo, useState } from 'react';
import { picksOf, setBlockRoles } from '@/core/model/picks';
import type { DrawingRow } from '@/core/model/state';
import type { Role } from '@/core/sorting/roles';
import { suggestRole } from '@/core/sorting/suggest';
import { outlineOf } from '@/core/underlay/outline';
import { useOverlay } from '@/project/overlay';
import { useModel, useCommit } from '@/project/useSession';
import type { Pictures, Underlay } from '@/project/underlays';
import { Note, Part } from '@/ui/widgets/Heading';
import { LinePicture } from '@/ui/widgets/LinePicture';
import { RoleChoice } from './RoleChoice';

/** Blocks shown at once; a search finds the others. */
const shownAtOnce = 200;

/** The blocks of a drawing, each with a picture, how often it stands and the role that goes before its layers'. */
export function BlocksPart({
  drawing,
  underlay,
  pictures,
}: {
  drawing: DrawingRow;
  underlay: Underlay | null;
  pictures: Pictures | null;
}) {
  const state = useModel('pick');
  const commit = useCommit();
  const show = useOverlay((store) => store.show);
  const [search, setSearch] = useState('');
  const roleOf = new Map(picksOf(state, drawing.id).blocks.map(({ name, role }) => [name, role]));
  const suggested = useMemo(
    () =>
      new Map(
        (pictures?.blocks ?? []).flatMap(({ name }) => {
          const found = suggestRole(name);
          return found ? [[name, found] as const] : [];
        }),
      ),
    [pictures],
  );
  if (pictures === null)
    return (
      <Box role="status" sx={{ color: 'text.secondary' }}>
        looking at blocks {'\u2026'}
      </Box>
    );
  const wanted = search.trim().toLowerCase();
  const listed = pictures.blocks.filter(({ name }) => name.toLowerCase().includes(wanted));
  const open = listed.filter(({ name }) => suggested.has(name) && !roleOf.has(name));
  const set = (roles: ReadonlyMap<string, Role | null>) =>
    void commit((now) => setBlockRoles(now, drawing, roles, () => crypto.randomUUID()));
  const hover = (name: string | null) => {
    if (name === null || underlay === null) {
      show(null);
      return;
    }
    const { primitives, blocks } = underlay;
    const within: boolean[] = [];
    for (const [i, { block, parent }] of primitives.chains.entries())
      within.push(i > 0 && (blocks[block].name === name || within[parent]));
    show({
      drawingId: drawing.id,
      origin: primitives.origin,
      alone: true,
      parts: [
        {
          tone: 'evidence',
          lines: outlineOf(
            primitives,
            [...primitives.chain.keys()].filter((path) => within[primitives.chain[path]]),
            [],
          ),
        },
      ],
    });
  };
  if (pictures.blocks.length === 0)
    return (
      <Note kind="plain">
        Nothing in this drawing stands there as a block. Give roles to its layers, or pick lines by hand.
      </Note>
    );
  return (
    <Part title={`${roleOf.size} of ${pictures.blocks.length} blocks have a role of their own`}>
      <TextField
        size="small"
        fullWidth
        placeholder="Find a block"
        value={search}
        onChange={(event) => setSearch(event.target.value)}
        slotProps={{ htmlInput: { 'aria-label': 'Find a block' } }}
      />
      {open.length > 0 && (
        <Box sx={{ mt: 1 }}>
          {open.length} {open.length === 1 ? 'name says' : 'names say'} a role.{' '}
          <Button
            variant="text"
            onClick={() => set(new Map(open.map(({ name }) => [name, suggested.get(name)!.role])))}
          >
            Take {open.length === 1 ? 'it' : `all ${open.length}`}
          </Button>
        </Box>
      )}
      <Box
        component="ul"
        aria-label="Blocks"
        sx={{ listStyle: 'none', m: 0, mt: 1, p: 0 }}
        onMouseLeave={() => hover(null)}
      >
        {listed.slice(0, shownAtOnce).map(({ name, places, lines }) => (
          <Box
            component="li"
            key={name}
            onMouseEnter={() => hover(name)}
            sx={{
              display: 'grid',
              gridTemplateColumns: '44px 1fr 122px',
              gap: 1,
              alignItems: 'center',
              py: 0.5,
              borderBottom: '1px solid var(--mui-palette-divider)',
            }}
          >
            <LinePicture lines={lines} width={44} height={34} />
            <Box sx={{ minWidth: 0, lineHeight: 1.3 }}>
              <Box
                title={name}
                sx={{ fontWeight: 600, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
              >
                {name}
              </Box>
              <Box sx={{ fontSize: 11, color: 'text.secondary' }}>
                at {places.toLocaleString('en')} {places === 1 ? 'place' : 'places'}
              </Box>
            </Box>
            <RoleChoice
              label={`Role of block ${name}`}
              role={roleOf.get(name) ?? null}
              none="as its layers"
              why={suggested.get(name)?.why}
              choose={(role) => set(new Map([[name, role]]))}
            />
          </Box>
        ))}
      </Box>
      {listed.length > shownAtOnce && (
        <Box sx={{ color: 'text.secondary', mt: 0.5 }}>and {listed.length - shownAtOnce} more; find them by name</Box>
      )}
      {listed.length === 0 && <Box sx={{ color: 'text.secondary', mt: 1 }}>No block of that name.</Box>}
    </Part>
  );
}
