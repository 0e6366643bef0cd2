import { Box, Table, TableBody, TableCell, TableRow } from '@mui/material';
import type { Block, Cell, Document } from '@/core/documents/document';
import { Columns } from './table-head';
import { VerdictMark } from './verdict-mark';

/** A document on the screen and on paper, piece by piece. */
export function DocumentView({ document, label }: { document: Document; label: string }) {
  const cut = document.blocks.findIndex(({ kind }) => kind === 'page-break');
  const [first, rest] =
    cut < 0 ? [document.blocks, []] : [document.blocks.slice(0, cut), document.blocks.slice(cut + 1)];
  return (
    <Box component="article" aria-label={label} sx={ON_PAPER}>
      <Box sx={{ breakAfter: rest.length > 0 ? 'page' : undefined }}>
        {first.map((block, i) => (
          <Piece key={i} block={block} title="h1" />
        ))}
      </Box>
      <Box sx={{ mt: 6, '@media print': { mt: 0 } }}>
        {rest.map((block, i) => (
          <Piece key={i} block={block} title="h2" />
        ))}
      </Box>
    </Box>
  );
}

/** On paper as tight as the PDF: what fits one page there fits one here. */
const ON_PAPER = {
  '@media print': {
    lineHeight: 1.3,
    '& p, & ul, & ol': { my: '2pt' },
    '& h2': { mt: '9pt', mb: '2pt' },
    '& dl': { rowGap: '1pt' },
    '& figure': { m: 0 },
  },
} as const;

