import { parentPort, workerData } from 'node:worker_threads';
import type { ReadLimits } from '@/core/drawing/limits';
import { packDrawing } from '@/core/drawing/packDrawing';
import { DxfReader } from '@/core/drawing/reader';
import { digest } from '@/core/handover/intake/digest';

/** A thread that reads one DXF: asks for chunks one by one, null is the last, and answers with columns and report. */
const port = parentPort!;
const { fileName, sha256, limits } = workerData as { fileName: string; sha256: string; limits: ReadLimits };
const reader = new DxfReader(limits);

port.on('message', (chunk: Uint8Array | null) => {
  if (chunk !== null && reader.push(chunk)) {
    port.postMessage({ next: true });
    return;
  }
  const reading = reader.finish();
  if (!reading.ok) {
    port.postMessage({ failed: reading.message });
    return;
  }
  const { drawing, intake, unit, picture } = digest(fileName, sha256, reading.value, limits);
  const columns = packDrawing(drawing);
  port.postMessage({ columns, intake, unit, picture }, [columns.buffer as ArrayBuffer]);
});
port.postMessage({ next: true });
