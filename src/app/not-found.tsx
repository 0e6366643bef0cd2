import { LinkButton } from '@/ui/link-button';
import { Nothing, Page } from '@/ui/page';

export default function NotFound() {
  return (
    <Page title="Nothing here" narrow>
      <Nothing>
        There is no such page, job or run. It may have been typed wrong, or belong to another installation.
      </Nothing>
      <LinkButton href="/" variant="contained">
        To the bench
      </LinkButton>
    </Page>
  );
}
