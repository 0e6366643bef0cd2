'use client';

import { Box, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import type { FaultWeights } from '@/core/diagnosis/weights';
import { movedBy } from '@/core/families/fault-effects';
import { FAMILIES, type FamilyKind } from '@/core/families/registry';
import { CAUTIONS } from '@/core/contract/cautions';
import { faultsOf, type Fault } from '@/core/contract/family';
import { Nothing, Page } from '../page';
import { usePrint } from '../settings-context';
import { Complaints } from './complaints';
import { HowOften, WeightDialog } from './fault-weight';

interface FaultsPageProps {
  readonly profiles: readonly { id: string; kind: FamilyKind; body: { name: string } }[];
  /** How often faults count, where the shop has changed it, by kind. */
  readonly weights: Readonly<Record<string, FaultWeights>>;
}

const NO_CHANGE: FaultWeights = { weights: {}, changes: [] };

/** Every fault in plain words: what it moves on the unit chosen, what confirms it, the repair and its cautions. */
export function FaultsPage({ profiles, weights }: FaultsPageProps) {
  const print = usePrint();
  const [id, setId] = useState(profiles[0]?.id ?? '');
  const [changing, setChanging] = useState<Fault | null>(null);
  const profile = profiles.find((one) => one.id === id);
  const weighed = weights[profile?.kind ?? ''] ?? NO_CHANGE;
  return (
    <Page
      title="Faults"
      narrow
      actions={
        profiles.length > 0 && (
          <TextField
            select
            label="On this unit"
            value={id}
            onChange={(event) => setId(event.target.value)}
            sx={{ width: 260 }}
          >
            {profiles.map((one) => (
              <MenuItem key={one.id} value={one.id}>
                {one.body.name}
              </MenuItem>
            ))}
          </TextField>
        )
      }
    >
      {!profile && <Nothing>There is no profile on the shelf yet.</Nothing>}
      {profile &&
        faultsOf(FAMILIES[profile.kind], profile.body).map((fault) => {
          const moved = movedBy(FAMILIES[profile.kind], profile.body, fault);
          return (
            <Box
              component="section"
              key={fault.id}
              aria-label={fault.name}
              sx={{ py: 1.5, borderBottom: 1, borderColor: 'divider' }}
            >
              <Box
                component="h2"
                sx={{ m: 0, fontSize: '1.1rem', '&::first-letter': { textTransform: 'uppercase' } }}
              >
                {fault.name}
              </Box>
              <Box>{fault.plain}</Box>
              <Line name="What moves, when severe">
                {moved.length === 0
                  ? 'No reading; it is seen, not measured.'
                  : moved
                      .map(
                        ({ name, quantity, healthy, faulty }) =>
                          `${name.toLowerCase()} ${print.value(healthy, quantity)} → ${print.value(faulty, quantity)}`,
                      )
                      .join('; ')}
              </Line>
              <Line name="How often it is met">
                <HowOften fault={fault} weighed={weighed} onChange={() => setChanging(fault)} />
              </Line>
              <Line name="What confirms it">{fault.confirm}</Line>
              <Line name="Repair">{fault.repair}</Line>
              {fault.cautions.map((caution) => (
                <Line key={caution} name="Caution">
                  {CAUTIONS[caution].hazard} {CAUTIONS[caution].action}
                </Line>
              ))}
            </Box>
          );
        })}
      {profile && <Complaints faults={FAMILIES[profile.kind].faults} />}
      {profile && changing && (
        <WeightDialog
          kind={profile.kind}
          fault={changing}
          weighed={weighed}
          onClose={() => setChanging(null)}
        />
      )}
    </Page>
  );
}

function Line({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '190px minmax(0, 1fr)', gap: 1 }}>
      <Box sx={{ color: 'text.secondary' }}>{name}</Box>
      <Box>{children}</Box>
    </Box>
  );
}
