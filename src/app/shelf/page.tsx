import type { Metadata } from 'next';
import { database } from '@/server/database';
import { today } from '@/server/http';
import { listInstruments, listProfiles } from '@/server/shelf';
import { leftOutWords } from '@/server/readable';
import { LeftOut } from '@/ui/altered';
import { ShelfPage } from '@/ui/shelf-page';

export const metadata: Metadata = { title: 'Shelf' };

export default async function Shelf() {
  const db = await database();
  const [profiles, instruments] = await Promise.all([listProfiles(db), listInstruments(db)]);
  return (
    <>
      <LeftOut words={leftOutWords()} />
      <ShelfPage profiles={profiles} instruments={instruments} today={today()} />
    </>
  );
}
