import { escaped, put } from './groups';

/** A layer of a written DXF, with a colour index. */
export interface OutLayer {
  name: string;
  colour: number;
}

/** What the tables name. */
interface Tables {
  layers: readonly OutLayer[];
  /** Model and paper space, then the others, each with the handle of its record. */
  blocks: readonly { name: string; record: string }[];
  /** A handle that nothing has yet. */
  handle: () => string;
}

/** The tables that readers ask for. */
export function putTables(out: string[], { layers, blocks, handle: newHandle }: Tables): void {
  const g = (code: number, value: string | number) => put(out, code, value);
  const table = (
    name: string,
    handle: string,
    entries: { handle: string; subclass: string; groups: [number, string | number][] }[],
  ) => {
    g(0, 'TABLE');
    g(2, name);
    g(5, handle);
    g(330, '0');
    g(100, 'AcDbSymbolTable');
    g(70, entries.length);
    if (name === 'DIMSTYLE') g(100, 'AcDbDimStyleTable');
    for (const entry of entries) {
      g(0, name);
      g(name === 'DIMSTYLE' ? 105 : 5, entry.handle);
      g(330, handle);
      g(100, 'AcDbSymbolTableRecord');
      g(100, entry.subclass);
      for (const [code, value] of entry.groups) g(code, value);
    }
    g(0, 'ENDTAB');
  };
  table('VPORT', '8', []);
  table(
    'LTYPE',
    '5',
    ['ByBlock', 'ByLayer', 'Continuous'].map((name, i) => ({
      handle: ['14', '15', '16'][i],
      subclass: 'AcDbLinetypeTableRecord',
      groups: [
        [2, name],
        [70, 0],
        [3, ''],
        [72, 65],
        [73, 0],
        [40, 0],
      ],
    })),
  );
  table(
    'LAYER',
    '2',
    [{ name: '0', colour: 7 }, ...layers].map((layer, i) => ({
      handle: i === 0 ? '10' : newHandle(),
      subclass: 'AcDbLayerTableRecord',
      groups: [
        [2, escaped(layer.name)],
        [70, 0],
        [62, layer.colour],
        [6, 'Continuous'],
      ],
    })),
  );
  table('STYLE', '3', [
    {
      handle: '11',
      subclass: 'AcDbTextStyleTableRecord',
      groups: [
        [2, 'Standard'],
        [70, 0],
        [40, 0],
        [41, 1],
        [50, 0],
        [71, 0],
        [42, 2.5],
        [3, 'txt'],
        [4, ''],
      ],
    },
  ]);
  table('VIEW', '6', []);
  table('UCS', '7', []);
  table('APPID', '9', [
    {
      handle: '12',
      subclass: 'AcDbRegAppTableRecord',
      groups: [
        [2, 'ACAD'],
        [70, 0],
      ],
    },
  ]);
  table('DIMSTYLE', 'A', [
    {
      handle: '27',
      subclass: 'AcDbDimStyleTableRecord',
      groups: [
        [2, 'Standard'],
        [70, 0],
      ],
    },
  ]);
  table(
    'BLOCK_RECORD',
    '1',
    blocks.map(({ name, record }) => ({
      handle: record,
      subclass: 'AcDbBlockTableRecord',
      groups: [[2, escaped(name)]],
    })),
  );
}
