'use client';
import { roleId, setRole, showLayers } from '@/core/model/roles';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import TextField from '@mui/material/TextField';
import {
  DataGrid,
  GRID_CHECKBOX_SELECTION_COL_DEF,
  type GridColDef,
  type GridRowSelectionModel,
} from '@mui/x-data-grid';
import { useEffect, useMemo, useState, type MouseEvent } from 'react';
import type { IntakeFile } from '@/core/handover/intake/writeIntake';
import type { DrawingRow, RoleRow } from '@/core/model/state';
import { adaptColour } from '@/core/underlay/colours';
import { outlineOf } from '@/core/underlay/outline';
import { useOverlay } from '@/project/overlay';
import { useMoment, useCommit } from '@/project/useSession';
import type { Pictures, Underlay } from '@/project/underlays';
import { useIntake } from '@/project/useIntake';
import { Note, Part } from '@/ui/widgets/Heading';
import { Icon } from '@/ui/widgets/Icon';
import { LinePicture } from '@/ui/widgets/LinePicture';
import { useScheme } from '@/ui/widgets/useScheme';
import { useNonce } from '@/ui/Providers';
import { MeansChoice } from './MeansChoice';
import { RoleChoice } from './RoleChoice';

type LayerFilter = 'all' | 'none' | 'suggested' | 'contradicted' | 'hidden' | 'empty';
const filterWords: Record<LayerFilter, string> = {
  all: 'All',
  none: 'Without a role',
  suggested: 'Suggested',
  contradicted: 'Contradictory',
  hidden: 'Hidden',
  empty: 'Empty',
};
const contradicts = (reason: string) => reason.startsWith('Its name says');
const keeps: Record<LayerFilter, (row: RoleRow, layer: IntakeFile['layers'][number]) => boolean> = {
  all: () => true,
  none: ({ role }) => role === null,
  suggested: ({ role, suggested }) => role !== null && suggested,
  contradicted: (_, { why }) => why.some(contradicts),
  hidden: ({ shown }) => !shown,
  empty: (_, { entities }) => entities === 0,
};

interface LayerLine {
  id: string;
  row: RoleRow;
  picture: Float32Array | null;
  colour: string;
  entities: number;
  kinds: string;
  why: string;
  conflict: string;
}

/** Words for who hears the page: its place has room for an eye alone. */
const heardOnly = { position: 'absolute', width: 1, height: 1, overflow: 'hidden', clipPath: 'inset(50%)' } as const;

