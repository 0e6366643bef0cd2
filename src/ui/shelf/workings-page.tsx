'use client';

import { Box, Button } from '@mui/material';
import { useMemo, useState } from 'react';
import { findWorking, WORKINGS } from '@/core/workings/registry';
import { runWorking, type Working } from '@/core/contract/working';
import { unitFor } from '@/core/quantities/units';
import { bodyFrom, fieldsOf, textOf, type FormText } from '../forms/schema-fields';
import { Page } from '../page';
import { useSettings } from '../settings-context';
import { AnswerLine, WorkingField } from './working-field';

/** Every named calculation of the core, to try with one’s own numbers: the same that the screens use. */
export function WorkingsPage() {
  const [name, setName] = useState(WORKINGS[0]!.name);
  const working = findWorking(name)!;
  return (
    <Page title="Workings">
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '220px minmax(0, 1fr)' }, gap: 3 }}>
        <Box
          component="nav"
          aria-label="Workings"
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: 'repeat(auto-fill, minmax(220px, 1fr))', md: '1fr' },
            alignContent: 'start',
            justifyItems: 'start',
          }}
        >
          {WORKINGS.map((one) => (
            <Button
              key={one.name}
              onClick={() => setName(one.name)}
              aria-current={one.name === name ? 'true' : undefined}
              sx={{
                borderRadius: 0,
                borderLeft: 3,
                borderColor: one.name === name ? 'primary.main' : 'transparent',
                fontWeight: one.name === name ? 700 : 500,
                color: 'text.primary',
                textAlign: 'left',
              }}
            >
              {one.title}
            </Button>
          ))}
        </Box>
        <WorkingView key={name} working={working} />
      </Box>
    </Page>
  );
}

/** Answers beyond which the picture comes first. */
const LONG_LIST = 8;

function WorkingView({ working }: { working: Working }) {
  const { unitSet } = useSettings();
  const fields = useMemo(() => fieldsOf(working.input), [working]);
  const [text, setText] = useState<FormText>(() => textOf(fields, working.example, unitSet));
  const read = bodyFrom(fields, text, unitSet, {});
  const outcome = read.ok ? runWorking(working, read.body) : ({ ok: false, fields: read.errors } as const);
  const errors = outcome.ok ? {} : outcome.fields;
  // Drawn by our own code from numbers; every word in it is escaped there.
  const picture = outcome.ok && read.ok ? working.picture(read.body, unitSet) : '';
  return (
    // The list is longer than the screen: what was chosen at its foot is in sight beside it.
    <Box
      component="section"
      aria-label={working.title}
      sx={{ position: { md: 'sticky' }, top: { md: 16 }, alignSelf: 'start' }}
    >
      <Box component="h2" sx={{ m: 0, fontSize: '1.2rem' }}>
        {working.title}
      </Box>
      <Box sx={{ mb: 2 }}>
        {working.about}{' '}
        <Box component="span" sx={{ color: 'text.secondary' }}>
          {working.source}.
        </Box>
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', lg: '300px minmax(0, 1fr)' }, gap: 3 }}>
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr', lg: '1fr' },
            gap: 1.75,
            alignContent: 'start',
          }}
        >
          {fields.map((field) => (
            <WorkingField
              key={field.path}
              field={field}
              value={text[field.path] ?? ''}
              error={errors[field.path]}
              unit={field.quantity ? unitFor(field.quantity, unitSet).symbol : ''}
              onChange={(value) => setText({ ...text, [field.path]: value })}
            />
          ))}
        </Box>
        <Box sx={{ display: 'flex', flexDirection: 'column' }}>
          <Box
            component="dl"
            aria-live="polite"
            sx={{
              display: 'grid',
              gridTemplateColumns: 'minmax(40%, 1fr) auto',
              gap: 0.5,
              m: 0,
              mb: 2,
              minHeight: 84,
              // A long list stands below its picture.
              order: outcome.ok && outcome.answers.length > LONG_LIST ? 1 : 0,
            }}
          >
            {outcome.ok ? (
              outcome.answers.map((answer) => <AnswerLine key={answer.id} answer={answer} />)
            ) : (
              <Box sx={{ color: 'text.secondary' }}>Some fields need another look.</Box>
            )}
          </Box>
          <Box
            sx={{ '& svg': { width: '100%', height: 'auto' } }}
            dangerouslySetInnerHTML={{ __html: picture }}
          />
        </Box>
      </Box>
    </Box>
  );
}
