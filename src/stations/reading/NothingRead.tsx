'use client';
import Button from '@mui/material/Button';
import { kinds } from '@/core/kinds/kinds';
import type { Candidate } from '@/core/reading/candidate';
import { roleNames, type Role } from '@/core/sorting/roles';
import { useView } from '@/project/view';
import { Note } from '@/ui/widgets/Heading';
import { kindWords } from './kindWords';

/** Why nothing was read of a kind. @param sorted whether a layer has a role that the kind is read from */
export function NothingRead({ kind, sorted }: { kind: Candidate['kind']; sorted: boolean }) {
  const setView = useView((view) => view.set);
  const many = kindWords[kind].toLowerCase();
  return (
    <Note kind="plain">
      Nothing was read as {many}.{' '}
      {sorted
        ? 'The layers with this role hold nothing that looks like it.'
        : `No layer has a role that ${many} are read from.`}{' '}
      <Button variant="text" onClick={() => setView({ station: 'sorting' })}>
        Go to Sorting
      </Button>
    </Note>
  );
}

interface IdleProps {
  idle: readonly { name: string; count: number; role: Role }[];
  kind: Candidate['kind'];
}

/** Layers whose content contradicts their role. */
export function IdleLayers({ idle, kind }: IdleProps) {
  const setView = useView((view) => view.set);
  return idle.map(({ name, count, role }) => (
    <Note key={`${name} ${role}`} kind="look">
      {name} is sorted as {roleNames[role].toLowerCase()}, and none of its {count} lines reads as {kinds[kind].names[0]}
      .{' '}
      <Button variant="text" onClick={() => setView({ station: 'sorting', sortingPart: 'layers' })}>
        Go to Sorting
      </Button>
    </Note>
  ));
}