/** The table of layers: what each holds, whether it is shown, its role and what it means. */
export function LayersPart({
  drawing,
  underlay,
  pictures,
}: {
  drawing: DrawingRow;
  underlay: Underlay | null;
  pictures: Pictures | null;
}) {
  const moment = useMoment('role');
  const commit = useCommit();
  const { dark, tokens } = useScheme();
  const nonce = useNonce();
  const { report, problem } = useIntake(drawing.fileId);
  const show = useOverlay((store) => store.show);
  useEffect(() => () => show(null), [show]);
  const [search, setSearch] = useState('');
  const [filter, setFilter] = useState<LayerFilter>('all');
  const [chosen, setChosen] = useState<GridRowSelectionModel>({ type: 'include', ids: new Set() });

  const lines = useMemo(() => {
    const colours = underlay ? layerColours(underlay) : new Map<number, number>();
    return (report?.layers ?? []).flatMap((layer, i): LayerLine[] => {
      const row = moment.model.role[roleId(drawing.id, layer.name)];
      if (!row || !layer.name.toLowerCase().includes(search.trim().toLowerCase()) || !keeps[filter](row, layer))
        return [];
      const colour = adaptColour(colours.get(i) ?? 0x1000000, dark, parseInt(tokens.ink.slice(1), 16));
      const kinds = Object.entries(layer.kinds)
        .sort((a, b) => b[1] - a[1])
        .map(([kind, count]) => `${count.toLocaleString('en')} ${kind}`)
        .join(', ');
      return [
        {
          id: row.id,
          row,
          picture: pictures?.layers[i] ?? null,
          colour: `#${colour.toString(16).padStart(6, '0')}`,
          entities: layer.entities,
          kinds,
          why: row.suggested ? layer.why.join(', ') : 'set by hand',
          conflict: layer.why.find(contradicts) ?? '',
        },
      ];
    });
  }, [drawing, underlay, pictures, report, moment, search, filter, dark, tokens]);

  const picked = lines
    .filter((line) => (chosen.type === 'include' ? chosen.ids.has(line.id) : !chosen.ids.has(line.id)))
    .map((line) => line.row);
  const sorted = lines.filter((line) => line.row.role !== null).length;
  const contradicted = lines.filter(({ row, why }) => row.suggested && why.includes('Its name says'));

  // A layer under the pointer is seen alone, the rest faded.
  const hover = (id: string | null) => {
    const layer = id === null ? -1 : (underlay?.layers.findIndex(({ name }) => roleId(drawing.id, name) === id) ?? -1);
    if (layer < 0 || !underlay) {
      show(null);
      return;
    }
    const { primitives } = underlay;
    show({
      drawingId: drawing.id,
      origin: primitives.origin,
      alone: true,
      parts: [
        {
          tone: 'evidence',
          lines: outlineOf(
            primitives,
            [...primitives.layer.keys()].filter((path) => primitives.layer[path] === layer),
            primitives.texts.flatMap((text, i) => (text.layer === layer ? [i] : [])),
          ),
        },
      ],
    });
  };

  const columns: GridColDef<LayerLine>[] = [
    { ...GRID_CHECKBOX_SELECTION_COL_DEF, width: 30, minWidth: 30 },
    {
      field: 'shown',
      headerName: 'Shown',
      renderHeader: () => <Box sx={heardOnly}>Shown</Box>,
      width: 32,
      minWidth: 32,
      sortable: false,
      renderCell: ({ row: { row } }) => (
        <IconButton
          aria-label={`${row.shown ? 'Hide' : 'Show'} ${row.layer}`}
          size="small"
          onClick={(event) => {
            event.stopPropagation();
            void commit(() => showLayers([row], !row.shown));
          }}
        >
          <Icon name={row.shown ? 'shown' : 'hidden'} size={16} />
        </IconButton>
      ),
    },
    {
      field: 'layer',
      headerName: 'layer',
      flex: 1,
      minWidth: 90,
      valueGetter: (_, { row }) => row.layer,
      renderCell: ({ row: { row, colour, kinds, picture } }) => (
        <Box
          title={kinds}
          sx={{ display: 'flex', alignItems: 'center', gap: 1, minWidth: 0, opacity: row.shown ? 1 : 0.55 }}
        >
          {picture ? (
            <LinePicture lines={picture} width={42} height={32} colour={colour} />
          ) : (
            <Box sx={{ width: 42, height: 32, flex: 'none' }} />
          )}
          <Box sx={{ overflow: 'hidden', lineHeight: 1.3 }}>
            <Box sx={{ fontWeight: 600, overflow: 'hidden', textOverflow: 'ellipsis' }}>{row.layer}</Box>
            <Box sx={{ fontSize: 11, color: 'text.secondary', overflow: 'hidden', textOverflow: 'ellipsis' }}>
              {kinds || 'empty'}
            </Box>
          </Box>
        </Box>
      ),
    },
    {
      field: 'entities',
      headerName: 'count',
      width: 50,
      minWidth: 50,
      align: 'right',
      headerAlign: 'right',
      renderCell: ({ value }) => <span className="mono">{Number(value).toLocaleString('en')}</span>,
    },
    {
      field: 'role',
      headerName: 'role',
      width: 120,
      valueGetter: (_, { row }) => row.role ?? '',
      renderCell: ({ row: { row, why } }) => (
        <Box sx={{ lineHeight: 1.25, minWidth: 0 }}>
          <RoleChoice
            label={`Role of ${row.layer}`}
            role={row.role}
            faint={row.suggested}
            why={why}
            choose={(role) => void commit(() => setRole(drawing, [row], role))}
          />
          <Box>
            <MeansChoice row={row} />
          </Box>
        </Box>
      ),
    },
  ];

  return (
    <>
      <Part title={`${sorted} of ${lines.length} layers have a role`}>
        <Box sx={{ display: 'flex', gap: 1 }}>
          <TextField
            size="small"
            placeholder="Find a layer"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
            slotProps={{ htmlInput: { 'aria-label': 'Find a layer' } }}
            sx={{ flex: 1 }}
          />
          <Select
            size="small"
            value={filter}
            inputProps={{ 'aria-label': 'Show of the layers' }}
            onChange={(event) => setFilter(event.target.value as LayerFilter)}
          >
            {(Object.keys(filterWords) as LayerFilter[]).map((name) => (
              <MenuItem key={name} value={name}>
                {filterWords[name]}
              </MenuItem>
            ))}
          </Select>
        </Box>
        {picked.length > 0 && (
          <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', mt: 1, flexWrap: 'wrap' }}>
            <span>{picked.length} chosen:</span>
            <RoleChoice
              label="Role of the chosen layers"
              role={undefined}
              choose={(role) => void commit(() => setRole(drawing, picked, role))}
            />
            <Button variant="text" onClick={() => void commit(() => showLayers(picked, true))}>
              Show
            </Button>
            <Button variant="text" onClick={() => void commit(() => showLayers(picked, false))}>
              Hide
            </Button>
          </Box>
        )}
      </Part>
      {contradicted.length > 0 && (
        <Note kind="look">
          {contradicted.map(({ row, conflict }) => (
            <div key={row.id}>
              <b>{row.layer}.</b> {conflict}
            </div>
          ))}
        </Note>
      )}
      {lines.some(({ row }) => row.role === 'mixed') && (
        <Note kind="plain">
          What is on{' '}
          {lines
            .filter(({ row }) => row.role === 'mixed')
            .map(({ row }) => row.layer)
            .join(', ')}{' '}
          is told apart by its geometry, line by line.
        </Note>
      )}
      <Box sx={{ height: Math.min(560, 34 + 44 * Math.max(3, lines.length)), minHeight: 200, mx: -0.5, mb: 2 }}>
        <DataGrid
          slotProps={{
            row: {
              onMouseEnter: (event: MouseEvent<HTMLElement>) => hover(event.currentTarget.dataset.id ?? null),
              onMouseLeave: () => hover(null),
            },
          }}
          rows={lines}
          columns={columns}
          nonce={nonce}
          rowHeight={44}
          columnHeaderHeight={30}
          hideFooter
          checkboxSelection
          disableColumnMenu
          disableRowSelectionOnClick
          rowSelectionModel={chosen}
          onRowSelectionModelChange={setChosen}
          aria-label="Layers"
          initialState={{ sorting: { sortModel: [{ field: 'layer', sort: 'asc' }] } }}
          localeText={{
            noRowsLabel: problem ?? (report === null ? 'Layers are being fetched' : 'No layer of that name'),
          }}
          sx={{
            border: 0,
            fontSize: 13,
            '--DataGrid-t-color-border-base': 'var(--mui-palette-divider)',
            '& .MuiDataGrid-cell': { display: 'flex', alignItems: 'center', px: 0.5 },
            '& .MuiDataGrid-columnHeader': { px: 0.5, color: 'text.secondary', fontWeight: 400 },
            '& .MuiDataGrid-columnSeparator': { display: 'none' },
            '& .MuiCheckbox-root': { p: 0.5 },
          }}
        />
      </Box>
    </>
  );
}

/** The colour that most of a layer's lines have. */
function layerColours({ primitives }: Underlay): Map<number, number> {
  const counts = new Map<number, Map<number, number>>();
  for (let i = 0; i < primitives.layer.length; i += 1) {
    const layer =
      counts.get(primitives.layer[i]) ?? counts.set(primitives.layer[i], new Map()).get(primitives.layer[i])!;
    layer.set(primitives.colour[i], (layer.get(primitives.colour[i]) ?? 0) + 1);
  }
  return new Map([...counts].map(([layer, colours]) => [layer, [...colours].sort((a, b) => b[1] - a[1])[0][0]]));
}
