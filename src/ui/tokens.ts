/**
 * The colours of a surveyor's field sheet, in both schemes. Contrast of the pairs in use is tested beside this file.
 */
export interface Tokens {
  paper: string;
  board: string;
  panel: string;
  ink: string;
  ink2: string;
  line: string;
  zircon: string;
  zirconSoft: string;
  onZircon: string;
  amber: string;
  amberSoft: string;
  clay: string;
  underlay: string;
  lattice: string;
  grid: string;
  column: string;
  beam: string;
  wall: string;
  opening: string;
  slab: string;
  zone: string;
  outdoor: string;
  roof: string;
  support: string;
  pointLoad: string;
  lineLoad: string;
  areaLoad: string;
  luminaire: string;
  calculationArea: string;
  contour: string;
  /** Other people in the same project. */
  other1: string;
  other2: string;
  other3: string;
  other4: string;
}

export const light: Tokens = {
  paper: '#f4f0e6',
  board: '#fbf8f1',
  panel: '#fffdf8',
  ink: '#1f2d36',
  ink2: '#58656b',
  line: '#ddd5c4',
  zircon: '#0a7470',
  zirconSoft: '#d6ebe7',
  onZircon: '#ffffff',
  amber: '#a85c00',
  amberSoft: '#fbead0',
  clay: '#a13d25',
  underlay: '#8b8577',
  lattice: '#d9d1bf',
  grid: '#66748a',
  column: '#7b3f8f',
  beam: '#bd5519',
  wall: '#31495b',
  opening: '#ad3b66',
  slab: '#8c7a3d',
  zone: '#2d7a66',
  outdoor: '#66852b',
  roof: '#96502f',
  support: '#3d4f9a',
  pointLoad: '#a12a2a',
  lineLoad: '#a12a2a',
  areaLoad: '#a12a2a',
  luminaire: '#8a6a00',
  calculationArea: '#4f6d80',
  contour: '#7a5c3a',
  other1: '#2b5fc0',
  other2: '#9a2c7d',
  other3: '#566b00',
  other4: '#8f4a10',
};

export const dark: Tokens = {
  paper: '#182126',
  board: '#11191d',
  panel: '#1d282e',
  ink: '#e8e3d6',
  ink2: '#a7b3b6',
  line: '#33424a',
  zircon: '#3fb8ae',
  zirconSoft: '#1c4644',
  onZircon: '#10201f',
  amber: '#e6a04a',
  amberSoft: '#43331b',
  clay: '#e58a70',
  underlay: '#7f8683',
  lattice: '#2a373e',
  grid: '#8593a1',
  column: '#c48fd6',
  beam: '#e88f57',
  wall: '#9fb9cc',
  opening: '#e07fa5',
  slab: '#cbb86f',
  zone: '#5fbfa4',
  outdoor: '#a9c765',
  roof: '#dd9a76',
  support: '#9aabf0',
  pointLoad: '#f08c84',
  lineLoad: '#f08c84',
  areaLoad: '#f08c84',
  luminaire: '#e3c353',
  calculationArea: '#94b4c6',
  contour: '#c7a27c',
  other1: '#86aef5',
  other2: '#ee95cf',
  other3: '#bccf4d',
  other4: '#efae74',
};

export const tokensOf = (scheme: string | undefined): Tokens => (scheme === 'dark' ? dark : light);

export const fonts = {
  text: "'Overpass', 'Helvetica Neue', Arial, sans-serif",
  figures: "'Overpass Mono', Menlo, Consolas, monospace",
};
