'use client';

import { Box } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { upload } from '../api';
import { FileButton } from '../file-button';

/** Takes a profile file onto the shelf. */
export function ProfileImport() {
  const router = useRouter();
  const [message, setMessage] = useState('');
  const read = async (file: File) => {
    const answer = await upload<{ id: string }>('/profile-files', file);
    setMessage(answer.ok ? '' : `${file.name}: ${answer.problem.title}`);
    if (answer.ok) router.push(`/shelf/profiles/${answer.value.id}`);
  };
  return (
    <>
      <Box component="span" role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
        {message}
      </Box>
      <FileButton fileLabel="Profile file" accept=".json,application/json" onFile={(file) => void read(file)}>
        Read a profile file
      </FileButton>
    </>
  );
}
