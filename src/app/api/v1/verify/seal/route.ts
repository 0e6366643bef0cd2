import { whereSealed } from '@/server/altered';
import { searchOf } from '@/server/request';
import { answer } from '@/server/http';

/** The signature whose seal begins as the one typed in from a report. */
export const GET = (request: Request) => answer((db) => whereSealed(db, searchOf(request).get('seal') ?? ''));
