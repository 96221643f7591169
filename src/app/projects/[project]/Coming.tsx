'use client';
import { useEffect, useState } from 'react';
import { Note } from '@/ui/widgets/Heading';

/** What comes sooner than this is not announced, milliseconds. */
const soon = 2000;

/** Stands where a part of the page is still to come, and after a while says what to do. */
export function Coming() {
  const [late, setLate] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLate(true), soon);
    return () => clearTimeout(timer);
  }, []);
  if (!late) return null;
  return (
    <Note kind="look">
      This part of the program has not come from the server yet. It is asked for again; where the server answers
      otherwise, reload the page.
    </Note>
  );
}
