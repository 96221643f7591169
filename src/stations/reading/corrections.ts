import type { ElementKind, Section, Shapes } from '@/core/model/elements';

/** Something of an element that a person may put right: words, or a length in metres. */
export type Field<K extends ElementKind> =
  | { label: string; kind: 'words'; get: (shape: Shapes[K]) => string; set: (shape: Shapes[K], value: string) => Shapes[K] }
  | { label: string; kind: 'length'; least: number; get: (shape: Shapes[K]) => number | null; set: (shape: Shapes[K], value: number) => Shapes[K] };

const words = <K extends ElementKind>(label: string, key: keyof Shapes[K]): Field<K> => ({ label, kind: 'words', get: (shape) => String(shape[key] ?? ''), set: (shape, value) => ({ ...shape, [key]: value }) });
const length = <K extends ElementKind>(label: string, key: keyof Shapes[K], least = 0.001): Field<K> => ({ label, kind: 'length', least, get: (shape) => (shape[key] as number | null), set: (shape, value) => ({ ...shape, [key]: value }) });

/** The sides of a section that is a rectangle, or the diameter of a round one. */
function sectionFields<K extends 'column' | 'beam'>(section: Section): Field<K>[] {
  const side = (label: string, key: string): Field<K> => ({
    label, kind: 'length', least: 0.02,
    get: (shape) => ((shape as { section: Section }).section as unknown as Record<string, number>)[key],
    set: (shape, value) => ({ ...shape, section: { ...(shape as { section: Section }).section, [key]: value } }),
  });
  return section.shape === 'rectangle' ? [side('Width', 'width'), side('Depth', 'depth')] : section.shape === 'circle' ? [side('Diameter', 'diameter')] : [];
}

/** What can be put right of an element, by its kind. */
export function fieldsOf<K extends ElementKind>(kind: K, shape: Shapes[K]): Field<K>[] {
  const fields = (): Field<never>[] => {
    switch (kind) {
      case 'grid': return [words<'grid'>('Label', 'label')] as never;
      case 'column': return [...sectionFields<'column'>((shape as Shapes['column']).section), words<'column'>('Mark', 'mark')] as never;
      case 'beam': return [...sectionFields<'beam'>((shape as Shapes['beam']).section), words<'beam'>('Mark', 'mark')] as never;
      case 'wall': return [length<'wall'>('Thickness', 'thickness', 0.02), length<'wall'>('Height', 'height')] as never;
      case 'opening': return [length<'opening'>('Width', 'width', 0.05), length<'opening'>('Height', 'height', 0.05), length<'opening'>('Sill', 'sill', 0)] as never;
      case 'slab': return [length<'slab'>('Thickness', 'thickness', 0.02)] as never;
      case 'zone': return [words<'zone'>('Name', 'name'), words<'zone'>('Number', 'number'), length<'zone'>('Height', 'height')] as never;
      default: return [words<'outdoor'>('Name', 'name'), length<'outdoor'>('Height', 'height', 0)] as never;
    }
  };
  return fields() as unknown as Field<K>[];
}
