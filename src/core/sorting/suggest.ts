import type { Role } from './roles';

/**
 * Words that name a role in a layer name, whole or as the beginning of a part of it. Field names of ISO 13567 layers
 * are in many offices plain words or their abbreviations: English, German, French, Spanish, Portuguese, Italian, Dutch,
 * Scandinavian, Finnish, Polish, Czech, Hungarian, Romanian and Turkish are tried, without their accents.
 */
const vocabulary: [Role, string[]][] = [
  ['label', words('text txt anno note label schrift texte schedule schd nomenclature cuadro liste testo tekst yazi')],
  [
    'ignore',
    words(
      'dim furn hatch patt title ttlb frame fixt equip viewport defpoints plant ' +
        'mobel moebel mobil mueble mobla arred meubil mebl nabyt inred kaluste butor mobilya ' +
        'cote cota cotas quota quote kota koty wymiar maatvoer maten matt malsat bemass vermass mitta meret olcu ' +
        'hach achur sombread trama retin arcer skraff skrav kreskow sraf taram rasterung schraff ' +
        'cartouche cartigl cajetin carimbo titelblok titelblatt ritningshuv tegningshode tabelk razitk antet ' +
        'plankopf schriftfeld nimio',
    ),
  ],
  [
    'grid',
    words(
      'grid axis axes achs raster axe trame ejes eixo assi stramien stomlinje akse osie aks moduullin modullin tengely',
    ),
  ],
  [
    'column',
    words(
      'col column pillar stutz stuetz poteau pilar columna pilastr colonn kolom pelare sojle ' +
        'soejle soyle slup sloup kolon oszlop pilari stalp dikme',
    ),
  ],
  [
    'beam',
    words(
      'beam girder trager traeger unterzug poutre viga vig trave travi balk ligger bjaelke bjelke belk podciag pruvlak ' +
        'kiris gerenda palkki palkit grind',
    ),
  ],
  [
    'window',
    words(
      'glaz window wind fenster fenetre ventana janela finestr raam ramen kozijn fonster vindu okno okna pencere ablak ' +
        'ikkuna fereastr vitrage',
    ),
  ],
  ['door', words('door tur tuer porte puerta porta deur dorr drzwi dvere kapi ajto ovet usi')],
  [
    'slabOpening',
    words(
      'void opening opng shaft lightwell durchbruch aussp tremie hueco huec abertura foro vuoto sparing haltagning otwor bosluk ' +
        'deckendurchbr deckenoffn deckenaussp',
    ),
  ],
  ['slab', words('slab deck decke dalle forjado forj losa laje solaio vloer bjalklag daek dekke strop doseme')],
  [
    'zone',
    words(
      'room zone space raum piece local locaux estancia habitacion compartimento ambient locale stanza ruimte kamer ' +
        'pomieszcz mistnost mahal helyiseg huone incaper',
    ),
  ],
  [
    'wall',
    words(
      'wall partition wand mauer mur cloison muro pared tabique parete muur vagg vaeg vegg scian stena steny pricka pricky ' +
        'duvar falak seina peret zid',
    ),
  ],
  [
    'outdoor',
    words(
      'pave road path yard site outdoor strasse voirie fence zaun cloture recinz hekwerk stangsel ogrodz gjerde hegn',
    ),
  ],
  [
    'terrain',
    words('topo terrain gelande gelaende hohenlin hoehenlin isohyps hoogtelijn hojdkurv warstwic vrstevnic szintvonal'),
  ],
  [
    'luminaire',
    words(
      'light lights lighting lite lum lumin lamp leucht beleucht eclairage luminar ilumin luz apparecchi illumin ' +
        'verlicht armatuur armatur belysning valaisin oswietl osvetl svitid vilagit aydinlat',
    ),
  ],
];

/** Codes that say so only where they stand alone: as the beginning of a word they would be in many others. */
const codes: [Role, string[]][] = [
  ['column', words('pil stb')],
  ['beam', words('uz')],
  ['window', words('ven fen')],
  ['door', words('pta tue dor')],
  ['zone', words('loc rum rom oda sala vano')],
  ['wall', words('mw')],
  ['grid', words('eje asse osy')],
  // In French what runs round anything is a contour.
  ['terrain', words('contour contours')],
];

