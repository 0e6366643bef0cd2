import { Box } from '@mui/material';
import { verdictWord, type Result } from '@/core/contract/result';

type Word = Result['verdict'];

const COLOR: Record<Word, string> = {
  meets: 'success.main',
  close: 'warning.dark',
  fails: 'error.main',
  'not-taken': 'text.secondary',
  noted: 'text.secondary',
};

/** A verdict as word, shape and colour: filled round with tick, half-filled diamond, open square with bar, dashed ring. */
export function VerdictMark({ verdict, bare = false }: { verdict: Word; bare?: boolean }) {
  const word = verdictWord(verdict);
  return (
    <Box
      component="span"
      sx={{
        display: 'inline-flex',
        alignItems: 'center',
        gap: 0.6,
        color: COLOR[verdict],
        fontWeight: 600,
        whiteSpace: 'nowrap',
      }}
    >
      <svg
        width="1.05em"
        height="1.05em"
        viewBox="0 0 20 20"
        role={bare ? 'img' : undefined}
        aria-label={bare ? word : undefined}
        aria-hidden={!bare}
      >
        {SHAPES[verdict]}
      </svg>
      {!bare && word}
    </Box>
  );
}

const SHAPES: Record<Word, React.ReactNode> = {
  meets: (
    <>
      <circle cx="10" cy="10" r="9" fill="currentColor" />
      <path
        d="M5.5 10.5l3 3 6-6.5"
        fill="none"
        stroke="var(--mui-palette-background-paper)"
        strokeWidth="2.2"
      />
    </>
  ),
  close: (
    <>
      <path d="M10 1l9 9-9 9-9-9z" fill="none" stroke="currentColor" strokeWidth="1.8" />
      <path d="M10 1v18l-9-9z" fill="currentColor" />
    </>
  ),
  fails: (
    <>
      <rect x="1.5" y="1.5" width="17" height="17" fill="none" stroke="currentColor" strokeWidth="2.2" />
      <path d="M5 10h10" stroke="currentColor" strokeWidth="2.6" />
    </>
  ),
  'not-taken': (
    <circle cx="10" cy="10" r="8" fill="none" stroke="currentColor" strokeWidth="2" strokeDasharray="3.2 3" />
  ),
  noted: <path d="M3 10h14" stroke="currentColor" strokeWidth="2" />,
};
