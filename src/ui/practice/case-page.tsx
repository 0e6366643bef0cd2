'use client';

import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  MenuItem,
  TextField,
} from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { faultsOf } from '@/core/contract/family';
import { HEALTHY, repairOf, UNKNOWN } from '@/core/diagnosis/causes';
import { FAMILIES, type FamilyKind } from '@/core/families/registry';
import type { CaseView } from '@/core/practice/case-view';
import { repairWords } from '@/core/practice/words';
import { LEVELS } from '@/core/practice/levels';
import { call } from '../api';
import { LinkButton } from '../link-button';
import { Page, Part } from '../page';
import { CaseDebrief } from './case-debrief';

/** One case: to be gone on with and handed back, or looked back at. */
export function CasePage({ stored }: { stored: CaseView }) {
  const { tag, kind, level, technician, complaint, told, notCounted, jobId } = stored;
  return (
    <Page title={`${tag} · ${FAMILIES[kind].name}`}>
      <Box sx={{ mb: 2, maxWidth: '75ch' }}>
        <Box sx={{ fontSize: '1.15rem', fontWeight: 600 }}>{complaint}</Box>
        <Box sx={{ color: 'text.secondary' }}>
          Level {level}, {LEVELS[level].name.toLowerCase()} · {technician}
        </Box>
        {notCounted && (
          <Box sx={{ borderLeft: '5px solid', borderColor: 'warning.main', pl: 1.25, mt: 1 }}>
            It does not count. {notCounted}
          </Box>
        )}
      </Box>
      {told ? (
        <CaseDebrief
          id={stored.id}
          kind={kind}
          told={told}
          actions={<LinkButton href={`/jobs/${jobId}`}>The job sheet</LinkButton>}
        />
      ) : (
        <OpenCase stored={stored} />
      )}
    </Page>
  );
}

function OpenCase({ stored: { id, jobId, kind } }: { stored: CaseView }) {
  const router = useRouter();
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const goOn = async () => {
    setBusy(true);
    const answer = await call<{ readonly run: string }>('POST', `/practice/cases/${id}/bench`);
    if (answer.ok) {
      router.push(`/runs/${answer.value.run}`);
      // The bench may have a logger only now: what stands around every screen is to know it.
      return router.refresh();
    }
    setBusy(false);
    setProblem(answer.problem.title);
  };
  return (
    <>
      <Part title="Find what is wrong">
        <Box sx={{ py: 1, maxWidth: '75ch' }}>
          The unit lies on the simulated bench, and its test is the ordinary one. Where something is to be
          looked at, the test shows what is seen there. A wait can be let pass at once. A part that is changed
          is written on the job sheet, as ever: the bench has a sound one then, and each that was changed for
          nothing counts as an hour.
        </Box>
        <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'center' }}>
          <Button variant="contained" onClick={() => void goOn()} disabled={busy} sx={{ minHeight: 44 }}>
            To the test
          </Button>
          <LinkButton href={`/jobs/${jobId}`} sx={{ minHeight: 44 }}>
            The job sheet
          </LinkButton>
          <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
            {problem}
          </Box>
        </Box>
      </Part>
      <Part title="Hand it back" note="What is hidden is told then, and the case is over.">
        <HandBack id={id} kind={kind} />
      </Part>
    </>
  );
}

/** Parts that a repair of each fault changes, as they are chosen from. */
function choicesOf(kind: FamilyKind): readonly string[] {
  const family = FAMILIES[kind];
  return [...new Set(faultsOf(family, family.typical).map((fault) => repairOf([fault])))];
}

function HandBack({ id, kind }: { id: string; kind: FamilyKind }) {
  const router = useRouter();
  const [finding, setFinding] = useState<readonly string[]>([]);
  const [asking, setAsking] = useState(false);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState('');
  /** Nothing, or not known, stands by itself. */
  const choose = (chosen: readonly string[]) => {
    const last = chosen.at(-1);
    const alone = last === HEALTHY || last === UNKNOWN;
    setFinding(alone ? [last] : chosen.filter((one) => one !== HEALTHY && one !== UNKNOWN));
    setProblem('');
  };
  const named = [...new Set(finding.flatMap((one) => one.split(' + ')))].sort().join(' + ');
  const end = async () => {
    setBusy(true);
    const answer = await call<CaseView>('POST', `/practice/cases/${id}/end`, { finding: named });
    setBusy(false);
    setAsking(false);
    if (answer.ok) return router.refresh();
    setProblem(Object.values(answer.problem.fields ?? {})[0] ?? answer.problem.title);
  };
  return (
    <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'center', pt: 1 }}>
      <TextField
        select
        label="What was wrong"
        value={finding}
        onChange={({ target }) => choose(target.value as unknown as string[])}
        sx={{ width: 420 }}
        slotProps={{
          select: {
            multiple: true,
            renderValue: (chosen) => (chosen as string[]).map((one) => repairWords(kind, one)).join(', and '),
          },
        }}
      >
        {[...choicesOf(kind), HEALTHY, UNKNOWN].map((one) => (
          <MenuItem key={one} value={one}>
            {repairWords(kind, one)}
          </MenuItem>
        ))}
      </TextField>
      <Button
        variant="outlined"
        disabled={busy}
        sx={{ minHeight: 44 }}
        onClick={() => {
          if (finding.length === 0)
            setProblem('What was wrong: choose it first. “Not known” is an answer, too.');
          else setAsking(true);
        }}
      >
        Hand it back
      </Button>
      <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
        {problem}
      </Box>
      <Dialog open={asking} onClose={() => !busy && setAsking(false)} aria-labelledby="hand-back">
        <DialogTitle id="hand-back">Hand it back?</DialogTitle>
        <DialogContent>
          Found: {finding.map((one) => repairWords(kind, one)).join(', and ')}. The case is over then, and
          what was hidden is told. {busy && 'It is being worked out: this takes some seconds.'}
        </DialogContent>
        <DialogActions>
          <Button autoFocus disabled={busy} onClick={() => setAsking(false)}>
            Go on testing
          </Button>
          <Button disabled={busy} onClick={() => void end()}>
            {busy ? 'Working it out…' : 'Hand it back'}
          </Button>
        </DialogActions>
      </Dialog>
    </Box>
  );
}
