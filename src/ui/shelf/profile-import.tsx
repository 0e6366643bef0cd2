'use client';

import { Box, Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { upload } from '../api';

/** Takes a profile file onto the shelf. */
export function ProfileImport() {
  const router = useRouter();
  const [message, setMessage] = useState('');
  const read = async (file: File | undefined) => {
    if (!file) return;
    const answer = await upload<{ id: string }>('/profile-files', file);
    setMessage(answer.ok ? '' : `${file.name}: ${answer.problem.title}`);
    if (answer.ok) router.push(`/shelf/profiles/${answer.value.id}`);
  };
  return (
    <>
      <Box component="span" role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
        {message}
      </Box>
      <Button component="label">
        Read a profile file
        <Box
          component="input"
          type="file"
          accept=".json,application/json"
          aria-label="Profile file"
          onChange={(event: React.ChangeEvent<HTMLInputElement>) => {
            void read(event.target.files?.[0]);
            event.target.value = '';
          }}
          sx={{ position: 'absolute', opacity: 0, width: 1, height: 1 }}
        />
      </Button>
    </>
  );
}
