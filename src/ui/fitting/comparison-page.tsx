'use client';

import {
  Box,
  Button,
  DialogContent,
  DialogTitle,
  Table,
  TableBody,
  TableCell,
  TableContainer,
  TableHead,
  TableRow,
} from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import {
  candidateFields,
  comparedIn,
  placeFields,
  type CandidateFields,
  type Compared,
  type Comparison,
  type PlaceFields,
} from '@/core/shop/comparison';
import type { Stored } from '@/core/records/views';
import type { Margin } from '@/core/vehicle/fitting';
import { DraftDialog } from '../draft-dialog';
import { SchemaForm } from '../forms/schema-form';
import { LinkButton } from '../link-button';
import { Nothing, Page } from '../page';
import { RemoveButton } from '../shelf/remove-button';
import { TO_A_MM, usePrint } from '../settings-context';
import { VERDICT_WORDS } from './verdict-words';

const NEW_CANDIDATE: Partial<CandidateFields> = { assist: 'vacuum', altered: false };

/** What is being changed: the vehicle, a candidate by its place, or a new one. */
type Editing = { readonly of: 'place' } | { readonly of: 'candidate'; readonly at: number | null };

/** Candidates against one vehicle: every margin, and a verdict with its reasons. */
export function ComparisonPage({ stored }: { stored: Stored<Comparison> }) {
  const router = useRouter();
  const { id, version, body } = stored;
  const [editing, setEditing] = useState<Editing | null>(null);
  const found = comparedIn(body);
  const saved = () => {
    setEditing(null);
    router.refresh();
  };
  const common = {
    method: 'PUT' as const,
    url: `/comparisons/${id}`,
    saveLabel: 'Save',
    inDialog: true,
    onSaved: saved,
    beside: <Button onClick={() => setEditing(null)}>Leave it</Button>,
  };
  const at = editing?.of === 'candidate' ? editing.at : null;
  const withCandidate = (candidate: CandidateFields): Comparison => ({
    ...body,
    candidates:
      at === null
        ? [...body.candidates, candidate]
        : body.candidates.map((one, i) => (i === at ? candidate : one)),
  });
  return (
    <Page
      title={body.place.name}
      actions={
        <>
          <RemoveButton path={`/comparisons/${id}`} name={body.place.name} />
          <Button onClick={() => setEditing({ of: 'place' })}>Figures of the vehicle</Button>
          <Button variant="contained" onClick={() => setEditing({ of: 'candidate', at: null })}>
            Add a candidate
          </Button>
        </>
      }
    >
      {found.length === 0 ? (
        <Nothing>
          No candidate yet. Give the figures of the vehicle, then add what could be fitted. One with half of
          its figures is kept, and says what is missing.
        </Nothing>
      ) : (
        <Compare
          id={id}
          body={body}
          found={found}
          onEdit={(place) => setEditing({ of: 'candidate', at: place })}
        />
      )}
      {editing?.of === 'place' && (
        <DraftDialog labelledBy="fitting-form" onClose={() => setEditing(null)}>
          <DialogTitle id="fitting-form">Figures of the vehicle</DialogTitle>
          <DialogContent>
            <SchemaForm<PlaceFields>
              {...common}
              schema={placeFields}
              initial={body.place}
              wrap={(place) => ({ version, body: { ...body, place } })}
            />
          </DialogContent>
        </DraftDialog>
      )}
      {editing?.of === 'candidate' && (
        <DraftDialog labelledBy="fitting-form" onClose={() => setEditing(null)}>
          <DialogTitle id="fitting-form">
            {at === null ? 'A candidate' : body.candidates[at]!.name}
          </DialogTitle>
          <DialogContent>
            <SchemaForm<CandidateFields>
              {...common}
              schema={candidateFields}
              initial={at === null ? NEW_CANDIDATE : body.candidates[at]}
              wrap={(candidate) => ({ version, body: withCandidate(candidate) })}
            />
          </DialogContent>
        </DraftDialog>
      )}
    </Page>
  );
}

interface CompareProps {
  readonly id: string;
  readonly body: Comparison;
  readonly found: readonly Compared[];
  readonly onEdit: (place: number) => void;
}

