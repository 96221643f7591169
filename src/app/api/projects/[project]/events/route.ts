import * as v from 'valibot';
import { uuid } from '@/core/kinds/limits';
import { holdStream, subscribe } from '@/server/events';
import { tellLeft } from '@/server/here';
import { route } from '@/server/http';
import { maySee } from '@/server/people/rights';
import { expectProject } from '@/server/projects';

export const dynamic = 'force-dynamic';

/** A stream says that it is there so often, milliseconds. */
const beatEvery = 15_000;

/**
 * Tells a window, as server-sent events, that the project or an intake changed. It then asks for what is new. A window
 * that says which it is, as `here`, is told to the others as gone when its stream ends.
 */
export const GET = route<'project'>('reader', async (request, { project }, who) => {
  await expectProject(project);
  const here = new URL(request.url).searchParams.get('here');
  const encoder = new TextEncoder();
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (text: string) => {
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          stop();
        }
      };
      const unsubscribe = subscribe(project, (notice) => {
        send(`data: ${JSON.stringify(notice === 'again' ? { again: true } : notice)}\n\n`);
        // Below zero: more than an edit has happened to the project, such as a right that was taken.
        if (notice !== 'again' && 'version' in notice && notice.version < 0) look();
      });
      // A session that ended, or a right that was taken, ends the stream too.
      const look = () => {
        if (who === null) return;
        maySee(request.headers, project).then(
          (may) => (may ? undefined : end()),
          // While the database is away nobody can say; the next beat asks again.
          () => undefined,
        );
      };
      const beat = setInterval(() => {
        send(': still here\n\n');
        look();
      }, beatEvery);
      let open = true;
      const stop = () => {
        if (!open) return;
        open = false;
        clearInterval(beat);
        unsubscribe();
        forget();
        // Where the database is away nobody hears of anything.
        if (v.is(uuid, here)) tellLeft(project, here).catch(() => undefined);
      };
      const end = () => {
        stop();
        try {
          controller.close();
        } catch {
          /* It is closed. */
        }
      };
      const forget = holdStream(end);
      request.signal.addEventListener('abort', end);
      send('retry: 1000\n\n');
    },
  });
  return new Response(stream, {
    headers: {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
      // Kept open after the stream, the connection would hold a server up that is to end.
      connection: 'close',
      'x-content-type-options': 'nosniff',
    },
  });
});
