import { Migrator, sql, type Kysely, type Migration } from 'kysely';
import type { Db } from './connection';
import * as start from './migrations/0001_start';
import * as recipes from './migrations/0002_recipes';
import * as datum from './migrations/0003_datum';
import * as elements from './migrations/0004_elements';
import * as roleMaps from './migrations/0005_role_maps';
import * as seen from './migrations/0006_seen';
import * as library from './migrations/0007_library';
import * as seenValues from './migrations/0008_seen_values';
import * as pictures from './migrations/0009_pictures';
import * as decidedElements from './migrations/0010_decided_elements';
import * as mergedEdits from './migrations/0011_merged_edits';
import * as ownRows from './migrations/0012_own_rows';
import * as jobs from './migrations/0013_jobs';
import * as tracing from './migrations/0014_tracing';
import * as calculationKinds from './migrations/0015_calculation_kinds';
import * as lessons from './migrations/0016_lessons';
import * as views from './migrations/0017_views';
import * as acceptances from './migrations/0018_acceptances';
import * as structure from './migrations/0019_structure';
import * as site from './migrations/0020_site';
import * as photometry from './migrations/0021_photometry';
import * as background from './migrations/0022_jobs';
import * as contours from './migrations/0023_contours';
import * as origins from './migrations/0024_origins';
import * as originals from './migrations/0025_originals';
import * as people from './migrations/0026_people';
import * as held from './migrations/0027_held';
import type { Database } from './schema';

const migrations: Record<string, Migration> = {
  '0001_start': start,
  '0002_recipes': recipes,
  '0003_datum': datum,
  '0004_elements': elements,
  '0005_role_maps': roleMaps,
  '0006_seen': seen,
  '0007_library': library,
  '0008_seen_values': seenValues,
  '0009_pictures': pictures,
  '0010_decided_elements': decidedElements,
  '0011_merged_edits': mergedEdits,
  '0012_own_rows': ownRows,
  '0013_jobs': jobs,
  '0014_tracing': tracing,
  '0015_calculation_kinds': calculationKinds,
  '0016_lessons': lessons,
  '0017_views': views,
  '0018_acceptances': acceptances,
  '0019_structure': structure,
  '0020_site': site,
  '0021_photometry': photometry,
  '0022_jobs': background,
  '0023_contours': contours,
  '0024_origins': origins,
  '0025_originals': originals,
  '0026_people': people,
  '0027_held': held,
};

/** The name of the newest migration. */
const newestMigration = Object.keys(migrations).sort().at(-1)!;

/** The newest migration that a database has; null where it has none. */
export async function appliedMigration(db: Db): Promise<string | null> {
  const { rows } = await sql<{ there: boolean }>`select to_regclass('kysely_migration') is not null as there`.execute(
    db,
  );
  if (!rows[0].there) return null;
  const { rows: applied } = await sql<{ name: string }>`
    select name from kysely_migration order by name desc limit 1
  `.execute(db);
  return applied[0]?.name ?? null;
}

/** Whether a database holds something and is older than this program. */
export async function isOld(db: Db): Promise<boolean> {
  const applied = await appliedMigration(db);
  return applied !== null && applied < newestMigration;
}

/** Whether a migration is one of this program: a later version's is not. */
export const isKnown = (migration: string): boolean => Object.hasOwn(migrations, migration);

/**
 * Brings the database to the newest schema; two processes at once wait for one another.
 * @param until the migration to end with
 * @param schema the schema of the database that is brought there, where it is not its usual one
 */
export async function migrate(
  db: Kysely<Database>,
  until: string = newestMigration,
  migrationTableSchema?: string,
): Promise<void> {
  const provider = { getMigrations: async () => migrations };
  const { error } = await new Migrator({ db, provider, migrationTableSchema }).migrateTo(until);
  if (error) throw error;
}
