'use client';

import { useState } from 'react';
import type { FieldValues, Path, UseFormSetError } from 'react-hook-form';
import { call, type Problem } from '../api';

/** Sends a form to the server and puts what it says back at the fields. Nothing typed is lost on a refusal. */
export function useSave<Form extends FieldValues>(
  setError: UseFormSetError<Form>,
  pathOf: (field: string) => string = (field) => field,
) {
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const save = async <T>(method: 'POST' | 'PUT' | 'DELETE', path: string, body: unknown): Promise<T | null> => {
    setBusy(true);
    setProblem(null);
    const answer = await call<T>(method, path, body);
    setBusy(false);
    if (answer.ok) return answer.value;
    setProblem(answer.problem);
    for (const [field, message] of Object.entries(answer.problem.fields ?? {})) {
      setError(pathOf(field) as Path<Form>, { message });
    }
    return null;
  };
  return { save, problem, busy, setProblem };
}
