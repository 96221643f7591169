'use client';
import Button from '@mui/material/Button';
import { useView } from '@/project/view';
import { BenchHead, Note } from './Heading';

/** A bench without a drawing: what is missing, and the way there. */
export function NoDrawing({ title }: { title: string }) {
  const set = useView((view) => view.set);
  return (
    <>
      <BenchHead title={title} about="No drawing yet" />
      <Note kind="plain">This station works on a drawing, and the project has none.</Note>
      <Button variant="contained" onClick={() => set({ station: 'intake' })}>
        Go to Intake
      </Button>
    </>
  );
}
