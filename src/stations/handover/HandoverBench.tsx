'use client';
import { useMemo } from 'react';
import Button from '@mui/material/Button';
import { resolveBuilding } from '@/core/resolved/resolve';
import { useSelected } from '@/project/selected';
import { activeDrawings } from '@/project/projectRow';
import { useModel, useMoment } from '@/project/useSession';
import { useView, type HandoverPart } from '@/project/view';
import { BenchHead, Note } from '@/ui/widgets/Heading';
import { TabLine } from '@/ui/widgets/TabLine';
import { DeliveriesPart } from './DeliveriesPart';
import { FilesPart } from './FilesPart';
import { HeldPart } from './HeldPart';

const parts: { name: HandoverPart; word: string }[] = [
  { name: 'deliveries', word: 'Deliveries' },
  { name: 'files', word: 'Single files' },
];

/** The model out, in open formats. */
export function HandoverBench() {
  const state = useModel('project', 'level', 'drawing', 'placement', 'element');
  const setView = useView((view) => view.set);
  const handoverPart = useView((view) => view.handoverPart);
  const elements = Object.values(state.element);
  const drawings = activeDrawings(state);
  const open = drawings.filter((drawing) => !state.placement[drawing.id]?.confirmed);
  return (
    <>
      <BenchHead
        title="Handover"
        about={elements.length === 0 ? 'The model is empty' : `${elements.length} elements`}
      />
      {elements.length === 0 && (
        <Note kind="plain">
          Nothing has been accepted yet.{' '}
          <Button variant="text" onClick={() => setView({ station: 'reading' })}>
            Go to Reading
          </Button>
        </Note>
      )}
      {open.length > 0 && elements.length > 0 && (
        <Note kind="look">
          The unit of {open.map((drawing) => drawing.name).join(', ')} is not confirmed; all sizes follow from it.{' '}
          <Button variant="text" onClick={() => setView({ station: 'datum' })}>
            Go to Datum
          </Button>
        </Note>
      )}
      <Unresolved />
      {elements.length > 0 && (
        <>
          <HeldPart />
          <TabLine
            label="Parts of Handover"
            tabs={parts}
            present={handoverPart}
            turn={(name) => setView({ handoverPart: name })}
          />
          {handoverPart === 'deliveries' ? <DeliveriesPart /> : <FilesPart />}
        </>
      )}
    </>
  );
}

/** What cannot be handed over as it stands, with what to do about it. */
function Unresolved() {
  const moment = useMoment('element', 'level');
  const select = useSelected((store) => store.select);
  const unresolved = useMemo(() => {
    const { model } = moment;
    return resolveBuilding({ levels: Object.values(model.level), elements: Object.values(model.element) }).unresolved;
  }, [moment]);
  return unresolved.map(({ message, elements, rule, kept }) => (
    <Note key={`${rule} ${elements[0]}`} kind="look">
      {message} {kept ? '' : 'Until then it is not handed over. '}
      <Button variant="text" onClick={() => select(elements)}>
        Select
      </Button>
    </Note>
  ));
}
