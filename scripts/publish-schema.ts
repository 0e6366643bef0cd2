import { writeFileSync } from 'node:fs';
import { jobFileJsonSchema } from '../src/server/openapi';
writeFileSync('docs/job-file.schema.json', JSON.stringify(jobFileJsonSchema(), null, 2) + '\n');
