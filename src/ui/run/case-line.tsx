import { Box } from '@mui/material';
import Link from 'next/link';
import type { CaseView } from '@/core/practice/case-view';

interface CaseLineProps {
  readonly practice: CaseView;
  /** Why its unit is not on the bench; empty where it is. */
  readonly problem: string;
}

/** Says that a run is a practice case, and where it is handed back. */
export const CaseLine = ({ practice: { id, level, complaint, told }, problem }: CaseLineProps) => (
  <Box
    role="note"
    sx={{
      display: 'flex',
      columnGap: 2,
      flexWrap: 'wrap',
      borderLeft: '5px solid',
      borderColor: 'primary.main',
      pl: 1.25,
    }}
  >
    <Box>
      <b>Practice, level {level}.</b> {complaint}
    </Box>
    <Box component={Link} href={`/practice/${id}`} sx={{ fontWeight: 650, color: 'primary.main' }}>
      {told ? 'What was hidden' : 'Hand it back'}
    </Box>
    <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
      {problem}
    </Box>
  </Box>
);