/** Each candidate a column, each margin a line: what is missed stands by itself. */
function Compare({ id, found, onEdit }: CompareProps) {
  const print = usePrint();
  const every = [
    ...new Map(found.flatMap(({ margins }) => margins.map((one) => [one.id, one.name]))).entries(),
  ];
  return (
    <TableContainer>
      <Table size="small" aria-label="Margins">
        <TableHead>
          <TableRow>
            <TableCell>Margin</TableCell>
            {found.map(({ place, name, verdict, score, least }) => (
              <TableCell key={place} sx={{ verticalAlign: 'top', minWidth: 190 }}>
                <Box sx={{ fontWeight: 700 }}>{name}</Box>
                <Box
                  sx={{
                    fontWeight: 600,
                    color:
                      verdict === 'fits'
                        ? 'success.main'
                        : verdict === 'does-not-fit'
                          ? 'error.main'
                          : 'warning.dark',
                  }}
                >
                  {VERDICT_WORDS[verdict]}
                </Box>
                <Box sx={{ color: 'text.secondary', fontWeight: 400 }}>
                  {score === null ? 'not ranked' : `score ${Math.round(100 * score)} of 100`}
                  {least && `, least: ${least.name.toLowerCase()} `}
                  {least && <Whole>{print.value(least.margin, 'percent')}</Whole>}
                </Box>
                <Box sx={{ display: 'flex', flexWrap: 'wrap', ml: -1 }}>
                  <Button size="small" onClick={() => onEdit(place)}>
                    Figures
                  </Button>
                  <LinkButton size="small" href={`/shelf/comparisons/${id}/plan?candidate=${place}`}>
                    Fitting plan
                  </LinkButton>
                </Box>
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {every.map(([margin, name]) => (
            <TableRow key={margin}>
              <TableCell component="th" scope="row">
                {name}
              </TableCell>
              {found.map(({ place, margins }) => (
                <TableCell key={place}>
                  <MarginCell one={margins.find((of) => of.id === margin)} />
                </TableCell>
              ))}
            </TableRow>
          ))}
          <TableRow>
            <TableCell component="th" scope="row">
              Reasons
            </TableCell>
            {found.map(({ place, reasons }) => (
              <TableCell key={place} sx={{ verticalAlign: 'top' }}>
                {reasons.map((reason) => (
                  <Box key={reason}>{reason}</Box>
                ))}
              </TableCell>
            ))}
          </TableRow>
        </TableBody>
      </Table>
    </TableContainer>
  );
}

/** Words that stay on one line: no number stands there without its unit. */
const Whole = ({ children, quiet }: { children: ReactNode; quiet?: boolean }) => (
  <Box component="span" sx={{ whiteSpace: 'nowrap', color: quiet ? 'text.secondary' : undefined }}>
    {children}
  </Box>
);

/** One margin: what there is against what is needed, and by how much; a word and a mark where it is missed. */
function MarginCell({ one }: { one: Margin | undefined }) {
  const print = usePrint();
  if (!one) return <Box sx={{ color: 'text.secondary' }}>does not ask for it</Box>;
  if (!one.known) return <Box sx={{ color: 'warning.dark' }}>Not known yet: {one.lacks.join(', ')}</Box>;
  const missed = one.margin < 0;
  const shown = (value: number) =>
    one.sense === 'alike'
      ? ''
      : print.value(
          value,
          one.quantity,
          one.quantity === 'length' || one.quantity === 'travel' ? TO_A_MM : {},
        );
  return (
    <Box sx={{ color: missed ? 'error.main' : undefined, fontWeight: missed ? 700 : 400 }}>
      {one.sense === 'alike' ? (
        one.says
      ) : (
        <>
          <Whole>{shown(one.has)},</Whole>{' '}
          <Whole>
            {one.sense === 'at-least' ? 'needs' : 'at most'} {shown(one.limit)}
          </Whole>{' '}
          <Whole quiet={!missed}>({print.value(one.margin, 'percent')})</Whole>
        </>
      )}
      {missed && <Box>▬ Missed</Box>}
    </Box>
  );
}