/** Signs and stems of other scripts, which names hold anywhere; what contains others comes before them. */
const signs: [Role, string[]][] = [
  [
    'ignore',
    words(
      '\u5bf8\u6cd5 \u6807\u6ce8 \u5c3a\u5bf8 \u5bb6\u5177 \u56f3\u9762\u67a0 \u56fe\u6846 ' +
        '\u30cf\u30c3\u30c1 \u586b\u5145 \uce58\uc218 \uac00\uad6c ' +
        '\u0440\u0430\u0437\u043c\u0435\u0440 \u043c\u0435\u0431\u0435\u043b \u0448\u0442\u0440\u0438\u0445 \u0448\u0442\u0430\u043c\u043f',
    ),
  ],
  ['grid', words('\u901a\u308a\u82af \u8f74 \u8ef8 \u043e\u0441\u0438 \u03b1\u03be\u03bf\u03bd')],
  ['slabOpening', words('\u958b\u53e3 \u6d1e \u043e\u0442\u0432\u0435\u0440\u0441\u0442')],
  ['column', words('\u67f1 \uae30\ub465 \u043a\u043e\u043b\u043e\u043d')],
  ['beam', words('\u6881 \u0431\u0430\u043b\u043a')],
  ['window', words('\u7a93 \u7a97 \ucc3d \u043e\u043a\u043d')],
  ['door', words('\u6249 \u30c9\u30a2 \u95e8 \u9580 \u0434\u0432\u0435\u0440')],
  [
    'slab',
    words(
      '\u30b9\u30e9\u30d6 \u5e8a \u697c\u677f \u043f\u043b\u0438\u0442 \u043f\u0435\u0440\u0435\u043a\u0440\u044b\u0442',
    ),
  ],
  [
    'zone',
    words(
      '\u90e8\u5c4b \u5ba4 \u623f\u95f4 \u043f\u043e\u043c\u0435\u0449\u0435\u043d \u043a\u043e\u043c\u043d\u0430\u0442',
    ),
  ],
  ['wall', words('\u58c1 \u5899 \u7246 \ubcbd \u0441\u0442\u0435\u043d')],
];

/** The lines that columns stand on are no columns. */
const gridOfColumns = /col(umn)?s?[^a-z]*(line|grid|axis|axes)/;

/** Where a list or a schedule of something stands, it is written, whatever it is of. A table is furniture too. */
const lists = words('schedule schedules list liste tabelle nomenclature cuadro');

function words(list: string): string[] {
  return list.split(' ');
}

/** Letters that do not part into a plain one and an accent. */
const plain: Record<string, string> = {
  '\u00f8': 'o',
  '\u00e6': 'ae',
  '\u0142': 'l',
  '\u00df': 'ss',
  '\u0131': 'i',
  '\u0111': 'd',
  '\u0153': 'oe',
};

/** A name in small letters without accents, its words apart. */
export const spokenName = (name: string): string =>
  name
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[^\x00-\x7f]/g, (letter) => plain[letter] ?? letter);

/** A role that a layer's name suggests, with the reason in words; null where it says nothing. */
export function suggestRole(layer: string): { role: Role; why: string } | null {
  const spoken = spokenName(layer);
  const because = (role: Role, word: string) => ({ role, why: `"${word}" in the layer's name` });
  if (gridOfColumns.test(spoken)) return because('grid', gridOfColumns.exec(spoken)![0]);
  const parts = spoken.split(/[^a-z]+/).filter((part) => part.length > 1);
  const list = parts.find((part) => lists.includes(part));
  if (list !== undefined) return because('label', list);
  for (const part of [...parts].reverse()) {
    const role = roleOfWord(part);
    if (role !== null) return because(role, part);
  }
  const name = layer.toLowerCase();
  for (const [role, stems] of signs) {
    const stem = stems.find((one) => name.includes(one));
    if (stem !== undefined) return because(role, stem);
  }
  return null;
}

/** The role that one word of a name stands for; null where it says nothing. */
function roleOfWord(part: string): Role | null {
  const begins = (word: string): boolean =>
    part.startsWith(word) && (word.length >= 4 || part.length - word.length <= 2);
  return (
    codes.find(([, list]) => list.includes(part))?.[0] ?? vocabulary.find(([, list]) => list.some(begins))?.[0] ?? null
  );
}
