import { TableCell, TableHead, TableRow } from '@mui/material';

/** The head of a table: the names of its columns. */
export function Columns({ names }: { names: readonly string[] }) {
  return (
    <TableHead>
      <TableRow>
        {names.map((name) => (
          <TableCell key={name} sx={{ fontWeight: 650 }}>
            {name}
          </TableCell>
        ))}
      </TableRow>
    </TableHead>
  );
}
