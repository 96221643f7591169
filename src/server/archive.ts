import { createReadStream, createWriteStream } from 'node:fs';
import { mkdtemp, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { restoreBackup } from './backup/restoreBackup';
import { writeBackup } from './backup/writeBackup';
import { database } from './database/connection';
import { unstalled } from './intakes/intakes';
import { notFound, Problem } from './problem';
import { settings } from './settings';

/** A folder of its own for a file on its way. */
const place = async () => {
  const folder = await mkdtemp(join(tmpdir(), 'zircon-archive-'));
  return { path: join(folder, 'archive'), clear: () => rm(folder, { recursive: true, force: true }) };
};

/** All of a project as one file: drawings, revisions, decisions, model, history; read again before it goes. */
export async function archiveOf(project: string): Promise<{ name: string; size: number; content: ReadableStream }> {
  const row = await database()
    .selectFrom('projects')
    .select('name')
    .where('id', '=', project)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  if (!row) throw notFound('This project');
  const { path, clear } = await place();
  try {
    await writeBackup(path, project);
    const { size } = await stat(/* turbopackIgnore: true */ path);
    const file = createReadStream(/* turbopackIgnore: true */ path);
    file.on('close', () => void clear());
    return { name: `${row.name}.zircon`, size, content: Readable.toWeb(file) as ReadableStream };
  } catch (error) {
    await clear();
    throw error;
  }
}

const tooLarge = (name: string): Problem =>
  new Problem(
    413,
    `${name} has more than ${Math.round(settings.maxUpload / 1024 / 1024)} MB, the most that is taken at once. ` +
      'Raise ZIRCON_MAX_UPLOAD_MB, or restore it by ./run restore.',
  );

/** Ends what is sent where it grows too large. */
async function* limited(body: AsyncIterable<Uint8Array>, name: string): AsyncGenerator<Uint8Array> {
  let size = 0;
  for await (const part of body) {
    size += part.length;
    if (size > settings.maxUpload) throw tooLarge(name);
    yield part;
  }
}

/**
 * Opens an archive as a copy, with ids of its own, beside what is there. @param name what the file is called
 * @returns the first project in it
 * @throws Problem that says what is wrong with the file; nothing of it stays then
 */
export async function openArchive(name: string, body: AsyncIterable<Uint8Array>): Promise<{ id: string }> {
  const { path, clear } = await place();
  try {
    await pipeline(
      Readable.from(limited(unstalled(body, name), name)),
      createWriteStream(/* turbopackIgnore: true */ path, { mode: 0o600 }),
    );
    const { projects } = await restoreBackup(path, null);
    if (projects.length === 0) throw new Problem(400, `${name} holds no project.`);
    return { id: projects[0].id };
  } catch (error) {
    if (error instanceof Problem) throw new Problem(error.status, error.message.replaceAll(path, name), error.details);
    throw error;
  } finally {
    await clear();
  }
}
