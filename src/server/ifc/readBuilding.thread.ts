import { parentPort } from 'node:worker_threads';
import { readBuilding } from './readBuilding';

/** A thread that cuts plans through an IFC: asks for chunks one by one, null is the last; answers with the plans. */
const port = parentPort!;
const chunks: Uint8Array[] = [];
let told = 0;

/** Says how far it is, a hundred times at most. */
function tell(done: number, of: number): void {
  const share = Math.floor((100 * done) / of) / 100;
  if (share > told) port.postMessage({ share });
  told = Math.max(told, share);
}

port.on('message', (chunk: Uint8Array | null) => {
  if (chunk !== null) {
    chunks.push(chunk);
    port.postMessage({ next: true });
    return;
  }
  void readBuilding(Buffer.concat(chunks), tell).then((read) =>
    port.postMessage(read.ok ? read.value : { failed: read.message }),
  );
});
port.postMessage({ next: true });