/** @param title rank of a title: a page has one heading of the first */
function Piece({ block, title }: { block: Block; title: 'h1' | 'h2' }) {
  switch (block.kind) {
    case 'letterhead':
      return (
        <Box sx={{ mb: 2, display: 'flex', alignItems: 'center', gap: 2 }}>
          {block.logo && <Picture sha256={block.logo} alt="" height={44} width={110} />}
          <Box>
            <Box sx={{ fontWeight: 700, fontSize: '1.1em' }}>{block.name}</Box>
            <Box sx={{ color: 'text.secondary', whiteSpace: 'pre-line' }}>{block.lines.join(' · ')}</Box>
          </Box>
        </Box>
      );
    case 'title':
      return (
        <Box
          sx={{
            display: 'flex',
            justifyContent: 'space-between',
            borderBottom: 3,
            borderColor: 'text.primary',
            pb: 1,
            mb: 2,
          }}
        >
          <Box component={title} sx={{ '&&': { m: 0 }, fontSize: '1.7em' }}>
            {block.text}
          </Box>
          <Box sx={{ textAlign: 'right' }}>
            {block.aside.map((line, i) => (
              <Box key={line} sx={{ fontWeight: i === 0 ? 700 : 400 }}>
                {line}
              </Box>
            ))}
          </Box>
        </Box>
      );
    case 'headline':
      return (
        <Box component="h2" sx={{ fontSize: '1.5em', mt: 3, mb: 1 }}>
          {block.text}
        </Box>
      );
    case 'heading':
      return (
        <Box
          component="h2"
          sx={{
            fontSize: '1.1em',
            mt: 3,
            mb: 0.75,
            borderBottom: 1,
            borderColor: 'divider',
            breakAfter: 'avoid',
          }}
        >
          {block.text}
        </Box>
      );
    case 'lead':
      return (
        <Box component="p" sx={{ fontSize: '1.1em', my: 0.75 }}>
          {block.text}
        </Box>
      );
    case 'paragraph':
      return (
        <Box component="p" sx={{ fontWeight: block.strong ? 650 : 400, overflowWrap: 'anywhere' }}>
          {block.text}
        </Box>
      );
    case 'list':
      return (
        <Box component={block.numbered ? 'ol' : 'ul'}>
          {block.items.map(({ lead, text }, i) => (
            <Box component="li" key={i} sx={{ overflowWrap: 'anywhere' }}>
              {lead && <b>{lead} </b>}
              {text}
            </Box>
          ))}
        </Box>
      );
    case 'photos':
      return (
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, minmax(0, 1fr))', gap: 1, my: 1.5 }}>
          {block.photos.map(({ sha256, caption }) => (
            <Box key={sha256} component="figure" sx={{ m: 0, breakInside: 'avoid' }}>
              <Picture sha256={sha256} alt={caption || 'Photo of the unit'} height={112} width="100%" />
              <Box
                component="figcaption"
                sx={{ color: 'text.secondary', fontSize: '0.85em', overflowWrap: 'anywhere' }}
              >
                {caption}
              </Box>
            </Box>
          ))}
        </Box>
      );
    case 'boxes':
      return (
        <Box component="ul" sx={{ listStyle: 'none', p: 0 }}>
          {block.items.map((text) => (
            <Box component="li" key={text} sx={{ display: 'flex', gap: 1.5, py: 0.4, breakInside: 'avoid' }}>
              <Box
                aria-hidden
                sx={{
                  width: 18,
                  height: 18,
                  flex: '0 0 18px',
                  mt: 0.3,
                  border: 2,
                  borderColor: 'text.primary',
                }}
              />
              {text}
            </Box>
          ))}
        </Box>
      );
    case 'facts':
      return (
        <Box
          component="dl"
          sx={{ display: 'grid', gridTemplateColumns: '190px minmax(0, 1fr)', gap: 0.5, m: 0 }}
        >
          {block.facts.map(([name, value]) => (
            <Box key={name} sx={{ display: 'contents' }}>
              <Box component="dt" sx={{ color: 'text.secondary' }}>
                {name}
              </Box>
              <Box component="dd" sx={{ m: 0, whiteSpace: 'pre-wrap', overflowWrap: 'anywhere' }}>
                {value}
              </Box>
            </Box>
          ))}
        </Box>
      );
    case 'chart':
      return (
        <Box
          component="figure"
          sx={{ m: 0, breakInside: 'avoid', '& svg': { maxWidth: '100%', height: 'auto' } }}
        >
          {/* Drawn by our own code from numbers; every word in it is escaped there. */}
          <div dangerouslySetInnerHTML={{ __html: block.svg }} />
          <Box component="figcaption" sx={{ color: 'text.secondary', fontSize: '0.9em' }}>
            {block.caption}
          </Box>
        </Box>
      );
    case 'table':
      return (
        <Table
          size="small"
          aria-label={block.name}
          sx={{ tableLayout: 'fixed', '& td, & th': { px: 0.75, py: 0.4, verticalAlign: 'top' } }}
        >
          <colgroup>
            {block.widths.map((width, i) => (
              <col key={i} style={{ width: `${width}%` }} />
            ))}
          </colgroup>
          <Columns names={block.columns} />
          <TableBody>
            {block.rows.map((row, i) => (
              <TableRow key={i} sx={{ breakInside: 'avoid' }}>
                {row.map((one, j) => (
                  <CellView key={j} cell={one} />
                ))}
              </TableRow>
            ))}
          </TableBody>
        </Table>
      );
    case 'page-break':
      return <Box sx={{ breakAfter: 'page', height: 48, '@media print': { height: 0 } }} />;
  }
}

interface PictureProps {
  readonly sha256: string;
  readonly alt: string;
  readonly height: number;
  readonly width: number | string;
}

/** A picture from the application's own store, whole within its frame. */
function Picture({ sha256, alt, height, width }: PictureProps) {
  return (
    // eslint-disable-next-line @next/next/no-img-element
    <img
      src={`/api/v1/photos/${sha256}`}
      alt={alt}
      style={{ height, width, maxWidth: '100%', objectFit: 'contain', objectPosition: 'left top' }}
    />
  );
}

function CellView({ cell }: { cell: Cell }) {
  return (
    <TableCell
      sx={{
        overflowWrap: 'anywhere',
        fontWeight: cell.strong ? 700 : 400,
        color: cell.strong ? 'error.main' : undefined,
      }}
    >
      {cell.verdict ? (
        <VerdictMark verdict={cell.verdict} />
      ) : (
        <Box component="span" sx={{ textDecoration: cell.struck ? 'line-through' : undefined }}>
          {cell.text}
        </Box>
      )}
      {cell.small?.map((line, i) => (
        <Box key={i} sx={{ color: 'text.secondary', fontSize: '0.92em' }}>
          {line}
        </Box>
      ))}
    </TableCell>
  );
}
