'use client';

import { Box, Button, TextField } from '@mui/material';
import { useState, type FormEvent } from 'react';
import type { SealFound, Verification } from '@/core/records/verification';
import { AlteredWords } from '../altered';
import { call } from '../api';
import { day } from '../stamp';
import { Key, useKeys } from '../keys';
import { LinkButton } from '../link-button';
import { Page, Part } from '../page';

/** The records as a whole: are they as they were written, and is there a copy. */
export function RecordsPage() {
  const [found, setFound] = useState<Verification | null>(null);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState('');
  const check = async () => {
    setBusy(true);
    const answer = await call<Verification>('POST', '/verify', {});
    setBusy(false);
    setProblem(answer.ok ? '' : answer.problem.title);
    setFound(answer.ok ? answer.value : null);
  };
  useKeys([{ key: 'v', label: 'Verify all records', run: () => void check() }]);
  return (
    <Page title="Records" narrow>
      <Part title="As they were written">
        <p>
          Every entry carries a seal over its own words and the seal before it. Verifying reads the whole
          database and names whatever was altered behind the application’s back.
        </p>
        <Button variant="contained" onClick={() => void check()} disabled={busy} sx={{ gap: 1 }}>
          {busy ? 'Reading every entry…' : 'Verify all records'} <Key name="v" />
        </Button>
        <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
          {problem}
        </Box>
        {found && (
          <Box role="status" sx={{ mt: 2 }}>
            <Box
              sx={{ fontWeight: 650, color: found.alterations.length > 0 ? 'error.main' : 'success.main' }}
            >
              {found.alterations.length === 0
                ? `${found.entries} entries in ${found.records} records and ${found.photos} photos are as they were written.`
                : `${found.alterations.length} places are not as they were written.`}
            </Box>
            <ul>
              {found.alterations.map(({ where, entry, what }, i) => (
                <li key={i}>
                  <b>
                    {where}
                    {entry !== null && `, entry ${entry}`}:
                  </b>{' '}
                  {what}
                </li>
              ))}
            </ul>
          </Box>
        )}
      </Part>
      <SealPart />
      <Part title="A copy">
        <p>
          A backup is one moment of everything, whole, and can be taken while the bench goes on. Keep it on
          another machine.
        </p>
        <Button component="a" href="/api/v1/backup" variant="outlined" download>
          Save a backup
        </Button>
        <p>
          By night, from a schedule: <code>npm run backup -- FILE</code>. To put one back, stop the
          application and run <code>npm run restore -- FILE</code>; what was there is kept beside it.
        </p>
      </Part>
      <Part title="Between shops">
        <p>
          A job file carries a job whole, with its photos and seals. It is taken in unaltered or not at all.
        </p>
        <LinkButton href="/jobs/import" variant="outlined">
          Read a job file
        </LinkButton>
      </Part>
    </Page>
  );
}

/** A seal from paper against the signature that it was printed from. */
function SealPart() {
  const [seal, setSeal] = useState('');
  const [found, setFound] = useState<SealFound | null>(null);
  const [problem, setProblem] = useState('');
  const look = async (event: FormEvent) => {
    event.preventDefault();
    const answer = await call<SealFound>('GET', `/verify/seal?seal=${encodeURIComponent(seal)}`);
    setFound(answer.ok ? answer.value : null);
    setProblem(answer.ok ? '' : answer.problem.title);
  };
  return (
    <Part title="A seal from paper">
      <p>
        Somebody who can write the database can seal a whole record anew, and no seal within it tells. The
        customer’s report does: the seal printed on it beside the signature is then no longer here.
      </p>
      <Box
        component="form"
        onSubmit={(event) => void look(event)}
        sx={{ display: 'flex', gap: 1, alignItems: 'flex-start', flexWrap: 'wrap' }}
      >
        <TextField
          label="Seal on the report"
          value={seal}
          onChange={(event) => setSeal(event.target.value)}
          slotProps={{ htmlInput: { spellCheck: false, autoComplete: 'off' } }}
          sx={{ width: '28ch' }}
        />
        <Button type="submit" variant="outlined">
          Look for it
        </Button>
      </Box>
      <Box role="alert" sx={{ color: 'error.main', fontWeight: 600, mt: 1 }}>
        {problem}
      </Box>
      {found && (
        <Box role="status" sx={{ mt: 1 }}>
          {found.why && <AlteredWords why={found.why} here />}
          <Box sx={{ fontWeight: 650, color: found.why ? 'text.primary' : 'success.main' }}>
            Job {found.tag}, signed by {found.technician} on {day(found.at)}
            {found.why ? '.' : ': everything that was signed is as it was written.'}
          </Box>
          <LinkButton href={`/jobs/${found.job}`}>Open the job</LinkButton>
        </Box>
      )}
    </Part>
  );
}
