'use client';

import { Box, Button } from '@mui/material';
import { useMemo, useState } from 'react';
import { expectedAtHome } from '@/core/documents/at-home';
import { homeChecksOf } from '@/core/families/home-checks';
import { homeFields, homeFile, readHomeFile, type HomeAnswers } from '@/core/records/home-answers';
import type { JobRecord } from '@/core/records/job-record';
import type { StoredJob } from '@/core/records/views';
import { FileButton } from '../file-button';
import { useSettings } from '../settings-context';
import { EntryDialog } from './entry-dialog';

interface HomeDialogProps {
  readonly id: string;
  readonly job: StoredJob;
  readonly record: Pick<JobRecord, 'profile'>;
  readonly onClose: () => void;
  readonly onSaved: () => void;
}

/** What a customer tried at home: typed in, or read from the file that came back. Nothing is answered before somebody does. */
export function HomeDialog({ id, job, record, onClose, onSaved }: HomeDialogProps) {
  const { unitSet } = useSettings();
  const { kind, tag } = job.body;
  const checks = homeChecksOf(kind);
  const schema = useMemo(() => homeFields(checks), [checks]);
  const nothing = Object.fromEntries(checks.map((check) => [check.id, 'not-tried']));
  const [filled, setFilled] = useState<{
    initial: Record<string, string>;
    how: HomeAnswers['how'];
    turn: number;
  }>({
    initial: { ...nothing, words: '' },
    how: 'typed',
    turn: 0,
  });
  const [problem, setProblem] = useState('');
  const blank = homeFile(tag, checks, (check) => expectedAtHome(kind, record.profile.body, check, unitSet));
  const read = async (file: File) => {
    const found = readHomeFile(await file.text(), tag, checks);
    setProblem(found.ok ? '' : `${file.name}: ${found.why} Nothing was filled in.`);
    if (found.ok)
      setFilled(({ turn }) => ({
        initial: { ...nothing, ...found.answers, words: found.words },
        how: 'file',
        turn: turn + 1,
      }));
  };
  return (
    <EntryDialog<Record<string, string>>
      key={filled.turn}
      title="Home check"
      schema={schema as never}
      initial={filled.initial}
      longFields={['words']}
      saveLabel="Write it down"
      url={`/jobs/${job.id}/entries`}
      wrap={({ words = '', ...answers }) => ({
        id,
        entry: { type: 'home-check', home: { answers, words, how: filled.how } },
      })}
      intro={
        <Box sx={{ mb: 2, display: 'grid', gap: 1 }}>
          <Box>
            What the customer tried without tools. Each answer counts as evidence with its own error rates,
            until something is mended.
          </Box>
          <Box component="ul" sx={{ m: 0, pl: 2.5, color: 'text.secondary' }}>
            {checks.map((check) => (
              <li key={check.id}>
                <b>{check.name}:</b> {expectedAtHome(kind, record.profile.body, check, unitSet)}
              </li>
            ))}
          </Box>
          <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
            <Button
              href={`data:text/plain;charset=utf-8,${encodeURIComponent(blank)}`}
              download={`home-check-${tag}.txt`}
            >
              As a file to fill in
            </Button>
            <FileButton
              fileLabel="Home check that came back"
              accept=".txt,text/plain"
              onFile={(file) => void read(file)}
            >
              Read one that came back
            </FileButton>
          </Box>
          <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
            {problem}
          </Box>
        </Box>
      }
      onClose={onClose}
      onSaved={onSaved}
    />
  );
}
