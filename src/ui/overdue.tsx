import { Box } from '@mui/material';

/** Said beside every verdict that leans on a gauge past its calibration date. */
export function Overdue({ tags }: { tags: readonly string[] }) {
  if (tags.length === 0) return null;
  return (
    <Box component="span" sx={{ color: 'warning.dark', fontWeight: 600 }}>
      {' '}
      · {tags.join(', ')} past calibration
    </Box>
  );
}
