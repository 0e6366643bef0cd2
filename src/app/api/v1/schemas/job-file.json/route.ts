import { answer } from '@/server/http';
import { jobFileJsonSchema } from '@/server/openapi';
import { done } from '@/server/outcome';

export const GET = () => answer(() => Promise.resolve(done(jobFileJsonSchema())));
