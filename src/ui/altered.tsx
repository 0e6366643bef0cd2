import { Box } from '@mui/material';
import { LinkButton } from './link-button';
import { Page } from './page';

/** Said in the place of something that is not as it was written. */
export function Altered({ title, why }: { title: string; why: string }) {
  return (
    <Page title={title} narrow>
      <AlteredWords why={why} />
    </Page>
  );
}

const BEHIND_ITS_BACK =
  'It was changed behind the application’s back, or the disk is failing. Verifying names everything that is not as it was written; the last backup has it as it was.';

interface AlteredWordsProps {
  readonly why: string;
  /** What may have come about, and what helps. */
  readonly more?: string;
  /** Where all records are verified already. */
  readonly here?: boolean;
}

/** That something is not as it was written, with the way to what else is, and to the last copy that was. */
export function AlteredWords({ why, more = BEHIND_ITS_BACK, here = false }: AlteredWordsProps) {
  return (
    <Box
      role="alert"
      sx={{
        borderLeft: '6px solid',
        borderColor: 'error.main',
        pl: 2,
        py: 1,
        mb: 2,
        display: 'grid',
        gap: 1,
        justifyItems: 'start',
      }}
    >
      <Box sx={{ fontWeight: 650 }}>{why}</Box>
      <Box sx={{ maxWidth: '70ch' }}>{more}</Box>
      {!here && (
        <LinkButton href="/shelf/records" variant="outlined">
          Verify all records
        </LinkButton>
      )}
    </Box>
  );
}

/** That something is left out of the lists because it is damaged. */
export function LeftOut({ words }: { words: string | null }) {
  if (!words) return null;
  return (
    <Box sx={{ maxWidth: 1240, mx: 'auto', px: 3, pt: 2.5 }}>
      <AlteredWords why={words} />
    </Box>
  );
}
