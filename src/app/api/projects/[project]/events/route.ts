import { subscribe } from '@/server/events';
import { route } from '@/server/http';
import { expectProject } from '@/server/projects';

export const dynamic = 'force-dynamic';

/** Tells a window, as server-sent events, that the project or an intake changed. It then asks for what is new. */
export const GET = route<'project'>(async (request, { project }) => {
  await expectProject(project);
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
      const unsubscribe = subscribe(project, (notice) =>
        send(`data: ${JSON.stringify(notice === 'again' ? { again: true } : notice)}\n\n`),
      );
      const beat = setInterval(() => send(': still here\n\n'), 15_000);
      const stop = () => {
        clearInterval(beat);
        unsubscribe();
      };
      request.signal.addEventListener('abort', () => {
        stop();
        try {
          controller.close();
        } catch {
          /* It is closed. */
        }
      });
      send('retry: 1000\n\n');
    },
  });
  return new Response(stream, {
    headers: {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
      'x-content-type-options': 'nosniff',
    },
  });
});
