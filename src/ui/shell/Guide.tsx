'use client';
import Box from '@mui/material/Box';
import Dialog from '@mui/material/Dialog';
import DialogContent from '@mui/material/DialogContent';
import IconButton from '@mui/material/IconButton';
import Typography from '@mui/material/Typography';
import { useGuide, type GuidePage } from '@/project/guide';
import { stationNames, type StationName } from '@/project/view';
import { Note } from '@/ui/widgets/Heading';
import { Icon } from '@/ui/widgets/Icon';
import { TabLine } from '@/ui/widgets/TabLine';
import { guideWords } from './guideWords';
import { KeysPage } from './KeysPage';

const tabs: { name: GuidePage; word: string }[] = [
  ...stationNames.map((name) => ({ name, word: guideWords[name].title })),
  { name: 'keys', word: 'Keys' },
];

/** A short guide: a page a station with a picture of the demo, and a page of keys. */
export function Guide() {
  const { page, open } = useGuide();
  return (
    <Dialog open={page !== null} onClose={() => open(null)} maxWidth="md" fullWidth aria-labelledby="guide-title">
      <DialogContent sx={{ position: 'relative', minHeight: 480 }}>
        <IconButton
          aria-label="Close the guide"
          onClick={() => open(null)}
          sx={{ position: 'absolute', right: 12, top: 12 }}
        >
          <Icon name="close" />
        </IconButton>
        {page !== null && (
          <>
            <Box sx={{ pr: 5 }}>
              <Typography id="guide-title" variant="h2" component="h1" color="text.secondary" sx={{ mb: 0.5 }}>
                Guide
              </Typography>
              <TabLine label="Pages of the guide" tabs={tabs} present={page} turn={open} />
            </Box>
            {page === 'keys' ? <KeysPage /> : <StationPage name={page} />}
          </>
        )}
      </DialogContent>
    </Dialog>
  );
}

function StationPage({ name }: { name: StationName }) {
  const { title, about, steps, watch, picture } = guideWords[name];
  return (
    <Box component="article" aria-label={`Guide: ${title}`}>
      <Typography variant="h1" component="h2" sx={{ mb: 0.5 }}>
        {title}
      </Typography>
      <Box component="p" sx={{ mt: 0, mb: 1.5 }}>
        {about}
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '1fr 1fr' }, gap: 2 }}>
        <Box component="ol" sx={{ m: 0, pl: 2.5, '& li': { mb: 0.75 } }}>
          {steps.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </Box>
        <Box
          component="img"
          src={picture.src}
          alt={`${title} in the demo`}
          sx={{ width: '100%', border: '1px solid var(--mui-palette-divider)', borderRadius: '5px' }}
        />
      </Box>
      <Box sx={{ mt: 1.5 }}>
        <Note kind="plain">{watch}</Note>
      </Box>
    </Box>
  );
}
