import type { ContentName, FormatName } from '@/core/exports/deliveries/wish';

/** What formats are called. */
export const formatWords: Record<FormatName, string> = {
  ifc: 'IFC4',
  gbxml: 'gbXML',
  xlsx: 'Workbook',
  csv: 'CSV',
  analysis: 'Analysis tables',
  pdf: 'Sheets, PDF',
  svg: 'Sheets, SVG',
  results: 'Results drawn',
  report: 'Report',
  dxf: 'DXF',
  json: 'model.json',
};

/** What the lists of a model are called. */
export const contentWords: Record<ContentName, string> = {
  grids: 'Grid lines',
  columns: 'Columns',
  beams: 'Beams, members',
  walls: 'Walls',
  openings: 'Doors, windows',
  slabs: 'Slabs',
  roofs: 'Roof planes',
  zones: 'Zones',
  outdoor: 'Outdoor surfaces',
  terrain: 'Contours',
  supports: 'Supports',
  loads: 'Loads',
  luminaires: 'Luminaires',
  calculationAreas: 'Calculation areas',
};

/** A size of a file in words. */
export const sizeWords = (bytes: number): string =>
  bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1e3))} kB` : `${(bytes / 1e6).toFixed(1)} MB`;
