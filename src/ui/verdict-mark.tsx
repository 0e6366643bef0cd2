import { Box } from '@mui/material';
import type { Result } from '@/core/twin/result';

type Word = Result['verdict'];

const LOOK: Record<Word, { word: string; color: string }> = {
  meets: { word: 'Meets', color: 'success.main' },
  close: { word: 'Too close to call', color: 'warning.main' },
  fails: { word: 'Fails', color: 'error.main' },
  'not-taken': { word: 'Not taken', color: 'text.secondary' },
  noted: { word: 'Noted', color: 'text.secondary' },
};

export const verdictWord = (word: Word) => LOOK[word].word;

/** A verdict as word, shape and colour: filled round with tick, half-filled diamond, open square with bar, dashed ring. */
export function VerdictMark({ verdict, bare = false }: { verdict: Word; bare?: boolean }) {
  const { word, color } = LOOK[verdict];
  return (
    <Box
      component="span"
      sx={{
        display: 'inline-flex',
        alignItems: 'center',
        gap: 0.6,
        color,
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
