import { pushAll } from '@/core/lists';
import * as v from 'valibot';
import { isStorable } from '@/core/storable';
import { readJsonFile } from '@/core/jsonFile';
import type { Result } from '@/core/result';
import { matches } from '@/core/pattern';
import { firstNumbers } from '@/core/patterns/settings';
import { likenessSchema } from './alike';
import { answerSchema } from './answers';
import { roles, type Role } from './roles';

/** A set of rules that give roles to layers and blocks by the pattern of their names; the first that matches counts. */
export const roleMapSchema = v.strictObject({
  format: v.literal('zircon-frame-roles'),
  version: v.literal(1),
  name: v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, 'A name needs at least one character.'),
    v.maxLength(120),
    v.check(isStorable),
  ),
  rules: v.pipe(
    v.array(
      v.strictObject({
        pattern: v.pipe(v.string(), v.minLength(1), v.maxLength(400), v.check(isStorable)),
        role: v.picklist(roles),
        /** Whether it speaks of layers or of blocks. */ of: v.optional(v.picklist(['layer', 'block']), 'layer'),
      }),
    ),
    v.maxLength(5000),
  ),
  /** Roles of everything that is like one thing that was put right, wherever it lies. */
  lessons: v.optional(
    v.pipe(v.array(v.strictObject({ role: v.picklist(roles), like: likenessSchema })), v.maxLength(1000)),
    [],
  ),
  /** How what drawings do not decide is to be read. */
  answers: v.optional(v.pipe(v.array(answerSchema), v.maxLength(1000)), []),
  /** Which of two written numbers of a size is the width in this office's drawings; null where that was not said. */
  firstNumber: v.optional(v.nullable(v.picklist(firstNumbers)), null),
});
export type RoleMap = v.InferOutput<typeof roleMapSchema>;

/** A role map from the text of a file. */
export const readRoleMap = (text: string): Result<RoleMap> =>
  readJsonFile(roleMapSchema, text, {
    what: 'a role map',
    savedAt: 'Sorting',
    expected: 'an object with format "zircon-frame-roles", version 1, a name and rules of pattern and role',
  });

/**
 * The roles of layers and blocks as a map: layers of one role whose names begin alike up to a separator get one rule
 * with a star.
 */
export function roleMapOf(
  name: string,
  layers: readonly { layer: string; role: Role | null }[],
  blocks: readonly { name: string; role: Role }[] = [],
  taught: Partial<Pick<RoleMap, 'lessons' | 'answers' | 'firstNumber'>> = {},
): RoleMap {
  const rules: RoleMap['rules'] = [];
  const covered = new Set<string>();
  for (const { layer, role } of layers) {
    if (role === null || covered.has(layer)) continue;
    const stem = /^(.+?[-_ .]).+$/.exec(layer)?.[1] ?? null;
    // A rule for the beginning stands only where it is true of all layers that begin so.
    const longer =
      stem === null ? [] : layers.filter((other) => other.layer.startsWith(layer) && other.layer !== layer);
    const alike = longer.length > 0 && longer.every((other) => other.role === role);
    rules.push({ pattern: alike ? `${layer}*` : layer, role, of: 'layer' });
    covered.add(layer);
    if (alike) for (const other of longer) covered.add(other.layer);
  }
  // What is more exact is tried first.
  pushAll(
    rules,
    blocks.map((block) => ({ pattern: block.name, role: block.role, of: 'block' as const })),
  );
  return {
    format: 'zircon-frame-roles',
    version: 1,
    name,
    rules: rules.sort((a, b) => b.pattern.length - a.pattern.length || a.pattern.localeCompare(b.pattern)),
    lessons: taught.lessons ?? [],
    answers: taught.answers ?? [],
    firstNumber: taught.firstNumber ?? null,
  };
}

type Rule = RoleMap['rules'][number];

/**
 * What a role map says of some layers and blocks: which rule matches each, and which rules and layers are left over.
 */
export function applyRoleMap(
  { rules }: Pick<RoleMap, 'rules'>,
  layers: readonly string[],
  blocks: readonly string[] = [],
): { roles: Map<string, Rule>; blocks: Map<string, Rule>; unmatched: string[]; unused: string[] } {
  const matched = (names: readonly string[], of: Rule['of']) =>
    new Map(
      names.flatMap((name) => {
        const rule = rules.find((each) => each.of === of && matches(each.pattern, name));
        return rule ? [[name, rule] as const] : [];
      }),
    );
  const [found, foundBlocks] = [matched(layers, 'layer'), matched(blocks, 'block')];
  const used = new Set([...found.values(), ...foundBlocks.values()]);
  return {
    roles: found,
    blocks: foundBlocks,
    unmatched: layers.filter((layer) => !found.has(layer)),
    unused: rules.filter((rule) => !used.has(rule)).map(({ pattern }) => pattern),
  };
}
