import { Box } from '@mui/material';
import { COMPLAINT_IDS, COMPLAINTS, HEARD } from '@/core/contract/complaints';
import type { Fault } from '@/core/contract/family';
import { Part } from '../page';

/** What is heard in a complaint, and which faults count more for it. */
export function Complaints({ faults }: { faults: readonly Fault[] }) {
  const rows = COMPLAINT_IDS.map((id) => ({
    id,
    ...COMPLAINTS[id],
    brought: faults.flatMap(({ name, brings }) => (brings?.includes(id) ? [name] : [])),
  })).filter(({ brought }) => brought.length > 0);
  if (rows.length === 0) return null;
  return (
    <Part
      title="What is heard in a complaint"
      note={`A fault that brings what is complained of counts ${HEARD} times. The words are found in whatever is written as the complaint.`}
    >
      <Box
        component="table"
        sx={{
          borderCollapse: 'collapse',
          width: '100%',
          '& th, & td': {
            textAlign: 'left',
            verticalAlign: 'top',
            py: 0.5,
            pr: 2,
            borderBottom: 1,
            borderColor: 'divider',
          },
        }}
      >
        <thead>
          <tr>
            <th scope="col">Heard</th>
            <th scope="col">In words such as</th>
            <th scope="col">Brought by</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ id, says, words, brought }) => (
            <tr key={id}>
              <th scope="row">{says}</th>
              <td>{words.map((word) => word.trim()).join(', ')}</td>
              <td>{brought.join(', ')}</td>
            </tr>
          ))}
        </tbody>
      </Box>
    </Part>
  );
}
