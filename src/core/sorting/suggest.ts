import type { Role } from './roles';

/**
 * Words that name a role in a layer name, whole or as the beginning of a part of it. Field names of
 * ISO 13567 layers are in many offices plain words or their abbreviations; English, German and French are tried.
 */
const vocabulary: [Role, string[]][] = [
  ['label', ['text', 'anno', 'note', 'label', 'schrift', 'texte']],
  [
    'ignore',
    [
      'dim',
      'furn',
      'hatch',
      'title',
      'frame',
      'fixt',
      'equip',
      'mobel',
      'cote',
      'bemass',
      'viewport',
      'defpoints',
      'plant',
    ],
  ],
  ['grid', ['grid', 'axis', 'axes', 'achse', 'raster', 'axe', 'trame']],
  ['column', ['col', 'column', 'pillar', 'stutze', 'stuetze', 'poteau']],
  ['beam', ['beam', 'girder', 'trager', 'unterzug', 'poutre']],
  ['window', ['glaz', 'window', 'wind', 'fenster', 'fenetre']],
  ['door', ['door', 'tur', 'tuer', 'porte']],
  ['slabOpening', ['void', 'opening', 'shaft', 'durchbruch', 'tremie']],
  ['slab', ['slab', 'deck', 'decke', 'dalle']],
  ['zone', ['room', 'zone', 'space', 'raum', 'piece']],
  ['wall', ['wall', 'partition', 'wand', 'mauer', 'mur', 'cloison']],
  ['outdoor', ['pave', 'road', 'path', 'yard', 'site', 'outdoor', 'strasse', 'voirie']],
];

/** A role that a layer's name suggests, with the reason in words; null where it says nothing. */
export function suggestRole(layer: string): { role: Role; why: string } | null {
  const parts = layer
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .split(/[^a-z]+/)
    .filter((part) => part.length > 1);
  for (const part of [...parts].reverse()) {
    for (const [role, words] of vocabulary) {
      const word = words.find(
        (w) => part === w || (part.startsWith(w) && (w.length >= 4 || part.length - w.length <= 2)),
      );
      if (word !== undefined) return { role, why: `"${part}" in the layer's name` };
    }
  }
  return null;
}
