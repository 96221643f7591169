'use client';
import { useEffect } from 'react';
import { useSession } from '@/project/useSession';

/** Where letters are typed, the keys of undo and redo are the field's own. */
const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement;

/** Ctrl Z takes the last step back, Ctrl Y or Ctrl Shift Z does it again. */
export function useUndoKeys(): void {
  const { undo, redo } = useSession();
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || typing(event.target)) return;
      const key = event.key.toLowerCase();
      if (key !== 'z' && key !== 'y') return;
      event.preventDefault();
      void (key === 'y' || event.shiftKey ? redo() : undo());
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [undo, redo]);
}
