'use client';

import { Box, Button } from '@mui/material';
import { useState } from 'react';
import type { Verification } from '@/core/records/verification';
import { call } from '../api';
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
