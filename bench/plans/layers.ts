import type { Role } from '@/core/sorting/roles';
import type { Style } from './styles';

/** What is drawn on layers of its own. */
export const subjects = [
  'grid',
  'bubble',
  'gridText',
  'column',
  'beam',
  'wall',
  'fill',
  'door',
  'window',
  'room',
  'dimension',
  'furniture',
  'sheet',
] as const;
export type Subject = (typeof subjects)[number];

export const roleOfSubject: Record<Subject, Role> = {
  grid: 'grid',
  bubble: 'grid',
  gridText: 'grid',
  column: 'column',
  beam: 'beam',
  wall: 'wall',
  fill: 'ignore',
  door: 'door',
  window: 'window',
  room: 'zone',
  dimension: 'ignore',
  furniture: 'ignore',
  sheet: 'ignore',
};

const words: Record<Style['layers'], Record<Subject, string>> = {
  english: of(
    'A-GRID A-GRID-IDEN A-GRID-TEXT A-COLS S-BEAM A-WALL A-WALL-PATT A-DOOR A-GLAZ A-ROOM A-DIMS A-FURN A-TTLB',
  ),
  german: of(
    '01_Achsen 01_Achsen_Kopf 01_Achsen_Text 02_Stuetzen 03_Unterzug 04_Wand 09_Schraffur ' +
      '05_Tuer 06_Fenster 07_Raum 08_Bemassung 10_Moebel 11_Plankopf',
  ),
  french: of(
    'AXES AXES_BULLES AXES_TEXTE POTEAUX POUTRES MURS HACHURES PORTES FENETRES PIECES COTATIONS MOBILIER CARTOUCHE',
  ),
  spanish: of(
    'EJES EJES_GLOBOS EJES_TEXTO PILARES VIGAS MUROS SOMBREADO PUERTAS VENTANAS LOCALES COTAS MOBILIARIO CAJETIN',
  ),
  italian: of('ASSI ASSI_BOLLE ASSI_TESTO PILASTRI TRAVI MURI RETINI PORTE FINESTRE LOCALI QUOTE ARREDI CARTIGLIO'),
  portuguese: of(
    'EIXOS EIXOS_BOLHAS EIXOS_TEXTO PILARES VIGAS PAREDES HACHURAS PORTAS JANELAS AMBIENTES COTAS MOBILIARIO CARIMBO',
  ),
  dutch: of(
    'STRAMIEN STRAMIEN_BOL STRAMIEN_TEKST KOLOMMEN BALKEN WANDEN ARCERING DEUREN RAMEN RUIMTEN MAATVOERING MEUBILAIR TITELBLOK',
  ),
  swedish: of(
    'STOMLINJER STOMLINJER_RING STOMLINJER_TEXT PELARE BALKAR VÄGGAR SKRAFFERING DÖRRAR FÖNSTER RUM MÅTT INREDNING RITNINGSHUVUD',
  ),
  polish: of('OSIE OSIE_KOLKA OSIE_OPIS SLUPY BELKI SCIANY KRESKOWANIE DRZWI OKNA POMIESZCZENIA WYMIARY MEBLE TABELKA'),
  czech: of('OSY OSY_BUBLINY OSY_TEXT SLOUPY PRUVLAKY STENY SRAFY DVERE OKNA MISTNOSTI KOTY NABYTEK RAZITKO'),
  turkish: of('AKS AKS_BALON AKS_YAZI KOLON KIRIS DUVAR TARAMA KAPI PENCERE MAHAL OLCU MOBILYA ANTET'),
  japanese: of('通り芯 通り芯_記号 通り芯_文字 柱 梁 壁 ハッチング 建具_ドア 窓 室名 寸法 家具 図面枠'),
  chinese: of('轴线 轴线_圈 轴线_文字 柱 梁 墙 填充 门 窗 房间 标注 家具 图框'),
  bound: of(
    'xr-arch$0$A-GRID xr-arch$0$A-GRID-IDEN xr-arch$0$A-GRID-TEXT xr-str$0$S-COLS ' +
      'xr-str$0$S-BEAM xr-arch$0$A-WALL xr-arch$0$A-WALL-PATT xr-arch$0$A-DOOR ' +
      'xr-arch$0$A-GLAZ xr-arch$0$A-ROOM xr-arch$0$A-DIMS xr-arch$0$A-FURN xr-arch$0$A-TTLB',
  ),
  numbers: of('101 102 103 201 202 301 302 401 402 501 601 701 801'),
};

function of(line: string): Record<Subject, string> {
  const names = line.split(' ');
  return Object.fromEntries(subjects.map((subject, i) => [subject, names[i]])) as Record<Subject, string>;
}

/** The layers of a plan. On one layer for the grid its bubbles and texts lie with its lines. */
export function layersOf(style: Style): Record<Subject, string> {
  const names = words[style.layers];
  return style.gridLayers === 'one' ? { ...names, bubble: names.grid, gridText: names.grid } : names;
}

const roomWords: Partial<Record<Style['layers'], string>> = {
  german: 'Lager Büro Labor Werkstatt Archiv Technik Küche Atelier Halle Flur',
  french: 'Dépôt Bureau Labo Atelier Archives Technique Cuisine Salle Hall Couloir',
  spanish: 'Almacén Oficina Taller Archivo Aseo Cocina Aula Sala Vestíbulo Pasillo',
  italian: 'Deposito Ufficio Officina Archivio Bagno Cucina Aula Sala Atrio Corridoio',
  portuguese: 'Depósito Escritório Oficina Arquivo Banheiro Cozinha Sala Auditório Hall Corredor',
  dutch: 'Berging Kantoor Werkplaats Archief Toilet Keuken Lokaal Zaal Hal Gang',
  swedish: 'Förråd Kontor Verkstad Arkiv Toalett Kök Sal Ateljé Hall Korridor',
  polish: 'Magazyn Biuro Warsztat Archiwum Toaleta Kuchnia Sala Pracownia Hol Korytarz',
  czech: 'Sklad Kancelář Dílna Archiv Záchod Kuchyň Učebna Ateliér Hala Chodba',
  turkish: 'Depo Ofis Atölye Arşiv Tuvalet Mutfak Derslik Salon Hol Koridor',
  japanese: '倉庫 事務室 工房 書庫 便所 厨房 教室 会議室 ホール 廊下',
  chinese: '仓库 办公室 车间 档案室 卫生间 厨房 教室 会议室 大厅 走廊',
};

/** Names of rooms in the language of the layers. */
export const roomWordsOf = (style: Style): string[] =>
  (roomWords[style.layers] ?? 'Store Office Lab Workshop Archive Plant Mess Studio Hall Passage').split(' ');
