'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { shapedOf, type Candidate } from '@/core/reading/candidate';
import { kinds } from '@/core/kinds/kinds';
import { fieldsOf } from '@/core/kinds/putRight';
import { useLengths } from '@/project/useSession';
import { Part } from '@/ui/widgets/Heading';
import { ShapeFields } from '@/ui/widgets/ShapeFields';
import { putRight } from './corrections';

/** Puts right what was read of one candidate, or of many alike, and accepts them so. */
export function CorrectPart({
  candidates,
  accept,
}: {
  candidates: readonly Candidate[];
  accept: (candidates: Candidate[]) => void;
}) {
  const lengths = useLengths();
  const [changes, setChanges] = useState<ReadonlyMap<string, string | number>>(new Map());
  const [first] = candidates;
  const many = candidates.length > 1;
  if (fieldsOf(first.kind, first.element).filter(({ end }) => !end || !many).length === 0) return null;
  return (
    <Part title={many ? `Put ${candidates.length} ${kinds[first.kind].names[1]} right` : 'Put right'}>
      <ShapeFields
        things={candidates.map(shapedOf)}
        lengths={lengths}
        changes={changes}
        live
        set={(label, value) => setChanges((before) => new Map([...before, [label, value]]))}
      />
      <Button
        variant="outlined"
        disabled={changes.size === 0}
        onClick={() => accept(candidates.map((candidate) => putRight(candidate, changes)))}
      >
        {many ? `Accept ${candidates.length} so` : 'Accept it so'}
      </Button>
    </Part>
  );
}
