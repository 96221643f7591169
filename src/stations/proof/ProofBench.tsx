'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { counted } from '@/core/model/counted';
import { useFindings, useJudged } from '@/project/findings';
import { useModel, useSession } from '@/project/useSession';
import { useView, type ProofPart } from '@/project/view';
import { BenchHead } from '@/ui/widgets/Heading';
import { TabLine } from '@/ui/widgets/TabLine';
import { DrawingsPart } from './DrawingsPart';
import { FindingsPart } from './FindingsPart';
import { HeatPart } from './HeatPart';
import { LightPart } from './LightPart';
import { StructurePart } from './StructurePart';

const parts: { name: ProofPart; word: string }[] = [
  { name: 'findings', word: 'Findings' },
  { name: 'drawings', word: 'Drawings' },
  { name: 'structure', word: 'Structure' },
  { name: 'heat', word: 'Heat' },
  { name: 'light', word: 'Light' },
];

/** What is wrong with the model, and the calculations that prove it. */
export function ProofBench() {
  const { id } = useSession();
  const elements = useModel('element').count('element');
  const { findings, stale } = useFindings();
  const open = useJudged().filter(({ accepted }) => accepted === null).length;
  const { proofPart, set } = useView();
  return (
    <>
      <BenchHead title="Proof" about={aboutOf(elements, findings === null ? null : open, stale)} />
      <Box sx={{ position: 'absolute', right: 52, top: 14 }}>
        <Button size="small" variant="text" href={`/projects/${id}/report`} target="_blank" rel="noopener">
          Report
        </Button>
      </Box>
      <TabLine label="Parts of Proof" tabs={parts} present={proofPart} turn={(name) => set({ proofPart: name })} />
      {proofPart === 'findings' && <FindingsPart />}
      {proofPart === 'drawings' && <DrawingsPart />}
      {proofPart === 'structure' && <StructurePart />}
      {proofPart === 'heat' && <HeatPart />}
      {proofPart === 'light' && <LightPart />}
    </>
  );
}

function aboutOf(elements: number, open: number | null, stale: boolean): string {
  if (elements === 0) return 'The model is empty';
  if (open === null) return 'looking \u2026';
  return `${counted(open, 'open finding')} in ${counted(elements, 'element')}${stale ? ', looking again \u2026' : ''}`;
}
