import type { Notice } from './told';

/** What is done with what the server tells. */
interface Hearing {
  hear: (notice: Notice) => void;
  /** The stream is there, for the first time or again: something may have been missed. */
  opened: () => void;
  away: () => void;
  /** A stream was refused. @returns whether it is to be asked for again */
  refused: () => boolean;
}

/** A stream that was refused is asked for again after this long, milliseconds. */
const askedAgainAfter = 1500;

/** Listens to a stream of events, which the browser opens again when it breaks. @returns the way to stop */
export function hearNews(address: string, { hear, opened, away, refused }: Hearing): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let source: EventSource;
  const open = (): void => {
    source = new EventSource(address);
    source.onmessage = ({ data }) => hear(JSON.parse(data as string) as Notice);
    source.onopen = opened;
    source.onerror = () => {
      away();
      // One that was refused is not opened again by itself.
      if (source.readyState === EventSource.CLOSED && refused()) timer = setTimeout(open, askedAgainAfter);
    };
  };
  open();
  return () => {
    clearTimeout(timer);
    source.close();
  };
}
