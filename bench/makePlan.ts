/**
 * A plan of any size as real ones are made up: walls as lines, outlines with bulges, circles and arcs, texts and
 * inserts, on forty layers, with handles and subclass markers, coordinates with full doubles.
 */
export function makePlan(entities: number): string {
  const out: string[] = [
    '  0',
    'SECTION',
    '  2',
    'HEADER',
    '  9',
    '$ACADVER',
    '  1',
    'AC1024',
    '  9',
    '$INSUNITS',
    ' 70',
    '4',
    '  0',
    'ENDSEC',
    '  0',
    'SECTION',
    '  2',
    'TABLES',
    '  0',
    'TABLE',
    '  2',
    'LAYER',
    ' 70',
    '40',
  ];
  const put = (code: number, value: string | number) => {
    out.push(String(code).padStart(3), String(value));
  };
  for (let i = 0; i < 40; i += 1) {
    put(0, 'LAYER');
    put(2, `A-LAYER-${i}`);
    put(70, 0);
    put(62, (i % 9) + 1);
    put(6, 'Continuous');
  }
  put(0, 'ENDTAB');
  put(0, 'ENDSEC');
  put(0, 'SECTION');
  put(2, 'BLOCKS');
  put(0, 'BLOCK');
  put(8, '0');
  put(2, 'CHAIR');
  put(70, 0);
  put(10, 0);
  put(20, 0);
  put(30, 0);
  for (let i = 0; i < 4; i += 1) {
    put(0, 'LINE');
    put(8, '0');
    put(10, i * 100);
    put(20, 0);
    put(30, 0);
    put(11, 0);
    put(21, i * 100);
    put(31, 0);
  }
  put(0, 'ENDBLK');
  put(8, '0');
  put(0, 'ENDSEC');
  put(0, 'SECTION');
  put(2, 'ENTITIES');
  let seed = 42;
  const random = () => {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
    return seed / 2 ** 32;
  };
  const side = Math.sqrt(entities) * 1500;
  for (let i = 0; i < entities; i += 1) {
    const [x, y] = [random() * side, random() * side];
    const begin = (kind: string, subclass: string) => {
      put(0, kind);
      put(5, (0x100 + i).toString(16).toUpperCase());
      put(330, '1F');
      put(100, 'AcDbEntity');
      put(8, `A-LAYER-${i % 40}`);
      put(100, subclass);
    };
    const share = i % 20;
    if (share < 11) {
      begin('LINE', 'AcDbLine');
      put(10, x);
      put(20, y);
      put(30, 0);
      put(11, x + random() * 5000);
      put(21, y + random() * 100);
      put(31, 0);
    } else if (share < 15) {
      begin('LWPOLYLINE', 'AcDbPolyline');
      put(90, 6);
      put(70, 1);
      put(43, 0);
      for (let k = 0; k < 6; k += 1) {
        put(10, x + random() * 2000);
        put(20, y + random() * 2000);
        if (k === 2) put(42, 0.4142135623730951);
      }
    } else if (share < 16) {
      begin('CIRCLE', 'AcDbCircle');
      put(10, x);
      put(20, y);
      put(30, 0);
      put(40, 50 + random() * 500);
    } else if (share < 17) {
      begin('ARC', 'AcDbCircle');
      put(10, x);
      put(20, y);
      put(30, 0);
      put(40, 900);
      put(100, 'AcDbArc');
      put(50, 0);
      put(51, 90);
    } else if (share < 18) {
      begin('TEXT', 'AcDbText');
      put(10, x);
      put(20, y);
      put(30, 0);
      put(40, 250);
      put(1, `Room ${i}`);
      put(100, 'AcDbText');
    } else if (share < 19) {
      begin('MTEXT', 'AcDbMText');
      put(10, x);
      put(20, y);
      put(30, 0);
      put(40, 250);
      put(41, 3000);
      put(71, 5);
      put(1, `{\\fOverpass;Note ${i}}\\Psecond line`);
    } else {
      begin('INSERT', 'AcDbBlockReference');
      put(2, 'CHAIR');
      put(10, x);
      put(20, y);
      put(30, 0);
      put(50, random() * 360);
    }
  }
  put(0, 'ENDSEC');
  put(0, 'EOF');
  return out.join('\r\n') + '\r\n';
}
