import { Box } from '@mui/material';
import { CAUTIONS, type CautionId } from '@/core/contract/cautions';

/** Hazards and what to do about them, where they matter. */
export function CautionList({ ids }: { ids: readonly CautionId[] }) {
  return (
    <Box component="ul" aria-label="Cautions" sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 1 }}>
      {ids.map((id) => (
        <Box component="li" key={id} sx={{ borderLeft: '5px solid', borderColor: 'warning.main', pl: 1.5 }}>
          <Box sx={{ fontWeight: 650 }}>{CAUTIONS[id].hazard}</Box>
          <Box>{CAUTIONS[id].action}</Box>
        </Box>
      ))}
    </Box>
  );
}
